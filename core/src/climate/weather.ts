import { dayNumber, dayOfYear, fromDayNumber, isoDate, type IsoDate } from '../dates/index.ts'
import { normal, seededRandom } from '../random/index.ts'
import { MONTHS, monthLengths, throughYear, type MonthlyClimate } from './monthly.ts'

/** One day's record: air temperature at screen height, degrees Celsius, and rain, millimetres. */
export interface DailyWeather {
  day: IsoDate
  minC: number
  maxC: number
  rainMm: number
  /** Mean wind, metres a second; absent where nobody measured it. */
  windMs?: number | undefined
  /** Share of the sky under cloud, 0 to 1; absent where nobody noted it. */
  cloud?: number | undefined
}

/** A year told by one wave: a temperate place in few numbers. */
export interface YearlyWave {
  annualMeanC: number
  /** Half the difference between the warmest and the coldest time of the year, degrees. */
  seasonalAmplitudeC: number
  /** Day of the year of the coldest time. */
  coldestDay: number
  /** Mean difference between a day's highest and lowest temperature, degrees. */
  dailyRangeC: number
  annualRainMm: number
}

/** What the generator draws from, and the seed that it draws with. */
export type WeatherPattern = (YearlyWave | { months: MonthlyClimate }) & { seed: number }

/** What a day of the year is drawn from. */
interface UsualDay {
  meanC: number
  rangeC: number
  /** Of daily means from day to day, degrees. */
  spreadC: number
  wetAfterDry: number
  wetAfterWet: number
  meanWetMm: number
  /** Range of a wet and of a dry day over the mean range. */
  wetRange: number
  dryRange: number
}

const YEAR_DAYS = 365.25
const SPREAD_C = 2.6
const WET_RANGE = 0.65
const DRY_RANGE = 1.2

function usualOfWave(wave: YearlyWave): (dayOfYear: number) => UsualDay {
  const wetAfterDry = 0.27
  const wetAfterWet = 0.6
  const wetShare = wetAfterDry / (1 - wetAfterWet + wetAfterDry)
  const meanWetMm = wave.annualRainMm / (YEAR_DAYS * wetShare)
  return (on) => ({
    meanC:
      wave.annualMeanC -
      wave.seasonalAmplitudeC * Math.cos(((on - wave.coldestDay) / YEAR_DAYS) * 2 * Math.PI),
    rangeC: wave.dailyRangeC,
    spreadC: SPREAD_C,
    wetAfterDry,
    wetAfterWet,
    meanWetMm,
    wetRange: WET_RANGE,
    dryRange: DRY_RANGE,
  })
}

/** A wet day's rain where it is cold, and what each degree of warmth adds: millimetres. */
const WET_DAY_MM = 4
const WET_DAY_MM_PER_C = 0.2
const LEAST_WET_SHARE = 0.01
const MOST_WET_SHARE = 0.7
/** How much a wet day makes the next one wet, of what is possible. */
const WET_PERSISTENCE = 0.33
/**
 * The lowest night of a year lies about so many spreads below the coldest month’s mean night, less what single years and nights
 * add: chosen so that over the table of towns the years drawn have the lowest nights that they should, on average.
 */
const SPREADS_TO_MINIMUM = 2.05
const OWN_SPREAD_C = 0.5
/** Spread of the days outside winter grows with the year's course and the day's range, to so much: working figures. */
const LEAST_SPREAD_C = 0.6
const MOST_SUMMER_SPREAD_C = 3.5

