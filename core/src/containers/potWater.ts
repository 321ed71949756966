import { hasCorners, mixLitresOf, mixSurfaceM2, reckonedAs, type Vessel, wallM2 } from '../garden/index.ts'
import {
  dayOfWaterBalance,
  quantile,
  referenceEvapotranspiration,
  type DailyWeather,
} from '../climate/index.ts'
import { depletionShare } from '../care/index.ts'
import { dayOfYear, monthOf, type IsoDate } from '../dates/index.ts'
import { onceFor } from '../once/index.ts'
import type { Taxon } from '../plants/index.ts'
import type { MixTraits } from './mix.ts'
import type { Grown } from './weight.ts'

/**
 * The water of a pot by the daily balance of FAO Irrigation and Drainage Paper 56 (Allen, Pereira, Raes and Smith 1998), in litres of
 * the whole pot: leaves that reach over its rim draw from it what they would draw over as much ground.
 */

/** A plant of a pot as it bears on water. */
export interface Drinking extends Grown {
  taxon: Pick<Taxon, 'moistureMin' | 'moistureMax'>
  /** Whether it carries leaves on a day of the year, 1 to 366. */
  leafyOn: (dayOfYear: number) => boolean
}

/** What a pot's water is worked out from. */
export interface WateredPot {
  vessel: Vessel
  mix: MixTraits
  plants: readonly Drinking[]
  /** Its light over that of an open place, 0 to 1, by month. */
  sunShare: readonly number[]
  /** Of the rain how much falls on it: 1 in the open, 0 under cover. */
  rainShare: number
  /** What looking at it has shown it to draw over what is worked out. */
  factor?: number | undefined
}

/** Leaves in full sun draw so much over the reference (FAO-56, table 12: most full covers in the middle of their season). */
const IN_LEAF = 1.15
/** Bare mix, wetted now and then (FAO-56, table 17 at the beginning of a season, and eq. 66 of soil wetted twice a week). */
const BARE = 0.35
/** Evapotranspiration that is left in full shade: what warmth and wind alone make, about a third of the whole. */
const IN_SHADE = 0.35
/** Of the rain on leaves so much runs outside the rim. */
const SHED = 0.25
/** Leaves keep so much of each day's rain on them, millimetres: it dries there. */
const KEPT_MM = 1
/** Of mix that nothing grows in so much may go: it is only not to dry out. */
const BARE_MAY_GO = 0.6

/** What of leaves stands to the side counts by half: wind and light come at a pot from all round. */
const SIDE = 0.5
/** Small stands with dry air about them draw no more than so many times what they do in a field (FAO-56, chapter 10: clothesline). */
const MOST_OVER = 2.2

/** Ground that leaves of a pot lie over, square metres: no more than reaches half a spread over its rim on each side. */
function coverM2(vessel: Vessel, plants: readonly Grown[]): number {
  const each = plants.map((p) => (Math.PI / 4) * p.spreadM ** 2 * p.count)
  const widest = Math.max(0, ...plants.map((p) => p.spreadM))
  const reach = hasCorners(vessel)
    ? (vessel.lengthM + widest) * (vessel.widthM + widest)
    : (Math.PI / 4) * (vessel.widthM + widest) ** 2
  return Math.min(
    reach,
    each.reduce((a, b) => a + b, 0),
  )
}

/** What its leaves draw by: what they lie over, and half of what they show to the side. */
function leafM2(cover: number, plants: readonly Grown[]): number {
  const side = plants.reduce((sum, p) => sum + p.spreadM * p.heightM * p.count, 0)
  return Math.min(MOST_OVER * cover, cover + SIDE * side)
}

/** A pot's water as it is drawn on one day. */
interface Store {
  /** Litres between drained and wilting, and those that may go before something flags. */
  total: number
  readily: number
}

function storeOf({ vessel, mix, plants }: WateredPot): Store {
  const total = mixLitresOf(vessel) * mix.available + vessel.reservoirL
  const may = Math.min(1, ...plants.map((p) => depletionShare(p.taxon)), BARE_MAY_GO)
  return { total, readily: vessel.reservoirL + may * (total - vessel.reservoirL) }
}

/** Litres that may go from a pot before something in it flags. */
export const readilyLitres = (pot: WateredPot): number => storeOf(pot).readily

/** A day as it bears on water. */
export interface WaterDay {
  day: IsoDate
  /** Of the year, 1 to 366, and of which month, 1 to 12. */
  on: number
  month: number
  /** Reference evapotranspiration and rain, millimetres. */
  referenceMm: number
  rainMm: number
}

/** Days of a record as all pots of a garden are worked out from them. */
export const waterDays = (days: readonly DailyWeather[], latitudeDeg: number): WaterDay[] =>
  days.map((d) => {
    const on = dayOfYear(d.day)
    const referenceMm = referenceEvapotranspiration(d, latitudeDeg, on)
    return { day: d.day, on, month: monthOf(d.day), referenceMm, rainMm: d.rainMm }
  })

/** Worked out once of a pot, however many runs of days it is taken through. */
const sharesOf = onceFor(dailyShares)

