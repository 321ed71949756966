import { z } from 'zod'
import { isIsoDate } from '../dates/index.ts'
import { day, limits, remark, words } from '../written/index.ts'
import { shelters, featureDefaults, movers, potShapes, stands, type FeatureKind } from './feature.ts'
import { soilTextures } from './soil.ts'
import { windExposures } from './wind.ts'

/** Largest size taken as real, metres. */
const TALLEST_M = 120

/** A size that nothing can do without. */
const someSize = (most: number) => z.number().min(0.01, 'must be 1 cm at least').max(most)
const size = (most: number) => z.number().min(0).max(most)
const share = z.number().min(0).max(1)
/** A day of any year, `MM-DD`. */
const monthDayWords = 'must be a month and day like 04-15'
/** A day of any year, MM-DD; 29 February is one. */
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
/** An event as it is recorded of something that casts shade. */
export type RecordedEvent = z.infer<typeof event>

/** Why an event is none of a thing of this kind, for it would change nothing of it; undefined where it is one. */
export function eventFault(kind: FeatureKind, recorded: RecordedEvent): string | undefined {
  if (recorded.action === 'limbed' && kind !== 'tree') return 'only a tree can be limbed up'
  if (recorded.action === 'thinned' && kind !== 'tree' && kind !== 'hedge')
    return 'only a tree or a hedge can be thinned'
  if (recorded.action === 'measured' && recorded.crownRadiusM !== undefined && kind !== 'tree')
    return 'only a tree has a crown to be measured'
  return undefined
}

const growth = z.object({
  measuredOn: day,
  matureHeightM: size(TALLEST_M),
  matureCrownRadiusM: size(40).optional(),
  yearsToMature: z.number().min(1).max(200),
})

const handle = z.object({ x: z.number(), y: z.number(), curved: z.boolean() })
const lifeline = {
  name: words(120),
  from: day.nullish(),
  to: day.nullish(),
  note: remark(2000).optional(),
  /** What a curved outline is drawn through; without curves its corners say it. */
  handles: z.array(handle).max(limits.corners).optional(),
  /** How far a size may be out, metres, one standard error: of those that were measured so. */
  standardErrors: z.record(words(40), size(TALLEST_M)).optional(),
}
/** Outlines from before it was changed in the garden, oldest first, each until its day. */
const outlines = {
  earlier: z
    .array(z.object({ until: day, geometry: z.lazy(() => featureGeometry) }))
    .max(200)
    .optional(),
}
const screen = {
  ...lifeline,
  heightM: size(TALLEST_M),
  transmission: share.default(featureDefaults.wall.transmission),
  thicknessM: size(10).default(featureDefaults.wall.thicknessM),
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
    ...outlines,
    soilTexture: z.enum(soilTextures).optional(),
    ph: z.number().min(3).max(10).optional(),
    moisture: z.enum(['dry', 'dryish', 'fresh', 'moist', 'wet']).optional(),
    drainage: z.enum(['poor', 'fair', 'good']).optional(),
    wind: z.enum(windExposures).optional(),
    viewedFrom: z.array(bearing).optional(),
    irrigation: z.enum(['none', 'drip', 'spray', 'hand']).optional(),
    ...lie,
  }),
  container: z.looseObject({
    kind: z.literal('container'),
    ...lifeline,
    ...outlines,
    shape: z.enum(potShapes).default(featureDefaults.container.shape),
    diameterM: someSize(5).optional(),
    widthM: someSize(5).optional(),
    lengthM: someSize(10).optional(),
    rimHeightM: size(3).default(featureDefaults.container.rimHeightM),
    material: remark(60).optional(),
    /** Inner width at the floor of what tapers. */
    footM: someSize(5).optional(),
    /** From the rim to the floor, inside. */
    depthM: z.number().min(0.05, 'must be 5 cm at least').max(3).optional(),
    wallM: z.number().min(0).max(0.5).optional(),
    holes: z.number().int().min(0).max(100).optional(),
    feet: z.boolean().optional(),
    saucer: z.boolean().optional(),
    /** Litres of water that it keeps below the mix. */
    reservoirL: z.number().min(0).max(500).optional(),
    standsOn: z.enum(stands).optional(),
    /** Height above the ground of what it stands on, or of its floor where it hangs. */
    standsM: size(3).optional(),
    facingDeg: bearing.optional(),
    movedBy: z.enum(movers).optional(),
    /** What lies over it, where that is no eaves of a building on the plan. */
    cover: z.enum(shelters).optional(),
    ...lie,
  }),
  building: z.looseObject({
    kind: z.literal('building'),
    ...lifeline,
    heightM: size(TALLEST_M),
    overhang: z.union([size(10), z.object({ depthM: size(10), heightM: size(TALLEST_M) })]).optional(),
    /** Its lowest windows begin so high above the ground: nothing before them should stand taller. */
    sillM: size(TALLEST_M).optional(),
    events: z.array(event).optional(),
  }),
  wall: z.looseObject({ kind: z.literal('wall'), ...screen }),
  fence: z.looseObject({ kind: z.literal('fence'), ...screen }),
  hedge: z.looseObject({ kind: z.literal('hedge'), ...screen }),
  tree: z.looseObject({
    kind: z.literal('tree'),
    ...lifeline,
    trunkRadiusM: size(5).default(featureDefaults.tree.trunkRadiusM),
    clearStemM: size(TALLEST_M).default(featureDefaults.tree.clearStemM),
    heightM: size(TALLEST_M),
    crownRadiusM: size(40),
    crownShape: z.enum(['ellipsoid', 'cone', 'column']).default(featureDefaults.tree.crownShape),
    transmissionInLeaf: share.default(featureDefaults.tree.transmissionInLeaf),
    transmissionBare: share.optional(),
    leafFrom: monthDay.optional(),
    leafTo: monthDay.optional(),
    events: z.array(event).optional(),
    growth: growth.optional(),
    health: health.optional(),
  }),
  hazard: z.looseObject({ kind: z.literal('hazard'), ...lifeline, ...outlines }),
  path: z.looseObject({ kind: z.literal('path'), ...lifeline, ...outlines }),
  water: z.looseObject({ kind: z.literal('water'), ...lifeline, ...outlines }),
  tap: z.looseObject({
    kind: z.literal('tap'),
    ...lifeline,
    ...outlines,
    /** What it gives, litres an hour. */
    litresPerHour: z.number().min(10).max(10_000).optional(),
  }),
  viewpoint: z.looseObject({ kind: z.literal('viewpoint'), ...lifeline, ...outlines }),
} as const satisfies Record<FeatureKind, z.ZodType>

const position = z.tuple([z.number(), z.number()]).rest(z.number())
/** Positions along a line or around an outline; counted before they are looked at. */
const positions = (least: number, most: number) =>
  z.array(z.unknown()).min(least).max(most, `has more than ${limits.corners} corners`).pipe(z.array(position))
/** Where a feature is: plan metres, x to the plan’s right, y up. */
export const featureGeometry = z.discriminatedUnion('type', [
  z.object({ type: z.literal('Point'), coordinates: position }),
  z.object({ type: z.literal('LineString'), coordinates: positions(2, limits.corners) }),
  // The last corner of a ring repeats the first.
  z.object({
    type: z.literal('Polygon'),
    coordinates: z
      .array(positions(4, limits.corners + 1))
      .min(1)
      .max(100),
  }),
])
