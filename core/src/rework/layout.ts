import { sum } from 'd3-array'
import type { Point } from '../geometry/index.ts'
import type { Taxon } from '../plants/index.ts'
import { seededRandom, type Random } from '../random/index.ts'

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
}

/** A bed to be laid out. */
export interface LayoutProblem {
  cells: readonly LayoutCell[]
  /** How far apart they are: each stands for a square of it. */
  cellM: number
  /** The ways from the bed to where it is seen from, degrees clockwise from up the plan: one side, or two. */
  viewedFrom: readonly number[]
  drifts: readonly LayoutDrift[]
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
const HIDES_SHARE = 0.3

const isLeggy = ({ habit, heightM, lifeForm }: LayoutDrift['taxon']): boolean =>
  heightM > LEGGY_M && (habit === 'upright' || habit === 'spire') && lifeForm !== 'small tree'

/** A bed with what does not change while it is laid out. */
interface Prepared {
  problem: LayoutProblem
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

/** Numbers for words, the same for the same. */
function numbered(words: readonly string[]): Int32Array {
  const known = [...new Set(words)]
  return Int32Array.from(words, (w) => known.indexOf(w))
}

function prepared(problem: LayoutProblem): Prepared {
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
  const scale = Math.min(
    1,
    (cells.length * cellM2) /
      Math.max(
        1e-9,
        sum(drifts, (d) => d.areaM2),
      ),
  )
  return {
    problem,
    beside: Int32Array.from(beside),
    before,
    depth: Float64Array.from(cells, (_, i) => depths[nearer[i]!]![i]!),
    wants: drifts.map((d) => Math.max(1, Math.round((scale * d.areaM2) / cellM2))),
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

function scored(bed: Prepared, has: Assignment): LayoutScore {
  const { problem, beside, before, wants, heightM, leggy, kind, texture } = bed
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
    if (n[k] === 0) return 0
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

/** Weights of a power diagram are set anew so many times: from nothing, and from those of the layout before, which are nearly right. */
const FIRST_SETTLING = 12
const SETTLING = 2
/** A fixed number of tries by the size of the task, never the clock. */
const TRIES = 1200
const HOT = 0.008
const COLD = 0.0004

/** A layout that has been found. */
export interface Layout {
  assignment: Assignment
  score: LayoutScore
}

/**
 * Lays a bed out: drifts are the parts of a power diagram whose weights give each the ground it takes (Aurenhammer, Hoffmann and
 * Aronov 1998, Algorithmica 20, 61-76), so that each hangs together; where their middles lie is found by annealing from several starts.
 *
 * @param seed the same seed and bed give the same layout
 * @returns yields how far it has come, 0 to 1
 */
export function* layOut(problem: LayoutProblem, seed: number): Generator<number, Layout> {
  const bed = prepared(problem)
  const random = seededRandom(seed)
  const diagram = powerDiagram(bed)
  let best: Layout | undefined
  const keep = (has: Assignment) => {
    const score = scored(bed, has)
    if (!best || score.total < best.score.total) best = { assignment: has.slice(), score }
    return score.total
  }
  if (problem.drifts.length === 0 || problem.cells.length === 0)
    return {
      assignment: new Int16Array(problem.cells.length).fill(-1),
      score: scored(bed, new Int16Array(0)),
    }
  const quick = middlesOf(problem, laidGreedily(problem))
  let sites = quick
  let settled = diagram(sites, new Float64Array(sites.length), FIRST_SETTLING)
  let cost = keep(settled.has)
  const start = Math.max(cost, 1e-6)
  for (let i = 0; i < TRIES; i++) {
    if (i % 100 === 0) yield i / TRIES
    const heat = start * HOT * Math.pow(COLD / HOT, i / TRIES)
    const next = moved(sites, bed, random)
    const then = diagram(next, settled.weight, SETTLING)
    const now = keep(then.has)
    if (now > cost && random() >= Math.exp((cost - now) / heat)) continue
    sites = next
    settled = then
    cost = now
  }
  keep(laidGreedily(problem))
  return best!
}

/** Middles of the drifts of a layout; of those without a cell the middle of the bed. */
function middlesOf({ cells, drifts }: LayoutProblem, has: Assignment): Point[] {
  return drifts.map((_, k) => {
    const own = cells.filter((_, i) => has[i] === k)
    const of = own.length > 0 ? own : cells
    return [sum(of, (c) => c.x) / of.length, sum(of, (c) => c.y) / of.length]
  })
}

/** Two middles change places, or one goes somewhere else, near or far. */
function moved(sites: readonly Point[], { problem: { cells, cellM } }: Prepared, random: Random): Point[] {
  const next = [...sites]
  const i = Math.floor(random() * sites.length)
  const what = random()
  if (what < 0.35 && sites.length > 1) {
    const k = (i + 1 + Math.floor(random() * (sites.length - 1))) % sites.length
    next[i] = sites[k]!
    next[k] = sites[i]!
  } else if (what < 0.5) {
    const { x, y } = cells[Math.floor(random() * cells.length)]!
    next[i] = [x, y]
  } else next[i] = [sites[i]![0] + 4 * cellM * (random() - 0.5), sites[i]![1] + 4 * cellM * (random() - 0.5)]
  return next
}

/** Who has which cell when the middles of the drifts lie so: each the ground it takes, the rest open. */
function powerDiagram({
  problem: { cells, cellM },
  wants,
  x: xs,
  y: ys,
}: Prepared): (
  sites: readonly Point[],
  from: Float64Array,
  rounds: number,
) => { has: Assignment; weight: Float64Array } {
  const open = cells.length - sum(wants)
  // Open ground is shared out among the drifts while they settle, and taken from their rims after.
  const settled = wants.map((want) => want + (Math.max(0, open) * want) / sum(wants))
  return (sites, from, rounds) => {
    const sx = Float64Array.from(sites, (p) => p[0])
    const sy = Float64Array.from(sites, (p) => p[1])
    const weight = from.slice()
    const has = new Int16Array(cells.length)
    const away = new Float64Array(cells.length)
    const n = new Float64Array(sites.length)
    for (let round = 0; round < rounds; round++) {
      n.fill(0)
      for (let c = 0; c < xs.length; c++) {
        const x = xs[c]!
        const y = ys[c]!
        let best = 0
        let least = Infinity
        for (let k = 0; k < sx.length; k++) {
          const dx = x - sx[k]!
          const dy = y - sy[k]!
          const d = dx * dx + dy * dy - weight[k]!
          if (d < least) {
            best = k
            least = d
          }
        }
        has[c] = best
        away[c] = least
        n[best]!++
      }
      // A part that is too small by so many cells wants its radius, and so its weight, larger by about them.
      for (let k = 0; k < sites.length; k++)
        weight[k]! += (0.6 * (settled[k]! - n[k]!) * cellM ** 2) / Math.PI
    }
    const own = sites.map((): number[] => [])
    for (let c = 0; c < has.length; c++) own[has[c]!]!.push(c)
    own.forEach((of, k) => {
      if (of.length <= wants[k]!) return
      of.sort((a, b) => away[b]! - away[a]!)
      for (const c of of.slice(0, of.length - wants[k]!)) has[c] = -1
    })
    return { has, weight }
  }
}

/** One after another, the tallest first, each grown about the deepest spot that it likes best: what a quick hand would do. */
export function laidGreedily(problem: LayoutProblem): Assignment {
  const { cells, drifts } = problem
  const { depth, wants } = prepared(problem)
  const has = new Int16Array(cells.length).fill(-1)
  const tallest = [...drifts.keys()].sort(
    (a, b) => drifts[b]!.taxon.heightM - drifts[a]!.taxon.heightM || a - b,
  )
  for (const k of tallest) {
    const { fit } = drifts[k]!
    const free = [...cells.keys()].filter((c) => has[c] === -1)
    if (free.length === 0) break
    const middle = cells[free.reduce((a, b) => (fit[b]! - fit[a]! || depth[b]! - depth[a]!) > 0 ? b : a)]! // prettier-ignore
    const away = (c: number) => (cells[c]!.x - middle.x) ** 2 + (cells[c]!.y - middle.y) ** 2
    for (const c of free.sort((a, b) => away(a) - away(b) || a - b).slice(0, wants[k])) has[c] = k
  }
  return has
}
