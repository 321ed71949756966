import type { GardenView, Preferences } from '@border/contract'
import { USUAL_NAMING, type IsoDate, type Naming } from '@border/core'
import { useOutletContext } from 'react-router'

/** What every garden screen stands on. */
export interface GardenContext {
  view: GardenView
  /** Features on the plan on the as-of date. */
  standing: GardenView['features']
  on: IsoDate
  /** The as-of date where it is another than today: what is asked for without one is of today, and kept on the device. */
  asOf: IsoDate | undefined
  /** The garden's own day. */
  today: IsoDate
  /** The instant the garden stands at, milliseconds since 1970. */
  instantMs: () => number
  isHead: boolean
  isCrew: boolean
  /** How whoever looks on wants things called and written. */
  preferences: Preferences
}

/** How whoever looks on calls plants; as is usual where they look on a garden that is not theirs. */
export const useNaming = (): Naming =>
  useOutletContext<GardenContext | undefined>()?.preferences.names ?? USUAL_NAMING

export const useGardenContext = () => useOutletContext<GardenContext>()
