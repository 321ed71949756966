import { z } from 'zod'
import { isIsoDate, type IsoDate } from '../dates/index.ts'
import { centroid, type Point, type Ring } from '../geometry/index.ts'
import { soilTextures } from './soil.ts'

/** Largest size taken as real, metres. */
const TALLEST_M = 120

const size = (most: number) => z.number().min(0).max(most)
const share = z.number().min(0).max(1)
const day = z.string().refine(isIsoDate, 'must be a date like 2026-09-14')
/** A day of any year, `MM-DD`. */
const monthDayWords = 'must be a month and day like 04-15'
export const monthDay = z
  .string(monthDayWords)
  .refine((t) => /^\d{2}-\d{2}$/.test(t) && isIsoDate(`2024-${t}`), monthDayWords)

const event = z.discriminatedUnion('action', [
  z.object({ date: day, action: z.literal('limbed'), clearStemM: size(TALLEST_M) }),
  z.object({ date: day, action: z.literal('thinned'), fraction: share }),
  z.object({ date: day, action: z.literal('lowered'), heightM: size(TALLEST_M) }),
  z.object({
    date: day,
    action: z.literal('measured'),
    heightM: size(TALLEST_M),
    crownRadiusM: size(40).optional(),
  }),
])
const growth = z.object({
  measuredOn: day,
  matureHeightM: size(TALLEST_M),
  matureCrownRadiusM: size(40).optional(),
  yearsToMature: z.number().min(1).max(200),
})

const lifeline = {
  name: z.string().trim().min(1).max(120),
  from: day.nullish(),
  to: day.nullish(),
  note: z.string().max(2000).optional(),
}
const screen = {
  ...lifeline,
  heightM: size(TALLEST_M),
  transmission: share.default(0),
  thicknessM: size(10).default(0),
  events: z.array(event).optional(),
  growth: growth.optional(),
}
const bearing = z.number().min(0).max(360)
/** Lie of the ground of a place; a slope needs the way it falls. */
const lie = { slopeDeg: z.number().min(0).max(60).optional(), aspectDeg: bearing.optional() }
const health = z.enum(['good', 'fair', 'poor', 'failing'])

/** Properties by kind. Unknown properties are kept. */
export const featureProperties = {
  bed: z.looseObject({
    kind: z.literal('bed'),
    ...lifeline,
    soilTexture: z.enum(soilTextures).optional(),
    ph: z.number().min(3).max(10).optional(),
    moisture: z.enum(['dry', 'dryish', 'fresh', 'moist', 'wet']).optional(),
    drainage: z.enum(['poor', 'fair', 'good']).optional(),
    wind: z.enum(['sheltered', 'open', 'exposed']).optional(),
    viewedFrom: z.array(bearing).optional(),
    irrigation: z.enum(['none', 'drip', 'spray', 'hand']).optional(),
    ...lie,
  }),
  container: z.looseObject({
    kind: z.literal('container'),
    ...lifeline,
    shape: z.enum(['box', 'round', 'tapered', 'bowl', 'half round']).default('round'),
    diameterM: size(5).optional(),
    widthM: size(5).optional(),
    lengthM: size(10).optional(),
    rimHeightM: size(3).default(0.4),
    material: z.string().max(60).optional(),
    ...lie,
  }),
  building: z.looseObject({
    kind: z.literal('building'),
    ...lifeline,
    heightM: size(TALLEST_M),
    overhang: z.union([size(10), z.object({ depthM: size(10), heightM: size(TALLEST_M) })]).optional(),
    events: z.array(event).optional(),
  }),
  wall: z.looseObject({ kind: z.literal('wall'), ...screen }),
  fence: z.looseObject({ kind: z.literal('fence'), ...screen }),
  hedge: z.looseObject({ kind: z.literal('hedge'), ...screen }),
  tree: z.looseObject({
    kind: z.literal('tree'),
    ...lifeline,
    trunkRadiusM: size(5).default(0.1),
    clearStemM: size(TALLEST_M).default(0),
    heightM: size(TALLEST_M),
    crownRadiusM: size(40),
    crownShape: z.enum(['ellipsoid', 'cone', 'column']).default('ellipsoid'),
    transmissionInLeaf: share.default(0.15),
    transmissionBare: share.optional(),
    leafFrom: monthDay.optional(),
    leafTo: monthDay.optional(),
    events: z.array(event).optional(),
    growth: growth.optional(),
    health: health.optional(),
  }),
  hazard: z.looseObject({ kind: z.literal('hazard'), ...lifeline }),
  path: z.looseObject({ kind: z.literal('path'), ...lifeline }),
  water: z.looseObject({ kind: z.literal('water'), ...lifeline }),
  viewpoint: z.looseObject({ kind: z.literal('viewpoint'), ...lifeline }),
} as const

export type FeatureKind = keyof typeof featureProperties
export const featureKinds = Object.keys(featureProperties) as FeatureKind[]
export type FeatureProperties = z.infer<(typeof featureProperties)[FeatureKind]>
/** Places are what plants can stand in. */
export const isPlace = <F extends { kind: FeatureKind }>(f: F): f is F & { kind: 'bed' | 'container' } =>
  f.kind === 'bed' || f.kind === 'container'

const shadeKinds: readonly FeatureKind[] = ['building', 'wall', 'fence', 'hedge', 'tree']

export const castsShade = (f: { kind: FeatureKind }): boolean => shadeKinds.includes(f.kind)

const position = z.tuple([z.number(), z.number()]).rest(z.number())
export const featureGeometry = z.discriminatedUnion('type', [
  z.object({ type: z.literal('Point'), coordinates: position }),
  z.object({ type: z.literal('LineString'), coordinates: z.array(position).min(2) }),
  z.object({ type: z.literal('Polygon'), coordinates: z.array(z.array(position).min(4)).min(1) }),
])
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
