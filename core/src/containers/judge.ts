import {
  brimfulLitres,
  type Container,
  type Shelter,
  eavesOver,
  litresTo,
  eavesZones,
  type Feature,
  mixLitresOf,
  mixSurfaceM2,
  type movers,
  type Place,
  type PlanFeature,
  type Planting,
  type Vessel,
  vesselOf,
} from '../garden/index.ts'
import type { Climate, DailyWeather } from '../climate/index.ts'
import { fromDayNumber, dayNumber, isoDate, monthOf, type IsoDate } from '../dates/index.ts'
import { sunHours, type Scene, type SunHours } from '../light/index.ts'
import { isWoody, usualState, type Phase, type Year } from '../plants/index.ts'
import type { MixPart } from '../quantities/index.ts'
import type { CareRule, Schools } from '../care/index.ts'
import { planAbsence, type AbsencePlan } from './absence.ts'
import { putRight, type DrainTest } from './drainTest.ts'
import { feedingOf, type PotFeeding } from './feedPot.ts'
import type { FillEnd, FillSeason } from './fill.ts'
import { potRoleOf, remarksOn, type PotRemark } from './fitting.ts'
import { mixState, testCounting, type MixFilled, type MixState } from './mixState.ts'
import { potFactor, type PotCheck, type PotFactor } from './potFactor.ts'
import { potVerdictsOf, type PotEvidence, type PotVerdict } from './potVerdict.ts'
import { winteringOf, type Wintering } from './wintering.ts'
import { bagsFor, recipeFor, recipes, traitsOf, type MixTraits, type PartBought } from './mix.ts'
import {
  wateringByMonth,
  waterDays,
  waterThrough,
  wallShare,
  type Drinking,
  type MonthOfWater,
  type WateredPot,
  type WaterDay,
} from './potWater.ts'
import { fillAhead, type FillAhead } from './swap.ts'
import { faultsOf, tipsAt, type PotFault } from './stability.ts'
import { rootsFillOn, sizeInPot, type InPot } from './inPot.ts'
import { liftedBy, weightOf, type Weight } from './weight.ts'

/** A container as it is judged: as the plan has it, with what grows in it. */
export interface PotStanding {
  id: string
  properties: PlanFeature['properties']
  x: number
  y: number
  rimHeightM: number
  plantings: readonly InPot[]
  /** What it was filled with; null where nobody has said. */
  mix: readonly MixPart[] | null
  season: FillSeason
  /** What is on record of it; nothing where nothing is. */
  known?: PotKnown | undefined
}

/** What is on record of a container. */
export interface PotKnown {
  /** Its fills, the earliest first. */
  fills: readonly (MixFilled & { endedBy: FillEnd | null })[]
  checks: readonly PotCheck[]
  /** Drain tests of its mix. */
  tests: readonly DrainTest[]
  /** The last ratings of what grows in it, of this season. */
  ratings: PotEvidence['ratings']
  /** Kinds that a rule would have cut now, by their common names. */
  toCut: readonly string[]
}

/** The containers among the places of a garden, with what grows in them and what they were filled with as far as somebody has said. */
export function potsStanding(
  {
    places,
    features,
    plantings,
  }: {
    places: readonly Place[]
    features: readonly Feature[]
    plantings: readonly Planting[]
  },
  fillOf: (
    place: Container,
  ) =>
    | { mix?: readonly MixPart[] | undefined; season?: FillSeason | undefined; known?: PotKnown | undefined }
    | undefined,
  { on, south }: { on: IsoDate; south: boolean },
): PotStanding[] {
  const propertiesOf = new Map(features.map((f) => [f.id, f.properties]))
  return places.flatMap((place): PotStanding[] => {
    if (place.kind !== 'container') return []
    const fill = fillOf(place)
    const plants = plantings
      .filter((p) => p.placeId === place.id)
      .map((p) => ({ taxon: p.taxon, count: p.livingCount, role: p.role, plantedOn: p.plantedOn }))
    return [
      {
        id: place.id,
        properties: propertiesOf.get(place.id)!,
        x: place.x,
        y: place.y,
        rimHeightM: place.rimHeightM,
        plantings: plants,
        mix: fill?.mix ?? null,
        season: fill?.season ?? seasonOf(plants, on, south),
        known: fill?.known,
      },
    ]
  })
}

/** Days of a record that days between waterings are told from: ten years. */
export const DAYS_OF_WATER = 3652

/** The light at a pot's rim through the year: as things stand now. */
export interface PotLight {
  /** Of a clear day in the middle of each month, January first. */
  months: SunHours[]
  /** Of a mean day of the growing season, hours. */
  season: SunHours
  /** Of what an open place has, by month, 0 to 1. */
  share: number[]
  /** The house whose eaves it stands under; undefined where rain reaches it. */
  eaves: string | undefined
}

