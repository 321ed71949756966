import type { SitedGarden, StationedPlace } from './stations.ts'
import type { Candidate } from './palette.ts'
import { scoreIn } from './suits.ts'

/** What would do less well is not planted anew. A judgement. */
export const GOOD_FIT = 0.7

/**
 * Of what is offered what would do well in a place, each with how: as it would in a quarter of it at least, for it need not have the
 * best spot and must have room for a drift.
 *
 * @param locked names of kinds that somebody wants there whatever is said of them
 */
export function candidatesFor(
  { place, stations }: StationedPlace,
  garden: Omit<SitedGarden, 'places'>,
  offered: readonly Omit<Candidate, 'fit'>[],
  locked: readonly string[] = [],
): Candidate[] {
  return offered.flatMap((o): Candidate[] => {
    const scores = stations.map(scoreIn(o.taxon, place, garden)).sort((a, b) => b - a)
    const fit = scores[Math.floor(scores.length / 4)] ?? 0
    return fit >= GOOD_FIT || locked.includes(o.taxon.botanical) ? [{ ...o, fit }] : []
  })
}
