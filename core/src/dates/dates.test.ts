import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  addDays,
  civilDate,
  dayNumber,
  gardenDay,
  gardenInstant,
  instantsOf,
  isIsoDate,
  isTimeZone,
  untilNextDay,
  weekdayOf,
} from './index.ts'

const HOUR = 3_600_000
/** From the far west to the far east of the date line, with half and quarter hours, and clocks that change. */
const zones = [
  'Pacific/Pago_Pago',
  'America/Denver',
  'America/St_Johns',
  'Atlantic/Azores',
  'Europe/London',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
  'Pacific/Auckland',
  'Pacific/Kiritimati',
]
const zone = fc.constantFrom(...zones)
const instant = fc.integer({ min: Date.UTC(2020, 0, 1), max: Date.UTC(2032, 0, 1) })
/** The calendar as the platform prints it, by another way than ours. */
const printed = (ms: number, timeZone: string) =>
  new Intl.DateTimeFormat('sv-SE', { timeZone, dateStyle: 'short' }).format(ms)

describe('today in a garden', () => {
  it('is the day on its own calendar, wherever the sun stands', () => {
    // One instant, three days: noon in Greenwich on the 15th lies before midnight at UTC-11 and after it at UTC+14.
    const noon = Date.parse('2026-09-15T10:30:00Z')
    expect(gardenDay(null, 'Pacific/Pago_Pago', noon)).toBe('2026-09-14')
    expect(gardenDay(null, 'Europe/London', noon)).toBe('2026-09-15')
    expect(gardenDay(null, 'Pacific/Kiritimati', noon)).toBe('2026-09-16')
  })

  it('is what the platform prints, at any instant in any zone', () => {
    fc.assert(
      fc.property(instant, zone, (ms, timeZone) => {
        expect(gardenDay(null, timeZone, ms)).toBe(printed(ms, timeZone))
      }),
    )
  })

  it('never goes back while time goes on', () => {
    fc.assert(
      fc.property(instant, zone, fc.integer({ min: 0, max: 72 * HOUR }), (ms, timeZone, more) => {
        expect(gardenDay(null, timeZone, ms + more) >= gardenDay(null, timeZone, ms)).toBe(true)
      }),
    )
  })

  it('stands still where the practice stands at a day', () => {
    fc.assert(
      fc.property(instant, zone, (ms, timeZone) => {
        expect(gardenDay('2026-09-15', timeZone, ms)).toBe('2026-09-15')
        expect(civilDate(new Date(gardenInstant('2026-09-15', timeZone, ms)), timeZone)).toBe('2026-09-15')
      }),
    )
  })
})

describe('the instant a garden stands at', () => {
  it('is now, on the real day', () => {
    expect(gardenInstant(null, 'Pacific/Auckland', 1234)).toBe(1234)
  })

  it('has the time of day that it really is', () => {
    const at = gardenInstant('2026-06-21', 'Europe/London', Date.parse('2026-12-01T15:20:00Z'))
    // Twenty past three by the clock: in June that clock is an hour before Greenwich.
    expect(new Date(at).toISOString()).toBe('2026-06-21T14:20:00.000Z')
  })

  it('is the hour after, where clocks skip it that day', () => {
    // In London clocks went from 01:00 to 02:00 on 29 March 2026.
    const at = gardenInstant('2026-03-29', 'Europe/London', Date.parse('2026-01-10T01:30:00Z'))
    expect(new Date(at).toISOString()).toBe('2026-03-29T01:30:00.000Z')
  })
})

describe('the time until the next day', () => {
  it('ends exactly at midnight there: a moment before it is still today, a moment after tomorrow', () => {
    fc.assert(
      fc.property(instant, zone, (ms, timeZone) => {
        const rest = untilNextDay(timeZone, ms)
        const today = printed(ms, timeZone)
        expect(rest).toBeGreaterThan(0)
        expect(rest).toBeLessThanOrEqual(25 * HOUR)
        expect(printed(ms + rest - 1, timeZone)).toBe(today)
        expect(printed(ms + rest, timeZone)).toBe(addDays(today, 1))
      }),
      { numRuns: 300 },
    )
  })

  it('is an hour shorter and an hour longer where clocks change', () => {
    // New York, 2026: forward on 8 March, back on 1 November, at two in the morning.
    const midnight = (day: string) => instantsOf(`${day}T00:00`, 'America/New_York')[0]!
    expect(untilNextDay('America/New_York', midnight('2026-03-08'))).toBe(23 * HOUR)
    expect(untilNextDay('America/New_York', midnight('2026-11-01'))).toBe(25 * HOUR)
    expect(untilNextDay('America/New_York', midnight('2026-11-02'))).toBe(24 * HOUR)
  })
})

describe('local times', () => {
  it('stand for no instant where clocks skip them, and for two where they come twice', () => {
    expect(instantsOf('2026-03-08T02:30', 'America/New_York')).toEqual([])
    expect(instantsOf('2026-11-01T01:30', 'America/New_York')).toHaveLength(2)
    expect(instantsOf('2026-07-01T12:00', 'America/New_York')).toEqual([Date.parse('2026-07-01T16:00:00Z')])
  })
})

describe('days', () => {
  it('are counted as the proleptic Gregorian calendar counts them', () => {
    fc.assert(
      fc.property(fc.integer({ min: -30_000, max: 60_000 }), (n) => {
        const day = new Date(n * 24 * HOUR).toISOString().slice(0, 10)
        expect(dayNumber(day)).toBe(n)
        expect(weekdayOf(day)).toBe(new Date(`${day}T00:00:00Z`).getUTCDay())
      }),
    )
  })

  it('are days that there are', () => {
    for (const day of ['2024-02-29', '2000-02-29', '2026-12-31']) expect(isIsoDate(day)).toBe(true)
    for (const day of ['2026-02-29', '1900-02-29', '2026-13-01', '2026-00-10', '26-01-01', '2026-1-1', ''])
      expect(isIsoDate(day)).toBe(false)
  })

  it('know which zones there are', () => {
    for (const name of zones) expect(isTimeZone(name)).toBe(true)
    for (const name of ['Europe/Nowhere', '', 'GMT+one']) expect(isTimeZone(name)).toBe(false)
  })
})
