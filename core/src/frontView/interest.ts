import { group, sum } from 'd3-array'
import { addDays, seasonYearOf, type IsoDate } from '../dates/index.ts'
import { showiness } from '../performance/index.ts'
import { firstFlushEnd, standsOutInLeaf, usualBloom, type Taxon, type Year } from '../plants/index.ts'
import { isEvergreen, SEEN_SHARE } from '../rework/palette.ts'
import { appearanceOn, SEEN_OPEN, SEEN_TURNED, type Appearance } from './appearance.ts'

/** What stands on so much ground. */
export interface KindOnGround {
  taxon: Taxon
  areaM2: number
}

/** What there is to see in a week. Shares are of the ground that is planted. */
export interface InterestWeek {
  /** Its first day. */
  from: IsoDate
  /** Kinds whose flowers are seen, those of most ground first, with the share that is in flower. */
  flowers: readonly { taxon: Taxon; share: number }[]
  /** Leaves that are not plainly green: by nature, or turned in autumn. */
  coloured: number
  /** Green in every season, while others are bare or gone. */
  evergreen: number
  /** Seed heads and straw that stand. */
  heads: number
}

const WEEKS = 52

/** The year of what stands somewhere, week by week from the first of January: as it usually is. */
export function interestOf(
  standing: readonly KindOnGround[],
  calendarYear: number,
  year: Year,
): InterestWeek[] {
  const kinds = [...group(standing, (s) => s.taxon.botanical).values()].map((of) => ({
    taxon: of[0]!.taxon,
    areaM2: sum(of, (s) => s.areaM2),
  }))
  const all = sum(kinds, (k) => k.areaM2)
  return Array.from({ length: WEEKS }, (_, week): InterestWeek => {
    const from = addDays(`${calendarYear}-01-01`, 7 * week)
    const seen = kinds.map((k) => ({ ...k, is: appearanceOn(k.taxon, addDays(from, 3), year) }))
    const share = (of: (k: KindOnGround & { is: Appearance }) => number) =>
      all > 0 ? sum(seen, (k) => k.areaM2 * of(k)) / all : 0
    return {
      from,
      flowers: seen
        .filter((k) => k.is.flower >= SEEN_OPEN)
        .map(({ taxon, areaM2, is }) => ({ taxon, share: (areaM2 * is.flower) / all }))
        .toSorted((a, b) => b.share - a.share),
      coloured: share(({ taxon, is }) =>
        is.isStraw ? 0 : is.turned >= SEEN_TURNED || standsOutInLeaf(taxon.foliageColour) ? is.leaf : 0,
      ),
      evergreen: share(({ taxon }) => Number(isEvergreen(taxon))),
      heads: share(({ is }) => is.heads),
    }
  })
}

/** Whether a week shows flowers: enough of the ground in them, by how showy each is. */
export const showsFlowers = ({ flowers }: Pick<InterestWeek, 'flowers'>): boolean =>
  sum(flowers, (f) => f.share * showiness[f.taxon.habit]) >= SEEN_SHARE

/** Weeks one after another. */
export interface Spell {
  from: IsoDate
  /** The last day. */
  to: IsoDate
  weeks: number
}

/** Weeks one after another that are alike, in order; what reaches over the turn of the year is two. */
export function spells(weeks: readonly InterestWeek[], is: (week: InterestWeek) => boolean): Spell[] {
  const found: Spell[] = []
  weeks.forEach((w, i) => {
    if (!is(w)) return
    const last = found.at(-1)
    // The last week of a year has its last day too.
    const to = i === WEEKS - 1 ? `${w.from.slice(0, 4)}-12-31` : addDays(w.from, 6)
    if (last && i > 0 && is(weeks[i - 1]!)) {
      last.to = to
      last.weeks++
    } else found.push({ from: w.from, to, weeks: 1 })
  })
  return found
}

/** Bloom that a cut adds to a kind in a usual year. */
export interface AddedBloom {
  taxon: Taxon
  by: 'second flush' | 'deadheading' | 'stagger cut'
  from: IsoDate
  to: IsoDate
}

/** Cut by half in early summer a kind flowers later by some three weeks. The rule of care says the same. */
const STAGGER_DAYS = 21

/**
 * What cutting adds: the flush after the first of what is cut back or deadheaded, which a usual year’s bloom reckons with, and the weeks
 * by which the half of a drift that is cut in early summer flowers longer than the other.
 */
export function addedBloom(taxa: readonly Taxon[], calendarYear: number, year: Year): AddedBloom[] {
  const season = seasonYearOf(`${calendarYear}-07-01`, year.south)
  return [...new Map(taxa.map((t) => [t.botanical, t])).values()].flatMap((taxon): AddedBloom[] => {
    const bloom = usualBloom(taxon, season, year)
    if (!bloom) return []
    const firstEnds = firstFlushEnd(taxon, season, year)
    const again = firstEnds !== undefined && firstEnds < bloom.to
    return [
      ...(again && taxon.repeats === 'when cut back'
        ? [{ taxon, by: 'second flush' as const, from: addDays(firstEnds, 1), to: bloom.to }]
        : []),
      ...(again && taxon.repeats === 'when deadheaded'
        ? [{ taxon, by: 'deadheading' as const, from: addDays(firstEnds, 1), to: bloom.to }]
        : []),
      ...(taxon.halves
        ? [
            {
              taxon,
              by: 'stagger cut' as const,
              from: addDays(bloom.to, 1),
              to: addDays(bloom.to, STAGGER_DAYS),
            },
          ]
        : []),
    ]
  })
}
