import type { GardenView } from '@border/contract'
import { leafDates } from '@border/core'

/** In leaf by the garden's climate; where no record says, by hemisphere. The tree's own dates can be put right later. */
export function usualLeafDates({ garden, climate }: Pick<GardenView, 'garden' | 'climate'>) {
  if (climate) return leafDates(climate) ?? {}
  return garden.latitude >= 0
    ? { leafFrom: '04-25', leafTo: '11-05' }
    : { leafFrom: '10-25', leafTo: '05-05' }
}
