import { gardenDay, gardenInstant, untilNextDay, type IsoDate } from '@border/core'
import { useEffect, useState } from 'react'
import { standsAt, useSignedIn } from '../api/session.ts'

/** The longest that a page sleeps before it looks at the clock again: timers of a sleeping device stand still. */
const LOOK_AGAIN_MS = 10 * 60_000

/**
 * Today in a garden, and the instant it stands at: by the garden's own calendar and the server's clock, wherever this device is
 * and whatever its own clock says. It goes on at the garden's midnight while the page is open.
 */
export function useGardenClock(timeZone: string): { today: IsoDate; instantMs: () => number } {
  const session = useSignedIn()
  const fixed = standsAt(session)
  const nowMs = () => Date.now() + session.clockAheadMs
  const [today, setToday] = useState(() => gardenDay(fixed, timeZone, nowMs()))
  const now = gardenDay(fixed, timeZone, nowMs())
  // Another garden, or another clock: its day is shown at once.
  if (now !== today) setToday(now)
  const { clockAheadMs } = session
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout>
    const look = () => {
      clearTimeout(timer)
      const at = Date.now() + clockAheadMs
      setToday(gardenDay(fixed, timeZone, at))
      timer = setTimeout(look, Math.min(LOOK_AGAIN_MS, untilNextDay(timeZone, at) + 1))
    }
    look()
    document.addEventListener('visibilitychange', look)
    return () => {
      clearTimeout(timer)
      document.removeEventListener('visibilitychange', look)
    }
  }, [fixed, timeZone, clockAheadMs])
  return { today: now, instantMs: () => gardenInstant(fixed, timeZone, nowMs()) }
}
