import type { Point } from '@border/core'

/** A side of an outline as it is measured on the ground: its length and where it heads, clockwise from up the plan. */
export interface Side {
  lengthM: number
  bearingDeg: number
}

const DEG = Math.PI / 180

/** Sides between corners, in order; for a closed outline of three corners or more the closing one too. */
export function sidesOf(corners: readonly Point[], closed: boolean): Side[] {
  const n = corners.length
  const count = closed && n > 2 ? n : Math.max(0, n - 1)
  return Array.from({ length: count }, (_, i) => sideBetween(corners[i]!, corners[(i + 1) % n]!))
}

function sideBetween(a: Point, b: Point): Side {
  const dx = b[0] - a[0]
  const dy = b[1] - a[1]
  return { lengthM: Math.hypot(dx, dy), bearingDeg: (Math.atan2(dx, dy) / DEG + 360) % 360 }
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
export function withSide(corners: readonly Point[], i: number, side: Side): Point[] {
  const end = step(corners[i]!, side)
  const old = corners[i + 1]!
  const dx = end[0] - old[0]
  const dy = end[1] - old[1]
  return corners.map((c, k): Point => (k > i ? [c[0] + dx, c[1] + dy] : c))
}

/** To the nearest ten centimetres, as a click on the plan is meant. */
export const snapped = (p: Point): Point => [Math.round(p[0] * 10) / 10, Math.round(p[1] * 10) / 10]
