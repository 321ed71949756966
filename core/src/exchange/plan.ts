import { z } from 'zod'
import { soilTextures, type SoilTexture } from '../care/watering.ts'
import { isIsoDate, type IsoDate } from '../dates/index.ts'
import { areaM2, centroid, metresPerDegree, type Point, type Ring, selfCrossing } from '../geometry/index.ts'
import type { Ground, LitPlace, Obstruction, Scene } from '../light/index.ts'
import { moistureWords } from '../plants/index.ts'
import { lineAndColumn, type FileProblem, type FileResult } from './problems.ts'

/** Largest and smallest sizes taken as real, metres. */
const TALLEST_M = 120
const LEAST_AREA_M2 = 0.05

const size = (most: number) => z.number().min(0).max(most)
const share = z.number().min(0).max(1)
const day = z.string().refine(isIsoDate, 'must be a date like 2026-09-14')
const monthDay = z
  .string()
  .refine((t) => /^\d{2}-\d{2}$/.test(t) && isIsoDate(`2024-${t}`), 'must be a month and day like 04-15')

export const gardenHead = z.looseObject({
  version: z.literal(1),
  name: z.string().trim().min(1).max(120),
  latitude: z.number().min(-90).max(90),
  longitude: z.number().min(-180).max(180),
  timeZone: z.string().refine(isTimeZone, 'must be an IANA time zone like Europe/London'),
  coordinates: z.enum(['local-metres', 'wgs84']),
  northDeg: z.number().min(-360).max(360).default(0),
})
export type GardenHead = z.infer<typeof gardenHead>

/** Whether this runtime knows an IANA zone of that name. */
export function isTimeZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone })
    return true
  } catch {
    return false
  }
}

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
const kinds = {
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

export type FeatureKind = keyof typeof kinds
const featureKinds = Object.keys(kinds) as FeatureKind[]
export type FeatureProperties = z.infer<(typeof kinds)[FeatureKind]>
/** Places are what plants can stand in. */
export const isPlace = <F extends { kind: FeatureKind }>(f: F): f is F & { kind: 'bed' | 'container' } =>
  f.kind === 'bed' || f.kind === 'container'

const shadeKinds: readonly FeatureKind[] = ['building', 'wall', 'fence', 'hedge', 'tree']

export const castsShade = (f: { kind: FeatureKind }): boolean => shadeKinds.includes(f.kind)

const position = z.tuple([z.number(), z.number()]).rest(z.number())
const geometry = z.discriminatedUnion('type', [
  z.object({ type: z.literal('Point'), coordinates: position }),
  z.object({ type: z.literal('LineString'), coordinates: z.array(position).min(2) }),
  z.object({ type: z.literal('Polygon'), coordinates: z.array(z.array(position).min(4)).min(1) }),
])
export type Geometry = z.infer<typeof geometry>

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

export interface Plan {
  garden: GardenHead
  features: PlanFeature[]
}

/**
 * Reads a plan. WGS 84 coordinates become metres east and north of the garden's position.
 * A file with any problem is refused whole, with every problem named.
 */
export function readPlan(text: string, file = 'plan.geojson'): FileResult<Plan> {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch (error) {
    return { ok: false, problems: [jsonProblem(text, file, error as SyntaxError)] }
  }
  const shape = z
    .looseObject({
      type: z.literal('FeatureCollection'),
      garden: z.unknown(),
      features: z.array(z.unknown()),
    })
    .safeParse(json)
  if (!shape.success) return { ok: false, problems: problemsOf(shape.error, { file }) }
  const head = gardenHead.safeParse(shape.data.garden ?? {})
  const problems: FileProblem[] = head.success
    ? []
    : problemsOf(head.error, { file }).map((p) => ({
        ...p,
        property: `garden${p.property ? `.${p.property}` : ''}`,
      }))
  const features: PlanFeature[] = []
  shape.data.features.forEach((raw, i) => {
    const read = readFeature(
      raw,
      { file, feature: i + 1, ...nameOf(raw) },
      head.success ? head.data : undefined,
    )
    if (read.ok) features.push(read.value)
    else problems.push(...read.problems)
  })
  problems.push(...repeatedNames(features, file))
  if (!head.success || problems.length > 0) return { ok: false, problems }
  return { ok: true, value: { garden: head.data, features } }
}

/** V8 says where JSON breaks as an offset; an abrupt end is the end of the text. */
function jsonProblem(text: string, file: string, error: SyntaxError): FileProblem {
  const offset = Number(/position (\d+)/.exec(error.message)?.[1] ?? text.length)
  return {
    file,
    ...lineAndColumn(text, offset),
    message: `not valid JSON (${error.message.replace(/ in JSON at position \d+.*| \(line.*/s, '')})`,
  }
}

function nameOf(raw: unknown): { featureName?: string } {
  const name = (raw as { properties?: { name?: unknown } } | null)?.properties?.name
  return typeof name === 'string' ? { featureName: name } : {}
}

const rawFeature = z.looseObject({
  type: z.literal('Feature'),
  properties: z.looseObject({ kind: z.enum(featureKinds as [FeatureKind, ...FeatureKind[]]) }),
  geometry,
})

type Where = Pick<FileProblem, 'file' | 'feature' | 'featureName'>

function readFeature(raw: unknown, where: Where, head: GardenHead | undefined): FileResult<PlanFeature> {
  const outer = rawFeature.safeParse(raw)
  if (!outer.success) return { ok: false, problems: problemsOf(outer.error, where) }
  const inner = checkProperties(outer.data.properties, where)
  if (!inner.ok) return inner
  const { kind } = inner.value
  const local = head ? toLocal(outer.data.geometry, head) : outer.data.geometry
  const problems = geometryProblems(kind, local, where)
  if (problems.length > 0) return { ok: false, problems }
  const { name, from, to, kind: _, ...properties } = inner.value
  return { ok: true, value: { kind, name, from: from ?? null, to: to ?? null, geometry: local, properties } }
}

/** A feature made by hand on a screen, checked by the same rules as one from a file. */
export function checkFeature(feature: unknown): FileResult<PlanFeature> {
  return readFeature(feature, { file: 'feature', feature: 1 }, undefined)
}

function checkProperties(raw: { kind: FeatureKind }, where: Where): FileResult<FeatureProperties> {
  const read = kinds[raw.kind].safeParse(raw)
  if (!read.success) return { ok: false, problems: problemsOf(read.error, where) }
  const p = read.data
  const problems: FileProblem[] = []
  const wrong = (property: string, message: string) => problems.push({ ...where, property, message })
  if (p.from && p.to && p.to <= p.from) wrong('to', `must be after from (${p.from})`)
  if ('slopeDeg' in p && p.slopeDeg && p.aspectDeg === undefined)
    wrong('aspectDeg', 'a slope needs the way it falls, degrees from north')
  if (p.kind === 'tree') {
    if (p.clearStemM >= p.heightM) wrong('clearStemM', `must be below heightM (${p.heightM})`)
    if (!p.leafFrom !== !p.leafTo) wrong('leafFrom', 'leafFrom and leafTo come together')
    if (p.growth && p.growth.matureHeightM < p.heightM)
      wrong('growth.matureHeightM', 'must not be below heightM')
  }
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: p }
}

