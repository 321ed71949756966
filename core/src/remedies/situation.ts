import { isOneOf } from '../care/index.ts'
import { usually, type Climate } from '../climate/index.ts'
import { addDays, daysBetween, seasonYearOf, type IsoDate } from '../dates/index.ts'
import type { SignCause, SignId } from '../diagnosis/index.ts'
import { firstFlushEnd, seasonDates, usualState, type Phase, type Taxon, type Year } from '../plants/index.ts'
import type { Circumstances, Kinds } from './remedy.ts'

/** What a plant is usually about on a day, as remedies ask it. */
export const stages = [
  'dormant',
  'waking',
  'before bloom',
  'in bloom',
  'after bloom',
  'at rest',
  'going over',
] as const
export type Stage = (typeof stages)[number]

const stageOf: Record<Phase, Stage> = {
  underground: 'dormant',
  bare: 'dormant',
  'winter green': 'dormant',
  emerging: 'waking',
  growing: 'before bloom',
  'in bud': 'before bloom',
  opening: 'in bloom',
  'in full bloom': 'in bloom',
  fading: 'after bloom',
  'finished flowering': 'after bloom',
  'summer rest': 'at rest',
  'going over': 'going over',
}

/** A cut to one tree that would give a planting the sun it likes, with what it does to all else beneath. */
export interface Opening {
  obstructionId: string
  /** What the tree is called. */
  tree: string
  /** The stem cleared to; null where the crown is not raised. */
  clearStemM: number | null
  /** Share of the leaves taken out; null where it is not thinned. */
  thinnedBy: number | null
  /** Sun of the planting afterwards, and how much of it is gained: hours of a clear day in the growing season. */
  hours: number
  gainHours: number
  /** Other plantings that it sets right. */
  alsoRight: number
  /** Plantings that would get too much. */
  spoilt: number
}

/** What walks of the last days found in other places of the garden. */
export type Elsewhere = 'wet' | 'dry'

/** All that remedies look at. */
export interface Situation {
  taxon: Taxon
  on: IsoDate
  year: Year
  /** Null where the garden has none: what hangs on the year cannot be planned then. Absent: not asked. */
  climate?: Climate | null | undefined
  /** Seen this season and not explained by the time of year. */
  signs: readonly SignId[]
  /** When each was last seen; absent: on the day of the question. */
  signsOn: Readonly<Partial<Record<SignId, IsoDate>>>
  stage: Stage
  /** Seasons in place, the first counting as one. */
  season: number
  place: 'bed' | 'container'
  light: 'too little' | 'right' | 'too much'
  ground: 'too dry' | 'right' | 'too wet' | 'unknown'
  living: number
  planted: number
  rating: number | null
  overgrown: boolean
  isDivisionDue: boolean
  isCold: boolean
  /** Of the kind; `not here` where it does well elsewhere in the garden and poorly in this place. */
  again: 'yes' | 'no' | 'not here' | null
  /** The ground is called too dry or too wet by the signs of what stands there, and by nothing measured. */
  isGroundSuspected?: boolean | undefined
  /** What would let its light in. */
  opening?: Opening | undefined
  /** Seen in another place at about the time its own signs were. */
  elsewhere?: readonly Elsewhere[] | undefined
  /** What its signs, and its neighbours', most likely come from, with the share it is believed by. */
  likely?: Likely | undefined
}

/** The cause that is believed most of a planting, with its share, 0 to 1. */
export interface Likely {
  cause: SignCause
  share: number
}

/** A first flush is over when it fades; the next, where one comes by itself, is some weeks off. Judgements. */
const FADING_DAYS = 7
const BETWEEN_FLUSHES_DAYS = 28

/** What a taxon is usually about on a day. What never flowers is before its bloom as long as it grows. */
export function stageOn(taxon: Taxon, on: IsoDate, year: Year): Stage {
  const stage = stageOf[usualState(taxon, on, year).phase]
  const end = taxon.firstFlushTo && firstFlushEnd(taxon, seasonYearOf(on, year.south), year)
  const isBetween = end && on >= addDays(end, -FADING_DAYS) && on < addDays(end, BETWEEN_FLUSHES_DAYS)
  return stage === 'in bloom' && isBetween ? 'after bloom' : stage
}

