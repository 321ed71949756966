import type { Climate } from '../climate/index.ts'
import type { IsoDate } from '../dates/index.ts'
import type { Scene } from '../light/index.ts'
import type { Feature } from './feature.ts'
import { sceneOf } from './obstructions.ts'
import { placesOn, type Place } from './place.ts'
import type { Planting } from './planting.ts'

/** A garden as it stands on a day: what casts shade, where plants can stand, and what stands there. */
export interface StandingGarden {
  scene: Scene
  places: readonly Place[]
  plantings: readonly Planting[]
  /** What its years are usually like: null where it has none. */
  climate?: Climate | null | undefined
}

/**
 * @param features everything ever on the plan: what casts shade has a past and a future
 * @param plantings those that stand on the day
 */
export const standingGarden = (
  at: { latitude: number; longitude: number; northDeg: number },
  features: readonly Feature[],
  plantings: readonly Planting[],
  on: IsoDate,
): StandingGarden => ({ scene: sceneOf(at, features), places: placesOn(features, on), plantings })
