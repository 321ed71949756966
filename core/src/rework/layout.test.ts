import loadHighs from 'highs'
import { describe, expect, it } from 'vitest'
import { simulatedLayout } from '../../simulated/index.ts'
import { groundM2 } from '../plants/index.ts'
import { highsSolver, Milp, type MilpTerm } from '../search/index.ts'
import {
  HEIGHT_SLACK_M,
  laidGreedily,
  layOut,
  layoutScore,
  layoutWeights,
  offsetsFrom,
  positionsOf,
  type Assignment,
  type Layout,
  type LayoutProblem,
} from './index.ts'

const solve = highsSolver(await loadHighs())

function laid(problem: LayoutProblem, seed = 1): Layout {
  const run = layOut(problem, seed)
  let step = run.next()
  let before = 0
  while (!step.done) {
    expect(step.value).toBeGreaterThanOrEqual(before)
    before = step.value
    step = run.next()
  }
  return step.value
}

const cellsOf = (has: Assignment, k: number) => [...has.keys()].filter((i) => has[i] === k)

/** Two kinds on a strip of four rows: seen from below, the first row is the front. */
function strip(tallInFront: boolean): { problem: LayoutProblem; has: Assignment } {
  const cells = Array.from({ length: 16 }, (_, i) => ({ x: i % 4, y: Math.floor(i / 4) }))
  const kind = (botanical: string, heightM: number, texture: 'fine' | 'bold') => ({
    botanical,
    heightM,
    texture,
    spacingM: 1,
    habit: 'clump' as const,
    lifeForm: 'perennial' as const,
  })
  const drift = (id: string, taxon: ReturnType<typeof kind>) => ({
    id,
    taxon,
    count: 8,
    areaM2: 8,
    fit: new Float32Array(16).fill(1),
  })
  const problem = {
    cells,
    cellM: 1,
    viewedFrom: [180],
    drifts: [drift('tall', kind('A', 1.5, 'fine')), drift('low', kind('B', 0.5, 'bold'))],
  }
  return { problem, has: Int16Array.from(cells, (c) => (c.y < 2 === tallInFront ? 0 : 1)) }
}

describe('what a layout lacks', () => {
  it('is nothing of heights where they step down to the viewer; and four metres’ width of one metre less the slack where not', () => {
    const right = strip(false)
    expect(layoutScore(right.problem, right.has).heights).toBe(0)
    const wrong = strip(true)
    // Four cells of low plants behind ones a metre taller.
    expect(layoutScore(wrong.problem, wrong.has).heights).toBeCloseTo(
      layoutWeights.heights * 4 * (1 - HEIGHT_SLACK_M),
    )
    // From above it is the other way round.
    expect(layoutScore({ ...wrong.problem, viewedFrom: [0] }, wrong.has).heights).toBe(0)
  })

  it('is what a place lacks of a drift’s light, and the ground that a drift does not have', () => {
    const { problem, has } = strip(false)
    const shaded = {
      ...problem,
      drifts: problem.drifts.map((d) => ({ ...d, fit: new Float32Array(16).fill(0.5) })),
    }
    expect(layoutScore(shaded, has).light).toBeCloseTo(layoutWeights.light * 16 * 0.5)
    const half = has.map((k, i) => (k === 0 && i % 2 === 0 ? -1 : k))
    expect(layoutScore(problem, half).room).toBeCloseTo(layoutWeights.room * 4)
  })
})

/** The least light that drifts of these sizes must lack, wherever their cells lie: a transport problem, solved by linear programming. */
function leastLightOf({ cells, cellM, drifts }: LayoutProblem, has: Assignment): number {
  const milp = new Milp()
  const ofCell = cells.map((): MilpTerm[] => [])
  drifts.forEach((d, k) => {
    const terms = cells.map((_, i): MilpTerm => [milp.amount((1 - d.fit[i]!) * cellM ** 2), 1])
    terms.forEach((t, i) => ofCell[i]!.push(t))
    const count = cellsOf(has, k).length
    milp.row(terms, count, count)
  })
  for (const terms of ofCell) milp.row(terms, 0, 1)
  const found = solve(milp, { gap: 0, nodes: 1 })
  if (!found.ok) throw new Error(found.why)
  return found.cost
}

