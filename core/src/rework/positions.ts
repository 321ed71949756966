import { sum } from 'd3-array'
import type { Point } from '../geometry/index.ts'
import type { Assignment, LayoutProblem } from './layout.ts'

/** A plant where it is set. */
export interface SetPlant {
  driftId: string
  x: number
  y: number
}

/** Every cell is looked at in so many by so many points. */
const WITHIN = 3
const ROUNDS = 40

/**
 * A position for every plant of a layout, evenly spread over the ground of its drift: centroidal (Lloyd 1982, IEEE Transactions on
 * Information Theory 28, 129-137), which settles near a triangular grid, from points as far from each other as they can be.
 *
 * @param isGround whether a plant of a drift, by its turn, can stand at a point: cells at the edge reach beyond it
 * @returns in the order of the drifts; of a drift without ground none
 */
export function positionsOf(
  { cells, cellM, drifts }: LayoutProblem,
  has: Assignment,
  isGround: (x: number, y: number, drift: number) => boolean = () => true,
): SetPlant[] {
  return drifts.flatMap(({ id, count }, k) => {
    const own = cells.flatMap((c, i): Point[] => (has[i] === k ? within(c, cellM) : []))
    const inside = own.filter(([x, y]) => isGround(x, y, k))
    const ground = inside.length >= count ? inside : own
    return spread(ground, count).map(([x, y]): SetPlant => ({ driftId: id, x, y }))
  })
}

const within = ({ x, y }: { x: number; y: number }, cellM: number): Point[] => {
  const at = (i: number) => ((i + 0.5) / WITHIN - 0.5) * cellM
  return Array.from({ length: WITHIN ** 2 }, (_, i): Point => [
    x + at(i % WITHIN),
    y + at(Math.floor(i / WITHIN)),
  ])
}

/** So many points over some ground, each in the middle of what is nearest to it. */
function spread(ground: readonly Point[], count: number): Point[] {
  if (ground.length === 0) return []
  const middle: Point = [sum(ground, (p) => p[0]) / ground.length, sum(ground, (p) => p[1]) / ground.length]
  const apart = (a: Point, b: Point) => (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2
  if (count === 1) return [nearestOf(ground, middle)]
  // The first is furthest from the middle, each next furthest from those there are.
  const [xs, ys] = [Float64Array.from(ground, (p) => p[0]), Float64Array.from(ground, (p) => p[1])]
  const nearest = Float64Array.from(ground, (p) => apart(p, middle))
  const points: Point[] = []
  while (points.length < Math.min(count, ground.length)) {
    let far = 0
    for (let i = 1; i < nearest.length; i++) if (nearest[i]! > nearest[far]!) far = i
    const [x, y] = ground[far]!
    const isFirst = points.length === 0
    points.push([x, y])
    for (let i = 0; i < nearest.length; i++) {
      const m2 = (xs[i]! - x) ** 2 + (ys[i]! - y) ** 2
      if (isFirst || m2 < nearest[i]!) nearest[i] = m2
    }
  }
  return settled(xs, ys, points)
}

/** Nearer than this two distances are not told apart by a bound, metres: they are reckoned. */
const TOLD_APART_M = 1e-9

/**
 * Points moved into the middle of what is nearest to them, again and again. What is surely still nearest is not looked for: no other
 * can have come nearer than the next nearest was, less the way that the points have gone since (Hamerly 2010, SIAM Data Mining, 130-140).
 */
function settled(xs: Float64Array, ys: Float64Array, points: readonly Point[]): Point[] {
  const px = Float64Array.from(points, (p) => p[0])
  const py = Float64Array.from(points, (p) => p[1])
  const owner = new Int32Array(xs.length)
  const nextM = new Float64Array(xs.length)
  for (let round = 0; round < ROUNDS; round++) {
    const sx = new Float64Array(px.length)
    const sy = new Float64Array(px.length)
    const n = new Float64Array(px.length)
    for (let g = 0; g < xs.length; g++) {
      const [x, y] = [xs[g]!, ys[g]!]
      const own = owner[g]!
      if (Math.sqrt((x - px[own]!) ** 2 + (y - py[own]!) ** 2) >= nextM[g]! - TOLD_APART_M) {
        let [best, next] = [Infinity, Infinity]
        for (let i = 0; i < px.length; i++) {
          const m2 = (x - px[i]!) ** 2 + (y - py[i]!) ** 2
          if (m2 < best) {
            next = best
            best = m2
            owner[g] = i
          } else if (m2 < next) next = m2
        }
        nextM[g] = Math.sqrt(next)
      }
      const i = owner[g]!
      sx[i]! += x
      sy[i]! += y
      n[i]!++
    }
    let furthestM = 0
    for (let i = 0; i < px.length; i++) {
      if (n[i] === 0) continue
      const [x, y] = [sx[i]! / n[i]!, sy[i]! / n[i]!]
      furthestM = Math.max(furthestM, Math.hypot(x - px[i]!, y - py[i]!))
      px[i] = x
      py[i] = y
    }
    if (furthestM === 0) break
    for (let g = 0; g < nextM.length; g++) nextM[g]! -= furthestM
  }
  return Array.from(px, (x, i): Point => [x, py[i]!])
}

const nearestOf = (ground: readonly Point[], to: Point): Point =>
  ground.reduce((a, b) =>
    Math.hypot(b[0] - to[0], b[1] - to[1]) < Math.hypot(a[0] - to[0], a[1] - to[1]) ? b : a,
  )

/** A plant as it is set out by tape: so far along a base line from its first end, and so far off it. */
export interface Offset extends SetPlant {
  number: number
  alongM: number
  /** To the left of the line, looking along it; to the right below nothing. */
  offM: number
}

/** Offsets from a base line, in the order in which they come along it, numbered from 1. */
export function offsetsFrom(plants: readonly SetPlant[], from: Point, to: Point): Offset[] {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1])
  const [ux, uy] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length]
  return plants
    .map((p) => {
      const [dx, dy] = [p.x - from[0], p.y - from[1]]
      return { ...p, alongM: dx * ux + dy * uy, offM: dy * ux - dx * uy }
    })
    .sort((a, b) => a.alongM - b.alongM || a.offM - b.offM)
    .map((p, i) => ({ ...p, number: i + 1 }))
}
