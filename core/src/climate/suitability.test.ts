import { describe, expect, it } from 'vitest'
import { addDays, daysBetween, yearOf } from '../dates/index.ts'
import {
  generateWeather,
  simulatedForecast,
  soilTemperatures,
  suitability,
  unsuitableUsually,
  type DailyWeather,
} from './index.ts'
import { patternAtLatitude } from './test/atLatitude.ts'

const mild: DailyWeather = { day: '2026-10-05', minC: 7, maxC: 14, rainMm: 0 }
/** A fortnight of mild days, and one that differs at its end. */
const ending = (last: Partial<DailyWeather>, before: Partial<DailyWeather> = {}): DailyWeather[] =>
  Array.from({ length: 15 }, (_, i) => ({
    ...mild,
    ...(i < 14 ? before : last),
    day: addDays('2026-09-21', i),
  }))
const level = (need: Parameters<typeof suitability>[0], days: DailyWeather[]) =>
  suitability(need, days, soilTemperatures(days), 14).level

describe('how a day suits work', () => {
  it.each([
    ['plant', 'good', {}, {}],
    ['plant', 'no', { maxC: 30 }, {}],
    ['plant', 'poor', { maxC: 24 }, {}],
    ['plant', 'no', { minC: -6, maxC: 3 }, {}],
    ['dig', 'no', {}, { minC: -8, maxC: -2 }],
    ['dig', 'no', { rainMm: 20 }, { rainMm: 6 }],
    ['cut', 'poor', { rainMm: 5 }, {}],
    ['cut', 'no', { minC: -7, maxC: 1 }, {}],
    ['spray', 'no', { rainMm: 1 }, {}],
    ['spray', 'no', { windMs: 8 }, {}],
    ['spray', 'good', { windMs: 2 }, {}],
    ['lay', 'poor', { maxC: 26 }, {}],
    ['lay', 'good', {}, { rainMm: 2 }],
  ] as const)('%s: %s', (need, expected, last, before) => {
    expect(level(need, ending(last, before))).toBe(expected)
  })

  it('over the years: winter is worse for planting than October, and summer is too hot where it is hot', () => {
    const at = (latitude: number, more: object) =>
      unsuitableUsually('plant', generateWeather({ ...patternAtLatitude(latitude), ...more }, 2008, 2020))
    const severe = at(48, { annualMeanC: 4, seasonalAmplitudeC: 16 })
    expect(severe[15]).toBeGreaterThan(0.9)
    expect(severe[260]).toBeLessThan(0.3)
    const hot = at(37, { annualMeanC: 18, seasonalAmplitudeC: 8 })
    expect(hot[200]).toBeGreaterThan(0.8)
  })
})

describe('the stand-in forecast', () => {
  const record = generateWeather({ ...patternAtLatitude(52), seed: 4 }, 2008, 2025)
  const issuedDays = record.filter((d) => yearOf(d.day) === 2024).filter((_, i) => i % 3 === 0)

  it('errs the more the further ahead, but is never worse than what is usual', () => {
    const error = (lead: number) => {
      const squares = issuedDays.map(({ day }) => {
        const forecast = simulatedForecast(record, day, 10, 1)[lead]!
        const truth = record[daysBetween(record[0]!.day, forecast.day)]!
        return ((forecast.minC + forecast.maxC) / 2 - (truth.minC + truth.maxC) / 2) ** 2
      })
      return Math.sqrt(squares.reduce((a, b) => a + b, 0) / squares.length)
    }
    expect(error(0)).toBeLessThan(0.2)
    expect(error(2)).toBeLessThan(error(5))
    expect(error(5)).toBeLessThan(error(9))
    expect(error(9)).toBeLessThan(4.5)
  })

  it('is the same for the same day, and another for another', () => {
    const on = (day: string) => simulatedForecast(record, day, 10, 1)
    expect(on('2024-05-01')).toEqual(on('2024-05-01'))
    expect(on('2024-05-02')[0]).not.toEqual(on('2024-05-01')[1])
    expect(on('2031-01-01')).toEqual([])
  })
})
