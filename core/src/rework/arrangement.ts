import { mean, sum } from 'd3-array'
import { groundOf, type Planting } from '../garden/index.ts'
import { centroid, GOLDEN_ANGLE, isInside, metresOutside, type Point, type Ring } from '../geometry/index.ts'
import { onceFor } from '../once/index.ts'
import { groundM2, plantsOn, type Taxon } from '../plants/index.ts'
import {
  layoutScore,
  type Assignment,
  type LayoutDrift,
  type LayoutProblem,
  type LayoutScore,
} from './layout.ts'
import { layOut } from './laying.ts'
import { positionsOf, type SetPlant } from './positions.ts'
import { laidAbout, middlesOf } from './powerDiagram.ts'
import type { StationedPlace } from './stations.ts'
import { suitScore, wantsM } from './suits.ts'

/** A bed whose drifts are arranged by hand: what does not change while they are. */
export interface BedGround {
  of: StationedPlace
  /** How far apart its stations are, metres. */
  cellM: number
  /** As of a layout. */
  viewedFrom: readonly number[]
  /** What stands there and stays: its ground is its own. */
  stays: readonly Planting[]
}

/** Plants of a kind that are to stand together. */
export interface Drift {
  id: string
  taxon: Taxon
  count: number
  /** It keeps the ground that it has, as it was drawn. */
  isDrawn?: boolean | undefined
  /** It runs through the bed: it has the ground that the others leave, and as many plants as stand there. */
  isMatrix?: boolean | undefined
}

/** Drifts, and of each cell of the bed the drift that has it, by its turn; -1 where it is open or what stays has it. */
export interface Arrangement {
  drifts: readonly Drift[]
  has: Assignment
}

/** Rounds of settling after a change by hand: the ground of each drift is then right to a cell or two. */
const SETTLING_BY_HAND = 40

/** What stays in a bed with the cells that it keeps: those within its ground, or of a small one the nearest. */
const keeping = onceFor(({ of: { stations }, stays }: BedGround) => {
  const grounds = stays.map(groundOf)
  const first = Int16Array.from(stations, ({ x, y }) => grounds.findIndex((g) => metresOutside(g, x, y) <= 0))
  stays.forEach((_, p) => {
    if (first.includes(p)) return
    const away = (c: number) => metresOutside(grounds[p]!, stations[c]!.x, stations[c]!.y)
    const open = [...stations.keys()].filter((c) => first[c]! < 0)
    if (open.length > 0) first[open.reduce((a, b) => (away(b) < away(a) ? b : a))] = p
  })
  const plantings = stays.filter((_, p) => first.includes(p))
  return { plantings, cells: first.map((p) => (p < 0 ? -1 : plantings.indexOf(stays[p]!))) }
})

/** Of a bed the planting that keeps each cell, by its turn; -1 where none does. */
const keptCells = (ground: BedGround): Int16Array => keeping(ground).cells

/** How a kind would do all over a bed: worked out once, for it is asked at every frame of a drag. */
const fitOver = onceFor((ground: BedGround) =>
  onceFor((taxon: Taxon): Float32Array => Float32Array.from(ground.of.stations, (s) => suitScore(taxon, s))),
)

const driftOf = (ground: BedGround, { id, taxon, count, isMatrix }: Omit<Drift, 'isDrawn'>): LayoutDrift => ({
  id,
  taxon,
  count,
  isMatrix,
  areaM2: groundM2(count, taxon.spacingM),
  fit: fitOver(ground)(taxon),
})

/** An arrangement as a layout sees it: its drifts first, then what stays, which keeps its ground as drifts that were drawn do. */
export function layoutOf(
  ground: BedGround,
  { drifts, has }: Arrangement,
): { problem: LayoutProblem; whole: Assignment; kept: readonly Planting[] } {
  const { cells: kept, plantings } = keeping(ground)
  const whole = kept.map((k, c) => (k >= 0 ? drifts.length + k : has[c]!))
  const held = whole.map((k) => (k >= drifts.length || drifts[k]?.isDrawn ? k : -1))
  return {
    whole,
    kept: plantings,
    problem: {
      cells: ground.of.stations,
      cellM: ground.cellM,
      viewedFrom: ground.viewedFrom,
      held,
      drifts: [
        ...drifts.map((d) => driftOf(ground, d)),
        ...plantings.map((p) => driftOf(ground, { id: p.id, taxon: p.taxon, count: p.livingCount })),
      ],
    },
  }
}

