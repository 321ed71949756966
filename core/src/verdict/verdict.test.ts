import { describe, expect, it } from 'vitest'
import { winterHere } from '../care/index.ts'
import { climateOf, generateWeather } from '../climate/index.ts'
import { gardenField, type SunHours } from '../light/index.ts'
import { madeBed, madePlanting, rectangle } from '../garden/test/made.ts'
import { library, driftRadiusM, USUAL_YEAR } from '../plants/index.ts'
import { actions } from '../remedies/index.ts'
import {
  assessGarden,
  bestSpots,
  fitOf,
  gapFillers,
  lightFit,
  spotField,
  verdictFor,
  type Condition,
  type FilledPlace,
  type JudgedGarden,
  type VerdictInput,
} from './index.ts'
import { patternAtLatitude } from '../climate/test/atLatitude.ts'

const taxon = (name: string) => library.find((t) => t.botanical === name)!
const hours = (total: number, heat = 0): SunHours => ({
  total,
  heat,
  afternoon: heat,
  morning: 0,
  midday: total - heat,
})
const astrantia = taxon('Astrantia major')

describe('fit', () => {
  it.each([
    ['inside its range', hours(4), 0],
    ['two hours over', hours(7), 2],
    ['half an hour under', hours(2), 0.5],
    ['in range, but in sun from two until half past four', hours(4, 2.5), 2],
  ])('%s', (_, h, misfit) => {
    expect(lightFit(astrantia, h).misfitHours).toBeCloseTo(misfit)
  })

  it('is the worst of its factors and names it', () => {
    expect(fitOf(astrantia, { hours: hours(4), moisture: 3 })).toMatchObject({ limiting: 'none' })
    expect(fitOf(astrantia, { hours: hours(4), moisture: 1 })).toMatchObject({
      limiting: 'moisture',
      score: expect.closeTo(0.2),
    })
    expect(fitOf(astrantia, { hours: hours(6), moisture: 3 })).toMatchObject({ limiting: 'light' })
  })
})

