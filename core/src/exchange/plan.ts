import { z } from 'zod'
import { isTimeZone } from '../dates/index.ts'
import { areaM2, extentOf, metresPerDegree, outlineFault, type Point } from '../geometry/index.ts'
import {
  eventFault,
  featureGeometry,
  featureKinds,
  featureProperties,
  isPlace,
  neededGeometry,
  ringOf,
  type FeatureKind,
  type FeatureProperties,
  type Geometry,
  type PlanFeature,
  type RecordedEvent,
} from '../garden/index.ts'
import { limits, unkeepable, words } from '../written/index.ts'
import { lineAndColumn, type FileProblem, type FileResult } from './problems.ts'
import { readAs } from './readAs.ts'

/** Smallest outline taken as real. */
const LEAST_AREA_M2 = 0.05

/** The `garden` member of a plan file. */
export const gardenHead = z
  .looseObject({
    version: z.literal(1),
    name: words(120),
    latitude: z.number().min(-90).max(90),
    longitude: z.number().min(-180).max(180),
    timeZone: z.string().refine(isTimeZone, 'must be an IANA time zone like Europe/London'),
    coordinates: z.enum(['local-metres', 'wgs84']),
    northDeg: z.number().min(-360).max(360).default(0),
  })
  .refine((head) => head.coordinates !== 'wgs84' || head.northDeg === 0, {
    path: ['northDeg'],
    message: 'longitudes and latitudes have north at the top: leave it out, or 0',
  })
export type GardenHead = z.infer<typeof gardenHead>

/** A plan file as it was read: every feature valid and drawn in plan metres. */
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
  const shape = readAs(featureCollection, json)
  if (!shape.success) return { ok: false, problems: problemsOf(shape.error, { file }) }
  const head = readAs(gardenHead, shape.data.garden ?? {})
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

const featureCollection = z.looseObject({
  type: z.literal('FeatureCollection'),
  garden: z.unknown(),
  features: z.array(z.unknown()).max(limits.features),
})
const rawFeature = z.looseObject({
  type: z.literal('Feature'),
  properties: z.looseObject({ kind: z.enum(featureKinds) }),
  geometry: featureGeometry,
})

type Where = Pick<FileProblem, 'file' | 'feature' | 'featureName'>

function readFeature(raw: unknown, where: Where, head: GardenHead | undefined): FileResult<PlanFeature> {
  const unfit = unkeepable(raw)
  if (unfit)
    return { ok: false, problems: [{ ...where, property: pathOf(unfit.path), message: unfit.message }] }
  const outer = readAs(rawFeature, raw)
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
  const read = readAs(featureProperties[raw.kind], raw)
  if (!read.success) return { ok: false, problems: problemsOf(read.error, where) }
  const p = read.data
  const problems: FileProblem[] = []
  const wrong = (property: string, message: string) => problems.push({ ...where, property, message })
  if (p.from && p.to && p.to <= p.from) wrong('to', `must be after from (${p.from})`)
  if ('slopeDeg' in p && p.slopeDeg && p.aspectDeg === undefined)
    wrong('aspectDeg', 'a slope needs the way it falls, degrees from north')
  const { events } = p as { events?: RecordedEvent[] }
  events?.forEach((event, i) => {
    const fault = eventFault(p.kind, event)
    if (fault) wrong(`events.${i}.action`, fault)
  })
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
  const corners = cornersOf(g)
  const far = corners.findIndex(([x, y]) => Math.max(Math.abs(x), Math.abs(y)) > limits.reachM)
  if (far >= 0)
    return problem(
      `${corners.length > 1 ? `corner ${far + 1} ` : ''}lies more than ${limits.reachM / 1000} km from the garden’s position`,
    )
  if (g.type !== 'Polygon') return []
  if (g.coordinates.length > 1) return problem('a polygon with holes is not supported; draw the parts')
  const outer = g.coordinates[0]!
  const first = outer[0]!
  const last = outer.at(-1)!
  if (first[0] !== last[0] || first[1] !== last[1])
    return problem('the ring is not closed: its last corner must repeat its first')
  const ring = ringOf(g)
  const fault = outlineFault(ring)
  if (fault) return problem(fault)
  if (areaM2(ring) < LEAST_AREA_M2) return problem('the outline encloses no area')
  const { minX, minY, maxX, maxY } = extentOf(ring)
  const across = Math.max(maxX - minX, maxY - minY)
  if (kind === 'bed' && across > limits.bedAcrossM)
    return problem(`is ${Math.round(across)} m across; a bed has at most ${limits.bedAcrossM} m`)
  return []
}

const cornersOf = (g: Geometry): Point[] =>
  (g.type === 'Point' ? [g.coordinates] : g.type === 'LineString' ? g.coordinates : g.coordinates.flat()).map(
    ([x, y]) => [x!, y!] as const,
  )

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

/** The properties of a feature go by their own names. */
const pathOf = (path: readonly PropertyKey[]) => path.filter((k) => k !== 'properties').join('.') || undefined

function problemsOf(error: z.ZodError, where: Where): FileProblem[] {
  return error.issues.map((issue) => ({
    ...where,
    property: pathOf(issue.path),
    message: issue.message,
  }))
}
