import type { Place } from '../garden/index.ts'
import type { Point } from '../geometry/index.ts'
import { plantsOf, type Arrangement, type BedGround } from './arrangement.ts'
import type { Pocket } from './pockets.ts'
import { plantingTable, sidesOf, type BaseLine, type PlacedPlant } from './reckoning.ts'

/** A scheme as it is set out with a tape. */
export interface SettingOut {
  /** Sides of the place to measure from, the longest first; a pot has its width. */
  sides: BaseLine[]
  /** The one that is measured from. */
  base: BaseLine
  table: PlacedPlant[]
}

/** Where every plant, pocket of bulbs and stepping stone of a scheme is set, measured from the side that somebody has said, else the longest. */
export function settingOut(
  { ground, arranged, pockets }: { ground: BedGround; arranged: Arrangement; pockets: readonly Pocket[] },
  said: {
    baseLine: readonly [Point, Point] | null
    between: readonly { id: string; botanical: string }[]
    stones?: readonly Point[] | undefined
  },
): SettingOut {
  const sides = sidesOf(measuredRound(ground.of.place))
  const base = sides.find((s) => isAlong(s, said.baseLine)) ?? sides[0]!
  const nameOf = new Map([
    ...arranged.drifts.map((d) => [d.id, d.taxon.botanical] as const),
    ...said.between.map((b) => [b.id, b.botanical] as const),
  ])
  const set = [
    ...plantsOf(ground, arranged).map((p) => ({ x: p.x, y: p.y, name: nameOf.get(p.driftId)! })),
    ...pockets.map((p) => ({ x: p.x, y: p.y, name: `${p.bulbs} ${nameOf.get(p.driftId)!}` })),
    ...(said.stones ?? []).map(([x, y]) => ({ x, y, name: 'stepping stone' })),
  ]
  // Each by a name of its own: pockets of one kind hold different numbers of bulbs.
  const names = new Map(set.map((s, i) => [String(i), s.name]))
  const plants = set.map(({ x, y }, i) => ({ driftId: String(i), x, y }))
  return { sides, base, table: plantingTable(plants, names, base) }
}

const measuredRound = (place: Place): readonly (readonly [number, number])[] =>
  place.kind === 'bed'
    ? place.ring
    : [
        [place.x - place.radiusM, place.y],
        [place.x + place.radiusM, place.y],
      ]

/** Whether a side is the one that somebody has said to measure from. */
const isAlong = ({ from, to }: BaseLine, said: readonly [Point, Point] | null): boolean =>
  said !== null && [from, to].every(([x, y], i) => Math.hypot(said[i]![0] - x, said[i]![1] - y) < 0.01)
