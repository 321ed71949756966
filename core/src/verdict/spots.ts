import { groundRadiusM, type Place, type Planting, type TakenGround } from '../garden/index.ts'
import { asDisc, distanceToBoundary, isInside, metresOutside } from '../geometry/index.ts'
import {
  cellHours,
  gardenField,
  meanHours,
  plotsOf,
  type LightPoint,
  type Scene,
  type SunHours,
} from '../light/index.ts'
import type { IsoDate } from '../dates/index.ts'
import { fitOf, type Fit } from './fit.ts'

/** Somewhere to move to, with the light it has and why it was ranked so. */
export interface SpotOption {
  placeId: string
  placeName: string
  x: number
  y: number
  hours: SunHours
  fit: Fit
}

/** Light of every place on a coarse grid, computed once and searched many times. */
export interface SpotField {
  places: { place: Place; points: LitPoint[] }[]
}

type LitPoint = LightPoint & { hours: SunHours }

const SEARCH_CELL_M = 0.5

/** @param on the day whose standing obstructions count; hours are means of the growing season */
export function spotField(scene: Scene, places: readonly Place[], on: IsoDate): SpotField {
  const field = gardenField(scene, places, { kind: 'season', on }, plotsOf(places, SEARCH_CELL_M))
  return { places: places.map((place) => ({ place, points: pointsOf(place) })) }

  function pointsOf(place: Place): LitPoint[] {
    if (place.kind === 'container')
      return [{ x: place.x, y: place.y, z: place.rimHeightM, hours: field.pots.get(place.id)! }]
    const plot = field.plots.find((p) => p.beds.some((b) => b.id === place.id))!
    const points: LitPoint[] = []
    for (let i = 0; i < plot.raster.count; i++) {
      const x = plot.raster.x[i]!
      const y = plot.raster.y[i]!
      if (isInside(place.ring, x, y)) points.push({ x, y, z: 0, hours: cellHours(plot.hours, i) })
    }
    return points
  }
}

/** Discs may overlap by this share of the smaller: drifts interlock. */
const OVERLAP_SHARE = 0.15
const LEAST_FIT = 0.6
const LEAST_APART_M = 2

/**
 * The best few free spots for a planting: room for its whole drift, light and moisture it likes.
 *
 * @param planting its own ground counts as free; nothing that its present ground would overlap is offered
 * @returns best first, at most `most`, at least two metres apart; empty when nothing fits
 */
export function bestSpots(
  field: SpotField,
  planting: Planting,
  occupied: readonly TakenGround[],
  most = 3,
): SpotOption[] {
  const { taxon } = planting
  const radiusM = groundRadiusM(planting)
  const options: SpotOption[] = []
  for (const { place, points } of field.places) {
    const taken = occupied.filter((o) => o.placeId === place.id && o.plantingId !== planting.id)
    const { edgeM, near } = surveyOf(place, points)
    for (const [i, p] of points.entries()) {
      if (Math.hypot(p.x - planting.x, p.y - planting.y) < 2 * radiusM) continue
      if (!isRoomy(place, p, edgeM[i]!, radiusM, taken)) continue
      const hours = meanHours(hoursAbout(near(p, radiusM), p, radiusM))
      const fit = fitOf(taxon, { hours, moisture: place.moisture })
      if (fit.score >= LEAST_FIT)
        options.push({ placeId: place.id, placeName: place.name, x: p.x, y: p.y, hours, fit })
    }
  }
  const turnOf = new Map(field.places.map(({ place }, i) => [place.id, i]))
  const middle = (taxon.lightMinHours + taxon.lightMaxHours) / 2
  const fromMiddle = (o: SpotOption) => Math.abs(o.hours.total - middle)
  options.sort(
    (a, b) =>
      b.fit.score - a.fit.score ||
      fromMiddle(a) - fromMiddle(b) ||
      turnOf.get(a.placeId)! - turnOf.get(b.placeId)! ||
      a.x - b.x ||
      a.y - b.y,
  )
  return spread(options, most)
}

