import {
  cellAt,
  daysBetween,
  halfMonths,
  yearOf,
  type FieldHours,
  type GardenField,
  type Plot,
} from '@border/core'
import { changeColour, classColour, hoursColour, partHoursColour } from '../plan/colours.ts'
import type { FieldImage } from '../plan/Ground.tsx'
import { fieldImage } from './fieldImage.ts'

/** How the light is looked at: over what time, which scenes, which part of the day, in hours or in the trade's words. */
export type PeriodName = 'season' | 'half-month' | 'moment'
export type ViewName = 'before' | 'after' | 'side by side' | 'difference'
export type Stretch = keyof FieldHours
export type Measure = 'hours' | 'classes'

export const stretchWords: Record<Stretch, string> = {
  total: 'Whole day',
  morning: 'Morning, to 10',
  midday: 'Midday, 10 to 14',
  afternoon: 'Afternoon, from 14',
  heat: 'Hot hours, 14 to 17',
}

export const colourFor = (stretch: Stretch, measure: Measure) => {
  if (stretch !== 'total') return partHoursColour
  return measure === 'classes' ? classColour : hoursColour
}

/** Pictures of a field, or of the difference to another on the same cells. */
export function picturesOf(
  field: GardenField | undefined,
  { stretch, measure, less }: { stretch: Stretch; measure: Measure; less?: GardenField | undefined },
): FieldImage[] {
  if (!field) return []
  return field.plots.flatMap((plot, i) => {
    const bedIds = plot.beds.map((b) => b.id)
    const values = plot.hours[stretch]
    if (!less) return [{ ...fieldImage(plot, values, colourFor(stretch, measure)), bedIds }]
    const other = less.plots[i]
    // A difference is always taken on the same cells.
    if (!other || !sameCells(plot, other)) return []
    const change = values.map((h, k) => h - other.hours[stretch][k]!)
    return [{ ...fieldImage(plot, change, changeColour), bedIds }]
  })
}

export function potColoursOf(
  field: GardenField | undefined,
  { stretch, measure, less }: { stretch: Stretch; measure: Measure; less?: GardenField | undefined },
): Map<string, string> {
  const colours = new Map<string, string>()
  for (const [id, hours] of field?.pots ?? []) {
    const before = less?.pots.get(id)
    if (less && before) colours.set(id, changeColour(hours[stretch] - before[stretch]))
    else if (!less) colours.set(id, colourFor(stretch, measure)(hours[stretch]))
  }
  return colours
}

/** Hours in a pot or at a point of the ground of a bed; undefined off both. */
export function hoursAtPoint(
  field: GardenField | undefined,
  at: readonly [number, number],
  stretch: Stretch,
  potId?: string,
): number | undefined {
  const pot = potId === undefined ? undefined : field?.pots.get(potId)
  if (pot) return pot[stretch]
  for (const plot of field?.plots ?? []) {
    const cell = cellAt(plot.raster, at[0], at[1])
    if (cell !== undefined) return plot.hours[stretch][cell]
  }
  return undefined
}

const sameCells = (a: Plot, b: Plot) =>
  a.raster.cellM === b.raster.cellM && a.raster.count === b.raster.count && a.raster.x0 === b.raster.x0

/** The middle of the half-month that a day lies nearest to. */
export function halfMonthOf(day: string): string {
  return halfMonths(yearOf(day)).reduce((a, b) =>
    Math.abs(daysBetween(b, day)) < Math.abs(daysBetween(a, day)) ? b : a,
  )
}
