import { describe, expect, it } from 'vitest'
import { vesselOf } from '@border/core'
import {
  assumedWords,
  checkWords,
  coldWords,
  everyWords,
  factorWords,
  kgText,
  lightOffWords,
  litresText,
  mixSourceWords,
  mixStateWords,
  rootWords,
  sunWords,
  swapWords,
  vesselWords,
  weightWords,
  winteringWords,
} from './potWords.ts'

describe('light in words', () => {
  it('is said to be too much or too little by the plant that it suits least', () => {
    const [shy, bold] = [
      { lightMinHours: 1, lightMaxHours: 4 },
      { lightMinHours: 5, lightMaxHours: 12 },
    ]
    expect(lightOffWords([shy], { total: 7.5 })).toBe('3.5 h more than its plants like')
    expect(lightOffWords([shy, bold], { total: 1.5 })).toBe('3.5 h less than its plants want')
    expect(lightOffWords([shy, bold], { total: 4.5 })).toMatch(/^0.5 h /)
    expect(lightOffWords([shy], { total: 4.2 })).toBeUndefined()
    expect(lightOffWords([], { total: 9 })).toBeUndefined()
  })
})

describe('a mix in words', () => {
  it('names of each part what its water rests on, and says so of none that is not in it', () => {
    const parts = [
      { name: 'loam', parts: 4 },
      { name: 'compost', parts: 3 },
    ]
    const loamy = mixSourceWords({ parts, testedOn: null })
    expect(loamy).toContain(
      'Water of loam is after Carsel and Parrish (1988). That of compost is a working figure',
    )
    expect(mixSourceWords({ parts: parts.slice(1), testedOn: null })).not.toContain('Carsel')
    // Tested, its air and water rest on the test, whatever its parts are.
    const tested = mixSourceWords({ parts, testedOn: '2026-05-01' })
    expect(tested).toContain('as they were tested on 1 May 2026')
    expect(tested).not.toContain('working figure')
  })
})

describe('a pot in words', () => {
  it('is told by shape, stuff and inner sizes, and what nobody said is named', () => {
    const said = vesselOf({
      properties: {
        shape: 'tapered',
        diameterM: 0.4,
        footM: 0.3,
        depthM: 0.38,
        wallM: 0.02,
        material: 'Terracotta',
      },
    })
    expect(vesselWords(said)).toBe(
      'A tapered pot of terracotta, 40\u00a0cm across and 38\u00a0cm deep inside.',
    )
    expect(assumedWords(said.assumed)).toBeUndefined()
    const trough = vesselOf({ properties: { shape: 'trough', lengthM: 1.2, widthM: 0.3, rimHeightM: 0.4 } })
    expect(vesselWords(trough)).toMatch(/^A trough, 1.20\u00a0m by 30\u00a0cm and/)
    expect(assumedWords(trough.assumed)).toBe(
      'Nobody has said its depth, the width of its foot, its wall and what it is made of: reckoned as is usual of such a pot.',
    )
  })

  it.each([
    [null, 'rain is enough'],
    [{ p10: 1, p50: 1, p90: 1 }, 'every day'],
    [{ p10: 1, p50: 2, p90: 4 }, 'every 2 days (1 to 4)'],
    [{ p10: 0.2, p50: 1.4, p90: 3 }, 'every day (1 to 3)'],
    [{ p10: 8, p50: 20, p90: 32 }, 'every 20 days (8 to more than 30)'],
  ])('is watered %o: %s', (days, words) => expect(everyWords({ days })).toBe(words))

  it('has its amounts to what can be told of them', () => {
    expect([0.04, 0.55, 3.21, 41.7].map(litresText)).toEqual(['0.1 l', '0.6 l', '3.2 l', '42 l'])
    expect([3.21, 41.7].map(kgText)).toEqual(['3.2 kg', '42 kg'])
  })

  it('is lifted by one, by several, or not by hand', () => {
    const weight = { empty: 8, dry: 20, wet: 33.4, footprintM2: 0.1, wetPerM2: 334 }
    expect(weightWords({ weight, liftedBy: 2 })).toBe(
      '8.0 kg empty, 20 kg planted and dry, 33 kg watered through: 2 people to lift it.',
    )
    expect(weightWords({ weight, liftedBy: 1 })).toMatch(/one person lifts it\.$/)
    expect(weightWords({ weight, liftedBy: null })).toMatch(/not by hand\.$/)
  })

  it('says when it goes over and what may go in, and what to bring in before a cold night', () => {
    const over = {
      from: '2026-10-24',
      to: '2026-11-20',
      botanical: 'Pelargonium × hortorum',
      because: 'frost',
    } as const
    const next = { season: 'winter', from: '2026-09-20', to: '2026-11-01' } as const
    const nameOf = () => 'zonal pelargonium'
    expect(swapWords({ over, next }, nameOf, '2026-09-14')).toBe(
      'Zonal pelargonium goes over between 24 October and 20 November, with the first frost. What likes it cool may go in from 20 September to 1 November.',
    )
    expect(swapWords({ over: null, next: null }, nameOf, '2026-09-14')).toBe('')
    const later = (today: string) => swapWords({ over, next: null }, nameOf, today)
    expect(later('2026-11-01')).toBe(
      'Zonal pelargonium is going over, until 20 November, with the first frost.',
    )
    expect(later('2026-12-01')).toBe('Zonal pelargonium is over, as its kind is from 24 October on.')
    const night = {
      day: '2026-10-03',
      minC: -0.6,
      pots: [{ id: 'a', botanicals: ['Pelargonium × hortorum'] }],
    }
    expect(coldWords(night, () => 'Door pot 10', nameOf)).toBe(
      'Before the night to 3 October (−1 °C) bring in or cover Door pot 10 (zonal pelargonium).',
    )
  })

  it.each([
    [[0.1, 0, 0], 'no sun'],
    [[4, 0.5, 0], '4.5 h of sun, all but some of it in the morning'],
    [[1, 1, 3], '5.0 h of sun, most of it in the afternoon'],
    [[2, 2, 2], '6.0 h of sun through the day'],
  ])('has sun of %o: %s', ([morning, midday, afternoon], words) =>
    expect(
      sunWords({
        total: morning! + midday! + afternoon!,
        morning: morning!,
        midday: midday!,
        afternoon: afternoon!,
        heat: 0,
      }),
    ).toBe(words),
  )
})

