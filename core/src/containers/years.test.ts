import loadHighs from 'highs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { patternAtLatitude } from '../climate/test/atLatitude.ts'
import { climateOf, generateWeather, type Climate } from '../climate/index.ts'
import { careRules, nthOfMonth } from '../care/index.ts'
import { addDays, dayOfYear, daysBetween, weekdayOf } from '../dates/index.ts'
import { vesselOf } from '../garden/index.ts'
import { taxonNamed } from '../garden/test/made.ts'
import { bulbSize, library } from '../plants/index.ts'
import { highsSolver } from '../search/index.ts'
import {
  bulbLayers,
  feedingOf,
  leadingWoody,
  linePots,
  lineSeasons,
  mixState,
  potFactor,
  pottingOn,
  recipes,
  rootBoundAfter,
  seasonCost,
  spentOn,
  waterDays,
  waterThrough,
  wantedDepthM,
  winteringOf,
  type LinePot,
  type PotCheck,
  type PottedWoody,
  type WateredPot,
} from './index.ts'
import { linePoints } from './pottingOn.ts'
import { readilyLitres } from './potWater.ts'
import { traitsOf } from './mix.ts'

const solve = highsSolver(await loadHighs())
const weather = generateWeather(
  { ...patternAtLatitude(52.1), annualMeanC: 10.4, seasonalAmplitudeC: 6.8 },
  2012,
  2025,
)
const found = climateOf(weather, 52.1)
if (!found.ok) throw new Error(found.reason)
const { climate } = found

const compost = [{ name: 'compost', parts: 1 }]
const grit = [{ name: 'grit', parts: 1 }]
const fill = (filledOn: string, mix: typeof compost, renewed = 1) => ({ filledOn, mix, renewed })

describe('a mix that was tested', () => {
  // A four litre pot of dry mix takes three litres and gives one back: a quarter air, half water, a quarter grains.
  const test = { day: '2026-05-01', sampleLitres: 4, filledLitres: 3, drainedLitres: 1 }
  const filled = [fill('2026-04-01', [...recipes.summer.parts])]
  const near = (v: number) => expect.closeTo(v, 9) as number

  it('is on that day what was measured, by hand', () => {
    expect(mixState(filled, test.day, [test])!.traits).toMatchObject({ air: near(0.25), water: near(0.5) })
  })

  it('that was found as it was worked out is nothing new, on any day', () => {
    const { air, water } = mixState(filled, test.day)!.traits
    const same = { ...test, sampleLitres: 1, filledLitres: air + water, drainedLitres: air }
    for (const on of ['2026-05-01', '2027-05-01', '2029-01-01']) {
      const { traits, ...rest } = mixState(filled, on)!
      const { traits: put, ...others } = mixState(filled, on, [same])!
      expect(put).toEqual(Object.fromEntries(Object.entries(traits).map(([k, v]) => [k, near(v)])))
      expect(others).toEqual(rest)
    }
  })

  it('with more air keeps it longer, and loses it with the years as any does', () => {
    const drained = (drainedLitres: number) => ({ ...test, drainedLitres })
    const spent = [0.3, 0.5, 0.7].map((d) => mixState(filled, test.day, [drained(d)])!.wholeOn)
    expect([...spent].sort()).toEqual(spent)
    expect(new Set(spent).size).toBe(3)
    const air = ['2026-05-01', '2027-05-01', '2028-05-01'].map(
      (on) => mixState(filled, on, [test])!.traits.air,
    )
    expect(air.toSorted((a, b) => b - a)).toEqual(air)
  })

  it('is told by the last test, and by none from before some of it was new or from a day to come', () => {
    const later = { ...test, day: '2026-06-01', drainedLitres: 0.8 }
    expect(mixState(filled, '2026-06-01', [later, test])!.traits.air).toBeCloseTo(0.2, 9)
    expect(mixState(filled, '2026-05-01', [later, test])!.traits.air).toBeCloseTo(0.25, 9)
    const topped = [...filled, fill('2026-05-10', [...recipes.summer.parts], 0.2)]
    expect(mixState(topped, '2026-05-20', [test])).toEqual(mixState(topped, '2026-05-20'))
    // Planted anew in the mix that stays, it is the mix that was tested.
    const replanted = [...filled, fill('2026-05-10', [...recipes.summer.parts], 0)]
    expect(mixState(replanted, '2026-05-20', [test])).toEqual(mixState(filled, '2026-05-20', [test]))
  })
})

