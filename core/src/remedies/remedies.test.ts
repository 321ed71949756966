import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { operations } from '../care/index.ts'
import { climateOf, generateWeather, type Climate } from '../climate/index.ts'
import { addDays, isoDate } from '../dates/index.ts'
import { signCauses, signs, type SignId } from '../diagnosis/index.ts'
import { library, USUAL_YEAR, yearAt } from '../plants/index.ts'
import { actions, alwaysWeighed, isLeftAlone, remedies, remediesFor, remedyJobs } from './index.ts'
import { holds, isColdOn, isOfKind, stageOn, stages, type Opening, type Situation } from './situation.ts'
import { patternAtLatitude } from '../climate/test/atLatitude.ts'

const climateAt = (latitude: number): Climate => {
  const found = climateOf(generateWeather(patternAtLatitude(latitude), 2008, 2022), latitude)
  if (!found.ok) throw new Error(found.reason)
  return found.climate
}
const climates = [52, 42, 33, -34, 62].map(climateAt)
const allSigns = signs.map((s) => s.id)

const situation = (more: Partial<Situation>): Situation => ({
  taxon: library[0]!,
  on: '2026-06-10',
  year: USUAL_YEAR,
  signs: [],
  signsOn: {},
  stage: 'before bloom',
  season: 5,
  place: 'bed',
  light: 'right',
  ground: 'unknown',
  living: 1,
  planted: 3,
  rating: null,
  overgrown: false,
  isDivisionDue: false,
  isCold: false,
  again: null,
  ...more,
})

const opening = (clearStemM: number | null, thinnedBy: number | null): Opening => ({
  obstructionId: 'walnut',
  tree: 'Walnut',
  clearStemM,
  thinnedBy,
  hours: 5.5,
  gainHours: 1.5,
  alsoRight: 2,
  spoilt: 1,
})
const made = { opening: opening(3, 0.25) }

const anySituation: fc.Arbitrary<Situation> = fc
  .record({
    taxon: fc.constantFrom(...library),
    climate: fc.constantFrom(...climates),
    day: fc.integer({ min: 0, max: 364 }),
    seen: fc.subarray(allSigns, { minLength: 1, maxLength: 3 }),
    season: fc.integer({ min: 1, max: 12 }),
    place: fc.constantFrom('bed' as const, 'container' as const),
    light: fc.constantFrom('too little' as const, 'right' as const, 'too much' as const),
    ground: fc.constantFrom('too dry' as const, 'right' as const, 'too wet' as const, 'unknown' as const),
    living: fc.constantFrom(0.3, 0.6, 1),
    rating: fc.option(fc.integer({ min: 1, max: 5 })),
    overgrown: fc.boolean(),
    isDivisionDue: fc.boolean(),
    again: fc.constantFrom('yes' as const, 'no' as const, 'not here' as const, null),
    opening: fc.constantFrom(undefined, opening(3, null), opening(null, 0.25), opening(3, 0.25)),
    elsewhere: fc.subarray(['wet', 'dry'] as const),
    likely: fc.option(
      fc.record({ cause: fc.constantFrom(...signCauses), share: fc.double({ min: 0, max: 1, noNaN: true }) }),
      { nil: undefined },
    ),
  })
  .map(({ day, seen, ...more }) => {
    const on = addDays('2026-01-01', day)
    const year = yearAt(more.climate)
    return situation({
      ...more,
      on,
      year,
      signs: seen,
      stage: stageOn(more.taxon, on, year),
      isCold: isColdOn(on, year, more.climate),
    })
  })

