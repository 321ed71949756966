import {
  groundRise,
  type Backdrop,
  type FrontView,
  type SeenBeyond,
  type SeenGround,
  type SeenPlant,
  type SeenPot,
  type SeenTree,
} from '../frontView/index.ts'
import { seededRandom, seedOf } from '../random/index.ts'
import { FAR_AIR, mixed } from './light.ts'
import { ovalPath, rectPath, ringPath, type GroundPainter, type Painter } from './painter.ts'
import { paintPlant, type Painted } from './paintPlant.ts'
import { paintVessel } from './paintVessel.ts'

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

/** How high the tallest plant of a view reaches, metres of its plane; a bare bed is framed like a low one. */
export const tallestM = ({ plants }: FrontView): number =>
  Math.max(0.8, ...plants.map((p) => p.y + p.scale * p.body.heightM))

/**
 * Fits a bed into a picture by its height.
 *
 * @param width that there is: the picture is as wide as the bed, or as that
 * @param ratio pixels of the screen for one of the page
 * @param isWhole all of the bed is within the width, as on paper, where nobody looks along it
 */
export function framing(
  view: FrontView,
  backdrop: readonly Backdrop[],
  width: number,
  height: number,
  ratio = 1,
  isWhole = false,
): Framing {
  const plants = tallestM(view)
  const behind = Math.max(0, ...backdrop.flatMap((b) => b.top.map(([, y]) => y)))
  const top = Math.max(plants, Math.min(behind, plants + BACKDROP_ABOVE_M)) + ABOVE_M
  const bedM = view.ground.rightM - view.ground.leftM + 2 * BESIDE_M
  // As large as the height allows, with a good stretch of it to be seen: a long bed is wider than the picture, and is looked along.
  const asHigh = Math.min(
    height / (top + PATH_M),
    width / (width < PHONE_PX * ratio ? LEAST_ON_PHONE_M : LEAST_SHOWN_M),
  )
  const pxPerM = Math.min(
    MOST_PX_PER_M * ratio,
    isWhole ? Math.min(width / bedM, height / (top + PATH_M)) : Math.max(width / bedM, asHigh),
  )
  const whole = Math.max(width, Math.ceil(bedM * pxPerM))
  return framed(whole, height, pxPerM)
}

/** A view in a picture of a size, its path along the foot of that. */
export function framed(width: number, height: number, pxPerM: number): Framing {
  const foot = height - PATH_M * pxPerM
  return { width, height, pxPerM, x: (m) => width / 2 + m * pxPerM, y: (m) => foot - m * pxPerM }
}

/** A stretch of a picture: so wide, from so far along it. */
export const framedFrom = (frame: Framing, leftPx: number, width: number): Framing => ({
  ...frame,
  width,
  x: (m) => frame.x(m) - leftPx,
})

const SKIES = { winter: ['#d9dcdb', '#ecebe4'], summer: ['#dce8ec', '#eff0ea'] } as const
const GRASS = '#b9c59b'
const WINTER_GRASS = '#b6b899'
const SOIL = ['#8a6f57', '#6b5340'] as const
const PATH = '#d4c7b1'
const backdropColours: Readonly<Record<Backdrop['kind'], string>> = {
  wall: '#cdbca4',
  fence: '#a98f70',
  hedge: '#66804f',
  building: '#dccfbd',
  tree: '#6f8a58',
}

/** Draws what does not change with the weeks: sky, backdrop, ground and path. */
export function paintGround(
  painter: GroundPainter,
  { standpoint, deepM, outline, bedsBeyond }: SeenGround,
  backdrop: readonly Backdrop[],
  frame: Framing,
  isWinter: boolean,
): void {
  const { width, height, x, y } = frame
  const [above, below] = SKIES[isWinter ? 'winter' : 'summer']
  const horizon = y(Math.min(standpoint.eyeM, groundRise(standpoint, 60)))
  painter.fade(0, 0, width, height, [
    [0, above],
    [Math.max(0, Math.min(1, y(standpoint.eyeM * 0.4) / height)), below],
  ])
  // The ground goes on to the horizon, at the height of the eye.
  painter.path(rectPath(0, horizon, width, height - horizon), { fill: isWinter ? WINTER_GRASS : GRASS })
  for (const bed of bedsBeyond)
    painter.path(ringPath(bed.map(([px, py]) => [x(px), y(py)])), { fill: mixed(SOIL[0], FAR_AIR, 0.3) })
  for (const b of backdrop) paintBackdrop(painter, b, frame)
  const far = y(groundRise(standpoint, deepM))
  painter.within(ringPath(outline.map(([px, py]) => [x(px), y(py)])), () =>
    painter.fade(0, far, width, Math.max(1, y(0) - far), [
      [0, SOIL[0]],
      [1, SOIL[1]],
    ]),
  )
  painter.path(rectPath(0, y(0), width, height - y(0)), { fill: PATH })
}

/** Air is told apart in so many steps. */
const AIR_STEPS = 2

