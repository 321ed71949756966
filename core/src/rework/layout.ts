import { sum } from 'd3-array'
import type { Point } from '../geometry/index.ts'
import { plantsOn, type Taxon } from '../plants/index.ts'

/** A cell of a bed as its layout sees it: all stand for as much ground. */
export interface LayoutCell {
  x: number
  y: number
}

/** Plants of a kind that stand together. */
export interface LayoutDrift {
  id: string
  taxon: Pick<Taxon, 'botanical' | 'heightM' | 'spacingM' | 'texture' | 'habit' | 'lifeForm'>
  count: number
  /** Ground that they take, square metres. */
  areaM2: number
  /** How the kind would do at each cell, 0 to 1, by their order. */
  fit: ArrayLike<number>
  /** It runs through the bed: whatever ground the others leave is its own. */
  isMatrix?: boolean | undefined
}

/** A bed to be laid out. */
export interface LayoutProblem {
  cells: readonly LayoutCell[]
  /** How far apart they are: each stands for a square of it. */
  cellM: number
  /** The ways from the bed to where it is seen from, degrees clockwise from up the plan: one side, or two. */
  viewedFrom: readonly number[]
  drifts: readonly LayoutDrift[]
  /** Of each cell the drift that keeps it, by its turn, or -1: what stays there, or was drawn so. Such a drift takes no other ground. */
  held?: Assignment | undefined
}

/** Of each cell the drift that has it, by its turn; -1 where the ground stays open. */
export type Assignment = Int16Array

/** What a layout lacks, in points: square metres that are wrong, by how wrong. */
export interface LayoutScore {
  /** Taller before lower, seen from the nearer side. */
  heights: number
  light: number
  /** Drifts that straggle. */
  shape: number
  /** Groups of one kind that run into each other. */
  merged: number
  /** Drifts of one texture side by side. */
  sameness: number
  /** Tall kinds with bare legs that nothing stands before. */
  legs: number
  /** Ground that drifts want and do not have. */
  room: number
  total: number
}

/** What each lack weighs. Judgements: light before looks, heights first of these. */
export const layoutWeights = {
  heights: 6,
  light: 8,
  shape: 1,
  merged: 2,
  sameness: 0.4,
  legs: 1.5,
  room: 10,
} as const

/** A plant may stand so much above what is behind it: they sway and vary. */
export const HEIGHT_SLACK_M = 0.15
/** Kinds taller than this go bare below where they grow upright. Working figures. */
const LEGGY_M = 0.9
export const HIDES_SHARE = 0.3

const isLeggy = ({ habit, heightM, lifeForm }: LayoutDrift['taxon']): boolean =>
  heightM > LEGGY_M && (habit === 'upright' || habit === 'spire') && lifeForm !== 'small tree'

/** A bed with what does not change while it is laid out. */
export interface Prepared {
  problem: LayoutProblem
  /** Of each cell the drift that keeps it; -1 where it can be laid out. */
  held: Assignment
  /** Drifts that keep no ground and do not run through the rest, by their turn. */
  loose: readonly number[]
  /** What runs through the rest, by its turn; -1 where nothing does. */
  matrix: number
  /** Cells beside each other, each pair once, and whether they lie across the view. */
  beside: Int32Array
  /** For every cell the one before it, towards the nearer side it is seen from; -1 at the edge. */
  before: Int32Array
  /** How deep each lies in the bed from the nearer side it is seen from, metres. */
  depth: Float64Array
  /** Cells that each drift fills. */
  wants: readonly number[]
  x: Float64Array
  y: Float64Array
  /** Of each drift, by its turn. */
  heightM: Float64Array
  leggy: Uint8Array
  /** Drifts of one kind, and of one texture, have the same number. */
  kind: Int32Array
  texture: Int32Array
}

/** A bed that has been laid out, with as many plants of what runs through it as stand on the ground that it has. */
export function withMatrixCounted(problem: LayoutProblem, has: Assignment): LayoutProblem {
  const drifts = problem.drifts.map((d, k) => {
    if (!d.isMatrix) return d
    const areaM2 = problem.cellM ** 2 * has.filter((h) => h === k).length
    return { ...d, areaM2, count: plantsOn(areaM2, d.taxon.spacingM) }
  })
  return { ...problem, drifts }
}

/** Numbers for words, the same for the same. */
function numbered(words: readonly string[]): Int32Array {
  const known = [...new Set(words)]
  return Int32Array.from(words, (w) => known.indexOf(w))
}