describe('the table of remedies', () => {
  it('names each once, speaks in sentences, and says of each what it costs to wait', () => {
    expect(new Set(remedies.map((r) => r.id)).size).toBe(remedies.length)
    const opening = made.opening!
    for (const r of remedies) {
      const said = (w: typeof r.says) => (typeof w === 'string' ? w : w.ofOpening(opening))
      expect([r.id, said(r.says)]).toEqual([r.id, expect.stringMatching(/^[A-Z].*\.$/)])
      expect([r.id, said(r.does)]).toEqual([r.id, expect.stringMatching(/^[A-Z].*[^.]$/)])
      expect([r.id, r.waiting]).toEqual([r.id, expect.stringMatching(/^[A-Z].*\.$/)])
      for (const step of r.steps) expect([r.id, step]).toEqual([r.id, expect.stringMatching(/^[A-Z].*\.$/)])
      if (r.work) expect(operations).toContain(r.work.operation)
    }
  })

  it('has something for every sign but self-sown plants that are welcome, and nothing for none', () => {
    const answered = new Set(remedies.flatMap((r) => [...(r.when.signs ?? []), ...(r.when.allSigns ?? [])]))
    expect(allSigns.filter((s) => !answered.has(s))).toEqual(['volunteers'])
    const idle = remedies.filter((r) => !r.when.signs && !r.when.allSigns)
    // What is asked for without a sign hangs on how many live, on the light at a pot, or on what shades it.
    for (const { id, when } of idle)
      expect([id, when.livingAtMost ?? when.opens ?? (when.place === 'container' || null)]).not.toEqual([
        id,
        null,
      ])
  })

  it('has no row that no plant of the library could come to', () => {
    for (const r of remedies) expect([r.id, library.some((t) => isOfKind(t, r.when))]).toEqual([r.id, true])
  })

  it('asks for work wherever its action is more than leaving alone or what the rules of care know', () => {
    for (const r of remedies) {
      const known = (alwaysWeighed as readonly string[]).includes(r.action) || isLeftAlone(r.action)
      if (!known) expect([r.id, r.work !== undefined]).toEqual([r.id, true])
    }
    for (const a of actions.filter((x) => !(alwaysWeighed as readonly string[]).includes(x)))
      expect([a, remedies.some((r) => r.action === a)]).toEqual([a, true])
  })
})

