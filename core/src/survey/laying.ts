import { extentOf, type Extent, type Point } from '../geometry/index.ts'
import { listed } from '../words/index.ts'
import { adjust, type Measured, type OnSide } from './adjust.ts'
import {
  determinant,
  laidByTwo,
  nearness,
  straighten,
  straightened,
  type Homography,
  type Tie,
} from './picture.ts'

/** A tape between two of the points that are marked in a picture, by their places in the list. */
export interface MarkTape {
  from: number
  to: number
  metres: number
}

/** What is said of how a picture lies under the plan. */
export type Laying =
  /** From straight above, as a scan is: one point on the plan, and the length from it to another. */
  | { how: 'two points'; a: Tie; b: Point; lengthM: number; turnDeg: number }
  /** Slanting: four or more points that are known on the plan. */
  | { how: 'points on the plan'; ties: readonly Tie[] }
  /** Slanting: four or more points with the distances between them; the first on the plan, the second from it in a direction. */
  | {
      how: 'tapes between points'
      marks: readonly Point[]
      tapes: readonly MarkTape[]
      at: Point
      /** Clockwise from up the plan. */
      bearingDeg: number
    }

/** How a picture lies. */
export interface Lie {
  homography: Homography
  ties: readonly Tie[]
  /** Of each tie, how far it lies from where it was said to, metres. */
  misfitsM: readonly number[]
  /** Root mean square of them, for what is more than is needed; null where nothing is. */
  errorM: number | null
  /** Tapes of which one does not fit the rest, by their places in the list. */
  doubtful: readonly number[]
}

export type Lies = { ok: true; lie: Lie } | { ok: false; says: string }

const cross = (a: Point, b: Point, p: Point) => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])
const apart = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1])

/** How a picture lies by what is said of it; told in words where it cannot. */
export function lieOf(laying: Laying): Lies {
  if (laying.how === 'two points') {
    const homography = laidByTwo(laying.a, laying.b, laying.lengthM, laying.turnDeg)
    if (!homography) return { ok: false, says: 'The two points are one: take two far from each other.' }
    const b = { px: laying.b, at: straightened(homography, laying.b) }
    const ties = [laying.a, b]
    return {
      ok: true,
      lie: { homography, ties, misfitsM: [0, 0], errorM: null, doubtful: [] },
    }
  }
  if (laying.how === 'points on the plan') return slanting(laying.ties, [])
  const figure = figureOf(laying)
  if (!figure.ok) return figure
  return slanting(
    figure.at.map((at, i) => ({ px: laying.marks[i]!, at })),
    figure.doubtful,
  )
}

function slanting(ties: readonly Tie[], doubtful: readonly number[]): Lies {
  const made = straighten(ties)
  if (!made.ok) return made
  const { homography, misfitsM, errorM } = made.value
  if (!seenFromAbove(homography, ties))
    return {
      ok: false,
      says: 'The points follow each other otherwise on the plan than in the picture: two of them are exchanged, or one is not what it is said to be.',
    }
  return { ok: true, lie: { homography, ties, misfitsM, errorM, doubtful } }
}

/** A camera above the ground sees all ties below the horizon, and none in a mirror. */
function seenFromAbove(h: Homography, ties: readonly Tie[]): boolean {
  const near = ties.map((t) => nearness(h, t.px))
  if (near.some((w) => w * near[0]! <= 0)) return false
  const det = determinant(h)
  // Pictures run down, plans up: sound ones turn the sense of going round.
  return det / near[0]! ** 3 < 0
}

type Figure = { ok: true; at: Point[]; doubtful: number[] } | { ok: false; says: string }

/** Triples flatter than this share of their longest side tell no side. */
const FLAT = 0.03

/**
 * Points from the distances between them, by least squares; which of a figure and its mirror images it is, the picture tells: from
 * above, three points of the ground follow each other as they do in it.
 */
