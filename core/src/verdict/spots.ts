import { bisector, group } from 'd3-array'
import type { Summer } from '../climate/index.ts'
import {
  driedBy,
  groundRadiusM,
  metresToWall,
  type Surroundings,
  type Place,
  type Planting,
  type TakenGround,
} from '../garden/index.ts'
import { asDisc, distanceToBoundary, isInside, metresOutside, type Footprint } from '../geometry/index.ts'
import { cellHours, type GardenField, type LightPoint, type SunHours } from '../light/index.ts'
import { onceFor } from '../once/index.ts'
import { isWoody, type Taxon } from '../plants/index.ts'
import { fitOf, fitScore, whySoilUnfit, type Fit, type Spot, type SuspectedMoisture } from './fit.ts'

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
  places: SearchedPlace[]
}

/** A place with the points of it that are searched. */
export interface SearchedPlace {
  place: Place
  points: LitPoint[]
}

/** A point with its light, the tree among whose roots and the building under whose eaves it lies, and how far it is to the nearest wall, fence or hedge. */
export type LitPoint = LightPoint & {
  hours: SunHours
  rootsOf?: string | undefined
  eavesOf?: string | undefined
  wallM?: number | undefined
}

/** What is known of a garden beside its light, as spots are judged by it. */
export interface SpotKnowledge {
  /** How hot the afternoons are there. */
  summer?: Summer | undefined
  /** What signs say of the ground of places, by their id. */
  suspected?: ReadonlyMap<string, SuspectedMoisture> | undefined
}

const NOTHING: Surroundings = { roots: [], walls: [], eaves: [] }

/** Usual distance between points that are searched. */
const SEARCH_CELL_M = 0.5

/**
 * @param field hours of the growing season over the places
 * @param places all of them in the field
 * @param about the trees and walls about them
 * @param cellM how far apart the points of a bed are, or as far as the cells of the field
 */
export function spotField(
  field: GardenField,
  places: readonly Place[],
  about: Surroundings = NOTHING,
  cellM = SEARCH_CELL_M,
): SpotField {
  return { places: places.map((place) => ({ place, points: pointsOf(place) })) }

  function pointsOf(place: Place): LitPoint[] {
    if (place.kind === 'container')
      return [{ x: place.x, y: place.y, z: place.rimHeightM, hours: field.pots.get(place.id)! }]
    const { raster, hours } = field.plots.find((p) => p.beds.some((b) => b.id === place.id))!
    const every = Math.max(1, Math.round(cellM / raster.cellM))
    const numberOf = (m: number) => Math.floor(m / raster.cellM)
    const all: number[] = []
    const some: number[] = []
    for (let i = 0; i < raster.count; i++) {
      const x = raster.x[i]!
      const y = raster.y[i]!
      if (!isInside(place.ring, x, y)) continue
      all.push(i)
      if (numberOf(x) % every === 0 && numberOf(y) % every === 0) some.push(i)
    }
    // A bed may be too small for its share of them.
    return (some.length > 0 ? some : all).map((i) => {
      const x = raster.x[i]!
      const y = raster.y[i]!
      const wallM = metresToWall(about.walls, x, y)
      return { x, y, z: 0, hours: cellHours(hours, i), ...driedBy(about, x, y), wallM }
    })
  }
}

/** Discs may overlap by this share of the smaller: drifts interlock. */
const OVERLAP_SHARE = 0.15
/** Below this a kind would only just live there. */
export const LEAST_FIT = 0.6
const LEAST_APART_M = 2

/**
 * The best few free spots for a planting: room for its whole drift, light, moisture and soil it likes.
 *
 * @param planting its own ground counts as free; nothing that its present ground would overlap is offered
 * @param occupied is read once, however many plantings ask; those of one radius are best asked for one after another
 * @param known of the garden
 * @returns best first, at most `most`, at least two metres apart; empty when nothing fits
 */
export function bestSpots(
  field: SpotField,
  planting: Planting,
  occupied: readonly TakenGround[],
  known: SpotKnowledge = {},
  most = 3,
): SpotOption[] {
  const { taxon } = planting
  const radiusM = groundRadiusM(planting)
  const bearsWall = wallRoom(field, planting, radiusM)
  const middle = (taxon.lightMinHours + taxon.lightMaxHours) / 2
  const roomIn = roomsBeside(occupied)
  const options = new Options()
  for (const [turn, searched] of field.places.entries()) {
    const { place, points } = searched
    if (whySoilUnfit(taxon, place.ph)) continue
    const hoursOf = surveyOf(points).hoursAbout(radiusM)
    for (const i of roomIn(searched)(radiusM, planting.id)) {
      const { x, y, wallM } = points[i]!
      if (squared(x - planting.x, y - planting.y) < squared(2 * radiusM) || !bearsWall(wallM)) continue
      const hours = hoursOf(i)
      const score = fitScore(taxon, spotAt(place, points[i]!, hours, known))
      if (score >= LEAST_FIT) options.add(turn, i, x, y, score, Math.abs(hours.total - middle))
    }
  }
  return options.spread(most).map(([turn, i]) => {
    const { place, points } = field.places[turn]!
    const { x, y } = points[i]!
    const hours = surveyOf(points).hoursAbout(radiusM)(i)
    const fit = fitOf(taxon, spotAt(place, points[i]!, hours, known))
    return { placeId: place.id, placeName: place.name, x, y, hours, fit }
  })
}

