import { areaM2, type Ring } from '../../geometry/index.ts'
import { library, type Taxon } from '../../plants/index.ts'
import type { Bed, Container, Planting } from '../index.ts'

/** Small builders for tests: everything that a test does not speak of is plain. */

export const taxonNamed = (botanical: string): Taxon => {
  const found = library.find((t) => t.botanical === botanical)
  if (!found) throw new Error(`No ${botanical} in the library`)
  return found
}

export const madePlanting = (id: string, botanical: string, more: Partial<Planting> = {}): Planting => ({
  id,
  tag: id,
  taxon: taxonNamed(botanical),
  plantedOn: '2012-04-01',
  plantedKnown: 'day',
  plantedCount: 1,
  livingCount: 1,
  source: 'bought',
  role: null,
  colourWish: null,
  fromTag: null,
  placeId: 'bed',
  x: 0,
  y: 0,
  radiusM: null,
  outline: null,
  inPlaceSince: more.plantedOn ?? '2012-04-01',
  ...more,
})

export const rectangle = (x0: number, y0: number, x1: number, y1: number): Ring => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
]

export const madeBed = (id: string, ring: Ring, more: Partial<Bed> = {}): Bed => ({
  id,
  name: id,
  kind: 'bed',
  to: null,
  ring,
  areaM2: areaM2(ring),
  moisture: null,
  piped: false,
  ground: null,
  ...more,
})

export const madePot = (id: string, x: number, y: number, more: Partial<Container> = {}): Container => ({
  id,
  name: id,
  kind: 'container',
  to: null,
  x,
  y,
  rimHeightM: 0.4,
  radiusM: 0.25,
  acrossM: 0.5,
  mixLitres: 70,
  isBox: false,
  areaM2: Math.PI * 0.25 ** 2,
  moisture: null,
  piped: false,
  ground: null,
  ...more,
})
