import { useGardenContext } from './gardenContext.ts'

/** `09:20`: the time of day of an instant, on the garden's clock. */
export function useClock(): (ms: number) => string {
  const { timeZone } = useGardenContext().view.garden
  return new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone }).format
}
