import { carried, type Affine } from './affine.ts'
import { centroid, crossingEdges, nearestOnSegment, sameCorners, type Point, type Ring } from './ring.ts'

/** A point that an outline or a line is drawn through, plan metres: a corner, or one through which it bends smoothly. */
export interface Handle {
  x: number
  y: number
  curved: boolean
}

/** What is drawn by hand: handles in order; closed, the last leads back to the first. */
export interface Drawn {
  handles: readonly Handle[]
  closed: boolean
}

/** A curve is drawn as corners this near to it, metres. */
export const FLAT_M = 0.01
/** Halvings of a stretch of curve at most: 64 pieces. */
const DEEPEST = 6

export const pointOf = ({ x, y }: Handle): Point => [x, y]
export const corner = ([x, y]: Point): Handle => ({ x, y, curved: false })

const between = (a: Point, b: Point, t: number): Point => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]
const apart = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1])
/** What lies as far beyond `a` as `b` lies before it. */
const beyond = (a: Point, b: Point): Point => [2 * a[0] - b[0], 2 * a[1] - b[1]]

/**
 * A stretch of the centripetal Catmull-Rom curve from `p1` to `p2`, by the pyramid of Barry and Goldman 1988 with knots that are the
 * square roots of the distances apart (Yuksel, Schaefer and Keyser 2011): it passes through its points and never loops between two.
 */
function stretch(p0: Point, p1: Point, p2: Point, p3: Point): (t: number) => Point {
  const knot = (a: Point, b: Point) => Math.max(1e-6, Math.sqrt(apart(a, b)))
  const t1 = knot(p0, p1)
  const t2 = t1 + knot(p1, p2)
  const t3 = t2 + knot(p2, p3)
  return (share) => {
    const t = t1 + share * (t2 - t1)
    const a1 = between(p0, p1, t / t1)
    const a2 = between(p1, p2, (t - t1) / (t2 - t1))
    const a3 = between(p2, p3, (t - t2) / (t3 - t2))
    return between(between(a1, a2, t / t2), between(a2, a3, (t - t1) / (t3 - t1)), (t - t1) / (t2 - t1))
  }
}

/** How far a point lies from a straight stretch, metres. */
function off(p: Point, a: Point, b: Point): number {
  return apart(p, nearestOnSegment(p, a, b))
}

/** Points of a curve after its start, up to and with its end, near enough to it that straight pieces will do. */
function flatCurve(at: (t: number) => Point, start: Point, end: Point, flatM: number): Point[] {
  const found: Point[] = []
  const go = (from: number, a: Point, to: number, b: Point, depth: number) => {
    const quarter = (to - from) / 4
    const probes = [1, 2, 3].map((k) => at(from + k * quarter))
    if (depth === 0 || probes.every((p) => off(p, a, b) <= flatM)) {
      found.push(b)
      return
    }
    go(from, a, from + 2 * quarter, probes[1]!, depth - 1)
    go(from + 2 * quarter, probes[1]!, to, b, depth - 1)
  }
  go(0, start, 1, end, DEEPEST)
  return found
}

/**
 * What is drawn as straight pieces, as area, edge and light take it.
 *
 * @param flatM how far a piece may lie from the curve, metres
 * @returns its corners, and of which handle's stretch each is
 */
export function flattenedWithSource(
  { handles, closed }: Drawn,
  flatM = FLAT_M,
): { points: Point[]; of: number[] } {
  const n = handles.length
  const points = handles.slice(0, 1).map(pointOf)
  const of = points.map(() => 0)
  const stretches = closed && n > 2 ? n : n - 1
  for (let i = 0; i < stretches; i++) {
    const [from, to] = [handles[i]!, handles[(i + 1) % n]!]
    const piece =
      from.curved || to.curved
        ? flatCurve(stretchFrom(handles, closed, i), pointOf(from), pointOf(to), flatM)
        : [pointOf(to)]
    points.push(...piece)
    of.push(...piece.map((_, k) => (k < piece.length - 1 ? i : (i + 1) % n)))
  }
  // A closed outline came back to where it began.
  return stretches === n ? { points: points.slice(0, -1), of: of.slice(0, -1) } : { points, of }
}

/** What is drawn as straight pieces. */
export const flattened = (drawn: Drawn, flatM = FLAT_M): Point[] => flattenedWithSource(drawn, flatM).points

/** A point on the other side of the middle between two others. */
function mirrored(p: Point | undefined, a: Point, b: Point): Point | undefined {
  const length = apart(a, b)
  if (!p || length < 1e-9) return undefined
  const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length]
  const past = (p[0] - (a[0] + b[0]) / 2) * ux + (p[1] - (a[1] + b[1]) / 2) * uy
  return [p[0] - 2 * past * ux, p[1] - 2 * past * uy]
}

/** The curve from one handle to the next; from a corner it bends as it does further on, so that an arc stays one to its end. */
function stretchFrom(handles: readonly Handle[], closed: boolean, i: number): (t: number) => Point {
  const n = handles.length
  const at = (k: number): Point | undefined => {
    const h = closed ? handles[(k + n) % n] : handles[k]
    return h && pointOf(h)
  }
  const [p1, p2] = [at(i)!, at(i + 1)!]
  const before = handles[i]!.curved ? at(i - 1) : undefined
  const after = handles[(i + 1) % n]!.curved ? at(i + 2) : undefined
  return stretch(
    before ?? mirrored(after, p1, p2) ?? beyond(p1, p2),
    p1,
    p2,
    after ?? mirrored(before, p1, p2) ?? beyond(p2, p1),
  )
}

