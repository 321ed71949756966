import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { taxonNamed } from '../garden/test/made.ts'
import { library } from '../plants/index.ts'
import {
  barrowLoads,
  bulbClumps,
  bulbSetting,
  bulbsSet,
  cheapestCover,
  dripFor,
  feedings,
  holeLitres,
  layerLitres,
  mixLitres,
  withSpare,
  type Pack,
} from './index.ts'

const pack = (name: string, holds: number, price: number): Pack => ({ name, holds, price })
const numbersOf = (need: number, sold: Pack[]) =>
  Object.fromEntries(cheapestCover(need, sold)!.packs.map((p) => [p.pack.name, p.number]))

/** The least price by trying every number of every pack. */
function triedAlone(need: number, sold: readonly Pack[]): number {
  const [first, ...rest] = sold
  if (!first) return need <= 0 ? 0 : Infinity
  let least = Infinity
  for (let n = 0; n <= Math.ceil(Math.max(0, need) / first.holds); n++)
    least = Math.min(least, n * first.price + triedAlone(need - n * first.holds, rest))
  return least
}

describe('plants by the packs they are sold in', () => {
  const sold = [pack('pot', 1, 250), pack('tray of 6', 6, 1200), pack('tray of 12', 12, 2000)]

  it('of seventeen a tray of twelve and one of six are cheaper than twelve and five pots', () => {
    // 2000 + 1200 = 3200 for eighteen; 2000 + 5 x 250 = 3250 for seventeen.
    expect(cheapestCover(17, sold)).toMatchObject({ holds: 18, price: 3200 })
    expect(numbersOf(17, sold)).toEqual({ 'tray of 12': 1, 'tray of 6': 1 })
    // Of sixteen the pots are: 2000 + 4 x 250 = 3000.
    expect(cheapestCover(16, sold)).toMatchObject({ holds: 16, price: 3000 })
  })

  it('costs no more than any other choice, holds enough, and nothing of it could stay in the shop', () => {
    const packs = fc
      .array(fc.tuple(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 900 })), {
        minLength: 1,
        maxLength: 4,
      })
      .map((of) => of.map(([holds, price], i) => pack(`${i}`, holds, price)))
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), packs, (need, of) => {
        const cover = cheapestCover(need, of)!
        expect(cover.price).toBe(triedAlone(need, of))
        expect(cover.holds).toBeGreaterThanOrEqual(need)
        expect(cover.packs.reduce((sum, p) => sum + p.number * p.pack.holds, 0)).toBe(cover.holds)
        expect(cover.packs.reduce((sum, p) => sum + p.number * p.pack.price, 0)).toBe(cover.price)
        for (const { pack: p } of cover.packs) expect(cover.holds - p.holds).toBeLessThan(need)
      }),
      { numRuns: 200 },
    )
  })

  it('is nothing of nothing, and not to be had where nothing is sold', () => {
    expect(cheapestCover(0, sold)).toEqual({ packs: [], holds: 0, price: 0 })
    expect(cheapestCover(3, [])).toBeUndefined()
    expect(cheapestCover(3, [pack('empty', 0, 1)])).toBeUndefined()
  })

  it('has a spare plant for every twenty, and none for a handful', () => {
    expect([5, 20, 100].map((n) => withSpare(n))).toEqual([5, 21, 105])
  })
})

