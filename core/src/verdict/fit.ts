import { quarterHours } from '../words/index.ts'
import type { Summer } from '../climate/index.ts'
import { HOT_AFTERNOON_HOURS, type SunHours } from '../light/index.ts'
import type { WindExposure } from '../garden/index.ts'
import { likesCoolSummers, moistureSteps, moistureWords, type Taxon } from '../plants/index.ts'

/** What a spot offers a plant. Undefined where nobody has said. */
export interface Spot {
  hours: SunHours
  moisture?: number | null
  wind?: WindExposure | undefined
  summer?: Summer | undefined
  /** The tree whose roots take water from it. */
  rootsOf?: string | undefined
  /** The building whose eaves keep the rain off it. */
  eavesOf?: string | undefined
  /** What the signs of those that stand there point to, and nobody has measured. */
  suspected?: SuspectedMoisture | undefined
}

/** What the moisture of a spot hangs on. */
export type Ground = Pick<Spot, 'moisture' | 'rootsOf' | 'eavesOf' | 'suspected'>

/** A change of the ground that signs point to. */
export type SuspectedMoisture = 'drier' | 'wetter'

/** How far a spot's light lies from what a taxon likes. */
export interface LightFit {
  /** Hours of sun above the range; negative below it; 0 inside. */
  hoursOutside: number
  /** Hot afternoon sun on a taxon that suffers from it in such a summer. */
  scorched: boolean
  /**
   * One number for ranking: hours outside plus, where the afternoon scorches, the hours of hot sun beyond what
   * is called a hot afternoon plus one.
   */
  misfitHours: number
}

/** Misfits smaller than this, in hours, are within what a clear-day model can tell. */
export const FIT_TOLERANCE_HOURS = 0.5

/**
 * Hours of the heat from two to five by which a kind is scorched: in a cool summer hardly ever, in a hot one sooner, and then also
 * what bears it elsewhere. Working figures.
 */
const SCORCHED_FROM: Record<Taxon['hotAfternoon'], Record<Summer, number>> = {
  suffers: { cool: 2.5, warm: HOT_AFTERNOON_HOURS, hot: 1 },
  bears: { cool: Infinity, warm: Infinity, hot: 2.25 },
  enjoys: { cool: Infinity, warm: Infinity, hot: Infinity },
}

/** No sun is too much for a kind whose most is a whole day. */
const ALL_DAY_HOURS = 24

/** What bears afternoons is scorched in a hot summer only where it likes part of the day, or cool summers: daylilies are not. */
function scorchedFrom(taxon: Taxon, summer: Summer): number {
  const isSafe =
    taxon.hotAfternoon === 'bears' && taxon.lightMaxHours >= ALL_DAY_HOURS && !likesCoolSummers(taxon)
  return isSafe ? Infinity : SCORCHED_FROM[taxon.hotAfternoon][summer]
}

/** What suffers from heat bears more of the sun before ten, and in a hot summer less of all after it: judgements. */
const COUNTS = { morning: 0.75, laterInHotSummer: 1.25 }

/**
 * Hours as they count against the most that a kind bears: for what suffers from afternoon heat an hour of morning sun is less than
 * an hour, and a later one in a hot summer more.
 */
export function hoursBorne(taxon: Taxon, hours: SunHours, summer: Summer = 'warm'): number {
  if (taxon.hotAfternoon !== 'suffers') return hours.total
  const later = hours.total - hours.morning
  return COUNTS.morning * hours.morning + (summer === 'hot' ? COUNTS.laterInHotSummer : 1) * later
}

/** How the hours of a spot suit a taxon. */
export function lightFit(taxon: Taxon, hours: SunHours, summer: Summer = 'warm'): LightFit {
  const over = Math.max(0, hoursBorne(taxon, hours, summer) - taxon.lightMaxHours)
  const under = Math.max(0, taxon.lightMinHours - hours.total)
  const from = scorchedFrom(taxon, summer)
  const scorched = hours.heat >= from
  const scorch = scorched ? hours.heat - from + 1 : 0
  return { hoursOutside: over > 0 ? over : -under, scorched, misfitHours: over + under + scorch }
}

/** Whether the misfit is more than hours are good for. */
export const isOutside = (fit: LightFit): boolean => fit.misfitHours > FIT_TOLERANCE_HOURS

const factors = ['light', 'afternoon', 'moisture', 'wind'] as const
export type Factor = (typeof factors)[number]

/** Fit of a taxon to a spot, 0 to 1, as its limiting factor: the worst of light, afternoon, moisture and wind. */
export interface Fit {
  score: number
  limiting: Factor | 'none'
  reason: string
}

/** Share of fitness lost for each hour of light outside the range. */
const LOSS_PER_HOUR = 0.3
const LOSS_SCORCHED = 0.45
const LOSS_PER_MOISTURE_STEP = 0.4
/** What wants shelter, or a stake, loses where the wind finds it: judgements. */
const LOSS_IN_WIND: Record<Taxon['wind'], Partial<Record<WindExposure, number>>> = {
  sheltered: { open: 0.2, exposed: 0.5 },
  staked: { exposed: 0.3 },
  bears: {},
}
/** Among a tree’s roots, under eaves, or where signs point to it, ground is a step drier than said; where nobody has said, it is taken for dryish. */
const TAKEN_FOR = { drier: 2, wetter: 4 }
/** Where one spot scorches no more than another, the one with less sun from two to five is the better for what suffers from it. */
const LOSS_NEARLY_SCORCHED = 0.12
/** Above this nothing limits it. */
const WELL_SUITED = 0.95

