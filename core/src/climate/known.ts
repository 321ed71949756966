import { dayOfYear } from '../dates/index.ts'
import { celsius } from '../words/index.ts'
import type { Climate, DateQuantiles } from './normals.ts'

/** What a gardener knows of a place's climate without a record. */
export interface KnownClimate {
  /** When the last frost of spring, and the first of autumn, usually come: `MM-DD`. */
  lastFrost?: string | undefined
  firstFrost?: string | undefined
  /** The lowest temperature of a usual winter, degrees Celsius: the middle of a hardiness zone. */
  coldestC?: number | undefined
  /** Usual highest temperature of a day in the hottest month, and lowest of a night in the coldest: degrees Celsius. */
  hottestC?: number | undefined
  coldestMonthC?: number | undefined
  /** Rain of a year, millimetres. */
  rainMm?: number | undefined
  /** Height above the sea, metres, and distance to it, kilometres. */
  heightM?: number | undefined
  seaKm?: number | undefined
}

/** Least and most of what can be known: no place on Earth lies beyond. Degrees Celsius, millimetres, metres, kilometres. */
export const knownLimits = {
  coldestC: [-60, 30],
  hottestC: [0, 55],
  coldestMonthC: [-60, 35],
  rainMm: [0, 12_000],
  heightM: [-450, 6000],
  seaKm: [0, 2700],
} as const

/** Whether something is known that made-up days of weather can be fitted to. */
export const fitsDays = (known: KnownClimate | null): known is KnownClimate =>
  known !== null &&
  [known.hottestC, known.coldestMonthC, known.rainMm, known.heightM, known.seaKm].some((v) => v !== undefined)

/** Zones count from -51.1 degrees in steps of 5.6, each in halves a and b (the scale of mean annual minimum). */
const ZONE_1_C = -51.1
const ZONE_STEP_C = 50 / 9

/** The middle of a hardiness zone, degrees Celsius; undefined for what is none. `8` is the middle of 8a and 8b. */
export function zoneMiddleC(zone: string): number | undefined {
  const read = /^(\d{1,2})\s*([ab])?$/i.exec(zone.trim())
  const number = Number(read?.[1])
  if (!read || number < 1 || number > 13) return undefined
  const half = read[2]?.toLowerCase()
  const within = half === 'a' ? 0.25 : half === 'b' ? 0.75 : 0.5
  return Math.round((ZONE_1_C + (number - 1 + within) * ZONE_STEP_C) * 10) / 10
}

/** The zone that a mean annual minimum lies in: `8b`. */
export function zoneOf(meanAnnualMinimumC: number): string {
  const at = Math.min(12.99, Math.max(0, (meanAnnualMinimumC - ZONE_1_C) / ZONE_STEP_C))
  return `${Math.floor(at) + 1}${at % 1 < 0.5 ? 'a' : 'b'}`
}

/** Degrees by which what a kind bears is rounded where it is told. */
const HARDY_ABOUT_C = 1

/** What cold a kind bears, with the coldest zone whose usual winter is no colder: `−15 °C (zone 7b)`. */
export function hardyWords(hardyToC: number): string {
  const halves = Math.ceil((hardyToC - HARDY_ABOUT_C - ZONE_1_C) / (ZONE_STEP_C / 2))
  return `${celsius(Math.round(hardyToC))} (zone ${zoneOf(ZONE_1_C + (halves + 0.5) * (ZONE_STEP_C / 2))})`
}

/** One year in ten lies this many days off the usual date where nothing measured says how far: a working figure. */
const TENTH_OFF_DAYS = 14

/** A climate put right by what a gardener knows: its frosts moved to the dates that are known, its coldest night set. */
export function withKnown(climate: Climate, known: KnownClimate | null): Climate {
  if (!known) return climate
  const last = moved(climate.lastFrost, known.lastFrost)
  const first = moved(climate.firstFrost, known.firstFrost)
  return {
    ...climate,
    lastFrost: last.quantiles,
    firstFrost: first.quantiles,
    frostRisk: climate.frostRisk.map((_, slot) => {
      const isSpring = slot < 182 === climate.latitudeDeg >= 0
      const from = (slot - (isSpring ? last.byDays : first.byDays) + 2 * 366) % 366
      return climate.frostRisk[from]!
    }),
    meanAnnualMinimumC: known.coldestC ?? climate.meanAnnualMinimumC,
    known: {
      frost: known.lastFrost !== undefined || known.firstFrost !== undefined || climate.known.frost,
      winter: known.coldestC !== undefined || climate.known.winter,
    },
  }
}

function moved(
  quantiles: DateQuantiles | undefined,
  monthDay: string | undefined,
): { quantiles: DateQuantiles | undefined; byDays: number } {
  if (monthDay === undefined) return { quantiles, byDays: 0 }
  // The days of the year of quantiles count a leap year.
  const p50 = dayOfYear(`2024-${monthDay}`)
  if (!quantiles)
    return { quantiles: { p10: p50 - TENTH_OFF_DAYS, p50, p90: p50 + TENTH_OFF_DAYS }, byDays: 0 }
  const byDays = Math.round(p50 - quantiles.p50)
  return { quantiles: { p10: quantiles.p10 + byDays, p50, p90: quantiles.p90 + byDays }, byDays }
}

/**
 * Whether the frosts and winters of a climate are a guess: made up from where the place lies, with neither a record nor the
 * gardener's own frost dates or zone to go by.
 */
export const frostIsGuessed = (climate: Climate): boolean =>
  climate.isSimulated && !climate.known.frost && !climate.known.winter