describe('what is offered', () => {
  it('can be done: as a job in a window that is not over, for every kind, season and climate', () => {
    fc.assert(
      fc.property(anySituation, (s) => {
        for (const r of remediesFor(s).offered) {
          const { work, time } = remedies.find((x) => x.id === r.id)!
          expect(r.window === null).toBe((work?.time ?? time) === undefined)
          if (!r.window) continue
          const { earliest, bestFrom, bestTo, latest } = r.window
          expect([s.on, earliest, bestFrom, bestTo, latest]).toEqual(
            [s.on, earliest, bestFrom, bestTo, latest].toSorted(),
          )
          if (!work) continue
          const asked = { taxon: s.taxon, count: 2, place: 'Bed', year: s.year }
          const planned = remedyJobs(r, asked, s.climate!, s.on)
          expect(planned.ok).toBe(true)
          if (!planned.ok) continue
          const [job] = planned.jobs
          expect(job!.window).toEqual(r.window)
          expect(job!.minutes).toBeGreaterThanOrEqual(5)
          expect(job!.steps[0]).toBe(r.does)
          expect(job!.missed).toBe(r.waiting)
        }
      }),
      { numRuns: 400 },
    )
  })

  it('lifts nothing that resents it, cuts no conifer or lavender hard, and waters nothing that drowns', () => {
    fc.assert(
      fc.property(anySituation, (s) => {
        const found = remediesFor(s).offered
        const does = (action: string) => found.some((r) => r.action === action)
        if (s.taxon.moveWhen === 'never') expect(does('lift and replant')).toBe(false)
        if (!s.taxon.bearsHardCut) expect(does('renew')).toBe(false)
        if (s.taxon.divideYears === null) expect(does('divide')).toBe(false)
        if (s.signs.includes('stays-wet') && !s.signs.includes('runs-off'))
          expect(does('check water')).toBe(false)
        if (s.taxon.feed === 'none') expect(does('feed')).toBe(false)
      }),
      { numRuns: 400 },
    )
  })

  it('without a climate is what needs none: the rest is named, and not proposed', () => {
    fc.assert(
      fc.property(anySituation, (s) => {
        const { offered, none } = remediesFor({ ...s, climate: null })
        for (const r of offered) {
          const { work, time } = remedies.find((x) => x.id === r.id)!
          expect('withinDays' in (work?.time ?? time ?? { withinDays: 0 })).toBe(true)
          if (!work) continue
          const asked = { taxon: s.taxon, count: 2, place: 'Bed', year: s.year }
          expect(remedyJobs(r, asked, null, s.on).ok).toBe(true)
        }
        const dated = remediesFor(s).offered.length + remediesFor(s).none.length
        expect(offered.length + none.length).toBe(dated)
      }),
      { numRuns: 200 },
    )
  })

  it('is strongest first, and names only signs that were seen', () => {
    fc.assert(
      fc.property(anySituation, (s) => {
        const { offered } = remediesFor(s)
        const points = offered.map((r) => r.points)
        expect(points).toEqual(points.toSorted((a, b) => b - a))
        for (const sign of offered.flatMap((r) => r.signs)) expect(s.signs).toContain(sign)
      }),
      { numRuns: 200 },
    )
  })

  it('of thirst and pests is no longer what was seen two months ago', () => {
    const wilting = {
      signs: ['wilting'] as SignId[],
      taxon: library.find((t) => t.botanical === 'Astrantia major')!,
    }
    const ids = (s: Situation) => remediesFor(s).offered.map((r) => r.id)
    expect(ids(situation(wilting))).toContain('water-wilting')
    expect(ids(situation({ ...wilting, signsOn: { wilting: '2026-04-10' } }))).not.toContain('water-wilting')
  })

  it('says how much season is left to regrow in, by the day', () => {
    const eaten = {
      taxon: library.find(
        (t) => t.lifeForm === 'perennial' && t.troubles.some((x) => x === 'sawfly' || x === 'caterpillars'),
      )!,
      signs: ['chewed'] as SignId[],
    }
    const said = (on: string) =>
      remediesFor(situation({ ...eaten, on })).offered.find((r) => r.id === 'regrows-caterpillars')!.says
    const weeks = (on: string) => Number(/Some (\d+) weeks/.exec(said(on))?.[1])
    expect(weeks('2026-06-01') - weeks('2026-07-06')).toBe(5)
    expect(said('2026-09-30')).toContain('nearly over')
  })
})

describe('circumstances', () => {
  it('hold of what they name and of nothing that breaks one of them', () => {
    const s = situation({ signs: ['flopping'], rating: 3, season: 4, living: 0.5 })
    expect(holds({ signs: ['flopping', 'leaning'], fromSeason: 4, livingAtMost: 0.5 }, s)).toBe(true)
    for (const broken of [
      { signs: ['leaning'] as const },
      { allSigns: ['flopping', 'leaning'] as const },
      { notSigns: ['flopping'] as const },
      { fromSeason: 5 },
      { untilSeason: 3 },
      { livingAtLeast: 0.6 },
      { plantedAtLeast: 4 },
      { ratingAtLeast: 4 },
      { ratingAtMost: 2 },
      { thriving: true },
      { place: 'container' as const },
      { stage: ['dormant'] as const },
      { light: ['too little'] as const },
      { overgrown: true },
      { cold: true },
      { divisionDue: true as const },
    ])
      expect([broken, holds(broken, s)]).toEqual([broken, false])
  })

  it('turn by half a year in the south', () => {
    for (const month of [1, 4, 7, 10]) {
      const north = isoDate(2026, month, 15)
      const south = isoDate(2026, ((month + 5) % 12) + 1, 15)
      expect(isColdOn(north, { ...USUAL_YEAR, south: false }, undefined)).toBe(
        isColdOn(south, { ...USUAL_YEAR, south: true }, undefined),
      )
    }
    expect(stages).toContain(stageOn(library[0]!, '2026-06-10', { ...USUAL_YEAR, south: true }))
  })
})