const spotAt = (
  { id, moisture, wind }: Place,
  { rootsOf, eavesOf }: LitPoint,
  hours: SunHours,
  { summer, suspected }: SpotKnowledge,
): Spot => ({ hours, moisture, wind, summer, rootsOf, eavesOf, suspected: suspected?.get(id) })

/** A climber within this of a wall or fence leans on it: a judgement. */
const LEANS_WITHIN_M = 1

/**
 * How far from walls, fences and hedges a planting wants to stand: what is woody by half its spread, for air, light and its own shape;
 * a climber that leans on one within reach of the next.
 */
function wallRoom(
  field: SpotField,
  { taxon, placeId, x, y }: Planting,
  radiusM: number,
): (wallM: number | undefined) => boolean {
  if (!isWoody(taxon)) return () => true
  if (taxon.lifeForm !== 'climber') {
    const leastM = airM(taxon, radiusM)
    return (wallM = Infinity) => wallM >= leastM
  }
  const here = field.places.find((p) => p.place.id === placeId)?.points ?? []
  const nearest = here.reduce<LitPoint | undefined>(
    (best, p) => (best && squared(best.x - x, best.y - y) <= squared(p.x - x, p.y - y) ? best : p),
    undefined,
  )
  return (nearest?.wallM ?? Infinity) > LEANS_WITHIN_M
    ? () => true
    : (wallM = Infinity) => wallM <= LEANS_WITHIN_M
}

/** From the middle of a drift to a wall: its outermost plant has half its spread. */
const airM = ({ spreadM, spacingM }: Taxon, radiusM: number): number =>
  Math.max(spreadM / 2, radiusM + (spreadM - spacingM) / 2)

/** The square of a length, or of that of two sides at right angles. */
const squared = (a: number, b = 0) => a * a + b * b

/** Where a planting could go. They are millions over a large garden: kept as columns, and looked through rather than put in order. */
class Options {
  private readonly turn: number[] = []
  private readonly i: number[] = []
  private readonly x: number[] = []
  private readonly y: number[] = []
  private readonly score: number[] = []
  private readonly fromMiddle: number[] = []

  /**
   * @param turn of its place among those of the garden
   * @param i among the points of its place
   * @param fromMiddle hours from the middle of the range that the kind likes
   */
  add(turn: number, i: number, x: number, y: number, score: number, fromMiddle: number): void {
    this.turn.push(turn)
    this.i.push(i)
    this.x.push(x)
    this.y.push(y)
    this.score.push(score)
    this.fromMiddle.push(fromMiddle)
  }

  /** The best of each neighbourhood, and no more than two from one place. @returns turn and point of each, best first */
  spread(most: number): [turn: number, i: number][] {
    const chosen: number[] = []
    while (chosen.length < most) {
      let best = -1
      for (let o = 0; o < this.i.length; o++)
        if ((best < 0 || this.isBetter(o, best)) && this.mayCome(o, chosen)) best = o
      if (best < 0) break
      chosen.push(best)
    }
    return chosen.map((o) => [this.turn[o]!, this.i[o]!])
  }

  private isBetter(o: number, than: number): boolean {
    return (
      (this.score[than]! - this.score[o]! ||
        this.fromMiddle[o]! - this.fromMiddle[than]! ||
        this.turn[o]! - this.turn[than]! ||
        this.x[o]! - this.x[than]! ||
        this.y[o]! - this.y[than]!) < 0
    )
  }

  private mayCome(o: number, chosen: readonly number[]): boolean {
    return (
      chosen.every(
        (c) => squared(this.x[c]! - this.x[o]!, this.y[c]! - this.y[o]!) >= squared(LEAST_APART_M),
      ) && chosen.filter((c) => this.turn[c] === this.turn[o]).length < 2
    )
  }
}

/** Side of the squares that points are looked up by, metres. */
const SQUARE_M = 1

