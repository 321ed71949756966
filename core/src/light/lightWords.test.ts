import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { lightClass, lightWords, type SunHours } from './index.ts'

const sun = (morning: number, midday: number, afternoon: number, heat = 0): SunHours => ({
  total: morning + midday + afternoon,
  morning,
  midday,
  afternoon,
  heat,
})

describe('light in words', () => {
  it.each([
    ['full sun', sun(3, 4, 3, 2)],
    ['morning sun', sun(4, 0.5, 0)],
    ['midday sun', sun(0.2, 3, 0.3)],
    ['afternoon sun', sun(0, 0.3, 3, 1)],
    ['hot afternoon sun', sun(0, 0.8, 4, 2.8)],
    ['part sun', sun(2, 1.5, 1.5, 1)],
    ['shade', sun(1, 0, 0)],
  ])('is %s', (words, hours) => {
    expect(lightWords(hours)).toBe(words)
  })

  it('is the class of the hours wherever no part of the day has most of them', () => {
    const part = fc.double({ min: 0, max: 4, noNaN: true })
    fc.assert(
      fc.property(part, part, part, (a, b, c) => {
        const hours = sun(a, b, c)
        const words = lightWords(hours)
        if (Math.max(a, b, c) < 0.75 * hours.total) expect(words).toBe(lightClass(hours.total))
        if (hours.total < 2) expect(words).toBe('shade')
      }),
    )
  })
})