/** Roots take up next to nothing from soil under this, degrees Celsius. */
const COLD_SOIL_C = 10
/** Without a climate: the months from November to April in the north. */
const COLD_MONTHS = [11, 12, 1, 2, 3, 4]

/** Whether the soil is usually cold on a day. */
export const isColdOn = (on: IsoDate, { south }: Year, climate: Climate | null | undefined): boolean =>
  climate
    ? usually(climate.soilC, on) < COLD_SOIL_C
    : COLD_MONTHS.includes(((Number(on.slice(5, 7)) + (south ? 5 : 11)) % 12) + 1)

/** Days until its growth usually begins to go over; 0 where it has. */
export function daysOfGrowthLeft({ taxon, on, year }: Pick<Situation, 'taxon' | 'on' | 'year'>): number {
  const { fadesFrom } = seasonDates(taxon, seasonYearOf(on, year.south), year)
  return Math.max(0, daysBetween(on, fadesFrom))
}

/** Whether a taxon is of a kind. */
export const isOfKind = (taxon: Taxon, { notTraits = {}, troubles, cautions, ...kind }: Kinds): boolean =>
  isOneOf(taxon, kind) &&
  !Object.keys(notTraits).some((trait) =>
    isOneOf(taxon, { traits: { [trait]: notTraits[trait as keyof Taxon] } }),
  ) &&
  (!cautions || cautions.some((c) => taxon.cautions.includes(c))) &&
  (!troubles || troubles.some((t) => taxon.troubles.includes(t)))

/** Ratings from here on are of a plant that does well. */
const THRIVING = 4

const isAmong = <T>(wanted: readonly T[] | undefined, found: T) => !wanted || wanted.includes(found)

/** Whether circumstances are those of a planting. */
export function holds(c: Circumstances, s: Situation): boolean {
  const isFresh = (sign: SignId) =>
    c.seenWithinDays === undefined || daysBetween(s.signsOn[sign] ?? s.on, s.on) <= c.seenWithinDays
  if (c.signs && !c.signs.some((sign) => s.signs.includes(sign) && isFresh(sign))) return false
  if (c.allSigns?.some((sign) => !s.signs.includes(sign))) return false
  if (c.notSigns?.some((sign) => s.signs.includes(sign))) return false
  if (c.place && c.place !== s.place) return false
  if (c.fromSeason !== undefined && s.season < c.fromSeason) return false
  if (c.untilSeason !== undefined && s.season > c.untilSeason) return false
  if (c.livingAtMost !== undefined && s.living > c.livingAtMost) return false
  if (c.livingAtLeast !== undefined && s.living < c.livingAtLeast) return false
  if (c.plantedAtLeast !== undefined && s.planted < c.plantedAtLeast) return false
  if (c.ratingAtMost !== undefined && (s.rating ?? 5) > c.ratingAtMost) return false
  if (c.ratingAtLeast !== undefined && (s.rating ?? 5) < c.ratingAtLeast) return false
  if (c.thriving !== undefined && c.thriving !== (s.rating ?? 0) >= THRIVING) return false
  if (c.divisionDue && !s.isDivisionDue) return false
  if (c.cold !== undefined && c.cold !== s.isCold) return false
  if (c.overgrown !== undefined && c.overgrown !== s.overgrown) return false
  if (c.opens && c.opens !== (s.opening && (s.opening.clearStemM === null ? 'thinned' : 'raised')))
    return false
  if (c.elsewhere && !s.elsewhere?.includes(c.elsewhere)) return false
  return (
    isAmong(c.stage, s.stage) &&
    isAmong(c.light, s.light) &&
    isAmong(c.ground, s.ground) &&
    isAmong(c.again, s.again ?? 'open') &&
    isOfKind(s.taxon, c)
  )
}
