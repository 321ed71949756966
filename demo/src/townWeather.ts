import { generateWeather, type DailyWeather } from '@border/core'
import { DEMO_DATE, townPattern } from './town.ts'

/** The town's daily record, 2011 to the eve of the demo's day, by the seeded generator of core/climate. */
export const townWeather = (): DailyWeather[] =>
  generateWeather(townPattern, 2011, 2026).filter((d) => d.day < DEMO_DATE)
