import { useCallback } from 'react'
import { useSearchParams } from 'react-router'
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