function figureOf({
  marks,
  tapes,
  at,
  bearingDeg,
}: Extract<Laying, { how: 'tapes between points' }>): Figure {
  if (marks.length < 4) return { ok: false, says: `Four points are needed; ${marks.length} are marked.` }
  const measured = tapes.map((t, i): Measured => ({
    id: `${i}`,
    kind: 'distance',
    from: `${t.from}`,
    to: `${t.to}`,
    metres: t.metres,
  }))
  // The first two are a base line: the second lies east of the first for as long as it is only a figure.
  const points = marks.map((_, i) => ({
    id: `${i}`,
    ...(i === 0 ? { x: 0, y: 0 } : i === 1 ? { y: 0 } : {}),
  }))
  const found = adjust(points, measured, sidesIn(marks))
  if (found.missing.length > 0) {
    const names = found.missing.map((m) => String(Number(m.id) + 1))
    return {
      ok: false,
      says: `${names.length === 1 ? 'Point' : 'Points'} ${listed(names)} cannot be found from these tapes. Between four points five are needed, between five seven; the one from 1 to 2 first.`,
    }
  }
  const [sin, cos] = [Math.sin((bearingDeg * Math.PI) / 180), Math.cos((bearingDeg * Math.PI) / 180)]
  const placed = (x: number, y: number): Point => [at[0] + x * sin - y * cos, at[1] + x * cos + y * sin]
  const by = new Map(found.points.map((p) => [p.id, p.at]))
  return {
    ok: true,
    at: marks.map((_, i) => (i === 0 ? at : placed(...(by.get(`${i}`)! as [number, number])))),
    doubtful: found.blunder.map(Number),
  }
}

function sidesIn(marks: readonly Point[]): OnSide[] {
  const sides: OnSide[] = []
  for (const [p, mark] of marks.entries())
    for (const [a, from] of marks.entries())
      for (const [b, to] of marks.entries()) {
        if (a >= b || p === a || p === b) continue
        const longest = Math.max(apart(from, to), apart(from, mark), apart(to, mark))
        const turns = cross(from, to, mark)
        if (Math.abs(turns) < FLAT * longest ** 2) continue
        // In a picture y runs down: what turns positively lies to the right.
        sides.push({ point: `${p}`, of: [`${a}`, `${b}`], side: turns > 0 ? 'right' : 'left' })
      }
  return sides
}

/** Parts of a slanting picture further off than this many times what its ties are: a point there covers metres. */
const FURTHEST = 3
/** Ground about the ties that is shown, times their span. */
const ABOUT = 0.6

/**
 * The ground a picture shows, plan metres: of a slanting one not what lies near its horizon.
 *
 * @param width of the picture, points
 */
export function groundShown({ homography: h, ties }: Lie, width: number, height: number): Extent {
  const frame: Point[] = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ]
  const isSlanting = h[6] !== 0 || h[7] !== 0
  if (!isSlanting) return extentOf(frame.map((p) => straightened(h, p)))
  const mean = ties.reduce((s, t) => s + nearness(h, t.px), 0) / ties.length
  const near = clipped(frame, (p) => nearness(h, p) / mean - 1 / FURTHEST)
  const [all, known] = [extentOf(near.map((p) => straightened(h, p))), extentOf(ties.map((t) => t.at))]
  const by = ABOUT * Math.max(known.maxX - known.minX, known.maxY - known.minY)
  return {
    minX: Math.max(all.minX, known.minX - by),
    minY: Math.max(all.minY, known.minY - by),
    maxX: Math.min(all.maxX, known.maxX + by),
    maxY: Math.min(all.maxY, known.maxY + by),
  }
}

/** How much ground the finest of a picture's points shows across, metres, where it is known. */
export function finestM({ homography: h, ties }: Pick<Lie, 'homography' | 'ties'>): number {
  const det = determinant(h)
  return Math.min(...ties.map((t) => Math.sqrt(Math.abs(det / nearness(h, t.px) ** 3))))
}

/** What of a convex outline lies where something linear is not negative (Sutherland and Hodgman 1974). */
function clipped(ring: readonly Point[], value: (p: Point) => number): Point[] {
  return ring.flatMap((p, i) => {
    const q = ring[(i + 1) % ring.length]!
    const [vp, vq] = [value(p), value(q)]
    const t = vp / (vp - vq)
    const between: Point[] = vp * vq < 0 ? [[p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])]] : []
    return vp >= 0 ? [p, ...between] : between
  })
}
