import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { climateOf, generateWeather, withKnown, type Climate } from '../climate/index.ts'
import { addDays } from '../dates/index.ts'
import { madeBed, madePot, rectangle } from '../garden/test/made.ts'
import { library } from '../plants/index.ts'
import {
  careJobs,
  careRules,
  isAtFrostsMercy,
  unsureWords,
  type CaredPlanting,
  type CareGarden,
  type CareJob,
} from './index.ts'
import { careGarden, caredPlanting } from './test/cared.ts'
import { patternAtLatitude } from '../climate/test/atLatitude.ts'

/** What the rules ask for beside what people have decided, and where nothing is left to care for. */

const found = climateOf(generateWeather(patternAtLatitude(52), 2004, 2025), 52)
if (!found.ok) throw new Error(found.reason)
const climate: Climate = found.climate
const ON = '2026-09-14'
const UNTIL = '2027-09-14'

const garden = (plantings: CaredPlanting[], more: Partial<CareGarden> = {}): CareGarden =>
  careGarden(climate, plantings, more)
const jobs = (g: CareGarden): CareJob[] => careJobs(g, ON, UNTIL)
const touching = (g: CareGarden, id: string) => jobs(g).filter((j) => j.plantingIds.includes(id))
const decided = (operation: CareJob['operation'], earliest = ON, latest = '2027-05-01') => [
  { operation, earliest, latest },
]

describe('what a person has decided', () => {
  it('is not asked for again by a rule', () => {
    const cut = touching(garden([caredPlanting('a', 'Miscanthus sinensis')]), 'a').find(
      (j) => j.operation === 'cut back',
    )!
    const again = garden([
      caredPlanting('a', 'Miscanthus sinensis', {
        decided: decided('cut back', cut.window.earliest, cut.window.latest),
      }),
    ])
    expect(
      touching(again, 'a').filter(
        (j) => j.operation === 'cut back' && j.window.earliest === cut.window.earliest,
      ),
    ).toEqual([])
  })

  it('in other weeks leaves the work of these weeks', () => {
    const plain = touching(garden([caredPlanting('a', 'Miscanthus sinensis')]), 'a').map((j) => j.key)
    const g = garden([
      caredPlanting('a', 'Miscanthus sinensis', { decided: decided('cut back', '2026-09-14', '2026-09-20') }),
    ])
    expect(touching(g, 'a').map((j) => j.key)).toEqual(plain)
  })

  it('of a division stands for it whenever it is', () => {
    const helenium = (more: Partial<CaredPlanting>) =>
      touching(garden([caredPlanting('a', 'Helenium autumnale', more)]), 'a').filter(
        (j) => j.operation === 'divide',
      )
    expect(helenium({})).toHaveLength(1)
    expect(helenium({ decided: decided('divide', '2026-09-20', '2026-10-01') })).toEqual([])
  })

  it('of its going leaves nothing to be done for it, and its neighbours as they were', () => {
    const both = [caredPlanting('a', 'Miscanthus sinensis'), caredPlanting('b', 'Helenium autumnale')]
    const leaving = garden([{ ...both[0]!, decided: decided('remove') }, both[1]!])
    expect(touching(leaving, 'a')).toEqual([])
    expect(touching(leaving, 'b').map((j) => [j.ruleId, j.window])).toEqual(
      touching(garden(both), 'b').map((j) => [j.ruleId, j.window]),
    )
  })
})

describe('a division', () => {
  it('that is due is asked for once, however many windows it could have', () => {
    for (const { botanical } of library) {
      const due = touching(garden([caredPlanting('a', botanical, { plantedOn: '2008-04-01' })]), 'a').filter(
        (j) => j.operation === 'divide',
      )
      expect([botanical, due.length <= 1]).toEqual([botanical, true])
    }
  })

  it('counts from the last one', () => {
    const due = (dividedOn?: string) =>
      touching(garden([caredPlanting('a', 'Helenium autumnale', { dividedOn })]), 'a').some(
        (j) => j.operation === 'divide',
      )
    expect(due()).toBe(true)
    expect(due('2026-04-01')).toBe(false)
  })
})

