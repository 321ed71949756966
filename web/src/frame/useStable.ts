import { useCallback, useLayoutEffect, useRef } from 'react'

/** One function for as long as it is shown, that does what the latest one given does: what it is handed to is not drawn anew for it. */
export function useStable<Args extends unknown[], Result>(now: (...args: Args) => Result) {
  const latest = useRef(now)
  useLayoutEffect(() => {
    latest.current = now
  })
  return useCallback((...args: Args): Result => latest.current(...args), [])
}
