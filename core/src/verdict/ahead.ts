import { summerOf } from '../climate/index.ts'
import { yearOf, type IsoDate } from '../dates/index.ts'
import {
  causesOf,
  changedBetween,
  fieldsBetween,
  gardenField,
  gardenFieldsOn,
  plotsOf,
  withSuppositions,
  yearsLater,
  type GardenField,
  type LightCause,
  type SunHours,
  type Supposition,
} from '../light/index.ts'
import type { Planting, StandingGarden } from '../garden/index.ts'
import { hoursOf } from './assess.ts'
import { isOutside, lightFit } from './fit.ts'

/** A planting that will leave the light it likes, or come back into it, as things grow and recorded plans are carried out. */
export interface ComingChange {
  plantingId: string
  /** The first year, after the year of the question, in which it stands otherwise. */
  year: number
  leaves: boolean
  now: SunHours
  then: SunHours
  /** What brings it about, largest first; hours between now and that year. */
  causes: LightCause[]
}

/** What a what-if does to a planting. */
export interface LightEffect {
  plantingId: string
  now: SunHours
  then: SunHours
  outsideNow: boolean
  outsideThen: boolean
}

/** Light that moves less than this, in hours, is not worth a line. */
const LEAST_HOURS = 0.5

/**
 * Which plantings leave their range, or come back into it, in each coming year.
 *
 * @param on the day the garden stands at; each year is judged as it stands on the same day of it, under the same sun
 * @param years how far to look
 * @returns soonest first; those that stay as they are do not appear
 */
export function comingChanges(garden: StandingGarden, on: IsoDate, years: number): ComingChange[] {
  const { scene, places } = garden
  const isOut = outsideIn(garden)
  const each = Array.from({ length: years + 1 }, (_, k) => yearsLater(on, k))
  const days = each.filter(
    (day, k) => k > 0 && changedBetween(scene.obstructions, each[k - 1]!, day).length > 0,
  )
  const [today, ...coming] = gardenFieldsOn(scene, places, [on, ...days])
  const waiting = new Map(
    garden.plantings.map((p) => {
      const hoursIn = hoursOf(p, scene, on)
      return [p, { hoursIn, outside: isOut(p, hoursIn(today!)) }]
    }),
  )
  const found: ComingChange[] = []
  for (const [k, field] of coming.entries()) {
    const day = days[k]!
    const turned = [...waiting].filter(([p, w]) => isOut(p, w.hoursIn(field)) !== w.outside)
    if (turned.length === 0) continue
    const fields = fieldsBetween(scene, places, on, day, on)
    for (const [p, w] of turned) {
      found.push({
        plantingId: p.id,
        year: yearOf(day),
        leaves: !w.outside,
        now: w.hoursIn(today!),
        then: w.hoursIn(field),
        causes: causesOf(fields, w.hoursIn),
      })
      waiting.delete(p)
    }
  }
  return found
}

/** Whether hours are outside what a planting likes, in the summers of a garden. */
const outsideIn = ({ climate }: Pick<StandingGarden, 'climate'>) => {
  const summer = summerOf(climate)
  return (p: Planting, hours: SunHours): boolean => isOutside(lightFit(p.taxon, hours, summer))
}

/**
 * What one or more what-ifs would do to every planting whose light they move.
 *
 * @returns largest move first
 */
export function lightEffects(
  garden: StandingGarden,
  suppositions: readonly Supposition[],
  on: IsoDate,
): LightEffect[] {
  const { scene, places } = garden
  const plots = plotsOf(places)
  const season = { kind: 'season', on } as const
  const before = gardenField(scene, places, season, plots)
  const after = gardenField(withSuppositions(scene, suppositions, on), places, season, plots)
  return effectsBetween(garden, before, after, on)
}

/** What a what-if comes to for a whole garden. */
export interface WhatIfEffect {
  /** Plantings outside the light they like, and how many of them leave it or come back. */
  outside: number
  leaving: number
  returning: number
  /** Mean hours over all bed cells on the mean day of the growing season. */
  meanHours: number
}

/** Several what-ifs side by side, each against the garden as it stands. */
export function whatIfEffects(
  garden: StandingGarden,
  whatIfs: readonly (readonly Supposition[])[],
  on: IsoDate,
): WhatIfEffect[] {
  const { scene, places } = garden
  const plots = plotsOf(places)
  const fieldOf = (suppositions: readonly Supposition[]) =>
    gardenField(withSuppositions(scene, suppositions, on), places, { kind: 'season', on }, plots)
  const before = fieldOf([])
  const isOut = outsideIn(garden)
  const outsideNow = garden.plantings.map((p) => isOut(p, hoursOf(p, scene, on)(before)))
  return whatIfs.map((suppositions) => {
    const after = fieldOf(suppositions)
    const outsideThen = garden.plantings.map((p) => isOut(p, hoursOf(p, scene, on)(after)))
    const cells = after.plots.flatMap((p) => [...p.hours.total])
    return {
      outside: outsideThen.filter(Boolean).length,
      leaving: outsideThen.filter((out, i) => out && !outsideNow[i]).length,
      returning: outsideThen.filter((out, i) => !out && outsideNow[i]).length,
      meanHours: cells.reduce((sum, h) => sum + h, 0) / Math.max(1, cells.length),
    }
  })
}

/** Which plantings one light would take into or out of what they like, against another; most changed first. */
export function effectsBetween(
  garden: Pick<StandingGarden, 'scene' | 'plantings' | 'climate'>,
  before: GardenField,
  after: GardenField,
  on: IsoDate,
): LightEffect[] {
  const isOut = outsideIn(garden)
  return garden.plantings
    .map((p) => {
      const hoursIn = hoursOf(p, garden.scene, on)
      const now = hoursIn(before)
      const then = hoursIn(after)
      return {
        plantingId: p.id,
        now,
        then,
        outsideNow: isOut(p, now),
        outsideThen: isOut(p, then),
      }
    })
    .filter((e) => Math.abs(e.then.total - e.now.total) >= LEAST_HOURS || e.outsideNow !== e.outsideThen)
    .sort((a, b) => Math.abs(b.then.total - b.now.total) - Math.abs(a.then.total - a.now.total))
}
