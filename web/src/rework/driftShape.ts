import type { Arrangement, BedGround, Point } from '@border/core'
import { curveBasisClosed, line } from 'd3-shape'
import type { PlanScale } from '../plan/scale.ts'

/** Corners of cells, as whole numbers. */
type Corner = readonly [i: number, j: number]

/**
 * Outlines of the ground of every drift, plan metres: round each piece of it, and round each hole in it. Their points are the middles
 * of the cells' sides, so that a soft line through them goes neither beyond the ground by more than a corner nor jags.
 */
export function driftOutlines(
  { of: { stations }, cellM }: BedGround,
  { drifts, has }: Arrangement,
): Point[][][] {
  const [x0, y0] = [stations[0]?.x ?? 0, stations[0]?.y ?? 0]
  const cells = stations.map((s): Corner => [Math.round((s.x - x0) / cellM), Math.round((s.y - y0) / cellM)])
  const owner = new Map(cells.map(([i, j], c) => [`${i} ${j}`, has[c]!]))
  const sides = drifts.map(() => new Map<string, Corner[]>())
  cells.forEach(([i, j], c) => {
    const k = has[c]!
    if (k < 0) return
    // Round a cell against the clock; only sides with another beyond are kept.
    const round: readonly [di: number, dj: number, from: Corner, to: Corner][] = [
      [0, -1, [i, j], [i + 1, j]],
      [1, 0, [i + 1, j], [i + 1, j + 1]],
      [0, 1, [i + 1, j + 1], [i, j + 1]],
      [-1, 0, [i, j + 1], [i, j]],
    ]
    for (const [di, dj, from, to] of round)
      if (owner.get(`${i + di} ${j + dj}`) !== k) {
        const key = `${from[0]} ${from[1]}`
        const known = sides[k]!.get(key)
        if (known) known.push(to)
        else sides[k]!.set(key, [to])
      }
  })
  const at = ([i, j]: Corner): Point => [x0 + (i - 0.5) * cellM, y0 + (j - 0.5) * cellM]
  return sides.map((of) => {
    const rings: Point[][] = []
    for (const [start] of of) {
      while ((of.get(start)?.length ?? 0) > 0) {
        const ring: Point[] = []
        let from = start.split(' ').map(Number) as unknown as Corner
        for (;;) {
          const to = of.get(`${from[0]} ${from[1]}`)?.pop()
          if (!to) break
          const [a, b] = [at(from), at(to)]
          ring.push([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2])
          from = to
        }
        rings.push(ring)
      }
    }
    return rings
  })
}

/** Outlines of a drift as a soft line in pixels. */
export const softPath = (rings: readonly (readonly Point[])[], scale: PlanScale): string =>
  rings
    .map(
      (ring) =>
        line<Point>()
          .x((p) => Math.round(10 * scale.x(p[0])) / 10)
          .y((p) => Math.round(10 * scale.y(p[1])) / 10)
          .curve(curveBasisClosed)(ring.map((p): Point => [p[0], p[1]])) ?? '',
    )
    .join('')
