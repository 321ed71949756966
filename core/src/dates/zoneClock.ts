const MS_PER_NS = 1e-6

/** What is asked here of the runtime's own calendar, where it has one. */
interface ZonedInstants {
  Instant: {
    fromEpochMilliseconds(ms: number): {
      toZonedDateTimeISO(timeZone: string): { readonly offsetNanoseconds: number }
    }
  }
}

/**
 * Local minus universal time of a zone at an instant, milliseconds.
 *
 * By Temporal (ECMA-262 proposal, stage 4) where the runtime has it: it needs none of the tables of languages, which the first
 * use of Intl reads, a third of a second on a slow device. Else by the clock that Intl prints.
 *
 * @throws {RangeError} when the runtime knows no such zone
 */
export function offsetMs(instantMs: number, timeZone: string): number {
  const { Temporal } = globalThis as { Temporal?: ZonedInstants }
  if (!Temporal) return printedOffsetMs(instantMs, timeZone)
  const whole = Math.floor(instantMs)
  const zoned = Temporal.Instant.fromEpochMilliseconds(whole).toZonedDateTimeISO(timeZone)
  return Math.round(zoned.offsetNanoseconds * MS_PER_NS)
}

/** Making one takes far longer than asking it. */
const clocks = new Map<string, Intl.DateTimeFormat>()

function printedOffsetMs(instantMs: number, timeZone: string): number {
  const clock =
    clocks.get(timeZone) ??
    new Intl.DateTimeFormat('en-US', {
      timeZone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
    })
  clocks.set(timeZone, clock)
  const part = Object.fromEntries(clock.formatToParts(instantMs).map((p) => [p.type, Number(p.value)]))
  const shown = Date.UTC(part.year!, part.month! - 1, part.day, part.hour, part.minute, part.second)
  return shown - Math.floor(instantMs / 1000) * 1000
}
