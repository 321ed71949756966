import { describe, expect, it } from 'vitest'
import { taxonNamed } from '../garden/test/made.ts'
import { groundM2 } from '../plants/index.ts'
import { materialNames, sizeAt, totalsOf, type Reckoned } from './index.ts'

const helenium = taxonNamed('Helenium autumnale')
const geranium = taxonNamed('Geranium macrorrhizum')
const snowdrop = taxonNamed('Galanthus nivalis')
const ground = (taxon: typeof helenium, count: number) => groundM2(count, taxon.spacingM)

const pot = (item: string, price: number, holds = 1) => ({
  supplier: 'Nursery',
  item,
  packs: [{ name: 'pot', holds, price }],
  pricedOn: '2026-03-01',
})
const scheme: Reckoned = {
  comes: [
    { taxon: helenium, count: 15, have: 5 },
    { taxon: geranium, count: 9, have: 9 },
    { taxon: snowdrop, count: 50, have: 0 },
  ],
  goes: [
    { taxon: helenium, count: 3, what: 'divided' },
    { taxon: geranium, count: 4, what: 'gone' },
    { taxon: geranium, count: 2, what: 'bench' },
  ],
  plantedM2: 5,
  bedM2: 8,
  compostM: 0.04,
  mulchM: 0.05,
  offers: [pot(helenium.botanical, 400), pot(materialNames.compost, 600, 50), pot(materialNames.filler, 90)],
}
const totals = totalsOf(scheme)

describe('what a scheme takes', () => {
  it('counts what is bought apart from what one has, with spare ones, by hand', () => {
    expect(totals.plants).toBe(74)
    // 10 heleniums and 50 snowdrops.
    expect(totals.bought).toBe(60)
    // A twentieth of 10 rounds to 1 (0.5): 11 at 4.00; 4 bags of 50 l for 200 l at 6.00.
    expect(totals.shopping.suppliers[0]!.lines.map((l) => [l.item, l.wanted, l.cover.price])).toEqual([
      [materialNames.compost, 200, 2400],
      [helenium.botanical, 11, 4400],
    ])
    // Snowdrops 50 and a twentieth of them, 53 rounded; 250 litres of mulch.
    expect(totals.shopping.unpriced).toEqual([
      { item: snowdrop.botanical, wanted: 53 },
      { item: materialNames.mulch, wanted: 250 },
    ])
  })

  it('tells layers in litres and barrows, and hours by operation', () => {
    // 5 m² by 4 and 5 cm: 200 and 250 litres; barrows of 85.
    expect(totals.layers.map((l) => [l.item, l.litres, l.barrows])).toEqual([
      [materialNames.compost, 200, 3],
      [materialNames.mulch, 250, 3],
    ])
    // 2 lifted at 8; 3 divided at 10; 4 cleared at 4; 5 m² at 20; 24 planted at 5 and 50 bulbs at 1; 6 barrows at 6: to five minutes.
    expect(totals.work.map((w) => [w.operation, w.minutes])).toEqual([
      ['lift', 15],
      ['divide', 30],
      ['clear', 15],
      ['prepare', 100],
      ['plant', 170],
      ['mulch', 35],
    ])
    expect(totals.minutes).toBe(365)
  })

  it('tells three years: gaps that close as plants grow, and the first division', () => {
    const open = (years: number) =>
      [scheme.comes[0]!, scheme.comes[1]!].reduce(
        (m2, { taxon, count }) =>
          m2 +
          ground(taxon, count) -
          Math.min(ground(taxon, count), count * Math.PI * (sizeAt(taxon, years).spreadM / 2) ** 2),
        0,
      )
    totals.years.forEach((y, i) => expect(y.openM2).toBeCloseTo(open(i + 1)))
    expect(totals.years[0]!.openM2).toBeGreaterThan(totals.years[1]!.openM2)
    expect(totals.years[0]!.price).toBe(6800 + 90 * totals.years[0]!.fillers)
    expect(totals.price).toBe(totals.years.reduce((sum, y) => sum + y.price, 0))
    const third = totals.years[2]!.divides
    expect(third.includes(helenium.botanical)).toBe(helenium.divideYears![0] === 3)
    const paid = totalsOf({ ...scheme, hourPrice: 3000 })
    expect(paid.years[0]!.price - totals.years[0]!.price).toBe(
      Math.round((3000 * paid.years[0]!.minutes) / 60),
    )
  })
})
