import { union } from 'polyclip-ts'
import {
  corner,
  drawnFault,
  flattened,
  flattenedWithSource,
  FLAT_M,
  pointOf,
  type Drawn,
  type Handle,
} from './drawn.ts'
import { areaM2, distanceToBoundary, isInside, nearestOnBoundary, type Point, type Ring } from './ring.ts'

export type Cut = { ok: true; parts: [Handle[], Handle[]] } | { ok: false; says: string }
export type Joined = { ok: true; handles: Handle[] } | { ok: false; says: string }

/** Stretches a cut is looked along, to see that it stays inside. */
const LOOKED = 20

/**
 * An outline cut in two, straight from one of its handles to another; both become corners of both parts.
 *
 * @param i the handle cut from, from 0
 * @param j the handle cut to
 */
export function cutBetween(drawn: Drawn, i: number, j: number): Cut {
  const { handles } = drawn
  const n = handles.length
  const [a, b] = i < j ? [i, j] : [j, i]
  if (a === b || b - a === 1 || (a === 0 && b === n - 1))
    return { ok: false, says: `corners ${a + 1} and ${b + 1} lie side by side: nothing is between them` }
  const ring = flattened(drawn)
  const [from, to] = [handles[a]!, handles[b]!]
  const along = Array.from({ length: LOOKED - 1 }, (_, k): Point => {
    const t = (k + 1) / LOOKED
    return [from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t]
  })
  if (!along.every(([x, y]) => isInside(ring, x, y)))
    return { ok: false, says: `the straight line from corner ${a + 1} to corner ${b + 1} leaves the outline` }
  const ends = (part: readonly Handle[]) =>
    part.map((h, k) => (k === 0 || k === part.length - 1 ? corner(pointOf(h)) : h))
  const parts: [Handle[], Handle[]] = [
    ends(handles.slice(a, b + 1)),
    ends([...handles.slice(b), ...handles.slice(0, a + 1)]),
  ]
  const fault = parts.map((handles) => drawnFault({ handles, closed: true })).find((f) => f !== undefined)
  return fault ? { ok: false, says: fault } : { ok: true, parts }
}

/** Outlines this near are taken to touch, metres: hand drawing leaves gaps. */
export const TOUCHING_M = 0.15

/**
 * Two outlines as one. Where they lie side by side with a narrow gap, corners of the second go onto the first.
 */
export function joinedOutlines(a: Drawn, b: Drawn): Joined {
  const ringA = flattened(a)
  const beside: Drawn = { ...b, handles: broughtTo(b.handles, ringA) }
  const ringB = flattened(beside)
  const parts = union([withFirst(ringA)], [withFirst(ringB)])
  if (parts.length > 1) {
    const gap = Math.min(
      ...ringB.map(([x, y]) => distanceToBoundary(ringA, x, y)),
      ...ringA.map(([x, y]) => distanceToBoundary(ringB, x, y)),
    )
    return { ok: false, says: `they do not touch: ${gap.toFixed(2)} m lie between them` }
  }
  const [outer, ...holes] = parts[0]!
  const large = holes.filter((h) => areaM2(h.slice(0, -1) as Ring) > 0.02)
  if (large.length > 0) return { ok: false, says: 'together they would enclose a gap: fill it first' }
  return { ok: true, handles: handlesFor(outer!.slice(0, -1) as Ring, [a, beside]) }
}

const withFirst = (ring: Ring): [number, number][] => [...ring, ring[0]!].map(([x, y]) => [x, y])

/** How far what is brought to an edge goes past it, so that rounding leaves no gap, metres. */
const PAST_M = 0.001

/** Handles on the edge of an outline where they nearly are; on its very corners they stay. */
const broughtTo = (handles: readonly Handle[], ring: Ring): Handle[] =>
  handles.map((h) => {
    const away = (p: Point) => Math.hypot(p[0] - h.x, p[1] - h.y)
    const near = ring.find((p) => away(p) < PAST_M)
    if (near) return { ...h, x: near[0], y: near[1] }
    const onto = nearestOnBoundary(ring, pointOf(h))
    if (isInside(ring, h.x, h.y) || away(onto) > TOUCHING_M) return h
    const past = 1 + PAST_M / away(onto)
    return { ...h, x: h.x + (onto[0] - h.x) * past, y: h.y + (onto[1] - h.y) * past }
  })

/**
 * Handles that draw an outline which was made of two: smooth ones stay where a whole stretch of curve did; everything else is
 * corners, without those that lie on a straight line.
 */
function handlesFor(ring: Ring, from: readonly Drawn[]): Handle[] {
  const known = from.flatMap((d) => {
    const { points, of } = flattenedWithSource(d)
    return points.map((at, k) => {
      const h = d.handles[of[k]!]!
      return { at, handle: h, isHandle: h.x === at[0] && h.y === at[1] }
    })
  })
  const smooth = ring.flatMap((p): Handle[] => {
    const hit = known.find((k) => Math.hypot(k.at[0] - p[0], k.at[1] - p[1]) < 1e-6)
    if (!hit) return [corner(p)]
    return hit.isHandle ? [hit.handle] : []
  })
  if (smooth.length >= 3 && isSame({ handles: smooth, closed: true }, ring)) return smooth
  return straightened(ring).map(corner)
}

/** Whether what handles draw covers the same ground, to a hundredth and a handful of centimetres. */
function isSame(drawn: Drawn, ring: Ring): boolean {
  if (drawnFault(drawn)) return false
  const flat = flattened(drawn)
  return (
    Math.abs(areaM2(flat) - areaM2(ring)) <= 0.01 * areaM2(ring) &&
    flat.every(([x, y]) => distanceToBoundary(ring, x, y) <= 5 * FLAT_M)
  )
}

/** Without corners that lie on the line between those beside them. */
function straightened(ring: Ring): Point[] {
  const kept: Point[] = [...ring]
  for (let i = 0; kept.length > 3 && i < kept.length;) {
    const [a, p, b] = [kept.at(i - 1)!, kept[i]!, kept[(i + 1) % kept.length]!]
    if (areaM2([a, p, b]) < (FLAT_M / 2) * Math.hypot(a[0] - b[0], a[1] - b[1])) kept.splice(i, 1)
    else i++
  }
  return kept
}