/** How a pot draws on each day of the year, litres for each millimetre of reference evapotranspiration, and what it catches of rain. */
function dailyShares(pot: WateredPot): {
  draws: Float64Array
  /** Litres that a day's rain, millimetres, brings. */
  caught: (on: number, rainMm: number) => number
} {
  const { vessel, plants } = pot
  const surface = mixSurfaceM2(vessel)
  const wall = wallM2(vessel).side * reckonedAs(vessel.material).breathes
  const draws = new Float64Array(367)
  const covers = new Float64Array(367)
  let leafed: readonly boolean[] | undefined
  let cover = 0
  let leaf = 0
  for (let on = 1; on <= 366; on++) {
    // What is in leaf changes a few times a year.
    const now = plants.map((p) => p.leafyOn(on))
    if (!leafed || now.some((is, i) => is !== leafed![i])) {
      leafed = now
      const inLeaf = plants.filter((_, i) => now[i])
      cover = coverM2(vessel, inLeaf)
      leaf = leafM2(cover, inLeaf)
    }
    const covered = Math.min(1, cover / surface)
    const sun = pot.sunShare[Math.min(11, Math.floor(((on - 1) * 12) / 366))]!
    const lit = IN_SHADE + (1 - IN_SHADE) * sun
    draws[on] = lit * (pot.factor ?? 1) * (IN_LEAF * leaf + BARE * (surface * (1 - covered) + wall))
    covers[on] = covered
  }
  const caught = (on: number, rainMm: number) =>
    surface * pot.rainShare * (1 - SHED * covers[on]!) * Math.max(0, rainMm - KEPT_MM * covers[on]!)
  return { draws, caught }
}

/** Of what a pot draws in full leaf so much goes through its wall, 0 to 1. */
export function wallShare(pot: WateredPot): number {
  const { draws } = sharesOf(pot)
  const breathes = reckonedAs(pot.vessel.material).breathes
  const most = Math.max(...draws)
  const on = draws.indexOf(most)
  const sun = pot.sunShare[Math.min(11, Math.floor(((on - 1) * 12) / 366))]!
  const wall =
    BARE * wallM2(pot.vessel).side * breathes * (IN_SHADE + (1 - IN_SHADE) * sun) * (pot.factor ?? 1)
  return most > 0 ? wall / most : 0
}

/** What came and went in a run of days, litres: what came in went out, or there is so much less lacking. */
export interface WaterAccount {
  rain: number
  given: number
  drawn: number
  /** Ran out below. */
  drained: number
  /** Lacking at the end, of what it holds when drained. */
  depletion: number
  waterings: { day: IsoDate; litres: number }[]
  /** Days on which it had less than its plants draw with ease. */
  shortDays: number
}

/**
 * A pot through consecutive days, watered until it runs through.
 *
 * @param depletion litres that it lacks at the beginning
 * @param tended on the morning of each day that would otherwise bring it to flag; or on the days that are said, and on no others
 */
export function waterThrough(
  pot: WateredPot,
  days: readonly WaterDay[],
  {
    depletion = 0,
    tended = 'when due',
  }: { depletion?: number; tended?: 'when due' | ((day: IsoDate) => boolean) } = {},
): WaterAccount {
  const store = storeOf(pot)
  const { draws, caught } = sharesOf(pot)
  const account: WaterAccount = {
    rain: 0,
    given: 0,
    drawn: 0,
    drained: 0,
    depletion,
    waterings: [],
    shortDays: 0,
  }
  for (const d of days) {
    const wants = draws[d.on]! * d.referenceMm
    const rain = caught(d.on, d.rainMm)
    const before = account.depletion
    const isWatered = before > 0 && (tended === 'when due' ? before + wants > store.readily : tended(d.day))
    const given = isWatered ? before : 0
    if (isWatered) account.waterings.push({ day: d.day, litres: given })
    const next = dayOfWaterBalance(before, store, rain + given, wants)
    account.rain += rain
    account.given += given
    account.drained += Math.max(0, -next)
    account.depletion = Math.min(store.total, Math.max(0, next))
    account.drawn += account.depletion - before + rain + given - Math.max(0, -next)
    if (account.depletion > store.readily) account.shortDays++
  }
  return account
}

/** How long a pot that was watered through in a month does, over the years of a record. */
export interface MonthOfWater {
  /** 1 to 12. */
  month: number
  /** Days until it is due again: of ten times one is shorter, five, one is longer; null where half of them go beyond a month. */
  days: { p10: number; p50: number; p90: number } | null
  /** Litres that it then takes. */
  litres: number
}

/** Longer than this it does without: nobody counts on it. */
const LONGEST_DAYS = 31

/** Days between waterings by month, from the years of a record: how long it does from each of their days, with the rain there was. */
export function wateringByMonth(pot: WateredPot, days: readonly WaterDay[]): MonthOfWater[] {
  const store = storeOf(pot)
  const { draws, caught } = sharesOf(pot)
  const lasts = Array.from({ length: 12 }, (): number[] => [])
  days.forEach((from, i) => {
    if (i + LONGEST_DAYS >= days.length) return
    let depletion = 0
    let n = 0
    for (; n <= LONGEST_DAYS; n++) {
      const d = days[i + n]!
      const wants = draws[d.on]! * d.referenceMm
      if (depletion > 0 && depletion + wants > store.readily) break
      depletion = Math.max(0, depletion + wants - caught(d.on, d.rainMm))
    }
    lasts[from.month - 1]!.push(n)
  })
  return lasts.map((found, m): MonthOfWater => {
    if (found.length === 0) return { month: m + 1, days: null, litres: store.readily }
    const [p10, p50, p90] = [0.1, 0.5, 0.9].map((p) => quantile(found, p)) as [number, number, number]
    return { month: m + 1, days: p50 > LONGEST_DAYS ? null : { p10, p50, p90 }, litres: store.readily }
  })
}
