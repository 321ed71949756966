import type { Climate } from '../climate/index.ts'
import { summerOf } from '../climate/index.ts'
import type { IsoDate } from '../dates/index.ts'
import {
  eavesOver,
  featuresOn,
  metresTo,
  ringOf,
  sceneOf,
  surroundingsOn,
  type EavesZone,
  type Feature,
  type Place,
  type PlanFeature,
} from '../garden/index.ts'
import { distanceToBoundary, isInside, type Ring } from '../geometry/index.ts'
import { gardenField, type GardenField } from '../light/index.ts'
import type { Region } from '../plants/index.ts'
import {
  spotField,
  suspectedMoisture,
  type LitPoint,
  type Spot,
  type SuspectedMoisture,
} from '../verdict/index.ts'

/** A point of a place where a plant could stand: what it offers, and what bounds what stands there. */
export interface Station extends Spot {
  x: number
  y: number
  /** To the edge of its bed or pot, metres. */
  edgeM: number
  /** To the nearest wall, fence or hedge; undefined where there is none. */
  wallM?: number | undefined
  /** The eaves above it. */
  eaves?: Pick<EavesZone, 'name' | 'heightM'> | undefined
  /** The windows that it stands before, of every building near it. */
  windows?: readonly { of: string; sillM: number; awayM: number }[] | undefined
  /** What lies in the ground nearest to it: a cable, a pipe. */
  buried?: { name: string; awayM: number } | undefined
}

/** A place with its stations, each of which stands for as much ground as any other of it. */
export interface StationedPlace {
  place: Place
  stations: readonly Station[]
  /** Ground that one of them stands for, square metres. */
  stationM2: number
}

/** A garden as what is to stand in it sees it. */
export interface SitedGarden {
  places: readonly StationedPlace[]
  climate?: Climate | undefined
  regions?: readonly Region[] | undefined
}

/** Of stations the one nearest to a point. */
export function nearestStation(stations: readonly Station[], x: number, y: number): Station {
  let [found, least] = [stations[0]!, Infinity]
  for (const s of stations) {
    const m2 = (s.x - x) ** 2 + (s.y - y) ** 2
    if (m2 < least) {
      least = m2
      found = s
    }
  }
  return found
}

/** What stations are worked out from. */
export interface GroundToSite {
  at: { latitude: number; longitude: number; northDeg: number }
  features: readonly Feature[]
  /** Those that are looked at, as they stand on the day. */
  places: readonly Place[]
  climate?: Climate | undefined
  regions?: readonly Region[] | undefined
  /** What signs say of the moisture of places, by their id. */
  suspected?: ReadonlyMap<string, SuspectedMoisture> | undefined
}

/** A window further off than this is not stood before, metres. */
const BEFORE_WINDOW_M = 3

/**
 * The stations of places, with the light of the growing season as things stand on a day.
 *
 * @param cellM how far apart they are in a bed; a pot has one
 * @param known the light, where it is worked out already; else it is worked out here
 */
export function sitedGarden(
  { at, features, places, climate, regions, suspected = suspectedMoisture() }: GroundToSite,
  on: IsoDate,
  cellM = 0.5,
  known?: GardenField,
): SitedGarden {
  const scene = sceneOf(at, features)
  const field = known ?? gardenField(scene, places, { kind: 'season', on })
  const about = surroundingsOn(scene, on)
  const standing = featuresOn(features, on)
  const windows = standing.flatMap((f): Windows[] => {
    const { sillM } = f.properties as { sillM?: number }
    return f.kind === 'building' && sillM !== undefined
      ? [{ of: f.name, sillM, ring: ringOf(f.geometry) }]
      : []
  })
  const buried = standing.filter((f) => f.kind === 'hazard')
  const summer = summerOf(climate)
  return {
    climate,
    regions,
    places: spotField(field, places, about, cellM).places.map(({ place, points }) => ({
      place,
      stationM2: place.areaM2 / points.length,
      stations: points.map((p) => stationAt(place, p)),
    })),
  }

  function stationAt(place: Place, p: LitPoint): Station {
    const { x, y, hours, rootsOf, eavesOf, wallM } = p
    return {
      x,
      y,
      hours,
      moisture: place.moisture,
      wind: place.wind,
      summer,
      rootsOf,
      eavesOf,
      suspected: suspected.get(place.id),
      edgeM: place.kind === 'bed' ? distanceToBoundary(place.ring, x, y) : place.radiusM,
      wallM,
      eaves: eavesAbove(about.eaves, x, y),
      windows: windowsBefore(windows, x, y),
      buried: place.kind === 'bed' ? nearestBuried(buried, x, y) : undefined,
    }
  }
}

/** Of the eaves above a point what bounds what stands below them. */
function eavesAbove(zones: readonly EavesZone[], x: number, y: number): Station['eaves'] {
  const over = eavesOver(zones, x, y)
  return over && { name: over.name, heightM: over.heightM }
}

interface Windows {
  of: string
  sillM: number
  ring: Ring
}

/** The windows that a point stands before. */
const windowsBefore = (windows: readonly Windows[], x: number, y: number): Station['windows'] =>
  windows
    .map(({ of, sillM, ring }) => ({ of, sillM, awayM: distanceToBoundary(ring, x, y) }))
    .filter((w) => w.awayM <= BEFORE_WINDOW_M)

const nearestBuried = (buried: readonly PlanFeature[], x: number, y: number): Station['buried'] =>
  buried
    .map((f) => ({ name: f.name, awayM: isOver(f, x, y) ? 0 : metresTo(f, { x, y }) }))
    .sort((a, b) => a.awayM - b.awayM)[0]

const isOver = ({ geometry }: PlanFeature, x: number, y: number): boolean =>
  geometry.type === 'Polygon' && isInside(ringOf(geometry), x, y)