describe('verdict', () => {
  const spot = {
    placeId: 'p',
    placeName: 'Loft strip',
    x: 0,
    y: 0,
    hours: hours(3.5),
    fit: fitOf(astrantia, { hours: hours(3.5) }),
  }
  const verdict = (more: Partial<VerdictInput>) =>
    verdictFor({
      taxon: astrantia,
      inPlaceSince: '2021-04-01',
      on: '2026-09-14',
      hoursNow: hours(4),
      hoursBefore: hours(4),
      causes: [],
      spots: [spot],
      ...more,
    })

  it.each([
    ['keep', 'in its range', {}],
    ['watch', 'an hour over', { hoursNow: hours(6.1) }],
    ['move', 'two and a half hours over, with a better spot free', { hoursNow: hours(7.5) }],
    [
      'watch',
      'never moved though four hours short, for it resents moving',
      { taxon: taxon('Eryngium planum'), hoursNow: hours(2.5) },
    ],
  ] as const)('%s: %s', (action, _, more) => {
    expect(verdict(more).action).toBe(action)
  })

  const condition = (more: Partial<Condition>): Condition => ({
    signs: [],
    rating: null,
    decline: null,
    living: 1,
    dividedOn: '2021-04-01',
    role: null,
    again: null,
    ...more,
  })
  // What a gardener would say of it: the signs of crowding, of age, of giving up, of spreading.
  it.each([
    [
      'divide',
      'bare in the middle, flowering less',
      astrantia.botanical,
      { signs: ['bare-centre', 'fewer-flowers'] },
    ],
    [
      'keep',
      'a few chewed leaves on a plant that does well',
      astrantia.botanical,
      { signs: ['chewed'], rating: 4 },
    ],
    [
      'renew',
      'leggy on a woody base, breaks from old wood',
      'Forsythia × intermedia',
      { signs: ['stretched', 'woody-base', 'dead-below'] },
    ],
    [
      'cut out',
      'the same signs on what does not break from old wood: only what is dead',
      'Fothergilla gardenii',
      { signs: ['woody-base', 'dead-below'] },
    ],
    [
      'replace',
      'falling for years, poor, half of it dead',
      astrantia.botanical,
      { decline: { perSeason: 0.9, from: 2022, to: 2026 }, rating: 1, living: 0.4 },
    ],
    [
      'remove',
      'a thug over its neighbours',
      'Macleaya cordata',
      { signs: ['crowding', 'seedlings'], dividedOn: '2025-10-01' },
    ],
  ] as const)('%s: %s', (action, _, name, seen) => {
    const kind = taxon(name)
    const h = hours(Math.min(6.2, (kind.lightMinHours + Math.min(kind.lightMaxHours, 9)) / 2))
    const v = verdict({
      taxon: kind,
      hoursNow: h,
      hoursBefore: h,
      condition: condition(seen as Partial<Condition>),
    })
    expect(v.action, JSON.stringify(v.scores)).toBe(action)
    for (const a of actions) {
      const sum = v.terms.filter((t) => t.action === a).reduce((s, t) => s + t.points, 0)
      expect(Math.abs(sum - (v.scores[a] ?? 0))).toBeLessThanOrEqual(1)
    }
  })

  it('does not send a plant nowhere', () => {
    expect(verdict({ hoursNow: hours(7.5), spots: [] }).action).not.toBe('move')
  })

  it('adds up: each score is the sum of the terms shown', () => {
    const v = verdict({
      hoursNow: hours(7.2),
      causes: [
        {
          obstructionId: 'o',
          name: 'Storehouse',
          what: 'gone',
          date: '2025-02-10',
          hours: 2.7,
          byPart: { morning: 0, midday: 0.2, afternoon: 2.5 },
        },
      ],
      hoursBefore: hours(4.5),
    })
    for (const action of ['keep', 'watch', 'move'] as const) {
      const sum = v.terms.filter((t) => t.action === action).reduce((s, t) => s + t.points, 0)
      expect(Math.abs(sum - v.scores[action]!)).toBeLessThanOrEqual(1)
    }
    expect(v.terms.map((t) => t.says).join(' ')).toContain(
      'Storehouse went in February 2025: 2¾ h more sun a day.',
    )
  })
})

