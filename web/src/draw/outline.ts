import { signedArea, type Point } from '@border/core'

/** A side of an outline as it is measured on the ground: its length and where it heads, clockwise from up the plan. */
export interface Side {
  lengthM: number
  bearingDeg: number
}

const DEG = Math.PI / 180
/** From 0 to 360. */
export const turned = (deg: number) => ((deg % 360) + 360) % 360

/** Sides between corners, in order; for a closed outline of three corners or more the closing one too. */
export function sidesOf(corners: readonly Point[], closed: boolean): Side[] {
  const n = corners.length
  const count = closed && n > 2 ? n : Math.max(0, n - 1)
  return Array.from({ length: count }, (_, i) => sideBetween(corners[i]!, corners[(i + 1) % n]!))
}

export function sideBetween(a: Point, b: Point): Side {
  const dx = b[0] - a[0]
  const dy = b[1] - a[1]
  return { lengthM: Math.hypot(dx, dy), bearingDeg: turned(Math.atan2(dx, dy) / DEG) }
}

export function step(from: Point, side: Side): Point {
  const a = side.bearingDeg * DEG
  return [from[0] + side.lengthM * Math.sin(a), from[1] + side.lengthM * Math.cos(a)]
}

/**
 * The outline with one side as measured. Corners after it keep their sides and move along; the closing side takes up
 * what is left, so it cannot be set itself.
 *
 * @param i a side that is not the closing one
 */
export function withSide<P extends Point>(corners: readonly P[], i: number, side: Side): Point[] {
  const end = step(corners[i]!, side)
  const old = corners[i + 1]!
  const dx = end[0] - old[0]
  const dy = end[1] - old[1]
  return corners.map((c, k): Point => (k > i ? [c[0] + dx, c[1] + dy] : c))
}

/**
 * The angle at the corner from which a side sets out, degrees: inside a closed outline, on the right hand along a line.
 *
 * @param i not the first side of a line, which sets out from no corner between two sides
 */
export function angleBefore(corners: readonly Point[], closed: boolean, i: number): number {
  const sides = sidesOf(corners, closed)
  const before = sides.at(i - 1)!
  const opening = turned(before.bearingDeg + 180 - sides[i]!.bearingDeg)
  return closed && signedArea(corners) > 0 ? 360 - opening : opening
}

/** Where a side heads when the angle at its corner is as measured, degrees clockwise from up the plan. */
export function bearingAt(corners: readonly Point[], closed: boolean, i: number, angleDeg: number): number {
  const before = sidesOf(corners, closed).at(i - 1)!
  const opening = closed && signedArea(corners) > 0 ? 360 - angleDeg : angleDeg
  return turned(before.bearingDeg + 180 - opening)
}
