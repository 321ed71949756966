import { describe, expect, it } from 'vitest'
import { patternAtLatitude } from '../climate/test/atLatitude.ts'
import { climateOf, generateWeather } from '../climate/index.ts'
import { daysBetween } from '../dates/index.ts'
import { sceneOf, vesselOf, type Feature } from '../garden/index.ts'
import { taxonNamed } from '../garden/test/made.ts'
import { library, poisonousTo } from '../plants/index.ts'
import {
  bestPotSpots,
  lightMisses,
  openPoints,
  potVerdicts,
  potVerdictsOf,
  relayOf,
  type PotEvidence,
  type RelayAsked,
} from './index.ts'

const found = climateOf(
  generateWeather({ ...patternAtLatitude(52.1), annualMeanC: 10.4, seasonalAmplitudeC: 6.8 }, 2012, 2025),
  52.1,
)
if (!found.ok) throw new Error(found.reason)
const { climate } = found

describe('a relay of fills', () => {
  const site = (season: 'summer' | 'winter') => [
    { sunHours: 6, coldestC: -6, season, overWinter: season === 'winter' },
  ]
  const offers = library.map((t, i) => ({
    supplier: 'nursery',
    item: t.botanical,
    packs: [{ name: 'pot', holds: 1, price: 150 + 13 * (i % 17) }],
    pricedOn: '2026-03-01',
  }))
  const asked: RelayAsked = {
    vessel: vesselOf({ properties: { shape: 'tapered', diameterM: 0.5, depthM: 0.45, rimHeightM: 0.5 } }),
    sites: { summer: site('summer'), winter: site('winter') },
    season: 'winter',
    on: '2026-09-20',
    year: { lateDays: 0, south: false },
    have: new Map(),
    harmlessTo: ['dogs'],
    offers,
    climate,
  }
  const legs = relayOf(library, asked)

  it('is of two summers and two winters by turns, each set out in its own window, at what its plants and bulbs cost', () => {
    expect(legs.map((l) => l.season)).toEqual(['winter', 'summer', 'winter', 'summer'])
    const priceOf = new Map(offers.map((o) => [o.item, o.packs[0]!.price]))
    /** Kept indoors from a summer before: it costs nothing the next. */
    const wintered = new Map<string, number>()
    legs.forEach((leg, i) => {
      expect(leg.in.from <= leg.in.to).toBe(true)
      const before = legs[i - 1]
      if (before) expect(before.in.from < leg.in.from).toBe(true)
      if (before?.over) expect(before.emptyDays).toBe(Math.max(0, daysBetween(before.over.to, leg.in.from)))
      const goesIn = [...leg.potted, ...leg.bulbs]
      const cost = goesIn.reduce((sum, { taxon: { botanical }, count }) => {
        const fromHand = Math.min(count, wintered.get(botanical) ?? 0)
        wintered.set(botanical, (wintered.get(botanical) ?? 0) - fromHand)
        return sum + (count - fromHand) * priceOf.get(botanical)!
      }, 0)
      expect(leg.cost!.price).toBe(cost)
      for (const { botanical, to } of leg.saved)
        if (to === 'wintered indoors')
          wintered.set(botanical, leg.potted.find((p) => p.taxon.botanical === botanical)!.count)
      for (const { taxon } of goesIn) expect(poisonousTo(taxon)).not.toContain('dogs')
    })
  })

  it('takes a plant in hand for one fill alone', () => {
    const kind = legs[0]!.potted[0]!
    const costs = (have: ReadonlyMap<string, number>) =>
      relayOf(
        legs.flatMap((l) => l.potted.map((p) => p.taxon)),
        { ...asked, have },
      ).map((l) => l.cost!.price)
    const [none, one] = [costs(new Map()), costs(new Map([[kind.taxon.botanical, 1]]))]
    const { price } = offers.find((o) => o.item === kind.taxon.botanical)!.packs[0]!
    expect(none.map((cost, i) => cost - one[i]!)).toEqual([price, 0, 0, 0])
  })

  it('has bulbs under what is for winter alone, and other kinds the second time as far as there are', () => {
    expect(legs.filter((l) => l.season === 'summer').every((l) => l.bulbs.length === 0)).toBe(true)
    const [a, , b] = legs.map((l) => l.potted.map((p) => p.taxon.botanical))
    expect(a!.filter((k) => b!.includes(k)).length).toBeLessThanOrEqual(1)
  })
})

