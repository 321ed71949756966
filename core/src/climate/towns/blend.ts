import { listed } from '../../words/index.ts'
import { MONTHS, type MonthlyClimate } from '../monthly.ts'
import { townClimates, type TownClimate } from './places.ts'

/** Where a garden lies, as far as it is known. */
export interface ClimateSite {
  latitude: number
  longitude: number
  /** Above the sea, metres. */
  heightM?: number | undefined
  /** Distance to the sea, kilometres. */
  seaKm?: number | undefined
}

/** The climate of a place without a record, put together from towns near it. */
export interface BlendedClimate extends MonthlyClimate {
  /** The height it is of: the one given, else what the towns have on average by their shares. */
  heightM: number
  /** The towns by their share, greatest first; shares add up to 1. */
  from: { name: string; country: string; km: number; share: number }[]
}

const TOWNS = 10
/** Nearer than this towns count no more for being nearer: kilometres. */
const NEAR_KM = 30
/** A town so much higher or lower counts 1/e as much, metres. */
const HEIGHT_SCALE_M = 600
/** How fast a town of another distance to the sea counts less. */
const SEA_SCALE = 0.8
/** Air cools so much with each metre of height: the standard atmosphere's 6.5 K a kilometre. */
const LAPSE_PER_M = 0.0065
/** Usual cooling towards the pole, kelvin a degree of latitude, which the slope is held to as if so many towns had shown it. */
const POLEWARD_C = -0.6
const SLOPE_HOLD = 3
const SEA_HOLD = 0.3
/** The other hemisphere's year is turned round. */
const ACROSS_EQUATOR = 1e-3

/**
 * Monthly means by locally weighted linear regression (Cleveland and Devlin 1988) on the towns about a place: weights fall with
 * distance and, where they are known, with difference in height and in nearness to the sea; temperatures are taken to the same
 * height, then a plane in latitude, longitude and nearness to the sea, its slopes held to what is usual, is read off at the
 * place. Rain is the mean by weight.
 */
export function blendOf(site: ClimateSite, among: readonly TownClimate[] = townClimates()): BlendedClimate {
  const near = among
    .map((town) => ({ town, km: kmBetween(site, town) }))
    .sort((a, b) => a.km - b.km)
    .slice(0, TOWNS)
  const weights = near.map(({ town, km }) => weightOf(site, town, km))
  const sum = weights.reduce((a, b) => a + b, 0)
  const shares = weights.map((w) => w / sum)
  const mean = (of: (town: TownClimate) => number) =>
    near.reduce((total, { town }, i) => total + shares[i]! * of(town), 0)
  const heightM = site.heightM ?? mean((t) => t.heightM)
  const rows = near.map(({ town }) => slopesOf(site, town))
  const readOff = (of: (town: TownClimate) => number) =>
    interceptOf(
      rows,
      near.map(
        ({ town }) => of(town) + (site.heightM === undefined ? 0 : (town.heightM - heightM) * LAPSE_PER_M),
      ),
      shares,
    )
  const lowC = MONTHS.map((m) => readOff((t) => t.lowC[m]!))
  // A day's highest is never below its lowest, however the planes lie.
  const highC = MONTHS.map((m) =>
    Math.max(
      lowC[m]! + 1,
      readOff((t) => t.highC[m]!),
    ),
  )
  return {
    highC,
    lowC,
    rainMm: MONTHS.map((m) => mean((t) => t.rainMm[m]!)),
    yearlyMinimumC: Math.min(
      Math.min(...lowC) - 1,
      readOff((t) => t.yearlyMinimumC),
    ),
    heightM,
    from: near
      .map(({ town, km }, i) => ({ name: town.name, country: town.country, km, share: shares[i]! }))
      .sort((a, b) => b.share - a.share),
  }
}

/** Towns named where weather is blended from several. */
const NAMED_TOWNS = 3

/** Where a blend is from, in words: `the usual years of Cardiff (62 km away), Exeter (97 km away) and Bath (…)`. */
export function blendWords(site: ClimateSite): string {
  const towns = blendOf(site).from.slice(0, NAMED_TOWNS)
  return `the usual years of ${listed(towns.map((t) => `${t.name} (${Math.round(t.km)} km away)`))}`
}

function weightOf(site: ClimateSite, town: TownClimate, km: number): number {
  const distance = 1 / (km * km + NEAR_KM * NEAR_KM)
  const height =
    site.heightM === undefined ? 1 : Math.exp(-Math.abs(town.heightM - site.heightM) / HEIGHT_SCALE_M)
  const sea =
    site.seaKm === undefined ? 1 : Math.exp(-SEA_SCALE * Math.abs(inland(town.seaKm) - inland(site.seaKm)))
  const side = town.latitude < 0 === site.latitude < 0 ? 1 : ACROSS_EQUATOR
  return distance * height * sea * side
}

/** How far inland, on a scale on which the first kilometres tell most. */
const inland = (seaKm: number) => Math.log(1 + seaKm / 20)

/** How a town lies from a place: degrees towards the pole, degrees of arc east, steps inland. */
function slopesOf(site: ClimateSite, town: TownClimate): number[] {
  const east = ((town.longitude - site.longitude + 540) % 360) - 180
  return [
    1,
    Math.abs(town.latitude) - Math.abs(site.latitude),
    east * Math.cos((site.latitude * Math.PI) / 180),
    site.seaKm === undefined ? 0 : inland(town.seaKm) - inland(site.seaKm),
  ]
}

const PRIOR = [0, POLEWARD_C, 0, 0]
const HOLD = [0, SLOPE_HOLD, SLOPE_HOLD, SEA_HOLD]

/**
 * The height of the plane at the place itself, by weighted least squares whose slopes are held to what is usual (ridge).
 *
 * @param rows each beginning with 1
 */
function interceptOf(
  rows: readonly number[][],
  values: readonly number[],
  shares: readonly number[],
): number {
  const size = PRIOR.length
  const a = PRIOR.map((prior, i) => [
    ...PRIOR.map((_, j) =>
      rows.reduce((sum, x, k) => sum + shares[k]! * x[i]! * x[j]!, i === j ? HOLD[i]! : 0),
    ),
    rows.reduce((sum, x, k) => sum + shares[k]! * x[i]! * values[k]!, HOLD[i]! * prior),
  ])
  // Gauss's elimination from the last unknown up; the matrix is symmetric and positive definite, so that no pivot is zero.
  for (let i = size - 1; i > 0; i--)
    for (let k = 0; k < i; k++) {
      const factor = a[k]![i]! / a[i]![i]!
      for (let j = 0; j <= size; j++) a[k]![j]! -= factor * a[i]![j]!
    }
  return a[0]![size]! / a[0]![0]!
}

const EARTH_KM = 6371
const radians = Math.PI / 180

/** Along the great circle (haversine). */
export function kmBetween(a: ClimateSite, b: ClimateSite): number {
  const half = (from: number, to: number) => Math.sin(((to - from) * radians) / 2) ** 2
  const h =
    half(a.latitude, b.latitude) +
    Math.cos(a.latitude * radians) * Math.cos(b.latitude * radians) * half(a.longitude, b.longitude)
  return 2 * EARTH_KM * Math.asin(Math.min(1, Math.sqrt(h)))
}
