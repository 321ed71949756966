import earcut from 'earcut'
import Flatbush from 'flatbush'
import { orient2d } from 'robust-predicates'

/** Plane geometry in plan metres. Rings are open: the last corner is not a repeat of the first. */
export type Point = readonly [x: number, y: number]
/** Corners in order, plan metres; the last joins the first, which is not repeated. */
export type Ring = readonly Point[]

/** Signed area in square metres, positive for counter-clockwise corners. */
export function signedArea(ring: Ring): number {
  let twice = 0
  for (let i = 0; i < ring.length; i++) {
    const a = ring[i]!
    const b = ring[(i + 1) % ring.length]!
    twice += a[0] * b[1] - b[0] * a[1]
  }
  return twice / 2
}

/** Square metres inside a ring that does not cross itself, whichever way round. */
export const areaM2 = (ring: Ring): number => Math.abs(signedArea(ring))

/** Centroid of area; the mean corner for a ring without area. */
export function centroid(ring: Ring): Point {
  const area = signedArea(ring)
  if (Math.abs(area) < 1e-9) {
    const n = ring.length
    return [ring.reduce((s, p) => s + p[0], 0) / n, ring.reduce((s, p) => s + p[1], 0) / n]
  }
  let x = 0
  let y = 0
  for (let i = 0; i < ring.length; i++) {
    const a = ring[i]!
    const b = ring[(i + 1) % ring.length]!
    const cross = a[0] * b[1] - b[0] * a[1]
    x += (a[0] + b[0]) * cross
    y += (a[1] + b[1]) * cross
  }
  return [x / (6 * area), y / (6 * area)]
}

/** Even-odd test; points on the boundary may fall either way. */
export function isInside(ring: Ring, x: number, y: number): boolean {
  let inside = false
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const a = ring[i]!
    const b = ring[j]!
    if (a[1] > y !== b[1] > y && x < ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]) + a[0]) inside = !inside
  }
  return inside
}

/** How far along the segment from `a` to `b` its point nearest to another lies, 0 to 1. */
function shareAlong(x: number, y: number, a: Point, b: Point): number {
  const dx = b[0] - a[0]
  const dy = b[1] - a[1]
  const length2 = dx * dx + dy * dy
  return length2 === 0 ? 0 : Math.max(0, Math.min(1, ((x - a[0]) * dx + (y - a[1]) * dy) / length2))
}

/** The point of the segment from `a` to `b` that lies nearest. */
export function nearestOnSegment([x, y]: Point, a: Point, b: Point): Point {
  const t = shareAlong(x, y, a, b)
  return [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])]
}

/** Metres from a point to the nearest of the segment from `a` to `b`. */
export function distanceToSegment(x: number, y: number, a: Point, b: Point): number {
  const t = shareAlong(x, y, a, b)
  return Math.hypot(x - a[0] - t * (b[0] - a[0]), y - a[1] - t * (b[1] - a[1]))
}

/** Metres from a point along a way, a unit vector, to where it meets a segment; undefined when it does not. Half-open at corners. */
export function metresToCrossing(
  x: number,
  y: number,
  { ux, uy }: { ux: number; uy: number },
  a: Point,
  b: Point,
): number | undefined {
  const sideA = ux * (a[1] - y) - uy * (a[0] - x)
  const sideB = ux * (b[1] - y) - uy * (b[0] - x)
  if (sideA > 0 === sideB > 0) return undefined
  const t = sideA / (sideA - sideB)
  return ux * (a[0] + t * (b[0] - a[0]) - x) + uy * (a[1] + t * (b[1] - a[1]) - y)
}

/** The point of a ring's boundary that lies nearest. */
export function nearestOnBoundary(ring: Ring, p: Point): Point {
  return ring
    .map((a, i) => nearestOnSegment(p, a, ring[(i + 1) % ring.length]!))
    .reduce((best, q) =>
      Math.hypot(q[0] - p[0], q[1] - p[1]) < Math.hypot(best[0] - p[0], best[1] - p[1]) ? q : best,
    )
}

/** Distance to the ring's boundary in metres, from either side. */
export function distanceToBoundary(ring: Ring, x: number, y: number): number {
  let best = Infinity
  for (let i = 0; i < ring.length; i++)
    best = Math.min(best, distanceToSegment(x, y, ring[i]!, ring[(i + 1) % ring.length]!))
  return best
}

/** An upright box on the plan, metres. */
export interface Extent {
  minX: number
  minY: number
  maxX: number
  maxY: number
}

