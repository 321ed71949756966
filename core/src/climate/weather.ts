import { dayNumber, dayOfYear, fromDayNumber, isoDate, type IsoDate } from '../dates/index.ts'
import { normal, seededRandom } from '../random/index.ts'

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

/** What the generator draws from: yearly waves, day-to-day persistence and rain. */
export interface WeatherPattern {
  annualMeanC: number
  /** Half the difference between the warmest and the coldest time of the year, degrees. */
  seasonalAmplitudeC: number
  /** Day of the year of the coldest time. */
  coldestDay: number
  /** Mean difference between a day's highest and lowest temperature, degrees. */
  dailyRangeC: number
  annualRainMm: number
  seed: number
}

/** A pattern for a place from its latitude alone: a stand-in where no record has been brought. */
export function patternAtLatitude(latitudeDeg: number): WeatherPattern {
  const a = Math.abs(latitudeDeg)
  return {
    annualMeanC: 27 - 0.0105 * a * a + 0.00006 * a * a * a + (a > 40 && a < 60 ? 3 : 0),
    seasonalAmplitudeC: Math.min(16, 0.5 + 0.13 * a),
    coldestDay: latitudeDeg >= 0 ? 22 : 204,
    dailyRangeC: 8,
    annualRainMm: 800,
    seed: Math.round(latitudeDeg * 1000) + 90_000,
  }
}

const YEAR_DAYS = 365.25

/**
 * A made-up but plausible daily record. Daily mean = yearly wave + a slow anomaly for the year + a first-order
 * autoregressive day-to-day anomaly (coefficient 0.75, as mid-latitude daily means show); rain as a two-state
 * Markov chain with exponential amounts (Richardson 1981, Water Resources Research 17, 182-190). Wet days have
 * half the daily range. Same pattern and years, same record.
 */
export function generateWeather(
  pattern: WeatherPattern,
  firstYear: number,
  lastYear: number,
): DailyWeather[] {
  const random = seededRandom(pattern.seed)
  const persistence = 0.75
  const spreadC = 2.6
  const wetAfterDry = 0.27
  const wetAfterWet = 0.6
  const wetShare = wetAfterDry / (1 - wetAfterWet + wetAfterDry)
  const meanWetMm = pattern.annualRainMm / (YEAR_DAYS * wetShare)
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
    if (day.endsWith('01-01')) yearAnomaly = 0.6 * normal(random)
    anomaly = persistence * anomaly + Math.sqrt(1 - persistence ** 2) * spreadC * normal(random)
    wet = random() < (wet ? wetAfterWet : wetAfterDry)
    const wave =
      -pattern.seasonalAmplitudeC *
      Math.cos(((dayOfYear(day) - pattern.coldestDay) / YEAR_DAYS) * 2 * Math.PI)
    const mean = pattern.annualMeanC + wave + yearAnomaly + anomaly
    const range = pattern.dailyRangeC * (wet ? 0.65 : 1.2) * (0.75 + 0.5 * random())
    days.push({
      day,
      minC: tenth(mean - range / 2),
      maxC: tenth(mean + range / 2),
      rainMm: wet ? tenth(-Math.log(Math.max(random(), 1e-9)) * meanWetMm) : 0,
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

const tenth = (v: number) => Math.round(v * 10) / 10
