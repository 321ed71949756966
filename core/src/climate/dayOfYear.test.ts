import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays, dayOfYear } from '../dates/index.ts'
import { dayOfYearMeans } from './dayOfYear.ts'
import type { DailyWeather } from './weather.ts'

const days = (count: number, from = '2020-01-01'): DailyWeather[] =>
  Array.from(
    { length: count },
    (_, i) => ({ day: addDays(from, i), minC: i % 7, maxC: 20, rainMm: 0 }) as DailyWeather,
  )

describe('means by the day of the year', () => {
  it('of one value all year are that value, whatever the years', () => {
    for (const count of [366, 731, 1461])
      for (const mean of dayOfYearMeans(days(count), () => 4.5)) expect(mean).toBeCloseTo(4.5, 12)
  })

  it('of one odd day lie in the fortnight about it and nowhere else, over New Year too', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 365 }), (odd) => {
        const means = dayOfYearMeans(days(366), (d) => (dayOfYear(d.day) - 1 === odd ? 15 : 0))
        means.forEach((mean, slot) => {
          const apart = Math.min((slot - odd + 366) % 366, (odd - slot + 366) % 366)
          expect(mean).toBeCloseTo(apart <= 7 ? 1 : 0, 12)
        })
      }),
    )
  })

  it('of two years are the mean of both, whatever each was', () => {
    const means = dayOfYearMeans(days(366 + 365), (d) => (d.day < '2021-01-01' ? 2 : 6))
    // Away from 29 February, which only one of them has.
    expect(means[200]).toBeCloseTo(4, 12)
  })
})