describe('where nothing grows', () => {
  it('no pot is turned over, fed or watered that is empty', () => {
    const inPot = caredPlanting('f', 'Fuchsia magellanica', { placeId: 'pot', x: 9, y: 1 })
    const ofPot = (g: CareGarden) => jobs(g).filter((j) => j.placeId === 'pot')
    expect(ofPot(garden([inPot])).length).toBeGreaterThan(0)
    expect(ofPot(garden([]))).toEqual([])
    expect(ofPot(garden([{ ...inPot, livingCount: 0 }]))).toEqual([])
  })

  it('no plant is cared for that no longer lives', () => {
    for (const botanical of ['Miscanthus sinensis', 'Helenium autumnale', 'Rosa Shrub group'])
      expect(touching(garden([caredPlanting('a', botanical, { livingCount: 0 })]), 'a')).toEqual([])
  })
})

describe('a bed that will be gone', () => {
  const ending = (to: string) =>
    garden([caredPlanting('a', 'Miscanthus sinensis'), caredPlanting('b', 'Helenium autumnale')], {
      places: [madeBed('bed', rectangle(0, 0, 6, 2), { to }), madePot('pot', 9, 1)],
    })

  it('asks for nothing from its last day on', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 360 }), (days) => {
        const to = addDays(ON, days)
        for (const j of jobs(ending(to)))
          if (j.placeId === 'bed' || j.plantingIds.length > 0) expect(j.window.latest < to).toBe(true)
      }),
      { numRuns: 25 },
    )
  })

  it('asks until then for what it would ask for anyway', () => {
    const before = new Set(
      jobs(garden([caredPlanting('a', 'Miscanthus sinensis'), caredPlanting('b', 'Helenium autumnale')])).map(
        (j) => j.ruleId,
      ),
    )
    for (const j of jobs(ending('2027-04-20'))) expect(before).toContain(j.ruleId)
  })
})

describe('windows that hang on frost', () => {
  const guessed: Climate = { ...climate, isSimulated: true }
  const lively = [
    caredPlanting('d', 'Dahlia × pinnata'),
    caredPlanting('m', 'Miscanthus sinensis'),
    caredPlanting('p', 'Penstemon × gloxinioides'),
    caredPlanting('f', 'Fuchsia magellanica', { placeId: 'pot', x: 9, y: 1 }),
  ].filter((p) => p.taxon)

  it('are unsure where the frosts are a guess, and only they', () => {
    const rules = new Map(careRules.map((r) => [r.id, r]))
    const made = jobs(garden(lively, { climate: guessed }))
    expect(made.some((j) => j.unsure)).toBe(true)
    expect(made.some((j) => !j.unsure)).toBe(true)
    for (const j of made)
      expect([j.ruleId, j.unsure !== null]).toEqual([j.ruleId, isAtFrostsMercy(rules.get(j.ruleId!)!)])
  })

  it('are sure by a record, by frost dates and by a zone, whichever is given', () => {
    const sure = [
      climate,
      withKnown(guessed, { lastFrost: '05-05' }),
      withKnown(guessed, { firstFrost: '10-10' }),
      withKnown(guessed, { coldestC: -9 }),
    ]
    for (const c of sure) expect(jobs(garden(lively, { climate: c })).filter((j) => j.unsure)).toEqual([])
  })

  it('say where to give what is missing', () => {
    const rule = careRules.find(isAtFrostsMercy)!
    expect(unsureWords(rule, guessed)).toMatch(/^Unsure: .*Set-up\.$/)
    expect(unsureWords(rule, climate)).toBeNull()
  })

  it('move with the date that is known', () => {
    const early = withKnown(guessed, { lastFrost: '03-20', firstFrost: '11-20' })
    const late = withKnown(guessed, { lastFrost: '05-30', firstFrost: '09-20' })
    const firsts = (c: Climate) =>
      new Map(jobs(garden(lively, { climate: c })).map((j) => [j.ruleId, j.window.earliest] as const))
    const [a, b] = [firsts(early), firsts(late)]
    const moved = [...a].filter(([rule, day]) => b.has(rule) && b.get(rule) !== day)
    expect(moved.length).toBeGreaterThan(0)
    const rules = new Map(careRules.map((r) => [r.id, r]))
    for (const [rule] of moved) expect([rule, isAtFrostsMercy(rules.get(rule!)!)]).toEqual([rule, true])
  })
})
