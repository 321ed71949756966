import { group, rollup } from 'd3-array'
import type { IsoDate } from '../dates/index.ts'
import { onceFor } from '../once/index.ts'
import { emergenceOf, groundM2, usualState, type Year } from '../plants/index.ts'
import { counted, dayMonth, listed, tenths } from '../words/index.ts'
import type { GardenRecord } from './record.ts'
import type { Expected, RecordModel } from './recordModel.ts'
import type { RecordedPlanting, Seen } from './seen.ts'
import type { SeasonScore } from './seasons.ts'
import { survivingAt } from './survival.ts'

/** A taxon in one place of the garden, over all its seasons there. */
export interface SpotRecord {
  placeId: string
  /** Weighted mean of adjusted season scores, what the years gave or took taken out. */
  score: number
  seasons: number
  walks: number
  plantingIds: string[]
}

/** What a garden's record says of a kind of plant. */
export interface TaxonRecord {
  taxon: string
  /** Expected rating of it in an average place and year, with its standard error; undefined without a model. */
  expected: Expected | undefined
  spots: SpotRecord[]
  /** Different seasons, over all places. */
  seasons: number
  walks: number
  /** Places that lie well below the rest of its places. */
  outliers: string[]
  reading: 'plant' | 'spot' | 'good' | 'mixed' | 'unsure'
  says: string
  surer: string
  again: 'again' | 'not again' | 'open'
  againSays: string
}

/** Ratings, 1 to 5: nearer to good than to fair, and nearer to poor than to fair by a quarter’s doubt. Judgements. */
const GOOD = 3.5
const POOR = 2.75
/** A place this much below the rest is an outlier. */
const OUTLIER = 1
/** One-sided nine in ten. */
export const Z90 = 1.2816
const SURVIVAL_YEARS = 3

/** Between these a score lies eight times in ten. */
export const likelyRange = ({ score, se }: Expected): { low: number; high: number } => ({
  low: score - Z90 * se,
  high: score + Z90 * se,
})

/**
 * Plant, spot or year, kind by kind.
 *
 * @param placeName by id
 * @returns best expected first; kinds without a season score left out
 */
export function taxonRecords(
  plantings: readonly RecordedPlanting[],
  record: GardenRecord,
  placeName: (placeId: string) => string,
): TaxonRecord[] {
  const { model } = record
  const years = new Map(model?.years.map((y) => [y.key, y.estimate]) ?? [])
  const told = record.scores.filter((s) => s.weight > 0)
  const scoresOf = group(told, (s) => s.plantingId)
  const effects = new Map(model?.taxa.map((t) => [t.key, t]) ?? [])
  const byTaxon = group(plantings, (p) => p.taxon.botanical)
  const records = [...byTaxon].flatMap(([taxon, of]): TaxonRecord[] => {
    const spots = spotsOf(of, scoresOf, years)
    if (spots.length === 0) return []
    const expected = effects.get(taxon)?.expected
    const seasons = new Set(of.flatMap((p) => (scoresOf.get(p.id) ?? []).map((s) => s.season))).size
    const walks = sum(spots.map((s) => s.walks))
    const reading = read(spots, placeName, seasons)
    const survival = record.survival.find((s) => s.taxon === taxon)
    return [
      {
        taxon,
        expected,
        spots,
        seasons,
        walks,
        ...reading,
        ...plantAgain(expected, spots, survival?.steps, seasons),
      },
    ]
  })
  const rank = (r: TaxonRecord) => r.expected?.score ?? mean(r.spots.map((s) => s.score))
  return records.sort((a, b) => rank(b) - rank(a) || (a.taxon < b.taxon ? -1 : 1))
}

function spotsOf(
  plantings: readonly RecordedPlanting[],
  scoresOf: ReadonlyMap<string, readonly SeasonScore[]>,
  years: ReadonlyMap<number, number>,
): SpotRecord[] {
  const byPlace = group(plantings, (p) => p.placeId)
  return [...byPlace].flatMap(([placeId, of]) => {
    const scores = of.flatMap((p) => scoresOf.get(p.id) ?? [])
    if (scores.length === 0) return []
    const weight = sum(scores.map((s) => s.weight))
    return [
      {
        placeId,
        score: sum(scores.map((s) => s.weight * (s.adjusted - (years.get(s.season) ?? 0)))) / weight,
        seasons: new Set(scores.map((s) => s.season)).size,
        walks: sum(scores.map((s) => s.walks)),
        plantingIds: of.map((p) => p.id),
      },
    ]
  })
}