const ownOf = (drifts: readonly Drift[], whole: Assignment): Assignment =>
  whole.map((k) => (k < drifts.length ? k : -1))

/** What an arrangement lacks, what stays in the bed among it. */
export function arrangementScore(ground: BedGround, arranged: Arrangement): LayoutScore {
  const { problem, whole } = layoutOf(ground, arranged)
  return layoutScore(problem, whole)
}

/**
 * Lays the drifts out about what stays and what was drawn.
 *
 * @returns yields how far it has come, 0 to 1
 */
export function* arrange(
  ground: BedGround,
  arranged: Arrangement,
  seed: number,
): Generator<number, Arrangement> {
  const { assignment } = yield* layOut(layoutOf(ground, arranged).problem, seed)
  return counted(ground, { drifts: arranged.drifts, has: ownOf(arranged.drifts, assignment) })
}

/** What runs through a bed has all that is open in it, and as many plants as stand there. */
function throughRest(ground: BedGround, { drifts, has }: Arrangement): Arrangement {
  const matrix = drifts.findIndex((d) => d.isMatrix && !d.isDrawn)
  if (matrix < 0) return { drifts, has }
  const kept = keptCells(ground)
  return counted(ground, { drifts, has: has.map((k, c) => (k < 0 && kept[c]! < 0 ? matrix : k)) })
}

/** With as many plants of what runs through it as its ground takes. */
function counted(ground: BedGround, { drifts, has }: Arrangement): Arrangement {
  const m2 = driftsM2(ground, { drifts, has })
  return {
    has,
    drifts: drifts.map((d, k) =>
      d.isMatrix && !d.isDrawn ? { ...d, count: plantsOn(m2[k]!, d.taxon.spacingM) } : d,
    ),
  }
}

/** To the edge of a place, metres; below nothing beyond it. */
export const edgeAt = ({ place }: Pick<StationedPlace, 'place'>, x: number, y: number): number =>
  -metresOutside(place.kind === 'bed' ? { ring: place.ring } : place, x, y)

/** What is left of a drift's ground off the edge must be so much of what its plants take, or they come nearer to it. */
const ROOMY_SHARE = 0.7

/**
 * A position for every plant of the drifts; of a drift without ground none. They stand off the edge of the bed by half of what they grow
 * to, where their ground is wide enough for that, and off what stays.
 */
export const plantsOf = (ground: BedGround, arranged: Arrangement): readonly SetPlant[] =>
  setOutFor(arranged)(ground)

/** Asked for by all that draws, checks and counts an arrangement: it never changes, and is worked out once for a ground. */
const setOutFor = onceFor((arranged: Arrangement) => onceFor((ground: BedGround) => setOut(ground, arranged)))

function setOut(ground: BedGround, arranged: Arrangement): SetPlant[] {
  const { drifts, has } = arranged
  const { problem } = layoutOf(ground, arranged)
  const { stations } = ground.of
  const taken = ground.stays.map(groundOf)
  const offM = drifts.map(({ taxon, count }, k) => {
    const own = stations.filter((_, c) => has[c] === k)
    const takes = Math.min(own.length, groundM2(count, taxon.spacingM) / ground.cellM ** 2)
    const isRoomy = (m: number) => own.filter((s) => s.edgeM >= m).length >= ROOMY_SHARE * takes
    return [wantsM(taxon), wantsM(taxon) / 2].find(isRoomy) ?? 0
  })
  const isGround = (x: number, y: number, k: number) =>
    edgeAt(ground.of, x, y) >= offM[k]! && taken.every((g) => metresOutside(g, x, y) > 0)
  return positionsOf({ ...problem, drifts: problem.drifts.slice(0, drifts.length) }, has, isGround)
}

/** Square metres of the bed that neither drifts nor what stays has. */
export const openM2 = (ground: BedGround, { has }: Arrangement): number =>
  ground.cellM ** 2 * sum(keptCells(ground), (k, c) => Number(k < 0 && has[c]! < 0))

/** Square metres that each drift has. */
export const driftsM2 = (ground: BedGround, { drifts, has }: Arrangement): number[] => {
  const cells = drifts.map(() => 0)
  for (const k of has) if (k >= 0) cells[k]!++
  return cells.map((n) => n * ground.cellM ** 2)
}

