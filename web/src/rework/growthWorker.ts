import {
  grownOver,
  sceneOf,
  type Feature,
  type GrownOver,
  type IsoDate,
  type StandingPlant,
} from '@border/core'
import { expose } from 'comlink'

const worker = {
  /** What has become of plants that stand together, by each of so many years. */
  grownOver(
    garden: Parameters<typeof sceneOf>[0],
    features: readonly Feature[],
    plants: readonly StandingPlant[],
    years: readonly number[],
    on: IsoDate,
  ): GrownOver[] {
    return grownOver(sceneOf(garden, features), plants, years, on)
  },
}
export type GrowthWorker = typeof worker

expose(worker)
