import type { z } from 'zod'
import type { IsoDate } from '../dates/index.ts'
import { centroid, type Point, type Ring } from '../geometry/index.ts'
import type { featureGeometry, featureProperties } from './featureSchema.ts'

/** What a plan is made of. */
export const featureKinds = [
  'bed',
  'container',
  'building',
  'wall',
  'fence',
  'hedge',
  'tree',
  'hazard',
  'path',
  'water',
  'tap',
  'viewpoint',
] as const
export type FeatureKind = (typeof featureKinds)[number]

/** How the inside of a container is shaped; round: with upright sides. */
export const potShapes = ['round', 'box', 'tapered', 'bowl', 'half round', 'trough', 'hanging'] as const
export type PotShape = (typeof potShapes)[number]

/** What a container stands on. */
export const stands = ['paving', 'gravel', 'soil', 'deck', 'balcony', 'roof', 'wall top', 'shelf'] as const
export type StandsOn = (typeof stands)[number]

/** What lies over a container: rain reaches it, half of it does, or none. */
export const shelters = ['open sky', 'an overhang', 'a roof'] as const
export type Shelter = (typeof shelters)[number]

/** Who moves it about. */
export const movers = ['one person', 'two people', 'a sack truck', 'nobody'] as const

const screen = { transmission: 0, thicknessM: 0 }
/** By kind, what is taken for so of a feature that does not say it. Lengths in metres, of the sun let through a share. */
export const featureDefaults = {
  wall: screen,
  fence: screen,
  hedge: screen,
  container: { shape: 'round', rimHeightM: 0.4 },
  tree: { trunkRadiusM: 0.1, clearStemM: 0, crownShape: 'ellipsoid', transmissionInLeaf: 0.15 },
} as const satisfies Partial<Record<FeatureKind, object>>

/** A feature by what is said of it alone: what it is kept by is left out. */
export const withoutId = ({ kind, name, from, to, geometry, properties }: PlanFeature): PlanFeature => ({
  kind,
  name,
  from,
  to,
  geometry,
  properties,
})

/** What a plan says of a feature of any kind. */
export type FeatureProperties = z.infer<(typeof featureProperties)[FeatureKind]>

const defaultsOf: Partial<Record<FeatureKind, object>> = featureDefaults

/** What is said of a feature on the plan; it was read by the schema when it came there. */
export const propertiesOf = ({ kind, name, from, to, properties }: PlanFeature): FeatureProperties =>
  ({ ...defaultsOf[kind], ...properties, kind, name, from, to }) as FeatureProperties

/** Places are what plants can stand in. */
export const isPlace = <F extends { kind: FeatureKind }>(f: F): f is F & { kind: 'bed' | 'container' } =>
  f.kind === 'bed' || f.kind === 'container'

const shadeKinds: readonly FeatureKind[] = ['building', 'wall', 'fence', 'hedge', 'tree']

/** Whether features of a kind are obstructions of the light. */
export const castsShade = (f: { kind: FeatureKind }): boolean => shadeKinds.includes(f.kind)

export type Geometry = z.infer<typeof featureGeometry>

/** The geometry that a kind must have; kinds not named here may have any. */
export const neededGeometry = {
  bed: 'Polygon',
  container: 'Point',
  building: 'Polygon',
  wall: 'LineString',
  fence: 'LineString',
  hedge: 'LineString',
  tree: 'Point',
  tap: 'Point',
} as const satisfies Partial<Record<FeatureKind, Geometry['type']>>

/** One thing on the plan, in plan metres. */
export interface PlanFeature {
  kind: FeatureKind
  name: string
  from: IsoDate | null
  to: IsoDate | null
  geometry: Geometry
  /** Everything else the file said, defaults filled in, unknown properties as they came. */
  properties: Record<string, unknown>
}

/** A feature as it is kept: on the plan of a garden, under an id. */
export type Feature = PlanFeature & { id: string }

/** The outer ring of a polygon without the repeated corner. */
export function ringOf(g: Geometry): Ring {
  if (g.type !== 'Polygon') throw new Error(`Not a polygon: ${g.type}`)
  return g.coordinates[0]!.slice(0, -1).map((p): Point => [p[0], p[1]])
}

/** The middle of what a feature covers: of an outline its centroid, of a line a point half way along its corners. */
export function middleOf(g: Geometry): Point {
  if (g.type === 'Point') return [g.coordinates[0], g.coordinates[1]]
  if (g.type === 'Polygon') return centroid(ringOf(g))
  const half = Math.floor((g.coordinates.length - 1) / 2)
  const middle = g.coordinates[half]!
  const next = g.coordinates[half + 1] ?? middle
  return [(middle[0] + next[0]) / 2, (middle[1] + next[1]) / 2]
}
