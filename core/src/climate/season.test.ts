import { describe, expect, it } from 'vitest'
import { addDays, type IsoDate } from '../dates/index.ts'
import {
  degreeDays,
  earlinessOf,
  earlinessOfSeason,
  extraterrestrialRadiation,
  referenceEvapotranspiration,
  type DailyWeather,
} from './index.ts'

describe('degree days', () => {
  /** The area under the day's sine above the threshold, by ten thousand slices. */
  const bySlices = (minC: number, maxC: number, lowerC: number) => {
    const n = 10_000
    let sum = 0
    for (let i = 0; i < n; i++) {
      const c = (minC + maxC) / 2 + ((maxC - minC) / 2) * Math.sin((2 * Math.PI * (i + 0.5)) / n)
      sum += Math.max(0, c - lowerC) / n
    }
    return sum
  }
  it.each([
    [-3, 4, 5],
    [0, 10, 5],
    [3, 24, 10],
    [4.9, 5.1, 5],
    [12, 20, 5],
  ])('of a day from %d to %d °C above %d are the area under its sine', (minC, maxC, lowerC) => {
    expect(degreeDays(minC, maxC, lowerC)).toBeCloseTo(bySlices(minC, maxC, lowerC), 4)
  })
})

describe('FAO-56', () => {
  it('example 8: 32.2 MJ/m² at 20° S on 3 September', () => {
    expect(extraterrestrialRadiation(-20, 246)).toBeCloseTo(32.2, 1)
  })
  it('no radiation falls in the polar night', () => {
    expect(extraterrestrialRadiation(80, 355)).toBe(0)
  })
  it('example 20: 5.0 mm a day at Lyon, 45°43’ N, in July with 14.8 to 26.6 °C', () => {
    expect(referenceEvapotranspiration({ minC: 14.8, maxC: 26.6 }, 45.72, 196)).toBeCloseTo(5.0, 1)
  })
})

describe('this season against the usual', () => {
  /** A steady climb of warmth that in `shifted` runs late by some days. */
  const record = (from: IsoDate, to: IsoDate, start: string, late: (day: IsoDate) => number) => {
    const days: DailyWeather[] = []
    for (let day = from; day <= to; day = addDays(day, 1)) {
      const then = addDays(day, -late(day))
      const since = (Date.parse(then) - Date.parse(`${then.slice(0, 4)}-${start}`)) / 86_400_000
      const c = 4 + 12 * Math.sin((Math.PI * ((since + 365) % 365)) / 365)
      days.push({ day, minC: c - 3, maxC: c + 3, rainMm: 0 })
    }
    return days
  }
  it('is late by the days its warmth was put off', () => {
    const days = record('2021-01-01', '2026-06-10', '01-01', (d) => (d >= '2026-01-12' ? 11 : 0))
    const found = earlinessOf(days, 52, '2026-06-10')!
    expect(found.seasons).toBe(5)
    expect(Math.abs(found.lateDays - 11)).toBeLessThanOrEqual(1)
  })
  it('is early, south of the equator, by the days it was brought forward', () => {
    const days = record('2020-07-01', '2026-12-20', '07-01', (d) => (d >= '2026-07-15' ? -9 : 0))
    expect(Math.abs(earlinessOf(days, -37, '2026-12-20')!.lateDays + 9)).toBeLessThanOrEqual(1)
  })
  it('stays what it was while the season grew, when next to nothing is added any more', () => {
    // A mild autumn after a season as usual: what it gathers in weeks without growth makes no days.
    const mild = record('2020-01-01', '2026-12-20', '01-01', () => 0).map((d) =>
      d.day >= '2026-11-25' ? { ...d, minC: d.minC + 6, maxC: d.maxC + 6 } : d,
    )
    expect(earlinessOf(mild, 52, '2026-12-20')!.lateDays).toBe(0)
    const late = record('2021-01-01', '2026-12-20', '01-01', (d) => (d >= '2026-01-12' ? 11 : 0))
    const june = earlinessOfSeason(late, 52, 2026, '2026-12-21')!.lateDays
    expect(Math.abs(earlinessOf(late, 52, '2026-12-20')!.lateDays - june)).toBeLessThanOrEqual(1)
  })
  it('says nothing from two seasons, or from a record that ended in spring', () => {
    const days = record('2024-01-01', '2026-06-10', '01-01', () => 0)
    expect(earlinessOf(days, 52, '2026-06-10')).toBeUndefined()
    const stopped = record('2020-01-01', '2026-03-10', '01-01', () => 0)
    expect(earlinessOf(stopped, 52, '2026-06-10')).toBeUndefined()
  })
})
