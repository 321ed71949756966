import { gardenEndpoints, reworkEndpoints, type OfferView, type SaidScheme } from '@border/contract'
import {
  driftOutlines,
  library,
  placesOn,
  plantingCsv,
  plantingTable,
  plantsOf,
  pricedItems,
  reckonScheme,
  shoppingCsv,
  sidesOf,
  unarranged,
  withDrawn,
} from '@border/core'
import { describe, expect, it } from 'vitest'
import { answerTo, today } from '../test/server.ts'
import { bedGround, newScheme, usualWishes, withKind } from './schemeDraft.ts'

const view = answerTo(gardenEndpoints.read)
const named = (botanical: string) => library.find((t) => t.botanical === botanical)!
const kindOf = new Map(library.map((t) => [t.botanical, t]))
const helenium = named('Helenium autumnale')
const offer: OfferView = {
  id: crypto.randomUUID(),
  supplier: 'Nursery, "best"',
  item: helenium.botanical,
  packs: [
    { name: 'pot', holds: 1, price: 400 },
    { name: 'tray of 6', holds: 6, price: 2100 },
  ],
  pricedOn: '2026-02-03',
}
const scheme = {
  ...withKind(
    withKind(newScheme('A', usualWishes('odd', 2)), helenium, 20, 'library'),
    named('Nepeta × faassenii'),
    5,
    'bench',
  ),
  spareShare: 0,
  mulchM: 0,
}
const reckonedWith = {
  plantings: view.plantings,
  relocated: undefined,
  offers: [offer],
  bedM2: 10,
  staysM2: 4,
  feedingSeason: ['2026-03-15', '2026-08-15'] as const,
  inHand: [{ botanical: 'Nepeta × faassenii', from: 'bench' as const, count: 3 }],
}
const totals = reckonScheme(scheme, kindOf, reckonedWith)

describe('what a scheme takes', () => {
  it('is what it buys, by the packs that are cheapest, for the ground that is planted', () => {
    // Of five catmints three are on the bench, whatever is said of where they come from.
    expect(totals.bought).toBe(22)
    // Three trays and two pots: 63.00 and 8.00.
    expect(shoppingCsv(totals).split('\r\n')).toEqual([
      'supplier,item,wanted,packs,holds,price,priced_on',
      '"Nursery, ""best""",Helenium autumnale,20,3 tray of 6 + 2 pot,20,71.00,2026-02-03',
      ',Nepeta × faassenii,2,,,,',
      ',Compost,180,,,,',
      '',
    ])
    expect(pricedItems(totals, undefined)).toContain('Compost')
  })

  it('has what moves, feeds and waters the soil on its list, and the stones, in whole kilograms, metres and stones', () => {
    const wanted = (more: Partial<SaidScheme>) => {
      const { shopping } = reckonScheme({ ...scheme, compostM: 0, ...more }, kindOf, reckonedWith)
      return Object.fromEntries(
        shopping.unpriced
          .filter((u) => !/ /.test(u.item) || /Slow|Drip|Step|Alum/.test(u.item))
          .map((u) => [u.item, u.wanted]),
      )
    }
    expect(wanted({})).toEqual({})
    // Six square metres: 153 days of growth hold two givings of ninety days, 2 × 6 × 90 g.
    expect(wanted({ feed: { gramsPerM2: 90, lifeDays: 90 } })).toEqual({ 'Slow feed': 2 })
    // Lines half a metre apart.
    const drip = {
      lineSpacingM: 0.5,
      emitterSpacingM: 0.3,
      emitterLitresPerHour: 2,
      mm: 10,
      tapLitresPerHour: null,
    }
    expect(wanted({ drip })).toEqual({ 'Drip line': 12 })
    expect(
      wanted({
        stones: [
          [1, 1],
          [2, 2],
        ],
      }),
    ).toEqual({ 'Stepping stones': 2 })
    // Loam down by one takes some 110 g of sulphur a square metre, and six times as much aluminium sulphate.
    const reaction = { now: 7, to: 6, texture: 'loam' as const, by: 'sulphur' as const }
    expect(wanted({ reaction })).toEqual({ Sulphur: 1 })
    expect(wanted({ reaction: { ...reaction, by: 'aluminium sulphate' } })).toEqual({
      'Aluminium sulphate': 4,
    })
    // Where it is there already, nothing.
    expect(wanted({ reaction: { ...reaction, to: 7 } })).toEqual({})
  })

  it('is by where things go: as decided, else as found, else moved; and nothing of what stays', () => {
    const [a, b] = view.plantings as [(typeof view.plantings)[0], (typeof view.plantings)[0]]
    const leaving = (id: string, to: (typeof scheme)['leaving'][number]['to']) => ({
      plantingId: id,
      how: 'leaves' as const,
      to,
      worth: 1,
    })
    const work = (list: (typeof scheme)['leaving']) =>
      reckonScheme({ ...scheme, leaving: list }, kindOf, reckonedWith).work.map((w) => w.operation)
    const before = work([])
    expect(work([leaving(a.id, { to: 'gone' })])).toEqual(['clear', ...before])
    expect(work([leaving(a.id, null), leaving(b.id, { to: 'gone' })])).toEqual(['lift', 'clear', ...before])
    expect(work([leaving(a.id, { to: 'stay' })])).toEqual(before)
  })
})

