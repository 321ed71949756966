import { mean, sum } from 'd3-array'
import type { Place } from '../garden/index.ts'
import { groundM2, type Taxon } from '../plants/index.ts'
import { isSeasonal } from '../verdict/index.ts'
import { openGroundM2, sizeAt } from './growth.ts'
import { comesUpBetween } from './palette.ts'
import type { SitedGarden, Station } from './stations.ts'
import { suitScore, whyNotIn } from './suits.ts'

/** Ground that a scheme leaves open between its plants, and how many annuals fill it. */
export interface Filling {
  /** Square metres. */
  openM2: number
  fillers: number
}

/** Apart from each other where nobody has said what fills the ground, metres: a usual annual. */
const USUAL_SPACING_M = 0.27
/** An annual has room where it stands so far from the crowns about it, as a share of half its spacing: they may lean on it. A judgement. */
const ROOM = 0.6

/** How far from the crowns about it an annual stands at least, metres. */
export const roomForFillerM = ({ spacingM }: Pick<Taxon, 'spacingM'>): number => (ROOM * spacingM) / 2

/**
 * What a scheme leaves open between its plants so many years after it was planted, and how many annuals fill that: fewer as those
 * grow, and none in gaps that are too narrow for one. The widest gap of a triangular grid lies in the middle of three plants, 1/√3 of
 * their spacing from each.
 *
 * @param filler what fills it; a usual annual where nobody has said
 */
export function fillingAfter(
  years: number,
  planted: readonly { taxon: Taxon; count: number }[],
  filler: Pick<Taxon, 'spacingM'> = { spacingM: USUAL_SPACING_M },
): Filling {
  const open = planted
    .filter((p) => !comesUpBetween(p.taxon))
    .map(({ taxon, count }) => {
      const areaM2 = groundM2(count, taxon.spacingM)
      const gapM = taxon.spacingM / Math.sqrt(3) - sizeAt(taxon, years).spreadM / 2
      return {
        m2: openGroundM2([{ taxon, count, areaM2 }], areaM2, years),
        hasRoom: gapM >= roomForFillerM(filler),
      }
    })
  return {
    openM2: sum(open, (o) => o.m2),
    fillers: Math.floor(sum(open, (o) => (o.hasRoom ? o.m2 : 0)) / groundM2(1, filler.spacingM)),
  }
}

/** What grows taller hides what it fills up between: a judgement. */
const TALLEST_FILLER_M = 0.6
/** What would do worse there is not proposed, 0 to 1: a judgement. */
const LEAST_SUITED = 0.6
/** At so many stations of a place it is looked at, spread over all of them. */
const LOOKED_AT = 40

/** A kind that could fill what a scheme leaves open. */
export interface FillerKind {
  taxon: Taxon
  /** How it would do there, 0 to 1, over the place. */
  score: number
}

/** Kinds of a season that could fill what a scheme leaves open, those that would do best in the place first. */
export function fillerKinds(
  taxa: readonly Taxon[],
  place: Place,
  stations: readonly Station[],
  garden: Omit<SitedGarden, 'places'>,
): FillerKind[] {
  const step = Math.max(1, Math.ceil(stations.length / LOOKED_AT))
  const looked = stations.filter((_, i) => i % step === 0)
  if (looked.length === 0) return []
  return taxa
    .filter((t) => isSeasonal(t) && t.heightM <= TALLEST_FILLER_M && !whyNotIn(t, place, garden))
    .map((taxon) => ({ taxon, score: mean(looked, (s) => suitScore(taxon, s))! }))
    .filter((k) => k.score >= LEAST_SUITED)
    .toSorted((a, b) => b.score - a.score || (a.taxon.botanical < b.taxon.botanical ? -1 : 1))
}
