import type { GardenView } from '@border/contract'
import type { IsoDate } from '@border/core'
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
}

export const useGardenContext = () => useOutletContext<GardenContext>()
