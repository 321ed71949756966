import {
  addDays,
  soilTemperatures,
  suitability,
  unsuitableShare,
  weatherNeeds,
  type DailyWeather,
  type Suitability,
  type WeatherNeed,
} from '@border/core'
import type { OutlookView } from '@border/contract'
import type { Db } from '../database/connect.ts'
import { findSoilCorrection, forecastFor, listWeather, type Measured } from '../store/weather.ts'

/** Days on record that the soil and the wet of the coming ones are told from. */
const BEFORE_DAYS = 30

const needs = weatherNeeds.filter((n) => n !== 'none')

/** How the next ten days suit each kind of work, by the forecast and the weather on record before it. */
export async function outlookOf(db: Db, garden: Measured, today: string): Promise<OutlookView> {
  const forecast = await forecastFor(db, garden, today)
  if (!forecast.ok) return { available: false, isSimulated: false, why: forecast.why, days: [] }
  const before = await listWeather(db, garden, addDays(today, -BEFORE_DAYS), addDays(today, -1))
  const days: DailyWeather[] = [...before, ...forecast.days]
  const { offsetC } = await findSoilCorrection(db, garden)
  const soil = soilTemperatures(days).map((c) => c + offsetC)
  return {
    available: true,
    isSimulated: forecast.isSimulated,
    why: null,
    days: forecast.days.map((d, lead) => {
      const i = before.length + lead
      return {
        ...d,
        soilC: Math.round(soil[i]! * 10) / 10,
        suits: Object.fromEntries(needs.map((n) => [n, suitability(n, days, soil, i)])) as Record<
          Exclude<WeatherNeed, 'none'>,
          Suitability
        >,
      }
    }),
  }
}

/** Chance that each day of the outlook does not suit, by kind of work. */
export const unsuitableAhead = (outlook: OutlookView): Map<string, Record<string, number>> =>
  new Map(
    outlook.days.map((d) => [
      d.day,
      Object.fromEntries(Object.entries(d.suits).map(([need, s]) => [need, unsuitableShare[s.level]])),
    ]),
  )
