import { celsius } from '../words/index.ts'
import { dayOfYearMeans } from './dayOfYear.ts'
import { soilTemperatures } from './soil.ts'
import type { DailyWeather } from './weather.ts'

/** Kinds of weather that work needs. */
export const weatherNeeds = ['none', 'dig', 'plant', 'cut', 'spray', 'lay'] as const
export type WeatherNeed = (typeof weatherNeeds)[number]

/** How a day suits a kind of work, and what decided it. */
export interface Suitability {
  level: 'good' | 'poor' | 'no'
  says: string
}

/** Working limits of this product, from general practice: frozen or sodden ground is not worked, heat dries lifted roots. */
const FROZEN_SOIL_C = 0.5
const HARD_FROST_C = -4
const SODDEN_MM = 25
const WET_MM = 8
const DRIP_MM = 0.5
const WASH_OFF_MM = 2
const HOT_C = 27
const WARM_C = 22
const DRY_MM = 4
const WINDY_M_PER_S = 6

const good = (says: string): Suitability => ({ level: 'good', says })
const poor = (says: string): Suitability => ({ level: 'poor', says })
const no = (says: string): Suitability => ({ level: 'no', says })

/**
 * How a day suits a kind of work, from its weather, the days before it and the day after.
 *
 * @param days consecutive, oldest first
 * @param soilC usual or modelled soil temperature of each
 */
export function suitability(
  need: WeatherNeed,
  days: readonly DailyWeather[],
  soilC: ArrayLike<number>,
  i: number,
): Suitability {
  const d = days[i]!
  const sum = (from: number) =>
    days.slice(Math.max(0, i - from + 1), i + 1).reduce((mm, x) => mm + x.rainMm, 0)
  const frozen = soilC[i]! <= FROZEN_SOIL_C
  const rain = `${d.rainMm.toFixed(0)} mm of rain`
  switch (need) {
    case 'none':
      return good('Any weather will do.')
    case 'dig':
      if (frozen) return no('The ground is frozen.')
      if (sum(3) >= SODDEN_MM) return no(`The ground is sodden: ${sum(3).toFixed(0)} mm in three days.`)
      if (d.rainMm >= WET_MM) return poor(`${rain} that day.`)
      return good('The ground can be worked.')
    case 'plant':
      if (frozen) return no('The ground is frozen.')
      if (d.minC <= HARD_FROST_C) return no(`Frost to ${celsius(Math.round(d.minC))}.`)
      if (sum(3) >= SODDEN_MM) return no(`The ground is sodden: ${sum(3).toFixed(0)} mm in three days.`)
      if (d.maxC >= HOT_C) return no(`Hot, ${celsius(Math.round(d.maxC))}: lifted roots dry out.`)
      if (d.maxC >= WARM_C)
        return poor(`Warm, ${celsius(Math.round(d.maxC))}: shade and water what is planted.`)
      if (d.rainMm >= WET_MM) return poor(`${rain} that day.`)
      return good((days[i + 1]?.rainMm ?? 0) >= 1 ? 'Cool, with rain to come.' : 'Cool enough.')
    case 'cut':
      if (d.minC <= HARD_FROST_C) return no(`Hard frost, ${celsius(Math.round(d.minC))}: wood splits.`)
      if (d.rainMm >= WASH_OFF_MM) return poor(`${rain}: wet cuts let disease in.`)
      return good('Dry enough.')
    case 'spray':
      if (d.rainMm >= DRIP_MM) return no(`${d.rainMm.toFixed(1)} mm of rain washes it off.`)
      if ((d.windMs ?? 0) >= WINDY_M_PER_S) return no(`Wind of ${d.windMs!.toFixed(0)} m/s: it drifts.`)
      if ((days[i + 1]?.rainMm ?? 0) >= WASH_OFF_MM) return poor('Rain follows within a day.')
      if (d.maxC >= HOT_C) return poor(`Hot, ${celsius(Math.round(d.maxC))}: leaves burn.`)
      return good('Dry and still enough.')
    case 'lay':
      if (frozen) return no('The ground is frozen.')
      if (sum(14) < DRY_MM && d.maxC >= WARM_C) return poor('The soil is dry: water it first.')
      return good('The soil is moist and open.')
  }
}

/** What a level counts for as a chance that the day does not suit. */
export const unsuitableShare: Record<Suitability['level'], number> = { good: 0, poor: 0.4, no: 1 }

/**
 * How often a day of the year does not suit, over the years of a record: poor days count in part.
 *
 * @returns 366 shares, 0 to 1, by day of the year less one, smoothed over a fortnight
 */
export function unsuitableUsually(need: WeatherNeed, days: readonly DailyWeather[]): number[] {
  const soil = soilTemperatures(days)
  return dayOfYearMeans(days, (_, i) => unsuitableShare[suitability(need, days, soil, i).level]).map(
    (share) => (Number.isNaN(share) ? 0 : Math.round(100 * share) / 100),
  )
}
