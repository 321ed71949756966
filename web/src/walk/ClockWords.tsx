import { counted, dayMonthYear } from '@border/core'
import { useSignedIn } from '../api/session.ts'

/** Less is of no consequence to a day: nearly every clock is off a little. */
const SAID_FROM_MS = 5 * 60_000

const units = [
  ['day', 86_400_000],
  ['hour', 3_600_000],
  ['minute', 60_000],
] as const

/** Said before a walk begins where this device's clock is far off: what is noted is of the garden's own day all the same. */
export function ClockWords({ day }: { day: string }) {
  const { clockAheadMs } = useSignedIn()
  const off = Math.abs(clockAheadMs)
  if (off < SAID_FROM_MS) return null
  const [unit, ms] = units.find(([, ms]) => off >= ms)!
  return (
    <p role="status" className="walk-clock">
      The clock of this device is {counted(Math.round(off / ms), unit)}{' '}
      {clockAheadMs < 0 ? 'ahead' : 'behind'}. What you note is dated {dayMonthYear(day)} all the same, as it
      is in the garden.
    </p>
  )
}
