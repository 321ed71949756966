import { clockTime } from '@border/core'
import { useGardenContext } from './gardenContext.ts'

/** `09:20`: the time of day of an instant, on the garden's clock. */
export function useClock(): (ms: number) => string {
  const { timeZone } = useGardenContext().view.garden
  return (ms) => clockTime(ms, timeZone)
}
