import { describe, expect, it } from 'vitest'
import { library, USUAL_YEAR } from '../plants/index.ts'
import { normal, seededRandom } from '../random/index.ts'
import {
  unseenOf,
  bestOfPlace,
  bloomGaps,
  bloomOfPlace,
  bloomsSeen,
  declineOf,
  gardenRecord,
  seasonScores,
  taxonRecords,
  treatmentEffects,
  trialProposal,
  type RecordedPlanting,
  type SeasonScore,
  type Seen,
} from './index.ts'

const taxon = (botanical: string) => library.find((t) => t.botanical === botanical)!
const planting = (
  id: string,
  botanical: string,
  placeId: string,
  inPlaceSince = '2018-10-01',
): RecordedPlanting => ({
  id,
  taxon: taxon(botanical),
  placeId,
  inPlaceSince,
  plantedCount: 5,
})
const look = (plantingId: string, on: string, more: Partial<Seen>): Seen => ({
  plantingId,
  on,
  rating: null,
  living: null,
  stage: null,
  flush: null,
  absent: false,
  signs: [],
  ...more,
})
const usual = () => USUAL_YEAR
const settings = { yearOfSeason: usual, south: false, lightOf: () => undefined }

describe('season scores', () => {
  it('a poor look at a plant at rest counts for next to nothing', () => {
    const poppy = planting('p', 'Papaver orientale', 'a')
    const [score] = seasonScores(
      [poppy],
      [look('p', '2025-06-05', { rating: 5 }), look('p', '2025-08-05', { rating: 1 })],
      usual,
      false,
    )
    expect(score!.score).toBeGreaterThan(4.7)
    expect(score).toMatchObject({ walks: 2, resting: false, settling: false })
    const [asleep] = seasonScores([poppy], [look('p', '2025-08-05', { rating: 1 })], usual, false)
    expect(asleep).toMatchObject({ resting: true, weight: 0 })
  })
  it('a first season is given back what a young plant lacks, and weighs less', () => {
    const young = planting('p', 'Salvia nemorosa', 'a', '2024-04-10')
    const scores = seasonScores(
      [young],
      ['2024-06-10', '2025-06-10', '2026-06-10'].map((on) => look('p', on, { rating: 3 })),
      usual,
      false,
    )
    expect(scores.map((s) => s.settling)).toEqual([true, true, false])
    expect(scores[0]!.adjusted).toBeGreaterThan(scores[1]!.adjusted)
    expect(scores[0]!.weight).toBeLessThan(scores[2]!.weight)
    expect(scores[2]!.adjusted).toBe(3)
  })
})

/** Ratings about a truth that the test chose: kind, place and year add up, with chance on top. */
function garden(
  truth: (botanical: string, placeId: string, year: number) => number,
  kinds: string[],
  places: string[],
) {
  const random = seededRandom(3)
  const plantings = kinds.flatMap((k) => places.map((p) => planting(`${k} ${p}`, k, p)))
  const seen = plantings.flatMap((p) =>
    [2021, 2022, 2023, 2024, 2025, 2026].flatMap((year) =>
      ['06-20', '07-20'].map((day) =>
        look(p.id, `${year}-${day}`, {
          rating: Math.max(
            1,
            Math.min(5, Math.round(truth(p.taxon.botanical, p.placeId, year) + 0.5 * normal(random))),
          ),
        }),
      ),
    ),
  )
  return { plantings, seen }
}

describe('this plant, this spot or this year', () => {
  const kinds = ['Salvia nemorosa', 'Phlomis russeliana', 'Geranium pratense', 'Monarda didyma']
  const places = ['bed 1', 'bed 2', 'bed 3', 'bed 4']
  const { plantings, seen } = garden(
    (kind, place, year) =>
      (kind === 'Monarda didyma' ? 2 : kind === 'Salvia nemorosa' && place === 'bed 4' ? 1.8 : 4.2) -
      (year === 2024 ? 0.9 : 0),
    kinds,
    places,
  )
  const record = gardenRecord(plantings, seen, [], settings)
  const read = taxonRecords(plantings, record, (id) => id)
  const of = (kind: string) => read.find((r) => r.taxon === kind)!

  it('a kind that fails in one spot and shines in three has a spot problem', () => {
    expect(of('Salvia nemorosa')).toMatchObject({ reading: 'spot', outliers: ['bed 4'] })
    expect(of('Salvia nemorosa').says).toMatch(/^Does well in 3 of its places; bed 4 is the outlier/)
  })
  it('one that fails everywhere is the wrong plant, not to be planted again', () => {
    expect(of('Monarda didyma')).toMatchObject({ reading: 'plant', again: 'not again' })
    expect(of('Phlomis russeliana')).toMatchObject({ reading: 'good', again: 'again' })
  })
  it('when everything dips it was the year, and no decline', () => {
    const bad = record.model!.years.find((y) => y.key === 2024)!
    expect(Math.min(...record.model!.years.map((y) => y.estimate))).toBe(bad.estimate)
    expect(bad.estimate + 2 * bad.se).toBeLessThan(0)
    expect(record.declines).toEqual([])
  })
  it('the best of a place leaves the failing kind last', () => {
    const best = bestOfPlace(plantings, record.model!, record.scores, 'bed 4')
    expect(
      best
        .slice(-2)
        .map((s) => s.taxon)
        .toSorted(),
    ).toEqual(['Monarda didyma', 'Salvia nemorosa'])
  })
  it('too little is said to be too little', () => {
    const few = gardenRecord(
      plantings.slice(0, 2),
      seen.filter((s) => s.on < '2022'),
      [],
      settings,
    )
    expect(few.model).toBeUndefined()
    expect(taxonRecords(plantings.slice(0, 1), few, (id) => id)[0]).toMatchObject({
      reading: 'unsure',
      again: 'open',
    })
  })
})

