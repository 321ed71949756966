import type { WeatherPattern } from '@border/core'

/** The made-up estuary town all three gardens lie in, at about 52.1 N, 1.3 E. */
export const town = { name: 'Harrowmouth', latitude: 52.1, longitude: 1.3, timeZone: 'Europe/London' }

/** The day the demo stands at. */
export const DEMO_DATE = '2026-09-14'

/** What the town's record is generated from; documented in docs/formats.md. */
export const townPattern: WeatherPattern = {
  annualMeanC: 10.6,
  seasonalAmplitudeC: 6.7,
  coldestDay: 28,
  dailyRangeC: 7.4,
  annualRainMm: 590,
  seed: 5213,
}

/** The town as the stand-in weather service is told of it. */
export const weatherRegion = {
  latitude: town.latitude,
  longitude: town.longitude,
  withinDeg: 0.3,
  pattern: townPattern,
  firstYear: 2011,
}