/** No drift has any ground yet. */
export const unarranged = ({ of }: BedGround, drifts: readonly Drift[]): Arrangement => ({
  drifts,
  has: new Int16Array(of.stations.length).fill(-1),
})

/** Every drift about its middle with the ground that it takes; those that were drawn as they are. */
function settled(ground: BedGround, arranged: Arrangement, middles: readonly Point[]): Arrangement {
  const { problem } = layoutOf(ground, arranged)
  const all = [...apartFrom(middles, ground.cellM), ...keeping(ground).plantings.map((): Point => [0, 0])]
  const has = ownOf(arranged.drifts, laidAbout(problem, all, SETTLING_BY_HAND))
  return counted(ground, { drifts: arranged.drifts, has })
}

/** Of middles that lie on each other, as those of drifts without ground do, one would have it all: each is set a little aside. */
const apartFrom = (middles: readonly Point[], byM: number): Point[] =>
  middles.map((m, i): Point => {
    const isAlone = !middles.slice(0, i).some((o) => Math.hypot(o[0] - m[0], o[1] - m[1]) < byM / 2)
    return isAlone ? m : [m[0] + byM * Math.cos(GOLDEN_ANGLE * i), m[1] + byM * Math.sin(GOLDEN_ANGLE * i)]
  })

const middles = (ground: BedGround, { drifts, has }: Arrangement): Point[] =>
  middlesOf({ cells: ground.of.stations, drifts }, has)

const turnOf = ({ drifts }: Arrangement, id: string): number => drifts.findIndex((d) => d.id === id)

/**
 * A drift moved: it has the ground nearest to where it is put, the others make room, and what it leaves is theirs. One that was drawn
 * keeps its shape, as far as the bed goes.
 */
export function withMoved(ground: BedGround, arranged: Arrangement, id: string, to: Point): Arrangement {
  const k = turnOf(arranged, id)
  const drift = arranged.drifts[k]
  if (!drift || drift.isMatrix) return arranged
  const at = middles(ground, arranged)
  const cells = drift.isDrawn
    ? cellsShifted(ground, arranged.has, k, [to[0] - at[k]![0], to[1] - at[k]![1]])
    : cellsAbout(ground, arranged, k, to)
  if (cells.length === 0) return arranged
  const held = {
    drifts: arranged.drifts.with(k, { ...drift, isDrawn: true }),
    has: withCells(arranged, k, cells),
  }
  const { has, drifts } = settled(ground, held, at)
  return { has, drifts: drifts.with(k, drift) }
}

/** The cells nearest to a point that a drift can have: as many as it takes, and none that is kept. */
function cellsAbout(ground: BedGround, { drifts, has }: Arrangement, k: number, [x, y]: Point): number[] {
  const kept = keptCells(ground)
  const { stations } = ground.of
  const { taxon, count } = drifts[k]!
  const away = (c: number) => (stations[c]!.x - x) ** 2 + (stations[c]!.y - y) ** 2
  const isFree = (c: number) => kept[c]! < 0 && (has[c]! < 0 || has[c] === k || !drifts[has[c]!]!.isDrawn)
  return [...stations.keys()]
    .filter(isFree)
    .sort((a, b) => away(a) - away(b) || a - b)
    .slice(0, Math.max(1, Math.round(groundM2(count, taxon.spacingM) / ground.cellM ** 2)))
}

/** A drift of so many plants: it takes the ground that they take, drawn or not. */
export function withCount(ground: BedGround, arranged: Arrangement, id: string, count: number): Arrangement {
  const at = middles(ground, arranged)
  const drifts = arranged.drifts.map((d) => (d.id === id ? { ...d, count, isDrawn: undefined } : d))
  return settled(ground, { ...arranged, drifts }, at)
}

/** A drift more, about a point, or where the most ground lies open. */
export function withDrift(ground: BedGround, arranged: Arrangement, drift: Drift, at?: Point): Arrangement {
  const where = at ?? middleOfOpen(ground, arranged)
  return settled(ground, { ...arranged, drifts: [...arranged.drifts, drift] }, [
    ...middles(ground, arranged),
    where,
  ])
}

