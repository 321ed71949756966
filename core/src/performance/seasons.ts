import { seasonYearOf, type IsoDate } from '../dates/index.ts'
import { onceForEach } from '../once/index.ts'
import { seasonInPlace, usualState, type LifeForm, type Taxon, type Year } from '../plants/index.ts'
import type { RecordedPlanting, Seen } from './seen.ts'

/** How a planting did in a season, from the walks of it. */
export interface SeasonScore {
  plantingId: string
  season: number
  /** Mean rating, each look weighted by how telling its time of year was; 1 to 5. */
  score: number
  /** With what a plant of its age usually lacks given back. */
  adjusted: number
  /** How much it tells: looks in the telling part of its year, less while it settles in. 0 to 2. */
  weight: number
  /** Walks behind it. */
  walks: number
  /** Of its seasons in this place; 1 is the first. */
  seasonInPlace: number
  /** Still settling in: a low score says little. */
  settling: boolean
  /** Every look fell in its time of rest: no score should be read from it. */
  resting: boolean
}

/** How a season's days run: by its year, `seasonYearOf`. */
export type YearOfSeason = (season: number) => Year

/**
 * What a plant usually lacks in its first seasons in a place, on the scale of ratings: perennials sleep, creep and leap in
 * about three, slow shrubs take longer. Working figures of this product.
 */
const settling: Partial<Record<LifeForm, readonly number[]>> = {
  annual: [],
  'tender perennial': [0.2],
  bulb: [0.4],
  'deciduous shrub': [0.9, 0.6, 0.3],
  'evergreen shrub': [0.9, 0.6, 0.3],
  climber: [0.9, 0.6, 0.3],
  'small tree': [1, 0.7, 0.4, 0.2],
}
const SETTLING_PERENNIAL = [0.8, 0.3]
/** Weight of the seasons in which a plant is settling, in order. */
const SETTLING_WEIGHT = [0.3, 0.6, 0.8, 0.9]
const MOST_WEIGHT = 2
/** Looks that tell less than this together give no score. */
const LEAST_TELLING = 0.12

const allowances = (taxon: Taxon) => settling[taxon.lifeForm] ?? SETTLING_PERENNIAL

/** Rating a plant is usually short of in a season in its place; 0 once it has settled. */
export const settlingAllowance = (taxon: Taxon, season: number): number => allowances(taxon)[season - 1] ?? 0

/** True while a low score says little. */
export const isSettling = (taxon: Taxon, inPlaceSince: IsoDate, on: IsoDate, south: boolean): boolean =>
  seasonInPlace(inPlaceSince, on, south) <= allowances(taxon).length

/**
 * Observations to seasons.
 *
 * @param seen in any order; those of plantings not given, and from before a planting came to its place, are left out
 * @returns by planting, then season
 */
export function seasonScores(
  plantings: readonly RecordedPlanting[],
  seen: readonly Seen[],
  yearOfSeason: YearOfSeason,
  south: boolean,
): SeasonScore[] {
  const byId = new Map(plantings.map((p) => [p.id, p]))
  const sums = new Map<
    string,
    { p: RecordedPlanting; season: number; telling: number; rated: number; walks: number; plain: number }
  >()
  // A walk looks at many plantings of one kind on one day.
  const tellingOf = onceForEach(
    (taxon: Taxon, on: IsoDate) => usualState(taxon, on, yearOfSeason(seasonYearOf(on, south))).telling,
  )
  for (const s of seen) {
    const p = byId.get(s.plantingId)
    if (!p || s.rating === null || s.on < p.inPlaceSince) continue
    const season = seasonYearOf(s.on, south)
    const telling = tellingOf(p.taxon, s.on)
    const key = `${p.id} ${season}`
    const sum = sums.get(key) ?? { p, season, telling: 0, rated: 0, walks: 0, plain: 0 }
    sum.telling += telling
    sum.rated += telling * s.rating
    sum.plain += s.rating
    sum.walks++
    sums.set(key, sum)
  }
  const turnOf = new Map(plantings.map((p, i) => [p.id, i]))
  return [...sums.values()]
    .map(({ p, season, telling, rated, walks, plain }): SeasonScore => {
      const nth = season - seasonYearOf(p.inPlaceSince, south) + 1
      const resting = telling < LEAST_TELLING
      const score = resting ? plain / walks : rated / telling
      const young = nth <= allowances(p.taxon).length
      return {
        plantingId: p.id,
        season,
        score,
        adjusted: Math.min(5, score + settlingAllowance(p.taxon, nth)),
        weight: resting ? 0 : Math.min(MOST_WEIGHT, telling) * (young ? (SETTLING_WEIGHT[nth - 1] ?? 1) : 1),
        walks,
        seasonInPlace: nth,
        settling: young,
        resting,
      }
    })
    .sort((a, b) => turnOf.get(a.plantingId)! - turnOf.get(b.plantingId)! || a.season - b.season)
}
