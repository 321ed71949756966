import { seedOf, type SeenPlant } from '@border/core'
import { paintPlant } from './paintPlant.ts'
import { canvasPen } from './pen.ts'

/** A plant as it was drawn once, with room about it. */
export interface Sprite {
  canvas: HTMLCanvasElement
  /** Where its foot is, pixels of the canvas. */
  footX: number
  footY: number
}

/** So many plants of a kind that look different. */
const VARIANTS = 4
/** Sizes that differ by less are drawn alike: within a twentieth of what they are. Looks are told apart in so many steps. */
const SIZE_STEP = 1.1
const AIR_STEPS = 2
/** What leans out of its outline has room for it, as a share of its size. */
const ROOM = 0.3
/** Of how wide it is, so deep is the shadow of a plant as it is seen. */
const SHADOW = 0.07
/** More than so many are not kept. */
const MOST = 2000

const step = (share: number, steps: number): number => Math.round(share * steps) / steps
const sizeStep = (m: number): number =>
  SIZE_STEP ** Math.round(Math.log(Math.max(0.01, m)) / Math.log(SIZE_STEP))

/** Drawings of plants, each made once: the same plant in the same state is the same picture. */
export class Sprites {
  private readonly known = new Map<string, Sprite>()

  /** @param pxPerM of the screen, for one metre of the plant where it stands */
  of({ plant, look, body }: SeenPlant, pxPerM: number, air: number): Sprite | undefined {
    const px = sizeStep(pxPerM)
    const variant = seedOf(plant.id) % VARIANTS
    const state = {
      leaf: step(look.leaf, 5),
      fresh: step(look.fresh, 3),
      turned: step(look.turned, 4),
      flower: look.flower > 0 ? Math.max(0.25, step(look.flower, 4)) : 0,
      heads: look.heads > 0 ? 1 : 0,
      isDull: look.isDull,
      isStraw: look.isStraw,
    }
    const size = { heightM: sizeStep(body.heightM), spreadM: sizeStep(body.spreadM) }
    const airStep = step(air, AIR_STEPS)
    const key = [
      plant.taxon.botanical,
      px,
      size.heightM,
      size.spreadM,
      airStep,
      variant,
      ...Object.values(state),
    ].join('|')
    const known = this.known.get(key)
    if (known) return known
    const wide = Math.ceil(size.spreadM * px * (1 + 2 * ROOM)) + 8
    const deep = Math.max(1.5, SHADOW * size.spreadM * px)
    const high = Math.ceil(size.heightM * px * (1 + ROOM) + deep) + 8
    const canvas = document.createElement('canvas')
    canvas.width = wide
    canvas.height = high
    const ctx = canvas.getContext('2d')
    if (!ctx) return undefined
    const footX = wide / 2
    const footY = high - deep - 4
    ctx.translate(footX, footY)
    // Its shadow on the ground, paler in the distance.
    ctx.fillStyle = `rgba(34, 27, 20, ${0.3 - 0.14 * airStep})`
    ctx.beginPath()
    ctx.ellipse(0.04 * size.spreadM * px, 0, 0.46 * size.spreadM * px, deep, 0, 0, 2 * Math.PI)
    ctx.fill()
    paintPlant(canvasPen(ctx), {
      taxon: plant.taxon,
      look: { height: look.height, ...state },
      body: { ...body, ...size },
      pxPerM: px,
      seed: seedOf(plant.taxon.botanical) + variant,
      air: airStep,
    })
    const sprite = { canvas, footX, footY }
    if (this.known.size >= MOST) this.known.delete(this.known.keys().next().value!)
    this.known.set(key, sprite)
    return sprite
  }
}
