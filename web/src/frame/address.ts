import { useCallback, useEffect, useRef, useState } from 'react'
import { useLocation, useNavigate, useSearchParams } from 'react-router'
import { bringIntoView } from './bringIntoView.ts'

/** What an address says, with one thing of it said otherwise; undefined takes it out. */
export function withParam(
  search: string | URLSearchParams,
  name: string,
  value: string | undefined,
): URLSearchParams {
  const params = new URLSearchParams(search)
  if (value === undefined) params.delete(name)
  else params.set(name, value)
  return params
}

/** A search with several things said otherwise, as it stands in an address; nothing where nothing is left of it. */
export function searchWith(search: string, changes: Readonly<Record<string, string | undefined>>): string {
  const params = Object.entries(changes).reduce<URLSearchParams>(
    (said, [name, value]) => withParam(said, name, value),
    new URLSearchParams(search),
  )
  return params.size > 0 ? `?${params}` : ''
}

/** The search of an address that asks for a planting as well. */
export const withPlanting = (search: string, plantingId: string): string =>
  searchWith(search, { planting: plantingId })

/**
 * One thing that the address says, and the way to say it otherwise in place: the way back leads past it.
 *
 * @param atOnce whether the screen says it before the next press, rather than when it finds the time
 */
export function useParam(
  name: string,
  atOnce = false,
): [string | undefined, (value: string | undefined) => void] {
  const [params, setParams] = useSearchParams()
  const set = useCallback(
    (value: string | undefined) =>
      setParams((before) => withParam(before, name, value), { replace: true, flushSync: atOnce }),
    [setParams, name, atOnce],
  )
  return [params.get(name) ?? undefined, set]
}

/** Hands that move something rest so long before it is kept, and before what takes long is worked out, milliseconds. */
export const RESTS_MS = 180

/**
 * Several things of one screen in the address, some of which are dragged: shown at once, and written together when the hand rests, beside
 * whatever else the address says by then.
 */
export function useRestedParams<Name extends string>(
  names: readonly Name[],
): [said: Partial<Record<Name, string>>, put: (change: Partial<Record<Name, string>>) => void] {
  const location = useLocation()
  const navigate = useNavigate()
  const [held, hold] = useState<Partial<Record<Name, string>>>({})
  const latest = useRef({ location, held })
  useEffect(() => {
    latest.current = { location, held }
  })
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  useEffect(() => () => clearTimeout(timer.current), [])
  const put = (change: Partial<Record<Name, string>>) => {
    hold((before) => ({ ...before, ...change }))
    clearTimeout(timer.current)
    timer.current = setTimeout(() => {
      const { location: now, held: all } = latest.current
      void navigate({ ...now, search: searchWith(now.search, all) }, { replace: true })
    }, RESTS_MS)
  }
  const params = new URLSearchParams(location.search)
  const said: Partial<Record<Name, string>> = {}
  for (const name of names) {
    const value = held[name] ?? params.get(name)
    if (value !== null) said[name] = value
  }
  return [said, put]
}

/**
 * What is chosen on a screen, by the address. It is shown at once: a press on what was shown before
 * would count for something that is no longer chosen, or be lost with it.
 *
 * @param panel the id of the element that shows it, which is brought into view by choosing
 */
export function useChosen(name: string, panel: string): [string | undefined, (id: string) => void] {
  const [chosen, set] = useParam(name, true)
  const choose = (id: string) => {
    bringIntoView(panel)
    set(id)
  }
  return [chosen, choose]
}
