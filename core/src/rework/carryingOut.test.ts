import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { careRules, plantingWindows, type Window } from '../care/index.ts'
import { climateOf, generateWeather, type Climate } from '../climate/index.ts'
import { patternAtLatitude } from '../climate/test/atLatitude.ts'
import { addDays, dayNumber, maxDay, type IsoDate } from '../dates/index.ts'
import type { Planting } from '../garden/index.ts'
import { taxonNamed } from '../garden/test/made.ts'
import { groundM2, library } from '../plants/index.ts'
import {
  carryingOut,
  plantingTurns,
  type Comes,
  type Goes,
  type SchemeToCarryOut,
  type Step,
} from './index.ts'

const LATITUDES = [52, 42, 33, -34, 64]
const climates = LATITUDES.map((latitude): Climate => {
  const found = climateOf(generateWeather(patternAtLatitude(latitude), 2004, 2025), latitude)
  if (!found.ok) throw new Error(found.reason)
  return found.climate
})
const [maritime] = climates as [Climate]
const BED = { id: 'bed', name: 'Court border', kind: 'bed' as const }
const SHADE = { id: 'shade', name: 'Shade bed', kind: 'bed' as const }

const planting = (tag: string, botanical: string, livingCount: number): Planting => ({
  id: `id of ${tag}`,
  tag,
  taxon: taxonNamed(botanical),
  plantedOn: '2019-04-01',
  plantedKnown: 'day',
  plantedCount: livingCount,
  livingCount,
  source: 'bought',
  role: null,
  colourWish: null,
  fromTag: null,
  placeId: BED.id,
  x: 1,
  y: 1,
  radiusM: null,
  outline: null,
  inPlaceSince: '2019-04-01',
})
const comes = (id: string, botanical: string, count: number, more: Partial<Comes> = {}): Comes => {
  const taxon = taxonNamed(botanical)
  const areaM2 = groundM2(count, taxon.spacingM)
  return { id, taxon, count, have: 0, areaM2, stand: { x: 1, y: 1, outline: null }, over: [], ...more }
}
const scheme = (more: Partial<SchemeToCarryOut> = {}): SchemeToCarryOut => ({
  place: BED,
  leaving: [],
  dividing: [],
  fetched: [],
  comes: [],
  plantedM2: 8,
  compostM: 0.03,
  mulchM: 0.05,
  extras: [],
  hazards: [],
  climate: maritime,
  lateDays: 0,
  schools: {},
  rules: careRules,
  ...more,
})
const stepsOf = (of: SchemeToCarryOut, on: IsoDate) => {
  const found = carryingOut(of, on)
  if (!found.ok) throw new Error(JSON.stringify(found.problems))
  return found
}
const keys = (steps: readonly Step[]) => steps.map((s) => s.key)

/** Kinds that can be lifted, planted and divided in any of the climates. */
const kinds = library.filter(
  (t) =>
    t.moveWhen !== 'never' &&
    t.divideHow !== null &&
    climates.every((c) => plantingWindows(t, c, '2026-12-01').ok) &&
    climates.every(
      (climate) =>
        carryingOut(
          scheme({
            climate,
            leaving: [{ planting: planting('A-1', t.botanical, 1), goes: { to: 'bench' } }],
            dividing: [{ planting: planting('A-2', t.botanical, 1), spare: 1 }],
          }),
          '2026-12-01',
        ).ok,
    ),
)
const goes: Goes[] = [
  { to: 'spot', place: SHADE, x: 4, y: 4, hazards: [] },
  { to: 'bench' },
  { to: 'give away' },
  { to: 'gone' },
]
const anyKind = fc.constantFrom(...kinds.map((t) => t.botanical))
const few = fc.integer({ min: 1, max: 12 })
const anyScheme = fc
  .record({
    climate: fc.nat(climates.length - 1),
    leaving: fc.array(fc.tuple(anyKind, few, fc.constantFrom(...goes)), { maxLength: 5 }),
    dividing: fc.array(fc.tuple(anyKind, few, few), { maxLength: 2 }),
    comes: fc.array(fc.tuple(anyKind, few, fc.boolean()), { minLength: 1, maxLength: 8 }),
    mulchM: fc.constantFrom(0, 0.05),
    schools: fc.constantFrom({}, { 'mulch-order': 'before' }),
  })
  .map(
    // Told by what it is made from: a climate is long.
    (said) => ({
      said,
      toString: () => JSON.stringify({ ...said, leaving: said.leaving.map(([k, n, g]) => [k, n, g.to]) }),
    }),
  )