/** The open cell furthest from whatever is not open. */
function middleOfOpen(ground: BedGround, { has }: Arrangement): Point {
  const { stations } = ground.of
  const kept = keptCells(ground)
  const isOpen = (c: number) => kept[c]! < 0 && has[c]! < 0
  const taken = stations.filter((_, c) => !isOpen(c))
  const open = stations.filter((_, c) => isOpen(c))
  const roomAt = (s: (typeof stations)[number]) =>
    taken.reduce((least, t) => Math.min(least, Math.hypot(t.x - s.x, t.y - s.y)), s.edgeM)
  const best = (open.length > 0 ? open : stations).reduce((a, b) => (roomAt(b) > roomAt(a) ? b : a))
  return [best.x, best.y]
}

/** The middle of a drift's ground; undefined where it has none. */
export function middleOfDrift(
  { of }: BedGround,
  { drifts, has }: Arrangement,
  id: string,
): Point | undefined {
  const k = drifts.findIndex((d) => d.id === id)
  const own = of.stations.filter((_, c) => k >= 0 && has[c] === k)
  return own.length > 0 ? [mean(own, (s) => s.x)!, mean(own, (s) => s.y)!] : undefined
}

/** Without a drift: its ground lies open or is what runs through the rest; the others stay as they are. */
export const withoutDrift = (ground: BedGround, arranged: Arrangement, id: string): Arrangement =>
  throughRest(ground, cutOut(arranged, id))

function cutOut({ drifts, has }: Arrangement, id: string): Arrangement {
  const k = drifts.findIndex((d) => d.id === id)
  if (k < 0) return { drifts, has }
  return { drifts: drifts.toSpliced(k, 1), has: has.map((h) => (h === k ? -1 : h > k ? h - 1 : h)) }
}

/** A drift cut in two across its length, half of its plants in each. @param newId of the second half */
export function withSplit(ground: BedGround, arranged: Arrangement, id: string, newId: string): Arrangement {
  const k = turnOf(arranged, id)
  const drift = arranged.drifts[k]
  if (!drift || drift.count < 2 || drift.isMatrix) return arranged
  const [x, y] = middles(ground, arranged)[k]!
  const own = ground.of.stations.filter((_, c) => arranged.has[c] === k)
  const sxx = sum(own, (s) => (s.x - x) ** 2)
  const syy = sum(own, (s) => (s.y - y) ** 2)
  const sxy = sum(own, (s) => (s.x - x) * (s.y - y))
  // Along its greater axis of inertia.
  const angle = Math.atan2(2 * sxy, sxx - syy) / 2
  const half = own.length > 1 ? Math.sqrt(Math.max(sxx, syy) / own.length) : ground.cellM
  const along: Point = [half * Math.cos(angle), half * Math.sin(angle)]
  const first = { ...drift, count: Math.ceil(drift.count / 2), isDrawn: undefined }
  const second = { ...first, id: newId, count: Math.floor(drift.count / 2) }
  const drifts = [...arranged.drifts.with(k, first), second]
  return settled(ground, { ...arranged, drifts }, [
    ...middles(ground, arranged).with(k, [x - along[0], y - along[1]]),
    [x + along[0], y + along[1]],
  ])
}

/** Two drifts of one kind made one, about the middle of both. */
export function withMerged(ground: BedGround, arranged: Arrangement, id: string, other: string): Arrangement {
  const [k, l] = [turnOf(arranged, id), turnOf(arranged, other)]
  const [a, b] = [arranged.drifts[k], arranged.drifts[l]]
  if (!a || !b || k === l || a.taxon.botanical !== b.taxon.botanical) return arranged
  const isMatrix = a.isMatrix || b.isMatrix ? true : undefined
  const both = { ...a, count: a.count + b.count, isDrawn: undefined, isMatrix }
  const has = arranged.has.map((h) => (h === l ? k : h))
  const merged = cutOut({ drifts: arranged.drifts.with(k, both), has }, other)
  return settled(ground, merged, middles(ground, merged))
}

/** A drift that runs through the bed from now on, instead of what did before; or stands together again, about where it is widest. */
export function withMatrix(
  ground: BedGround,
  arranged: Arrangement,
  id: string,
  isMatrix: boolean,
): Arrangement {
  const drifts = arranged.drifts.map(({ isMatrix: _, ...d }): Drift => {
    if (d.id !== id) return d
    return isMatrix
      ? { ...d, isDrawn: undefined, isMatrix }
      : { ...d, count: Math.min(d.count, AGAIN_TOGETHER) }
  })
  return settled(ground, { ...arranged, drifts }, middles(ground, arranged))
}
/** What ran through a bed comes together again in a group of so many, to be enlarged from there. */
const AGAIN_TOGETHER = 7

