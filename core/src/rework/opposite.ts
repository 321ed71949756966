import type { Place } from '../garden/index.ts'
import { metresOutside, nearestOnBoundary, type Point } from '../geometry/index.ts'

/** How finely the way out of a bed is looked at, metres. */
const STEP_M = 0.02

const isWithin = (place: Place, x: number, y: number): boolean =>
  metresOutside(place.kind === 'bed' ? { ring: place.ring } : place, x, y) <= 0

/**
 * The point of another place that lies opposite one of this: straight over the shortest way between, and as deep in the one as that is in
 * the other, so that plants answer each other across a path.
 */
export function opposite(from: Place, [x, y]: Point, to: Place): Point {
  if (to.kind !== 'bed') return [to.x, to.y]
  const [qx, qy] = nearestOnBoundary(to.ring, [x, y])
  const lengthM = Math.hypot(qx - x, qy - y)
  if (lengthM === 0) return [x, y]
  const [ux, uy] = [(qx - x) / lengthM, (qy - y) / lengthM]
  let deepM = 0
  for (let at = STEP_M; at <= lengthM; at += STEP_M) if (isWithin(from, x + at * ux, y + at * uy)) deepM = at
  return [qx + deepM * ux, qy + deepM * uy]
}
