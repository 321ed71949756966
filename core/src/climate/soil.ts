import { group, mean, sum } from 'd3-array'
import type { IsoDate } from '../dates/index.ts'
import type { Climate } from './normals.ts'
import type { DailyWeather } from './weather.ts'

/**
 * Soil temperature at about 10 cm under bare or mulched ground, from air temperature: each day moves a quarter of
 * the way to the mean air temperature of the last eleven days.
 * Zheng, Hunt and Running 1993, Climate Research 2, 183-191, eq. 1 and 2 (coefficient 0.25, no canopy).
 *
 * @param days consecutive, oldest first
 * @returns degrees Celsius, one a day
 */
export function soilTemperatures(days: readonly DailyWeather[]): number[] {
  const means = days.map((d) => (d.minC + d.maxC) / 2)
  const soil: number[] = []
  for (let i = 0; i < means.length; i++) {
    const window = means.slice(Math.max(0, i - 10), i + 1)
    const running = window.reduce((a, b) => a + b, 0) / window.length
    const before = soil[i - 1] ?? running
    soil.push(before + 0.25 * (running - before))
  }
  return soil
}

/** What a thermometer found at about 10 cm. */
export interface SoilReading {
  day: IsoDate
  celsius: number
}

/** How much warmer a garden's soil is than the air says. */
export interface SoilCorrection {
  offsetC: number
  /** Days with readings that it rests on. */
  days: number
  /** Standard error of the offset, degrees. */
  errorC: number
}

/** How far a day's reading strays from the model for reasons of the day, and gardens from one another; degrees. */
const DAY_SPREAD_C = 1.5
const PLACE_SPREAD_C = 1.5

/**
 * A garden's soil against the soil that the air alone would make: the mean difference of its readings, shrunk toward none
 * the fewer days they are of (the posterior mean of a normal difference under a normal prior).
 *
 * @param modelled soil temperature by day, degrees
 */
export function soilCorrection(
  readings: readonly SoilReading[],
  modelled: ReadonlyMap<IsoDate, number>,
): SoilCorrection {
  const byDay = group(
    readings.filter((r) => modelled.has(r.day)),
    (r) => r.day,
  )
  const differences = [...byDay].map(([day, own]) => mean(own, (r) => r.celsius)! - modelled.get(day)!)
  const prior = (DAY_SPREAD_C / PLACE_SPREAD_C) ** 2
  const weight = differences.length + prior
  return {
    offsetC: sum(differences) / weight,
    days: differences.length,
    errorC: DAY_SPREAD_C / Math.sqrt(weight),
  }
}

/** A climate with the soil of a garden that was measured. */
export const withSoil = (climate: Climate, { offsetC }: Pick<SoilCorrection, 'offsetC'>): Climate =>
  offsetC === 0 ? climate : { ...climate, soilC: climate.soilC.map((c) => c + offsetC) }
