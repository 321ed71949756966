import type { RecordView } from '@border/contract'
import { counted } from '@border/core'
import { group, mean, sum } from 'd3-array'

/** A drift that was planted by a scheme, and what lives of it. */
export interface HeldDrift {
  common: string
  plantingIds: readonly string[]
  planted: number
  living: number
}

/** What became of a kind that was planted, whatever drifts it stands in. */
export interface HeldKind {
  common: string
  planted: number
  living: number
  /** Its ratings by season, as they were given: the mean of its plantings, 1 to 5. */
  seasons: readonly { year: number; rating: number }[]
}

/** A last rating below this did not hold: the middle of the scale. */
const HELD = 3

export const isWeak = ({ seasons }: HeldKind): boolean => (seasons.at(-1)?.rating ?? HELD) < HELD

/** What became of what was planted, kind by kind, the weakest first. @param stays of the record; empty while it is not known */
export function heldKinds(drifts: readonly HeldDrift[], stays: RecordView['stays']): HeldKind[] {
  const kinds = [...group(drifts, (d) => d.common)].map(([common, of]): HeldKind => {
    const ids = new Set(of.flatMap((d) => d.plantingIds))
    const scores = stays.filter((s) => ids.has(s.plantingId)).flatMap((s) => s.scores)
    return {
      common,
      planted: sum(of, (d) => d.planted),
      living: sum(of, (d) => d.living),
      seasons: [...group(scores, ([year]) => year)]
        .map(([year, own]) => ({ year, rating: mean(own, ([, rating]) => rating)! }))
        .toSorted((p, q) => p.year - q.year),
    }
  })
  const last = ({ seasons }: HeldKind) => seasons.at(-1)?.rating ?? Infinity
  return kinds.toSorted((p, q) => p.living / p.planted - q.living / q.planted || last(p) - last(q))
}

/** `Of 21 plants set, 19 are alive, 90 in a hundred. Lost: 2 of 5 blue fescue.` */
export function heldWords(kinds: readonly Pick<HeldKind, 'common' | 'planted' | 'living'>[]): string {
  const planted = sum(kinds, (k) => k.planted)
  const living = sum(kinds, (k) => k.living)
  const lost = kinds.filter((k) => k.living < k.planted)
  if (lost.length === 0)
    return planted === 1 ? 'The one plant set is alive.' : `All ${planted} plants set are alive.`
  const words = lost.map((k) => `${k.planted - k.living} of ${k.planted} ${k.common}`)
  return `Of ${counted(planted, 'plant')} set, ${living} are alive, ${Math.round((100 * living) / planted)} in a hundred. Lost: ${words.join(', ')}.`
}
