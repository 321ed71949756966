import { groundRadiusM, type Place, type Planting, type TakenGround } from '../garden/index.ts'
import { asDisc, distanceToBoundary, isInside, metresOutside } from '../geometry/index.ts'
import { cellHours, type GardenField, type LightPoint, type SunHours } from '../light/index.ts'
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

/** Light of every place at points about half a metre apart, searched many times. */
export interface SpotField {
  places: { place: Place; points: LitPoint[] }[]
}

type LitPoint = LightPoint & { hours: SunHours }

/** Points of a bed that are searched lie so far apart, or as far as the cells of the field do. */
const SEARCH_CELL_M = 0.5

/**
 * @param field hours of the growing season over the places
 * @param places all of them in the field
 */
export function spotField(field: GardenField, places: readonly Place[]): SpotField {
  return { places: places.map((place) => ({ place, points: pointsOf(place) })) }

  function pointsOf(place: Place): LitPoint[] {
    if (place.kind === 'container')
      return [{ x: place.x, y: place.y, z: place.rimHeightM, hours: field.pots.get(place.id)! }]
    const { raster, hours } = field.plots.find((p) => p.beds.some((b) => b.id === place.id))!
    const every = Math.max(1, Math.round(SEARCH_CELL_M / raster.cellM))
    const numberOf = (m: number) => Math.floor(m / raster.cellM)
    const all: LitPoint[] = []
    const some: LitPoint[] = []
    for (let i = 0; i < raster.count; i++) {
      const x = raster.x[i]!
      const y = raster.y[i]!
      if (!isInside(place.ring, x, y)) continue
      const point = { x, y, z: 0, hours: cellHours(hours, i) }
      all.push(point)
      if (numberOf(x) % every === 0 && numberOf(y) % every === 0) some.push(point)
    }
    // A bed may be too small for its share of them.
    return some.length > 0 ? some : all
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
      const hours = hoursAbout(p, near(p, radiusM), radiusM)
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
/** Side of the squares that points are looked up by, metres. */
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

/** Mean hours of the points that a drift about `p` would cover, its own always among them. */
function hoursAbout(p: LitPoint, near: readonly LitPoint[], radiusM: number): SunHours {
  const sum = { ...p.hours }
  let count = 1
  const reach = radiusM * radiusM
  for (const q of near) {
    const dx = q.x - p.x
    const dy = q.y - p.y
    if (q === p || dx * dx + dy * dy > reach) continue
    count++
    sum.total += q.hours.total
    sum.morning += q.hours.morning
    sum.midday += q.hours.midday
    sum.afternoon += q.hours.afternoon
    sum.heat += q.hours.heat
  }
  return {
    total: sum.total / count,
    morning: sum.morning / count,
    midday: sum.midday / count,
    afternoon: sum.afternoon / count,
    heat: sum.heat / count,
  }
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