function geometryProblems(kind: FeatureKind, g: Geometry, where: Where): FileProblem[] {
  const problem = (message: string): FileProblem[] => [{ ...where, property: 'geometry', message }]
  const type = (neededGeometry as Partial<Record<FeatureKind, Geometry['type']>>)[kind]
  if (type && g.type !== type) return problem(`a ${kind} is a ${type}, not a ${g.type}`)
  if (g.type !== 'Polygon') return []
  if (g.coordinates.length > 1) return problem('a polygon with holes is not supported; draw the parts')
  const outer = g.coordinates[0]!
  const first = outer[0]!
  const last = outer.at(-1)!
  if (first[0] !== last[0] || first[1] !== last[1])
    return problem('the ring is not closed: its last corner must repeat its first')
  const ring = ringOf(g)
  const crossed = selfCrossing(ring)
  if (crossed)
    return problem(`the outline crosses itself: edges from corners ${crossed[0] + 1} and ${crossed[1] + 1}`)
  if (areaM2(ring) < LEAST_AREA_M2) return problem('the outline encloses no area')
  return []
}

/** Plantings name their place, so places of one garden have names of their own. */
function repeatedNames(features: readonly PlanFeature[], file: string): FileProblem[] {
  const seen = new Set<string>()
  return features.flatMap((f, i) => {
    if (!isPlace(f)) return []
    const key = f.name.toLowerCase()
    if (!seen.has(key)) {
      seen.add(key)
      return []
    }
    return [
      { file, feature: i + 1, featureName: f.name, property: 'name', message: 'another place has this name' },
    ]
  })
}

/** A position in the file's own coordinates as plan metres: WGS 84 becomes metres east and north of the garden's position. */
export function planMetres(
  head: Pick<GardenHead, 'latitude' | 'longitude' | 'coordinates'>,
  p: readonly number[],
): [number, number] {
  if (head.coordinates === 'local-metres') return [p[0]!, p[1]!]
  const scale = metresPerDegree(head.latitude)
  return [(p[0]! - head.longitude) * scale.lon, (p[1]! - head.latitude) * scale.lat]
}

function toLocal(g: Geometry, head: GardenHead): Geometry {
  const move = (p: readonly number[]) => planMetres(head, p)
  if (g.type === 'Point') return { type: 'Point', coordinates: move(g.coordinates) }
  if (g.type === 'LineString') return { type: 'LineString', coordinates: g.coordinates.map(move) }
  return { type: 'Polygon', coordinates: g.coordinates.map((ring) => ring.map(move)) }
}

function problemsOf(error: z.ZodError, where: Where): FileProblem[] {
  return error.issues.map((issue) => ({
    ...where,
    property: issue.path.filter((k) => k !== 'properties').join('.') || undefined,
    message: issueWords(issue),
  }))
}

