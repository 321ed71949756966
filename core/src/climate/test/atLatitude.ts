import type { WeatherPattern, YearlyWave } from '../weather.ts'

/** A year of one wave that a latitude could have: what tests of the rest are given to work with. */
export function patternAtLatitude(latitudeDeg: number): YearlyWave & WeatherPattern {
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
