import { group } from 'd3-array'
import type { LightClass } from '../light/index.ts'
import { tellable } from './confounding.ts'
import { mixedModel, type Effect, type Factor, type MixedModel, type VariancePrior } from './mixedModel.ts'
import type { SeasonScore } from './seasons.ts'
import type { RecordedPlanting } from './seen.ts'
import { varianceShares, type VarianceShare } from './varianceShares.ts'

/** An effect with the key of what it is the effect of. */
export interface KeyedEffect<K> extends Effect {
  key: K
}

/** A score expected of something, on the scale of ratings, and its standard error. */
export interface Expected {
  score: number
  se: number
}

/** What a season score may come from. Light is a taxon in a class of light, over and above itself. */
export const recordSources = ['place', 'year', 'taxon', 'light', 'planting'] as const
export type RecordSource = (typeof recordSources)[number]
/** Chance and the eye: what no source explains. */
export type SourceOrChance = RecordSource | 'chance'

/** Sources whose part in the differences between season scores is known as one. */
export interface SourceShare {
  sources: readonly SourceOrChance[]
  /** Of the variance of a score of weight 1; left out where the range is wider than a half, or chance cannot be told from it. */
  share?: number
  /** Eight times in ten the share lies between. */
  low: number
  high: number
}

/**
 * What a record cannot tell. `single`: it knows but one place or one year. `confounded`: of each of these there is one for each of
 * the others, or one record for each. `wide`: it could be anything within more than a half of all that differs.
 */
export interface Untold {
  sources: readonly SourceOrChance[]
  why: 'single' | 'confounded' | 'wide'
}

/** What the ratings of a garden come from: its kinds, its places, its seasons, each planting itself. */
export interface RecordModel {
  mean: number
  meanSe: number
  /** By source, chance last; sources that cannot be told apart together; none for one of which there is a single level. */
  shares: SourceShare[]
  untold: Untold[]
  /** Places by id in groups that no taxon ties together: what is plant and what is spot between them rests on averages. */
  untied: string[][]
  /** By botanical name; expected in an average place and year, unless taxon and place cannot be told apart. */
  taxa: (KeyedEffect<string> & { expected?: Expected })[]
  /** Of places, where they can be told from all else. */
  places: KeyedEffect<string>[]
  /** Of years, where they can be told from all else. */
  years: KeyedEffect<number>[]
  /** A taxon in a class of light, over and above its own effect; empty where no taxon stands in two. */
  lights: KeyedEffect<{ taxon: string; light: LightClass }>[]
  /** What is expected of a planting where it stands, in an average year; by its id. */
  plantings: { key: string; expected: Expected }[]
  records: number
  /** Steps the variances took to settle, over all starts. */
  iterations: number
}

/** Season scores below which the model would only repeat the data. */
const LEAST_RECORDS = 12
/** A range wider than this says nothing. */
const WIDEST = 0.5

/**
 * What is believed of ratings from 1 to 5 before any is made: a source rarely makes more than a rating or two of difference,
 * and two looks at the same thing differ by about half a rating, believed as strongly as two of them would make one.
 */
export const ratingPrior: VariancePrior = { scale: 1, error: { variance: 0.25, residuals: 2 } }

/** Numbers the distinct values of a key in order of first sight. */
function levelsOf<R, K>(name: string, rows: readonly R[], key: (row: R) => K, id: (k: K) => string | number) {
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
  return { keys, factor: { name, levels: keys.length, of } satisfies Factor }
}

const same = <K extends string | number>(k: K) => k

interface Row {
  score: SeasonScore
  planting: RecordedPlanting
  light: LightClass | 'unknown'
}

/** The levels of every source, of each record. */
const levelsOfAll = (rows: readonly Row[]) => ({
  place: levelsOf('place', rows, (r) => r.planting.placeId, same),
  year: levelsOf('year', rows, (r) => r.score.season, same),
  taxon: levelsOf('taxon', rows, (r) => r.planting.taxon.botanical, same),
  light: levelsOf(
    'light',
    rows,
    (r) => ({ taxon: r.planting.taxon.botanical, light: r.light }),
    (k) => `${k.taxon} ${k.light}`,
  ),
  planting: levelsOf('planting', rows, (r) => r.planting.id, same),
})