describe('a mix through the years', () => {
  it('sinks by what rots of it, as worked by hand, and is brought up by what is put to it', () => {
    // Compost loses a fifth each year: 0.8 squared is left of it after two.
    expect(mixState([fill('2024-04-01', compost)], '2026-04-01')!.sunk).toBeCloseTo(1 - 0.64, 2)
    const topped = [fill('2024-04-01', compost), fill('2025-04-01', grit, 1 / 3)]
    expect(mixState(topped, '2025-04-01')!.sunk).toBeCloseTo(0, 6)
    // Two thirds of it lose another fifth, grit nothing.
    expect(mixState(topped, '2026-04-01')!.sunk).toBeCloseTo((2 / 3) * 0.2, 2)
    expect(mixState(topped, '2026-06-01')!.old).toBeGreaterThan(0.5)
  })

  it('is as fresh where all of it is new, whatever was in it before; and nobody’s where nothing is known', () => {
    const before = [fill('2020-04-01', compost), fill('2022-05-01', grit, 0.3)]
    const fresh = [fill('2026-03-01', [...recipes.summer.parts])]
    expect(mixState([...before, ...fresh], '2026-09-01')).toEqual(mixState(fresh, '2026-09-01'))
    expect(mixState(fresh, '2026-03-01')!.traits).toEqual(traitsOf(recipes.summer.parts))
    expect(mixState(fresh, '2026-02-01')).toBeUndefined()
  })

  it('is spent in the three years that gardeners reckon where it is for summer, later where it is to last, never of grit', () => {
    const spent = (mix: readonly { name: string; parts: number }[]) =>
      mixState([{ filledOn: '2020-04-01', mix, renewed: 1 }], '2020-04-01')!.wholeOn
    const years = (day: string | null) => (day === null ? Infinity : daysBetween('2020-04-01', day) / 365.25)
    expect(years(spent(recipes.summer.parts))).toBeGreaterThan(2)
    expect(years(spent(recipes.summer.parts))).toBeLessThan(4)
    expect(years(spent(recipes.lasting.parts))).toBeGreaterThan(years(spent(recipes.summer.parts)))
    expect(spent(grit)).toBeNull()
  })

  it('lasts no shorter the more of it was new, and never holds more than all of itself', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.values(recipes)),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        ({ parts }, a, b) => {
          const after = (renewed: number) =>
            mixState(
              [
                { filledOn: '2022-04-01', mix: parts, renewed: 1 },
                { filledOn: '2024-04-01', mix: parts, renewed },
              ],
              '2024-06-01',
            )!
          const [less, more] = [after(Math.min(a, b)), after(Math.max(a, b))]
          expect((more.wholeOn ?? '9999') >= (less.wholeOn ?? '9999')).toBe(true)
          for (const { traits } of [less, more]) {
            expect(traits.air).toBeGreaterThanOrEqual(-1e-9)
            expect(traits.air + traits.water).toBeLessThanOrEqual(1 + 1e-9)
            expect(traits.available).toBeLessThanOrEqual(traits.water + 1e-9)
          }
        },
      ),
      { numRuns: 60 },
    )
  })
})

/** A climate of one temperature through the year. */
const steady = (c: number): Climate => ({
  ...climate,
  minC: climate.minC.map(() => c),
  maxC: climate.maxC.map(() => c),
})

