import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seededRandom, type Random } from '../random/index.ts'
import { ruinAndRecreate, type Progress, type Rebuilt } from './ruinAndRecreate.ts'

/** Weights to share out over bins as evenly as may be: the cost is the sum of the squares of the loads. */
class Bins implements Rebuilt<number[]> {
  readonly where: number[]
  private readonly before = new Map<number, number>()
  constructor(
    readonly weights: readonly number[],
    private readonly bins: number,
  ) {
    this.where = weights.map(() => 0)
  }
  loads(where: readonly number[] = this.where): number[] {
    const loads = Array.from({ length: this.bins }, () => 0)
    where.forEach((bin, i) => bin >= 0 && (loads[bin]! += this.weights[i]!))
    return loads
  }
  cost = (): number => this.loads().reduce((sum, load) => sum + load * load, 0)
  choose = (random: Random): number[] => {
    const first = Math.floor(random() * this.weights.length)
    return [...new Set([first, (first + 1 + Math.floor(random() * 3)) % this.weights.length])]
  }
  ruin = (pieces: readonly number[]): void =>
    pieces.forEach((i) => {
      this.before.set(i, this.where[i]!)
      this.where[i] = -1
    })
  recreate = (pieces: readonly number[], random: Random): void =>
    pieces.forEach((i) => {
      const loads = this.loads()
      const least = loads.indexOf(Math.min(...loads))
      this.where[i] = random() < 0.8 ? least : Math.floor(random() * this.bins)
    })
  undo = (pieces: readonly number[]): void => pieces.forEach((i) => (this.where[i] = this.before.get(i)!))
  keep = (): number[] => [...this.where]
}

const annealing = { hot: 20, cold: 0.1, cycles: 2 }
function run(solution: Bins, iterations: number, seed: number, told: Progress[] = []) {
  const steps = ruinAndRecreate(solution, annealing, iterations, seededRandom(seed))
  let step = steps.next()
  for (; !step.done; step = steps.next()) told.push(step.value)
  return step.value
}

/** The least cost there is, by trying every way. */
function least(weights: readonly number[], bins: number): number {
  let best = Infinity
  const all = new Bins(weights, bins)
  for (let code = 0; code < bins ** weights.length; code++) {
    let rest = code
    weights.forEach((_, i) => {
      all.where[i] = rest % bins
      rest = Math.floor(rest / bins)
    })
    best = Math.min(best, all.cost())
  }
  return best
}

const someWeights = fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 3, maxLength: 7 })

describe('ruin and recreate', () => {
  it('finds the best there is of what is small enough to try every way', () => {
    fc.assert(
      fc.property(someWeights, fc.integer({ min: 1, max: 1e6 }), (weights, seed) => {
        expect(run(new Bins(weights, 3), 1500, seed).cost).toBe(least(weights, 3))
      }),
      { numRuns: 40 },
    )
  })

  it('returns what it says it costs, never more than what it began with', () => {
    fc.assert(
      fc.property(someWeights, fc.nat(60), fc.integer({ min: 1, max: 1e6 }), (weights, iterations, seed) => {
        const bins = new Bins(weights, 3)
        const first = bins.cost()
        const { kept, cost } = run(bins, iterations, seed)
        expect(bins.loads(kept).reduce((sum, load) => sum + load * load, 0)).toBe(cost)
        expect(cost).toBeLessThanOrEqual(first)
      }),
    )
  })

  it('is the same for the same seed, and what it kept stays as it was found', () => {
    const weights = [5, 4, 4, 3, 3, 3, 2, 2, 1]
    const once = run(new Bins(weights, 4), 700, 11)
    expect(run(new Bins(weights, 4), 700, 11)).toEqual(once)
    const costs = [1, 2, 3, 4, 5].map((seed) => run(new Bins(weights, 4), 4, seed).cost)
    expect(new Set(costs).size).toBeGreaterThan(1)
  })

  it('tells how far it is, of how much, and the least so far, which only falls', () => {
    const told: Progress[] = []
    const { cost } = run(new Bins([7, 6, 5, 5, 4, 4, 3, 2, 2, 1], 3), 2600, 5, told)
    expect(told.map((t) => [t.done, t.of])).toEqual([0, 500, 1000, 1500, 2000, 2500].map((d) => [d, 2600]))
    for (let i = 1; i < told.length; i++) expect(told[i]!.cost).toBeLessThanOrEqual(told[i - 1]!.cost)
    expect(cost).toBeLessThanOrEqual(told.at(-1)!.cost)
  })

  it('that has no rounds to spend hands back what it was given', () => {
    const bins = new Bins([3, 2, 2], 2)
    expect(run(bins, 0, 1)).toEqual({ kept: [0, 0, 0], cost: 49 })
  })
})