/**
 * Whether handles still describe corners: what was drawn anew by other means is not what they were.
 *
 * @param toleranceM how far a corner may lie from where the handles would have it
 */
export function describes(drawn: Drawn, corners: readonly Point[], toleranceM = 2 * FLAT_M): boolean {
  const flat = flattened(drawn)
  return flat.length === corners.length && flat.every((p, i) => apart(p, corners[i]!) <= toleranceM)
}

/** Why an outline cannot be drawn so, by its handles as a person counts them, from 1; undefined where it can. */
export function drawnFault(drawn: Drawn): string | undefined {
  if (!drawn.closed) return undefined
  if (drawn.handles.length < 3) return 'an outline needs three corners'
  const same = sameCorners(drawn.handles.map(pointOf))
  if (same) return `corners ${same[0] + 1} and ${same[1] + 1} are the same point: leave one of them out`
  const { points, of } = flattenedWithSource(drawn)
  const crossed = crossingEdges(points)
  if (!crossed) return undefined
  const [a, b] = crossed.map((edge) => of[edge]! + 1)
  return a === b
    ? `the outline crosses itself after corner ${a}`
    : `the outline crosses itself: the sides after corners ${a} and ${b}`
}

/** Handles where a map of the plane takes them. */
export const carriedHandles = (handles: readonly Handle[], by: Affine): Handle[] =>
  handles.map((h) => {
    const [x, y] = carried(by, pointOf(h))
    return { ...h, x, y }
  })

/** With one more handle after the one numbered, from 0. */
export const withHandle = (handles: readonly Handle[], after: number, added: Handle): Handle[] =>
  handles.toSpliced(after + 1, 0, added)

/** With one put otherwise. */
export const withHandleAt = (handles: readonly Handle[], i: number, changed: Partial<Handle>): Handle[] =>
  handles.with(i, { ...handles[i]!, ...changed })

/** Where on what is drawn a point lies nearest, after which handle, and how far off, metres. */
export function nearestOnDrawn(drawn: Drawn, p: Point): { at: Point; after: number; metres: number } {
  const { points, of } = flattenedWithSource(drawn)
  const edges = drawn.closed ? points.length : points.length - 1
  let best = { at: points[0]!, after: 0, metres: Infinity }
  for (let i = 0; i < edges; i++) {
    const at = nearestOnSegment(p, points[i]!, points[(i + 1) % points.length]!)
    const metres = apart(at, p)
    if (metres < best.metres) best = { at, after: of[i]!, metres }
  }
  return best
}

// Shapes that come ready, each with two sizes

export const readyShapes = ['rectangle', 'circle', 'island', 'half-moon', 'kidney'] as const
export type ReadyShape = (typeof readyShapes)[number]

/** Handles about a round: twelve keep it within two thousandths of its radius. */
const AROUND = 12

/**
 * A shape that comes ready about a middle: straight sides and corners where it has them, smooth elsewhere.
 *
 * @param lengthM along the plan's x
 * @param widthM along its y; a circle goes by its length alone
 */
export function readyShape(
  shape: ReadyShape,
  [cx, cy]: Point,
  lengthM: number,
  widthM: number = lengthM,
): Handle[] {
  const [a, b] = [lengthM / 2, (shape === 'circle' ? lengthM : widthM) / 2]
  const at = (x: number, y: number, curved: boolean): Handle => ({ x: cx + x, y: cy + y, curved })
  const round = (turns: number) => [Math.cos(2 * Math.PI * turns), Math.sin(2 * Math.PI * turns)] as const
  switch (shape) {
    case 'rectangle':
      return [at(-a, -b, false), at(a, -b, false), at(a, b, false), at(-a, b, false)]
    case 'circle':
    case 'island':
      return Array.from({ length: AROUND }, (_, i) => {
        const [cos, sin] = round(i / AROUND)
        return at(a * cos, b * sin, true)
      })
    case 'half-moon': {
      // The straight side below, the arc above it: half of a round as wide as it is long.
      const half = AROUND / 2
      return Array.from({ length: half + 1 }, (_, i) => {
        const [cos, sin] = round(i / AROUND)
        return at(a * cos, -b + 2 * b * sin, i > 0 && i < half)
      })
    }
    case 'kidney':
      return (
        [
          [1, -0.2],
          [0.82, 0.62],
          [0.35, 1],
          [-0.35, 1],
          [-0.82, 0.62],
          [-1, -0.2],
          [-0.72, -0.92],
          [-0.32, -0.62],
          [0, -0.4],
          [0.32, -0.62],
          [0.72, -0.92],
        ] as const
      ).map(([x, y]) => at(a * x, b * y, true))
  }
}

/** The middle of what is drawn: about which it turns. */
export function middleOfDrawn(drawn: Drawn): Point {
  const flat: Ring = flattened(drawn)
  if (drawn.closed) return centroid(flat)
  const n = flat.length
  return [flat.reduce((s, p) => s + p[0], 0) / n, flat.reduce((s, p) => s + p[1], 0) / n]
}
