import { dayOfYear } from '../dates/index.ts'
import type { DailyWeather } from './weather.ts'

/** Days that a value of the year is the mean over: long enough that one odd week of a few years does not show as a season. */
const SMOOTHING_DAYS = 15

/**
 * Mean over the years for each day of the year, smoothed over a running fortnight around the year.
 *
 * @param value of a day and its place among them
 * @returns 366 means, by day of the year less one; NaN where no day is within a week
 */
export function dayOfYearMeans(
  days: readonly DailyWeather[],
  value: (day: DailyWeather, i: number) => number,
): number[] {
  const sums = new Array<number>(366).fill(0)
  const counts = new Array<number>(366).fill(0)
  days.forEach((d, i) => {
    const slot = dayOfYear(d.day) - 1
    sums[slot]! += value(d, i)
    counts[slot]!++
  })
  const half = (SMOOTHING_DAYS - 1) / 2
  return sums.map((_, slot) => {
    let sum = 0
    let count = 0
    for (let k = -half; k <= half; k++) {
      const at = (slot + k + 366) % 366
      sum += sums[at]!
      count += counts[at]!
    }
    return sum / count
  })
}
