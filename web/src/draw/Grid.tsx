import type { Extent } from '@border/core'
import { memo } from 'react'
import type { PlanScale } from '../plan/scale.ts'

/** Lines nearer to each other than this tell nothing, pixels. */
const NEAREST_PX = 26
const STEPS_M = [0.1, 0.5, 1, 5, 10, 50, 100] as const

/** Metres between the lines of the grid at a scale. */
export const gridStepM = (pxPerM: number): number =>
  STEPS_M.find((m) => m * pxPerM >= NEAREST_PX) ?? STEPS_M.at(-1)!

/** A grid in round metres from the plan's origin, over the ground that is looked at. */
export const Grid = memo(function Grid({ scale, extent }: { scale: PlanScale; extent: Extent }) {
  const step = gridStepM(scale.pxPerM)
  const beyond = (extent.maxX - extent.minX) / 8
  const lines = (from: number, to: number) => {
    const first = Math.ceil((from - beyond) / step)
    const last = Math.floor((to + beyond) / step)
    return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => (first + i) * step)
  }
  const [x0, x1] = [scale.x(extent.minX - beyond), scale.x(extent.maxX + beyond)]
  const [y0, y1] = [scale.y(extent.minY - beyond), scale.y(extent.maxY + beyond)]
  const across = lines(extent.minX, extent.maxX).map((x) => `M${scale.x(x).toFixed(1)},${y0}V${y1}`)
  const up = lines(extent.minY, extent.maxY).map((y) => `M${x0},${scale.y(y).toFixed(1)}H${x1}`)
  return (
    <g className="plan-grid" aria-hidden>
      <path d={[...across, ...up].join('')} />
    </g>
  )
})
