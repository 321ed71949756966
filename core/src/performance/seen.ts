import type { IsoDate } from '../dates/index.ts'
import type { Phase, Taxon } from '../plants/index.ts'

/** From before the first flower to after the last. */
export const bloomStages = ['none', 'bud', 'opening', 'full', 'fading', 'over'] as const
export type BloomStage = (typeof bloomStages)[number]

/** The bloom stage a phase of the year looks like. */
export const stageOfPhase: Record<Phase, BloomStage> = {
  underground: 'none',
  emerging: 'none',
  growing: 'none',
  'in bud': 'bud',
  opening: 'opening',
  'in full bloom': 'full',
  fading: 'fading',
  'finished flowering': 'over',
  'summer rest': 'none',
  'going over': 'over',
  bare: 'none',
  'winter green': 'none',
}

/** Ratings 1 to 5 as they are said. */
export const ratingWords = ['failing', 'poor', 'fair', 'good', 'very good'] as const

/** One look at a planting on a walk. What nobody said is null. */
export interface Seen {
  plantingId: string
  on: IsoDate
  /** 1 failing to 5 very good. */
  rating: number | null
  living: number | null
  stage: BloomStage | null
  /** Which flowering of the season, from 1. */
  flush: number | null
  /** Nothing of it shows above ground. */
  absent: boolean
  signs: readonly string[]
}

/** A planting as the record judges it. */
export interface RecordedPlanting {
  id: string
  taxon: Taxon
  placeId: string
  /** The day it came to where it stands. */
  inPlaceSince: IsoDate
  plantedCount: number
}
