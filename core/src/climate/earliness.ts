import { addDays, daysBetween, seasonStart, seasonYearOf, type IsoDate } from '../dates/index.ts'
import { degreeDays } from './degreeDays.ts'
import type { DailyWeather } from './weather.ts'

/** How far a year's warmth is ahead of the usual year. */
export interface Earliness {
  /** Days late; negative when early. 0 until enough warmth has gathered to tell. */
  lateDays: number
  /** Degree days gathered since midwinter, above 5 °C. */
  gathered: number
  /** Usual for the same day. */
  usual: number
  /** Earlier seasons the usual is worked out from. */
  seasons: number
}

/** Growth of hardy plants begins about here. */
const GROWTH_C = 5
/** With less gathered, a warm week in January would be called an early spring. */
const LEAST_DEGREE_DAYS = 60
const LEAST_SEASONS = 3
/** Beyond this share of its usual warmth a season adds so little a day that days would be made of next to nothing. */
const TELLING_SHARE = 0.9
const SEASON_DAYS = 365

/**
 * This season's warmth against the usual: how many days sooner or later the usual season reaches what this one had
 * gathered by a day.
 *
 * @param days a daily record in date order that reaches `on`, or the days before it
 * @returns undefined when the record holds too few earlier seasons or ends more than a week before `on`
 */
export function earlinessOf(
  days: readonly DailyWeather[],
  latitudeDeg: number,
  on: IsoDate,
): Earliness | undefined {
  const south = latitudeDeg < 0
  const start = seasonStart(seasonYearOf(on, south), south)
  const index = daysBetween(start, on)
  const earlier: Float64Array[] = []
  let own: Float64Array | undefined
  for (const [from, season] of seasonsOf(days, south)) {
    if (from === start) own = gatheredBy(season)
    else if (from < start && season.length >= SEASON_DAYS) earlier.push(gatheredBy(season))
  }
  if (!own || earlier.length < LEAST_SEASONS || own.length < index - 6) return undefined
  const at = Math.min(index, own.length - 1)
  const usual = Float64Array.from(
    { length: SEASON_DAYS },
    (_, i) => earlier.reduce((sum, e) => sum + e[i]!, 0) / earlier.length,
  )
  // Late in the year what the season was when it still grew is what it stays.
  const telling = Math.min(
    at,
    usual.findIndex((g) => g >= TELLING_SHARE * usual.at(-1)!),
  )
  const told = own[telling]! >= LEAST_DEGREE_DAYS || usual[telling]! >= LEAST_DEGREE_DAYS
  const reached = usual.findIndex((g) => g >= own[telling]!)
  return {
    lateDays: told ? telling - (reached < 0 ? SEASON_DAYS - 1 : reached) : 0,
    gathered: own[at]!,
    usual: usual[at]!,
    seasons: earlier.length,
  }
}

/** The earliness of a whole season up to a day: of one that is over by its middle, of the present one by the day before. */
export function earlinessOfSeason(
  days: readonly DailyWeather[],
  latitudeDeg: number,
  season: number,
  today: IsoDate,
): Earliness | undefined {
  const middle = latitudeDeg < 0 ? `${season - 1}-12-31` : `${season}-06-30`
  return earlinessOf(days, latitudeDeg, middle < today ? middle : addDays(today, -1))
}

function seasonsOf(days: readonly DailyWeather[], south: boolean): Map<IsoDate, DailyWeather[]> {
  const seasons = new Map<IsoDate, DailyWeather[]>()
  for (const d of days) {
    const from = seasonStart(seasonYearOf(d.day, south), south)
    const list = seasons.get(from)
    if (list) list.push(d)
    // A season whose beginning is not on record cannot be summed from its beginning.
    else if (daysBetween(from, d.day) === 0) seasons.set(from, [d])
  }
  return seasons
}

function gatheredBy(days: readonly DailyWeather[]): Float64Array {
  let sum = 0
  return Float64Array.from(days, (d) => (sum += degreeDays(d.minC, d.maxC, GROWTH_C)))
}