/** Two drifts that change places. */
export function withSwapped(
  ground: BedGround,
  arranged: Arrangement,
  id: string,
  other: string,
): Arrangement {
  const [k, l] = [turnOf(arranged, id), turnOf(arranged, other)]
  if (k < 0 || l < 0 || k === l) return arranged
  if (arranged.drifts[k]!.isMatrix || arranged.drifts[l]!.isMatrix) return arranged
  const at = middles(ground, arranged)
  const loose = (d: Drift) => (d.id === id || d.id === other ? { ...d, isDrawn: undefined } : d)
  const drifts = arranged.drifts.map(loose)
  return settled(ground, { ...arranged, drifts }, at.with(k, at[l]!).with(l, at[k]!))
}

/** Every drift larger, as far as the open ground goes: each by its share, none of those that were drawn. */
export function withRestFilled(ground: BedGround, arranged: Arrangement): Arrangement {
  const counts = arranged.drifts.map((d) => d.count)
  const each = arranged.drifts.map((d) => groundM2(1, d.taxon.spacingM))
  const has = driftsM2(ground, arranged)
  // Of what is open those have some that have less than they take.
  let open = openM2(ground, arranged) - sum(counts, (n, k) => Math.max(0, n * each[k]! - has[k]!))
  for (;;) {
    const [next] = [...counts.keys()]
      .filter((k) => !arranged.drifts[k]!.isDrawn && !arranged.drifts[k]!.isMatrix && each[k]! <= open)
      .sort(
        (a, b) => counts[a]! / arranged.drifts[a]!.count - counts[b]! / arranged.drifts[b]!.count || a - b,
      )
    if (next === undefined) break
    counts[next]!++
    open -= each[next]!
  }
  const drifts = arranged.drifts.map((d, k) => ({ ...d, count: counts[k]! }))
  return settled(ground, { ...arranged, drifts }, middles(ground, arranged))
}

/** A drift drawn by hand: it has the ground within, what stays apart, and so many plants as stand there; the others make room. */
export function withDrawn(ground: BedGround, arranged: Arrangement, drift: Drift, ring: Ring): Arrangement {
  const kept = keptCells(ground)
  const own = ground.of.stations.flatMap((s, c) => (kept[c]! < 0 && isInside(ring, s.x, s.y) ? [c] : []))
  if (own.length === 0) return arranged
  const count = plantsOn(own.length * ground.cellM ** 2, drift.taxon.spacingM)
  const known = turnOf(arranged, drift.id)
  const k = known < 0 ? arranged.drifts.length : known
  const drawn = { ...drift, count, isDrawn: true }
  const drifts = known < 0 ? [...arranged.drifts, drawn] : arranged.drifts.with(k, drawn)
  const at = known < 0 ? [...middles(ground, arranged), centroid(ring)] : middles(ground, arranged)
  const has = arranged.has.map((h) => (h === k ? -1 : h))
  for (const c of own) has[c] = k
  return settled(ground, { drifts, has }, at)
}

/**
 * One side of a line made the mirror of the other: what crosses it goes on as it is, what lies apart stands again on the other side.
 *
 * @param keptSide a point on the side that stays as it is
 * @param newIdOf of the copy of a drift
 */
export function withMirrored(
  ground: BedGround,
  arranged: Arrangement,
  [from, to]: readonly [Point, Point],
  keptSide: Point,
  newIdOf: (id: string) => string,
): Arrangement {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1])
  if (length === 0) return arranged
  const normal: Point = [-(to[1] - from[1]) / length, (to[0] - from[0]) / length]
  const off = (x: number, y: number) => (x - from[0]) * normal[0] + (y - from[1]) * normal[1]
  const side = Math.sign(off(...keptSide))
  const { stations } = ground.of
  const isKept = stations.map((s) => side * off(s.x, s.y) >= -1e-9)
  const cellAt = cellFinder(ground)
  const mirrored = (s: { x: number; y: number }): number => {
    const d = off(s.x, s.y)
    return cellAt(s.x - 2 * d * normal[0], s.y - 2 * d * normal[1])
  }
  const crosses = new Set(
    stations.flatMap((s, c) => (Math.abs(off(s.x, s.y)) <= ground.cellM ? [arranged.has[c]!] : [])),
  )
  return copied(ground, arranged, newIdOf, (c) => {
    if (isKept[c]) return arranged.has[c]!
    const twin = mirrored(stations[c]!)
    const k = twin >= 0 && isKept[twin] ? arranged.has[twin]! : -1
    return k >= 0 && !crosses.has(k) && !arranged.drifts[k]!.isMatrix ? arranged.drifts.length + k : k
  })
}