function usualOfMonths(months: MonthlyClimate): (dayOfYear: number) => UsualDay {
  const [high, low] = [throughYear(months.highC), throughYear(months.lowC)]
  const coldest = Math.min(...months.lowC)
  const winterC = Math.max(
    LEAST_SPREAD_C,
    (coldest - months.yearlyMinimumC) / SPREADS_TO_MINIMUM - OWN_SPREAD_C,
  )
  const middles = MONTHS.map((m) => (months.highC[m]! + months.lowC[m]!) / 2)
  const [least, most] = [Math.min(...middles), Math.max(...middles)]
  const rangeC = MONTHS.reduce((sum, m) => sum + (months.highC[m]! - months.lowC[m]!) / 12, 0)
  const summerC = Math.min(MOST_SUMMER_SPREAD_C, LEAST_SPREAD_C + 0.12 * (most - least) + 0.08 * rangeC)
  // How much of the winter is in a day, by its warmth.
  const wintriness = throughYear(middles.map((c) => (most - least < 0.1 ? 0 : (most - c) / (most - least))))
  const wetDayMm = middles.map((c) => WET_DAY_MM + WET_DAY_MM_PER_C * Math.max(0, c))
  const possible = (share: number) => Math.min(MOST_WET_SHARE, Math.max(LEAST_WET_SHARE, share))
  const wetShare = throughYear(
    MONTHS.map((m) => possible(months.rainMm[m]! / (monthLengths[m]! * wetDayMm[m]!))),
  ).map(possible)
  const perDay = throughYear(MONTHS.map((m) => months.rainMm[m]! / monthLengths[m]!))
  return (on) => {
    const slot = on - 1
    const share = wetShare[slot]!
    const kept = share * WET_RANGE + (1 - share) * DRY_RANGE
    return {
      meanC: (high[slot]! + low[slot]!) / 2,
      rangeC: Math.max(1, high[slot]! - low[slot]!),
      spreadC: summerC + (winterC - summerC) * Math.min(1, Math.max(0, wintriness[slot]!)),
      wetAfterDry: share * (1 - WET_PERSISTENCE),
      wetAfterWet: share + WET_PERSISTENCE * (1 - share),
      meanWetMm: Math.max(0, perDay[slot]!) / share,
      wetRange: WET_RANGE / kept,
      dryRange: DRY_RANGE / kept,
    }
  }
}

/**
 * A made-up but plausible daily record. Daily mean = the usual one + a slow anomaly for the year + a first-order
 * autoregressive day-to-day anomaly (coefficient 0.75, as mid-latitude daily means show); rain as a two-state
 * Markov chain with exponential amounts (Richardson 1981, Water Resources Research 17, 182-190). Wet days have
 * half the daily range. Same pattern and years, same record.
 */
export function generateWeather(
  pattern: WeatherPattern,
  firstYear: number,
  lastYear: number,
): DailyWeather[] {
  const usualOn = 'months' in pattern ? usualOfMonths(pattern.months) : usualOfWave(pattern)
  const usual = Array.from({ length: 366 }, (_, slot) => usualOn(slot + 1))
  const random = seededRandom(pattern.seed)
  const persistence = 0.75
  const days: DailyWeather[] = []
  // Wind and cloud are drawn from sequences of their own, so that records made before they were known stay as they were.
  const gusts = seededRandom(pattern.seed + 7)
  const skies = seededRandom(pattern.seed + 11)
  let anomaly = 0
  let yearAnomaly = 0
  let wet = false
  const last = dayNumber(isoDate(lastYear, 12, 31))
  for (let n = dayNumber(isoDate(firstYear, 1, 1)); n <= last; n++) {
    const day = fromDayNumber(n)
    const on = usual[dayOfYear(day) - 1]!
    if (day.endsWith('01-01')) yearAnomaly = 0.6 * normal(random)
    anomaly = persistence * anomaly + Math.sqrt(1 - persistence ** 2) * on.spreadC * normal(random)
    wet = random() < (wet ? on.wetAfterWet : on.wetAfterDry)
    const mean = on.meanC + yearAnomaly + anomaly
    const range = on.rangeC * (wet ? on.wetRange : on.dryRange) * (0.75 + 0.5 * random())
    days.push({
      day,
      minC: tenth(mean - range / 2),
      maxC: tenth(mean + range / 2),
      rainMm: wet ? tenth(-Math.log(Math.max(random(), 1e-9)) * on.meanWetMm) : 0,
      windMs: tenth(
        (wet ? MEAN_WIND_WET : MEAN_WIND_DRY) * Math.sqrt(-Math.log(Math.max(gusts(), 1e-9)) * (4 / Math.PI)),
      ),
      cloud: tenth(wet ? 0.6 + 0.4 * skies() : skies() * 0.9),
    })
  }
  return days
}

/** Mean winds, metres a second; days are spread about them as Rayleigh's. */
const MEAN_WIND_DRY = 3.4
const MEAN_WIND_WET = 4.8

/** As weather is written down. */
export const tenth = (v: number) => Math.round(v * 10) / 10