const made = ({
  said: { climate, mulchM, schools, ...of },
}: typeof anyScheme extends fc.Arbitrary<infer S> ? S : never) => {
  const dividing = of.dividing.map(([kind, count, spare], i) => ({
    planting: planting(`D-${i}`, kind, count),
    spare,
  }))
  const left = new Map<string, number>()
  for (const { planting: p, spare } of dividing)
    left.set(p.taxon.botanical, spare + (left.get(p.taxon.botanical) ?? 0))
  const leaving = of.leaving.map(([kind, count, to], i) => ({
    planting: planting(`L-${i}`, kind, count),
    goes: to,
  }))
  return scheme({
    climate: climates[climate]!,
    mulchM,
    schools,
    leaving,
    dividing,
    comes: of.comes.map(([kind, count, over], i) => {
      const have = Math.min(count, left.get(kind) ?? 0)
      left.set(kind, (left.get(kind) ?? 0) - have)
      return comes(`drift ${i}`, kind, count, {
        have,
        over: over ? leaving.slice(0, 1).map((l) => l.planting.id) : [],
      })
    }),
  })
}
const anyDay = fc.integer({ min: 0, max: 364 }).map((d) => addDays('2026-01-01', d))

describe('a scheme carried out', () => {
  it('has steps in an order in which they can be done, each within its window', () => {
    fc.assert(
      fc.property(anyScheme, anyDay, (any, on) => {
        const of = made(any)
        const { steps } = stepsOf(of, on)
        expect(new Set(keys(steps)).size).toBe(steps.length)
        // Done as soon as each can be, one after another.
        const doneOn = new Map<string, IsoDate>()
        for (const { key, window: w, after } of steps) {
          expect(w.earliest <= w.bestFrom && w.bestFrom <= w.bestTo && w.bestTo <= w.latest, key).toBe(true)
          expect(w.earliest >= on || key.includes('check'), key).toBe(true)
          for (const a of after) expect(doneOn.has(a.key), `${key} after ${a.key}`).toBe(true)
          const opens = key.includes('check') ? on : w.earliest
          const day = maxDay(opens, ...after.map((a) => addDays(doneOn.get(a.key)!, a.leastDays)))
          if (!key.includes('check')) expect(day <= w.latest, `${key}: ${day}, ${w.latest}`).toBe(true)
          doneOn.set(key, day)
        }
      }),
      { numRuns: 150 },
    )
  })

  it('moves exactly what it says, and loses and makes up no plant', () => {
    fc.assert(
      fc.property(anyScheme, anyDay, (any, on) => {
        const of = made(any)
        const { steps } = stepsOf(of, on)
        const before = [...of.leaving, ...of.dividing].map((l) => l.planting)
        const standing = new Map(before.map((p) => [p.id, p.livingCount]))
        const bench = new Map<string, number>()
        const planted = new Map<string, number>()
        let [gone, bought, divided] = [0, 0, 0]
        const total = (of: ReadonlyMap<string, number>) => [...of.values()].reduce((a, b) => a + b, 0)
        for (const { kind, plantingId, sets, spare, target } of steps) {
          const handled = before.find((p) => p.id === plantingId)
          const name = handled?.taxon.botanical ?? ''
          const add = (count: number) => bench.set(name, count + (bench.get(name) ?? 0))
          if (kind === 'lift') add(standing.get(plantingId!)!)
          if (kind === 'remove') gone += standing.get(plantingId!)!
          if (kind === 'lift' || kind === 'remove') standing.set(plantingId!, 0)
          if (kind === 'move') expect(target).toMatchObject({ placeId: SHADE.id, x: 4, y: 4 })
          if (kind === 'divide') {
            add(spare!)
            divided += spare!
          }
          if (sets) {
            const kind = sets.taxon.botanical
            // What one has is there by then.
            expect(bench.get(kind) ?? 0).toBeGreaterThanOrEqual(sets.have)
            bench.set(kind, (bench.get(kind) ?? 0) - sets.have)
            bought += sets.count - sets.have
            planted.set(sets.id, sets.count)
          }
        }
        expect(planted).toEqual(new Map(of.comes.map((c) => [c.id, c.count])))
        const had = before.reduce((sum, p) => sum + p.livingCount, 0)
        expect(had + bought + divided).toBe(total(standing) + total(bench) + total(planted) + gone)
        // Every planting that leaves has exactly one step that takes it out; what is divided stays.
        for (const { planting: p, goes: g } of of.leaving) {
          const out = steps.filter(
            (s) => s.plantingId === p.id && ['move', 'lift', 'remove'].includes(s.kind),
          )
          expect(out.map((s) => s.kind)).toEqual([
            g.to === 'spot' ? 'move' : g.to === 'bench' ? 'lift' : 'remove',
          ])
        }
      }),
      { numRuns: 100 },
    )
  })

  it('plants each kind in a window of its own, on days that all of its turn share', () => {
    fc.assert(
      fc.property(anyScheme, anyDay, (any, on) => {
        const of = made(any)
        const { steps, turns } = stepsOf(of, on)
        expect(turns.flatMap((t) => t.ids).toSorted()).toEqual(of.comes.map((c) => c.id).toSorted())
        for (const { ids, window } of turns) {
          expect(dayNumber(window.latest) - dayNumber(window.earliest)).toBeGreaterThanOrEqual(5)
          for (const id of ids) {
            const { sets, window: own } = steps.find((s) => s.sets?.id === id)!
            expect(own.earliest <= window.earliest && window.latest <= own.latest).toBe(true)
            const known = [on, addDays(on, 365)].flatMap((day) => {
              const found = plantingWindows(sets!.taxon, of.climate, day)
              return found.ok ? found.windows.map((w) => w.window.latest) : []
            })
            expect(known).toContain(own.latest)
          }
        }
      }),
      { numRuns: 100 },
    )
  })

  it('makes the destination ready before anything is lifted, and clears only what is empty', () => {
    const { steps } = stepsOf(
      scheme({
        leaving: [
          { planting: planting('A-1', 'Hosta sieboldiana', 3), goes: goes[0]! },
          { planting: planting('A-2', 'Phlox paniculata', 5), goes: { to: 'bench' } },
        ],
        dividing: [{ planting: planting('A-3', 'Geranium sanguineum', 2), spare: 4 }],
        comes: [comes('d', 'Geranium sanguineum', 9, { have: 4 }), comes('e', 'Helenium autumnale', 5)],
      }),
      '2026-12-01',
    )
    const after = (key: string) => steps.find((s) => s.key === key)!.after.map((a) => a.key)
    expect(after('A-1/move')).toEqual(['make ready 1'])
    expect(after('clear')).toEqual(['A-1/move', 'A-2/lift'])
    expect(after('mend')).toEqual(['clear'])
    expect(after('soil')).toEqual(['mend'])
    // The pieces of the division are there before they are set out.
    expect(after('set out/1')).toEqual(['soil', 'A-3/divide'])
    expect(after('plant/d')).toEqual(['set out/1'])
    expect(after('finish/1')).toEqual(['plant/d', 'plant/e'])
    expect(after('turn 1/check-1')).toEqual(['finish/1'])
  })

  it('follows the school of mulching', () => {
    const of = { comes: [comes('d', 'Helenium autumnale', 5)] }
    const materials = (steps: Step[], key: string) =>
      steps.find((s) => s.key === key)?.materials.map((m) => m.name) ?? null
    const after = stepsOf(scheme(of), '2027-02-01').steps
    expect(materials(after, 'mulch')).toBeNull()
    expect(materials(after, 'finish/1')).toContain('Mulch')
    const before = stepsOf(scheme({ ...of, schools: { 'mulch-order': 'before' } }), '2027-02-01').steps
    expect(materials(before, 'mulch')).toEqual(['Mulch'])
    expect(materials(before, 'finish/1')).not.toContain('Mulch')
    expect(before.find((s) => s.key === 'set out/1')!.after[0]!.key).toBe('mulch')
  })

  it('lets bulbs and peonies wait for autumn where the rest is planted in spring', () => {
    const { turns } = stepsOf(
      scheme({
        comes: [
          comes('a', 'Helenium autumnale', 25),
          comes('b', 'Miscanthus sinensis', 3),
          comes('c', 'Paeonia lactiflora', 1),
          comes('d', 'Galanthus nivalis', 30),
        ],
      }),
      '2026-12-01',
    )
    expect(turns.map((t) => [...t.ids])).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ])
    expect(turns[0]!.window.earliest.slice(0, 7)).toBe('2027-04')
    expect(['2027-08', '2027-09']).toContain(turns[1]!.window.earliest.slice(0, 7))
    expect(turns[1]!.says).toMatch(/^Paeonia lactiflora and Galanthus nivalis wait for their own season/)
  })

  it('plants round what can be lifted only later, and its ground after it', () => {
    // An iris is lifted in summer; the rest of the bed would wait for it from spring on.
    const iris = planting('A-1', 'Iris germanica', 3)
    const others = ['A-2', 'A-3', 'A-4'].map((tag) => ({
      planting: planting(tag, 'Phlox paniculata', 3),
      goes: { to: 'bench' as const },
    }))
    const { steps, turns } = stepsOf(
      scheme({
        leaving: [{ planting: iris, goes: { to: 'bench' } }, ...others],
        comes: [
          comes('round', 'Helenium autumnale', 20),
          comes('over', 'Geranium sanguineum', 3, { over: [iris.id] }),
        ],
      }),
      '2026-12-01',
    )
    expect(turns.map((t) => [...t.ids])).toEqual([['round'], ['over']])
    expect(turns[0]!.says).toContain('planted round A-1')
    const after = (key: string) => steps.find((s) => s.key === key)!.after.map((a) => a.key)
    expect(after('clear')).not.toContain('A-1/lift')
    expect(after('set out/2')).toContain('A-1/lift')
  })

  it('says what cannot be lifted or planted, and makes no step of it', () => {
    const never = library.find((t) => t.moveWhen === 'never')!
    const found = carryingOut(
      scheme({ leaving: [{ planting: planting('A-1', never.botanical, 1), goes: { to: 'bench' } }] }),
      '2026-12-01',
    )
    expect(found).toEqual({
      ok: false,
      problems: [
        {
          about: 'id of A-1',
          says: `A-1 ${never.botanical} resents moving: let it stay, or take it out for good.`,
        },
      ],
    })
    const far = carryingOut(
      scheme({ climate: climates[4]!, comes: [comes('d', 'Iris germanica', 3)] }),
      '2026-12-01',
    )
    expect(far).toMatchObject({ ok: false, problems: [{ about: 'Iris germanica' }] })
  })
})

