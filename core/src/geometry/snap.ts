import { nearestOnSegment, type Point } from './ring.ts'

/** What else is drawn, to which a point that is dragged may be meant to go. */
export interface SnapTargets {
  corners: readonly { at: Point; of: string }[]
  edges: readonly { from: Point; to: Point; of: string }[]
}

/** Where a dragged point is taken to be meant, and why: nothing drew it where `by` is absent. */
export interface Snapped {
  at: Point
  by?: 'corner' | 'edge' | 'right angle' | 'line' | 'grid'
  /** The name of what it lies on. */
  of?: string
}

/** The two points of what is drawn on each side of the one that is dragged, nearest first. */
export interface DrawnBeside {
  before: readonly Point[]
  after: readonly Point[]
}

interface Line {
  through: Point
  along: Point
  square: boolean
}

const apart = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1])

const onLine = ({ through: [x, y], along: [dx, dy] }: Line, p: Point): Point => {
  const t = (p[0] - x) * dx + (p[1] - y) * dy
  return [x + t * dx, y + t * dy]
}

function meeting(a: Line, b: Line): Point | undefined {
  const cross = a.along[0] * b.along[1] - a.along[1] * b.along[0]
  if (Math.abs(cross) < 0.05) return undefined
  const [wx, wy] = [b.through[0] - a.through[0], b.through[1] - a.through[1]]
  const t = (wx * b.along[1] - wy * b.along[0]) / cross
  return [a.through[0] + t * a.along[0], a.through[1] + t * a.along[1]]
}

/** Lines through a neighbour on which the side to it stands square to the side beyond it, goes on straight, or lies with the plan. */
function linesThrough([near, far]: readonly Point[]): Line[] {
  if (!near) return []
  const line = (along: Point, square: boolean): Line => ({ through: near, along, square })
  const plan = [line([1, 0], false), line([0, 1], false)]
  const length = far ? apart(near, far) : 0
  if (!far || length < 1e-6) return plan
  const [ux, uy] = [(near[0] - far[0]) / length, (near[1] - far[1]) / length]
  return [line([-uy, ux], true), line([ux, uy], false), ...plan]
}

/** Where the angle at the dragged point itself is right: on the round over its neighbours (Thales). */
function onThales(a: Point | undefined, b: Point | undefined, p: Point): Point | undefined {
  if (!a || !b) return undefined
  const middle: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
  const [away, radius] = [apart(p, middle), apart(a, b) / 2]
  if (away < 1e-6 || radius < 1e-6) return undefined
  return [middle[0] + ((p[0] - middle[0]) * radius) / away, middle[1] + ((p[1] - middle[1]) * radius) / away]
}

/** The nearest of several within reach. */
function nearest<T extends Snapped>(p: Point, reachM: number, found: readonly T[]): T | undefined {
  const near = found.filter((f) => apart(f.at, p) <= reachM)
  return near.sort((a, b) => apart(a.at, p) - apart(b.at, p))[0]
}

/**
 * Where a dragged point is meant: at a corner of something else, where two lines meet, on an edge, square to its own sides or in line
 * with them, else on the grid. What is told first wins where several are within reach.
 *
 * @param reachM how near it must come, metres
 * @param gridM 0 for none
 */
export function snap(
  p: Point,
  beside: DrawnBeside,
  targets: SnapTargets,
  reachM: number,
  gridM: number,
): Snapped {
  const atCorner = nearest(
    p,
    reachM,
    targets.corners.map(({ at, of }): Snapped => ({ at, by: 'corner', of })),
  )
  if (atCorner) return atCorner
  const [before, after] = [linesThrough(beside.before), linesThrough(beside.after)]
  const meetings = before.flatMap((a) =>
    after.flatMap((b): Snapped[] => {
      const at = meeting(a, b)
      return at ? [{ at, by: a.square || b.square ? 'right angle' : 'line' }] : []
    }),
  )
  const onEdges = targets.edges.map(({ from, to, of }): Snapped => ({
    at: nearestOnSegment(p, from, to),
    by: 'edge',
    of,
  }))
  const lines = [...before, ...after].map((l): Snapped => ({
    at: onLine(l, p),
    by: l.square ? 'right angle' : 'line',
  }))
  const round = onThales(beside.before[0], beside.after[0], p)
  const kinds = [meetings, onEdges, lines, round ? [{ at: round, by: 'right angle' } as const] : []]
  for (const found of kinds) {
    const best = nearest(p, reachM, found)
    if (best) return best
  }
  return gridM > 0
    ? { at: [Math.round(p[0] / gridM) * gridM, Math.round(p[1] / gridM) * gridM], by: 'grid' }
    : { at: p }
}
