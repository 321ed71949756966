import { metresTo, ringOf, type PlanFeature } from '../garden/index.ts'
import { isInside } from '../geometry/index.ts'
import { sunHours, type Scene, type SunHours } from '../light/index.ts'
import type { IsoDate } from '../dates/index.ts'
import type { Taxon } from '../plants/index.ts'

/** Somewhere in the open ground of a garden that a container could stand, with its light at the height of its rim. */
export interface PotSpot {
  x: number
  y: number
  hours: SunHours
  /** Hours by which the light misses what its plants want, of the one that it misses most; 0 where all are suited. */
  missesH: number
}

/** Points that are tried: a metre apart, or as far as keeps them to so many. */
const CELL_M = 1
const MOST_POINTS = 600
/** A spot keeps so far from what stands there, and from the next that is offered. */
const CLEAR_M = 0.4
const APART_M = 3
const SHOWN = 3

/** Hours by which light misses what plants want, of the one that it misses most: above 0 it is too much, below too little. */
export const lightOff = (
  taxa: readonly Pick<Taxon, 'lightMinHours' | 'lightMaxHours'>[],
  hours: number,
): number =>
  taxa
    .flatMap((t) => [Math.max(0, hours - t.lightMaxHours), Math.min(0, hours - t.lightMinHours)])
    .reduce((most, off) => (Math.abs(off) > Math.abs(most) ? off : most), 0)

/** The same, whichever way. */
export const lightMisses = (
  taxa: readonly Pick<Taxon, 'lightMinHours' | 'lightMaxHours'>[],
  hours: number,
): number => Math.abs(lightOff(taxa, hours))

/** Ground that no container stands on: planted, under water, built over, or with something on it already. */
const isTaken = (f: PlanFeature, x: number, y: number, clearM: number): boolean => {
  if (f.kind === 'hazard' || f.kind === 'viewpoint' || f.kind === 'path') return false
  if (f.geometry.type === 'Polygon' && isInside(ringOf(f.geometry), x, y)) return true
  return f.kind !== 'bed' && f.kind !== 'water' && metresTo(f, { x, y }) < clearM
}

/** Points of a garden on which a container could stand. @param features those that stand */
export function openPoints(features: readonly PlanFeature[], acrossM: number): { x: number; y: number }[] {
  const corners = features.flatMap(({ geometry: g }) =>
    g.type === 'Point' ? [g.coordinates] : g.type === 'Polygon' ? g.coordinates[0]! : g.coordinates,
  )
  const xs = corners.map((c) => c[0]!)
  const ys = corners.map((c) => c[1]!)
  const [left, right, low, high] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  const cell = Math.max(CELL_M, Math.sqrt(((right - left) * (high - low)) / MOST_POINTS))
  const clearM = CLEAR_M + acrossM / 2
  const points: { x: number; y: number }[] = []
  for (let x = left + cell / 2; x < right; x += cell)
    for (let y = low + cell / 2; y < high; y += cell)
      if (!features.some((f) => isTaken(f, x, y, clearM))) points.push({ x, y })
  return points
}

/**
 * The spots of a garden whose light suits what grows in a container best.
 *
 * @param points on which it could stand
 * @returns three at most, best first, each apart from the others; of those that suit alike the nearest to where it stands
 */
export function bestPotSpots(
  scene: Scene,
  points: readonly { x: number; y: number }[],
  pot: { x: number; y: number; rimHeightM: number; taxa: readonly Taxon[] },
  on: IsoDate,
): PotSpot[] {
  const hours = sunHours(
    scene,
    points.map(({ x, y }) => ({ x, y, z: pot.rimHeightM })),
    { kind: 'season', on },
  )
  const far = ({ x, y }: { x: number; y: number }) => Math.hypot(x - pot.x, y - pot.y)
  const all = points
    .map(({ x, y }, i): PotSpot => ({
      x,
      y,
      hours: hours[i]!,
      missesH: lightMisses(pot.taxa, hours[i]!.total),
    }))
    .sort((a, b) => a.missesH - b.missesH || far(a) - far(b))
  const chosen: PotSpot[] = []
  for (const spot of all) {
    if (chosen.length === SHOWN) break
    if (chosen.every((c) => Math.hypot(c.x - spot.x, c.y - spot.y) >= APART_M)) chosen.push(spot)
  }
  return chosen
}
