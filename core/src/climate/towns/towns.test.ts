import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dayOfYear } from '../../dates/index.ts'
import { climateOf, generateWeather, quantile, type Climate, type MonthlyClimate } from '../index.ts'
import { monthMeans, throughYear } from '../monthly.ts'
import {
  blendOf,
  dailyFit,
  factsOf,
  fittedDay,
  fittedMonths,
  kmBetween,
  monthsOf,
  patternAt,
} from './index.ts'
import { townClimates, type TownClimate } from './places.ts'

const places = townClimates()
const town = (name: string): TownClimate => places.find((p) => p.name === name)!
const middles = (m: Omit<MonthlyClimate, 'yearlyMinimumC'>) => m.highC.map((c, i) => (c + m.lowC[i]!) / 2)

function climateBy(months: MonthlyClimate, latitude: number, seed = 4): Climate {
  const found = climateOf(generateWeather({ months, seed }, 1961, 2020), latitude)
  if (!found.ok) throw new Error(found.reason)
  return found.climate
}

describe('the table of reference climates', () => {
  it('is of at least 200 towns, each once, over all latitudes that people garden in', () => {
    expect(places.length).toBeGreaterThanOrEqual(200)
    expect(new Set(places.map((p) => `${p.name}, ${p.country}`)).size).toBe(places.length)
    for (const [south, north] of [
      [-90, -40],
      [-40, -30],
      [-30, 0],
      [0, 30],
      [30, 40],
      [40, 50],
      [50, 60],
      [60, 90],
    ])
      expect(places.filter((p) => p.latitude >= south! && p.latitude < north!).length).toBeGreaterThan(5)
  })

  it('holds sense in every row', () => {
    for (const p of places) {
      p.highC.forEach((c, m) => {
        expect(c - p.lowC[m]!, p.name).toBeGreaterThanOrEqual(3)
        expect(c - p.lowC[m]!, p.name).toBeLessThanOrEqual(20)
      })
      expect(p.yearlyMinimumC, p.name).toBeLessThanOrEqual(Math.min(...p.lowC))
      expect(p.lowestC, p.name).toBeLessThanOrEqual(p.yearlyMinimumC)
      // Beyond the tropics summer is when the sun is high, give or take what sea and monsoon put it off.
      if (Math.abs(p.latitude) > 25) {
        const warmest = middles(p).indexOf(Math.max(...middles(p)))
        expect(p.latitude > 0 ? [5, 6, 7, 8] : [11, 0, 1], p.name).toContain(warmest)
      }
      expect(p.heightM, p.name).toBeGreaterThanOrEqual(0)
      expect(p.seaKm, p.name).toBeGreaterThan(0)
    }
  })
})

describe('a year through twelve monthly means', () => {
  it('keeps every month, and goes round without a jump', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -30, max: 40, noNaN: true }), { minLength: 12, maxLength: 12 }),
        (m) => {
          const days = throughYear(m)
          monthMeans(days).forEach((mean, i) => expect(mean).toBeCloseTo(m[i]!, 3))
          const jumps = days.map((c, i) => Math.abs(c - days[(i + 1) % 366]!))
          expect(Math.max(...jumps)).toBeLessThan(15)
        },
      ),
    )
  })
})

