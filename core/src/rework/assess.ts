import type { IsoDate } from '../dates/index.ts'
import {
  causesOf,
  fieldsBetween,
  hoursWithin,
  sunHours,
  type GardenField,
  type LightCause,
  type Scene,
  type SunHours,
} from '../light/index.ts'
import { driftRadiusM, type Taxon } from '../plants/index.ts'
import { crowdingOf, weeksAlone } from './crowding.ts'
import { isOutside, lightFit, type LightFit } from './fit.ts'
import { bestSpots, spotField, type Occupied, type SpotField, type TargetPlace } from './spots.ts'
import { verdictFor, type Evidence, type Verdict } from './verdict.ts'

/** A living planting where it stands. */
export interface PlantingModel {
  id: string
  taxon: Taxon
  placeId: string
  x: number
  y: number
  /** Height of the surface it grows in: a pot's rim, 0 in a bed. */
  z: number
  count: number
  /** Radius of its ground; from count and spacing where nobody measured it. */
  radiusM?: number | null
  plantedOn: IsoDate
  moisture?: number | null
}

/** What the light needs to know of a planting. */
export type LitPlanting = Pick<
  PlantingModel,
  'id' | 'taxon' | 'placeId' | 'x' | 'y' | 'z' | 'count' | 'radiusM'
>

export interface GardenModel {
  scene: Scene
  places: TargetPlace[]
  plantings: PlantingModel[]
  /** Ground promised to accepted moves. */
  reserved: Occupied[]
  /** What is known of plantings beside their light, by id. */
  evidence?: Readonly<Record<string, Evidence>> | undefined
}

/** A planting's light then and now against its range, what changed it, and the verdict. */
export interface Assessment {
  plantingId: string
  before: SunHours
  now: SunHours
  fitBefore: LightFit
  fit: LightFit
  outside: boolean
  causes: LightCause[]
  verdict: Verdict
}

/** The light of a garden's plantings then and now, and of every place they could go to. */
export interface GardenLight {
  plantings: { plantingId: string; before: SunHours; now: SunHours; causes: LightCause[] }[]
  field: SpotField
}

/** So much of its ground grown over, a planting is worth another place. */
const CROWDED_OUT = 0.35

/** A change of this many hours is worth explaining even inside the range. */
const EXPLAINED_HOURS = 0.5

/**
 * The slow half of an assessment: it depends on what stands and where plants stand, not on what was decided.
 *
 * @param then the day whose standing obstructions are "before"
 * @param now the day whose standing obstructions are "now"
 */
export function gardenLight(
  garden: Omit<GardenModel, 'reserved' | 'evidence'>,
  then: IsoDate,
  now: IsoDate,
): GardenLight {
  const { scene, places } = garden
  const fields = fieldsBetween(scene, places, then, now)
  return {
    field: spotField(scene, places, now),
    plantings: garden.plantings.map((p) => {
      const hoursIn = hoursOf(p, scene, now)
      const hours = hoursIn(fields.now)
      const before = hoursIn(fields.before)
      const moved = Math.abs(hours.total - before.total) >= EXPLAINED_HOURS
      const explained = moved || isOutside(lightFit(p.taxon, hours))
      return { plantingId: p.id, before, now: hours, causes: explained ? causesOf(fields, hoursIn) : [] }
    }),
  }
}

/** A planting's hours in any field of its garden; one whose place is not in it is asked by rays, as things stand. */
export const hoursOf =
  (p: LitPlanting, scene: Scene, on: IsoDate) =>
  (field: GardenField): SunHours =>
    hoursWithin(field, p.placeId, p.x, p.y, groundOf(p).radiusM) ??
    sunHours(scene, [p], { kind: 'season', on })[0]!

/**
 * Every planting of a garden judged on its light.
 *
 * @param light of the same plantings, in the same order
 * @returns worst misfit first, ties by id
 */
export function judgeGarden(garden: GardenModel, light: GardenLight, now: IsoDate): Assessment[] {
  const occupied = groundTaken(garden)
  const assessments = garden.plantings.map((p, i): Assessment => {
    const { before, now: hours, causes } = light.plantings[i]!
    const fit = lightFit(p.taxon, hours)
    const outside = isOutside(fit)
    const crowding = crowdingOf(p, garden.plantings, now)
    const crowded = crowding.reduce((sum, c) => sum + c.share, 0) >= CROWDED_OUT
    const spots =
      outside || crowded
        ? bestSpots(light.field, p.taxon, groundOf(p).radiusM, occupied, { plantingId: p.id, x: p.x, y: p.y })
        : []
    return {
      plantingId: p.id,
      before,
      now: hours,
      fitBefore: lightFit(p.taxon, before),
      fit,
      outside,
      causes,
      verdict: verdictFor({
        taxon: p.taxon,
        plantedOn: p.plantedOn,
        on: now,
        hoursNow: hours,
        hoursBefore: before,
        moisture: p.moisture,
        causes,
        spots,
        crowding,
        weeksAlone: weeksAlone(p, garden.plantings),
        count: p.count,
        evidence: garden.evidence?.[p.id],
      }),
    }
  })
  return assessments.sort(
    (a, b) => b.fit.misfitHours - a.fit.misfitHours || (a.plantingId < b.plantingId ? -1 : 1),
  )
}

export const assessGarden = (garden: GardenModel, then: IsoDate, now: IsoDate): Assessment[] =>
  judgeGarden(garden, gardenLight(garden, then, now), now)

/** Ground that plants stand on and ground promised to accepted moves. */
export const groundTaken = (garden: Pick<GardenModel, 'plantings' | 'reserved'>): Occupied[] => [
  ...garden.plantings.map(groundOf),
  ...garden.reserved,
]

/** The ground a planting stands on. */
export function groundOf(p: LitPlanting): Occupied {
  return {
    plantingId: p.id,
    placeId: p.placeId,
    x: p.x,
    y: p.y,
    radiusM: p.radiusM ?? driftRadiusM(p.count, p.taxon.spacingM),
  }
}
