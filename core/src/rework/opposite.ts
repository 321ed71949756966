import type { Place } from '../garden/index.ts'
import { nearestOnBoundary, type Point } from '../geometry/index.ts'
import { edgeAt } from './arrangement.ts'

/** How finely the way out of a bed is looked at, metres. */
const STEP_M = 0.02

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
  for (let at = STEP_M; at <= lengthM; at += STEP_M)
    if (edgeAt({ place: from }, x + at * ux, y + at * uy) >= 0) deepM = at
  return [qx + deepM * ux, qy + deepM * uy]
}