/** How soft the air is between the eye and a plant, 0 to 1, in steps. */
export const airBefore = (p: SeenPlant, { ground: { standpoint, deepM } }: FrontView): number =>
  deepM > 0
    ? Math.round(AIR_STEPS * Math.min(1, (p.depthM - standpoint.awayM) / Math.max(4, deepM))) / AIR_STEPS
    : 0

/** Whether anything of a plant lies within a picture. */
export const isInFrame = (p: SeenPlant, { x, width, pxPerM }: Framing): boolean => {
  const reach = p.scale * p.body.spreadM * pxPerM
  return x(p.x) >= -reach && x(p.x) <= width + reach
}

/** Of how wide it is, so deep is the shadow of a plant as it is seen. */
const SHADOW = 0.07

/** The shadow of a plant on the ground, paler in the distance: about its foot, half as wide as the plant and a little aside. */
export function shadowOf({ body, pxPerM, air }: Pick<Painted, 'body' | 'pxPerM' | 'air'>) {
  const wide = body.spreadM * pxPerM
  return { x: 0.04 * wide, rx: 0.46 * wide, ry: Math.max(1.5, SHADOW * wide), opacity: 0.3 - 0.14 * air }
}
export const SHADOW_COLOUR = '#221b14'

/** Draws what stands behind a bed, and its plants, into a file, from the farthest to the nearest, in softer air the farther they are. */
export function paintPlants(
  painter: Pick<Painter, 'path' | 'stamp' | 'within'>,
  view: FrontView,
  frame: Framing,
): void {
  for (const b of view.beyond) {
    const draw = () => ('pot' in b ? paintPot(painter, b, frame) : paintSeen(painter, b, view, frame))
    const shown = shownOf(b, frame)
    if (shown === undefined) draw()
    else painter.within(shown, draw)
  }
  for (const p of view.plants) paintSeen(painter, p, view, frame)
}

/** What is not hidden of something that stands behind a bed, as an outline; undefined where all of it is seen. */
export const shownOf = ({ y, hiddenBelow }: SeenBeyond, frame: Framing): string | undefined =>
  hiddenBelow > y ? rectPath(0, 0, frame.width, Math.max(0, frame.y(hiddenBelow))) : undefined

function paintSeen(
  painter: Pick<Painter, 'path' | 'stamp'>,
  p: SeenPlant,
  view: FrontView,
  frame: Framing,
): void {
  if (!isInFrame(p, frame)) return
  const [footX, footY] = [frame.x(p.x), frame.y(p.y)]
  const air = airBefore(p, view)
  // Drawn as at the front edge, and set smaller behind.
  const painted = asPainted(p, frame.pxPerM, air)
  const { x, rx, ry, opacity } = shadowOf(painted)
  painter.path(ovalPath(footX + p.scale * x, footY, p.scale * rx, p.scale * ry), {
    fill: SHADOW_COLOUR,
    opacity,
  })
  const { heightM, spreadM } = p.body
  painter.stamp(
    {
      name: [painted.seed, air, heightM.toFixed(3), spreadM.toFixed(3), frame.pxPerM.toFixed(1)].join(' '),
      reach: 1.5 * Math.max(heightM, spreadM) * frame.pxPerM + 12,
      draw: (pen) => paintPlant(pen, painted),
    },
    footX,
    footY,
    p.scale,
  )
}

/** Draws a pot that stands behind a bed, in softer air. */
export const paintPot = (
  painter: Pick<Painter, 'path'>,
  { pot: { look, rimHeightM }, x, y, scale }: SeenPot,
  frame: Framing,
): void => {
  const pxPerM = scale * frame.pxPerM
  const middle = frame.x(x)
  const half = (look.acrossM / 2) * pxPerM
  if (middle < -half || middle > frame.width + half) return
  // What it stands on is not drawn: as high as its rim.
  paintVessel(painter, { ...look, highM: rimHeightM }, { x: middle, y: frame.y(y), pxPerM, air: 0.22 })
}

/** So many plants of a kind that look different. */
const VARIANTS = 4

/** A plant as it is painted. @param pxPerM of the picture, for one metre of the plant where it stands */
export const asPainted = ({ plant, look, body }: SeenPlant, pxPerM: number, air: number): Painted => ({
  taxon: plant.taxon,
  look,
  body,
  pxPerM,
  seed: seedOf(plant.taxon.botanical) + (seedOf(plant.id) % VARIANTS),
  air,
})

