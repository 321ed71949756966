import { addDays, civilDate } from '@border/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { byTrueClock } from './deviceClock.ts'

const MINUTE = 60_000
const DAY = 86_400_000
const zones = ['Pacific/Pago_Pago', 'America/Denver', 'Europe/London', 'Asia/Kathmandu', 'Pacific/Kiritimati']
const scene = fc.record({
  timeZone: fc.constantFrom(...zones),
  /** When it was truly noted, how long it waited, and by how much the device's clock was wrong. */
  notedMs: fc.integer({ min: Date.parse('2026-01-01'), max: Date.parse('2027-12-31') }),
  waitedMs: fc.integer({ min: 0, max: 20 * DAY }),
  aheadMs: fc.oneof(
    fc.integer({ min: -40 * DAY, max: 40 * DAY }),
    fc.integer({ min: -4 * MINUTE, max: 4 * MINUTE }),
  ),
  /** How long the way to the server takes. */
  onTheWayMs: fc.integer({ min: 0, max: 20_000 }),
})
const dayIn = (timeZone: string, ms: number) => civilDate(new Date(ms), timeZone)
const iso = (ms: number) => new Date(ms).toISOString()

describe('what a device noted by a clock that is wrong', () => {
  it('is of the day it truly was in the garden, whether or not the device knew that its clock was wrong', () => {
    fc.assert(
      fc.property(scene, fc.boolean(), ({ timeZone, notedMs, waitedMs, aheadMs, onTheWayMs }, knew) => {
        const nowMs = notedMs + waitedMs + onTheWayMs
        const deviceMs = notedMs + aheadMs
        const serverAheadMs = knew ? -aheadMs : 0
        const on = dayIn(timeZone, deviceMs + serverAheadMs)
        const sentAheadMs = nowMs - onTheWayMs + aheadMs - nowMs
        const truly = byTrueClock({ on, at: iso(deviceMs), serverAheadMs }, sentAheadMs, {
          standsAt: null,
          timeZone,
          nowMs,
        })
        expect(Math.abs(Date.parse(truly.at) - notedMs)).toBeLessThanOrEqual(5 * MINUTE)
        // Within minutes of midnight the way to the server can be told from no clock.
        const about = [-5 * MINUTE, 0, 5 * MINUTE].map((off) => dayIn(timeZone, notedMs + off))
        expect(about).toContain(truly.on)
        if (Math.abs(aheadMs) > 6 * MINUTE) expect(truly.deviceAt).toBe(iso(deviceMs))
        if (Math.abs(aheadMs) < 4 * MINUTE) expect(truly.deviceAt).toBe(null)
      }),
      { numRuns: 500 },
    )
  })

  it('never lies ahead of the garden, even where the clock was put right before it was sent', () => {
    fc.assert(
      fc.property(scene, ({ timeZone, notedMs, waitedMs, aheadMs }) => {
        const nowMs = notedMs + waitedMs
        const deviceMs = notedMs + aheadMs
        const on = dayIn(timeZone, deviceMs)
        const truly = byTrueClock({ on, at: iso(deviceMs) }, 0, { standsAt: null, timeZone, nowMs })
        expect(truly.on <= dayIn(timeZone, nowMs + 5 * MINUTE)).toBe(true)
        expect(Date.parse(truly.at)).toBeLessThanOrEqual(nowMs + 5 * MINUTE)
      }),
      { numRuns: 300 },
    )
  })

  it('leaves a day that a person chose, and what never said when it was noted', () => {
    fc.assert(
      fc.property(scene, fc.integer({ min: 1, max: 300 }), ({ timeZone, notedMs, aheadMs }, back) => {
        const stands = { standsAt: null, timeZone, nowMs: notedMs }
        const chosen = addDays(dayIn(timeZone, notedMs + aheadMs), -back)
        expect(byTrueClock({ on: chosen, at: iso(notedMs + aheadMs) }, aheadMs, stands).on).toBe(chosen)
        expect(byTrueClock({ on: chosen }, aheadMs, stands)).toEqual({ on: chosen, deviceAt: null })
      }),
    )
  })

  it('is of the day that a practice stands at', () => {
    const stands = {
      standsAt: '2026-09-14',
      timeZone: 'Europe/London',
      nowMs: Date.parse('2026-11-29T12:00:00Z'),
    }
    const noted = { on: '2026-09-14', at: '2026-12-02T12:00:00.000Z' }
    expect(byTrueClock(noted, 3 * DAY, stands)).toEqual({
      on: '2026-09-14',
      at: '2026-11-29T12:00:00.000Z',
      deviceAt: noted.at,
    })
  })
})
