import { winterHere } from '../care/index.ts'
import { summerOf, type Climate } from '../climate/index.ts'
import { daysBetween } from '../dates/index.ts'
import type { WindExposure } from '../garden/index.ts'
import type { SunHours } from '../light/index.ts'
import type { BloomGap } from '../performance/index.ts'
import { groundM2, mayRunWild, usualBloom, type Region, type Taxon, type Year } from '../plants/index.ts'
import { fitOf, whySoilUnfit } from './fit.ts'

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

/** A place as what is to stand in it for years sees it; what is not known is not judged. */
export interface FilledPlace {
  hours: SunHours
  moisture?: number | null
  ph?: number | undefined
  kind?: 'bed' | 'container' | undefined
  /** Ground or mix, square metres. */
  areaM2?: number | undefined
  wind?: WindExposure | undefined
  climate?: Climate | undefined
  /** The parts of the world it lies in. */
  regions?: readonly Region[] | undefined
}

const seasonal: readonly Taxon['lifeForm'][] = ['annual', 'tender perennial']
/** Whether a kind is grown for one season, wherever it would die in winter. */
export const isSeasonal = ({ lifeForm, annualSeason }: Pick<Taxon, 'lifeForm' | 'annualSeason'>): boolean =>
  seasonal.includes(lifeForm) || annualSeason !== null
/** Taller than this nothing stands in a pot without outgrowing it. A judgement. */
const TALLEST_IN_POT_M = 1.6

/** Why a kind would not stand in a place, whatever its light; undefined where it would, as far as is known. */
export function whyNotThere(
  taxon: Taxon,
  { ph, kind = 'bed', areaM2, climate, regions }: Omit<FilledPlace, 'hours'>,
): string | undefined {
  if (mayRunWild(taxon, regions)) return 'it runs wild here'
  const winter = climate && winterHere(taxon, climate, kind)
  if (winter === 'no winter') return 'it wants a winter, and there is none here'
  if (winter === 'tender' && !isSeasonal(taxon)) return 'it does not stand the winters here'
  const soil = whySoilUnfit(taxon, ph)
  if (soil) return soil
  if (areaM2 !== undefined && groundM2(1, taxon.spacingM) > areaM2) return 'it has no room'
  if (kind === 'container' && (taxon.lifeForm === 'small tree' || taxon.heightM > TALLEST_IN_POT_M))
    return 'it outgrows a pot'
  return undefined
}

/**
 * What would fill a gap, best first: kinds that bear the place's light, moisture, soil and winters and have room there, by the weeks of it they flower in.
 *
 * @param proven kinds, by botanical name, with what the garden's own record expects of them; those do it first
 */
export function gapFillers(
  gap: BloomGap,
  place: FilledPlace,
  taxa: readonly Taxon[],
  season: number,
  year: Year,
  proven: ReadonlyMap<string, number>,
): Filler[] {
  const standing = (taxon: string) => proven.get(taxon) ?? 3
  const spot = { ...place, summer: summerOf(place.climate) }
  return taxa
    .flatMap((taxon): Filler[] => {
      const bloom = usualBloom(taxon, season, year)
      if (!bloom) return []
      const weeks = weeksWithin(gap, daysBetween(gap.from, bloom.from), daysBetween(gap.from, bloom.to))
      if (weeks === 0) return []
      if (whyNotThere(taxon, place)) return []
      const fit = fitOf(taxon, spot)
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