/** What every planting asks of the points of a place. */
interface Survey {
  /** Mean hours of the points that a drift about one would cover, each worked out once until another radius is asked for. */
  hoursAbout: (radiusM: number) => (i: number) => SunHours
}
const surveyOf = onceFor((points: readonly LitPoint[]): Survey => {
  const squareOf = (m: number) => Math.floor(m / SQUARE_M)
  const squares = group(
    points,
    (p) => squareOf(p.x),
    (p) => squareOf(p.y),
  )
  /** Points of the squares that a circle touches, and so all that lie in it. */
  const near = ({ x, y }: LitPoint, radiusM: number) => {
    const found: LitPoint[] = []
    for (let i = squareOf(x - radiusM); i <= squareOf(x + radiusM); i++)
      for (let k = squareOf(y - radiusM); k <= squareOf(y + radiusM); k++)
        found.push(...(squares.get(i)?.get(k) ?? []))
    return found
  }
  let ofM = NaN
  let known: (SunHours | undefined)[] = []
  return {
    hoursAbout: (radiusM) => {
      if (radiusM !== ofM) known = []
      ofM = radiusM
      return (i) => (known[i] ??= meanHours(points[i]!, near(points[i]!, radiusM), radiusM))
    },
  }
})

/** The largest round about a point that has room there, metres: less than nothing on ground that is taken. */
interface Room {
  /** Beside the edge of the bed and all ground that is taken. */
  radiusM: number
  /** Whose ground leaves no more; null where the edge does. */
  heldBy: string | null
  /** Were it not for that planting. */
  withoutM: number
}
const NO_ROOM = -Infinity

const unheld = (radiusM: number): Room => ({ radiusM, heldBy: null, withoutM: radiusM })

/** Of the points of a place those about which a planting has room for so much, by where they stand among them. */
type RoomFor = (radiusM: number, plantingId: string) => readonly number[]

/** Where there is room beside what is taken: worked out once for all plantings that ask. */
const roomsBeside = onceFor((occupied: readonly TakenGround[]) => {
  const takenIn = group(occupied, (o) => o.placeId)
  return onceFor((searched: SearchedPlace) => roomsOf(searched, takenIn.get(searched.place.id) ?? []))
})

function roomsOf({ place, points }: SearchedPlace, taken: readonly TakenGround[]): RoomFor {
  const rooms = points.map((point, i) => ({ i, ...roomAt(place, point, taken) }))
  const widest = rooms.toSorted((a, b) => b.radiusM - a.radiusM)
  const inOrder = widest.map((r) => r.i)
  const narrower = bisector((r: Room) => -r.radiusM).right
  const held = group(rooms, (r) => r.heldBy)
  return (radiusM, plantingId) => {
    const its = (held.get(plantingId) ?? []).filter((r) => r.radiusM < radiusM && r.withoutM >= radiusM)
    return [...inOrder.slice(0, narrower(widest, -radiusM)), ...its.map((r) => r.i)]
  }
}

/** Mean hours of the points that a drift about `p` would cover, its own always among them. */
function meanHours(p: LitPoint, near: readonly LitPoint[], radiusM: number): SunHours {
  const sum = { ...p.hours }
  let count = 1
  for (const q of near) {
    if (q === p || squared(q.x - p.x, q.y - p.y) > squared(radiusM)) continue
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

/** @param taken in this place */
function roomAt(place: Place, p: { x: number; y: number }, taken: readonly TakenGround[]): Room {
  const room: Room =
    place.kind === 'container'
      ? unheld(place.radiusM)
      : unheld(distanceToBoundary(place.ring, p.x, p.y) / LEAST_INSIDE)
  for (const o of taken) {
    const radiusM = place.kind === 'container' ? NO_ROOM : besideM(o.ground, p)
    if (radiusM < room.radiusM) {
      if (o.plantingId !== room.heldBy) room.withoutM = room.radiusM
      room.radiusM = radiusM
      room.heldBy = o.plantingId
    } else if (o.plantingId !== room.heldBy) room.withoutM = Math.min(room.withoutM, radiusM)
  }
  return room
}

/** The largest round about a point that overlaps ground by no more than drifts interlock, metres. */
function besideM(ground: Footprint, { x, y }: { x: number; y: number }): number {
  const awayM = metresOutside(ground, x, y)
  const interlocks = 2 * OVERLAP_SHARE
  // Of two rounds the smaller says how much: of this one, as long as it is that.
  return Math.min(awayM / (1 - interlocks), awayM + interlocks * asDisc(ground).radiusM)
}

/** Whether ground of a radius about a point lies in the place and is free; drifts may interlock a little. */
export function hasRoom(
  place: Place,
  p: { x: number; y: number },
  radiusM: number,
  taken: readonly TakenGround[],
): boolean {
  if (place.kind === 'bed' && !isInside(place.ring, p.x, p.y)) return false
  return (
    radiusM <=
    roomAt(
      place,
      p,
      taken.filter((o) => o.placeId === place.id),
    ).radiusM
  )
}
