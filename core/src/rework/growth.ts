import type { Taxon } from '../plants/index.ts'
import { isSeasonal } from '../verdict/index.ts'

/** What a plant measures at an age. */
export interface Size {
  heightM: number
  spreadM: number
}

/** What growth is told from. */
type GrownTaxon = Pick<Taxon, 'lifeForm' | 'annualSeason' | 'heightM' | 'spreadM' | 'yearsToSize' | 'pruning'>

/** A nursery plant is so much of what it will be; annuals and bulbs are grown within the year. Working figures. */
const START = { woody: 0.2, rest: 0.35 }
/** A kind counts as full grown with so much of its mature size. */
const FULL = 0.95

const isWithinYear = (taxon: GrownTaxon): boolean => taxon.lifeForm === 'bulb' || isSeasonal(taxon)

/**
 * Size by age: growth that slows towards the mature size (monomolecular; Mitscherlich's law of diminishing growth), with nineteen
 * twentieths of it at the years the kind takes to be full grown.
 *
 * @param years since a usual nursery plant was planted, from 0
 */
export function sizeAt(taxon: GrownTaxon, years: number): Size {
  if (isWithinYear(taxon)) return { heightM: taxon.heightM, spreadM: taxon.spreadM }
  const start = taxon.pruning ? START.woody : START.rest
  const rate = Math.log((1 - start) / (1 - FULL)) / Math.max(1, taxon.yearsToSize)
  const share = 1 - (1 - start) * Math.exp(-rate * Math.max(0, years))
  return { heightM: share * taxon.heightM, spreadM: share * taxon.spreadM }
}

/** Years until something has come about; null where it never does. */
export interface Milestones {
  /** The plants of a drift touch. */
  touchYears: number | null
  /** No ground is seen between them: discs in a triangular grid cover it at 2/√3 of their spacing. */
  closedYears: number | null
  /** It wants dividing: from its least interval to its most. */
  divideYears: readonly [number, number] | null
}

/** When the plants of a drift touch, close, and want dividing. @param spacingM between them */
export function milestones(taxon: GrownTaxon & Pick<Taxon, 'divideYears'>, spacingM: number): Milestones {
  const until = (spreadM: number) => {
    for (let quarter = 0; quarter <= 4 * 40; quarter++)
      if (sizeAt(taxon, quarter / 4).spreadM >= spreadM) return quarter / 4
    return null
  }
  return {
    touchYears: until(spacingM),
    closedYears: until((2 / Math.sqrt(3)) * spacingM),
    divideYears: taxon.divideYears,
  }
}

/** Ground that plants of a bed do not cover at an age, square metres: what annuals fill, fewer each year. */
export function openGroundM2(
  planted: readonly {
    taxon: GrownTaxon
    count: number
    /** Ground that is theirs. */
    areaM2: number
  }[],
  bedM2: number,
  years: number,
): number {
  const covered = planted.reduce(
    (sum, { taxon, count, areaM2 }) =>
      sum + Math.min(areaM2, count * Math.PI * (sizeAt(taxon, years).spreadM / 2) ** 2),
    0,
  )
  return Math.max(0, bedM2 - covered)
}
