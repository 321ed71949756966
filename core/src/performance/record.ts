import { group } from 'd3-array'
import { declineOf, type Decline } from './decline.ts'
import { mixedModel, type Effect, type Factor } from './mixedModel.ts'
import { seasonScores, type SeasonScore, type YearOfSeason } from './seasons.ts'
import type { RecordedPlanting, Seen } from './seen.ts'
import { followedPlants, survivalOf, type CountHistory, type SurvivalStep } from './survival.ts'
import type { LightClass } from '../light/index.ts'

/** An effect with the key of what it is the effect of. */
export interface KeyedEffect<K> extends Effect {
  key: K
}

/** A score expected of something, on the scale of ratings, and its standard error. */
export interface Expected {
  score: number
  se: number
}

/**
 * What a record cannot tell: the place or the year, of which it knows but one; a taxon from its only planting; a planting from the
 * chance of its only season.
 */
export type Untold = 'place' | 'year' | 'taxon from planting' | 'planting from chance'

/** What the ratings of a garden come from: its kinds, its places, its seasons, each planting itself. */
export interface RecordModel {
  mean: number
  meanSe: number
  /** Share of the variance of season scores by source, summing to 1; a source that cannot be told has none. */
  shares: { taxon: number; place: number; year: number; light: number; planting: number; rest: number }
  /** What these scores cannot tell, or not tell apart. */
  untold: readonly Untold[]
  /** By botanical name; expected in an average place and year. */
  taxa: (KeyedEffect<string> & { expected: Expected })[]
  places: KeyedEffect<string>[]
  years: KeyedEffect<number>[]
  /** A taxon in a class of light, over and above its own effect; empty where no taxon stands in two. */
  lights: KeyedEffect<{ taxon: string; light: LightClass }>[]
  /** A planting over and above its taxon, place and light; expected where it stands, in an average year. */
  plantings: (KeyedEffect<string> & { expected: Expected })[]
  records: number
  /** Steps the variances took to settle. */
  iterations: number
}

/** A garden's record, judged. */
export interface GardenRecord {
  scores: SeasonScore[]
  /** Undefined where there is too little to tell plant from spot from year. */
  model: RecordModel | undefined
  declines: Decline[]
  /** By botanical name, of taxa of which plants died. */
  survival: { taxon: string; plants: number; steps: SurvivalStep[] }[]
}

/** Records, taxa, places and years below which the model would only repeat the data. */
const LEAST_RECORDS = 12

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

/** Numbers the distinct values of a key in order of first sight. */
function levelsOf<R, K>(rows: readonly R[], key: (row: R) => K, id: (k: K) => string | number) {
  const keys: K[] = []
  const at = new Map<string | number, number>()
  const of = Int32Array.from(rows, (row) => {
    const k = key(row)
    const known = at.get(id(k))
    if (known !== undefined) return known
    at.set(id(k), keys.length)
    keys.push(k)
    return keys.length - 1
  })
  return { keys, of, factor: (name: string): Factor => ({ name, levels: keys.length, of }) }
}

const same = <K extends string | number>(k: K) => k

/**
 * Fits the record of a garden’s seasons.
 *
 * @returns undefined where there are too few seasons to fit anything
 */
export function recordModel(
  plantings: readonly RecordedPlanting[],
  scores: readonly SeasonScore[],
  lightOf: (plantingId: string) => LightClass | undefined,
): RecordModel | undefined {
  const byId = new Map(plantings.map((p) => [p.id, p]))
  const rows = scores
    .filter((s) => s.weight > 0)
    .map((s) => ({ s, p: byId.get(s.plantingId)!, light: lightOf(s.plantingId) }))
  if (rows.length < LEAST_RECORDS) return undefined
  const taxa = levelsOf(rows, (r) => r.p.taxon.botanical, same)
  const places = levelsOf(rows, (r) => r.p.placeId, same)
  const years = levelsOf(rows, (r) => r.s.season, same)
  const own = levelsOf(rows, (r) => r.p.id, same)
  const lights = levelsOf(
    rows,
    (r) => ({ taxon: r.p.taxon.botanical, light: r.light ?? ('unknown' as LightClass) }),
    (k) => `${k.taxon} ${k.light}`,
  )
  // Light tells something of its own only where a kind was tried in more than one.
  const lightTells = lights.keys.length > taxa.keys.length
  const nested = lightTells
    ? [own.factor('planting'), lights.factor('light'), taxa.factor('taxon')]
    : [own.factor('planting'), taxa.factor('taxon')]
  const fitted = mixedModel({
    y: Float64Array.from(rows, (r) => r.s.adjusted),
    weight: Float64Array.from(rows, (r) => r.s.weight),
    factors: [places.factor('place'), years.factor('year')],
    nested,
  })
  const untold: Untold[] = [
    ...(places.keys.length < 2 ? ['place' as const] : []),
    ...(years.keys.length < 2 ? ['year' as const] : []),
    ...(own.keys.length === taxa.keys.length ? ['taxon from planting' as const] : []),
    ...(rows.length === own.keys.length ? ['planting from chance' as const] : []),
  ]
  const [place, year, vPlanting] = fitted.variance.factors as [number, number, number]
  // A factor of one level takes what the mean takes: whatever is put down to it was not found there.
  const vPlace = untold.includes('place') ? 0 : place
  const vYear = untold.includes('year') ? 0 : year
  const vTaxon = fitted.variance.factors.at(-1)!
  const vLight = lightTells ? fitted.variance.factors[3]! : 0
  const total = vTaxon + vPlace + vYear + vLight + vPlanting + fitted.variance.error
  const keyed = <K>(keys: readonly K[], effects: readonly Effect[]): KeyedEffect<K>[] =>
    keys.map((key, i) => ({ key, ...effects[i]! }))
  const expected = (levels: readonly (number | undefined)[]): Expected => {
    const { estimate, se } = fitted.predict(levels)
    return { score: estimate, se }
  }
  const ofKind = (level: number) => [undefined, undefined, ...nested.slice(1).map(() => undefined), level]
  /** A record of each planting, by its level: any tells where it stands. */
  const recordOf = new Int32Array(own.keys.length)
  own.of.forEach((level, r) => (recordOf[level] = r))
  /** Where a planting stands, in an average year. */
  const ofPlanting = (level: number) => {
    const r = recordOf[level]!
    return [places.of[r], undefined, ...nested.map((f) => f.of[r])]
  }
  const share = (v: number) => (total > 0 ? v / total : 0)
  return {
    mean: fitted.mean,
    meanSe: fitted.meanSe,
    shares: {
      taxon: share(vTaxon),
      place: share(vPlace),
      year: share(vYear),
      light: share(vLight),
      planting: share(vPlanting),
      rest: share(fitted.variance.error),
    },
    taxa: keyed(taxa.keys, fitted.effects.at(-1)!).map((e, i) => ({ ...e, expected: expected(ofKind(i)) })),
    places: keyed(places.keys, fitted.effects[0]!),
    years: keyed(years.keys, fitted.effects[1]!),
    lights: lightTells
      ? keyed(lights.keys, fitted.effects[3]!).filter((e) => (e.key.light as string) !== 'unknown')
      : [],
    plantings: keyed(own.keys, fitted.effects[2]!).map((e, i) => ({
      ...e,
      expected: expected(ofPlanting(i)),
    })),
    untold,
    records: rows.length,
    iterations: fitted.iterations,
  }
}