function read(
  spots: readonly SpotRecord[],
  placeName: (id: string) => string,
  seasons: number,
): Pick<TaxonRecord, 'reading' | 'says' | 'surer' | 'outliers'> {
  const evidence = `${counted(seasons, 'season')}, ${counted(spots.length, 'place')}`
  const names = (of: readonly SpotRecord[]) => listed(of.map((s) => placeName(s.placeId)))
  const surer =
    spots.length < 2
      ? 'A second place would tell plant from spot.'
      : seasons < 4
        ? 'Another season in each place would make it surer.'
        : 'More would change little.'
  if (seasons < 2)
    return {
      reading: 'unsure',
      says: `One season tells little yet.`,
      surer: spots.length < 2 ? 'Another season, and a second place, would tell.' : surer,
      outliers: [],
    }
  if (spots.length === 1) {
    const { score } = spots[0]!
    const where = placeName(spots[0]!.placeId)
    const word = score >= GOOD ? 'Does well' : score < POOR ? 'Does poorly' : 'Middling'
    return {
      reading: score >= GOOD ? 'good' : 'unsure',
      says: `${word} in ${where}, the one place it stands: plant and spot cannot be told apart (${evidence}).`,
      surer,
      outliers: [],
    }
  }
  const outliers = spots.filter((s) => {
    const others = spots.filter((o) => o !== s)
    return mean(others.map((o) => o.score)) - s.score >= OUTLIER
  })
  const well = spots.filter((s) => s.score >= GOOD && !outliers.includes(s))
  const poorly = spots.filter((s) => s.score < POOR)
  if (poorly.length === spots.length)
    return {
      reading: 'plant',
      says: `Does poorly in ${spots.length === 2 ? 'both' : `all ${spots.length}`} places it was tried: the plant, not the spot (${evidence}).`,
      surer,
      outliers: [],
    }
  if (outliers.length > 0 && well.length > 0)
    return {
      reading: 'spot',
      says: `Does well in ${well.length === 1 ? names(well) : `${well.length} of its places`}; ${names(outliers)} ${
        outliers.length === 1 ? 'is the outlier' : 'are the outliers'
      }: the spot, not the plant (${evidence}).`,
      surer,
      outliers: outliers.map((s) => s.placeId),
    }
  if (well.length === spots.length)
    return {
      reading: 'good',
      says: `Does well in ${spots.length === 2 ? 'both its places' : `all ${spots.length} of its places`} (${evidence}).`,
      surer,
      outliers: [],
    }
  return {
    reading: 'mixed',
    says: `Neither good nor poor: from ${tenths(Math.min(...spots.map((s) => s.score)))} to ${tenths(
      Math.max(...spots.map((s) => s.score)),
    )} of 5 over its places (${evidence}).`,
    surer,
    outliers: outliers.map((s) => s.placeId),
  }
}

function plantAgain(
  expected: TaxonRecord['expected'],
  spots: readonly SpotRecord[],
  steps: GardenRecord['survival'][number]['steps'] | undefined,
  seasons: number,
): Pick<TaxonRecord, 'again' | 'againSays'> {
  // Ages are shown to a tenth of a year, and are judged as they are shown.
  const alive = steps && survivingAt(steps, SURVIVAL_YEARS + 0.05)
  const lives = alive
    ? ` ${Math.round(alive.share * 100)} in 100 plants live ${SURVIVAL_YEARS} years.`
    : ' None was lost.'
  if (!expected || seasons < 3) {
    return { again: 'open', againSays: `Too few seasons to say.${alive ? lives : ''}` }
  }
  const { low, high } = likelyRange(expected)
  const between = `${tenths(low)} to ${tenths(high)} of 5 expected in an average spot here.`
  const best = [...spots].sort((a, b) => b.score - a.score)[0]!
  if (alive && alive.share + Z90 * alive.se < 0.5)
    return { again: 'not again', againSays: `${between}${lives}` }
  if (low >= 3.3) return { again: 'again', againSays: `${between}${lives}` }
  if (high <= 3.1 && best.score < GOOD) return { again: 'not again', againSays: `${between}${lives}` }
  return { again: 'open', againSays: `${between}${lives}` }
}

/** A planting's rank in its place: what is expected of it next season there. */
export interface Rank extends Expected {
  plantingId: string
  taxon: string
  seasons: number
}

const expectedOf = onceFor((model: RecordModel) => new Map(model.plantings.map((e) => [e.key, e.expected])))
/** In how many seasons each planting was seen. */
const seasonsSeen = onceFor((scores: readonly SeasonScore[]) =>
  rollup(
    scores.filter((s) => s.weight > 0),
    (own) => own.length,
    (s) => s.plantingId,
  ),
)

