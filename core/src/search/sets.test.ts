import fc from 'fast-check'
import loadHighs from 'highs'
import { describe, expect, it } from 'vitest'
import { cheapestSets, cutIntoParts, highsSolver, overtaken, overWorth, type RowSet } from './index.ts'

const solve = highsSolver(await loadHighs())
const EXACTLY = { gap: 0, nodes: 500 }

/** Rows of which the first four are taken once, the other three once at most. */
const rows = { once: 4, all: 7 }
const drawnSets = fc.array(
  fc.record({
    rows: fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { minLength: 1, maxLength: 4 }),
    cost: fc.integer({ min: 1, max: 50 }),
  }),
  { minLength: 6, maxLength: 12 },
)
/** Mostly with one more for each row that has to be taken, so that there is a choice. */
const someSets = fc
  .tuple(drawnSets, fc.integer({ min: 0, max: 9 }))
  .map(([sets, dice]): RowSet[] =>
    dice === 0 ? sets : [...sets, ...[0, 1, 2, 3].map((r) => ({ rows: [r], cost: 25 }))],
  )

/** Every choice of sets in which no row is taken twice. */
function* choicesOf(sets: readonly RowSet[], from = 0, taken: readonly number[] = []): Generator<number[]> {
  yield []
  for (let i = from; i < sets.length; i++) {
    const { rows: next } = sets[i]!
    if (next.some((r) => taken.includes(r))) continue
    for (const rest of choicesOf(sets, i + 1, [...taken, ...next])) yield [i, ...rest]
  }
}

const costOf = (sets: readonly RowSet[], chosen: readonly number[]) =>
  chosen.reduce((sum, i) => sum + sets[i]!.cost, 0)

/** The least by trying every choice; Infinity where none takes all rows that have to be. */
function triedAlone(sets: readonly RowSet[]): number {
  let least = Infinity
  for (const chosen of choicesOf(sets)) {
    const taken = new Set(chosen.flatMap((i) => sets[i]!.rows))
    if (Array.from({ length: rows.once }, (_, r) => r).every((r) => taken.has(r)))
      least = Math.min(least, costOf(sets, chosen))
  }
  return least
}

/** Three rows: any two of them for 2, each by itself for 2.5. */
const triangle: RowSet[] = [
  { rows: [0, 1], cost: 2 },
  { rows: [1, 2], cost: 2 },
  { rows: [0, 2], cost: 2 },
  ...[0, 1, 2].map((r) => ({ rows: [r], cost: 2.5 })),
]

describe('triples of rows', () => {
  it('are taken by half of each pair one and a half times, and by whole sets once', () => {
    const parts = cutIntoParts({ once: 3, all: 3 }, triangle, [], solve, EXACTLY)
    if (!parts) throw new Error('nothing was found')
    // Half of each pair takes every row once, for 3; whole, a pair and the row that is left cost 4.5.
    expect(parts.cost).toBeCloseTo(3)
    expect(overtaken(triangle, parts.share)).toEqual([[0, 1, 2]])
    expect(overtaken(triangle, Float64Array.of(1, 0, 0, 0, 0, 1))).toEqual([])
    const cut = cutIntoParts({ once: 3, all: 3 }, triangle, [[0, 1, 2]], solve, EXACTLY)
    expect(cut!.cost).toBeCloseTo(4.5)
  })

  it('cut off parts of sets, and never a whole choice', () => {
    const shares = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 16, maxLength: 16 })
    fc.assert(
      fc.property(someSets, shares, (sets, share) => {
        for (const triple of overtaken(sets, Float64Array.from(share.slice(0, sets.length))))
          for (const chosen of choicesOf(sets)) {
            const two = chosen.filter((i) => sets[i]!.rows.filter((r) => triple.includes(r)).length >= 2)
            expect(two.length).toBeLessThanOrEqual(1)
          }
      }),
      { numRuns: 60 },
    )
  })
})

describe('the sets that take their rows at the least cost', () => {
  it('are those that trying every choice finds, each row taken as it may be', () => {
    fc.assert(
      fc.property(someSets, (sets) => {
        const least = triedAlone(sets)
        const found = cheapestSets(rows, sets, solve, EXACTLY)
        if (!found) {
          expect(least).toBe(Infinity)
          return
        }
        expect(found.cost).toBeCloseTo(least, 6)
        expect(found.bound).toBeCloseTo(least, 6)
        expect(costOf(sets, found.chosen)).toBeCloseTo(least, 6)
        const taken = found.chosen.flatMap((i) => sets[i]!.rows)
        expect(new Set(taken).size).toBe(taken.length)
        expect([0, 1, 2, 3].every((r) => taken.includes(r))).toBe(true)
      }),
      { numRuns: 150 },
    )
  })

  it('are not looked for further than allowed: what is found then tells how far it may be out', () => {
    fc.assert(
      fc.property(someSets, fc.integer({ min: 1, max: 3 }), fc.constantFrom(0, 0.05), (sets, nodes, gap) => {
        const found = cheapestSets(rows, sets, solve, { gap, nodes })
        if (!found) return
        const least = triedAlone(sets)
        expect(found.bound).toBeLessThanOrEqual(least + 1e-6)
        expect(found.cost).toBeGreaterThanOrEqual(least - 1e-6)
      }),
      { numRuns: 60 },
    )
  })

  it('are never dearer than what is known already, which stands where nothing is better', () => {
    fc.assert(
      fc.property(someSets, (sets) => {
        const best = cheapestSets(rows, sets, solve, EXACTLY)
        if (!best) return
        const again = cheapestSets(rows, sets, solve, EXACTLY, { best, triples: [[0, 1, 2]] })!
        expect(again.cost).toBeCloseTo(best.cost, 6)
        expect(again.bound).toBeCloseTo(best.cost, 6)
      }),
      { numRuns: 40 },
    )
  })

  it('add what they cost over their worth to any choice that holds them', () => {
    fc.assert(
      fc.property(someSets, (sets) => {
        const triples = [[0, 1, 2] as const, [1, 4, 5] as const]
        const parts = cutIntoParts(rows, sets, triples, solve, EXACTLY)
        if (!parts?.isFeasible) return
        const over = overWorth(sets, parts.prices)
        expect(Math.min(...over)).toBeGreaterThan(-1e-6)
        for (const chosen of choicesOf(sets)) {
          const taken = new Set(chosen.flatMap((i) => sets[i]!.rows))
          if (![0, 1, 2, 3].every((r) => taken.has(r))) continue
          const added = chosen.reduce((sum, i) => sum + over[i]!, 0)
          expect(costOf(sets, chosen)).toBeGreaterThanOrEqual(parts.cost + added - 1e-5)
        }
      }),
      { numRuns: 60 },
    )
  })
})
