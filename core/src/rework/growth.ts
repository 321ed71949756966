import type { Taxon } from '../plants/index.ts'
import { isSeasonal } from '../verdict/index.ts'
import { counted, listed } from '../words/index.ts'

/** What a plant measures at an age. */
export interface Size {
  heightM: number
  spreadM: number
}

/** What growth is told from. */
type GrownTaxon = Pick<Taxon, 'lifeForm' | 'annualSeason' | 'heightM' | 'spreadM' | 'yearsToSize' | 'pruning'>

/** Years of growth after which a scheme can be looked at. */
export const GROWTH_YEARS = [1, 2, 3, 5, 10] as const

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

/** What has become of a bed's kinds so many years after it was planted. */
export interface GrownTo {
  /** Kinds whose plants do not touch yet, touch, or leave no ground to be seen between them. */
  apart: readonly string[]
  touching: readonly string[]
  closed: readonly string[]
  /** Kinds that want dividing by then, or did before. */
  dividing: readonly string[]
}

/** How far kinds have grown together at an age, each named once. */
export function grownTo(
  taxa: readonly (GrownTaxon & Pick<Taxon, 'botanical' | 'common' | 'spacingM' | 'divideYears'>)[],
  years: number,
): GrownTo {
  const kinds = [...new Map(taxa.map((t) => [t.botanical, t])).values()].map((taxon) => {
    const { touchYears, closedYears, divideYears } = milestones(taxon, taxon.spacingM)
    const by = (at: number | null) => at !== null && at <= years
    return {
      common: taxon.common,
      is: by(closedYears) ? ('closed' as const) : by(touchYears) ? ('touching' as const) : ('apart' as const),
      divides: divideYears !== null && Math.max(1, divideYears[0]) <= years,
    }
  })
  const which = (is: (typeof kinds)[number]['is']) => kinds.filter((k) => k.is === is).map((k) => k.common)
  return {
    apart: which('apart'),
    touching: which('touching'),
    closed: which('closed'),
    dividing: kinds.filter((k) => k.divides).map((k) => k.common),
  }
}

/** `7 of 10 kinds have closed, 2 touch; garden daylily wants dividing`: what a year of growth has brought. */
export function grownWords({ apart, touching, closed, dividing }: GrownTo): string {
  const all = apart.length + touching.length + closed.length
  if (all === 0) return 'nothing is planted yet'
  const parts = [
    ...(closed.length > 0
      ? [`${closed.length} of ${counted(all, 'kind')} ${closed.length === 1 ? 'has' : 'have'} closed`]
      : []),
    ...(touching.length > 0
      ? [`${touching.length} just ${touching.length === 1 ? 'touches' : 'touch'}`]
      : []),
    ...(apart.length > 0 ? [`${apart.length} still ${apart.length === 1 ? 'stands' : 'stand'} apart`] : []),
  ]
  const named = dividing.length > MOST_NAMED ? [counted(dividing.length, 'kind')] : dividing
  return `${parts.join(', ')}${dividing.length > 0 ? `; ${listed(named)} ${dividing.length === 1 ? 'wants' : 'want'} dividing` : ''}`
}
/** More than so many are counted rather than named. */
const MOST_NAMED = 3