/** The best of each place: plantings by what the model expects of them there, less what is not known. */
export function bestOfPlace(
  plantings: readonly RecordedPlanting[],
  model: RecordModel,
  scores: readonly SeasonScore[],
  placeId: string,
): Rank[] {
  const own = expectedOf(model)
  const seen = seasonsSeen(scores)
  return plantings
    .flatMap((p): Rank[] => {
      const expected = own.get(p.id)
      if (p.placeId !== placeId || !expected) return []
      return [{ plantingId: p.id, taxon: p.taxon.botanical, ...expected, seasons: seen.get(p.id) ?? 0 }]
    })
    .sort((a, b) => b.score - b.se - (a.score - a.se))
}

/** Whether a planting that was not to be seen may be given up. */
export type Unseen =
  | { state: 'resting'; says: string }
  | { state: 'presumed lost'; until: IsoDate; says: string }
  | { state: 'due'; says: string }

/**
 * A planting of which nothing showed when it was last looked at, judged on a day. Plants written off do come back, so it
 * is given until its latest usual emergence, late years later.
 *
 * @param lastSeen the latest look at it
 * @returns undefined when it was to be seen then
 */
export function unseenOf(
  planting: Pick<RecordedPlanting, 'taxon'>,
  lastSeen: Pick<Seen, 'on' | 'absent'> | undefined,
  on: IsoDate,
  year: Year,
): Unseen | undefined {
  if (!lastSeen?.absent) return undefined
  if (usualState(planting.taxon, lastSeen.on, year).resting)
    return { state: 'resting', says: 'At rest underground: nothing is to be seen of it now.' }
  const emergence = emergenceOf(planting.taxon, lastSeen.on, year)
  if (emergence && on <= emergence.latest)
    return {
      state: 'presumed lost',
      until: emergence.latest,
      says: `Not showing yet; it may come until ${dayMonth(emergence.latest)}. Keep its place and its label.`,
    }
  return {
    state: 'due',
    says: emergence
      ? `Not showing, and its latest usual day, ${dayMonth(emergence.latest)}, has passed. Feel for live crowns, then strike it off.`
      : 'Not to be seen, though it stands above ground all year. Look once more, then strike it off.',
  }
}

/** What a plant on trial has earned. */
export interface TrialProposal {
  outcome: 'expand' | 'retry elsewhere' | 'strike off' | 'go on'
  /** Plants of a drift to expand to, an odd number that fills about a square metre and a half; for `expand`. */
  count?: number
  says: string
}

/** What a drift that a trial has earned fills. */
const DRIFT_M2 = 1.5
/** Seasons a trial runs before it is judged. */
const TRIAL_SEASONS = 2

/** What the seasons of a trial speak for: a drift of it, another season, another spot, or none of it; with why. */
export function trialProposal(
  planting: RecordedPlanting,
  scores: readonly SeasonScore[],
  taxon: TaxonRecord | undefined,
): TrialProposal {
  const own = scores.filter((s) => s.plantingId === planting.id && s.weight > 0)
  if (own.length < TRIAL_SEASONS)
    return {
      outcome: 'go on',
      says: `${own.length === 0 ? 'No season' : 'One season'} on record; it is judged after ${TRIAL_SEASONS}.`,
    }
  const score = sum(own.map((s) => s.weight * s.adjusted)) / sum(own.map((s) => s.weight))
  const says = `${tenths(score)} of 5 over ${counted(own.length, 'season')}`
  if (score >= GOOD) {
    const n = Math.max(3, Math.min(9, Math.round(DRIFT_M2 / groundM2(1, planting.taxon.spacingM))))
    return { outcome: 'expand', count: n % 2 === 0 ? n + 1 : n, says: `${says}: it has earned a drift.` }
  }
  if (score >= POOR) return { outcome: 'go on', says: `${says}: not settled yet, give it another season.` }
  const elsewhere = taxon && taxon.spots.some((s) => s.placeId !== planting.placeId)
  if (!elsewhere) return { outcome: 'retry elsewhere', says: `${says}, in the one spot it was tried.` }
  return taxon.spots.some((s) => s.placeId !== planting.placeId && s.score >= GOOD)
    ? {
        outcome: 'retry elsewhere',
        says: `${says} here, and well in another place: the spot is wrong for it.`,
      }
    : { outcome: 'strike off', says: `${says}, and no better where else it was tried.` }
}

const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0)
const mean = (values: readonly number[]) => sum(values) / values.length