/** A season of a planting that has long settled. */
const told: SeasonScore = {
  plantingId: 'p',
  season: 2020,
  score: 4,
  adjusted: 4,
  weight: 1,
  walks: 2,
  seasonInPlace: 8,
  settling: false,
  resting: false,
}

describe('decline', () => {
  it('is found in the one planting that falls while its fellows hold', () => {
    const kinds = ['Salvia nemorosa', 'Phlomis russeliana', 'Geranium pratense']
    const { plantings, seen } = garden(
      (kind, place, year) => (kind === 'Salvia nemorosa' && place === 'b' ? 4.6 - 0.7 * (year - 2021) : 4.2),
      kinds,
      ['a', 'b', 'c'],
    )
    const { declines } = gardenRecord(plantings, seen, [], settings)
    expect(declines.map((d) => d.plantingId)).toEqual(['Salvia nemorosa b'])
    // The truth falls by 0.7 a season until ratings can go no lower.
    expect(declines[0]!.perSeason).toBeGreaterThan(0.45)
    expect(declines[0]).toMatchObject({ from: 2021, to: 2026, seasons: 6 })
  })

  it('of three even steps has the chance of one order in six, up or down', () => {
    const steps = [4, 3.6, 3.2].map((adjusted, i) => ({ ...told, season: 2020 + i, adjusted }))
    expect(declineOf(steps, () => 0)!.p).toBeCloseTo(1 / 3, 12)
  })

  it.each<[says: string, ratings: number[], isDecline: boolean]>([
    ['three even steps', [4, 3.6, 3.2], true],
    ['a long slide', [5, 4.5, 4, 3.5, 2.5], true],
    ['a fall that stays', [4.5, 4.5, 3, 3], true],
    ['a fall that stays, a little up and down', [3.9, 4.2, 1.2, 1.3], true],
    ['a fall that stays, whatever a rating is rounded to', [4.1, 4.2, 1.49, 1.7], true],
    ['level, then one bad season', [4, 4, 4, 2], false],
    ['level with chance, then one bad season', [4.5, 4, 4.5, 4, 2], false],
    ['two alike and one bad season', [4, 4, 2.5], false],
    ['a dip that is over', [4, 3, 2, 4], false],
    ['a slow fade too small to see', [4, 3.9, 3.8, 3.7], false],
  ])('is called by what stays: %s', (_, ratings, isDecline) => {
    const scores = ratings.map((adjusted, i): SeasonScore => ({
      plantingId: 'p',
      season: 2020 + i,
      score: adjusted,
      adjusted,
      weight: 1,
      walks: 2,
      seasonInPlace: 8 + i,
      settling: false,
      resting: false,
    }))
    expect(declineOf(scores, () => 0) !== undefined).toBe(isDecline)
    // What the year did to all of it is no decline, and hides none.
    const moved = scores.map((s) => ({ ...s, adjusted: s.adjusted - 0.5 * (s.season % 2) }))
    expect(declineOf(moved, (season) => -0.5 * (season % 2)) !== undefined).toBe(isDecline)
  })
})

describe('a planting that does not show', () => {
  const bells = planting('k', 'Kirengeshoma palmata', 'a')
  const unseen = { on: '2026-05-05', absent: true }
  it('is presumed lost until its latest usual emergence, a late year later', () => {
    expect(unseenOf(bells, unseen, '2026-05-10', USUAL_YEAR)).toMatchObject({
      state: 'presumed lost',
      until: '2026-05-31',
    })
    expect(unseenOf(bells, unseen, '2026-06-05', USUAL_YEAR)?.state).toBe('due')
    expect(unseenOf(bells, unseen, '2026-06-05', { lateDays: 10, south: false })?.state).toBe('presumed lost')
  })
  it('is only resting in its season of rest', () => {
    expect(unseenOf(bells, { on: '2026-01-05', absent: true }, '2026-01-05', USUAL_YEAR)?.state).toBe(
      'resting',
    )
    expect(unseenOf(bells, { on: '2026-06-05', absent: false }, '2026-06-05', USUAL_YEAR)).toBeUndefined()
  })
})

