import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { moneyTerms, plantPrices } from './money.ts'

const offer = (item: string, ...packs: [holds: number, price: number][]) => ({
  item,
  packs: packs.map(([holds, price]) => ({ holds, price })),
})

describe('money in a verdict', () => {
  it('is the price of as many again, at the cheapest that is asked; nothing of what nobody has a price for', () => {
    const prices = plantPrices(
      [
        offer('A', [1, 400], [6, 2100]),
        offer('A', [1, 380]),
        offer('B', [1, 900]),
        offer('Compost', [50, 600]),
      ],
      new Set(['A', 'B']),
    )!
    // Six for 21.00 are 3.50 each; of two prices the middle is the dearer.
    expect(prices).toEqual({ each: { A: 350, B: 900 }, usual: 900 })
    const [replace, remove] = moneyTerms('A', 7, prices)
    expect([replace!.action, replace!.points, replace!.says]).toEqual([
      'replace',
      (-0.5 * 7 * 350) / 900,
      '7 new plants would cost about 24.50, at the price of its own kind',
    ])
    expect(remove!.says).toBe('it would cost 24.50 to buy again')
    expect(moneyTerms('C', 7, prices)).toEqual([])
    expect(moneyTerms('A', 7, undefined)).toEqual([])
    expect(plantPrices([offer('Compost', [50, 600])], new Set(['A']))).toBeUndefined()
  })

  it('weighs the same in any currency, more the more plants there are, and never more than eight points', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9000 }),
        fc.integer({ min: 1, max: 500 }),
        fc.integer({ min: 2, max: 150 }),
        (price, count, rate) => {
          const of = (unit: number) => ({ each: { A: price * unit }, usual: 500 * unit })
          const points = (n: number, unit = 1) => moneyTerms('A', n, of(unit))[0]!.points
          expect(points(count, rate)).toBeCloseTo(points(count))
          expect(points(count + 1)).toBeLessThanOrEqual(points(count))
          expect(points(count)).toBeGreaterThanOrEqual(-8)
        },
      ),
    )
  })
})
