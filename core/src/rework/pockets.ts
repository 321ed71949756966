import { sum } from 'd3-array'
import { isEvergreen } from './palette.ts'
import { plantsOf, type Arrangement, type BedGround } from './arrangement.ts'
import type { SetPlant } from './positions.ts'
import { isLaidOut, type KindOf } from './said.ts'
import type { Taxon } from '../plants/index.ts'

/** Small bulbs that come up between what else grows there. */
export interface BulbsBetween {
  id: string
  taxon: Taxon
  count: number
}

/** So many bulbs of a kind together. */
export interface Pocket extends SetPlant {
  bulbs: number
}

/** Bulbs of a pocket: an odd handful. */
export const PER_POCKET = 7

/** Square metres of ground that bulbs of a pocket stand on. */
const POCKET_M = 0.3

/**
 * Pockets for bulbs: each as far as can be from every plant, from what stays and from the pockets before it, under what is bare when
 * they flower before it is under what keeps its leaves.
 */
export function pocketsOf(
  ground: BedGround,
  arranged: Arrangement,
  between: readonly BulbsBetween[],
): Pocket[] {
  const plants = plantsOf(ground, arranged)
  const taken = [...plants, ...ground.stays]
  const { stations } = ground.of
  const room = stations.map((s) => {
    let least = Infinity
    for (const t of taken) least = Math.min(least, (t.x - s.x) ** 2 + (t.y - s.y) ** 2)
    return Math.min(s.edgeM, Math.sqrt(least))
  })
  // Under leaves that stay through winter they are not seen: such ground is taken last.
  const green = arranged.drifts.map((d) => isEvergreen(d.taxon))
  const isGreen = (c: number) => arranged.has[c]! >= 0 && green[arranged.has[c]!]!
  const worth = (c: number) => room[c]! - (isGreen(c) ? POCKET_M : 0)
  return sharedInPockets(between).map(({ id, bulbs }): Pocket => {
    let best = 0
    for (let c = 1; c < stations.length; c++) if (worth(c) > worth(best)) best = c
    const { x, y } = stations[best]!
    stations.forEach((s, c) => {
      room[c] = Math.min(room[c]!, Math.hypot(s.x - x, s.y - y) - POCKET_M)
    })
    return { driftId: id, x, y, bulbs }
  })
}

/** The pockets of a scheme: none before it is laid out, nor of kinds that are in no library. */
export const pocketsOfScheme = (
  ground: BedGround,
  arranged: Arrangement,
  said: {
    drifts: readonly { ground: unknown }[]
    between: readonly { id: string; botanical: string; count: number }[]
  },
  kindOf: KindOf,
): Pocket[] =>
  isLaidOut(said)
    ? pocketsOf(
        ground,
        arranged,
        said.between.flatMap(({ id, botanical, count }) => {
          const taxon = kindOf.get(botanical)
          return taxon ? [{ id, taxon, count }] : []
        }),
      )
    : []

/** Pockets that so many bulbs of a kind go into. */
export const pocketsFor = (bulbs: number): number => sharedInPockets([{ id: '', count: bulbs }]).length

/** Pockets by turns, so that each kind is spread over the bed; the last of a kind has what is left. */
function sharedInPockets(
  between: readonly Pick<BulbsBetween, 'id' | 'count'>[],
): { id: string; bulbs: number }[] {
  const left = between.map((b) => b.count)
  const pockets: { id: string; bulbs: number }[] = []
  while (sum(left) > 0)
    between.forEach(({ id }, i) => {
      if (left[i]! <= 0) return
      // What would be left over for a pocket of two or three goes along with this one.
      const bulbs = left[i]! < PER_POCKET * 1.5 ? left[i]! : PER_POCKET
      left[i]! -= bulbs
      pockets.push({ id, bulbs })
    })
  return pockets
}
