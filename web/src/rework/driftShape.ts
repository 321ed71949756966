import type { Point } from '@border/core'
import { curveBasisClosed, line } from 'd3-shape'
import type { PlanScale } from '../plan/scale.ts'

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
