import { isIsoDate, type IsoDate } from '@border/core'
import { useCallback } from 'react'
import { useSearchParams } from 'react-router'

/** The one date every screen stands at: `?on=` in the address, the garden's today when it is absent. */
export function useAsOf(today: IsoDate): { on: IsoDate; setOn: (day: IsoDate) => void } {
  const [params, setParams] = useSearchParams()
  const asked = params.get('on')
  const on = asked && isIsoDate(asked) ? asked : today
  const setOn = useCallback(
    (day: IsoDate) =>
      setParams(
        (before) => {
          const next = new URLSearchParams(before)
          if (day === today) next.delete('on')
          else next.set('on', day)
          return next
        },
        { replace: true },
      ),
    [setParams, today],
  )
  return { on, setOn }
}