describe('what becomes of a pot in words', () => {
  it('tells its own draw as an interval, and how to come by one', () => {
    expect(factorWords(null)).toMatch(/^Nothing was found here/)
    expect(factorWords({ factor: 1.3, p10: 1.1, p90: 1.5, from: 4 })).toBe(
      'It draws 30 % more than is worked out from its size and the weather, by 4 findings (from 10 % more to 50 % more). Its waterings are reckoned so.',
    )
    expect(factorWords({ factor: 1, p10: 0.8, p90: 1.2, from: 1 })).toMatch(
      /^It draws as is worked out, by 1 finding \(from 20 % less to 20 % more\)/,
    )
  })

  it('tells a mix by what has sunk, its air, and when what of it must be new', () => {
    const traits = { air: 0.12, water: 0.5, available: 0.2, kgPerLitre: 0.4 }
    expect(
      mixStateWords(
        { traits, sunk: 0.22, old: 0.8, topUpOn: '2026-01-01', wholeOn: '2028-04-01' },
        '2026-09-14',
      ),
    ).toBe(
      'It has sunk by 22 % since. Drained it has 12 % of air left. The top third is to be new now. All of it must be new about April 2028.',
    )
    expect(mixStateWords({ traits, sunk: 0, old: 0, topUpOn: null, wholeOn: null }, '2026-09-14')).toMatch(
      /keeps its air for ten years/,
    )
  })

  it('tells findings, roots and wintering', () => {
    const note = {
      id: 'a',
      on: '2026-09-01',
      felt: null,
      lighterKg: null,
      rainMm: null,
      stars: null,
      sampleLitres: null,
      filledLitres: null,
      drainedLitres: null,
      note: null,
      by: null,
    }
    expect(checkWords({ ...note, kind: 'felt', felt: 'dry', note: 'Wilted.' })).toBe(
      'dry a finger deep. Wilted.',
    )
    expect(checkWords({ ...note, kind: 'weighed', lighterKg: 3.25 })).toBe('3.3 kg lighter than watered')
    expect(checkWords({ ...note, kind: 'rained', rainMm: 7.25 })).toBe('7.3 mm in the rain gauge')
    const test = { sampleLitres: 4, filledLitres: 3, drainedLitres: 1 }
    expect(checkWords({ ...note, kind: 'drained', ...test })).toBe(
      'its mix tested, 25 % air and 50 % water once drained',
    )
    expect(checkWords({ ...note, kind: 'rated', stars: 4 })).toBe('4 of 5, all of it together')
    expect(rootWords('2024-01-05', 'Its roots', '2026-09-14')).toBe(
      'Its roots have filled it since January 2024.',
    )
    expect(rootWords('2028-01-05', 'Its roots', '2026-09-14')).toBe(
      'Its roots will have filled it by January 2028.',
    )
    expect(rootWords(null, 'Its roots', '2026-09-14')).toBe('Its roots never fill it.')
    expect(
      winteringWords(
        {
          botanical: 'x',
          in: { from: '2026-10-01', to: '2026-10-20' },
          hardenFrom: '2027-05-01',
          out: { from: '2027-05-15', to: '2027-05-28' },
          aboveC: 5,
          light: 'bright',
          everyDays: 14,
        },
        'pelargonium',
      ),
    ).toMatch(/^Pelargonium comes in between 1 October and 20 October, to a bright place above 5.°C/)
    const soon = { from: '2027-06-05', to: '2027-06-05' }
    expect(
      winteringWords(
        {
          botanical: 'x',
          in: soon,
          hardenFrom: '2027-07-16',
          out: soon,
          aboveC: 5,
          light: 'dark',
          everyDays: 28,
        },
        'bay',
      ),
    ).toMatch(/^Bay comes in about 5 June, to a dark or bright place/)
  })
})