describe('weather drawn from months', () => {
  it('has their means, their rain and, on average, their lowest night', () => {
    const offs = places
      .filter((_, i) => i % 6 === 1)
      .map((p, i) => {
        const days = generateWeather({ months: p, seed: 1000 + i }, 1991, 2020)
        const made = monthsOf(days)!
        made.highC.forEach((c, m) => expect(Math.abs(c - p.highC[m]!)).toBeLessThan(2))
        expect(factsOf(made).rainMm).toBeGreaterThan(0.8 * factsOf(p).rainMm - 20)
        expect(factsOf(made).rainMm).toBeLessThan(1.2 * factsOf(p).rainMm + 20)
        const found = climateOf(days, p.latitude)
        return found.ok ? found.climate.meanAnnualMinimumC - p.yearlyMinimumC : NaN
      })
    expect(Math.abs(offs.reduce((a, b) => a + b, 0) / offs.length)).toBeLessThan(0.5)
    expect(quantile(offs.map(Math.abs), 0.9)).toBeLessThan(2)
  })

  it('has frosts when gardeners of these towns reckon with them: on average within four days, each within a month', () => {
    // Dates on which half of the years have had their last, their first frost: common knowledge of these towns.
    const reckoned: [name: string, last: string, first: string][] = [
      ['Minneapolis', '04-30', '10-10'],
      ['Chicago', '04-22', '10-26'],
      ['Kansas City', '04-10', '10-28'],
      ['Denver', '05-07', '10-05'],
      ['Salt Lake City', '04-20', '10-20'],
      ['Atlanta', '03-24', '11-15'],
      ['Dallas', '03-05', '11-25'],
      ['Washington', '03-30', '11-12'],
      ['Boston', '04-10', '11-05'],
      ['Seattle', '03-20', '11-15'],
      ['Portland (Oregon)', '03-28', '11-12'],
      ['Boise', '05-05', '10-08'],
      ['Nashville', '04-05', '10-28'],
      ['Toronto', '04-28', '10-22'],
      ['Winnipeg', '05-22', '09-22'],
      ['London', '04-05', '11-15'],
      ['Edinburgh', '04-25', '10-31'],
      ['Berlin', '04-22', '10-25'],
      ['Munich', '04-28', '10-15'],
      ['Helsinki', '05-10', '10-05'],
      ['Madrid', '03-20', '11-20'],
      ['Sapporo', '04-22', '10-26'],
      ['Beijing', '04-02', '10-30'],
      ['Canberra', '10-30', '04-25'],
    ]
    const offs = reckoned.map(([name, last, first]) => {
      const { lastFrost, firstFrost } = climateBy(town(name), town(name).latitude)
      return [lastFrost!.p50 - dayOfYear(`2024-${last}`), firstFrost!.p50 - dayOfYear(`2024-${first}`)]
    })
    for (const side of [0, 1]) {
      const days = offs.map((o) => o[side]!)
      expect(Math.abs(days.reduce((a, b) => a + b, 0) / days.length)).toBeLessThan(4)
      expect(quantile(days.map(Math.abs), 0.5)).toBeLessThan(7)
      expect(Math.max(...days.map(Math.abs))).toBeLessThan(30)
    }
  })
})

