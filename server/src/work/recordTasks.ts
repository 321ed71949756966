import {
  bestOfPlace,
  bloomGaps,
  bloomOfPlace,
  bloomsSeen,
  gapFillers,
  gardenRecord,
  taxonRecords,
  treatmentEffects,
  trialProposal,
  type BloomGap,
  type BloomingPlanting,
  type CountHistory,
  type LightClass,
  type RecordedPlanting,
  type Seen,
  type Climate,
  type Region,
  type FilledPlace,
  type Taxon,
  type Treatment,
  type Filler,
  type BloomSeen,
  type BloomWeek,
  type GardenRecord,
  type RecordModel,
  type Rank,
  type TaxonRecord,
  type TreatmentEffect,
  type TrialProposal,
  type Year,
} from '@border/core'

/** A planting for as long as it stood in one place. */
export type StayModel = RecordedPlanting & { until: string | null }

/** What a garden’s record is worked out from. */
export interface RecordTask {
  stays: StayModel[]
  /** Looks, each by the stay it fell in. */
  seen: Seen[]
  counts: (CountHistory & { plantingId: string })[]
  /** Days late of each season. */
  years: [season: number, lateDays: number][]
  /** The usual year of the place. */
  usual: Year
  light: Record<string, LightClass>
  placeNames: Record<string, string>
  /** Stays that are trials. */
  onTrial: string[]
}

/** What the bloom of a season is worked out from. */
export interface BloomTask {
  plantings: BloomingPlanting[]
  seen: Seen[]
  years: [season: number, lateDays: number][]
  /** The usual year of the place. */
  usual: Year
  window: { from: string; to: string; season: number }
  places: (Omit<FilledPlace, 'climate'> & { placeId: string })[]
  climate?: Climate | undefined
  /** The parts of the world that the garden lies in. */
  regions: readonly Region[]
  taxa: Taxon[]
  proven: [taxon: string, score: number][]
  /** Looks of every season, each by the stay it fell in, and what was done for bloom: compared over seasons. */
  allSeen: Seen[]
  treatments: Treatment[]
}

/** What the compute thread answers for a garden's record. */
export interface RecordResult extends Omit<GardenRecord, 'model'> {
  model: Omit<RecordModel, 'plantings'> | null
  taxa: TaxonRecord[]
  best: { placeId: string; ranks: Rank[] }[]
  trials: { stayId: string; proposal: TrialProposal }[]
}

const yearsOf = (years: readonly [number, number][], usual: Year) => {
  const late = new Map(years)
  return (season: number): Year => ({ ...usual, lateDays: late.get(season) ?? 0 })
}

/** A garden’s record: scores, what they come from, declines and survival. */
export function recordResult(task: RecordTask): RecordResult {
  const { stays, seen, counts, years, usual, light, placeNames, onTrial } = task
  const { south } = usual
  const yearOfSeason = yearsOf(years, usual)
  const record = gardenRecord(stays, seen, counts, { yearOfSeason, south, lightOf: (id) => light[id] })
  const taxa = taxonRecords(stays, record, (id) => placeNames[id] ?? 'a place that is gone')
  const { model } = record
  const placeIds = [...new Set(stays.filter((s) => s.until == null).map((s) => s.placeId))]
  const taxonOf = new Map(taxa.map((t) => [t.taxon, t]))
  return rounded({
    ...record,
    // What is expected of each planting goes with the best of its place.
    model: model ? { ...model, plantings: undefined } : null,
    taxa,
    best: model
      ? placeIds.map((placeId) => ({
          placeId,
          ranks: bestOfPlace(
            stays.filter((s) => s.until == null),
            model,
            record.scores,
            placeId,
          ),
        }))
      : [],
    trials: stays
      .filter((s) => onTrial.includes(s.id))
      .map((s) => ({
        stayId: s.id,
        proposal: trialProposal(s, record.scores, taxonOf.get(s.taxon.botanical)),
      })),
  })
}

/** Figures to four decimals: what is beyond is neither known nor shown, and would be most of what is sent. */
const rounded = <T>(result: T): T =>
  JSON.parse(
    JSON.stringify(result, (_key, v: unknown) =>
      typeof v === 'number' && !Number.isInteger(v) ? Math.round(v * 1e4) / 1e4 : v,
    ),
  ) as T

/** The bloom of a season: as it was seen, by place and week, and what cuts have done to it. */
export interface BloomResult {
  blooms: BloomSeen[]
  effects: TreatmentEffect[]
  places: { placeId: string; weeks: BloomWeek[]; gaps: (BloomGap & { fillers: Filler[] })[] }[]
}

const FILLERS = 5

/** The bloom of a season, seen and expected. */
export function bloomResult(task: BloomTask): BloomResult {
  const { plantings, seen, years, usual, window, places, taxa, proven } = task
  const { south } = usual
  const yearOfSeason = yearsOf(years, usual)
  return {
    blooms: bloomsSeen(plantings, seen, yearOfSeason, south),
    effects: treatmentEffects(
      plantings,
      bloomsSeen(plantings, task.allSeen, yearOfSeason, south),
      task.treatments,
      south,
    ),
    places: places.map(({ placeId, ...place }) => {
      const own = plantings.filter((p) => p.placeId === placeId)
      const weeks = bloomOfPlace(own, seen, window, yearOfSeason)
      const here = new Set(own.map((p) => p.taxon.botanical))
      const others = taxa.filter((t) => !here.has(t.botanical))
      const gaps = bloomGaps(weeks).map((gap) => ({
        ...gap,
        fillers: gapFillers(
          gap,
          { ...place, climate: task.climate, regions: task.regions },
          others,
          window.season,
          yearOfSeason(window.season),
          new Map(proven),
        ).slice(0, FILLERS),
      }))
      return { placeId, weeks, gaps }
    }),
  }
}
