import type { BenchView, SpareView } from '@border/contract'
import { addDays, type IsoDate, type PlantingSource } from '@border/core'

/** Plants of a kind that are in hand, and need not be bought. */
export interface Spare {
  key: string
  botanical: string
  count: number
  /** What is said of them beside their name: `off the bench`. */
  whence: string
  /** As it is said of what goes in. */
  as: { source: PlantingSource; benchId?: string; liftedId?: string }
}

/** A division counts for a fill that is made within so many days of its window. */
const DIVIDED_WITHIN_DAYS = 21

/** What is in hand for filling a container on a day: from the bench first, then lifted elsewhere where it is time to move it, then in pieces of what is divided about now. */
export const sparesFor = (
  potId: string,
  on: IsoDate,
  bench: readonly BenchView[],
  { plants, divided }: Pick<SpareView, 'plants' | 'divided'>,
): Spare[] => [
  ...bench.map((b) => ({
    key: b.id,
    botanical: b.botanical,
    count: b.count,
    whence: 'off the bench',
    as: { benchId: b.id, source: 'moved' as const },
  })),
  ...plants
    .filter((p) => p.placeId !== potId && (!p.window || (p.window.from <= on && on <= p.window.to)))
    .map((p) => ({
      key: p.plantingId,
      botanical: p.botanical,
      count: p.count,
      whence: `out of ${p.placeName}, where it does not stay`,
      as: { liftedId: p.plantingId, source: 'moved' as const },
    })),
  ...divided
    .filter(
      ({ window }) =>
        window.from <= addDays(on, DIVIDED_WITHIN_DAYS) && window.to >= addDays(on, -DIVIDED_WITHIN_DAYS),
    )
    .map((d) => ({
      key: `divided ${d.plantingId}`,
      botanical: d.botanical,
      count: d.pieces,
      whence: 'from a division',
      as: { source: 'division' as const },
    })),
]

/** How many of each kind are in hand. */
export function inHandOf(spares: readonly Spare[]): Map<string, number> {
  const have = new Map<string, number>()
  for (const { botanical, count } of spares) have.set(botanical, (have.get(botanical) ?? 0) + count)
  return have
}

/** So many of a kind: of what is in hand as far as that goes, the rest bought. */
export function drawnFrom(
  spares: readonly Spare[],
  botanical: string,
  count: number,
): { count: number; spare: Spare | undefined }[] {
  const parts: { count: number; spare: Spare | undefined }[] = []
  let left = count
  for (const spare of spares) {
    if (left === 0) break
    if (spare.botanical !== botanical) continue
    const taken = Math.min(left, spare.count)
    parts.push({ count: taken, spare })
    left -= taken
  }
  if (left > 0) parts.push({ count: left, spare: undefined })
  return parts
}