/** What every planting asks of the points of a place: told once for all of them. */
interface Survey {
  /** Metres from each point to the edge of its bed. */
  edgeM: Float64Array
  /** Points of the squares that a circle touches, and so all that lie in it. */
  near: (p: Readonly<{ x: number; y: number }>, radiusM: number) => LitPoint[]
}
const surveys = new WeakMap<readonly LitPoint[], Survey>()
const SQUARE_M = 1

function surveyOf(place: Place, points: readonly LitPoint[]): Survey {
  const known = surveys.get(points)
  if (known) return known
  const edgeM = Float64Array.from(points, (p) => edgeOf(place, p))
  const squares = new Map<string, LitPoint[]>()
  const squareOf = (m: number) => Math.floor(m / SQUARE_M)
  for (const p of points) {
    const key = `${squareOf(p.x)} ${squareOf(p.y)}`
    const square = squares.get(key)
    if (square) square.push(p)
    else squares.set(key, [p])
  }
  const survey: Survey = {
    edgeM,
    near: ({ x, y }, radiusM) => {
      const found: LitPoint[] = []
      for (let i = squareOf(x - radiusM); i <= squareOf(x + radiusM); i++)
        for (let k = squareOf(y - radiusM); k <= squareOf(y + radiusM); k++)
          found.push(...(squares.get(`${i} ${k}`) ?? []))
      return found
    },
  }
  surveys.set(points, survey)
  return survey
}

/** Metres from a point to the edge of its bed; a pot is told by its radius. */
const edgeOf = (place: Place, { x, y }: { x: number; y: number }): number =>
  place.kind === 'bed' ? distanceToBoundary(place.ring, x, y) : 0

/** Hours of the points that a drift about `p` would cover, its own always among them. */
function hoursAbout(near: readonly LitPoint[], p: LitPoint, radiusM: number): SunHours[] {
  const found = [p.hours]
  const reach = radiusM * radiusM
  for (const q of near) {
    const dx = q.x - p.x
    const dy = q.y - p.y
    if (q !== p && dx * dx + dy * dy <= reach) found.push(q.hours)
  }
  return found
}

/** Drifts may reach over the edge of their bed by the rest of their radius. */
const LEAST_INSIDE = 0.85

/**
 * Whether ground of a radius about a point in a place is free; drifts may interlock a little.
 *
 * @param edgeM from the point to the edge of its bed
 * @param taken in this place
 */
function isRoomy(
  place: Place,
  p: { x: number; y: number },
  edgeM: number,
  radiusM: number,
  taken: readonly TakenGround[],
): boolean {
  if (place.kind === 'container') return radiusM <= place.radiusM && taken.length === 0
  return (
    edgeM >= radiusM * LEAST_INSIDE &&
    taken.every(
      (o) =>
        metresOutside(o.ground, p.x, p.y) >=
        radiusM - 2 * OVERLAP_SHARE * Math.min(asDisc(o.ground).radiusM, radiusM),
    )
  )
}

/** Whether ground of a radius about a point lies in the place and is free; drifts may interlock a little. */
export function hasRoom(
  place: Place,
  p: { x: number; y: number },
  radiusM: number,
  taken: readonly TakenGround[],
): boolean {
  if (place.kind === 'bed' && !isInside(place.ring, p.x, p.y)) return false
  const here = taken.filter((o) => o.placeId === place.id)
  return isRoomy(place, p, edgeOf(place, p), radiusM, here)
}

/** The best of each neighbourhood, and no more than two from one place. */
function spread(options: readonly SpotOption[], most: number): SpotOption[] {
  const chosen: SpotOption[] = []
  for (const o of options) {
    if (chosen.length === most) break
    const near = chosen.some((c) => Math.hypot(c.x - o.x, c.y - o.y) < LEAST_APART_M)
    if (!near && chosen.filter((c) => c.placeId === o.placeId).length < 2) chosen.push(o)
  }
  return chosen
}