function issueWords(issue: z.core.$ZodIssue): string {
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined && /undefined/.test(issue.message)
        ? 'is missing'
        : `must be ${issue.expected}`
    case 'invalid_value':
      return `must be one of: ${issue.values.join(', ')}`
    case 'too_big':
      return `must be at most ${issue.maximum}`
    case 'too_small':
      return `must be at least ${issue.minimum}`
    default:
      return issue.message
  }
}

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

/** Moisture of a place on the scale 1 dry to 5 wet; null where nobody has said. */
export function placeMoisture(f: Pick<PlanFeature, 'properties'> | undefined): number | null {
  const at = moistureWords.findIndex((w) => w === f?.properties.moisture)
  return at < 0 ? null : at + 1
}

/** Texture of a bed's soil; undefined where nobody has said. */
export const placeTexture = (f: Pick<PlanFeature, 'properties'> | undefined): SoilTexture | undefined =>
  soilTextures.find((t) => t === f?.properties.soilTexture)

/** A feature as something that casts shade; undefined for places, paths and the like. */
export function obstructionOf(f: PlanFeature & { id: string }): Obstruction | undefined {
  const { id, name, from, to, geometry: g } = f
  const read = kinds[f.kind].parse({ ...f.properties, kind: f.kind, name, from, to })
  const common = { id, name, from, to }
  switch (read.kind) {
    case 'building': {
      const over = read.overhang
      return {
        ...common,
        kind: 'building',
        ring: ringOf(g),
        heightM: read.heightM,
        overhang: typeof over === 'number' ? { depthM: over, heightM: read.heightM } : (over ?? null),
        events: read.events ?? [],
      }
    }
    case 'wall':
    case 'fence':
    case 'hedge':
      return {
        ...common,
        kind: read.kind,
        line: g.type === 'LineString' ? g.coordinates.map((p): Point => [p[0], p[1]]) : [],
        heightM: read.heightM,
        transmission: read.transmission,
        thicknessM: read.thicknessM,
        events: read.events ?? [],
        growth: read.growth ?? null,
      }
    case 'tree': {
      const at = g.type === 'Point' ? g.coordinates : [0, 0]
      return {
        ...common,
        kind: 'tree',
        x: at[0]!,
        y: at[1]!,
        trunkRadiusM: read.trunkRadiusM,
        clearStemM: read.clearStemM,
        heightM: read.heightM,
        crownRadiusM: read.crownRadiusM,
        crownShape: read.crownShape,
        transmissionInLeaf: read.transmissionInLeaf,
        transmissionBare: read.transmissionBare ?? (read.leafFrom ? 0.6 : read.transmissionInLeaf),
        leafFrom: read.leafFrom ?? null,
        leafTo: read.leafTo ?? null,
        events: read.events ?? [],
        growth: read.growth ?? null,
      }
    }
    default:
      return undefined
  }
}

/** What casts shade on a garden, placed on Earth: the plan as the light sees it. */
export function sceneOf(
  garden: Pick<GardenHead, 'latitude' | 'longitude' | 'northDeg'>,
  features: readonly (PlanFeature & { id: string })[],
): Scene {
  return {
    latitudeDeg: garden.latitude,
    longitudeDeg: garden.longitude,
    northDeg: garden.northDeg,
    obstructions: features.map(obstructionOf).filter((o): o is Obstruction => o !== undefined),
  }
}

const USUAL_POT_M = 0.4

/** Radius of the largest round that a container's inner opening holds, metres. */
export function containerRadiusM(f: PlanFeature): number {
  const p = f.properties as { diameterM?: number; widthM?: number; lengthM?: number }
  return (p.diameterM ?? Math.min(p.widthM ?? USUAL_POT_M, p.lengthM ?? USUAL_POT_M)) / 2
}

/** Ground, or mix, of a place, square metres. */
export const placeAreaM2 = (f: PlanFeature): number =>
  f.kind === 'container' ? Math.PI * containerRadiusM(f) ** 2 : areaM2(ringOf(f.geometry))

/** Height of the surface that plants of a place grow in: a container's rim, the ground in a bed. */
export const surfaceHeightM = (f: PlanFeature): number =>
  f.kind === 'container' ? ((f.properties.rimHeightM as number | undefined) ?? USUAL_POT_M) : 0

/** The lie of a place's ground; null when it is level. */
export function groundOfPlace(f: PlanFeature): Ground | null {
  const { slopeDeg, aspectDeg } = f.properties as Partial<Ground>
  return slopeDeg ? { slopeDeg, aspectDeg: aspectDeg ?? 180 } : null
}

/** A bed or container as the light sees it; undefined for anything else. */
export function litPlaceOf(f: PlanFeature & { id: string }): LitPlace | undefined {
  const ground = groundOfPlace(f)
  if (f.kind === 'bed') return { id: f.id, kind: 'bed', ring: ringOf(f.geometry), ground }
  if (f.kind !== 'container' || f.geometry.type !== 'Point') return undefined
  const [x, y] = f.geometry.coordinates
  return { id: f.id, kind: 'container', x, y, rimHeightM: surfaceHeightM(f), ground }
}
