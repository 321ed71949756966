import { groundRise, seededRandom, seedOf, type Backdrop, type FrontView } from '@border/core'
import { mixed } from './light.ts'
import type { Sprites } from './sprites.ts'

/** How a view lies in a picture. */
export interface Framing {
  width: number
  height: number
  /** Pixels for one metre of the plane of the front edge. */
  pxPerM: number
  /** Of a point of that plane. */
  x: (m: number) => number
  y: (m: number) => number
}

/** Room to the left and right of a bed, above what is tallest, and of the path before it, metres. */
const BESIDE_M = 0.5
const ABOVE_M = 0.35
const PATH_M = 0.35
/** Tall backdrops are cut off rather than making the plants small: so much above the tallest plant is shown of them. */
const BACKDROP_ABOVE_M = 0.6

/** Larger than life on paper no plant needs to be. */
const MOST_PX_PER_M = 190

/** So much of a long bed is seen at once, metres; less of it where the picture is as narrow as a phone, pixels. */
const LEAST_SHOWN_M = 6.5
const LEAST_ON_PHONE_M = 3.6
const PHONE_PX = 500

/**
 * Fits a bed into a picture by its height.
 *
 * @param width that there is: the picture is as wide as the bed, or as that
 * @param ratio pixels of the screen for one of the page
 */
export function framing(
  view: FrontView,
  backdrop: readonly Backdrop[],
  width: number,
  height: number,
  ratio = 1,
): Framing {
  const plants = Math.max(0.8, ...view.plants.map((p) => p.y + p.scale * p.body.heightM))
  const behind = Math.max(0, ...backdrop.flatMap((b) => b.top.map(([, y]) => y)))
  const top = Math.max(plants, Math.min(behind, plants + BACKDROP_ABOVE_M)) + ABOVE_M
  const bedM = view.rightM - view.leftM + 2 * BESIDE_M
  // As large as the height allows, with a good stretch of it to be seen: a long bed is wider than the picture, and is looked along.
  const asHigh = Math.min(
    height / (top + PATH_M),
    width / (width < PHONE_PX * ratio ? LEAST_ON_PHONE_M : LEAST_SHOWN_M),
  )
  const pxPerM = Math.min(MOST_PX_PER_M * ratio, Math.max(width / bedM, asHigh))
  const whole = Math.max(width, Math.ceil(bedM * pxPerM))
  const foot = height - PATH_M * pxPerM
  return { width: whole, height, pxPerM, x: (m) => whole / 2 + m * pxPerM, y: (m) => foot - m * pxPerM }
}

/** A stretch of a picture: so wide, from so far along it. */
export const framedFrom = (frame: Framing, leftPx: number, width: number): Framing => ({
  ...frame,
  width,
  x: (m) => frame.x(m) - leftPx,
})

type Ctx = CanvasRenderingContext2D

const SKIES = { winter: ['#d9dcdb', '#ecebe4'], summer: ['#dce8ec', '#eff0ea'] } as const
const GRASS = '#b9c59b'
const WINTER_GRASS = '#b6b899'
const SOIL = ['#6b5340', '#8a6f57'] as const
const PATH = '#d4c7b1'
const backdropColours: Readonly<Record<Backdrop['kind'], string>> = {
  wall: '#cdbca4',
  fence: '#a98f70',
  hedge: '#66804f',
  building: '#dccfbd',
}

/** Draws what does not change with the weeks: sky, backdrop, ground and path. */
export function paintGround(
  ctx: Ctx,
  view: FrontView,
  backdrop: readonly Backdrop[],
  frame: Framing,
  isWinter: boolean,
): void {
  const { width, height, x, y } = frame
  const { standpoint, deepM, ground } = view
  const sky = ctx.createLinearGradient(0, 0, 0, y(standpoint.eyeM * 0.4))
  SKIES[isWinter ? 'winter' : 'summer'].forEach((c, i) => sky.addColorStop(i, c))
  ctx.fillStyle = sky
  ctx.fillRect(0, 0, width, height)
  // The ground goes on to the horizon, at the height of the eye.
  ctx.fillStyle = isWinter ? WINTER_GRASS : GRASS
  const horizon = Math.min(standpoint.eyeM, groundRise(standpoint, 60))
  ctx.fillRect(0, y(horizon), width, height)
  for (const b of backdrop) paintBackdrop(ctx, b, frame)
  const soil = ctx.createLinearGradient(0, y(groundRise(standpoint, deepM)), 0, y(0))
  SOIL.toReversed().forEach((c, i) => soil.addColorStop(i, c))
  ctx.fillStyle = soil
  ctx.beginPath()
  ground.forEach(([px, py], i) => (i === 0 ? ctx.moveTo(x(px), y(py)) : ctx.lineTo(x(px), y(py))))
  ctx.fill()
  ctx.fillStyle = PATH
  ctx.fillRect(0, y(0), width, height - y(0))
}

