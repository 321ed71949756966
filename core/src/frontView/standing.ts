import { daysBetween, type IsoDate } from '../dates/index.ts'
import { groundOf, type Planting } from '../garden/index.ts'
import { asDisc, GOLDEN_ANGLE, type Point } from '../geometry/index.ts'
import type { StandingPlant } from './scene.ts'

const DAYS_A_YEAR = 365.25
/** Plants of a round stand within so much of it: their leaves reach to its edge. */
const WITHIN = 0.78

/** So many places over a round, evenly. */
export const overRound = ([x, y]: Point, radiusM: number, many: number): Point[] =>
  Array.from({ length: many }, (_, i): Point => {
    const out = many === 1 ? 0 : WITHIN * radiusM * Math.sqrt((i + 0.5) / many)
    return [x + out * Math.cos(i * GOLDEN_ANGLE), y + out * Math.sin(i * GOLDEN_ANGLE)]
  })

/** The plants of a planting that stands, as old as they are: where each stands in its ground nobody has said, they are spread over it. */
export function plantsOfPlanting(planting: Planting, on: IsoDate): StandingPlant[] {
  const { x, y, radiusM } = asDisc(groundOf(planting))
  const ageYears = Math.max(0, daysBetween(planting.plantedOn, on) / DAYS_A_YEAR)
  return overRound([x, y], radiusM, planting.livingCount).map(([px, py], i): StandingPlant => ({
    id: `${planting.id} ${i}`,
    groupId: planting.id,
    taxon: planting.taxon,
    x: px,
    y: py,
    ageYears,
  }))
}