const MID_MONTH = 15
/** Of the rain what reaches a pot below what lies over it: under eaves and a roof what is driven in. Working figures. */
const RAIN_UNDER: Readonly<Record<Shelter, number>> = { 'open sky': 1, 'an overhang': 0.4, 'a roof': 0.1 }

/** To so many figures light is the same wherever the plan has its origin. */
const figure = (v: number): number => Math.round(v * 1e6) / 1e6
const told = ({ total, morning, midday, afternoon, heat }: SunHours): SunHours => ({
  total: figure(total),
  morning: figure(morning),
  midday: figure(midday),
  afternoon: figure(afternoon),
  heat: figure(heat),
})

/** The light at the rims of pots in a garden. */
export function lightAtPots(
  scene: Scene,
  pots: readonly Pick<PotStanding, 'x' | 'y' | 'rimHeightM'>[],
  on: IsoDate,
): PotLight[] {
  const year = Number(on.slice(0, 4))
  const points = pots.map(({ x, y, rimHeightM }) => ({ x, y, z: rimHeightM }))
  const open = { ...scene, obstructions: [] }
  const months = Array.from({ length: 12 }, (_, m) => {
    const period = { kind: 'day', on: isoDate(year, m + 1, MID_MONTH), standing: on } as const
    return {
      hours: sunHours(scene, points, period),
      most: sunHours(open, [{ x: 0, y: 0, z: 1 }], period)[0]!.total,
    }
  })
  const season = sunHours(scene, points, { kind: 'season', on })
  const zones = eavesZones(scene, on)
  return pots.map(({ x, y }, i) => ({
    months: months.map((m) => told(m.hours[i]!)),
    season: told(season[i]!),
    share: months.map((m) => (m.most > 0 ? Math.min(1, figure(m.hours[i]!.total / m.most)) : 0)),
    eaves: eavesOver(zones, x, y)?.name,
  }))
}

const WITHOUT_LEAVES: readonly Phase[] = ['underground', 'bare', 'summer rest']

function drinkingOf({ taxon, count, plantedOn }: InPot, vessel: Vessel, on: IsoDate, year: Year): Drinking {
  const first = dayNumber(isoDate(Number(on.slice(0, 4)), 1, 1))
  // By the week: what leafs out does not do so in a day.
  const weeks = Array.from(
    { length: 53 },
    (_, w) => !WITHOUT_LEAVES.includes(usualState(taxon, fromDayNumber(first + 7 * w), year).phase),
  )
  return {
    ...sizeInPot(taxon, vessel, plantedOn, on),
    count,
    taxon,
    leafyOn: (day) => weeks[Math.min(52, Math.floor((day - 1) / 7))]!,
  }
}

/** A container as its water is worked out. */
interface Watered {
  vessel: Vessel
  parts: MixPart[]
  /** As it has become, where its fills are known. */
  state: MixState | null
  factor: PotFactor | null
  traits: MixTraits
  test: DrainTest | undefined
  plants: readonly Drinking[]
  water: WateredPot
}

function wateredOf(
  pot: PotStanding,
  light: PotLight,
  { on, year, days }: Pick<PotsAbout, 'on' | 'year'> & { days: readonly WaterDay[] },
): Watered {
  const vessel = vesselOf(pot)
  const plants = pot.plantings.map((p) => drinkingOf(p, vessel, on, year))
  const suited = recipeFor(
    pot.plantings.map((p) => p.taxon),
    pot.season,
  )
  const parts = [...(pot.mix ?? recipes[suited].parts)]
  const { fills = [], tests = [], checks = [] } = pot.known ?? {}
  const state = mixState(fills, on, tests) ?? null
  const test = testCounting(tests, fills, on)
  const fresh = traitsOf(parts)
  const traits = state?.traits ?? (test ? putRight(fresh, fresh, test) : fresh)
  const { cover } = pot.properties as { cover?: Shelter }
  const rainShare = RAIN_UNDER[cover ?? (light.eaves === undefined ? 'open sky' : 'a roof')]
  const water: WateredPot = { vessel, mix: traits, plants, sunShare: light.share, rainShare }
  const factor = potFactor(water, checks, days) ?? null
  return { vessel, parts, state, factor, traits, test, plants, water: { ...water, factor: factor?.factor } }
}

