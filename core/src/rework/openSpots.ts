import {
  groundOf,
  groundRadiusM,
  groundTakenBy,
  type Place,
  type Planting,
  type TakenGround,
} from '../garden/index.ts'
import { asDisc, metresOutside } from '../geometry/index.ts'
import type { Destination, OpenSpot, RelocationProblem } from './relocation.ts'
import { nearestStation, type SitedGarden, type Station } from './stations.ts'
import { scoreIn, suits, type Suiting } from './suits.ts'

/** A round of ground that is free or will be, where it lies. */
export interface LaidSpot extends OpenSpot {
  place: Place
  x: number
  y: number
  /** What is there, by the station nearest to its middle. */
  station: Station
}

/** Rounds smaller than this hold nothing worth moving, metres. */
const LEAST_M = 0.12
/** A free round is taken no larger than so many times the largest of what leaves: what is left of it is another. */
const LARGER = 1.5
/** More spots than this no garden's moves are better for. */
const MOST_SPOTS = 40

/**
 * The ground that what leaves a garden could go to: what each of them gives up, and the largest rounds that lie free between what stays,
 * one after another.
 *
 * @param stays ground that is taken or promised and remains so
 */
export function openSpots(
  { places }: SitedGarden,
  leaving: readonly Planting[],
  stays: readonly TakenGround[],
  most = MOST_SPOTS,
): LaidSpot[] {
  const givenUp = leaving.flatMap((p): LaidSpot[] => {
    const of = places.find((s) => s.place.id === p.placeId)
    if (!of) return []
    const { x, y } = asDisc(groundOf(p))
    return [
      {
        id: `ground of ${p.id}`,
        vacatedBy: p.id,
        radiusM: groundRadiusM(p),
        place: of.place,
        x,
        y,
        station: nearestStation(of.stations, x, y),
      },
    ]
  })
  const largestM = LARGER * Math.max(0, ...leaving.map(groundRadiusM))
  const leastM = Math.max(LEAST_M, Math.min(Infinity, ...leaving.map(groundRadiusM)))
  const taken = [...stays, ...leaving.map(groundTakenBy)]
  const rooms = places.flatMap(({ place, stations }) => {
    const here = taken.filter((t) => t.placeId === place.id)
    return stations.map((station) => ({
      place,
      station,
      radiusM: here.reduce(
        (least, t) => Math.min(least, metresOutside(t.ground, station.x, station.y)),
        Math.min(largestM, station.edgeM),
      ),
    }))
  })
  const free: LaidSpot[] = []
  while (givenUp.length + free.length < most) {
    const best = rooms.reduce((a, b) => (b.radiusM > a.radiusM + 1e-9 ? b : a), rooms[0] ?? NONE)
    if (best.radiusM < leastM) break
    const { x, y } = best.station
    const { radiusM } = best
    free.push({ id: `free ${free.length + 1}`, radiusM, place: best.place, x, y, station: best.station })
    for (const room of rooms)
      if (room.place === best.place)
        room.radiusM = Math.min(room.radiusM, Math.hypot(room.station.x - x, room.station.y - y) - radiusM)
  }
  return [...givenUp, ...free]
}

const NONE = { radiusM: -Infinity } as { place: Place; station: Station; radiusM: number }

/** What leaves a garden and where it could go, as the optimum is asked of it. */
export interface GardenRelocation {
  problem: RelocationProblem
  spots: readonly LaidSpot[]
  /** How a planting would do where it goes; undefined of ways out. */
  suitingOf: (planting: Planting, destination: Destination) => Suiting | undefined
}

/**
 * @param standing everything that stands in the garden
 * @param leavingIds of what leaves its place
 * @param promised ground that is promised to others
 * @param worthOf what a planting is worth to keep: 1 as usual
 */
export function relocationOf(
  garden: SitedGarden,
  standing: readonly Planting[],
  leavingIds: ReadonlySet<string>,
  promised: readonly TakenGround[] = [],
  worthOf: (p: Planting) => number = () => 1,
): GardenRelocation {
  const leaving = standing.filter((p) => leavingIds.has(p.id))
  const stays = [...standing.filter((p) => !leavingIds.has(p.id)).map(groundTakenBy), ...promised]
  const spots = openSpots(garden, leaving, stays)
  const fitAt = (p: Planting, place: Place, station: Station) => scoreIn(p.taxon, place, garden)(station)
  return {
    spots,
    problem: {
      leaving: leaving.map((p) => {
        const here = garden.places.find((s) => s.place.id === p.placeId)
        return {
          id: p.id,
          radiusM: groundRadiusM(p),
          worth: worthOf(p),
          fitHere: here ? fitAt(p, here.place, nearestStation(here.stations, p.x, p.y)) : null,
        }
      }),
      spots,
      // What leaves a place does not come back to it: its ground is for what is to stand there instead.
      fit: leaving.map((p) =>
        spots.map((s) => (s.place.id === p.placeId ? 0 : fitAt(p, s.place, s.station))),
      ),
    },
    suitingOf: (p, destination) => {
      const spot = destination.to === 'spot' ? spots.find((s) => s.id === destination.spotId) : undefined
      return spot && suits(p.taxon, spot.place, spot.station, garden)
    },
  }
}
