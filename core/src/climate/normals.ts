import { dayOfYear, monthOf, yearOf, type IsoDate } from '../dates/index.ts'
import { dayOfYearMeans } from './dayOfYear.ts'
import { soilTemperatures } from './soil.ts'
import type { DailyWeather } from './weather.ts'

/** A date in the year by how many years out of ten have it earlier; days of the year, 1 to 366. */
export interface DateQuantiles {
  p10: number
  p50: number
  p90: number
}

/** What a place's years are usually like. Arrays hold 366 values, by day of the year less one. */
export interface Climate {
  latitudeDeg: number
  firstYear: number
  lastYear: number
  years: number
  /** Last air frost of spring; undefined where fewer than half of the years have one. */
  lastFrost?: DateQuantiles
  /** First air frost of autumn; undefined where fewer than half of the years have one. */
  firstFrost?: DateQuantiles
  soilC: number[]
  minC: number[]
  maxC: number[]
  /** Share of years with air frost on or about the day, 0 to 1. */
  frostRisk: number[]
  /** Mean of the years' lowest temperatures, the measure behind hardiness zones. */
  meanAnnualMinimumC: number
  /** Made up, not measured: whatever comes from it says so. */
  isSimulated: boolean
  /** What of it the gardener knows. */
  known: { frost: boolean; winter: boolean }
}

/** Fewer years tell weather, not climate; thirty are the norm of meteorology, and what a garden has is used from here on. */
const LEAST_YEARS = 3

/** A climate, or how many whole years there are where they are too few. */
export type ClimateResult =
  { ok: true; climate: Climate } | { ok: false; reason: 'too-few-years'; completeYears: number }

/**
 * Frost dates, soil warmth and temperatures through the usual year.
 *
 * @param days a daily record in date order; only calendar years with at least 360 days count
 * @param isSimulated whether the record was made up
 */
export function climateOf(
  days: readonly DailyWeather[],
  latitudeDeg: number,
  isSimulated = false,
): ClimateResult {
  const years = groupByYear(days)
  if (years.length < LEAST_YEARS) return { ok: false, reason: 'too-few-years', completeYears: years.length }
  const complete = years.flatMap((y) => y.days)
  const soil = soilTemperatures(complete)
  const inFirstHalf = (d: DailyWeather) => monthOf(d.day) <= 6
  const frosty = (d: DailyWeather) => d.minC <= 0
  const north = latitudeDeg >= 0
  const spring = years.map((y) => y.days.filter((d) => inFirstHalf(d) === north && frosty(d)).at(-1))
  const autumn = years.map((y) => y.days.filter((d) => inFirstHalf(d) !== north && frosty(d))[0])
  return {
    ok: true,
    climate: {
      latitudeDeg,
      firstYear: years[0]!.year,
      lastYear: years.at(-1)!.year,
      years: years.length,
      lastFrost: dateQuantiles(spring),
      firstFrost: dateQuantiles(autumn),
      soilC: dayOfYearMeans(complete, (_, i) => soil[i]!),
      minC: dayOfYearMeans(complete, (d) => d.minC),
      maxC: dayOfYearMeans(complete, (d) => d.maxC),
      frostRisk: dayOfYearMeans(complete, (d) => (frosty(d) ? 1 : 0)),
      meanAnnualMinimumC: mean(years.map((y) => Math.min(...y.days.map((d) => d.minC)))),
      isSimulated,
      known: { frost: false, winter: false },
    },
  }
}

function groupByYear(days: readonly DailyWeather[]): { year: number; days: DailyWeather[] }[] {
  const years = new Map<number, DailyWeather[]>()
  for (const d of days) {
    const year = yearOf(d.day)
    const list = years.get(year)
    if (list) list.push(d)
    else years.set(year, [d])
  }
  return [...years]
    .filter(([, list]) => list.length >= 360)
    .map(([year, list]) => ({ year, days: list }))
    .sort((a, b) => a.year - b.year)
}

function dateQuantiles(found: readonly (DailyWeather | undefined)[]): DateQuantiles | undefined {
  const dates = found.filter((d) => d !== undefined).map((d) => dayOfYear(d.day))
  if (dates.length * 2 < found.length) return undefined
  return { p10: quantile(dates, 0.1), p50: quantile(dates, 0.5), p90: quantile(dates, 0.9) }
}

/** Linear interpolation between order statistics (Hyndman and Fan 1996, type 7). Values need not be sorted. */
export function quantile(values: readonly number[], p: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  const at = (sorted.length - 1) * p
  const low = Math.floor(at)
  const a = sorted[low]!
  return a + (at - low) * ((sorted[low + 1] ?? a) - a)
}

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length

/** A usual value on a date. */
export const usually = (series: readonly number[], day: IsoDate): number => series[dayOfYear(day) - 1]!
