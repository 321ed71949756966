import { dayOfYear, isoDate } from '../dates/index.ts'

/** What the months of a place are usually like. Arrays hold twelve values, January to December. */
export interface MonthlyClimate {
  /** Mean highest and lowest temperature of the days, degrees Celsius. */
  highC: number[]
  lowC: number[]
  /** Rain of the month, millimetres. */
  rainMm: number[]
  /** Mean of the years' lowest temperatures, degrees Celsius: the measure behind hardiness zones. */
  yearlyMinimumC: number
}

export const MONTHS = Array.from({ length: 12 }, (_, i) => i)

/** The slots of a year of 366 days in which each month begins, and where the year ends. */
const beginnings = [...MONTHS.map((m) => dayOfYear(isoDate(2024, m + 1, 1)) - 1), 366]

/** Days of each month in a usual year. */
export const monthLengths = MONTHS.map((m) => (m === 1 ? 28.25 : slotsOf(m)))

function slotsOf(m: number): number {
  return beginnings[m + 1]! - beginnings[m]!
}

const middles = MONTHS.map((m) => (beginnings[m]! + beginnings[m + 1]!) / 2)
const ROUNDS = 30

/**
 * A smooth year through twelve monthly means that keeps each of them: Catmull and Rom's curve through the middles of the months,
 * around the year, its knots moved until every month's mean is what was given.
 *
 * @returns 366 values, by day of the year less one
 */
export function throughYear(monthly: readonly number[]): number[] {
  const knots = [...monthly]
  let days = curve(knots)
  for (let round = 0; round < ROUNDS; round++) {
    monthMeans(days).forEach((mean, m) => (knots[m]! += monthly[m]! - mean))
    days = curve(knots)
  }
  return days
}

/** Means over the months of 366 values by day of the year less one. */
export const monthMeans = (days: readonly number[]): number[] =>
  MONTHS.map((m) => {
    let sum = 0
    for (let slot = beginnings[m]!; slot < beginnings[m + 1]!; slot++) sum += days[slot]!
    return sum / slotsOf(m)
  })

function curve(knots: readonly number[]): number[] {
  const knot = (m: number) => knots[(m + 24) % 12]!
  return Array.from({ length: 366 }, (_, slot) => {
    const at = slot + 0.5
    const after = middles.findIndex((middle) => middle > at)
    const m = after < 0 ? 11 : after - 1
    const from = m < 0 ? middles[11]! - 366 : middles[m]!
    const to = after < 0 ? middles[0]! + 366 : middles[after]!
    const t = (at - from) / (to - from)
    const [a, b, c, d] = [knot(m - 1), knot(m), knot(m + 1), knot(m + 2)]
    return b + (t / 2) * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)))
  })
}