describe('feeding a container', () => {
  const plants = [taxonNamed('Pelargonium × hortorum')]
  const feeding = (schools = {}, from = '2026-04-20') =>
    feedingOf({ mixLitres: 40, plants }, { climate, schools, from })

  it('has a slow feed last as its label says at 21 °C, half as long ten degrees warmer, twice as long ten colder', () => {
    for (const life of [60, 120, 180]) {
      const days = (c: number) => daysBetween('2026-04-01', spentOn(life, '2026-04-01', steady(c)))
      expect(days(21)).toBe(life)
      expect(days(31)).toBe(life / 2)
      expect(days(11)).toBe(2 * life)
    }
    // Frozen, none of it is released.
    expect(daysBetween('2026-04-01', spentOn(60, '2026-04-01', steady(-2)))).toBeGreaterThan(1000)
  })

  it('gives liquid by turns until growth is to harden, more often where it is pushed', () => {
    const lean = feeding()
    expect(lean.liquid.length).toBeGreaterThan(4)
    lean.liquid.slice(1).forEach((l, i) => expect(l.what).not.toBe(lean.liquid[i]!.what))
    expect(lean.liquid.every((l) => l.on <= lean.lastOn!)).toBe(true)
    expect(dayOfYear(lean.lastOn!)).toBeLessThanOrEqual(Math.round(climate.firstFrost!.p50) - 41)
    expect(feeding({ pushing: 'push' }).liquid.length).toBeGreaterThan(1.7 * lean.liquid.length)
    expect(lean.litres).toBeCloseTo(4)
    expect(lean.millilitres).toBeCloseTo(20)
  })

  it('goes by the rules of the garden: the first and third Saturday of the month, where somebody has said so', () => {
    const rules = careRules.map((r) =>
      r.id === 'feed-pots-lean' ? { ...r, monthDays: { weekday: 6, nths: [1, 3] } } : r,
    )
    const { liquid } = feedingOf(
      { mixLitres: 40, plants },
      { climate, schools: {}, from: '2026-04-20', rules },
    )
    expect(liquid.length).toBeGreaterThan(3)
    for (const { on } of liquid) {
      expect(weekdayOf(on)).toBe(6)
      expect([1, 3]).toContain(nthOfMonth(on))
    }
    // Switched off, nothing liquid is asked for.
    expect(
      feedingOf({ mixLitres: 40, plants }, { climate, schools: {}, from: '2026-04-20', rules: [] }).liquid,
    ).toEqual([])
  })

  it('chooses a life that is spent about when feeding ends, and tells it as an interval', () => {
    const { slow, lastOn } = feeding()
    expect(slow!.spentFrom <= slow!.spentTo).toBe(true)
    expect(Math.abs(daysBetween(slow!.spentTo, lastOn!))).toBeLessThan(75)
    expect(slow!.grams).toBeGreaterThan(0)
  })

  it('asked for in winter is mixed in as growth begins, and is spent about when feeding ends', () => {
    const { slow, lastOn, liquid } = feeding({}, '2026-11-10')
    expect(slow!.mixedInOn > '2027-03-15').toBe(true)
    expect(slow!.mixedInOn <= liquid[0]!.on).toBe(true)
    expect(Math.abs(daysBetween(slow!.spentTo, lastOn!))).toBeLessThan(75)
    // A fresh mix feeds for six weeks by itself.
    expect(daysBetween(slow!.mixedInOn, liquid[0]!.on)).toBe(42)
    expect(feeding().slow!.mixedInOn >= '2026-04-20').toBe(true)
  })

  it('names no spell of a day or two', () => {
    const cool = (days: number): Climate => {
      const c = climate.minC.map((_, i) => (i >= 100 && i < 100 + days ? 8 : 14))
      return { ...climate, minC: c, maxC: c }
    }
    const spell = (days: number) =>
      feedingOf({ mixLitres: 40, plants }, { climate: cool(days), schools: {}, from: '2026-02-01' }).nitrate
    expect(spell(3)).toBeNull()
    expect(daysBetween(spell(30)!.from, spell(30)!.to)).toBe(29)
  })

  it('names the weeks in which only nitrate feeds: while the usual day is under 10 °C', () => {
    const { nitrate } = feeding({}, '2026-09-01')
    const usual = (day: string) => (climate.minC[dayOfYear(day) - 1]! + climate.maxC[dayOfYear(day) - 1]!) / 2
    expect(usual(nitrate!.from)).toBeLessThan(10)
    expect(usual(addDays(nitrate!.from, -1))).toBeGreaterThanOrEqual(10)
    expect(
      feedingOf({ mixLitres: 40, plants }, { climate: steady(18), schools: {}, from: '2026-09-01' }).nitrate,
    ).toBeNull()
  })

  it('feeds nothing that is to be lean', () => {
    const lean = library.find((t) => t.feed === 'none')!
    const fed = feedingOf({ mixLitres: 40, plants: [lean] }, { climate, schools: {}, from: '2026-04-20' })
    expect(fed.slow).toBeNull()
    expect(fed.liquid).toEqual([])
  })
})