/**
 * Fits the record of a garden’s seasons: score = mean + place + year + taxon + taxon in its light + planting + chance.
 * Sources that the record cannot tell apart are fitted as one.
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
    .map((score): Row => ({
      score,
      planting: byId.get(score.plantingId)!,
      light: lightOf(score.plantingId) ?? 'unknown',
    }))
  if (rows.length < LEAST_RECORDS) return undefined
  const levels = levelsOfAll(rows)
  const told = sourcesTold(levels)
  const factors = told.fitted.filter((s) => s === 'place' || s === 'year').map((s) => levels[s].factor)
  const nested = (['planting', 'light', 'taxon'] as const)
    .filter((s) => told.fitted.includes(s))
    .map((s) => levels[s].factor)
  const input = {
    y: Float64Array.from(rows, (r) => r.score.adjusted),
    weight: Float64Array.from(rows, (r) => r.score.weight),
    factors,
    nested,
  }
  const fitted = mixedModel(input, ratingPrior)
  const order = [...factors, ...nested].map((f) => f.name as RecordSource)
  // Variances that did not settle are those of no record: of its shares nothing is known.
  const ranges = fitted.converged
    ? varianceShares(input, ratingPrior, fitted)
    : [...order, 'chance'].map(() => ({ share: 0, low: 0, high: 1 }))
  const shares = sharesOf(order, told, ranges)
  return {
    mean: fitted.mean,
    meanSe: fitted.meanSe,
    shares,
    untold: [...told.untold, ...tooWide(shares, told.untold)],
    untied: untiedPlaces(rows),
    ...effectsOf(levels, told, order, fitted),
    records: rows.length,
    iterations: fitted.iterations,
  }
}

type Levels = ReturnType<typeof levelsOfAll>

interface Told {
  /** In the model. */
  fitted: RecordSource[]
  /** What stands in the model for a source. */
  inPlaceOf: ReadonlyMap<RecordSource, RecordSource>
  untold: Untold[]
}

function sourcesTold(levels: Levels): Told {
  // Light tells something of its own only where a taxon was tried in more than one.
  const asked = recordSources.filter(
    (s) => s !== 'light' || levels.light.factor.levels > levels.taxon.factor.levels,
  )
  const { kept, single, confounded } = tellable(asked.map((s) => levels[s].factor))
  const nameOf = (k: number): SourceOrChance => asked[k] ?? 'chance'
  const fitted = kept.map((k) => asked[k]!)
  const inPlaceOf = new Map(fitted.map((s) => [s, s]))
  for (const { factors } of confounded) {
    const [first, ...others] = factors.map(nameOf)
    const ofOne = factors.filter((k) => kept.includes(k)).length === 1
    for (const other of others) {
      if (!ofOne || other === 'chance' || first === 'chance' || inPlaceOf.has(other)) continue
      inPlaceOf.set(other, first!)
    }
  }
  return {
    fitted,
    inPlaceOf,
    untold: [
      ...single.map((k): Untold => ({ sources: [nameOf(k)], why: 'single' })),
      ...confounded.map(({ factors }): Untold => ({ sources: factors.map(nameOf), why: 'confounded' })),
    ],
  }
}

/** By source of the model, chance last. */
function sharesOf(
  order: readonly RecordSource[],
  { inPlaceOf, untold }: Told,
  ranges: readonly VarianceShare[],
): SourceShare[] {
  const withChance = untold.flatMap(({ sources, why }) =>
    why === 'confounded' && sources.includes('chance') ? sources : [],
  )
  return [...order, 'chance' as const].map((source, k) => {
    const { share, low, high } = ranges[k]!
    const sources = source === 'chance' ? [source] : recordSources.filter((s) => inPlaceOf.get(s) === source)
    const isTold = high - low <= WIDEST && !withChance.includes(source)
    return { sources, ...(isTold && { share }), low, high }
  })
}

