import { summerOf } from '../climate/index.ts'
import { daysBetween, type IsoDate } from '../dates/index.ts'
import type { SignId, SuspectedChange } from '../diagnosis/index.ts'
import type { Elsewhere } from '../remedies/index.ts'
import {
  causesOf,
  dappledShare,
  fieldsBetween,
  type FieldsBetween,
  hoursWithin,
  LEVEL,
  lightDays,
  sunHours,
  type GardenField,
  type Ground,
  type LightCause,
  type Scene,
  type SunHours,
} from '../light/index.ts'
import {
  driedBy,
  groundOf,
  groundRadiusM,
  groundTakenBy,
  type Planting,
  type StandingGarden,
  type TakenGround,
  surfaceHeightM,
  surroundingsOn,
} from '../garden/index.ts'
import { onceFor } from '../once/index.ts'
import type { Year } from '../plants/index.ts'
import { crowdingOf, weeksAlone } from './crowding.ts'
import type { PlantPrices } from './money.ts'
import { isOutside, lightFit, type LightFit, type SuspectedMoisture } from './fit.ts'
import { openings, type Openings } from './openings.ts'
import { bestSpots, spotField, type SpotField, type SpotOption } from './spots.ts'
import { verdictFor, type Condition, type Verdict } from './verdict.ts'

/** A garden with all that its plantings are judged by. */
export interface JudgedGarden extends StandingGarden {
  /** Ground promised to accepted moves. */
  reserved: readonly TakenGround[]
  /** What is known of plantings beside their light, by id. */
  conditions?: Readonly<Record<string, Condition>> | undefined
  /** How the year runs there. */
  year?: Year | undefined
  /** What the signs of its plantings say of its places. */
  suspected?: readonly SuspectedChange[] | undefined
  /** What plants cost where they are bought. */
  prices?: PlantPrices | undefined
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
  plantings: {
    plantingId: string
    before: SunHours
    now: SunHours
    causes: LightCause[]
    /** The share of its sun that comes through leaves. */
    dappled?: number | undefined
  }[]
  field: SpotField
}

/** So much of its ground grown over, a planting is worth another place. */
const CROWDED_OUT = 0.35

/** A change of this many hours is worth explaining even inside the range. */
const EXPLAINED_HOURS = 0.5

/** The light of a garden's places then and now, whatever grows in them: the slowest part of an assessment. */
export interface PlacesLight {
  now: IsoDate
  fields: FieldsBetween
  spots: SpotField
}

/**
 * @param then the day whose standing obstructions are "before"
 * @param now the day whose standing obstructions are "now"
 */
export const placesLight = (
  { scene, places }: Pick<StandingGarden, 'scene' | 'places'>,
  then: IsoDate,
  now: IsoDate,
): PlacesLight => {
  const fields = fieldsBetween(scene, places, then, now)
  return {
    now,
    fields,
    spots: spotField(fields.now, places, surroundingsOn(scene, now)),
  }
}

/** The light of the plantings of a garden, by that of its places. */
export function plantingsLight(
  { scene, plantings }: Pick<StandingGarden, 'scene' | 'plantings'>,
  { now, fields, spots }: PlacesLight,
): GardenLight {
  const dappledAt = dapplingIn(scene, spots, now)
  return {
    field: spots,
    plantings: plantings.map((p) => {
      const hoursIn = hoursOf(p, scene, now)
      const hours = hoursIn(fields.now)
      const before = hoursIn(fields.before)
      const moved = Math.abs(hours.total - before.total) >= EXPLAINED_HOURS
      // Whatever its summers: what is never outside needs no cause.
      const explained = moved || isOutside(lightFit(p.taxon, hours, 'hot'))
      return {
        plantingId: p.id,
        before,
        now: hours,
        causes: explained ? causesOf(fields, hoursIn) : [],
        dappled: dappledAt(p),
      }
    }),
  }
}

/** Of the days of a season so many tell whether light is dappled. */
const EVERY_NTH_DAY = 4
/** Most of a day’s sun comes through the leaves of a tree no further off its crown than so many times its height. */
const DAPPLES_WITHIN = 0.4

