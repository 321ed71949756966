import { dayNumber, type IsoDate } from '../dates/index.ts'
import { sunAtSolarTime, sunCoordinates } from './position.ts'

/** Parts of the day by true solar time: before 10:00, 10:00 to 14:00, from 14:00. */
export type DayPart = 'morning' | 'midday' | 'afternoon'

/** A position of the sun on a day, and the stretch of it that it stands for. */
export interface SunSample {
  /** True solar time, hours. */
  solarHours: number
  part: DayPart
  azimuthDeg: number
  elevationDeg: number
  /** UTC, milliseconds since 1970. */
  instantMs: number
}

/** What each sample stands for: ten minutes, in hours. */
export const SAMPLE_HOURS = 1 / 6

const MS_PER_DAY = 86_400_000

/**
 * The sun through one local solar day at :05, :15 ... :55 of each true solar hour.
 *
 * @returns the samples with the sun above the horizon, in order: up to 144, none in polar night
 */
export function solarDay(day: IsoDate, latitudeDeg: number, longitudeDeg: number): SunSample[] {
  const midnightMs = dayNumber(day) * MS_PER_DAY
  const samples: SunSample[] = []
  for (let i = 0; i < 144; i++) {
    const solarHours = (i + 0.5) / 6
    // The equation of time moves by at most half a minute a day, so its value at mean solar time serves.
    const meanMs = midnightMs + (solarHours - longitudeDeg / 15) * 3_600_000
    const instantMs = meanMs - sunCoordinates(meanMs).equationOfTimeMin * 60_000
    const { declinationDeg } = sunCoordinates(instantMs)
    const position = sunAtSolarTime(solarHours, declinationDeg, latitudeDeg)
    if (position.elevationDeg > 0)
      samples.push({ solarHours, part: dayPart(solarHours), ...position, instantMs })
  }
  return samples
}

/** The part of the day: before ten, ten to two, after two by the sun. */
export function dayPart(solarHours: number): DayPart {
  if (solarHours < 10) return 'morning'
  return solarHours < 14 ? 'midday' : 'afternoon'
}
