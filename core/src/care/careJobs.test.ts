import { describe, expect, it } from 'vitest'
import { climateOf, generateWeather, patternAt } from '../climate/index.ts'
import { addDays, daysBetween, weekdayOf } from '../dates/index.ts'
import type { Bed } from '../garden/index.ts'
import { library } from '../plants/index.ts'
import { madeBed, madePot, rectangle, taxonNamed } from '../garden/test/made.ts'
import {
  careJobs,
  careRules,
  decidedJobs,
  measuredLabour,
  NO_EDITS,
  rulesWith,
  schools,
  type CaredPlanting,
  type CareGarden,
} from './index.ts'
import { careGarden, caredPlanting } from './test/cared.ts'
import { patternAtLatitude } from '../climate/test/atLatitude.ts'

const result = climateOf(
  generateWeather({ ...patternAtLatitude(52.1), annualMeanC: 10.4, seasonalAmplitudeC: 6.8 }, 2008, 2025),
  52.1,
)
if (!result.ok) throw new Error(result.reason)
const { climate } = result

const planting = (id: string, botanical: string, more: Partial<CaredPlanting> = {}): CaredPlanting =>
  // Three cover a square metre.
  caredPlanting(id, botanical, { radiusM: Math.sqrt(1 / Math.PI), ...more })
const bed = (more: Partial<Bed> = {}) =>
  madeBed('bed', rectangle(0, 0, 6, 2), { name: 'Court border', ...more })
const garden = (plantings: CaredPlanting[], more: Partial<CareGarden> = {}): CareGarden =>
  careGarden(climate, plantings, {
    places: [bed(), madePot('pot', 9, 1, { name: 'Door pot', areaM2: 0.2 })],
    ...more,
  })
const jobs = (g: CareGarden) => careJobs(g, '2026-09-14', '2027-09-14')
const ofRule = (g: CareGarden, id: string) => jobs(g).filter((j) => j.ruleId === id)