/** The share of plantings' sun that comes through leaves: prepared once for each ground. */
function dapplingIn(scene: Scene, { places }: SpotField, on: IsoDate): (p: Planting) => number {
  const placeOf = new Map(places.map(({ place }) => [place.id, place]))
  const daysOfGround = onceFor((ground: Ground) =>
    lightDays(scene, { kind: 'season', on }, ground).filter((_, i) => i % EVERY_NTH_DAY === 1),
  )
  const trees = scene.obstructions.filter((o) => o.kind === 'tree')
  return ({ placeId, x, y }) => {
    // Under other trees than those near by the sun comes through few leaves, if any.
    const isNear = trees.some(
      (t) => Math.hypot(t.x - x, t.y - y) <= t.crownRadiusM + DAPPLES_WITHIN * t.heightM,
    )
    if (!isNear) return 0
    const place = placeOf.get(placeId)
    return dappledShare(daysOfGround(place?.ground ?? LEVEL), { x, y, z: surfaceHeightM(place) })
  }
}

/** The slow half of an assessment: it depends on what stands and where plants stand, not on what was decided. */
export const gardenLight = (garden: StandingGarden, then: IsoDate, now: IsoDate): GardenLight =>
  plantingsLight(garden, placesLight(garden, then, now))

/** A planting's hours in any field of its garden; one whose place is not in it is asked by rays, as things stand. */
export const hoursOf =
  (p: Planting, scene: Scene, on: IsoDate) =>
  (field: GardenField): SunHours =>
    hoursWithin(field, p.placeId, groundOf(p)) ??
    sunHours(scene, [{ x: p.x, y: p.y, z: 0 }], { kind: 'season', on })[0]!

/** What signs say of the moisture of places, by their id. */
export const suspectedMoisture = (
  suspected: readonly SuspectedChange[] = [],
): ReadonlyMap<string, SuspectedMoisture> =>
  new Map(
    suspected.flatMap(({ placeId, cause }) =>
      cause === 'drier' || cause === 'wetter' ? [[placeId, cause] as const] : [],
    ),
  )

/** Free spots for each planting that is worth another place, best first, by its id. */
export type FreeSpots = Readonly<Record<string, readonly SpotOption[]>>

/** @param light of the same plantings, in the same order */
export function freeSpots(
  garden: Pick<JudgedGarden, 'plantings' | 'reserved' | 'climate' | 'suspected'>,
  light: GardenLight,
  now: IsoDate,
): FreeSpots {
  const taken = groundTaken(garden)
  const summer = summerOf(garden.climate)
  const known = { summer, suspected: suspectedMoisture(garden.suspected) }
  const asking = garden.plantings.filter(
    (p, i) =>
      isOutside(lightFit(p.taxon, light.plantings[i]!.now, summer)) ||
      crowdingOf(p, garden.plantings, now).reduce((sum, c) => sum + c.share, 0) >= CROWDED_OUT,
  )
  // Those that cover the same ground stand in the same light.
  const byRadius = asking.toSorted((a, b) => groundRadiusM(a) - groundRadiusM(b))
  const spots = new Map(byRadius.map((p) => [p.id, bestSpots(light.field, p, taken, known)]))
  return Object.fromEntries(asking.map((p) => [p.id, spots.get(p.id)!]))
}

/**
 * Every planting of a garden judged on its light.
 *
 * @param light of the same plantings, in the same order
 * @param opened what would let light in to those that lack it
 * @returns worst misfit first, else in the order of the plantings
 */
