import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cheapestCover, shoppingList, type Offer } from './index.ts'

const pot = (price: number) => ({ name: 'pot', holds: 1, price })
const tray = (price: number) => ({ name: 'tray of 6', holds: 6, price })
const offer = (supplier: string, item: string, ...packs: Offer['packs']): Offer => ({
  supplier,
  item,
  packs,
  pricedOn: supplier === 'Hill nursery' ? '2026-03-01' : '2025-09-14',
})

describe('a shopping list', () => {
  const offers = [
    offer('Hill nursery', 'Nepeta × faassenii', pot(400), tray(1800)),
    offer('Marsh nursery', 'Nepeta × faassenii', pot(350)),
    offer('Marsh nursery', 'Astrantia major', pot(500)),
  ]

  it('buys each item where enough of it costs least, by supplier, and names what nobody has a price for', () => {
    // Seven: a tray and a pot are 2200, seven pots elsewhere 2450. Five: 2000 against 1750.
    const list = shoppingList(
      [
        { item: 'Nepeta × faassenii', count: 7, spareShare: 0 },
        { item: 'Astrantia major', count: 3 },
        { item: 'Rodgersia podophylla', count: 2 },
      ],
      offers,
    )
    expect(list.suppliers.map((s) => [s.supplier, s.price])).toEqual([
      ['Hill nursery', 2200],
      ['Marsh nursery', 1500],
    ])
    expect(list.price).toBe(3700)
    expect(list.unpriced).toEqual([{ item: 'Rodgersia podophylla', wanted: 2 }])
    expect(list.oldestPrice).toBe('2025-09-14')
    const five = shoppingList([{ item: 'Nepeta × faassenii', count: 5, spareShare: 0 }], offers)
    expect(five.suppliers[0]).toMatchObject({ supplier: 'Marsh nursery', price: 1750 })
  })

  it('is empty of nothing', () => {
    expect(shoppingList([{ item: 'Astrantia major', count: 0 }], offers)).toEqual({
      suppliers: [],
      unpriced: [],
      price: 0,
      oldestPrice: null,
    })
  })

  it('holds enough of everything, adds up, and costs no more than any one supplier alone', () => {
    const anyOffer = fc
      .tuple(
        fc.constantFrom('A', 'B', 'C'),
        fc.constantFrom('x', 'y', 'z'),
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 900 }),
      )
      .map(([supplier, item, holds, price]) => offer(supplier, item, { name: 'pack', holds, price }))
    const needs = fc.array(
      fc.record({ item: fc.constantFrom('x', 'y', 'z'), count: fc.integer({ min: 1, max: 30 }) }),
      { minLength: 1, maxLength: 3 },
    )
    fc.assert(
      fc.property(needs, fc.array(anyOffer, { maxLength: 8 }), (wanted, of) => {
        const list = shoppingList(wanted, of)
        const lines = list.suppliers.flatMap((s) => s.lines)
        expect(lines.length + list.unpriced.length).toBe(wanted.length)
        for (const l of lines) expect(l.cover.holds).toBeGreaterThanOrEqual(l.wanted)
        expect(lines.reduce((sum, l) => sum + l.cover.price, 0)).toBe(list.price)
        for (const l of lines)
          for (const o of of.filter((o) => o.item === l.item))
            expect(l.cover.price).toBeLessThanOrEqual(cheapestCover(l.wanted, o.packs)!.price)
      }),
    )
  })
})
