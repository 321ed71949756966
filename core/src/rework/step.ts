import {
  diggingCautions,
  type CareRule,
  type JobDraft,
  type Material,
  type Schools,
  type Window,
} from '../care/index.ts'
import type { Climate } from '../climate/index.ts'
import type { Place, Planting } from '../garden/index.ts'
import type { Taxon } from '../plants/index.ts'
import type { DriftStand } from './driftOutlines.ts'
import { materialUnits } from './totals.ts'

/** Where something that leaves goes, with what is known of the spot. */
export type Goes =
  | {
      to: 'spot'
      place: Pick<Place, 'id' | 'name' | 'kind'>
      x: number
      y: number
      /** Lines and pipes near either end, by name. */
      hazards: readonly string[]
    }
  | { to: 'bench' | 'give away' | 'gone' }

/** What is planted: a drift, or bulbs between. */
export interface Comes {
  /** Of the drift. */
  id: string
  taxon: Taxon
  count: number
  /** Of these, how many one has. */
  have: number
  areaM2: number
  stand: DriftStand
  /** Plantings that leave the ground it is to have. */
  over: readonly string[]
}

/** A scheme with everything that carrying it out hangs on. */
export interface SchemeToCarryOut {
  place: Pick<Place, 'id' | 'name' | 'kind'>
  leaving: readonly { planting: Planting; goes: Goes }[]
  /** Each with the pieces that are over once it is set back. */
  dividing: readonly { planting: Planting; spare: number }[]
  /** Plants of other places that are wanted here, and have no other ground. */
  fetched: readonly { planting: Planting; placeName: string }[]
  comes: readonly Comes[]
  /** Ground that is dug and planted, square metres. */
  plantedM2: number
  compostM: number
  mulchM: number
  extras: readonly { item: string; count: number }[]
  /** Lines and pipes near the place, by name. */
  hazards: readonly string[]
  climate: Climate
  /** How late the season runs. */
  lateDays: number
  schools: Schools
  rules: readonly CareRule[]
}

/** Parts of the work, in order. */
export const stepStages = ['make room', 'make ready', 'plant', 'look after'] as const
export type StepStage = (typeof stepStages)[number]

/** A step of carrying a scheme out. */
export interface Step extends JobDraft {
  stage: StepStage
  placeId: string
  /** What it is done to, where that stands already: what changes by it, and all that it is for. */
  plantingId: string | null
  plantingIds: readonly string[]
  /** Where it goes. */
  target: { placeId: string; x: number; y: number } | null
  /** What it plants. */
  sets: Comes | null
  /** Pieces that a division is likely to give for elsewhere. */
  spare: number | null
}

/** A step of which only what is particular has been said. */
export const stepOf = (
  scheme: Pick<SchemeToCarryOut, 'place'>,
  step: Pick<Step, 'stage' | 'key' | 'kind' | 'title' | 'window' | 'minutes' | 'steps' | 'after'> &
    Partial<Step>,
): Step => ({
  placeId: scheme.place.id,
  plantingId: null,
  plantingIds: step.plantingId ? [step.plantingId] : [],
  target: null,
  sets: null,
  spare: null,
  materials: [],
  tools: [],
  cautions: [],
  nextChance: null,
  ...step,
})

/** Comes after each of these, at any time. */
export const afterEach = (keys: readonly string[]): Step['after'] =>
  keys.map((key) => ({ key, leastDays: 0 }))

/** What is said before anybody digs in the place; nobody digs in a pot. */
export const digsHere = ({ place, hazards }: Pick<SchemeToCarryOut, 'place' | 'hazards'>): string[] =>
  place.kind === 'container' ? [] : diggingCautions(hazards)

/** What a job takes along of an item that is bought. */
export const asMaterial = ({ item, count }: { item: string; count: number }): Material => ({
  name: item,
  amount: count,
  unit: materialUnits[item] ?? 'pieces',
})

/** What is lifted, with the windows in which it can be, soonest first; none where any time will do. */
export interface Lift {
  planting: Planting
  /** `here`: it comes from another place. */
  goes: Goes | { to: 'here' }
  fromPlace: string
  windows: Window[]
}

/** What keeps a scheme from being carried out. */
export interface Problem {
  /** A planting by its id, or a kind by its name. */
  about: string
  says: string
}
