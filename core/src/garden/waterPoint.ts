import type { Point } from '../geometry/index.ts'
import { propertiesOf, type PlanFeature } from './feature.ts'
import { metresTo } from './place.ts'

/** Where water is fetched for somewhere. */
export interface WaterPoint {
  name: string
  /** What a tap gives, litres an hour; undefined where nobody has said. */
  litresPerHour: number | undefined
  /** Metres in a straight line to the nearest and to the farthest of what is watered. */
  nearestM: number
  farthestM: number
}

/**
 * The tap or butt nearest to what is to be watered; where none is drawn the nearest open water.
 *
 * @param standing what stands in the garden
 * @param points of what is watered, plan metres
 * @returns undefined where no water is on the plan, or nothing is watered
 */
export function waterPoint(
  standing: readonly PlanFeature[],
  points: readonly Point[],
): WaterPoint | undefined {
  if (points.length === 0) return undefined
  const taps = standing.filter((f) => f.kind === 'tap')
  const from = taps.length > 0 ? taps : standing.filter((f) => f.kind === 'water')
  return from
    .map((feature) => {
      const said = propertiesOf(feature)
      const metres = points.map(([x, y]) => metresTo(feature, { x, y }))
      return {
        name: feature.name,
        litresPerHour: said.kind === 'tap' ? said.litresPerHour : undefined,
        nearestM: Math.min(...metres),
        farthestM: Math.max(...metres),
      }
    })
    .sort((a, b) => a.nearestM - b.nearestM)[0]
}