describe('the work a season brings', () => {
  const grasses = [planting('a', 'Miscanthus sinensis'), planting('b', 'Panicum virgatum')]

  it('is one job for what is done together, in a window all of it bears', () => {
    const [job, ...more] = ofRule(garden(grasses), 'cut-back-warm-grass')
    expect(more).toEqual([])
    expect(job!.plantingIds).toEqual(['a', 'b'])
    expect(job!.title).toBe('Cut back Miscanthus sinensis and Panicum virgatum')
    expect(job!.window.earliest <= job!.window.bestFrom && job!.window.bestTo <= job!.window.latest).toBe(
      true,
    )
  })

  it('keeps its key, leaves out what is done, and comes again next year', () => {
    const [job] = ofRule(garden(grasses), 'cut-back-warm-grass')
    expect(ofRule(garden([...grasses].reverse()), 'cut-back-warm-grass')[0]!.key).toBe(job!.key)
    const stem = job!.key.replace(/\/[^/]*$/, '')
    const [rest] = ofRule(garden(grasses, { done: new Set([`${stem}/a`]) }), 'cut-back-warm-grass')
    expect(rest!.plantingIds).toEqual(['b'])
    expect(daysBetween(job!.window.earliest, job!.nextChance!)).toBe(365)
  })

  it('comes round while a window is open, and never before it', () => {
    const turns = ofRule(garden([planting('a', 'Rosa Shrub group')]), 'deadhead').filter(
      (j) => j.window.earliest >= '2027-01-01',
    )
    expect(turns.length).toBeGreaterThan(6)
    turns
      .slice(1)
      .forEach((t, i) => expect(daysBetween(turns[i]!.window.bestFrom, t.window.bestFrom)).toBe(14))
    // However they are placed, two turns lie at least half the time apart, and a weekly visit meets each.
    turns.slice(1).forEach((t, i) => {
      expect(daysBetween(turns[i]!.window.latest, t.window.earliest)).toBeGreaterThanOrEqual(7)
      if (i < turns.length - 2)
        expect(daysBetween(t.window.earliest, t.window.latest)).toBeGreaterThanOrEqual(6)
    })
  })

  it('feeds nothing in the spring after its roots were cut, and all else as ever', () => {
    const rose = (inPlaceSince: string) =>
      ofRule(
        garden([planting('a', 'Rosa Shrub group', { plantedOn: '2020-03-01', inPlaceSince })]),
        'feed-hungry-organic',
      ).filter((j) => j.window.earliest >= '2027-01-01')
    expect(rose('2026-10-20')).toEqual([])
    expect(rose('2026-03-20')).toHaveLength(1)
    expect(rose('2020-03-01')).toHaveLength(1)
  })

  it('takes no spent flowers off in the depth of a cold winter', () => {
    const found = climateOf(
      generateWeather({ ...patternAtLatitude(48), annualMeanC: 4, seasonalAmplitudeC: 16 }, 2008, 2025),
      48,
    )
    if (!found.ok) throw new Error(found.reason)
    const pansies = [
      planting('a', 'Viola × wittrockiana', { plantedOn: '2026-09-01', inPlaceSince: '2026-09-01' }),
    ]
    const turns = careJobs(
      careGarden(found.climate, pansies, { places: [bed()] }),
      '2026-09-14',
      '2027-09-14',
    )
      .filter((j) => j.ruleId === 'deadhead')
      .map((j) => j.window.bestFrom.slice(5, 7))
    expect(turns.length).toBeGreaterThan(3)
    for (const month of ['12', '01', '02']) expect(turns).not.toContain(month)
  })

  it('sees to the ties of young trees alone', () => {
    const ties = (plantedOn: string) =>
      ofRule(
        garden([planting('a', 'Malus Flowering crab group', { plantedOn, inPlaceSince: plantedOn })]),
        'tree-ties',
      )
    expect(ties('2025-11-10').length).toBeGreaterThan(0)
    expect(ties('2018-11-10')).toEqual([])
  })

  it('divides when the usual interval is over, and leaves the young alone', () => {
    const due = (plantedOn: string) =>
      ofRule(garden([planting('a', 'Helenium autumnale', { plantedOn })]), 'divide-spring').length
    expect(due('2019-04-01')).toBeGreaterThan(0)
    expect(due('2025-04-01')).toBe(0)
    expect(
      jobs(garden([planting('a', 'Astrantia major', { plantedOn: '2026-05-01' })])).filter(
        (j) => j.plantingIds.length > 0 && j.window.latest < '2027-01-01',
      ),
    ).toEqual([])
  })

  it('follows the school of the garden and says the other', () => {
    const g = garden([planting('a', 'Helenium autumnale')], { schools: { 'cutting-back': 'autumn' } })
    expect(ofRule(g, 'cut-back-late-winter')).toEqual([])
    expect(ofRule(g, 'cut-back-autumn')[0]!.school).toContain('late winter')
  })

  it('does it the way of its schools, and says the others', () => {
    const helenium = [planting('a', 'Helenium autumnale')]
    const divided = (schools: CareGarden['schools']) =>
      ofRule(garden(helenium, { schools }), 'divide-spring')[0]!
    const odd = divided({})
    const blocks = divided({ drifts: 'blocks', 'planting-hole': 'starter-feed' })
    expect(odd.steps.join(' ')).toContain('odd number')
    expect(odd.school).toContain('large single blocks')
    expect(blocks.steps.join(' ')).toContain('one block')
    expect(odd.materials.map((m) => m.name)).toEqual(['garden compost'])
    expect(blocks.materials).toEqual([{ name: 'starter feed', amount: 0.1, unit: 'kg' }])
  })

  it('has no school that changes nothing', () => {
    const idle = schools.flatMap(({ id, choices }) =>
      choices
        .filter(
          (c) =>
            !careRules.some(
              (r) =>
                (r.school?.id === id && r.school.choice === c.id) ||
                r.bySchool?.some((s) => s.id === id && s.steps[c.id]),
            ),
        )
        .map((c) => `${id}: ${c.id}`),
    )
    expect(idle).toEqual(['faded-annuals: cut-back'])
    // Left to return, faded annuals are not cleared.
    const annual = [planting('a', 'Zinnia elegans')]
    expect(ofRule(garden(annual), 'clear-warm-season').length).toBeGreaterThan(0)
    expect(ofRule(garden(annual, { schools: { 'faded-annuals': 'cut-back' } }), 'clear-warm-season')).toEqual(
      [],
    )
  })

  it('limes ground that was tested too acid for most of what grows there, and no other', () => {
    const pinks = [planting('a', 'Dianthus plumarius')]
    const lime = (ph?: number) => ofRule(garden(pinks, { places: [bed({ ph })] }), 'lime-the-soil')
    expect(lime()).toEqual([])
    expect(lime(6.8)).toEqual([])
    // Twelve square metres, and no more at once than a quarter of a kilogram on each.
    expect(lime(4.5)[0]!.materials).toEqual([{ name: 'ground limestone', amount: 3, unit: 'kg' }])
  })

  it('takes up what a sign asks for, once it is seen', () => {
    const rose = (signs: CaredPlanting['signs']) => garden([planting('a', 'Rosa Shrub group', { signs })])
    expect(ofRule(rose([]), 'remove-suckers')).toEqual([])
    expect(ofRule(rose(['suckers']), 'remove-suckers').length).toBeGreaterThan(0)
  })

  it('leaves the growth of what winter may take on its crown, whatever the school', () => {
    const penstemon = [planting('a', 'Penstemon × gloxinioides')]
    for (const school of ['late-winter', 'autumn']) {
      const g = garden(penstemon, { schools: { 'cutting-back': school } })
      expect(ofRule(g, 'cut-back-autumn')).toEqual([])
      const [job] = ofRule(g, 'cut-back-after-winter')
      expect(['03', '04', '05']).toContain(job!.window.bestFrom.slice(5, 7))
    }
  })

  it('follows a rule switched off, moved, or made dearer', () => {
    const edits = {
      ...NO_EDITS,
      switched: { 'weed-beds': false },
      adjusted: { 'mulch-beds': { shiftDays: 10, labour: 2 } },
    }
    const changed = garden([], { rules: rulesWith(edits) })
    expect(ofRule(garden([]), 'weed-beds').length).toBeGreaterThan(3)
    expect(ofRule(changed, 'weed-beds')).toEqual([])
    const [before] = ofRule(garden([]), 'mulch-beds')
    const [after] = ofRule(changed, 'mulch-beds')
    expect(daysBetween(before!.window.earliest, after!.window.earliest)).toBe(10)
    // Both are rounded to five minutes.
    expect(Math.abs(after!.minutes - 2 * before!.minutes)).toBeLessThanOrEqual(5)
  })

  it('gives the second of a slow-release feed when the first has run out, counted from the day it was given', () => {
    const south = climateOf(
      generateWeather(patternAt({ latitude: 33.7, longitude: -84.4 }), 2008, 2025),
      33.7,
    )
    if (!south.ok) throw new Error(south.reason)
    const roses = [
      planting('a', 'Paeonia lactiflora', { taxon: { ...taxonNamed('Paeonia lactiflora'), feed: 'heavy' } }),
    ]
    const of = (doneOn?: string) =>
      careJobs(
        careGarden(south.climate, roses, {
          schools: { feeds: 'mineral' },
          doneOn: new Map(doneOn ? [['feed-hungry-mineral/2027/a', doneOn]] : []),
        }),
        '2027-01-15',
        '2027-12-15',
      ).find((j) => j.ruleId === 'feed-hungry-again')
    const usual = of()!
    for (const day of ['2027-03-01', '2027-03-20']) {
      const due = of(day)!
      expect(daysBetween(day, due.window.earliest)).toBe(120)
      expect(due.window.latest).toBe(usual.window.latest)
      expect(due.window.why.bestFrom).toMatch(/lasts 120 days/)
    }
    // Given so late that it lasts to the end, no second is due.
    expect(of(addDays(usual.window.latest, -100))).toBeUndefined()
  })

  it('gives fruit on a wall its two cuts, and thins the fruit wherever it stands', () => {
    const ids = (onWall: boolean) => [
      ...new Set(
        jobs(garden([planting('a', 'Malus domestica', { onWall })]))
          .map((j) => j.ruleId!)
          .filter((id) => /fruit|apples/.test(id)),
      ),
    ]
    expect(ids(true).toSorted()).toEqual(['summer-prune-wall-fruit', 'thin-fruit', 'winter-prune-wall-fruit'])
    expect(ids(false)).not.toContain('summer-prune-wall-fruit')
    expect(ids(false)).toContain('thin-fruit')
    const [summer] = ofRule(
      garden([planting('a', 'Malus domestica', { onWall: true })]),
      'summer-prune-wall-fruit',
    )
    expect(['07', '08']).toContain(summer!.window.bestFrom.slice(5, 7))
  })

  it('turns pots that stand at a wall, and no others', () => {
    const turned = (byWall: boolean) =>
      ofRule(
        garden([planting('a', 'Pelargonium × hortorum', { placeId: 'pot' })], {
          places: [madePot('pot', 0, 0, { byWall })],
        }),
        'turn-pots',
      )
    expect(turned(false)).toEqual([])
    expect(turned(true).length).toBeGreaterThan(2)
  })

  it('sees to the edge of water where a bed lies at one, with the danger said', () => {
    const at = (byWater: boolean) => ofRule(garden([], { places: [bed({ byWater })] }), 'pond-margin-autumn')
    expect(at(false)).toEqual([])
    expect(at(true)[0]!.cautions.join(' ')).toMatch(/edge of water/)
  })

  it('comes round on weekdays of the month where a garden wants that, with its feeds by turns', () => {
    const rules = rulesWith({
      ...NO_EDITS,
      adjusted: { 'feed-pots-lean': { monthDays: { weekday: 6, nths: [1, 3] } } },
    })
    const places = [madePot('pot', 0, 0)]
    const fed = ofRule(
      garden([planting('a', 'Pelargonium × hortorum', { placeId: 'pot' })], { rules, places }),
      'feed-pots-lean',
    )
    expect(fed.length).toBeGreaterThan(3)
    for (const job of fed) expect(weekdayOf(job.window.bestFrom)).toBe(6)
    const given = fed
      .filter((j) => j.window.bestFrom > '2027')
      .toSorted((a, b) => (a.window.bestFrom < b.window.bestFrom ? -1 : 1))
      .map((j) => j.steps.find((s) => s.startsWith('This turn'))!)
    expect(new Set(given).size).toBe(2)
    for (let i = 2; i < given.length; i++) expect(given[i]).toBe(given[i - 2])
    // What is done once a season has no weekdays to come round on.
    const once = rulesWith({
      ...NO_EDITS,
      adjusted: { 'mulch-beds': { monthDays: { weekday: 6, nths: [1] } } },
    })
    expect(once.find((r) => r.id === 'mulch-beds')!.monthDays).toBeUndefined()
  })

  it('takes as long as it was found to take, the more so the more often it was measured', () => {
    const twice = (n: number) =>
      measuredLabour(
        Array.from({ length: n }, () => ({ operation: 'mulch' as const, tableMinutes: 60, minutes: 120 })),
      ).mulch!
    expect(twice(1)).toBeGreaterThan(1)
    expect(twice(1)).toBeLessThan(twice(5))
    expect(twice(500)).toBeCloseTo(2, 1)
    const [job] = ofRule(garden([], { measured: { mulch: 1.5 } }), 'mulch-beds')
    expect(job!.minutes / job!.tableMinutes).toBeCloseTo(1.5, 1)
  })

  it('brings poison, thorns and dust to the job', () => {
    const cautions = jobs(garden([planting('a', 'Aconitum carmichaelii'), planting('b', 'Rosa Bush group')]))
      .flatMap((j) => j.cautions)
      .join(' ')
    expect(cautions).toMatch(/Poisonous/)
    expect(cautions).toMatch(/Thorns/)
    expect(cautions).toMatch(/mask and gloves/)
  })
})