export function judgeGarden(
  garden: JudgedGarden,
  light: Pick<GardenLight, 'plantings'>,
  spots: FreeSpots,
  opened: Openings,
  now: IsoDate,
): Assessment[] {
  const placeById = new Map(garden.places.map((place) => [place.id, place]))
  const summer = summerOf(garden.climate)
  const suspected = suspectedMoisture(garden.suspected)
  const about = surroundingsOn(garden.scene, now)
  const elsewhere = seenElsewhere(garden)
  const assessments = garden.plantings.map((p, i): Assessment => {
    const { before, now: hours, causes, dappled } = light.plantings[i]!
    const fit = lightFit(p.taxon, hours, summer)
    const place = placeById.get(p.placeId)
    return {
      plantingId: p.id,
      before,
      now: hours,
      fitBefore: lightFit(p.taxon, before, summer),
      fit,
      outside: isOutside(fit),
      causes,
      verdict: verdictFor({
        taxon: p.taxon,
        inPlaceSince: p.inPlaceSince,
        on: now,
        hoursNow: hours,
        hoursBefore: before,
        dappled,
        moisture: place?.moisture ?? null,
        wind: place?.wind,
        ...(place?.kind !== 'container' && driedBy(about, p.x, p.y)),
        suspected: suspected.get(p.placeId),
        opening: opened[p.id],
        elsewhere: elsewhere(p),
        placeKind: place?.kind,
        planted: p.plantedCount,
        year: garden.year,
        climate: garden.climate,
        causes,
        // Where nobody has looked, nothing is said of spots.
        spots: spots[p.id],
        crowding: crowdingOf(p, garden.plantings, now),
        weeksAlone: weeksAlone(p, garden.plantings),
        count: p.livingCount,
        condition: garden.conditions?.[p.id],
        prices: garden.prices,
      }),
    }
  })
  return assessments.sort((a, b) => b.fit.misfitHours - a.fit.misfitHours)
}

/** Signs of one walk: so many days apart at most. */
const SAME_WALK_DAYS = 2
const wetSigns: readonly SignId[] = ['stays-wet']
const drySigns: readonly SignId[] = ['wilting', 'runs-off']

/**
 * For a planting what other places showed when its own ground was seen to be dry or wet: wet one bed and dry the next, where one of them is
 * watered by pipes, is a matter of those.
 */
function seenElsewhere({
  places,
  plantings,
  conditions = {},
}: Pick<JudgedGarden, 'places' | 'plantings' | 'conditions'>) {
  const piped = new Set(places.filter((p) => p.piped).map((p) => p.id))
  const seen = plantings.flatMap(({ id, placeId }) =>
    Object.entries(conditions[id]?.signsOn ?? {}).flatMap(
      ([sign, on]): { placeId: string; is: Elsewhere; on: IsoDate }[] =>
        wetSigns.includes(sign as SignId)
          ? [{ placeId, is: 'wet', on }]
          : drySigns.includes(sign as SignId)
            ? [{ placeId, is: 'dry', on }]
            : [],
    ),
  )
  return ({ id, placeId }: Planting): Elsewhere[] => {
    const signsOn = Object.entries(conditions[id]?.signsOn ?? {})
    const opposite = (of: readonly SignId[], is: Elsewhere) =>
      signsOn.some(
        ([sign, on]) =>
          of.includes(sign as SignId) &&
          seen.some(
            (s) =>
              s.is === is &&
              s.placeId !== placeId &&
              (piped.has(s.placeId) || piped.has(placeId)) &&
              Math.abs(daysBetween(s.on, on)) <= SAME_WALK_DAYS,
          ),
      )
    return [
      ...(opposite(drySigns, 'wet') ? (['wet'] as const) : []),
      ...(opposite(wetSigns, 'dry') ? (['dry'] as const) : []),
    ]
  }
}

/** All of it in one go: the light, the free spots and the verdicts. */
export function assessGarden(garden: JudgedGarden, then: IsoDate, now: IsoDate): Assessment[] {
  const light = gardenLight(garden, then, now)
  return judgeGarden(garden, light, freeSpots(garden, light, now), openings(garden, light, now), now)
}

/** Ground that plants stand on and ground promised to accepted moves. */
export const groundTaken = ({
  plantings,
  reserved,
}: Pick<JudgedGarden, 'plantings' | 'reserved'>): TakenGround[] => [
  ...plantings.map(groundTakenBy),
  ...reserved,
]
