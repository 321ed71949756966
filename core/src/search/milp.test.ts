import fc from 'fast-check'
import loadHighs from 'highs'
import { describe, expect, it } from 'vitest'
import { highsSolver, Milp } from './index.ts'

const solve = highsSolver(await loadHighs())
const exactly = { gap: 0, nodes: 10_000 }

/** What of so many things is carried for the most worth, each once, under a weight. */
function knapsack(worth: readonly number[], weight: readonly number[], most: number): Milp {
  const milp = new Milp()
  const taken = worth.map((w) => milp.binary(-w))
  milp.row(
    taken.map((v, i) => [v, weight[i]!]),
    -Infinity,
    most,
  )
  return milp
}

describe('a mixed-integer programme', () => {
  it('solves the knapsack of ten things whose answer is published: 309 under 165', () => {
    // Problem P01 of the Florida State University collection of 0/1 knapsacks.
    const weights = [23, 31, 29, 44, 53, 38, 63, 85, 89, 82]
    const worth = [92, 57, 49, 68, 60, 43, 67, 84, 87, 72]
    const found = solve(knapsack(worth, weights, 165), exactly)
    expect(found).toMatchObject({ ok: true, cost: -309, bound: -309, gap: 0 })
    expect(found.ok && [...found.values]).toEqual([1, 1, 1, 1, 0, 1, 0, 0, 0, 0])
  })

  it('finds what trying every choice finds, and no less than it says may be had', () => {
    const things = fc.array(fc.tuple(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 30 })), {
      minLength: 1,
      maxLength: 9,
    })
    fc.assert(
      fc.property(things, fc.integer({ min: 0, max: 120 }), (of, most) => {
        let best = 0
        for (let choice = 0; choice < 1 << of.length; choice++) {
          const taken = of.filter((_, i) => choice & (1 << i))
          const [worth, weight] = [0, 1].map((k) => taken.reduce((sum, t) => sum + t[k]!, 0))
          if (weight! <= most) best = Math.max(best, worth!)
        }
        const milp = knapsack(
          of.map((t) => t[0]),
          of.map((t) => t[1]),
          most,
        )
        const found = solve(milp, exactly)
        expect(found.ok && -found.cost).toBeCloseTo(best)
        expect(found.ok && found.bound <= found.cost + 1e-6).toBe(true)
      }),
      { numRuns: 40 },
    )
  })

  it('says that nothing keeps to rows that contradict each other, and takes amounts as well as choices', () => {
    const milp = new Milp()
    const [yes, some] = [milp.binary(1), milp.amount(2, 5)]
    milp.row(
      [
        [yes, 1],
        [some, 1],
      ],
      3.5,
      Infinity,
    )
    expect(solve(milp, exactly)).toMatchObject({ ok: true, cost: 6 })
    milp.row([[some, 1]], -Infinity, 2)
    expect(solve(milp, exactly)).toEqual({ ok: false, why: 'infeasible' })
  })
})