describe('turns of planting', () => {
  const why = { earliest: 'a', bestFrom: 'b', bestTo: 'c', latest: 'd' }
  const window = (earliest: IsoDate, latest: IsoDate): Window => ({
    season: 'any time',
    earliest,
    bestFrom: earliest,
    bestTo: latest,
    latest,
    why,
  })
  const spring = window('2027-03-20', '2027-05-10')
  const autumn = window('2027-09-10', '2027-11-01')
  const turnsOf = (of: [string, number, Window[]][], lifts: Window[][] = []) =>
    plantingTurns(
      of.map(([id, areaM2, windows]) => ({ id, areaM2, windows })),
      lifts.map((windows) => ({ windows, areaM2: 0.5 })),
      '2026-12-01',
    ).map((t) => [t.window.earliest, t.planted.map((p) => p.id).join('')])

  it('weigh how much of the bed can be planted against the wait', () => {
    const both = [spring, autumn]
    expect(
      turnsOf([
        ['a', 9, both],
        ['b', 1, both],
      ]),
    ).toEqual([['2027-03-20', 'ab']])
    // Nine tenths of the bed are worth half a year; a tenth is not.
    expect(
      turnsOf([
        ['a', 9, [autumn]],
        ['b', 1, both],
      ]),
    ).toEqual([['2027-09-10', 'ab']])
    expect(
      turnsOf([
        ['a', 1, [autumn]],
        ['b', 9, both],
      ]),
    ).toEqual([
      ['2027-03-20', 'b'],
      ['2027-09-10', 'a'],
    ])
  })

  it('wait for what has to be lifted before', () => {
    expect(turnsOf([['a', 1, [spring, autumn]]], [[window('2027-07-01', '2027-08-01')]])).toEqual([
      ['2027-09-10', 'a'],
    ])
  })

  it('leave out what has no window, and come to an end', () => {
    expect(turnsOf([['a', 1, []]])).toEqual([])
    expect(
      turnsOf([
        ['a', 1, [window('2026-11-01', '2026-12-03')]],
        ['b', 1, [spring]],
      ]),
    ).toEqual([['2027-03-20', 'b']])
  })
})
