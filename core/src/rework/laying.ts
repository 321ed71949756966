import type { Point } from '../geometry/index.ts'
import { seededRandom, type Random } from '../random/index.ts'
import {
  prepared,
  scored,
  type Assignment,
  type LayoutProblem,
  type LayoutScore,
  type Prepared,
} from './layout.ts'
import { FIRST_SETTLING, flowed, middlesOf, powerDiagram, SETTLING } from './powerDiagram.ts'

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
  if (bed.loose.length === 0 || problem.cells.length === 0) return keepOpen(bed)
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

/** Where nothing is to be laid out but what runs through the rest. */
function keepOpen(bed: Prepared): Layout {
  const assignment = flowed(bed.held.slice(), bed.matrix)
  return { assignment, score: scored(bed, assignment) }
}

/** Two middles change places, or one goes somewhere else, near or far. */
function moved(
  sites: readonly Point[],
  { problem: { cells, cellM }, loose }: Prepared,
  random: Random,
): Point[] {
  const next = [...sites]
  const at = Math.floor(random() * loose.length)
  const i = loose[at]!
  const what = random()
  if (what < 0.35 && loose.length > 1) {
    const k = loose[(at + 1 + Math.floor(random() * (loose.length - 1))) % loose.length]!
    next[i] = sites[k]!
    next[k] = sites[i]!
  } else if (what < 0.5) {
    const { x, y } = cells[Math.floor(random() * cells.length)]!
    next[i] = [x, y]
  } else next[i] = [sites[i]![0] + 4 * cellM * (random() - 0.5), sites[i]![1] + 4 * cellM * (random() - 0.5)]
  return next
}

/** One after another, the tallest first, each grown about the deepest spot that it likes best: what a quick hand would do. */
export function laidGreedily(problem: LayoutProblem): Assignment {
  const { cells, drifts } = problem
  const { depth, wants, held, loose, matrix } = prepared(problem)
  const has = held.slice()
  const tallest = loose.toSorted((a, b) => drifts[b]!.taxon.heightM - drifts[a]!.taxon.heightM || a - b)
  for (const k of tallest) {
    const { fit } = drifts[k]!
    const free = [...cells.keys()].filter((c) => has[c] === -1)
    if (free.length === 0) break
    const middle = cells[free.reduce((a, b) => (fit[b]! - fit[a]! || depth[b]! - depth[a]!) > 0 ? b : a)]! // prettier-ignore
    const away = (c: number) => (cells[c]!.x - middle.x) ** 2 + (cells[c]!.y - middle.y) ** 2
    for (const c of free.sort((a, b) => away(a) - away(b) || a - b).slice(0, wants[k])) has[c] = k
  }
  return flowed(has, matrix)
}