describe('a garden whose shade has gone', () => {
  const ring = (x: number, y: number, w: number, h: number) => rectangle(x, y, x + w, y + h)
  const planting = (id: string, name: string, x: number) =>
    madePlanting(id, name, { placeId: 'yard', x, y: 1.5, livingCount: 7, plantedOn: '2021-04-01' })
  const garden: JudgedGarden = {
    scene: {
      latitudeDeg: 52.1,
      longitudeDeg: 1.3,
      northDeg: 0,
      obstructions: [
        {
          id: 'store',
          name: 'Storehouse',
          kind: 'building',
          ring: ring(-6, -8, 5, 12),
          heightM: 7,
          to: '2025-02-10',
        },
        { id: 'hall', name: 'Hall', kind: 'building', ring: ring(20, 2.2, 12, 6), heightM: 6 },
      ],
    },
    places: [
      madeBed('yard', ring(0, 0, 12, 3), { name: 'Yard border', moisture: 3 }),
      madeBed('north', ring(20, 8.4, 12, 2), { name: 'North strip', moisture: 4 }),
    ],
    plantings: [planting('a', astrantia.botanical, 1.5), planting('s', 'Salvia nemorosa', 9)],
    reserved: [],
  }
  const [worst, fine] = assessGarden(garden, '2024-09-14', '2026-09-14')

  it('names the plant that no longer fits, what changed and where it could go', () => {
    expect(worst).toMatchObject({
      plantingId: 'a',
      outside: true,
      causes: [{ name: 'Storehouse', what: 'gone', date: '2025-02-10' }],
    })
    expect(worst!.now.total - worst!.before.total).toBeCloseTo(worst!.causes[0]!.hours, 5)
    expect(worst!.verdict.action).toBe('move')
    expect(worst!.verdict.spots[0]).toMatchObject({ placeName: 'North strip' })
    expect(fine).toMatchObject({ plantingId: 's', outside: false, verdict: { action: 'keep', spots: [] } })
  })

  it('offers no ground whose soil was tested and does not suit', () => {
    const season = { kind: 'season', on: '2026-09-14' } as const
    const light = gardenField(garden.scene, garden.places, season)
    const spotsAt = (ph: number | undefined) =>
      bestSpots(
        spotField(
          light,
          garden.places.map((place) => ({ ...place, ph })),
        ),
        garden.plantings[0]!,
        [],
      )
    expect(spotsAt(astrantia.phMin).length).toBe(spotsAt(undefined).length)
    expect(spotsAt(astrantia.phMax + 1)).toEqual([])
    expect(spotsAt(astrantia.phMin - 1)).toEqual([])
  })

  it('offers only ground that is inside a bed and clear of other plants', () => {
    const taken = [{ plantingId: 'x', placeId: 'north', ground: { x: 26, y: 9.4, radiusM: 1 } }]
    const radiusM = driftRadiusM(7, astrantia.spacingM)
    const season = { kind: 'season', on: '2026-09-14' } as const
    const field = spotField(gardenField(garden.scene, garden.places, season), garden.places)
    const spots = bestSpots(field, garden.plantings[0]!, taken)
    expect(spots.length).toBeGreaterThan(0)
    for (const s of spots) {
      expect(s.y > 8.4 && s.y < 10.4).toBe(true)
      expect(Math.hypot(s.x - 26, s.y - 9.4)).toBeGreaterThan(radiusM)
    }
  })
})

describe('what fills a gap', () => {
  const gap = { from: '2026-09-07', to: '2026-10-11', weeks: 5 }
  const fillers = (sun: number, moisture: number, proven: [string, number][] = []) =>
    gapFillers(gap, { hours: hours(sun), moisture }, library, 2026, USUAL_YEAR, new Map(proven)).map(
      (f) => f.taxon,
    )

  it('flowers then and stands the place: bugbane in damp shade, asters in sun', () => {
    expect(fillers(3, 4)).toContain('Actaea simplex')
    expect(fillers(3, 4)).not.toContain('Symphyotrichum novae-angliae')
    expect(fillers(8, 3)).toContain('Symphyotrichum novae-angliae')
    expect(fillers(8, 3)).not.toContain('Actaea simplex')
    for (const name of fillers(8, 3))
      expect(taxon(name).bloomTo! >= '09-07' || taxon(name).bloomFrom! > taxon(name).bloomTo!).toBe(true)
  })
  it('is nothing that its soil, its winters or its room forbid, and nothing that runs wild', () => {
    const found = climateOf(generateWeather(patternAtLatitude(58), 2008, 2022), 58)
    if (!found.ok) throw new Error(found.reason)
    const place = { hours: hours(8), moisture: 3 }
    const all = (more: Partial<FilledPlace>) =>
      gapFillers(gap, { ...place, ...more }, library, 2026, USUAL_YEAR, new Map()).map((f) => taxon(f.taxon))
    const usual = all({})
    expect(usual.filter((t) => t.cautions.includes('invasive'))).toEqual([])
    const cold = all({ climate: found.climate })
    expect(cold.length).toBeLessThan(usual.length)
    for (const t of cold)
      if (t.lifeForm !== 'annual' && t.lifeForm !== 'tender perennial')
        expect([t.botanical, winterHere(t, found.climate, 'bed')]).not.toEqual([t.botanical, 'tender'])
    const limy = all({ ph: 8 })
    expect(limy.length).toBeGreaterThan(0)
    for (const t of limy) expect([t.botanical, t.phMax >= 7.7]).toEqual([t.botanical, true])
    for (const t of all({ kind: 'container', areaM2: 0.12 })) {
      expect([t.botanical, t.spacingM <= 0.4, t.heightM <= 1.6]).toEqual([t.botanical, true, true])
    }
  })
  it('runs wild in one part of the world and not in another', () => {
    const gapHere = (regions: FilledPlace['regions']) =>
      gapFillers(gap, { hours: hours(8), moisture: 3, regions }, library, 2026, USUAL_YEAR, new Map()).map(
        (f) => f.taxon,
      )
    expect(gapHere(['eastern North America'])).not.toContain('Miscanthus sinensis')
    expect(gapHere(['north-western Europe'])).toContain('Miscanthus sinensis')
    expect(gapHere(undefined)).not.toContain('Miscanthus sinensis')
  })
  it('puts first what this garden’s own record expects most of', () => {
    const [first, second] = fillers(8, 3)
    expect(
      fillers(8, 3, [
        [first!, 1.5],
        [second!, 4.5],
      ])[0],
    ).not.toBe(first)
  })
})

