import { addDays, daysBetween, type IsoDate } from '../dates/index.ts'
import { normal, seededRandom } from '../random/index.ts'
import type { DailyWeather } from './weather.ts'

/** A day ahead as a forecaster would put it. */
export interface ForecastDay extends DailyWeather {
  /** Chance of rain, 0 to 1. */
  rainChance: number
  /** Standard error of the temperatures, degrees. */
  spreadC: number
}

/** Skill fades with the days ahead: this share of it is left after each. */
const SKILL_A_DAY = 0.86
const TEMPERATURE_SPREAD_C = 2.6

/**
 * A made-up forecast of weather that is known to its maker: what will come, mixed with what is usual and with error, the more
 * the further ahead. Same record, day and seed, same forecast.
 *
 * @param record holds the days ahead, and at least a year before them for what is usual
 * @param issued the day it is made on; it begins with that day
 */
export function simulatedForecast(
  record: readonly DailyWeather[],
  issued: IsoDate,
  days: number,
  seed: number,
): ForecastDay[] {
  const at = record.findIndex((d) => d.day === issued)
  if (at < 0) return []
  const random = seededRandom(seed + daysBetween('2000-01-01', issued))
  return record.slice(at, at + days).map((truth, lead): ForecastDay => {
    const usual = usualAbout(record, at + lead)
    const skill = SKILL_A_DAY ** lead
    const spreadC = Math.round(TEMPERATURE_SPREAD_C * Math.sqrt(1 - skill * skill) * 10) / 10
    const error = spreadC * normal(random)
    const mixed = (t: number, u: number) => Math.round((skill * t + (1 - skill) * u + error) * 10) / 10
    const minC = mixed(truth.minC, usual.minC)
    const rainChance = skill * (truth.rainMm >= 1 ? 1 : 0) + (1 - skill) * usual.rainShare
    return {
      day: addDays(issued, lead),
      minC,
      maxC: Math.max(minC, mixed(truth.maxC, usual.maxC)),
      // A forecaster puts rain where it is likelier than not.
      rainMm:
        rainChance >= 0.5 ? Math.round((skill * truth.rainMm + (1 - skill) * usual.rainMm) * 10) / 10 : 0,
      ...(truth.windMs !== undefined && { windMs: truth.windMs }),
      ...(truth.cloud !== undefined && { cloud: truth.cloud }),
      rainChance: Math.round(100 * rainChance) / 100,
      spreadC,
    }
  })
}

/** The mean of the same fortnight in the years before. */
function usualAbout(record: readonly DailyWeather[], at: number) {
  const found: DailyWeather[] = []
  for (let year = 1; year <= 10; year++)
    for (let k = -7; k <= 7; k++) {
      const d = record[at - Math.round(365.25 * year) + k]
      if (d) found.push(d)
    }
  const mean = (of: (d: DailyWeather) => number) =>
    found.length === 0 ? 0 : found.reduce((sum, d) => sum + of(d), 0) / found.length
  return {
    minC: mean((d) => d.minC),
    maxC: mean((d) => d.maxC),
    rainMm: mean((d) => d.rainMm),
    rainShare: mean((d) => (d.rainMm >= 1 ? 1 : 0)),
  }
}
