import type { Vessel } from '../garden/index.ts'
import { addDays, daysBetween, type IsoDate } from '../dates/index.ts'
import { isWoody, type Taxon } from '../plants/index.ts'
import { sizeAt, type Size } from '../rework/growth.ts'

/** A planting of a pot. */
export interface InPot {
  taxon: Taxon
  /** How many live. */
  count: number
  role: string | null
  plantedOn: IsoDate
}

/** In a pot a plant grows to so much of what it grows to in the ground: a working figure. */
const OF_FULL_SIZE = 0.8
/** And woody plants are kept by their roots to so many times the depth that those have: a working figure. */
const KEPT_TO_DEPTHS = 2.4
export const DAYS_A_YEAR = 365.25
/** What is planted for a season is looked at as it is after so long. */
const LOOKED_AT_YEARS = 0.5

type PottedTaxon = Parameters<typeof sizeAt>[0] & Pick<Taxon, 'lifeForm'>

/** What a size in the ground comes to in a pot. */
function inPot(taxon: Pick<Taxon, 'lifeForm'>, { heightM, spreadM }: Size, depthM: number): Size {
  const most = isWoody(taxon) ? (KEPT_TO_DEPTHS * depthM) / heightM : 1
  const share = Math.min(OF_FULL_SIZE, most)
  return { heightM: share * heightM, spreadM: share * spreadM }
}

/** How large a planting of a pot is this season. */
export function sizeInPot(
  taxon: PottedTaxon,
  { depthM }: Pick<Vessel, 'depthM'>,
  plantedOn: IsoDate,
  on: IsoDate,
): Size {
  const years = Math.max(0, daysBetween(plantedOn, on) / DAYS_A_YEAR) + LOOKED_AT_YEARS
  return inPot(taxon, sizeAt(taxon, years), depthM)
}

/** How deep a pot must be not to keep a woody plant smaller than it would grow in any: so many years after it was planted, metres. */
export function wantedDepthM(taxon: PottedTaxon, years: number): number {
  const { heightM } = sizeAt(taxon, years)
  const counts = taxon.lifeForm === 'climber' ? Math.min(heightM, MOST_CLIMBED_M) : heightM
  return (OF_FULL_SIZE * counts) / KEPT_TO_DEPTHS
}
/** A climber in a pot is cut to the support it has: taken for no taller, metres. */
const MOST_CLIMBED_M = 2

/** Roots that have filled a pot of a depth: so many years after it was planted; null where they never do. */
export function rootBoundAfter(taxon: PottedTaxon, depthM: number): number | null {
  if (!isWoody(taxon)) return null
  for (let quarter = 0; quarter <= 4 * BOUND_WITHIN_YEARS; quarter++)
    if (wantedDepthM(taxon, quarter / 4) > depthM) return quarter / 4
  return null
}
/** The day from which the roots of a woody plant fill its pot; null where they never do. */
export function rootsFillOn(taxon: PottedTaxon, plantedOn: IsoDate, depthM: number): IsoDate | null {
  const years = rootBoundAfter(taxon, depthM)
  return years === null ? null : addDays(plantedOn, Math.round(DAYS_A_YEAR * years))
}

/** Later than this nobody plans for. */
const BOUND_WITHIN_YEARS = 40

/** How tall a kind grows in a pot, once it is grown. */
export const heightInPot = (
  taxon: Pick<Taxon, 'lifeForm' | 'heightM' | 'spreadM'>,
  { depthM }: Pick<Vessel, 'depthM'>,
): number => inPot(taxon, taxon, depthM).heightM