/** How pots come through an absence. @param light of the pots, in their order */
export const absenceOf = (
  pots: readonly PotStanding[],
  light: readonly PotLight[],
  about: Pick<PotsAbout, 'on' | 'year' | 'latitudeDeg' | 'record'>,
  { from, to }: { from: IsoDate; to: IsoDate },
): AbsencePlan => {
  const days = waterDays(about.record, about.latitudeDeg)
  return planAbsence(
    pots.map((pot, i) => {
      const { vessel, traits, plants, water } = wateredOf(pot, light[i]!, { ...about, days, on: from })
      const byHand = liftedBy(weightOf(vessel, traits, plants).wet) !== undefined
      const { movedBy } = pot.properties as { movedBy?: (typeof movers)[number] }
      return { id: pot.id, water, isMovable: movedBy === undefined ? byHand : movedBy !== 'nobody' }
    }),
    days,
    from,
    to,
  )
}

/** Months of the cool half of the year in the north, January as 0. */
const COOL_MONTHS = [9, 10, 11, 0, 1, 2]

/**
 * Sun at a pot in the half of the year that it is filled for, in hours of a day of the growing season, which kinds are told by: of the cool
 * half by the share of the sun that there is then.
 */
export function sunIn(
  { months, share, season }: Pick<PotLight, 'months' | 'share' | 'season'>,
  of: FillSeason,
  south: boolean,
): number {
  if (of === 'summer') return season.total
  const cool = COOL_MONTHS.map((m) => (south ? (m + 6) % 12 : m))
  const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length)
  const open = months.flatMap((m, i) => (cool.includes(i) || share[i]! < 0.05 ? [] : [m.total / share[i]!]))
  return open.length === 0 ? season.total : mean(cool.map((i) => share[i]!)) * mean(open)
}

/** What is worked out of a container. */
export interface PotJudgement {
  id: string
  /** What was taken for usual, because nobody has said it. */
  assumed: Vessel['assumed']
  brimfulLitres: number
  mixLitres: number
  surfaceM2: number
  mix: {
    /** Whether it is what was filled in, or what would suit what grows there. */
    isSaid: boolean
    parts: MixPart[]
    bought: PartBought[]
    traits: MixTraits
    /** The day of the drain test that its air and water are told by; null where none tells of it. */
    testedOn: IsoDate | null
    /** As it has become since it was filled; null where no fill is on record. */
    state: MixState | null
    /** Dried out, it takes so many litres. */
    dryLitres: number
    /** What a hand of gravel at its foot would take from roots, litres: water stands above it as it would on the floor. */
    gravelLitres: number
    /** What a liner saves of the water it draws in summer, 0 to 1. */
    linerSaves: number
  }
  /** How it is fed through the season that comes; null where no climate is known. */
  feeding: PotFeeding | null
  /** What it draws over what is worked out, by what was found at it; null where nothing was. */
  factor: PotFactor | null
  /** Woody plants, with the day from which their roots fill it; null where they never do. */
  roots: { botanical: string; fillOn: IsoDate | null }[]
  /** What does not bear the winter here, and how it is kept. */
  wintering: (Wintering & { botanical: string })[]
  verdicts: PotVerdict[]
  weight: Weight
  /** People to lift it, wet; null: not by hand. */
  liftedBy: number | null
  /** The gust that tips it, metres a second; null where none does. */
  tipsAtMs: number | null
  faults: PotFault[]
  remarks: PotRemark[]
  /** Days between waterings by month; null without a record of weather. */
  water: MonthOfWater[] | null
  /** When it is due in the days that are forecast, watered through this morning; each time litres. Null without a forecast. */
  ahead: { day: IsoDate; litres: number }[] | null
  /** When what is in it goes over, and the next may go in. */
  swap: FillAhead
}

/** What pots of a garden are judged by together. */
export interface PotsAbout {
  on: IsoDate
  latitudeDeg: number
  year: Year
  /** Null where none is known. */
  climate: Climate | null
  /** Days of the record, and those that are forecast. */
  record: readonly DailyWeather[]
  forecast: readonly DailyWeather[]
  schools: Schools
  /** Of feeding, as the garden has them; those that are shipped unless said. */
  rules?: readonly CareRule[] | undefined
}

/** Mean of the years' lowest temperatures where winters are not known: none is taken to be hard. */
export const MILD_C = 10

