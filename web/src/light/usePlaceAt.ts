import type { FeatureView } from '@border/contract'
import { isInside, ringOf, type Point } from '@border/core'
import { useCallback } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'

const POT_REACH_M = 0.4

/** Finds the pot or bed that a point of the plan lies in, as things stand; undefined off both. */
export function usePlaceAt(): (at: Point) => FeatureView | undefined {
  const { standing } = useGardenContext()
  return useCallback(
    ([x, y]: Point) =>
      standing.find(
        (f) =>
          f.kind === 'container' &&
          f.geometry.type === 'Point' &&
          Math.hypot(f.geometry.coordinates[0] - x, f.geometry.coordinates[1] - y) < POT_REACH_M,
      ) ?? standing.find((f) => f.kind === 'bed' && isInside(ringOf(f.geometry), x, y)),
    [standing],
  )
}
