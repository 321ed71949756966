import type { PlantingView } from './gardens.ts'
import type { PlantingSeen } from './plantings.ts'

/** What of a planting is seen by whoever puts it right. */
export const plantingSeen = ({ taxon: { botanical }, ...p }: PlantingView): PlantingSeen => ({
  id: p.id,
  tag: p.tag,
  botanical,
  placeId: p.placeId,
  x: p.x,
  y: p.y,
  plantedCount: p.plantedCount,
  plantedOn: p.plantedOn,
  plantedKnown: p.plantedKnown,
  source: p.source,
  role: p.role,
  colourWish: p.colourWish,
})