/** Bounding box of any number of points; all zero when there are none. */
export function extentOf(points: Iterable<Point>): Extent {
  let found = false
  const e = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity }
  for (const [x, y] of points) {
    found = true
    e.minX = Math.min(e.minX, x)
    e.minY = Math.min(e.minY, y)
    e.maxX = Math.max(e.maxX, x)
    e.maxY = Math.max(e.maxY, y)
  }
  return found ? e : { minX: 0, minY: 0, maxX: 0, maxY: 0 }
}

/** A point inside an outline: its middle where that lies in it, else the middle of its largest part by triangles. */
export function innerPoint(ring: Ring): Point {
  const middle = centroid(ring)
  if (isInside(ring, ...middle)) return middle
  const corners = earcut(ring.flat())
  const triangles = Array.from({ length: corners.length / 3 }, (_, k) =>
    [0, 1, 2].map((i) => ring[corners[3 * k + i]!]!),
  )
  const largest = triangles.reduce((a, b) => (areaM2(b) > areaM2(a) ? b : a))
  return centroid(largest)
}

type Box = readonly [minX: number, minY: number, maxX: number, maxY: number]

/**
 * The first two of these that meet, by number: those alone are held against each other whose boxes a tree of boxes finds to overlap.
 *
 * @param meet is asked of each pair whose boxes overlap
 */
function firstMeeting(
  boxes: readonly Box[],
  meet: (i: number, j: number) => boolean,
): readonly [number, number] | undefined {
  if (boxes.length < 2) return undefined
  const tree = new Flatbush(boxes.length)
  for (const box of boxes) tree.add(...box)
  tree.finish()
  for (const [i, box] of boxes.entries()) {
    const j = Math.min(...tree.search(...box, (other) => other > i && meet(i, other)))
    if (j < Infinity) return [i, j]
  }
  return undefined
}

/** Corner numbers, from 0, of the first two edges that share a point other than the corner between them; undefined for a simple ring. */
export function crossingEdges(ring: Ring): readonly [number, number] | undefined {
  const n = ring.length
  // Flat, for the pairs of a long spiral are half a million. The first corner once more at the end: edge i goes from i to i + 1.
  const x = Float64Array.from({ length: n + 1 }, (_, i) => ring[i % n]![0])
  const y = Float64Array.from({ length: n + 1 }, (_, i) => ring[i % n]![1])
  /** Whether both ends of edge j lie on one side of the line through edge i, exactly. */
  const isBeside = (i: number, j: number) => {
    const from = orient2d(x[i]!, y[i]!, x[i + 1]!, y[i + 1]!, x[j]!, y[j]!)
    if (from === 0) return false
    const to = orient2d(x[i]!, y[i]!, x[i + 1]!, y[i + 1]!, x[j + 1]!, y[j + 1]!)
    return from > 0 ? to > 0 : to < 0
  }
  const boxes = ring.map((_, i): Box => [
    Math.min(x[i]!, x[i + 1]!),
    Math.min(y[i]!, y[i + 1]!),
    Math.max(x[i]!, x[i + 1]!),
    Math.max(y[i]!, y[i + 1]!),
  ])
  // Edges on one line meet where their boxes do.
  return firstMeeting(boxes, (i, j) => j - i !== 1 && j - i !== n - 1 && !isBeside(i, j) && !isBeside(j, i))
}

/** Corners nearer than this, metres, are one. */
const SAME_CORNER_M = 0.001

/** The first two corners that are one point, by number from 0. */
export const sameCorners = (ring: Ring): readonly [number, number] | undefined =>
  firstMeeting(
    ring.map(([x, y]): Box => [x, y, x + SAME_CORNER_M, y + SAME_CORNER_M]),
    (i, j) => Math.hypot(ring[i]![0] - ring[j]![0], ring[i]![1] - ring[j]![1]) < SAME_CORNER_M,
  )

/** What is wrong with an outline, by its corners as a person counts them, from 1; undefined for a simple ring. */
export function outlineFault(ring: Ring): string | undefined {
  const same = sameCorners(ring)
  if (same) return `corners ${same[0] + 1} and ${same[1] + 1} are the same point: leave one of them out`
  const crossed = crossingEdges(ring)
  return crossed && `the outline crosses itself: edges from corners ${crossed[0] + 1} and ${crossed[1] + 1}`
}

/**
 * Metres per degree of latitude and longitude on the WGS 84 ellipsoid at a latitude.
 * Source: series for the meridian and parallel radii (Snyder 1987, Map Projections, p. 25).
 */
export function metresPerDegree(latitudeDeg: number): { lat: number; lon: number } {
  const phi = (latitudeDeg * Math.PI) / 180
  return {
    lat: 111_132.954 - 559.822 * Math.cos(2 * phi) + 1.175 * Math.cos(4 * phi),
    lon: 111_412.84 * Math.cos(phi) - 93.5 * Math.cos(3 * phi) + 0.118 * Math.cos(5 * phi),
  }
}
