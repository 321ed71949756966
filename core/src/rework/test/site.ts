import { placesOn, type Feature, type FeatureKind, type Geometry } from '../../garden/index.ts'
import type { Ring } from '../../geometry/index.ts'
import type { Climate } from '../../climate/index.ts'
import { sitedGarden, type SitedGarden } from '../index.ts'

/** A small made garden for tests: beds about a house with eaves and low windows, a wall, a cable in the ground. */

const polygon = (ring: Ring): Geometry => ({
  type: 'Polygon',
  coordinates: [[...ring, ring[0]!].map(([x, y]): [number, number] => [x, y])],
})

const feature = (
  kind: FeatureKind,
  name: string,
  geometry: Geometry,
  properties: Record<string, unknown> = {},
): Feature => ({ id: name, kind, name, from: null, to: null, geometry, properties })

export const box = (x0: number, y0: number, x1: number, y1: number): Ring => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
]

export const bed = (name: string, ring: Ring, properties: Record<string, unknown> = {}) =>
  feature('bed', name, polygon(ring), { moisture: 'fresh', ph: 6.5, ...properties })

/** South of it an open bed, at its foot one under eaves and windows, and a cable across the open one. */
export const house = feature('building', 'House', polygon(box(0, 10, 10, 16)), {
  heightM: 5,
  overhang: { depthM: 0.6, heightM: 2.4 },
  sillM: 0.9,
})
const wall = feature(
  'wall',
  'Wall',
  {
    type: 'LineString',
    coordinates: [
      [-1, -2],
      [-1, 9],
    ],
  },
  { heightM: 1.5, transmission: 0, thicknessM: 0.2 },
)
const cable = feature('hazard', 'Cable', {
  type: 'LineString',
  coordinates: [
    [8, -2],
    [8, 9],
  ],
})
export const openBed = bed('Open', box(-1, 0, 10, 4))
export const footBed = bed('Foot', box(0, 8, 10, 10))

export const place = { latitude: 51.5, longitude: -0.1, northDeg: 0 }
export const on = '2026-06-15'

export function sited(
  features: Feature[] = [openBed, footBed, house, wall, cable],
  climate?: Climate,
  cellM?: number,
): SitedGarden {
  const places = placesOn(features, on)
  return sitedGarden({ at: place, features, places, climate }, on, cellM)
}