function paintBackdrop(painter: GroundPainter, b: Backdrop, frame: Framing): void {
  if (b.tree) return paintTree(painter, b, b.tree, frame)
  const { x, y, pxPerM } = frame
  const base = backdropColours[b.kind]
  const outline = ringPath([...b.top, ...b.foot.toReversed()].map(([px, py]) => [x(px), y(py)]))
  const xs = b.top.map(([px]) => px)
  const [left, right] = [Math.min(...xs), Math.max(...xs)]
  const low = Math.min(...b.foot.map(([, py]) => py))
  const high = Math.max(...b.top.map(([, py]) => py))
  const random = seededRandom(seedOf(b.name))
  painter.path(outline, { fill: base })
  painter.within(outline, () => {
    if (b.kind === 'wall' || b.kind === 'building') {
      // Courses of bricks, each a little lighter or darker.
      const [course, brick] = [0.075, 0.24]
      for (let row = 0, at = low; at < high; at += course, row++)
        for (let px = left - (row % 2 === 0 ? 0 : brick / 2); px < right; px += brick) {
          const fill = mixed(base, random() < 0.5 ? '#8d7458' : '#efe6d6', 0.16 * random())
          painter.path(rectPath(x(px), y(at + course), brick * pxPerM - 1, course * pxPerM - 1), { fill })
        }
    } else if (b.kind === 'fence') {
      for (let px = left; px < right; px += 0.14) {
        const fill = mixed(base, random() < 0.5 ? '#6d563c' : '#d6c2a2', 0.25 * random())
        painter.path(rectPath(x(px), y(high), 0.14 * pxPerM - 1, (high - low) * pxPerM), { fill })
      }
    } else {
      for (let i = 0; i < HEDGE_LEAVES; i++) {
        const [px, py] = [left + random() * (right - left), low + random() * (high - low)]
        const fill = mixed(
          base,
          random() < 0.5 ? '#2f4030' : '#a9bd7c',
          0.5 * random() * (0.5 + (py - low) / (high - low)),
        )
        painter.path(ovalPath(x(px), y(py), 3.2, 1.6, 6 * random()), { fill })
      }
    }
    // What stands against it is in its shade below.
    painter.fade(x(left), y(low + 0.5), (right - left) * pxPerM, 0.5 * pxPerM, [
      [0, '#282018', 0],
      [1, '#282018', 0.28],
    ])
  })
}
/** So many tell a hedge from a wall. */
const HEDGE_LEAVES = 2200

/** Trees are behind, in softer air. */
const TRUNK = mixed('#7a6a58', FAR_AIR, 0.25)
/** So many tell a crown from a balloon, and bare branches from a bush. */
const TREE_LEAVES = 3200
const TREE_BRANCHES = 90

/** How wide a crown is, of its widest, so far up: 0 at its foot to 1 at its top. */
const crownWidth: Readonly<Record<SeenTree['crownShape'], (t: number) => number>> = {
  ellipsoid: (t) => Math.sqrt(Math.max(0, 1 - (2 * t - 1) ** 2)),
  cone: (t) => 1 - t,
  column: (t) => Math.min(1, 4 * t, 3 * (1 - t)),
}

/** A tree behind a bed: its trunk, and its crown in leaf or bare. */
function paintTree(painter: GroundPainter, b: Backdrop, tree: SeenTree, { x, y, pxPerM }: Framing): void {
  const [[footX, footY], [, topY]] = [b.foot[0]!, b.top[0]!]
  const random = seededRandom(seedOf(b.name))
  const { clearStemM, crownRadiusM, trunkRadiusM, crownShape, isBare } = tree
  const crownM = topY - footY - clearStemM
  const half = Math.max(1, trunkRadiusM * pxPerM)
  const [trunkX, trunkTop] = [x(footX), y(footY + clearStemM + 0.6 * crownM)]
  painter.path(
    ringPath([
      [trunkX - half, y(footY)],
      [trunkX + half, y(footY)],
      [trunkX + 0.4 * half, trunkTop],
      [trunkX - 0.4 * half, trunkTop],
    ]),
    { fill: TRUNK },
  )
  const inCrown = (): { u: number; t: number; at: [x: number, y: number] } => {
    const [u, t] = [2 * random() - 1, random()]
    const wide = crownRadiusM * crownWidth[crownShape](t)
    return { u, t, at: [x(footX + u * wide), y(footY + clearStemM + t * crownM)] }
  }
  for (let i = 0; i < TREE_BRANCHES; i++) {
    const { t, at } = inCrown()
    const [fromX, fromY] = [trunkX, y(footY + clearStemM + 0.55 * t * crownM)]
    painter.path(
      `M${fromX.toFixed(1)} ${fromY.toFixed(1)}Q${((fromX + at[0]) / 2).toFixed(1)} ${at[1].toFixed(1)} ${at[0].toFixed(1)} ${at[1].toFixed(1)}`,
      { line: TRUNK, width: Math.max(0.5, 0.22 * half * (1 - t)) },
    )
  }
  if (isBare) return
  const leaf = Math.max(1.4, 0.034 * pxPerM * Math.sqrt(crownRadiusM))
  const leaves = Array.from({ length: TREE_LEAVES }, inCrown)
  for (const { u, t, at } of leaves) {
    const light = 0.5 * (t - 0.5) - 0.35 * u + 0.3 * (random() - 0.5)
    const lit = mixed(backdropColours.tree, light < 0 ? '#2f4030' : '#c3d08c', Math.min(0.6, Math.abs(light)))
    const fill = mixed(lit, FAR_AIR, 0.22)
    painter.path(ovalPath(at[0], at[1], leaf, 0.6 * leaf, 6 * random()), { fill })
  }
}
