import type { IsoDate } from '../dates/index.ts'
import {
  carried,
  carriedHandles,
  corner,
  describes,
  flattened,
  innerPoint,
  isInside,
  nearestOnBoundary,
  type Affine,
  type Drawn,
  type Handle,
  type Point,
  type Ring,
} from '../geometry/index.ts'
import { limits } from '../written/index.ts'
import type { EarlierOutline } from './drawnOn.ts'
import type { PlanFeature } from './feature.ts'

type Drawable = Pick<PlanFeature, 'geometry' | 'properties'>

/** How what is drawn by an outline or a line is drawn: through its handles where it has them, else by its corners. */
export function drawnOf({ geometry: g, properties }: Drawable): Drawn | undefined {
  if (g.type === 'Point') return undefined
  const closed = g.type === 'Polygon'
  const corners = (closed ? g.coordinates[0]!.slice(0, -1) : g.coordinates).map(([x, y]): Point => [x, y])
  const kept = properties.handles as readonly Handle[] | undefined
  // The geometry is what holds: handles of an outline that was drawn anew elsewhere are those no longer.
  if (kept && describes({ handles: kept, closed }, corners)) return { handles: kept, closed }
  return { handles: corners.map(corner), closed }
}

const toMillimetre = (v: number) => Math.round(v * 1000) / 1000
const rounded = (h: Handle): Handle => ({ ...h, x: toMillimetre(h.x), y: toMillimetre(h.y) })

/** Coarsest that a curve is drawn with, metres, before it has more corners than an outline may. */
const COARSEST_M = 0.16

/** A feature drawn through handles: its outline or line as straight pieces, the handles kept with it where it bends. */
export function drawAs<F extends Drawable>(feature: F, drawn: Drawn): F {
  const handles = drawn.handles.map(rounded)
  let flatM = 0.01
  const piecesOf = () => flattened({ ...drawn, handles }, flatM)
  let pieces = piecesOf()
  for (; pieces.length > limits.corners && flatM < COARSEST_M; flatM *= 2) pieces = piecesOf()
  const points = pieces.map(([x, y]): [number, number] => [toMillimetre(x), toMillimetre(y)])
  const { handles: _, ...properties } = feature.properties
  return {
    ...feature,
    geometry: drawn.closed
      ? { type: 'Polygon', coordinates: [[...points, points[0]!]] }
      : { type: 'LineString', coordinates: points },
    properties: handles.some((h) => h.curved) ? { ...properties, handles } : properties,
  }
}

/** A feature where a map of the plane takes it. */
export function carriedFeature<F extends Drawable>(feature: F, by: Affine): F {
  const drawn = drawnOf(feature)
  if (drawn) return drawAs(feature, { ...drawn, handles: carriedHandles(drawn.handles, by) })
  const [x, y] = feature.geometry.coordinates as [number, number]
  const [toX, toY] = carried(by, [x, y])
  return {
    ...feature,
    geometry: { type: 'Point', coordinates: [toMillimetre(toX), toMillimetre(toY)] },
  }
}

/** A feature that was changed in the garden on a day: until then it is drawn as it was. */
export function changedFrom<F extends Drawable>(was: F, now: F, on: IsoDate): F {
  const before = (was.properties.earlier ?? []) as readonly EarlierOutline[]
  // What it was to be after this day, it never became.
  const earlier = [...before.filter((e) => e.until < on), { until: on, geometry: was.geometry }]
  return { ...now, properties: { ...now.properties, earlier } }
}

/** A planting set back inside stands this far from the edge, metres. */
const FROM_EDGE_M = 0.1

/** The nearest point inside an outline, a little away from its edge where it is wide enough. */
export function nearestInside(ring: Ring, p: Point): Point {
  if (isInside(ring, ...p)) return p
  const edge = nearestOnBoundary(ring, p)
  const away = Math.hypot(edge[0] - p[0], edge[1] - p[1])
  for (const further of [FROM_EDGE_M, FROM_EDGE_M / 4]) {
    const past = away < 1e-9 ? 1 : 1 + further / away
    const at: Point = [p[0] + (edge[0] - p[0]) * past, p[1] + (edge[1] - p[1]) * past]
    if (isInside(ring, ...at)) return at
  }
  return innerPoint(ring)
}

/** A planting that would stand outside its bed, and where it would stand just inside. */
export interface Strayed<P> {
  planting: P
  inside: Point
}

/** Plantings of a bed that stand outside an outline. */
export const strayedFrom = <P extends { x: number; y: number }>(
  ring: Ring,
  plantings: readonly P[],
): Strayed<P>[] =>
  plantings
    .filter((p) => !isInside(ring, p.x, p.y))
    .map((planting) => ({ planting, inside: nearestInside(ring, [planting.x, planting.y]) }))