describe('what goes by volume', () => {
  it('mulches twelve square metres seven centimetres deep with 840 litres: ten barrows', () => {
    expect(layerLitres(12, 0.07)).toBeCloseTo(840)
    expect(barrowLoads(840)).toBe(10)
    expect(barrowLoads(850)).toBe(10)
    // Gravel of 1.6 kg a litre is too heavy for a full barrow: 62.5 litres a load.
    expect(barrowLoads(850, 1.6)).toBe(14)
    expect(barrowLoads(0)).toBe(0)
  })

  it('mixes ninety litres of two parts and one from sixty-seven and thirty-three, for they settle into each other', () => {
    const mixed = mixLitres(90, [
      { name: 'loam', parts: 2 },
      { name: 'grit', parts: 1 },
      { name: 'bark', parts: 0 },
    ])
    expect(mixed).toEqual([
      { name: 'loam', litres: expect.closeTo(66.67, 2) },
      { name: 'grit', litres: expect.closeTo(33.33, 2) },
    ])
    expect(mixLitres(90, [{ name: 'compost', parts: 3 }])).toEqual([{ name: 'compost', litres: 90 }])
    expect(mixLitres(90, [])).toEqual([])
  })

  it('digs a ball of twenty centimetres a hole half a metre wide: 39 litres, three of them 118', () => {
    expect(holeLitres(1, 0.2)).toBeCloseTo(39.27, 2)
    expect(holeLitres(3, 0.2)).toBeCloseTo(117.81, 2)
  })

  it('sets a bulb five centimetres tall twenty deep in light soil, fifteen in heavy, and closer in a pot', () => {
    // Three times its height of soil above it, or two, and itself.
    expect(bulbSetting(0.05, 0.04, 'light soil')).toEqual({ depthM: 0.2, spacingM: 0.12 })
    expect(bulbSetting(0.05, 0.04, 'heavy soil').depthM).toBeCloseTo(0.15)
    expect(bulbSetting(0.05, 0.04, 'pot').spacingM).toBeLessThan(0.06)
  })

  it.each([
    // As gardeners set them, from the surface to the bottom of the bulb, centimetres.
    ['Tulipa Garden group', 15, 20],
    ['Crocus tommasinianus', 7, 10],
    ['Narcissus Garden group', 15, 20],
    ['Fritillaria imperialis', 20, 28],
    ['Galanthus nivalis', 8, 12],
    ['Hyacinthus orientalis', 13, 20],
    ['Lilium regale', 15, 25],
    ['Cyclamen hederifolium', 3, 6],
    ['Nerine bowdenii', 6, 10],
  ])('sets %s as deep as gardeners do, between %i and %i cm', (botanical, least, most) => {
    for (const texture of ['clay', 'loam', 'sand', undefined] as const) {
      const { depthM } = bulbsSet(taxonNamed(botanical), texture)!
      expect(100 * depthM).toBeGreaterThanOrEqual(least - 1e-9)
      expect(100 * depthM).toBeLessThanOrEqual(most + 1e-9)
    }
  })

  it('knows every bulb of the library, sets none shallower in sand, and says nothing of what is none', () => {
    const bulbs = library.filter((t) => t.lifeForm === 'bulb')
    expect(bulbs.filter((t) => !bulbsSet(t, 'loam')).map((t) => t.botanical)).toEqual([])
    for (const t of bulbs)
      expect(bulbsSet(t, 'sand')!.depthM).toBeGreaterThanOrEqual(bulbsSet(t, 'clay')!.depthM)
    expect(bulbsSet(taxonNamed('Hosta sieboldiana'), 'loam')).toBeUndefined()
    expect(bulbsSet({ botanical: 'Unheardof bulbosa', lifeForm: 'bulb' }, 'loam')).toBeUndefined()
  })

  it('counts clumps of bulbs as plants of a drift: ten square metres at a metre hold eleven', () => {
    // 10 / 0.866 = 11.5
    expect(bulbClumps(10, 7, 1)).toEqual({ clumps: 11, bulbs: 77 })
    expect(bulbClumps(0.2, 5, 1)).toEqual({ clumps: 1, bulbs: 5 })
    expect(bulbClumps(0, 5, 1)).toEqual({ clumps: 0, bulbs: 0 })
  })
})

describe('a drip line', () => {
  const line = { lineSpacingM: 0.3, emitterSpacingM: 0.3, emitterLitresPerHour: 2 }

  it('of ten square metres is 33 m with 111 emitters; twenty millimetres take an hour', () => {
    const drip = dripFor(10, line, 20)
    expect(drip.lineM).toBeCloseTo(33.33, 2)
    expect(drip.emitters).toBe(111)
    expect(drip.litresPerHour).toBe(222)
    expect(drip.mmPerHour).toBeCloseTo(22.2)
    // 20 / 0.9 / 22.2 of an hour.
    expect(drip.minutes).toBeCloseTo(60.06, 2)
    expect(drip.turns).toBe(1)
  })

  it('runs in turns where the tap gives less, and not at all where there is no ground', () => {
    expect(dripFor(10, line, 20, 100).turns).toBe(3)
    expect(dripFor(0, line, 20)).toMatchObject({ emitters: 0, minutes: 0, turns: 1 })
  })
})

describe('a feed', () => {
  const feed = { name: 'slow release', gramsPerM2: 60, lifeDays: 90 }

  it('that lasts three months is given twice from April to the end of September, by area', () => {
    expect(feedings(feed, 5, '2026-04-01', '2026-09-30')).toEqual({
      on: ['2026-04-01', '2026-06-30'],
      gramsEach: 300,
      gramsInAll: 600,
    })
  })

  it('is never given so late that most of it would feed after growth should harden, nor when the season is over', () => {
    expect(feedings(feed, 5, '2026-08-20', '2026-09-30').on).toEqual([])
    expect(feedings(feed, 5, '2026-08-10', '2026-09-30').on).toEqual(['2026-08-10'])
    expect(feedings({ ...feed, lifeDays: 0 }, 5, '2026-10-01', '2026-09-30').on).toEqual([])
    expect(feedings({ ...feed, lifeDays: 0 }, 5, '2026-04-01', '2026-09-30').on).toEqual(['2026-04-01'])
  })
})