describe('a bed laid out', () => {
  const seeds = [31, 32, 33]
  const beds = seeds.map((seed) => ({ seed, problem: simulatedLayout(seed, 30, 10) }))

  it.each(beds)(
    '$seed: every drift has its ground, hangs together, stands in its light, steps down, and beats a quick hand',
    ({ problem }) => {
      const { assignment, score } = laid(problem)
      const greedy = layoutScore(problem, laidGreedily(problem))
      expect(score.total).toBeLessThanOrEqual(0.85 * greedy.total)
      expect(layoutScore(problem, assignment)).toEqual(score)
      const groundM2InAll = problem.cells.length * problem.cellM ** 2
      problem.drifts.forEach((d, k) => {
        const own = cellsOf(assignment, k)
        expect(Math.abs(own.length * problem.cellM ** 2 - d.areaM2)).toBeLessThan(
          0.15 * d.areaM2 + 2 * problem.cellM ** 2,
        )
        expect(piecesOf(problem, own)).toBe(1)
      })
      // Less than one in twelve of the ground is more out of its light than it must be, or stands before what is lower.
      const leastLight = leastLightOf(problem, assignment)
      expect(score.light / layoutWeights.light).toBeGreaterThanOrEqual(leastLight - 1e-6)
      expect(score.light / layoutWeights.light).toBeLessThan(leastLight + groundM2InAll / 12)
      expect(score.heights / layoutWeights.heights).toBeLessThan(groundM2InAll / 12)
    },
  )

  it('is the same for the same seed', () => {
    const { problem } = beds[0]!
    expect(laid(problem, 7).assignment).toEqual(laid(problem, 7).assignment)
  })

  it('is nothing of nothing', () => {
    const { problem } = beds[0]!
    expect([...laid({ ...problem, drifts: [] }).assignment].every((k) => k === -1)).toBe(true)
    expect(laid({ ...problem, cells: [], drifts: [] }).assignment).toHaveLength(0)
  })

  it('has a place for every plant, on the ground of its drift, no two nearer than six tenths of their spacing', () => {
    const { problem } = beds[1]!
    const { assignment } = laid(problem)
    const plants = positionsOf(problem, assignment)
    expect(plants).toHaveLength(problem.drifts.reduce((sum, d) => sum + d.count, 0))
    const { cellM } = problem
    problem.drifts.forEach((d, k) => {
      const own = plants.filter((p) => p.driftId === d.id)
      expect(own).toHaveLength(d.count)
      const ground = cellsOf(assignment, k).map((i) => problem.cells[i]!)
      own.forEach((p, i) => {
        const nearest = Math.min(...ground.map((c) => Math.hypot(c.x - p.x, c.y - p.y)))
        expect(nearest).toBeLessThan(cellM)
        for (const other of own.slice(0, i))
          expect(Math.hypot(other.x - p.x, other.y - p.y)).toBeGreaterThan(0.6 * d.taxon.spacingM)
      })
      expect(d.areaM2).toBeCloseTo(groundM2(d.count, d.taxon.spacingM))
    })
  })
})

/** How many pieces cells lie in, touching by a side or a corner. */
function piecesOf({ cells, cellM }: LayoutProblem, own: readonly number[]): number {
  const reach = 1.5 * cellM
  const left = new Set(own)
  let pieces = 0
  while (left.size > 0) {
    pieces++
    const queue = [[...left][0]!]
    left.delete(queue[0]!)
    for (let i = 0; i < queue.length; i++)
      for (const o of left)
        if (Math.hypot(cells[o]!.x - cells[queue[i]!]!.x, cells[o]!.y - cells[queue[i]!]!.y) < reach) {
          left.delete(o)
          queue.push(o)
        }
  }
  return pieces
}

describe('an offsets table', () => {
  it('tells how far along a line and how far to its left each plant stands, in the order of the tape', () => {
    const plants = [
      { driftId: 'a', x: 4, y: 3 },
      { driftId: 'b', x: 1, y: 0 },
    ]
    // From (1, 1) along y = x: (4, 3) is 5/√2 along and 1/√2 to the right; (1, 0) is 1/√2 back and as far to the right.
    expect(offsetsFrom(plants, [1, 1], [3, 3])).toEqual([
      {
        driftId: 'b',
        x: 1,
        y: 0,
        number: 1,
        alongM: expect.closeTo(-Math.SQRT1_2),
        offM: expect.closeTo(-Math.SQRT1_2),
      },
      {
        driftId: 'a',
        x: 4,
        y: 3,
        number: 2,
        alongM: expect.closeTo(5 * Math.SQRT1_2),
        offM: expect.closeTo(-Math.SQRT1_2),
      },
    ])
  })
})
