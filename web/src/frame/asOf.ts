import { isIsoDate, type IsoDate } from '@border/core'
import { useCallback } from 'react'
import { useParam } from './address.ts'

/** The one date every screen stands at: `?on=` in the address, the garden's today when it is absent. */
export function useAsOf(today: IsoDate): { on: IsoDate; setOn: (day: IsoDate) => void } {
  const [asked, ask] = useParam('on')
  const on = asked && isIsoDate(asked) ? asked : today
  const setOn = useCallback((day: IsoDate) => ask(day === today ? undefined : day), [ask, today])
  return { on, setOn }
}