describe('a pot’s own factor', () => {
  const vessel = vesselOf({
    properties: { shape: 'round', diameterM: 0.45, depthM: 0.4, rimHeightM: 0.45, material: 'glazed' },
  })
  const pot: WateredPot = {
    vessel,
    mix: traitsOf(recipes.summer.parts),
    plants: [
      {
        heightM: 0.4,
        spreadM: 0.5,
        count: 1,
        taxon: { moistureMin: 3, moistureMax: 4 },
        leafyOn: () => true,
      },
    ],
    sunShare: Array.from({ length: 12 }, () => 0.8),
    rainShare: 0,
  }
  const days = waterDays(
    weather.filter((d) => d.day.startsWith('2024')),
    52.1,
  )

  /** Somebody waters it every so often and feels it some days later: what they find is what a pot of that factor would have. */
  const findings = (factor: number, from: string, n: number): PotCheck[] =>
    Array.from({ length: n }, (_, k): PotCheck[] => {
      const watered = addDays(from, 8 * k)
      const felt = addDays(watered, 1 + (k % 4))
      const first = days.findIndex((d) => d.day === watered)
      const run = days.slice(first, first + daysBetween(watered, felt))
      const gone =
        waterThrough({ ...pot, factor }, run, { tended: () => false }).depletion / readilyLitres(pot)
      return [
        { day: watered, kind: 'watered' },
        { day: felt, kind: 'felt', felt: gone < 0.35 ? 'wet' : gone < 1 ? 'moist' : 'dry' },
      ]
    }).flat()

  it('is found again in what a pot of that factor shows, the better the more is found', () => {
    for (const truth of [0.6, 1, 1.7]) {
      const many = potFactor(pot, findings(truth, '2024-05-10', 14), days)!
      expect(many.from).toBe(14)
      expect(many.p10).toBeLessThan(truth * 1.15)
      expect(many.p90).toBeGreaterThan(truth / 1.15)
      expect(Math.abs(Math.log(many.factor / truth))).toBeLessThan(0.35)
      const few = potFactor(pot, findings(truth, '2024-05-10', 2), days)!
      expect(few.p90 / few.p10).toBeGreaterThan(many.p90 / many.p10)
      // Shrunk towards 1: little found, little said.
      expect(Math.abs(Math.log(few.factor))).toBeLessThanOrEqual(Math.abs(Math.log(truth)) + 0.15)
    }
  })

  it('is weighed out too, and is unknown where nothing was found or nobody knows when it was watered', () => {
    const first = days.findIndex((d) => d.day === '2024-06-10')
    const gone = waterThrough({ ...pot, factor: 1.5 }, days.slice(first, first + 3), {
      tended: () => false,
    }).depletion
    const weighed = potFactor(
      pot,
      [
        { day: '2024-06-10', kind: 'watered' },
        { day: '2024-06-13', kind: 'weighed', lighterKg: gone },
      ],
      days,
    )!
    expect(weighed.factor).toBeGreaterThan(1.05)
    expect(weighed.factor).toBeLessThan(1.6)
    expect(potFactor(pot, [], days)).toBeUndefined()
    expect(potFactor(pot, [{ day: '2024-06-13', kind: 'felt', felt: 'dry' }], days)).toBeUndefined()
  })
})