/** Draws the plants of a bed from the farthest to the nearest, in softer air the farther they are. @param chosen the others are faded */
export function paintPlants(
  ctx: Ctx,
  { plants, standpoint, deepM }: FrontView,
  { x, y, width, pxPerM }: Framing,
  sprites: Sprites,
  chosen?: string,
): void {
  for (const p of plants) {
    const air = deepM > 0 ? Math.min(1, (p.depthM - standpoint.awayM) / Math.max(4, deepM)) : 0
    const [footX, footY] = [x(p.x), y(p.y)]
    const reach = p.scale * p.body.spreadM * pxPerM
    if (footX < -reach || footX > width + reach) continue
    const sprite = sprites.of(p, p.scale * pxPerM, air)
    if (!sprite) continue
    const isFaded = chosen !== undefined && p.plant.groupId !== chosen
    if (isFaded) ctx.globalAlpha = 0.45
    // On whole pixels and in its own size, which is what makes it quick.
    ctx.drawImage(sprite.canvas, Math.round(footX - sprite.footX), Math.round(footY - sprite.footY))
    if (isFaded) ctx.globalAlpha = 1
  }
}

function paintBackdrop(ctx: Ctx, b: Backdrop, { x, y, pxPerM }: Framing): void {
  const base = backdropColours[b.kind]
  const outline = new Path2D()
  ;[...b.top, ...b.foot.toReversed()].forEach(([px, py], i) =>
    i === 0 ? outline.moveTo(x(px), y(py)) : outline.lineTo(x(px), y(py)),
  )
  outline.closePath()
  ctx.save()
  ctx.fillStyle = base
  ctx.fill(outline)
  ctx.clip(outline)
  const xs = b.top.map(([px]) => px)
  const [left, right] = [Math.min(...xs), Math.max(...xs)]
  const low = Math.min(...b.foot.map(([, py]) => py))
  const high = Math.max(...b.top.map(([, py]) => py))
  const random = seededRandom(seedOf(b.name))
  if (b.kind === 'wall' || b.kind === 'building') {
    // Courses of bricks, each a little lighter or darker.
    const [course, brick] = [0.075, 0.24]
    for (let row = 0, at = low; at < high; at += course, row++)
      for (let px = left - (row % 2 === 0 ? 0 : brick / 2); px < right; px += brick) {
        ctx.fillStyle = mixed(base, random() < 0.5 ? '#8d7458' : '#efe6d6', 0.16 * random())
        ctx.fillRect(x(px), y(at + course), brick * pxPerM - 1, course * pxPerM - 1)
      }
  } else if (b.kind === 'fence') {
    for (let px = left; px < right; px += 0.14) {
      ctx.fillStyle = mixed(base, random() < 0.5 ? '#6d563c' : '#d6c2a2', 0.25 * random())
      ctx.fillRect(x(px), y(high), 0.14 * pxPerM - 1, (high - low) * pxPerM)
    }
  } else {
    for (let i = 0; i < 2200; i++) {
      const [px, py] = [left + random() * (right - left), low + random() * (high - low)]
      ctx.fillStyle = mixed(
        base,
        random() < 0.5 ? '#2f4030' : '#a9bd7c',
        0.5 * random() * (0.5 + (py - low) / (high - low)),
      )
      ctx.beginPath()
      ctx.ellipse(x(px), y(py), 3.2, 1.6, 6 * random(), 0, 2 * Math.PI)
      ctx.fill()
    }
  }
  // What stands against it is in its shade below.
  const shade = ctx.createLinearGradient(0, y(low), 0, y(low + 0.5))
  shade.addColorStop(0, 'rgba(40, 32, 24, 0.28)')
  shade.addColorStop(1, 'rgba(40, 32, 24, 0)')
  ctx.fillStyle = shade
  ctx.fillRect(x(left), y(high), (right - left) * pxPerM, (high - low) * pxPerM)
  ctx.restore()
}
