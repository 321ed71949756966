import { sum } from 'd3-array'
import { isWoody, type Taxon } from '../plants/index.ts'
import { centimetres, counted, tenths } from '../words/index.ts'
import { GOOD_FIT } from './candidates.ts'
import {
  driftsM2,
  edgeAt,
  layoutOf,
  openM2,
  plantsOf,
  type Arrangement,
  type BedGround,
  type Drift,
} from './arrangement.ts'
import { HEIGHT_SLACK_M, HIDES_SHARE, prepared, type Prepared } from './layout.ts'
import type { DriftCustom } from './palette.ts'
import type { SetPlant } from './positions.ts'
import { nearestStation, type SitedGarden } from './stations.ts'
import { suits } from './suits.ts'

/** What a check is about. */
export type CheckName =
  | 'where it grows'
  | 'heights'
  | 'legs'
  | 'room'
  | 'odd numbers'
  | 'size'
  | 'pieces'
  | 'runs together'
  | 'way in'
  | 'open ground'

/** Something about an arrangement that wants looking at: of a drift, or of the whole bed. */
export interface LayoutCheck {
  driftId: string | null
  what: CheckName
  says: string
}

/** What an arrangement is looked at by. */
export interface CheckedBy {
  garden: Omit<SitedGarden, 'places'>
  drifts: DriftCustom
  /** How far away it is looked at from, metres; undefined where that does not count. */
  seenFromM?: number | undefined
}

/** Of a drift less than this may do poorly, or stand behind what is taller, before it is said: its rim gives way. */
const RIM_SHARE = 0.15
/** A drift that has less of the ground it takes is crowded. */
const CROWDED_SHARE = 0.85
/** What shows over less than this is not said, metres. */
const SEEN_M = 0.5
/** Of small groups the eye counts: more are a mass. */
const COUNTED_UP_TO = 9
/** A mass is read as one where it is a twelfth as wide as it is far away, about five degrees of what is seen. A judgement. */
export const SEEN_AS_ONE = 12
/** An arm's reach from the edge, metres: a working figure. */
export const REACH_M = 0.8
/** Open ground above this share of a bed is said. */
const OPEN_SHARE = 0.15

/** What is to be said of an arrangement, the drifts in their order and then the bed. Nothing is a fault: each can be meant so. */
export function checksOf(ground: BedGround, arranged: Arrangement, by: CheckedBy): LayoutCheck[] {
  const { problem, whole, kept } = layoutOf(ground, arranged)
  const bed = prepared(problem)
  const m2 = driftsM2(ground, arranged)
  const taxa = [...arranged.drifts, ...kept]
  const front = frontsOf(bed, whole)
  const plants = plantsOf(ground, arranged)
  const ofDrifts = arranged.drifts.flatMap((drift, k): LayoutCheck[] => {
    const told = (what: CheckName, says: string | undefined): LayoutCheck[] =>
      says === undefined ? [] : [{ driftId: drift.id, what, says }]
    if (m2[k] === 0) return told('room', 'There is no ground left for it.')
    // What runs through the rest has as many plants as its ground takes, in as many pieces as the others leave.
    if (drift.isMatrix && !drift.isDrawn)
      return [
        ...told('where it grows', poorPlants(ground, drift, plants, by.garden)),
        ...told('heights', hiddenBehind(front, k, taxa, ground.cellM)),
      ]
    return [
      ...told('where it grows', poorPlants(ground, drift, plants, by.garden)),
      ...told('heights', hiddenBehind(front, k, taxa, ground.cellM)),
      ...told('legs', bareLegs(bed, whole, k, ground.cellM)),
      ...told('room', crowdedIn(drift, problem.drifts[k]!.areaM2, m2[k]!)),
      ...told('odd numbers', evenNumber(drift, by.drifts)),
      ...told('size', tooSmall(m2[k]!, by.seenFromM)),
      ...told('pieces', inPieces(bed, whole, k)),
      ...told('runs together', runsInto(bed, whole, k, arranged.drifts)),
    ]
  })
  return [...ofDrifts, ...ofBed(ground, arranged)]
}

/** Which plants of a drift would do poorly where they are set, and why the worst of them would. */
function poorPlants(
  { of }: BedGround,
  { id, taxon }: Drift,
  plants: readonly SetPlant[],
  garden: CheckedBy['garden'],
): string | undefined {
  const own = plants.filter((p) => p.driftId === id)
  const found = own.map(({ x, y }) => {
    const near = nearestStation(of.stations, x, y)
    return suits(taxon, of.place, { ...near, x, y, edgeM: Math.max(0, edgeAt(of, x, y)) }, garden)
  })
  const poor = found.filter((f) => f.score < GOOD_FIT)
  if (poor.length <= RIM_SHARE * own.length) return undefined
  const worst = poor.reduce((a, b) => (b.score < a.score ? b : a))
  const which =
    own.length === 1 ? 'It' : poor.length === own.length ? 'All of them' : `${poor.length} of ${own.length}`
  return `${which} would do poorly: ${worst.reason}.`
}

/** Of every cell who stands before it; -1 where nobody does. */
const frontsOf = ({ before }: Prepared, whole: ArrayLike<number>) =>
  Array.from(whole, (k, c) => ({ k, front: before[c]! < 0 ? -1 : whole[before[c]!]! }))

