import type { FeatureView } from '@border/contract'
import { drawnOf } from '@border/core'
import { useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'

interface PlanCorner {
  id: string
  x: number
  y: number
}

const planCorners = (features: readonly FeatureView[]): PlanCorner[] =>
  features.flatMap((f) => {
    const drawn = drawnOf(f)
    if (drawn) return drawn.handles.map((h, i) => ({ id: `${f.name} ${i + 1}`, x: h.x, y: h.y }))
    const [x, y] = f.geometry.coordinates as [number, number]
    return [{ id: f.name, x, y }]
  })

/** Points on the plan that can be found in the garden: corners of what is drawn, middles of what stands on a point. */
export function usePlanCorners(): PlanCorner[] {
  const { standing } = useGardenContext()
  return useMemo(() => planCorners(standing), [standing])
}