/** What of a bed stays the same however it is laid out. */
export function prepared(problem: LayoutProblem): Prepared {
  const { cells, cellM, viewedFrom, drifts } = problem
  const cellM2 = cellM ** 2
  const keyOf = (x: number, y: number) => `${Math.round(x / cellM)} ${Math.round(y / cellM)}`
  const [x0, y0] = [cells[0]?.x ?? 0, cells[0]?.y ?? 0]
  const at = new Map(cells.map((c, i) => [keyOf(c.x - x0, c.y - y0), i]))
  const beside: number[] = []
  cells.forEach((c, i) => {
    for (const [dx, dy] of [
      [cellM, 0],
      [0, cellM],
    ] as const) {
      // prettier-ignore
      const next = at.get(keyOf(c.x - x0 + dx, c.y - y0 + dy))
      if (next !== undefined) beside.push(i, next)
    }
  })
  const views = (viewedFrom.length > 0 ? viewedFrom : [180]).map((deg): Point => {
    const a = (deg * Math.PI) / 180
    return [Math.sin(a), Math.cos(a)]
  })
  const depths = views.map((v) => {
    const along = cells.map((c) => c.x * v[0] + c.y * v[1])
    const front = Math.max(...along)
    return along.map((a) => front - a)
  })
  const nearer = cells.map((_, i) => (depths.length > 1 && depths[1]![i]! < depths[0]![i]! ? 1 : 0))
  const before = Int32Array.from(cells, (c, i) => {
    const v = views[nearer[i]!]!
    return at.get(keyOf(c.x - x0 + v[0] * cellM, c.y - y0 + v[1] * cellM)) ?? -1
  })
  const held = problem.held ?? new Int16Array(cells.length).fill(-1)
  const keeps = new Float64Array(drifts.length)
  for (const k of held) if (k >= 0) keeps[k]!++
  const matrix = drifts.findIndex((d, k) => d.isMatrix && keeps[k] === 0)
  const loose = [...drifts.keys()].filter((k) => keeps[k] === 0 && k !== matrix)
  const scale = Math.min(
    1,
    ((cells.length - sum(keeps)) * cellM2) /
      Math.max(
        1e-9,
        sum(loose, (k) => drifts[k]!.areaM2),
      ),
  )
  return {
    problem,
    held,
    loose,
    matrix,
    beside: Int32Array.from(beside),
    before,
    depth: Float64Array.from(cells, (_, i) => depths[nearer[i]!]![i]!),
    wants: drifts.map((d, k) =>
      k === matrix ? 0 : keeps[k]! || Math.max(1, Math.round((scale * d.areaM2) / cellM2)),
    ),
    x: Float64Array.from(cells, (c) => c.x),
    y: Float64Array.from(cells, (c) => c.y),
    heightM: Float64Array.from(drifts, (d) => d.taxon.heightM),
    leggy: Uint8Array.from(drifts, (d) => Number(isLeggy(d.taxon))),
    kind: numbered(drifts.map((d) => d.taxon.botanical)),
    texture: numbered(drifts.map((d) => d.taxon.texture)),
  }
}

/** What a layout lacks, from who has which cell alone. */
export const layoutScore = (problem: LayoutProblem, has: Assignment): LayoutScore =>
  scored(prepared(problem), has)

/** The same, of a bed that is laid out again and again. */
export function scored(bed: Prepared, has: Assignment): LayoutScore {
  const { problem, beside, before, wants, heightM, leggy, kind, texture, matrix } = bed
  const { drifts, cellM } = problem
  const cellM2 = cellM ** 2
  const fits = drifts.map((d) => d.fit)
  const w = layoutWeights
  let heights = 0
  let light = 0
  let legs = 0
  const sx = new Float64Array(drifts.length)
  const sy = new Float64Array(drifts.length)
  const sq = new Float64Array(drifts.length)
  const n = new Float64Array(drifts.length)
  for (let i = 0; i < has.length; i++) {
    const k = has[i]!
    if (k < 0) continue
    const x = bed.x[i]!
    const y = bed.y[i]!
    light += 1 - fits[k]![i]!
    sx[k]! += x
    sy[k]! += y
    sq[k]! += x * x + y * y
    n[k]!++
    const front = before[i]! < 0 ? -1 : has[before[i]!]!
    const frontM = front < 0 ? 0 : heightM[front]!
    const ownM = heightM[k]!
    if (frontM > ownM + HEIGHT_SLACK_M) heights += frontM - ownM - HEIGHT_SLACK_M
    if (leggy[k] === 1 && front !== k && frontM < HIDES_SHARE * ownM) legs++
  }
  let merged = 0
  let sameness = 0
  for (let e = 0; e < beside.length; e += 2) {
    const a = has[beside[e]!]!
    const b = has[beside[e + 1]!]!
    if (a === b || a < 0 || b < 0) continue
    if (kind[a] === kind[b]) merged++
    else if (texture[a] === texture[b]) sameness++
  }
  // A round has the least moment of all shapes of its area: n²·cell/2π. What is over that straggles.
  const shape = sum(drifts, (_, k) => {
    if (n[k] === 0 || k === matrix) return 0
    const moment = sq[k]! - (sx[k]! ** 2 + sy[k]! ** 2) / n[k]!
    const round = (n[k]! ** 2 * cellM ** 2) / (2 * Math.PI)
    return n[k]! * Math.max(0, moment / Math.max(round, cellM2) - 1)
  })
  const terms = {
    heights: w.heights * heights * cellM2,
    light: w.light * light * cellM2,
    shape: w.shape * shape * cellM2,
    merged: w.merged * merged * cellM,
    sameness: w.sameness * sameness * cellM,
    legs: w.legs * legs * cellM,
    room: w.room * sum(drifts, (_, k) => Math.max(0, wants[k]! - n[k]!)) * cellM2,
  }
  return { ...terms, total: sum(Object.values(terms)) }
}