/** Judges pots: what each holds, weighs, drinks, and what is to be said of it. @param light of the pots, in their order */
export function judgePots(
  pots: readonly PotStanding[],
  light: readonly PotLight[],
  about: PotsAbout,
): PotJudgement[] {
  const { latitudeDeg, climate } = about
  const coldestC = climate?.meanAnnualMinimumC ?? MILD_C
  const record = waterDays(about.record, latitudeDeg)
  const forecast = waterDays(about.forecast, latitudeDeg)
  return pots.map((pot, i): PotJudgement => {
    const { vessel, parts, state, factor, traits, test, plants, water } = wateredOf(pot, light[i]!, {
      ...about,
      days: record,
    })
    const weight = weightOf(vessel, traits, plants)
    const tips = tipsAt(vessel, weight, plants)
    const mixLitres = mixLitresOf(vessel)
    // What stays stands through summer, whenever it was planted.
    const season = pot.plantings.some((p) => p.taxon.annualSeason !== null) ? pot.season : 'summer'
    const faults = faultsOf(vessel, weight, plants, coldestC)
    const remarks = remarksOn(
      pot.plantings.map((p) => ({ taxon: p.taxon, count: p.count, role: potRoleOf(p.role) })),
      vessel,
      {
        sunHours: sunIn(light[i]!, season, about.year.south),
        season,
        coldestC,
        overWinter: true,
      },
    )
    const swap = fillAhead(pot.plantings, pot.season, about)
    const roots = rootsIn(pot.plantings, vessel)
    const commonOf = new Map(pot.plantings.map((p) => [p.taxon.botanical, p.taxon.common]))
    return {
      id: pot.id,
      assumed: vessel.assumed,
      brimfulLitres: brimfulLitres(vessel),
      mixLitres,
      surfaceM2: mixSurfaceM2(vessel),
      mix: {
        isSaid: pot.mix !== null,
        parts,
        bought: bagsFor(mixLitres, parts),
        traits,
        testedOn: test?.day ?? null,
        state,
        dryLitres: mixLitres * traits.available,
        gravelLitres: litresTo(vessel, Math.min(GRAVEL_M, vessel.depthM - vessel.rimGapM)),
        linerSaves: wallShare(water),
      },
      feeding: climate
        ? feedingOf(
            { mixLitres, plants: pot.plantings.map((p) => p.taxon) },
            { climate, schools: about.schools, from: about.on, rules: about.rules },
          )
        : null,
      factor,
      roots,
      wintering: climate ? winteringIn(pot.plantings, climate, about.on) : [],
      verdicts: potVerdictsOf({
        on: about.on,
        isPlanted: pot.plantings.length > 0,
        faults,
        remarks,
        swap,
        mix: state,
        air: state || test ? traits.air : null,
        bound: roots.flatMap((r) =>
          r.fillOn !== null && r.fillOn <= about.on ? [commonOf.get(r.botanical)!] : [],
        ),
        toCut: pot.known?.toCut ?? [],
        ended: (pot.known?.fills ?? [])
          .filter((f) => f.endedBy !== null)
          .map((f) => f.endedBy)
          .reverse(),
        ratings: pot.known?.ratings ?? [],
      }),
      weight,
      liftedBy: liftedBy(weight.wet) ?? null,
      tipsAtMs: Number.isFinite(tips) ? tips : null,
      faults,
      remarks,
      water: record.length === 0 ? null : wateringByMonth(water, record),
      ahead: forecast.length === 0 ? null : waterThrough(water, forecast).waterings,
      swap,
    }
  })
}

/** A hand of gravel, as is often laid at the foot of pots, metres. */
const GRAVEL_M = 0.08

/** When the roots of each woody plant of a pot fill it. */
const rootsIn = (plants: readonly InPot[], { depthM }: Vessel): PotJudgement['roots'] =>
  plants.flatMap(({ taxon, plantedOn, role }) => {
    if (!isWoody(taxon) || potRoleOf(role) === 'trailer') return []
    return [{ botanical: taxon.botanical, fillOn: rootsFillOn(taxon, plantedOn, depthM) }]
  })

const winteringIn = (plants: readonly InPot[], climate: Climate, on: IsoDate): PotJudgement['wintering'] => {
  const taxa = new Map(plants.map((p) => [p.taxon.botanical, p.taxon]))
  return [...taxa.values()].flatMap((taxon) => {
    const kept = winteringOf(taxon, climate, on)
    return kept ? [{ ...kept, botanical: taxon.botanical }] : []
  })
}

/** The half of the year that a container is filled for, by what grows in it for a season; else by the day. */
export function seasonOf(plants: readonly Pick<InPot, 'taxon'>[], on: IsoDate, south: boolean): FillSeason {
  const seasonal = plants.find((p) => p.taxon.annualSeason !== null)?.taxon
  if (seasonal) return seasonal.annualSeason === 'cool' ? 'winter' : 'summer'
  return seasonFrom(on, south)
}

/** The half of the year that a fill made on a day is for: from when the days draw in, for winter. */
export const seasonFrom = (on: IsoDate, south: boolean): FillSeason => {
  const month = ((monthOf(on) - 1 + (south ? 6 : 0)) % 12) + 1
  return month >= 3 && month <= 8 ? 'summer' : 'winter'
}
