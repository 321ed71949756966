import { asPainted, paintPlant, SHADOW_COLOUR, shadowOf, type SeenPlant } from '@border/core'
import { color } from 'd3-color'
import { growingBox, watchedPen, type Box } from './bounds.ts'
import { canvasPen } from './canvasPen.ts'

/** A plant as it was drawn once, with room about it. */
export interface Sprite {
  canvas: HTMLCanvasElement
  /** Where its foot is, pixels of the canvas. */
  footX: number
  footY: number
  /** The part of it that is drawn on, in whole pixels. */
  drawn: Box
}

/** Sizes that differ by less are drawn alike: within a twentieth of what they are. Looks are told apart in so many steps. */
const SIZE_STEP = 1.1
/** What leans out of its outline has room for it, as a share of its size. */
const ROOM = 0.3
/** More than so many are not kept. */
const MOST = 2000

/** Sets a drawing with its foot at a point: on whole pixels, in its own size, and no more than there is of it, which is what makes it quick. */
export function placeSprite(
  ctx: CanvasRenderingContext2D,
  { canvas, footX, footY, drawn: { left, top, right, bottom } }: Sprite,
  atX: number,
  atY: number,
): void {
  const [x, y] = [Math.round(atX - footX), Math.round(atY - footY)]
  const [wide, high] = [right - left, bottom - top]
  ctx.drawImage(canvas, left, top, wide, high, x + left, y + top, wide, high)
}

const step = (share: number, steps: number): number => Math.round(share * steps) / steps
const sizeStep = (m: number): number =>
  SIZE_STEP ** Math.round(Math.log(Math.max(0.01, m)) / Math.log(SIZE_STEP))

/** Drawings of plants, each made once: the same plant in the same state is the same picture. */
export class Sprites {
  private readonly known = new Map<string, Sprite>()

  /**
   * @param pxPerM of the screen, for one metre of the plant where it stands
   * @param stands on the ground, where it casts a shadow about its foot, in a pot, or over its rim, from which it hangs
   */
  of(
    seen: SeenPlant,
    pxPerM: number,
    air: number,
    stands: 'on the ground' | 'in a pot' | 'over the rim' = 'on the ground',
  ): Sprite | undefined {
    const { look, body } = seen
    const trails = stands === 'over the rim'
    const painted = asPainted(
      {
        ...seen,
        look: {
          ...look,
          leaf: step(look.leaf, 5),
          fresh: step(look.fresh, 3),
          turned: step(look.turned, 4),
          flower: look.flower > 0 ? Math.max(0.25, step(look.flower, 4)) : 0,
          heads: look.heads > 0 ? 1 : 0,
        },
        body: { ...body, heightM: sizeStep(body.heightM), spreadM: sizeStep(body.spreadM) },
      },
      sizeStep(pxPerM),
      air,
    )
    const { body: size, look: state, pxPerM: px } = painted
    const key = [
      painted.seed,
      px,
      size.heightM,
      size.spreadM,
      painted.air,
      state.leaf,
      state.fresh,
      state.turned,
      state.flower,
      state.heads,
      state.isDull,
      state.isStraw,
      stands,
    ].join('|')
    const known = this.known.get(key)
    if (known) return known
    const shadow = shadowOf(painted)
    const wide = Math.ceil(size.spreadM * px * (1 + 2 * ROOM)) + 8
    const room = ROOM * size.heightM * px
    const high = Math.ceil(size.heightM * px + room + (trails ? room : shadow.ry)) + 8
    const canvas = document.createElement('canvas')
    canvas.width = wide
    canvas.height = high
    const ctx = canvas.getContext('2d')
    if (!ctx) return undefined
    const footX = wide / 2
    const footY = trails ? room + 4 : high - shadow.ry - 4
    ctx.translate(footX, footY)
    const { box, add } = growingBox()
    if (stands === 'on the ground') {
      ctx.fillStyle = color(SHADOW_COLOUR)!.copy({ opacity: shadow.opacity }).formatRgb()
      ctx.beginPath()
      ctx.ellipse(shadow.x, 0, shadow.rx, shadow.ry, 0, 0, 2 * Math.PI)
      ctx.fill()
      add(shadow.x, 0, shadow.rx)
    }
    paintPlant(watchedPen(canvasPen(ctx), add), { ...painted, trails })
    const drawn = {
      left: Math.max(0, Math.floor(footX + box.left) - 1),
      top: Math.max(0, Math.floor(footY + box.top) - 1),
      right: Math.min(wide, Math.ceil(footX + box.right) + 1),
      bottom: Math.min(high, Math.ceil(footY + box.bottom) + 1),
    }
    const sprite = { canvas, footX, footY, drawn }
    if (this.known.size >= MOST) this.known.delete(this.known.keys().next().value!)
    this.known.set(key, sprite)
    return sprite
  }
}
