import { daysBetween } from '../dates/index.ts'
import type { SunHours } from '../light/index.ts'
import type { BloomGap } from '../performance/index.ts'
import { usualBloom, type Taxon, type Year } from '../plants/index.ts'
import { fitOf } from './fit.ts'

/** A kind that would flower in a gap of a place and stand the place. */
export interface Filler {
  taxon: string
  /** Weeks of the gap it usually flowers in. */
  weeks: number
  fit: number
  reason: string
}

/** A gap is not filled with what would only just live there: of 0 to 1. A judgement. */
const LEAST_FIT = 0.7

/**
 * What would fill a gap, best first: kinds that bear the place's light and moisture, by the weeks of it they flower in.
 *
 * @param proven kinds, by botanical name, with what the garden's own record expects of them; those do it first
 */
export function gapFillers(
  gap: BloomGap,
  place: { hours: SunHours; moisture?: number | null },
  taxa: readonly Taxon[],
  season: number,
  year: Year,
  proven: ReadonlyMap<string, number>,
): Filler[] {
  const standing = (taxon: string) => proven.get(taxon) ?? 3
  return taxa
    .flatMap((taxon): Filler[] => {
      const bloom = usualBloom(taxon, season, year)
      if (!bloom) return []
      const weeks = weeksWithin(gap, daysBetween(gap.from, bloom.from), daysBetween(gap.from, bloom.to))
      if (weeks === 0) return []
      const fit = fitOf(taxon, place)
      return fit.score < LEAST_FIT
        ? []
        : [{ taxon: taxon.botanical, weeks, fit: fit.score, reason: fit.reason }]
    })
    .sort(
      (a, b) =>
        b.weeks * b.fit * standing(b.taxon) - a.weeks * a.fit * standing(a.taxon) ||
        (a.taxon < b.taxon ? -1 : 1),
    )
}

/** Weeks of a gap whose middle lies between two days, counted from its first. */
function weeksWithin({ weeks }: BloomGap, from: number, to: number): number {
  let within = 0
  for (let middle = 3; middle < 7 * weeks; middle += 7) if (middle >= from && middle <= to) within++
  return within
}
