import type { Point } from '../geometry/index.ts'
import { plantsOf, type Arrangement, type BedGround } from './arrangement.ts'
import { REACH_M } from './checks.ts'

/** A stone stands off plants by so much where it can, metres: a foot's breadth. */
const OFF_PLANTS_M = 0.15
/** Of stones that bring so nearly as much within reach the one furthest from plants is laid. */
const AS_GOOD = 0.9

/**
 * Stepping stones by which every part of a bed is within an arm's reach of them or of its edge: one after another where the most is
 * still out of reach, between plants where that makes little difference (greedy set cover; Chvátal 1979, Mathematics of Operations
 * Research 4, 233-235: never more than some logarithm of the fewest).
 */
export function stonesFor(ground: BedGround, arranged: Arrangement): Point[] {
  const { stations } = ground.of
  const plants = [...plantsOf(ground, arranged), ...ground.stays]
  const roomAt = stations.map((s) =>
    plants.reduce((least, p) => Math.min(least, Math.hypot(p.x - s.x, p.y - s.y)), Infinity),
  )
  const within = (a: Pick<(typeof stations)[number], 'x' | 'y'>, b: typeof a) =>
    Math.hypot(a.x - b.x, a.y - b.y) <= REACH_M
  let far = stations.filter((s) => s.edgeM > REACH_M)
  const stones: Point[] = []
  while (far.length > 0) {
    const brings = stations.map((s) => far.reduce((n, f) => n + Number(within(s, f)), 0))
    const most = Math.max(...brings)
    const good = [...stations.keys()].filter((c) => brings[c]! >= AS_GOOD * most)
    const rank = (c: number) => Math.min(roomAt[c]!, OFF_PLANTS_M)
    const best = good.reduce((a, b) => (rank(b) - rank(a) || brings[b]! - brings[a]!) > 0 ? b : a) // prettier-ignore
    const { x, y } = stations[best]!
    stones.push([x, y])
    far = far.filter((f) => !within(f, { x, y }))
  }
  return stones
}
