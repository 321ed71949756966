import { innerPoint, isInside, type Point, type Ring } from '../geometry/index.ts'

/** How deep in a bed, and how far along it, as one who stands before it says. */
export const depths = ['front', 'middle', 'back'] as const
export const sides = ['left', 'middle', 'right'] as const
export type Depth = (typeof depths)[number]
export type SideOf = (typeof sides)[number]

const DEG = Math.PI / 180
/** Shares of the way from the front to the back, and from left to right. */
const SHARE = [1 / 6, 1 / 2, 5 / 6] as const

/**
 * “Front left”, when nobody measures: a point inside a bed, as seen by one who looks at it.
 *
 * @param fromDeg where that one stands, degrees clockwise from up the plan
 * @param nth of several that stand alike: each a little further along, so that none lies on another
 */
export function roughSpot(ring: Ring, depth: Depth, side: SideOf, fromDeg: number, nth = 0): Point {
  // Away from the onlooker, and to their right.
  const away: Point = [-Math.sin(fromDeg * DEG), -Math.cos(fromDeg * DEG)]
  const right: Point = [away[1], -away[0]]
  const along = (p: Point, by: Point) => p[0] * by[0] + p[1] * by[1]
  const reach = (by: Point) => {
    const all = ring.map((p) => along(p, by))
    return [Math.min(...all), Math.max(...all)] as const
  }
  const [[l0, l1], [d0, d1]] = [reach(right), reach(away)]
  // Golden steps: the next is never where one has been.
  const step = nth === 0 ? 0 : (((nth * 0.618034) % 1) - 0.5) / 4
  const across = SHARE[sides.indexOf(side)]! + step
  const wanted = SHARE[depths.indexOf(depth)]!
  // The strip of the bed at this place along it, from its own front to its own back.
  const at = (share: number, deep: number): Point => {
    const [l, d] = [l0 + share * (l1 - l0), d0 + deep * (d1 - d0)]
    return [right[0] * l + away[0] * d, right[1] * l + away[1] * d]
  }
  const LOOKED = 60
  const strip = Array.from({ length: LOOKED }, (_, i) => (i + 0.5) / LOOKED).filter((deep) =>
    isInside(ring, ...at(across, deep)),
  )
  if (strip.length === 0) return innerPoint(ring)
  const deep = strip[Math.min(strip.length - 1, Math.floor(wanted * strip.length))]!
  return at(across, deep)
}
