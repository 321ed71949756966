import { degreeDays, GROWTH_C, type Climate } from '../climate/index.ts'
import { dayNumber, dayOfYear, fromDayNumber, seasonStart, type IsoDate } from '../dates/index.ts'
import { onceForEach } from '../once/index.ts'
import { yearAt, type Year } from '../plants/index.ts'

/** One gardening year of a place, from the midwinter that opens it. Days are day numbers. */
export interface GardenYear {
  season: number
  climate: Climate
  year: Year
  /** Coldest and warmest soil of the usual year, and the coldest after it. */
  midwinter: number
  midsummer: number
  nextMidwinter: number
  longestDay: number
  /** First day from `from` to `to` whose usual value passes; undefined where none does. */
  first: (series: Series, from: number, to: number, test: (value: number) => boolean) => number | undefined
  usual: (series: Series, day: number) => number
  /** Day of a frost quantile in this year; undefined where most years have no frost. */
  frost: (which: 'last' | 'first', share: 10 | 50 | 90) => number | undefined
  /** Usual degree days above 5 °C from a day up to another. */
  warmth: (from: number, to: number) => number
}

/** What a climate tells of each day of the year, °C: the soil’s mean, the night’s lowest, the day’s highest. */
export type Series = 'soilC' | 'minC' | 'maxC'

const DAYS = 366
/** Coldest and warmest soil are sought about so many days after midwinter and midsummer by the sun. */
const COLDEST = [-30, 75] as const
const WARMEST = [150, 260] as const

/**
 * @param season the year the growing season is called by
 * @param lateDays how late this season runs; 0 for seasons to come
 */
export const gardenYear = (climate: Climate, season: number, lateDays = 0): GardenYear =>
  yearOf(climate, season, lateDays)

/** A climate's years are asked for with every window and never change. */
const yearOf = onceForEach(worked)

function worked(climate: Climate, season: number, lateDays: number): GardenYear {
  const south = climate.latitudeDeg < 0
  const start = dayNumber(seasonStart(season, south))
  const slots = slotsFrom(start - DAYS)
  const slot = (day: number) => slots[day - start + DAYS]!
  const usual = (series: Series, day: number) => climate[series][slot(day)]!
  const extreme = ([from, to]: readonly [number, number], sign: 1 | -1) => {
    let best = from
    for (let d = from; d <= to; d++)
      if (sign * usual('soilC', start + d) > sign * usual('soilC', start + best)) best = d
    return start + best
  }
  const midwinter = extreme(COLDEST, -1)
  const warmthBefore = gatheredWarmth(climate, slots)
  return {
    season,
    climate,
    year: yearAt(climate, lateDays),
    midwinter,
    midsummer: extreme(WARMEST, 1),
    nextMidwinter: midwinter + 365,
    longestDay: start + LONGEST_DAY,
    usual,
    first(series, from, to, test) {
      for (let day = from; day <= to; day++) if (test(usual(series, day))) return day
      return undefined
    },
    frost(which, share) {
      const quantiles = which === 'last' ? climate.lastFrost : climate.firstFrost
      if (!quantiles) return undefined
      const doy = Math.round(quantiles[`p${share}`])
      // Quantiles count from 1 January; the season may begin on 1 July.
      const inSeason = (doy - dayOfYear(fromDayNumber(start)) + DAYS) % DAYS
      return start + inSeason
    },
    warmth: (from, to) => warmthBefore(to - start + DAYS) - warmthBefore(from - start + DAYS),
  }
}

/** The longest day lies so many days after the midwinter that opens a season. */
const LONGEST_DAY = 171

/** Day of the year, less one, of each day over three years. */
function slotsFrom(first: number): Uint16Array {
  const slots = new Uint16Array(3 * DAYS)
  let slot = dayOfYear(fromDayNumber(first)) - 1
  for (let i = 0; i < slots.length; i++) {
    slots[i] = slot
    slot++
    const isLast = slot === DAYS || (slot === DAYS - 1 && fromDayNumber(first + i + 1).endsWith('-01-01'))
    if (isLast) slot = 0
  }
  return slots
}

function gatheredWarmth(climate: Climate, slots: Uint16Array): (index: number) => number {
  const sums = new Float64Array(slots.length + 1)
  for (let i = 0; i < slots.length; i++) {
    const slot = slots[i]!
    sums[i + 1] = sums[i]! + degreeDays(climate.minC[slot]!, climate.maxC[slot]!, GROWTH_C)
  }
  return (index) => sums[Math.min(slots.length, Math.max(0, index))]!
}

/** The date of a day number. */
export const dayAt = (day: number): IsoDate => fromDayNumber(day)