describe('woody plants potted on', () => {
  const laurel = taxonNamed('Laurus nobilis')
  const pots = (...depths: number[]): LinePot[] =>
    depths.map((depthM, i) => ({ id: `pot ${i}`, depthM, isSeasonal: false }))
  const about = { on: '2026-11-20', south: false, suitsGround: () => false }
  const seasons = [2027, 2028, 2029]

  it('fill their pots when they would grow taller in a deeper one, the deeper the later', () => {
    const after = [0.25, 0.4, 0.6].map((d) => rootBoundAfter(laurel, d) ?? Infinity)
    expect([...after].sort((a, b) => a - b)).toEqual(after)
    const first = rootBoundAfter(laurel, 0.4)!
    expect(wantedDepthM(laurel, first)).toBeGreaterThan(0.4)
    expect(wantedDepthM(laurel, first - 0.25)).toBeLessThanOrEqual(0.4)
    expect(rootBoundAfter(taxonNamed('Hosta sieboldiana'), 0.2)).toBeNull()
  })

  /** Every way that plants may go through pots, none shared, none to a shallower one; what the cheapest of them costs. */
  function bruteForce(plants: readonly PottedWoody[], line: readonly LinePot[], canGround: boolean): number {
    const yearsAt = (p: PottedWoody, season: number) =>
      daysBetween(p.plantedOn, about.on) / 365.25 + (season - 2026)
    const ground = { id: 'ground', depthM: Infinity, isSeasonal: false }
    const options = canGround ? [...line, ground] : line
    let best = Infinity
    const walk = (k: number, at: readonly LinePot[], cost: number) => {
      if (cost >= best) return
      if (k === seasons.length) {
        best = cost
        return
      }
      const place = (i: number, next: LinePot[], more: number) => {
        if (i === plants.length) return walk(k + 1, next, cost + more)
        for (const to of options) {
          const from = at[i]!
          if (from === ground && to !== ground) continue
          if (to.depthM < from.depthM || (to !== ground && next.includes(to))) continue
          // To another only where that is deeper than the first it stood in.
          const first = line.find((l) => l.id === plants[i]!.potId)!
          if (to !== first && to.depthM <= first.depthM) continue
          const moved = to === from ? 0 : to === ground ? linePoints.toGround : linePoints.move
          const stays =
            to === ground ? linePoints.inGround : seasonCost(plants[i]!, to, yearsAt(plants[i]!, seasons[k]!))
          place(i + 1, [...next, to], more + moved + stays)
        }
      }
      place(0, [], 0)
    }
    walk(
      0,
      plants.map((p) => line.find((l) => l.id === p.potId)!),
      0,
    )
    return best
  }

  it('go along the line of containers at the least cost there is: as every way tried one by one says', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 18, max: 90 }), { minLength: 2, maxLength: 4 }),
        fc.integer({ min: 2015, max: 2025 }),
        fc.integer({ min: 2015, max: 2025 }),
        fc.boolean(),
        (depths, a, b, canGround) => {
          const line = pots(...depths.map((d) => d / 100))
          const plants: PottedWoody[] = [
            { id: 'laurel', taxon: laurel, plantedOn: `${a}-04-01`, potId: 'pot 0' },
            {
              id: 'camellia',
              taxon: taxonNamed('Camellia japonica'),
              plantedOn: `${b}-04-01`,
              potId: 'pot 1',
            },
          ]
          const { plants: found, cost } = pottingOn(
            plants,
            line,
            seasons,
            { ...about, suitsGround: () => canGround },
            solve,
          )
          expect(cost).toBeCloseTo(bruteForce(plants, line, canGround), 5)
          for (const [k] of seasons.entries()) {
            const used = found.map((p) => p.steps[k]!.potId).filter((id) => id !== null)
            expect(new Set(used).size).toBe(used.length)
          }
        },
      ),
      { numRuns: 40 },
    )
  })

  it('are told by the tallest of a pot; what hangs over the edge goes with the others', () => {
    const of = (name: string, role: string | null) => ({ taxon: taxonNamed(name), role })
    const box = of('Buxus sempervirens', 'filler')
    const ivy = of('Hedera helix', 'trailer')
    expect(leadingWoody([ivy, box, of('Tagetes patula', 'focal')])).toBe(box)
    expect(leadingWoody([ivy])).toBeUndefined()
    const properties = { shape: 'hanging', diameterM: 0.4, depthM: 0.2, rimHeightM: 2 }
    const line = linePots([
      { id: 'basket', properties, plantings: [ivy] },
      { id: 'bay', properties: { ...properties, shape: 'round' }, plantings: [box] },
      { id: 'free', properties: { ...properties, shape: 'round' }, plantings: [] },
      {
        id: 'summer',
        properties: { ...properties, shape: 'round' },
        plantings: [of('Tagetes patula', null)],
      },
    ])
    expect(line.map((p) => [p.id, p.isSeasonal])).toEqual([
      ['bay', false],
      ['free', false],
      ['summer', true],
    ])
    // Before its spring is over it may be potted on in the same year.
    expect(lineSeasons('2026-02-01', false)[0]).toBe(2026)
    expect(lineSeasons('2026-09-01', false)[0]).toBe(2027)
    expect(lineSeasons('2026-09-01', true)[0]).toBe(2027)
  })

  it('stay and have their roots pruned where nothing larger is free, and go to the ground where they may', () => {
    const old: PottedWoody = { id: 'laurel', taxon: laurel, plantedOn: '2008-04-01', potId: 'pot 0' }
    const many = Array.from({ length: 6 }, (_, i) => 2027 + i)
    const [stays] = pottingOn([old], pots(0.35), many, about, solve).plants
    expect(stays!.steps.every((s) => s.potId === 'pot 0' && s.isBound)).toBe(true)
    expect(stays!.steps.map((s) => s.isPruned)).toEqual([true, false, false, true, false, false])
    const [goes] = pottingOn([old], pots(0.35), many, { ...about, suitsGround: () => true }, solve).plants
    expect(goes!.steps.at(-1)!.potId).toBeNull()
  })

  it('of twelve plants and thirty pots over six seasons is worked out in a few seconds', () => {
    const kinds = ['Laurus nobilis', 'Camellia japonica', 'Buxus sempervirens', 'Acer palmatum'].map(
      taxonNamed,
    )
    const line = Array.from({ length: 30 }, (_, i): LinePot => ({
      id: `pot ${i}`,
      depthM: 0.2 + 0.02 * i,
      isSeasonal: i % 3 === 0,
    }))
    const plants = Array.from({ length: 12 }, (_, i): PottedWoody => ({
      id: `p${i}`,
      taxon: kinds[i % 4]!,
      plantedOn: `${2012 + i}-04-01`,
      potId: `pot ${2 * i}`,
    }))
    const began = performance.now()
    const { cost } = pottingOn(plants, line, [2027, 2028, 2029, 2030, 2031, 2032], about, solve)
    expect(cost).toBeLessThan(Infinity)
    expect(performance.now() - began).toBeLessThan(8000)
  })
})

