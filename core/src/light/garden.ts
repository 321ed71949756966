import {
  covers,
  footprintExtent,
  footprintMiddle,
  isInside,
  type Footprint,
  type Ring,
} from '../geometry/index.ts'
import type { IsoDate } from '../dates/index.ts'
import { lightField, lightFieldsOn, type FieldHours } from './field.ts'
import { meanHours, sunHours, type LightPeriod, type Scene, type SunHours } from './hours.ts'
import { CELL_M, cellAt, rasterOver, type Raster } from './raster.ts'
import { LEVEL, type Ground } from './trace.ts'

/** Somewhere plants stand, as the light sees it. */
export type LitPlace = LitBed | LitPot
/** A bed as light falls on it. */
export interface LitBed {
  id: string
  kind: 'bed'
  ring: Ring
  /** Level when absent. */
  ground?: Ground | null
}
/** A pot as light falls on it: at one point, at its rim. */
export interface LitPot {
  id: string
  kind: 'container'
  x: number
  y: number
  rimHeightM: number
  ground?: Ground | null
}

/** The beds of a garden that lie alike, as cells. */
export interface Plot {
  ground: Ground
  beds: LitBed[]
  raster: Raster
}

/** Level beds share one raster, each other lie of the ground has one of its own. Empty without beds. */
export function plotsOf(places: readonly LitPlace[], cellM = CELL_M): Plot[] {
  const plots = new Map<string, LitBed[]>()
  for (const p of places) {
    if (p.kind !== 'bed') continue
    const { slopeDeg, aspectDeg } = p.ground ?? LEVEL
    const key = slopeDeg === 0 ? 'level' : `${slopeDeg}|${aspectDeg}`
    plots.set(key, [...(plots.get(key) ?? []), p])
  }
  return [...plots.values()].map((beds) => ({
    ground: beds[0]!.ground ?? LEVEL,
    beds,
    raster: rasterOver(
      beds.map((b) => b.ring),
      cellM,
    ),
  }))
}

/** Hours over every place of a garden. */
export interface GardenField {
  plots: (Plot & { hours: FieldHours })[]
  /** By container id. */
  pots: Map<string, SunHours>
}

/** Hours of direct sun on every bed, cell by cell, and at every pot. */
export function gardenField(
  scene: Scene,
  places: readonly LitPlace[],
  period: LightPeriod,
  plots: readonly Plot[] = plotsOf(places),
): GardenField {
  return {
    plots: plots.map((plot) => ({
      ...plot,
      hours: lightField(scene, plot.raster, period, plot.ground),
    })),
    pots: potHours(scene, places, period),
  }
}

/** The light of a garden as it stands on each of several days, all under the sun of the season of the first. */
export function gardenFieldsOn(
  scene: Scene,
  places: readonly LitPlace[],
  days: readonly IsoDate[],
): GardenField[] {
  const plots = plotsOf(places)
  const hours = plots.map((plot) => lightFieldsOn(scene, plot.raster, days, plot.ground))
  return days.map((standing, k) => ({
    plots: plots.map((plot, i) => ({ ...plot, hours: hours[i]![k]! })),
    pots: potHours(scene, places, { kind: 'season', on: days[0]!, standing }),
  }))
}

/** Hours of every container among the places, by id. */
export function potHours(
  scene: Scene,
  places: readonly LitPlace[],
  period: LightPeriod,
): Map<string, SunHours> {
  return new Map(
    places.flatMap((p) =>
      p.kind === 'container'
        ? [[p.id, sunHours(scene, [{ x: p.x, y: p.y, z: p.rimHeightM }], period, p.ground ?? LEVEL)[0]!]]
        : [],
    ),
  )
}

/**
 * Mean hours of the cells of a place that some ground covers; those of the one cell it stands in, or the nearest,
 * when it is smaller than a cell. A pot is one.
 *
 * @returns undefined when the place is not in the field
 */
export function hoursWithin(field: GardenField, placeId: string, ground: Footprint): SunHours | undefined {
  const pot = field.pots.get(placeId)
  if (pot) return pot
  for (const plot of field.plots) {
    const bed = plot.beds.find((b) => b.id === placeId)
    if (bed) return meanHours(cellsWithin(plot.raster, bed.ring, ground).map((i) => cellHours(plot.hours, i)))
  }
  return undefined
}

/** Numbers of the cells of a bed that some ground covers; at least one for an outline with cells. */
function cellsWithin(raster: Raster, ring: Ring, ground: Footprint): number[] {
  const { cellM, y0, columns, rows, firstAt } = raster
  const found: number[] = []
  const { minY, maxY } = footprintExtent(ground)
  const first = Math.max(0, Math.floor((minY - y0) / cellM))
  const last = Math.min(rows - 1, Math.floor((maxY - y0) / cellM))
  for (let row = first; row <= last; row++)
    for (let i = firstAt[row * (columns + 1)]!; i < firstAt[row * (columns + 1) + columns]!; i++)
      if (covers(ground, raster.x[i]!, raster.y[i]!) && isInside(ring, raster.x[i]!, raster.y[i]!))
        found.push(i)
  if (found.length > 0) return found
  const [x, y] = footprintMiddle(ground)
  const own = cellAt(raster, x, y) ?? nearest(raster, x, y)
  return own === undefined ? [] : [own]
}

function nearest(raster: Raster, x: number, y: number): number | undefined {
  let best: number | undefined
  let least = Infinity
  for (let i = 0; i < raster.count; i++) {
    const away = (raster.x[i]! - x) ** 2 + (raster.y[i]! - y) ** 2
    if (away < least) {
      least = away
      best = i
    }
  }
  return best
}

/** The hours of one cell by part of the day. */
export const cellHours = (hours: FieldHours, cell: number): SunHours => ({
  total: hours.total[cell]!,
  morning: hours.morning[cell]!,
  midday: hours.midday[cell]!,
  afternoon: hours.afternoon[cell]!,
  heat: hours.heat[cell]!,
})