/** Drifts that stand again further along, where the bed goes on: what is there makes room. */
export const withRepeated = (
  ground: BedGround,
  arranged: Arrangement,
  ids: readonly string[],
  by: Point,
  newIdOf: (id: string) => string,
): Arrangement => {
  const cellAt = cellFinder(ground)
  return copied(ground, arranged, newIdOf, (c) => {
    const { x, y } = ground.of.stations[c]!
    const from = cellAt(x - by[0], y - by[1])
    const k = from >= 0 ? arranged.has[from]! : -1
    return k >= 0 && ids.includes(arranged.drifts[k]!.id) ? arranged.drifts.length + k : arranged.has[c]!
  })
}

/**
 * Drifts with copies of some: all keep the ground they are given, with as many plants as stand there.
 *
 * @param hasNow of a cell: a drift by its turn; its copy by the number of drifts and its turn; or -1
 */
function copied(
  ground: BedGround,
  { drifts }: Arrangement,
  newIdOf: (id: string) => string,
  hasNow: (cell: number) => number,
): Arrangement {
  const kept = keptCells(ground)
  const has = Int16Array.from(ground.of.stations, (_, c) => (kept[c]! < 0 ? hasNow(c) : -1))
  const all = [...drifts, ...drifts.map((d) => ({ ...d, id: newIdOf(d.id) }))]
  const m2 = driftsM2(ground, { drifts: all, has })
  const counted = all.map((d, k) => ({
    ...d,
    count: plantsOn(m2[k]!, d.taxon.spacingM),
    ...(!d.isMatrix && { isDrawn: true }),
  }))
  const there = counted
    .filter((_, k) => m2[k] === 0)
    .reduce((arranged, d) => cutOut(arranged, d.id), { drifts: counted, has } as Arrangement)
  return throughRest(ground, there)
}

/** Finds the cell of a bed that is nearest to a point; -1 where none is nearer than three quarters of its width. */
function cellFinder({ of: { stations }, cellM }: BedGround): (x: number, y: number) => number {
  const keyOf = (x: number, y: number) => `${x} ${y}`
  const [x0, y0] = [stations[0]?.x ?? 0, stations[0]?.y ?? 0]
  const turn = (m: number) => Math.round(m / cellM)
  const at = new Map(stations.map((s, c) => [keyOf(turn(s.x - x0), turn(s.y - y0)), c]))
  return (x, y) => {
    const [i, j] = [turn(x - x0), turn(y - y0)]
    const exact = at.get(keyOf(i, j))
    if (exact !== undefined) return exact
    // A point between cells at the rim may be rounded to one that is not there.
    let best = -1
    let least = RIM_SHARE * cellM
    for (const [di, dj] of BESIDE) {
      const c = at.get(keyOf(i + di, j + dj))
      const away = c === undefined ? Infinity : Math.hypot(stations[c]!.x - x, stations[c]!.y - y)
      if (away > least) continue
      best = c!
      least = away
    }
    return best
  }
}
const RIM_SHARE = 0.75
const BESIDE = [-1, 0, 1].flatMap((i) => [-1, 0, 1].map((j) => [i, j] as const))

/** Cells of a drift shifted, those that stay within the bed and off what stays. */
function cellsShifted(ground: BedGround, has: Assignment, k: number, by: Point): number[] {
  const cellAt = cellFinder(ground)
  const kept = keptCells(ground)
  return ground.of.stations.flatMap((s, c) => {
    if (has[c] !== k) return []
    const to = cellAt(s.x + by[0], s.y + by[1])
    return to >= 0 && kept[to]! < 0 ? [to] : []
  })
}

const withCells = ({ has }: Arrangement, k: number, cells: readonly number[]): Assignment => {
  const next = has.map((h) => (h === k ? -1 : h))
  for (const c of cells) next[c] = k
  return next
}
