import { isAlive, type IsoDate } from '../dates/index.ts'
import type { Geometry, PlanFeature } from './feature.ts'

/** Where it was before it was changed in the garden itself: an outline that held until a day. */
export interface EarlierOutline {
  until: IsoDate
  geometry: Geometry
}

type Drawable = Pick<PlanFeature, 'geometry' | 'properties'>

/** A feature as it was drawn on a day: before it was changed in the garden, otherwise than now. */
export function asDrawnOn<F extends Drawable>(feature: F, on: IsoDate): F {
  const earlier = feature.properties.earlier as readonly EarlierOutline[] | undefined
  const then = earlier?.find((e) => on < e.until)
  return then ? { ...feature, geometry: then.geometry } : feature
}

/** What stands on a day, each as it was drawn then. */
export const featuresOn = <F extends Drawable & Pick<PlanFeature, 'from' | 'to'>>(
  features: readonly F[],
  on: IsoDate,
): F[] => features.filter((f) => isAlive(f, on)).map((f) => asDrawnOn(f, on))