describe('what is known beside the signs', () => {
  const pointsOf = (id: string, more: Partial<Situation>) =>
    remediesFor(situation({ climate: climates[0]!, ...more })).offered.find((r) => r.id === id)?.points

  it('counts what is likely for its answer and against the answers to what is not the matter', () => {
    const thirsty = { signs: ['wilting'] as SignId[], ground: 'too dry' as const }
    const plain = pointsOf('water-dry', thirsty)!
    const believed = (cause: 'drier' | 'pest or disease', share: number) =>
      pointsOf('water-dry', { ...thirsty, likely: { cause, share } })!
    expect(believed('drier', 0.9)).toBeGreaterThan(believed('drier', 0.5))
    expect(believed('drier', 0.5)).toBeGreaterThan(plain)
    expect(believed('pest or disease', 0.9)).toBeLessThan(plain)
    // Hardly believed, it decides nothing.
    expect(believed('pest or disease', 0.2)).toBe(plain)
  })

  it('says of ground that only signs speak of that nobody has measured it', () => {
    const says = (isGroundSuspected: boolean) =>
      remediesFor(situation({ signs: ['wilting'], ground: 'too dry', isGroundSuspected })).offered.find(
        (r) => r.id === 'water-dry',
      )!.says
    expect(says(true)).toMatch(/nobody has measured it/)
    expect(says(false)).not.toMatch(/measured/)
  })

  it('wet one bed and dry the next is a matter of pipes, and neither alone is', () => {
    const asked = (signs: SignId[], elsewhere: Situation['elsewhere']) =>
      remediesFor(situation({ signs, elsewhere })).offered[0]!.id
    expect(asked(['wilting'], ['wet'])).toBe('share-water-dry')
    expect(asked(['stays-wet'], ['dry'])).toBe('share-water-wet')
    expect(asked(['wilting'], ['dry'])).not.toMatch(/share/)
    expect(asked(['stays-wet'], [])).toBe('drain-drowned')
  })

  it('goes by the record of the kind and of the place: like, otherwise, or elsewhere', () => {
    const asked = (again: Situation['again']) =>
      remediesFor(situation({ living: 0.3, planted: 3, rating: 3, again })).offered.find(
        (r) => r.action === 'replace',
      )?.id
    expect([asked('yes'), asked('no'), asked('not here'), asked(null)]).toEqual([
      'replace-like',
      'replace-otherwise',
      'replace-elsewhere',
      undefined,
    ])
  })

  it('speaks of the tree by name, with what the cut gives, and plans the job on it', () => {
    const s = situation({ climate: climates[0]!, light: 'too little', opening: opening(3, null) })
    const found = remediesFor(s).offered.find((r) => r.action === 'limb up')!
    expect(found.says).toMatch(/^Walnut shades it.* 3 m .*1½ h more sun a day.*5½ h.*2 other plantings/)
    const planned = remedyJobs(
      found,
      { taxon: s.taxon, count: 1, place: 'Bed', year: s.year },
      s.climate!,
      s.on,
    )
    expect(planned.ok && planned.jobs[0]).toMatchObject({ title: 'Limb up: Walnut', kind: 'prune' })
    // The more is lacking and the more comes right, the more it is worth; what it spoils counts against it.
    const worth = (more: Partial<Opening>) =>
      remediesFor({ ...s, opening: { ...opening(3, null), ...more } }).offered.find(
        (r) => r.action === 'limb up',
      )!.points
    expect(worth({ gainHours: 3.5 })).toBeGreaterThan(worth({}))
    expect(worth({ alsoRight: 3 })).toBeGreaterThan(worth({ alsoRight: 0 }))
    expect(worth({ spoilt: 2 })).toBeLessThan(worth({ spoilt: 0 }))
    expect(remediesFor({ ...s, light: 'right' }).offered.some((r) => r.action === 'limb up')).toBe(false)
  })
})