describe('the best spots for a container', () => {
  /** A long high wall along y = 10, of a garden of 20 by 20 metres that a bed shows the size of. */
  const features = [
    {
      id: 'w',
      kind: 'wall',
      name: 'wall',
      from: null,
      to: null,
      geometry: {
        type: 'LineString',
        coordinates: [
          [0, 10],
          [20, 10],
        ],
      },
      properties: { heightM: 3 },
    },
    {
      id: 'b',
      kind: 'bed',
      name: 'bed',
      from: null,
      to: null,
      geometry: {
        type: 'Polygon',
        coordinates: [
          [
            [0, 0],
            [20, 0],
            [20, 3],
            [0, 3],
            [0, 0],
          ],
        ],
      },
      properties: {},
    },
    {
      id: 'c',
      kind: 'container',
      name: 'pot',
      from: null,
      to: null,
      geometry: { type: 'Point', coordinates: [10, 19] },
      properties: {},
    },
  ] as unknown as Feature[]
  const points = openPoints(features, 0.4)
  const scene = sceneOf({ latitude: 52, longitude: 0, northDeg: 0 }, features)

  it('are tried in the open alone: not in beds, nor on what stands there', () => {
    expect(points.length).toBeGreaterThan(100)
    for (const { x, y } of points) {
      expect(y > 3).toBe(true)
      expect(Math.abs(y - 10)).toBeGreaterThan(0.5)
      expect(Math.hypot(x - 10, y - 19)).toBeGreaterThan(0.5)
    }
  })

  it('are south of a wall for what wants sun, north of it for what wants shade, apart, and none better is passed over', () => {
    const best = (...names: string[]) =>
      bestPotSpots(
        scene,
        points,
        { x: 10, y: 19, rimHeightM: 0.4, taxa: names.map(taxonNamed) },
        '2026-06-01',
      )
    const sun = best('Lavandula angustifolia')
    const shade = best('Hosta sieboldiana')
    expect(sun[0]!.missesH).toBe(0)
    // North is up: the wall shades what lies above it.
    expect(shade[0]!.y).toBeGreaterThan(10)
    expect(shade[0]!.hours.total).toBeLessThan(sun[0]!.hours.total)
    for (const spots of [sun, shade]) {
      expect(spots.length).toBeLessThanOrEqual(3)
      spots.forEach((a, i) =>
        spots.slice(i + 1).forEach((b) => {
          expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThanOrEqual(3)
          expect(b.missesH).toBeGreaterThanOrEqual(a.missesH)
        }),
      )
    }
  })

  it('are judged by the one of its plants that the light misses most', () => {
    const taxa = [
      { lightMinHours: 6, lightMaxHours: 16 },
      { lightMinHours: 0, lightMaxHours: 4 },
    ]
    expect([2, 5, 9].map((h) => lightMisses(taxa, h))).toEqual([4, 1, 5])
    expect(lightMisses([], 3)).toBe(0)
  })
})

describe('a verdict on a container', () => {
  const quiet: PotEvidence = {
    on: '2026-07-01',
    isPlanted: true,
    faults: [],
    remarks: [],
    swap: { over: null, next: null },
    mix: null,
    air: null,
    bound: [],
    toCut: [],
    ended: [],
    ratings: [],
  }
  const first = (more: Partial<PotEvidence>) => potVerdictsOf({ ...quiet, ...more })[0]!
  const over = (from: string, to: string) => ({ from, to, botanical: 'x', because: 'its season' as const })
  const next = { season: 'winter' as const, from: '2026-06-20', to: '2026-08-01' }

  it('is to keep it where nothing speaks for another, with a reason', () => {
    expect(first({}).verdict).toBe('keep as it is')
    expect(first({}).because).not.toEqual([])
    expect(first({ isPlanted: false }).because[0]).toMatch(/^Nothing grows/)
    // Of a mix that is not on record nothing is claimed.
    expect(first({}).because[0]).not.toMatch(/has air/)
    expect(first({ air: 0.2 }).because[0]).toMatch(/its mix has air/)
  })

  it('is each of the others where that is what is found', () => {
    const reached = [
      first({}),
      first({ toCut: ['lobelia'] }),
      first({ air: 0.05 }),
      first({ swap: { over: over('2026-05-01', '2026-06-01'), next } }),
      first({ bound: ['bay'] }),
      first({ ended: ['drowned', 'drowned'], faults: ['no holes'] }),
    ].map((v) => v.verdict)
    expect(reached.sort()).toEqual([...potVerdicts].sort())
  })

  it('is not to swap what stays, nor what is at its best; nor to retire it for a frost and a drought', () => {
    const names = (more: Partial<PotEvidence>) => potVerdictsOf({ ...quiet, ...more }).map((v) => v.verdict)
    expect(names({ swap: { over: null, next } })).not.toContain('swap now')
    expect(names({ swap: { over: over('2026-09-20', '2026-10-30'), next: null } })).not.toContain('swap now')
    expect(names({ isPlanted: false, air: 0.05 })).not.toContain('refresh')
    expect(names({ ended: ['frost', 'dried out'] })).not.toContain('retire the pot')
    expect(names({ ended: ['eaten', 'eaten'] })).not.toContain('retire the pot')
  })

  it('is swapping sooner where it was rated poor and the next may go in, and says each reason', () => {
    const poor = first({
      swap: { over: over('2026-09-20', '2026-10-30'), next },
      ratings: [{ common: 'petunia', score: 2 }],
    })
    expect(poor.verdict).toBe('swap now')
    expect(poor.because.join(' ')).toMatch(/petunia/)
  })
})
