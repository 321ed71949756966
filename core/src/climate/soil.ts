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
