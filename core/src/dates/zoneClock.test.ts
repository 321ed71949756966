import fc from 'fast-check'
import { Temporal } from 'temporal-polyfill'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { civilDate, instantsOf, localMinute, untilNextDay } from './index.ts'
import { offsetMs } from './zoneClock.ts'

const zones = Intl.supportedValuesOf('timeZone')
const instant = fc.integer({ min: Date.UTC(1975, 0, 1), max: Date.UTC(2050, 0, 1) })

/** What a runtime without Temporal says, and what one with it does. */
function bothWays<T>(asks: () => T): [printed: T, reckoned: T] {
  vi.stubGlobal('Temporal', undefined)
  const printed = asks()
  vi.stubGlobal('Temporal', Temporal)
  return [printed, asks()]
}

afterEach(() => vi.unstubAllGlobals())

describe('the clock of a zone', () => {
  it('is the same whichever calendar the runtime has, in every zone and at parts of a millisecond', () => {
    fc.assert(
      fc.property(instant, fc.double({ min: 0, max: 0.999, noNaN: true }), fc.nat(), (ms, part, n) => {
        const zone = zones[n % zones.length]!
        const [printed, reckoned] = bothWays(() => [offsetMs(ms, zone), offsetMs(ms + part, zone)])
        expect(reckoned).toEqual(printed)
      }),
      { numRuns: 400 },
    )
  })

  it('turns on the day that clocks do, both ways', () => {
    // London, 2026: forward at 01:00 Universal Time on 29 March, back at the same time on 25 October.
    const [printed, reckoned] = bothWays(() => [
      offsetMs(Date.parse('2026-03-29T00:59:59Z'), 'Europe/London'),
      offsetMs(Date.parse('2026-03-29T01:00:00Z'), 'Europe/London'),
      offsetMs(Date.parse('2026-10-25T01:00:00Z'), 'Europe/London'),
    ])
    expect(printed).toEqual([0, 3_600_000, 0])
    expect(reckoned).toEqual(printed)
  })

  it('is refused where there is no such zone, both ways', () => {
    const refused = (asks: () => unknown) => {
      try {
        return asks()
      } catch (error) {
        return error instanceof RangeError
      }
    }
    expect(bothWays(() => refused(() => offsetMs(0, 'Europe/Nowhere')))).toEqual([true, true])
  })

  it('gives the same days, local times and midnights', () => {
    fc.assert(
      fc.property(instant, fc.nat(), (ms, n) => {
        const zone = zones[n % zones.length]!
        const [printed, reckoned] = bothWays(() => {
          const local = localMinute(ms, zone)
          return {
            day: civilDate(new Date(ms), zone),
            local,
            at: instantsOf(local, zone),
            left: untilNextDay(zone, ms),
          }
        })
        expect(reckoned).toEqual(printed)
        // What a clock shows stands for the minute that it was read in.
        expect(printed.at).toContain(ms - (ms % 60_000))
      }),
      { numRuns: 200 },
    )
  })
})