describe('decided work', () => {
  const request = (botanical: string) => ({
    taxon: library.find((t) => t.botanical === botanical)!,
    count: 2,
    place: 'Court border',
    placeKind: 'bed' as const,
    lateDays: 0,
    schools: {},
    rules: rulesWith(NO_EDITS),
  })
  const decided = (work: Parameters<typeof decidedJobs>[0], botanical: string) =>
    decidedJobs(work, request(botanical), climate, '2026-09-14')

  it('waits for the window of the rule that knows how', () => {
    const hard = decided('cut back', 'Forsythia × intermedia')
    // After its bloom in April, not in autumn.
    expect(hard.ok && hard.jobs[0]!.window.earliest.slice(0, 7)).toBe('2027-04')
    const split = decided('divide', 'Helenium autumnale')
    expect(split.ok && ['03', '04']).toContain(split.ok && split.jobs[0]!.window.earliest.slice(5, 7))
  })

  it('is refused where no rule knows how, and never opens in the past', () => {
    expect(decided('cut back', 'Fothergilla gardenii').ok).toBe(false)
    expect(decided('divide', 'Papaver orientale').ok).toBe(false)
    const out = decided('remove', 'Macleaya cordata')
    expect(out.ok && out.jobs[0]!.window.earliest).toBe('2026-09-14')
  })
})

