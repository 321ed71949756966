import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays, weekdayOf } from '../dates/index.ts'
import { monthDaysWords, nthOfMonth, turnsOf } from './turns.ts'
import type { Window } from './windows.ts'

const window = (bestFrom: string, days: number): Window => ({
  season: 'summer',
  earliest: bestFrom,
  bestFrom,
  bestTo: addDays(bestFrom, days),
  latest: addDays(bestFrom, days + 7),
  why: { earliest: 'e', bestFrom: 'b', bestTo: 't', latest: 'l' },
})

describe('days of the month by their weekday', () => {
  it('are those of the calendar', () => {
    // Saturdays of June 2026 by a printed calendar: 6, 13, 20, 27.
    const due = (nths: number[]) =>
      turnsOf({ monthDays: { weekday: 6, nths } }, window('2026-06-01', 29)).map((t) => t.window.bestFrom)
    expect(due([1, 3])).toEqual(['2026-06-06', '2026-06-20'])
    expect(due([2, 4])).toEqual(['2026-06-13', '2026-06-27'])
    expect(due([5])).toEqual([])
    expect(monthDaysWords({ weekday: 6, nths: [3, 1] })).toBe('the first and third Saturday of the month')
  })

  it('lie within the window, each of them once, in windows that do not run into the next', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 700 }),
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 0, max: 6 }),
        fc.subarray([1, 2, 3, 4, 5], { minLength: 1 }),
        (from, days, weekday, nths) => {
          const open = window(addDays('2025-03-01', from), days)
          const turns = turnsOf({ everyDays: 9, monthDays: { weekday, nths } }, open)
          expect(new Set(turns.map((t) => t.turn)).size).toBe(turns.length)
          turns.forEach(({ nth, window: w }, i) => {
            expect(nth).toBe(i)
            expect(weekdayOf(w.bestFrom)).toBe(weekday)
            expect(nths).toContain(nthOfMonth(w.bestFrom))
            expect(w.earliest >= open.earliest && w.latest <= open.latest).toBe(true)
            expect(w.earliest <= w.bestFrom && w.bestFrom <= w.bestTo && w.bestTo <= w.latest).toBe(true)
            const next = turns[i + 1]
            if (next) expect(w.latest < next.window.earliest).toBe(true)
          })
        },
      ),
    )
  })

  it('a turn keeps its number whichever others are chosen', () => {
    const numbers = (nths: number[]) =>
      new Map(
        turnsOf({ monthDays: { weekday: 2, nths } }, window('2026-05-01', 90)).map((t) => [
          t.window.bestFrom,
          t.turn,
        ]),
      )
    const all = numbers([1, 2, 3, 4, 5])
    for (const [day, turn] of numbers([2, 4])) expect(all.get(day)).toBe(turn)
  })
})
