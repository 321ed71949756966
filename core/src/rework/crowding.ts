import { daysBetween, type IsoDate } from '../dates/index.ts'
import { bloomsOn, driftRadiusM, type Taxon } from '../plants/index.ts'
import type { PlantingModel } from './assess.ts'

/** How much of a planting's ground a stronger neighbour has grown over. */
export interface Crowding {
  plantingId: string
  botanical: string
  /** 0 to 1. */
  share: number
}

/** Area that two discs share, square metres: two circular segments (plane geometry). */
export function sharedArea(a: number, b: number, apart: number): number {
  if (apart >= a + b) return 0
  if (apart <= Math.abs(a - b)) return Math.PI * Math.min(a, b) ** 2
  const angle = (near: number, far: number) =>
    Math.acos((apart ** 2 + near ** 2 - far ** 2) / (2 * apart * near))
  const [alpha, beta] = [angle(a, b), angle(b, a)]
  const kite = 0.5 * Math.sqrt((a + b - apart) * (apart + a - b) * (apart - a + b) * (apart + a + b))
  return a ** 2 * alpha + b ** 2 * beta - kite
}

/** The drift with its outer plants grown out to their spread, in proportion to the years since planting. */
export function grownRadiusM(p: PlantingModel, on: IsoDate): number {
  const { spreadM, spacingM, yearsToSize } = p.taxon
  const ground = p.radiusM ?? driftRadiusM(p.count, spacingM)
  const age = Math.min(1, Math.max(0, daysBetween(p.plantedOn, on) / 365 / yearsToSize))
  return ground + (age * Math.max(0, spreadM - spacingM)) / 2
}

/** A neighbour below this share of a planting's height grows under it and takes no light. */
const AS_TALL = 0.8
/** Shares below this are drifts that interlock, as they should. */
const LEAST_SHARE = 0.15

const vigours = ['slow', 'steady', 'strong', 'thug']
const isStronger = (a: Taxon, b: Taxon) =>
  a.heightM >= AS_TALL * b.heightM &&
  (a.heightM > b.heightM * 1.2 || vigours.indexOf(a.vigour) > vigours.indexOf(b.vigour))

/** The stronger neighbours that have grown over a planting, most first. */
export function crowdingOf(p: PlantingModel, others: readonly PlantingModel[], on: IsoDate): Crowding[] {
  const own = p.radiusM ?? driftRadiusM(p.count, p.taxon.spacingM)
  return others
    .filter((o) => o.id !== p.id && o.placeId === p.placeId && isStronger(o.taxon, p.taxon))
    .map((o) => ({
      plantingId: o.id,
      botanical: o.taxon.botanical,
      share: sharedArea(own, grownRadiusM(o, on), Math.hypot(o.x - p.x, o.y - p.y)) / (Math.PI * own ** 2),
    }))
    .filter((c) => c.share >= LEAST_SHARE)
    .sort((a, b) => b.share - a.share || (a.plantingId < b.plantingId ? -1 : 1))
}

const WEEKS = Array.from({ length: 52 }, (_, w) =>
  new Date(Date.UTC(2023, 0, 4 + 7 * w)).toISOString().slice(5, 10),
)

/** Weeks of the usual year in which a planting is the only one of its place in flower. */
export function weeksAlone(p: PlantingModel, others: readonly PlantingModel[]): number {
  const near = others.filter((o) => o.id !== p.id && o.placeId === p.placeId)
  return WEEKS.filter((day) => bloomsOn(p.taxon, day) && !near.some((o) => bloomsOn(o.taxon, day))).length
}