describe('containers that stand near each other', () => {
  const terrace = [
    bed(),
    ...[9, 12, 15].map((x) => madePot(`pot ${x}`, x, 1, { name: `Pot ${x}`, mixLitres: 3 * x })),
    madePot('pot 90', 90, 1, { name: 'Pot 90', mixLitres: 30 }),
  ]
  const potted = terrace
    .slice(1)
    .map((p) => planting(`in ${p.id}`, 'Pelargonium × hortorum', { placeId: p.id }))
  const round = (more: Partial<CareGarden> = {}) => garden(potted, { places: terrace, ...more })
  const refreshed = (more: Partial<CareGarden> = {}) =>
    ofRule(round(more), 'refresh-mix-part').filter((j) => j.window.earliest > '2027-01-01')

  it('are one round in walking order, with the litres of each; another terrace is another round', () => {
    const jobs = refreshed()
    expect(jobs.map((j) => j.placeIds)).toEqual(
      expect.arrayContaining([['pot 9', 'pot 12', 'pot 15'], ['pot 90']]),
    )
    const job = jobs.find((j) => j.placeIds.length === 3)!
    expect(job.placeId).toBe('pot 9')
    expect(job.title).toBe('Refresh the mix of Pot 9 and 2 more')
    // A third of 27, 36 and 45 litres.
    expect(job.materials).toContainEqual({ name: 'potting mix', amount: 36, unit: 'l' })
    expect(job.steps.join(' ')).toContain('Pot 9 9.0 l, Pot 12 12 l and Pot 15 15 l')
  })

  it('leave out what is done already, and what was filled anew this season', () => {
    const key = refreshed().find((j) => j.placeIds.length === 3)!.key
    const done = new Set([`${key.replace(/\/[^/]*$/, '')}/pot 12`])
    expect(refreshed({ done }).some((j) => j.placeIds.join() === 'pot 9,pot 15')).toBe(true)
    const mixNewOn = new Map([['pot 9', { some: '2027-03-01', all: '2027-03-01' }]])
    expect(refreshed({ mixNewOn }).flatMap((j) => j.placeIds)).not.toContain('pot 9')
  })

  it('are asked for the whole of it three seasons after it was last new, each by its own fill', () => {
    const whole = (all: string) =>
      ofRule(
        round({ schools: { 'pot-mix': 'whole' }, mixNewOn: new Map([['pot 9', { all }]]) }),
        'refresh-mix-whole',
      )
        .filter((j) => j.window.earliest > '2027-01-01')
        .flatMap((j) => j.placeIds)
    expect(whole('2024-05-01')).toContain('pot 9')
    expect(whole('2025-05-01')).not.toContain('pot 9')
  })

  it('take no longer together than each alone, and are set up for once', () => {
    const alone = terrace
      .slice(1, 4)
      .flatMap((p) =>
        ofRule(garden(potted, { places: [p] }), 'refresh-mix-part').filter(
          (j) => j.window.earliest > '2027-01-01',
        ),
      )
    const together = refreshed().find((j) => j.placeIds.length === 3)!
    expect(together.minutes).toBeLessThan(alone.reduce((sum, j) => sum + j.minutes, 0))
  })
})