const tooWide = (shares: readonly SourceShare[], untold: readonly Untold[]): Untold[] =>
  shares
    .filter(
      ({ share, sources: [source] }) =>
        share === undefined &&
        !untold.some((u) => u.sources.includes('chance') && u.sources.includes(source!)),
    )
    .map(({ sources }) => ({ sources, why: 'wide' }))

function effectsOf(
  levels: Levels,
  { inPlaceOf, untold }: Told,
  order: readonly RecordSource[],
  { effects, predict }: MixedModel,
): Pick<RecordModel, 'taxa' | 'places' | 'years' | 'lights' | 'plantings'> {
  const indexOf = (source: RecordSource) => {
    const standsFor = inPlaceOf.get(source)
    return standsFor === undefined ? -1 : order.indexOf(standsFor)
  }
  /** A record of each level of a source: any tells what it is with. */
  const recordsOf = (source: RecordSource) => {
    const { of, levels: count } = levels[source].factor
    const record = new Int32Array(count)
    const records = new Int32Array(count)
    of.forEach((level, r) => {
      record[level] = r
      records[level]!++
    })
    return { record, records }
  }
  const keyed = <K>(source: RecordSource, keys: readonly K[]): KeyedEffect<K>[] => {
    const k = indexOf(source)
    const { record, records } = recordsOf(source)
    return keys.map((key, i) => {
      const effect = k < 0 ? { estimate: 0, se: 0 } : effects[k]![levels[order[k]!].factor.of[record[i]!]!]!
      return { key, estimate: effect.estimate, se: effect.se, records: records[i]! }
    })
  }
  const expectedOf = (record: number, sources: readonly RecordSource[]): Expected => {
    const used = new Set(sources.map(indexOf))
    const { estimate, se } = predict(
      order.map((s, k) => (used.has(k) ? levels[s].factor.of[record]! : undefined)),
    )
    return { score: estimate, se }
  }
  const isAlone = (source: RecordSource) =>
    untold.every((u) => !u.sources.includes(source) || u.sources.includes('chance'))
  const atTaxon = recordsOf('taxon').record
  const atPlanting = recordsOf('planting').record
  const taxonIsPlace = indexOf('place') >= 0 && indexOf('place') === indexOf('taxon')
  return {
    taxa: keyed('taxon', levels.taxon.keys).map((e, i) => ({
      ...e,
      ...(!taxonIsPlace && { expected: expectedOf(atTaxon[i]!, ['taxon']) }),
    })),
    places: isAlone('place') ? keyed('place', levels.place.keys) : [],
    years: isAlone('year') ? keyed('year', levels.year.keys) : [],
    lights: keyed('light', levels.light.keys).flatMap((e) => {
      const { taxon, light } = e.key
      return indexOf('light') < 0 || light === 'unknown' ? [] : [{ ...e, key: { taxon, light } }]
    }),
    plantings: levels.planting.keys.map((key, i) => ({
      key,
      expected: expectedOf(atPlanting[i]!, ['place', 'taxon', 'light', 'planting']),
    })),
  }
}

/** Places in groups that taxa tie together, the largest first; empty where all are one. */
function untiedPlaces(rows: readonly Row[]): string[][] {
  const groupOf = new Map<string, Set<string>>()
  const byTaxon = group(rows, (r) => r.planting.taxon.botanical)
  for (const of of byTaxon.values()) {
    const together = new Set<string>()
    for (const { planting } of of)
      for (const place of groupOf.get(planting.placeId) ?? [planting.placeId]) together.add(place)
    for (const place of together) groupOf.set(place, together)
  }
  const groups = [...new Set(groupOf.values())].map((g) => [...g].sort())
  return groups.length < 2 ? [] : groups.sort((a, b) => b.length - a.length || (a[0]! < b[0]! ? -1 : 1))
}