describe('a season', () => {
  const hosta = taxon('Hosta sieboldiana')
  const inLight = hours((hosta.lightMinHours + hosta.lightMaxHours) / 2)
  const judged = (on: string, more: Partial<Condition>) =>
    verdictFor({
      taxon: hosta,
      inPlaceSince: '2019-04-01',
      on,
      hoursNow: inLight,
      hoursBefore: inLight,
      causes: [],
      spots: undefined,
      condition: {
        signs: [],
        rating: 4,
        decline: null,
        living: 1,
        dividedOn: '2024-04-01',
        role: null,
        again: null,
        ...more,
      },
    })

  it('explains what its end puts on a sound plant: said, and weighed as if it were not there', () => {
    for (const sign of ['yellowing', 'flopping', 'wilting', 'pale'] as const) {
      const seen = judged('2026-11-05', { signs: [sign], signsOn: { [sign]: '2026-11-05' } })
      expect(seen.scores).toEqual(judged('2026-11-05', {}).scores)
      expect(seen.notes.join(' ')).toContain('going over for the year')
    }
  })

  it('does not explain what was seen while it grew, nor what no season does', () => {
    const early = judged('2026-11-05', { signs: ['flopping'], signsOn: { flopping: '2026-07-05' } })
    expect(early.notes).toEqual([])
    expect(early.remedies.map((r) => r.action)).toContain('support')
    expect(judged('2026-11-05', { signs: ['buried'] }).action).toBe('lift and replant')
  })

  it('is allowed a plant to grow into its light: its first by an hour, and no longer', () => {
    const over = hours(hosta.lightMaxHours + 0.8)
    const planted = (inPlaceSince: string) =>
      verdictFor({
        taxon: hosta,
        inPlaceSince,
        on: '2026-07-10',
        hoursNow: over,
        hoursBefore: over,
        causes: [],
        spots: undefined,
      })
    expect(planted('2026-04-01').action).toBe('keep')
    expect(
      planted('2026-04-01')
        .terms.map((t) => t.says)
        .join(' '),
    ).toContain('in its first season')
    expect(planted('2021-04-01').scores.keep).toBeLessThan(planted('2026-04-01').scores.keep!)
  })
})

describe('several remedies', () => {
  it('that are one action count as one visit', () => {
    const verdict = verdictFor({
      taxon: taxon('Euonymus fortunei'),
      inPlaceSince: '2023-04-01',
      on: '2026-06-10',
      hoursNow: hours(5),
      hoursBefore: hours(5),
      causes: [],
      spots: undefined,
      condition: {
        signs: ['reverted', 'broken', 'suckers'],
        rating: 4,
        decline: null,
        living: 1,
        dividedOn: '2023-04-01',
        role: null,
        again: null,
      },
    })
    expect(verdict.action).toBe('cut out')
    const own = verdict.remedies.filter((r) => r.action === 'cut out').map((r) => r.points)
    expect(own.length).toBe(3)
    expect(verdict.scores['cut out']).toBeLessThan(Math.max(...own) + 10)
  })
})
