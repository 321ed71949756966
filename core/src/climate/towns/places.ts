import type { MonthlyClimate } from '../monthly.ts'
import { townLines } from './table.ts'

/** A town whose usual year is known. */
export interface TownClimate extends MonthlyClimate {
  name: string
  /** Two letters of ISO 3166. */
  country: string
  latitude: number
  longitude: number
  /** Above the sea, metres. */
  heightM: number
  /** Distance to the sea, kilometres. */
  seaKm: number
  /** The lowest temperature ever, degrees Celsius. */
  lowestC: number
}

let read: readonly TownClimate[] | undefined

/** The towns whose usual year is known; read once. */
export const townClimates = (): readonly TownClimate[] =>
  (read ??= townLines.trim().split('\n').map(placeOfLine))

/** @throws {Error} where a line is not whole (a fault of the table) */
function placeOfLine(line: string): TownClimate {
  const [head = '', ...parts] = line.split('|')
  const [name = '', country = '', ...where] = head.split(',').map((s) => s.trim())
  const numbers = (text = '') => text.split(/[ ,]+/).filter(Boolean).map(Number)
  const [latitude, longitude, heightM, seaKm] = where.map(Number)
  const [highC, lowC, rainMm] = parts.map(numbers)
  const [yearlyMinimumC, lowestC] = numbers(parts[3])
  const all = [latitude, longitude, heightM, seaKm, yearlyMinimumC, lowestC]
  const months = [highC, lowC, rainMm]
  if (all.some((v) => v === undefined || Number.isNaN(v)) || months.some((m) => m?.length !== 12))
    throw new Error(`the table of towns is broken at ${name}`)
  return {
    name,
    country,
    latitude: latitude!,
    longitude: longitude!,
    heightM: heightM!,
    seaKm: seaKm!,
    highC: highC!,
    lowC: lowC!,
    rainMm: rainMm!,
    yearlyMinimumC: yearlyMinimumC!,
    lowestC: lowestC!,
  }
}
