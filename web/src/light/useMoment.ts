import { momentsOf, type Moment } from '@border/core'
import { useEffect, useMemo, useState } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'

export interface MomentState {
  /** The moments of the as-of day with the sun up, every ten minutes. */
  moments: readonly Moment[]
  index: number
  /** Undefined in polar night. */
  current: Moment | undefined
  playing: boolean
  go: (index: number) => void
  play: (playing: boolean) => void
}

/** Ten minutes of sun pass in this many milliseconds. */
const STEP_MS = 140

/** The moment of the as-of day that shadows are drawn for; noon until told otherwise. */
export function useMoment(active: boolean): MomentState | undefined {
  const { view, on } = useGardenContext()
  const { latitude, longitude, northDeg, timeZone } = view.garden
  const moments = useMemo(
    () =>
      active ? momentsOf({ latitudeDeg: latitude, longitudeDeg: longitude, northDeg }, timeZone, on) : [],
    [active, latitude, longitude, northDeg, timeZone, on],
  )
  const [asked, setAsked] = useState<number>()
  const [playing, setPlaying] = useState(false)
  const index = Math.min(asked ?? Math.floor(moments.length / 2), Math.max(0, moments.length - 1))
  const runs = playing && active && moments.length > 0
  useEffect(() => {
    if (!runs) return
    const timer = setInterval(
      () => setAsked((before) => ((before ?? Math.floor(moments.length / 2)) + 1) % moments.length),
      STEP_MS,
    )
    return () => clearInterval(timer)
  }, [runs, moments.length])
  return active
    ? { moments, index, current: moments[index], playing, go: setAsked, play: setPlaying }
    : undefined
}
