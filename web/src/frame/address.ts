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

/** The search of an address that asks for a planting as well. */
export const withPlanting = (search: string, plantingId: string): string =>
  `?${withParam(search, 'planting', plantingId)}`

/** One thing that the address says, and the way to say it otherwise in place: the way back leads past it. */
export function useParam(name: string): [string | undefined, (value: string | undefined) => void] {
  const [params, setParams] = useSearchParams()
  const set = useCallback(
    (value: string | undefined) => setParams((before) => withParam(before, name, value), { replace: true }),
    [setParams, name],
  )
  return [params.get(name) ?? undefined, set]
}

/**
 * What is chosen on a screen, by the address.
 *
 * @param panel the id of the element that shows it, which is brought into view by choosing
 */
export function useChosen(name: string, panel: string): [string | undefined, (id: string) => void] {
  const [chosen, set] = useParam(name)
  const choose = (id: string) => {
    bringIntoView(panel)
    set(id)
  }
  return [chosen, choose]
}