describe('wintering indoors', () => {
  it('brings in what does not bear the winter before it goes out again, hardened, when nights are what it bears', () => {
    const kept = winteringOf(taxonNamed('Pelargonium × hortorum'), climate, '2026-09-01')!
    expect(kept.in.from <= kept.in.to && kept.in.to < kept.hardenFrom).toBe(true)
    expect(daysBetween(kept.hardenFrom, kept.out.from)).toBe(14)
    expect(climate.minC[dayOfYear(kept.out.from) - 1]!).toBeGreaterThanOrEqual(kept.aboveC - 0.5)
    expect(kept.light).toBe('bright')
  })

  it('has nothing to say of what is hardy here', () => {
    expect(winteringOf(taxonNamed('Buxus sempervirens'), climate, '2026-09-01')).toBeUndefined()
  })
})

describe('bulbs in layers', () => {
  const year = { lateDays: 0, south: false }
  const deep = vesselOf({ properties: { shape: 'round', diameterM: 0.4, depthM: 0.45, rimHeightM: 0.5 } })
  const layers = bulbLayers(library, deep, '2026-10-10', year)

  it('lie two to three times their height deep, one above the other with room for shoots, each flowering at its own time', () => {
    expect(layers.length).toBeGreaterThanOrEqual(2)
    layers.forEach(({ taxon, depthM, count, blooms }, i) => {
      const { heightM } = bulbSize(taxon)!
      expect((depthM - heightM) / heightM).toBeGreaterThanOrEqual(2 - 1e-9)
      expect((depthM - heightM) / heightM).toBeLessThanOrEqual(3 + 1e-9)
      expect(count).toBeGreaterThanOrEqual(3)
      expect(blooms.from > '2026-10-10').toBe(true)
      const below = layers[i - 1]
      if (below)
        expect(below.depthM - bulbSize(below.taxon)!.heightM - depthM).toBeGreaterThanOrEqual(0.02 - 1e-9)
    })
  })

  it('are fewer or none in a shallow pot, and only those that suit', () => {
    const shallow = vesselOf({ properties: { shape: 'bowl', diameterM: 0.4, depthM: 0.1, rimHeightM: 0.1 } })
    expect(bulbLayers(library, shallow, '2026-10-10', year).length).toBeLessThan(layers.length)
    expect(bulbLayers(library, deep, '2026-10-10', year, () => false)).toEqual([])
  })
})