/** How a spot suits a taxon, 0 to 1, by each factor. */
function factorsOf(taxon: Taxon, spot: Spot): Record<Factor, number> {
  const { hoursOutside } = lightFit(taxon, spot.hours, spot.summer)
  return {
    light: clamp(1 - LOSS_PER_HOUR * Math.abs(hoursOutside)),
    afternoon: afternoonOf(taxon, spot),
    moisture: clamp(1 - LOSS_PER_MOISTURE_STEP * Math.abs(stepsAt(taxon, spot))),
    wind: 1 - ((spot.wind && LOSS_IN_WIND[taxon.wind][spot.wind]) ?? 0),
  }
}

function afternoonOf(taxon: Taxon, { hours, summer = 'warm' }: Spot): number {
  const share = hours.heat / scorchedFrom(taxon, summer)
  return (
    1 - (share >= 1 ? LOSS_SCORCHED : taxon.hotAfternoon === 'suffers' ? LOSS_NEARLY_SCORCHED * share : 0)
  )
}

/** How moist a spot is, with what roots take from it, eaves keep off it and signs say of it. */
function moistureAt({ moisture, rootsOf, eavesOf, suspected }: Ground): number | null | undefined {
  const dries = Number(rootsOf !== undefined) + Number(eavesOf !== undefined)
  const change = (suspected === undefined ? 0 : { drier: -1, wetter: 1 }[suspected]) - dries
  if (change === 0) return moisture
  return moisture == null
    ? TAKEN_FOR[change < 0 ? 'drier' : 'wetter']
    : Math.min(5, Math.max(1, moisture + change))
}

/** Steps by which a spot is moister than a taxon likes, or drier, negative. */
export const stepsAt = (taxon: Taxon, spot: Ground): number => moistureSteps(taxon, moistureAt(spot))

/** As the score of `fitOf`, where many are compared and no words are wanted. */
export function fitScore(taxon: Taxon, spot: Spot): number {
  const { light, afternoon, moisture, wind } = factorsOf(taxon, spot)
  return Math.min(light, afternoon, moisture, wind)
}

/** How a spot suits a taxon, 0 to 1, with what limits it. */
export function fitOf(taxon: Taxon, spot: Spot): Fit {
  const scores = factorsOf(taxon, spot)
  const limiting = factors.reduce((a, b) => (scores[b] < scores[a] ? b : a))
  const score = scores[limiting]
  return score > WELL_SUITED
    ? { score, limiting: 'none', reason: `${quarterHours(spot.hours.total)} of sun, inside its range` }
    : { score, limiting, reason: limitedBy[limiting](taxon, spot) }
}

/** Why afternoon heat scorches a kind, as a clause. */
export const scorchedWords = ({ hotAfternoon }: Pick<Taxon, 'hotAfternoon'>): string =>
  hotAfternoon === 'suffers' ? 'which it suffers from' : 'which is too much for it in summers as hot as these'

const limitedBy: Record<Factor, (taxon: Taxon, spot: Spot) => string> = {
  light: (taxon, { hours, summer }) => {
    const { hoursOutside } = lightFit(taxon, hours, summer)
    return `${quarterHours(Math.abs(hoursOutside))} ${hoursOutside > 0 ? 'more' : 'less'} sun than it likes`
  },
  afternoon: (taxon, { hours }) =>
    `${quarterHours(hours.heat)} of it in the heat from two to five, ${scorchedWords(taxon)}`,
  moisture: (taxon, spot) =>
    `${stepsAt(taxon, spot) > 0 ? 'wetter' : 'drier'} ground than it likes${whyMoisture(taxon, spot)}`,
  wind: (taxon) =>
    taxon.wind === 'sheltered' ? 'more wind than it bears' : 'wind that it would need stakes in',
}

/** What says so where the ground itself was not called that. */
function whyMoisture(taxon: Taxon, spot: Spot): string {
  if (moistureSteps(taxon, spot.moisture) === stepsAt(taxon, spot)) return ''
  if (spot.rootsOf !== undefined && stepsAt(taxon, spot) < 0) return `, among the roots of ${spot.rootsOf}`
  if (spot.eavesOf !== undefined && stepsAt(taxon, spot) < 0) return `, under the eaves of ${spot.eavesOf}`
  return ', by the signs of what stands there'
}

/** A soil test is good for about so much. */
const PH_TOLERANCE = 0.3

/** Why a kind does not do in soil of a reaction; undefined where it does, or nobody has tested it. */
export function whySoilUnfit(taxon: Taxon, ph: number | undefined): string | undefined {
  if (ph === undefined) return undefined
  if (ph < taxon.phMin - PH_TOLERANCE) return 'the soil is too acid for it'
  return ph > taxon.phMax + PH_TOLERANCE ? 'the soil is too limy for it' : undefined
}

const clamp = (v: number) => Math.max(0, Math.min(1, v))

/** `moist` for 4 and so on. */
export const moistureWord = (moisture: number): string => moistureWords[moisture - 1] ?? 'unknown'