describe('where plants are set', () => {
  const ground = answerTo(reworkEndpoints.ground)
  const place = placesOn(view.features, today).find((p) => p.id === ground.placeId)!
  const bed = bedGround(place, ground, [180], [])
  const ys = ground.stations.map((s) => s.y)
  const xs = ground.stations.map((s) => s.x)
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)]
  const ring = [
    [x0 + 1, y0 - 1],
    [x0 + 4, y0 - 1],
    [x0 + 4, y0 + 9],
    [x0 + 1, y0 + 9],
  ] as const
  const arranged = withDrawn(bed, unarranged(bed, []), { id: 'd', taxon: helenium, count: 1 }, ring)

  it('is measured along the side and off it, as a tape would find it', () => {
    const plants = plantsOf(bed, arranged)
    const [side] = sidesOf([
      [0, 0],
      [12, 5],
      [0, 5],
    ])
    expect(side!.lengthM).toBe(13)
    const rows = plantingTable(plants, new Map([['d', 'Helenium']]), side!)
    expect(rows).toHaveLength(plants.length)
    for (const r of rows) {
      // Back from the tape to the plan: a right angle off a line of 12 and 5 in 13.
      expect(r.alongM * (12 / 13) - r.offM * (5 / 13)).toBeCloseTo(r.x)
      expect(r.alongM * (5 / 13) + r.offM * (12 / 13)).toBeCloseTo(r.y)
    }
    expect(plantingCsv(rows).split('\r\n')).toHaveLength(rows.length + 2)
  })

  it('lies within the outline of its drift, which encloses as much ground as the drift has', () => {
    const [rings] = driftOutlines(bed, arranged)
    const cells = arranged.has.filter((k) => k === 0).length
    // Twice the area of a ring by its corners; a ring round a hole goes the other way.
    const doubled = (r: readonly (readonly [number, number])[]) =>
      r.reduce((sum, [x, y], i) => {
        const [nx, ny] = r[(i + 1) % r.length]!
        return sum + x * ny - nx * y
      }, 0)
    const m2 = rings!.reduce((sum, r) => sum + doubled(r), 0) / 2
    // Through the middles of the cells' sides an eighth of a cell is cut off at each corner.
    expect(Math.abs(m2 - cells * ground.cellM ** 2)).toBeLessThan(0.05 * cells * ground.cellM ** 2 + 1)
    expect(m2).toBeGreaterThan(0)
  })
})
