import { describe, expect, it } from 'vitest'
import { addDays } from '../dates/index.ts'
import {
  emergenceOf,
  firstFlushEnd,
  library,
  seasonInPlace,
  usualBloom,
  usualState,
  usualWords,
  USUAL_YEAR,
} from './index.ts'

const named = (botanical: string) => library.find((t) => t.botanical === botanical)!
const phase = (botanical: string, on: string, year = USUAL_YEAR) =>
  usualState(named(botanical), on, year).phase

describe('the usual state', () => {
  it.each([
    ['Galanthus nivalis', '2026-02-10', 'in full bloom'],
    ['Galanthus nivalis', '2026-07-01', 'underground'],
    ['Narcissus pseudonarcissus', '2026-05-05', 'going over'],
    ['Papaver orientale', '2026-08-01', 'summer rest'],
    ['Hosta sieboldiana', '2026-01-15', 'underground'],
    ['Hosta sieboldiana', '2026-04-10', 'emerging'],
    ['Helenium autumnale', '2026-09-01', 'in full bloom'],
    ['Salvia nemorosa', '2026-09-01', 'finished flowering'],
    // Flowers into the days in which its leaves turn: the next spring it has not flowered yet.
    ['Rosa Bush group', '2026-05-25', 'in bud'],
    ['Hamamelis × intermedia', '2026-06-10', 'finished flowering'],
    ['Cornus alba', '2026-01-10', 'bare'],
    ['Sarcococca hookeriana', '2026-01-10', 'in full bloom'],
    ['Geranium macrorrhizum', '2026-01-10', 'winter green'],
    ['Miscanthus sinensis', '2026-04-25', 'emerging'],
  ] as const)('of %s on %s is %s', (botanical, on, expected) => {
    expect(phase(botanical, on)).toBe(expected)
  })
  it('moves with a late year and turns by half a year in the south', () => {
    expect(phase('Galanthus nivalis', '2026-01-24')).toBe('opening')
    expect(phase('Galanthus nivalis', '2026-01-24', { lateDays: 10, south: false })).toBe('in bud')
    expect(phase('Helenium autumnale', '2026-03-05', { lateDays: 0, south: true })).toBe('in full bloom')
    expect(usualWords(named('Rodgersia podophylla'), '2026-05-01', USUAL_YEAR)).toBe(
      'coming up, by late May at the latest',
    )
  })
  it('is found for every kind on every day, and tells more in growth than at rest', () => {
    for (const taxon of library)
      for (let day = '2026-01-01'; day < '2027-01-01'; day = addDays(day, 7)) {
        const { telling, resting } = usualState(taxon, day, USUAL_YEAR)
        expect(resting ? telling < 0.2 : telling >= 0.4).toBe(true)
        expect(usualWords(taxon, day, USUAL_YEAR)).toMatch(/^[a-z]/)
      }
  })
})

it('emergence is the one of the season around the day, and none for what stays above ground', () => {
  const kirengeshoma = named('Kirengeshoma palmata')
  expect(emergenceOf(kirengeshoma, '2026-05-10', { lateDays: 6, south: false })).toEqual({
    from: '2026-04-21',
    latest: '2026-06-06',
  })
  expect(emergenceOf(named('Buxus sempervirens'), '2026-05-10', USUAL_YEAR)).toBeUndefined()
})

it('usual bloom of a season stands in real dates, north and south', () => {
  const helenium = named('Helenium autumnale')
  expect(usualBloom(helenium, 2026, { lateDays: -5, south: false })).toEqual({
    from: '2026-07-27',
    to: '2026-09-30',
  })
  // 1 August is 212 days after 1 January: as many after 1 July it is 29 January.
  expect(usualBloom(helenium, 2026, { lateDays: 0, south: true })!.from).toBe('2026-01-29')
})

it('counts seasons in place by winters', () => {
  expect(seasonInPlace('2024-09-20', '2024-10-10', false)).toBe(1)
  expect(seasonInPlace('2024-09-20', '2026-06-10', false)).toBe(3)
  expect(seasonInPlace('2025-09-01', '2026-01-10', true)).toBe(1)
})

describe('a first flush', () => {
  it('ends within the bloom, in step with the year; where there is one flush it is the bloom', () => {
    const nepeta = named('Nepeta × faassenii')
    const late = { ...USUAL_YEAR, lateDays: 12 }
    for (const year of [USUAL_YEAR, late]) {
      const { from, to } = usualBloom(nepeta, 2026, year)!
      const end = firstFlushEnd(nepeta, 2026, year)!
      expect(end > from && end < to).toBe(true)
    }
    expect(firstFlushEnd(nepeta, 2026, USUAL_YEAR)).toBe('2026-06-30')
    expect(firstFlushEnd(nepeta, 2026, late)).toBe('2026-07-12')
    const iris = named('Iris sibirica')
    expect(firstFlushEnd(iris, 2026, USUAL_YEAR)).toBe(usualBloom(iris, 2026, USUAL_YEAR)!.to)
    expect(firstFlushEnd(named('Hakonechloa macra'), 2026, USUAL_YEAR)).toBe(
      usualBloom(named('Hakonechloa macra'), 2026, USUAL_YEAR)?.to,
    )
  })

  it('is said only of what flowers again, and lies inside its bloom', () => {
    for (const t of library.filter((x) => x.firstFlushTo)) {
      expect([t.botanical, t.repeats]).not.toEqual([t.botanical, 'no'])
      expect([t.botanical, t.firstFlushTo! > t.bloomFrom! && t.firstFlushTo! < t.bloomTo!]).toEqual([
        t.botanical,
        true,
      ])
    }
  })
})
