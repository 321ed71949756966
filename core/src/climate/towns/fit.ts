import { dayOfYear } from '../../dates/index.ts'
import type { KnownClimate } from '../known.ts'
import { MONTHS, monthLengths, throughYear, type MonthlyClimate } from '../monthly.ts'
import { tenth, type DailyWeather } from '../weather.ts'
import { blendOf, type ClimateSite } from './blend.ts'

/** The facts by which a gardener knows a climate. */
export interface ClimateFacts {
  /** Usual highest temperature of a day in the hottest month, and lowest of a night in the coldest: degrees Celsius. */
  hottestC: number
  coldestMonthC: number
  /** Rain of a year, millimetres. */
  rainMm: number
}

type Months = Omit<MonthlyClimate, 'yearlyMinimumC'>

/** The facts of a climate by its months. */
export const factsOf = ({ highC, lowC, rainMm }: Months): ClimateFacts => ({
  hottestC: Math.max(...highC),
  coldestMonthC: Math.min(...lowC),
  rainMm: rainMm.reduce((a, b) => a + b, 0),
})

/**
 * Months brought to what a gardener knows: first by as much as height and sea make in the blend, then so that the hottest month,
 * the coldest and the rain of the year are what is known. What lies between hottest and coldest moves in proportion.
 */
export function fittedMonths(months: Months, site: ClimateSite, known: KnownClimate): Months {
  const here = withSite(months, site, known)
  const facts = factsOf(here)
  const hot = (known.hottestC ?? facts.hottestC) - facts.hottestC
  const cold = (known.coldestMonthC ?? facts.coldestMonthC) - facts.coldestMonthC
  const middles = MONTHS.map((m) => (here.highC[m]! + here.lowC[m]!) / 2)
  const [least, most] = [Math.min(...middles), Math.max(...middles)]
  const by = middles.map((c) => {
    const warm = most - least < 0.1 ? 0.5 : (c - least) / (most - least)
    return hot * warm + cold * (1 - warm)
  })
  const wetter = known.rainMm === undefined || facts.rainMm === 0 ? 1 : known.rainMm / facts.rainMm
  return {
    highC: here.highC.map((c, m) => c + by[m]!),
    lowC: here.lowC.map((c, m) => c + by[m]!),
    rainMm: here.rainMm.map((mm) => mm * wetter),
  }
}

function withSite(months: Months, site: ClimateSite, { heightM, seaKm }: KnownClimate): Months {
  if (heightM === undefined && seaKm === undefined) return months
  const bare = blendOf({ latitude: site.latitude, longitude: site.longitude })
  const there = blendOf({ ...site, heightM, seaKm })
  return {
    highC: months.highC.map((c, m) => c + there.highC[m]! - bare.highC[m]!),
    lowC: months.lowC.map((c, m) => c + there.lowC[m]! - bare.lowC[m]!),
    rainMm: months.rainMm.map((mm, m) =>
      bare.rainMm[m]! > 0 ? (mm * there.rainMm[m]!) / bare.rainMm[m]! : mm,
    ),
  }
}

/** The months of a daily record; undefined where it has no day of some month. */
export function monthsOf(days: readonly DailyWeather[]): Months | undefined {
  const sums = MONTHS.map(() => ({ days: 0, high: 0, low: 0, rain: 0 }))
  for (const d of days) {
    const month = sums[Number(d.day.slice(5, 7)) - 1]!
    month.days++
    month.high += d.maxC
    month.low += d.minC
    month.rain += d.rainMm
  }
  if (sums.some((s) => s.days === 0)) return undefined
  return {
    highC: sums.map((s) => s.high / s.days),
    lowC: sums.map((s) => s.low / s.days),
    rainMm: sums.map((s, m) => (s.rain / s.days) * monthLengths[m]!),
  }
}

/** How each day of the year is changed: 366 values each, by day of the year less one. */
export interface DailyFit {
  highC: number[]
  lowC: number[]
  /** Times as much rain. */
  rain: number[]
}

/** What takes the days of a record from the months they have to those they are to have. */
export function dailyFit(from: Months, to: Months): DailyFit {
  const byMonth = (of: (m: number) => number) => throughYear(MONTHS.map(of))
  return {
    highC: byMonth((m) => to.highC[m]! - from.highC[m]!),
    lowC: byMonth((m) => to.lowC[m]! - from.lowC[m]!),
    rain: byMonth((m) => (from.rainMm[m]! > 0 ? to.rainMm[m]! / from.rainMm[m]! : 1)).map((v) =>
      Math.max(0, v),
    ),
  }
}

/** A day of a made-up record, or of its forecast, as it is by a fit. */
export function fittedDay<Day extends DailyWeather>(day: Day, fit: DailyFit): Day {
  const slot = dayOfYear(day.day) - 1
  const minC = tenth(day.minC + fit.lowC[slot]!)
  return {
    ...day,
    minC,
    maxC: Math.max(minC, tenth(day.maxC + fit.highC[slot]!)),
    rainMm: tenth(day.rainMm * fit.rain[slot]!),
  }
}
