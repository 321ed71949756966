import { dayOfWaterBalance, referenceEvapotranspiration, type DailyWeather } from '../climate/index.ts'
import { dayMonth } from '../words/index.ts'
import { dayOfYear, daysBetween, type IsoDate } from '../dates/index.ts'
import type { SoilTexture } from '../garden/index.ts'
import { isWoody, type Phase, type Taxon, type UsualState } from '../plants/index.ts'

/**
 * Water that a plant not yet rooted in can draw, by the daily balance of FAO Irrigation and Drainage Paper 56 (Allen,
 * Pereira, Raes and Smith 1998): eq. 82 to 86; numbers of tables are of that paper.
 */

/** Water between field capacity and wilting, cubic metres in one; middles of table 19, chalk by this product. */
const availableWater: Record<SoilTexture, number> = {
  sand: 0.08,
  'sandy loam': 0.13,
  loam: 0.155,
  silt: 0.18,
  'clay loam': 0.155,
  clay: 0.16,
  chalk: 0.1,
}

/** Depth of roots when they are set, and a year on; metres, by this product. */
const ROOTS_AT_FIRST_M = 0.15
const ROOTS_AFTER_A_YEAR_M = 0.4
/** Of a border in leaf, by this product, on the coefficients of table 17. */
const CROP_COEFFICIENT = 0.8
/** Rain below this share of the day's evapotranspiration is gone with it (chapter 8, "Precipitation"). */
const LIGHT_RAIN_SHARE = 0.2

/** A plant whose roots have not yet grown out of what it was planted with. */
export interface RootingPlant {
  /** The day it came to its place, watered in. */
  since: IsoDate
  taxon: Pick<Taxon, 'moistureMin' | 'moistureMax' | 'lifeForm'>
  /** Ground its roots have. */
  areaM2: number
  texture?: SoilTexture | undefined
}

/** Water in the root zone at the end of a day, after FAO-56 (Allen et al. 1998), chapter 8. */
export interface WaterBalance {
  /** Gone from the root zone, millimetres. */
  depletionMm: number
  /** What may go before the plant lacks it. */
  readilyMm: number
  /** The first day it needs watering; null: not within the days that are known ahead. */
  dueOn: IsoDate | null
  /** What fills the root zone again on that day. */
  litres: number
  says: string
}

/** Days after it was set that a plant is watered as one not rooted in: a year, and two where it is woody. */
export const rootingDays = (taxon: Pick<Taxon, 'lifeForm'>): number => (isWoody(taxon) ? 730 : 365)

/** Share of the available water that goes before a plant lacks it: table 22 for shallow roots, by what it likes. */
export const depletionShare = ({
  moistureMin,
  moistureMax,
}: Pick<Taxon, 'moistureMin' | 'moistureMax'>): number =>
  moistureMin >= 4 ? 0.3 : moistureMax <= 2 ? 0.5 : 0.4

function rootZone(plant: RootingPlant, day: IsoDate): { depthM: number; totalMm: number; readilyMm: number } {
  const age = Math.min(1, Math.max(0, daysBetween(plant.since, day) / 365))
  const depthM = ROOTS_AT_FIRST_M + age * (ROOTS_AFTER_A_YEAR_M - ROOTS_AT_FIRST_M)
  const totalMm = 1000 * availableWater[plant.texture ?? 'loam'] * depthM
  return { depthM, totalMm, readilyMm: depletionShare(plant.taxon) * totalMm }
}

/**
 * The water of a plant's root zone on a day, and when it next needs watering.
 *
 * @param days consecutive, from the day it was set or later, through those ahead that are forecast
 * @param waterings litres by day
 */
export function waterBalance(
  plant: RootingPlant,
  days: readonly DailyWeather[],
  today: IsoDate,
  waterings: readonly { day: IsoDate; litres: number }[],
  latitudeDeg: number,
): WaterBalance {
  let depletion = 0
  let now = 0
  let soaked = plant.since
  let due: { day: IsoDate; depletion: number } | null = null
  for (const d of days) {
    if (d.day < plant.since) continue
    const { totalMm, readilyMm } = rootZone(plant, d.day)
    if (d.day > today && !due && depletion >= readilyMm) due = { day: d.day, depletion }
    const reference = referenceEvapotranspiration(d, latitudeDeg, dayOfYear(d.day))
    const rain = d.rainMm >= LIGHT_RAIN_SHARE * reference ? d.rainMm : 0
    const given = waterings.filter((w) => w.day === d.day).reduce((mm, w) => mm + w.litres / plant.areaM2, 0)
    const next = dayOfWaterBalance(
      depletion,
      { total: totalMm, readily: readilyMm },
      rain + given,
      CROP_COEFFICIENT * reference,
    )
    if (next <= 0 && d.day < today) soaked = d.day
    depletion = Math.min(totalMm, Math.max(0, next))
    if (d.day < today) now = depletion
  }
  const { depthM, readilyMm } = rootZone(plant, today)
  if (now >= readilyMm) due = { day: today, depletion: now }
  return {
    depletionMm: now,
    readilyMm,
    dueOn: due?.day ?? null,
    litres: litresOf((due?.depletion ?? now) * plant.areaM2),
    says: `Of the ${Math.round(readilyMm)} mm that its roots, ${Math.round(100 * depthM)} cm deep, can draw with ease, ${Math.round(now)} are gone since ${dayMonth(soaked)}.`,
  }
}

/** What is said of a plant that draws next to nothing in a phase of its year. */
const restWords: Partial<Record<Phase, string>> = {
  underground: 'It is underground: its bare place wants no water until it shows.',
  'summer rest': 'It rests now, as its kind does: do not water it for its looks.',
}

/** The balance of a plant as its season has it: one that rests is not due, however dry its ground. */
export function balanceInSeason(balance: WaterBalance, { phase }: Pick<UsualState, 'phase'>): WaterBalance {
  const says = restWords[phase]
  return says === undefined ? balance : { ...balance, dueOn: null, litres: 0, says }
}

/** As much as a can is filled to. */
const litresOf = (litres: number) => (litres > 20 ? 5 * Math.ceil(litres / 5) : Math.ceil(litres))