describe('a trial', () => {
  const tried = planting('t', 'Echinacea purpurea', 'bed 1', '2023-04-10')
  const scored = (rating: number) =>
    seasonScores(
      [tried],
      ['2024-07-20', '2025-07-20'].map((on) => look('t', on, { rating })),
      usual,
      false,
    )
  it('that did well is grown to an odd drift, one that did poorly in its one spot is tried elsewhere', () => {
    expect(trialProposal(tried, scored(5), undefined)).toMatchObject({ outcome: 'expand', count: 9 })
    expect(trialProposal(tried, scored(2), undefined).outcome).toBe('retry elsewhere')
    expect(trialProposal(tried, scored(5).slice(0, 1), undefined).outcome).toBe('go on')
  })
})

describe('bloom', () => {
  it('begins half way between the walk before and the walk that found it', () => {
    const [bloom] = bloomsSeen(
      [planting('h', 'Helenium autumnale', 'a')],
      [
        look('h', '2026-08-01', { stage: 'bud' }),
        look('h', '2026-08-15', { stage: 'full' }),
        look('h', '2026-09-20', { stage: 'fading', flush: 2 }),
        look('h', '2026-10-10', { stage: 'over' }),
      ],
      usual,
      false,
    )
    // Expected from 1 August; seen between 1 and 15 August.
    expect(bloom).toMatchObject({ first: '2026-08-15', last: '2026-09-20', flushes: 2, lateDays: 7 })
  })
  it('of a place: weeks with nothing in flower are its gaps, and a look overrules what is expected', () => {
    const spring = { ...planting('n', 'Narcissus pseudonarcissus', 'a'), plantedCount: 60, livingCount: 60 }
    const autumn = { ...planting('h', 'Helenium autumnale', 'a'), livingCount: 5 }
    const window = { from: '2026-03-02', to: '2026-10-11', season: 2026 }
    const weeks = bloomOfPlace([spring, autumn], [], window, usual)
    // Daffodils usually end on 10 April; sneezeweed usually begins on 1 August.
    expect(bloomGaps(weeks)).toEqual([{ from: '2026-04-13', to: '2026-08-02', weeks: 16 }])
    const none = look('h', '2026-08-26', { stage: 'none' })
    const seen = bloomOfPlace([spring, autumn], [none], window, usual)
    expect(seen.find((w) => w.from === '2026-08-24')).toMatchObject({ cover: 0, seen: true })
  })
})

describe('a cut', () => {
  const looks = (id: string, season: number, days: readonly (readonly [string, Seen['stage']])[]) =>
    days.map(([day, stage]) => look(id, `${season}-${day}`, { stage }))
  const uncut = [
    ['07-20', 'bud'],
    ['08-03', 'full'],
    ['09-06', 'fading'],
    ['09-14', 'over'],
  ] as const
  const cut = [
    ['08-03', 'bud'],
    ['08-17', 'full'],
    ['10-04', 'fading'],
  ] as const
  const two = ['a', 'b'].map((id) => planting(id, 'Helenium autumnale', 'bed'))

  it('is compared with fellows of the kind left alone in the same season', () => {
    const seen = [...looks('a', 2026, cut), ...looks('b', 2026, uncut)]
    const blooms = bloomsSeen(two, seen, usual, false)
    const [effect] = treatmentEffects(
      two,
      blooms,
      [{ plantingId: 'a', on: '2026-06-01', what: 'cut by half' }],
      false,
    )
    // Begun half way between bud and bloom: 10 August against 27 July; seen 48 days against 34.
    expect(effect).toMatchObject({ treated: ['a'], fellows: ['b'], laterDays: 14, longerDays: 14 })
    expect(effect!.says).toBe(
      'began 14 days later, was seen 14 days longer, against 1 planting of it left alone. Few to go by.',
    )
  })
  it('is compared with its own other seasons where it has no fellow, an early year taken out', () => {
    const early = (season: number) => ({ lateDays: season === 2026 ? -10 : 0, south: false })
    const seen = [...looks('a', 2025, uncut), ...looks('a', 2026, cut)]
    const blooms = bloomsSeen(two, seen, early, false)
    const [effect] = treatmentEffects(
      two,
      blooms,
      [{ plantingId: 'a', on: '2026-06-01', what: 'cut by half' }],
      false,
    )
    expect(effect).toMatchObject({ fellows: [], laterDays: 24 })
    expect(
      treatmentEffects(
        two,
        blooms.slice(1),
        [{ plantingId: 'a', on: '2026-06-01', what: 'deadheaded' }],
        false,
      ),
    ).toEqual([])
  })
})