describe('a climate blended from the towns about a place', () => {
  const without = (p: TownClimate) =>
    blendOf(
      p,
      places.filter((other) => other !== p),
    )

  // Chosen before anything was measured: over eight countries of four continents, none at the edge of the table.
  const heldBack = [
    'York',
    'Nantes',
    'Leipzig',
    'Bologna',
    'Cincinnati',
    'Richmond',
    'Des Moines',
    'Eugene',
    'Sendai',
    'Hamilton',
  ]
  it.each(heldBack)('finds the months of %s from the others within 2 °C', (name) => {
    middles(without(town(name))).forEach((c, m) =>
      expect(Math.abs(c - middles(town(name))[m]!)).toBeLessThan(2),
    )
  })

  const dense = places.filter((p) => places.filter((o) => o !== p && kmBetween(o, p) < 400).length >= 3)
  it('finds nineteen months of twenty within 2 °C wherever three towns lie within 400 km', () => {
    expect(dense.length).toBeGreaterThan(200)
    const offs = dense.flatMap((p) => middles(without(p)).map((c, m) => Math.abs(c - middles(p)[m]!)))
    expect(quantile(offs, 0.5)).toBeLessThan(0.5)
    expect(quantile(offs, 0.95)).toBeLessThan(2)
  })

  it('finds three frosts of four within ten days there, from every eighth of these towns', () => {
    const offs = dense
      .filter((_, i) => i % 8 === 0)
      .flatMap((p) => {
        const [own, blended] = [climateBy(p, p.latitude), climateBy(without(p), p.latitude)]
        return (['lastFrost', 'firstFrost'] as const).flatMap((frost) => {
          const [a, b] = [own[frost], blended[frost]]
          return a && b ? [Math.abs(a.p50 - b.p50)] : []
        })
      })
    expect(quantile(offs, 0.5)).toBeLessThan(7)
    expect(quantile(offs, 0.75)).toBeLessThanOrEqual(10.5)
  })

  it('is nearly the town’s own in a town, in whole shares, and tells which towns', () => {
    const { from, highC } = blendOf({ latitude: 42.4, longitude: -71.1 })
    expect(from[0]!.name).toBe('Boston')
    expect(from.reduce((sum, f) => sum + f.share, 0)).toBeCloseTo(1, 9)
    highC.forEach((c, m) => expect(Math.abs(c - town('Boston').highC[m]!)).toBeLessThan(1))
  })

  it('is colder the higher it lies, by the standard lapse of 6.5 K a kilometre, other things being equal', () => {
    // Towns of one height: then height weighs all alike.
    const flat = places.map((p) => ({ ...p, heightM: 0 }))
    const at = (heightM: number) => blendOf({ latitude: 47, longitude: 9, heightM }, flat)
    at(0).highC.forEach((c, m) => expect(c - at(1000).highC[m]!).toBeCloseTo(6.5, 6))
  })

  it('answers anywhere on Earth, with days warmer than nights', () => {
    fc.assert(
      fc.property(
        fc.record({
          latitude: fc.double({ min: -90, max: 90, noNaN: true }),
          longitude: fc.double({ min: -180, max: 180, noNaN: true }),
          heightM: fc.option(fc.integer({ min: 0, max: 4000 }), { nil: undefined }),
          seaKm: fc.option(fc.integer({ min: 0, max: 2000 }), { nil: undefined }),
        }),
        (site) => {
          const { highC, lowC, rainMm, yearlyMinimumC } = blendOf(site)
          highC.forEach((c, m) => expect(c).toBeGreaterThan(lowC[m]!))
          expect([...highC, ...lowC, ...rainMm, yearlyMinimumC].every(Number.isFinite)).toBe(true)
          expect(yearlyMinimumC).toBeLessThan(Math.min(...lowC))
        },
      ),
    )
  })

  it('measures along the great circle: London to Paris is 344 km, a quarter of the Earth is 10,008', () => {
    expect(
      Math.abs(
        kmBetween({ latitude: 51.507, longitude: -0.128 }, { latitude: 48.857, longitude: 2.352 }) - 344,
      ),
    ).toBeLessThan(2)
    expect(
      Math.abs(kmBetween({ latitude: 0, longitude: 0 }, { latitude: 90, longitude: 40 }) - 10_008),
    ).toBeLessThan(1)
  })
})

describe('months brought to what a gardener knows', () => {
  const site = { latitude: 47.2, longitude: 9.1 }
  const blend = blendOf(site)
  it('have its hottest month, its coldest and its rain, and what nobody said stays', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 18, max: 40, noNaN: true }),
        fc.double({ min: -20, max: 3, noNaN: true }),
        fc.integer({ min: 100, max: 3000 }),
        (hottestC, coldestMonthC, rainMm) => {
          const facts = factsOf(fittedMonths(blend, site, { hottestC, coldestMonthC, rainMm }))
          expect(facts.rainMm).toBeCloseTo(rainMm, 6)
          expect(facts.hottestC).toBeCloseTo(hottestC, 0)
          expect(facts.coldestMonthC).toBeCloseTo(coldestMonthC, 0)
        },
      ),
    )
    expect(fittedMonths(blend, site, { lastFrost: '05-05', coldestC: -14 })).toEqual({
      highC: blend.highC,
      lowC: blend.lowC,
      rainMm: blend.rainMm,
    })
  })

  it('are the months of the days that are made of it', () => {
    const days = generateWeather(patternAt(site), 1991, 2020)
    const from = monthsOf(days)!
    const wanted = fittedMonths(from, site, { hottestC: 27, coldestMonthC: -9, rainMm: 1500, heightM: 900 })
    const fit = dailyFit(from, wanted)
    const made = monthsOf(days.map((d) => fittedDay(d, fit)))!
    made.highC.forEach((c, m) => expect(Math.abs(c - wanted.highC[m]!)).toBeLessThan(0.15))
    made.lowC.forEach((c, m) => expect(Math.abs(c - wanted.lowC[m]!)).toBeLessThan(0.15))
    expect(factsOf(made).rainMm / 1500).toBeCloseTo(1, 1)
  })
})
