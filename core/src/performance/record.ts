import { group } from 'd3-array'
import { declineOf, type Decline } from './decline.ts'
import { recordModel, type RecordModel } from './recordModel.ts'
import { seasonScores, type SeasonScore, type YearOfSeason } from './seasons.ts'
import type { RecordedPlanting, Seen } from './seen.ts'
import { followedPlants, survivalOf, type CountHistory, type SurvivalStep } from './survival.ts'
import type { LightClass } from '../light/index.ts'

/** A garden's record, judged. */
export interface GardenRecord {
  scores: SeasonScore[]
  /** Undefined where there is too little to tell plant from spot from year. */
  model: RecordModel | undefined
  declines: Decline[]
  /** By botanical name, of taxa of which plants died. */
  survival: { taxon: string; plants: number; steps: SurvivalStep[] }[]
}

/**
 * @param counts head counts of each planting by its id; those of plantings already gone belong here too
 * @param lightOf the class of light a planting stands in, where it is known
 */
export function gardenRecord(
  plantings: readonly RecordedPlanting[],
  seen: readonly Seen[],
  counts: readonly (CountHistory & { plantingId: string })[],
  {
    yearOfSeason,
    south,
    lightOf,
  }: { yearOfSeason: YearOfSeason; south: boolean; lightOf: (plantingId: string) => LightClass | undefined },
): GardenRecord {
  const scores = seasonScores(plantings, seen, yearOfSeason, south)
  const model = recordModel(plantings, scores, lightOf)
  const years = new Map(model?.years.map((y) => [y.key, y.estimate]) ?? [])
  const byPlanting = group(scores, (s) => s.plantingId)
  const taxonOf = new Map(plantings.map((p) => [p.id, p.taxon.botanical]))
  const byTaxon = group(counts, (c) => taxonOf.get(c.plantingId))
  return {
    scores,
    model,
    declines: [...byPlanting.values()].flatMap(
      (of) => declineOf(of, (season) => years.get(season) ?? 0) ?? [],
    ),
    survival: [...byTaxon].flatMap(([taxon, histories]) => {
      if (!taxon) return []
      const plants = followedPlants(histories)
      const steps = survivalOf(plants)
      return steps.length > 0 ? [{ taxon, plants: plants.length, steps }] : []
    }),
  }
}