function hiddenBehind(
  fronts: readonly { k: number; front: number }[],
  k: number,
  taxa: readonly { taxon: Taxon }[],
  cellM: number,
): string | undefined {
  const { heightM } = taxa[k]!.taxon
  const own = fronts.filter((f) => f.k === k)
  const hidden = own.filter((f) => f.front >= 0 && taxa[f.front]!.taxon.heightM > heightM + HEIGHT_SLACK_M)
  if (hidden.length * cellM < SEEN_M) return undefined
  const tallest = hidden.reduce((a, b) =>
    taxa[b.front]!.taxon.heightM > taxa[a.front]!.taxon.heightM ? b : a,
  )
  const { taxon } = taxa[tallest.front]!
  return `${taxon.common} stands before it over ${tenths(hidden.length * cellM)} m and grows ${centimetres(taxon.heightM - heightM)} taller.`
}

function bareLegs(bed: Prepared, whole: ArrayLike<number>, k: number, cellM: number): string | undefined {
  if (bed.leggy[k] !== 1) return undefined
  const bare = [...Array(whole.length).keys()].filter(
    (c) => whole[c] === k && isBare(bed, whole, k, c),
  ).length
  return bare * cellM < SEEN_M
    ? undefined
    : `It goes bare below, and over ${tenths(bare * cellM)} m nothing stands before it.`
}

/** Whether nothing hides the foot of what stands in a cell. */
function isBare({ before, heightM }: Prepared, whole: ArrayLike<number>, k: number, c: number): boolean {
  const front = before[c]! < 0 ? -1 : whole[before[c]!]!
  return front !== k && (front < 0 ? 0 : heightM[front]!) < HIDES_SHARE * heightM[k]!
}

const crowdedIn = (drift: Drift, wantsM2: number, hasM2: number): string | undefined =>
  hasM2 >= CROWDED_SHARE * wantsM2
    ? undefined
    : `${counted(drift.count, 'plant')} want ${tenths(wantsM2)} m² at their spacing and have ${tenths(hasM2)}.`

const evenNumber = ({ count, taxon }: Drift, custom: DriftCustom): string | undefined =>
  custom === 'odd' && count > 1 && count <= COUNTED_UP_TO && count % 2 === 0 && !isWoody(taxon)
    ? `${count} are an even number: ${count - 1} or ${count + 1} look less counted.`
    : undefined

function tooSmall(m2: number, seenFromM: number | undefined): string | undefined {
  const wideM = Math.sqrt((4 * m2) / Math.PI)
  return seenFromM === undefined || wideM >= seenFromM / SEEN_AS_ONE
    ? undefined
    : `It is ${tenths(wideM)} m across: seen from ${tenths(seenFromM)} m it wants ${tenths(seenFromM / SEEN_AS_ONE)} m to be read as one.`
}

/** How many pieces the ground of a drift lies in. */
function inPieces({ beside }: Prepared, whole: ArrayLike<number>, k: number): string | undefined {
  const own = [...Array(whole.length).keys()].filter((c) => whole[c] === k)
  const root = new Map(own.map((c) => [c, c]))
  const find = (c: number): number => {
    let at = c
    while (root.get(at) !== at) at = root.get(at)!
    return at
  }
  for (let e = 0; e < beside.length; e += 2)
    if (whole[beside[e]!] === k && whole[beside[e + 1]!] === k)
      root.set(find(beside[e]!), find(beside[e + 1]!))
  const pieces = new Set(own.map(find)).size
  return pieces > 1 ? `It lies in ${pieces} pieces.` : undefined
}

/** Another drift of the same kind that it touches. */
function runsInto(
  { beside, kind }: Prepared,
  whole: ArrayLike<number>,
  k: number,
  drifts: readonly Drift[],
): string | undefined {
  for (let e = 0; e < beside.length; e += 2) {
    const [a, b] = [whole[beside[e]!]!, whole[beside[e + 1]!]!]
    // Said once of a pair, at the first of them.
    if (Math.min(a, b) === k && a !== b && kind[a] === kind[b])
      return Math.max(a, b) < drifts.length
        ? 'It runs into another drift of its kind: as one it would read better.'
        : 'It runs into what stands there of its kind.'
  }
  return undefined
}

/** What is to be said of the bed as a whole. */
function ofBed(ground: BedGround, arranged: Arrangement): LayoutCheck[] {
  const cellM2 = ground.cellM ** 2
  const farM2 = cellM2 * sum(ground.of.stations, (s) => Number(s.edgeM > REACH_M))
  const open = openM2(ground, arranged)
  const bedM2 = ground.of.stations.length * cellM2
  const told = (what: CheckName, says: string): LayoutCheck => ({ driftId: null, what, says })
  return [
    ...(farM2 > 0.1 * bedM2
      ? [
          told(
            'way in',
            `${tenths(farM2)} m² lie further than an arm’s reach from the edge: leave a way in, or stepping stones.`,
          ),
        ]
      : []),
    ...(open > OPEN_SHARE * bedM2 ? [told('open ground', `${tenths(open)} m² are still open.`)] : []),
  ]
}
