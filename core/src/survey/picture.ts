import { Matrix, SingularValueDecomposition, solve } from 'ml-matrix'
import type { Point } from '../geometry/index.ts'

/** A point of a picture and where it lies on the plan: picture points from the upper left, plan metres. */
export interface Tie {
  px: Point
  at: Point
}

/** From picture points to plan metres: nine numbers by rows. Of a picture from straight above the last row is 0, 0, 1. */
export type Homography = readonly [number, number, number, number, number, number, number, number, number]

/** As many numbers as there have to be, where they come out of a sum over lists. */
const asHomography = (nine: readonly number[]): Homography => nine as unknown as Homography

/**
 * A scan or photo from straight above on the plan: turned, and the same scale both ways.
 *
 * @param a a point of the picture, and where it lies on the plan
 * @param b another point of the picture
 * @param lengthM between the two, as it was measured
 * @param turnDeg how far the picture is turned clockwise
 * @returns undefined where the two points are one
 */
export function laidByTwo(a: Tie, b: Point, lengthM: number, turnDeg: number): Homography | undefined {
  const px = Math.hypot(b[0] - a.px[0], b[1] - a.px[1])
  if (px < 1e-6 || lengthM <= 0) return undefined
  const [cos, sin] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)]
  const k = lengthM / px
  // In a picture y runs down.
  const [x, y] = [k * (a.px[0] * cos - a.px[1] * sin), -k * (a.px[0] * sin + a.px[1] * cos)]
  return [k * cos, -k * sin, a.at[0] - x, -k * sin, -k * cos, a.at[1] - y, 0, 0, 1]
}

/** Not zero: points of the ground stay apart. */
export const determinant = ([a, b, c, d, e, f, g, h, i]: Homography): number =>
  a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g)

/** From one point of a picture to another, degrees clockwise from its top. */
export const bearingInPicture = ([ax, ay]: Point, [bx, by]: Point): number =>
  (Math.atan2(bx - ax, ay - by) * 180) / Math.PI

export interface Straightened {
  homography: Homography
  /** Of each tie, how far it lies from where it was said to, metres. */
  misfitsM: number[]
  /** Root mean square of them over what is not needed to place the picture; null where four points leave nothing over. */
  errorM: number | null
}

/** How near a point of a picture is to its camera, in proportion; on the horizon 0. */
export const nearness = (h: Homography, [x, y]: Point): number => h[6] * x + h[7] * y + h[8]

export const straightened = (h: Homography, p: Point): Point => {
  const [[x, y], w] = [p, nearness(h, p)]
  return [(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w]
}

/** Moves points about their middle to a mean distance of root two (Hartley 1997): without it the equations are badly scaled. */
function normalised(points: readonly Point[]): { to: Matrix; points: Point[] } {
  const n = points.length
  const [mx, my] = [points.reduce((s, p) => s + p[0], 0) / n, points.reduce((s, p) => s + p[1], 0) / n]
  const mean = points.reduce((s, p) => s + Math.hypot(p[0] - mx, p[1] - my), 0) / n
  const k = Math.SQRT2 / Math.max(1e-12, mean)
  return {
    to: new Matrix([
      [k, 0, -k * mx],
      [0, k, -k * my],
      [0, 0, 1],
    ]),
    points: points.map(([x, y]): Point => [k * (x - mx), k * (y - my)]),
  }
}

/**
 * Three of any four points on a line leave the rest open: the least area of triangles, as a share of what they span squared. A
 * border is long, and flatter still in a photo of it.
 */
const ON_A_LINE = { onPlan: 0.005, inPicture: 0.002 }

function onALine(points: readonly Point[], least: number): boolean {
  const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])]
  const span = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)) ** 2
  const area = (a: Point, b: Point, c: Point) =>
    Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])) / 2
  // Some four of them with no three on a line are needed.
  const general = (four: readonly Point[]) =>
    [0, 1, 2, 3].every((out) => {
      const [a, b, c] = four.filter((_, i) => i !== out)
      return area(a!, b!, c!) > least * span
    })
  const n = points.length
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++)
      for (let k = j + 1; k < n; k++)
        for (let l = k + 1; l < n; l++)
          if (general([points[i]!, points[j]!, points[k]!, points[l]!])) return false
  return true
}

/**
 * A slanting picture of flat ground, straightened by four or more points that are known on the plan: normalised direct linear
 * transform (Hartley and Zisserman 2004, algorithm 4.2), then least squares on where the points come to lie.
 */
export function straighten(
  ties: readonly Tie[],
): { ok: true; value: Straightened } | { ok: false; says: string } {
  if (ties.length < 4) return { ok: false, says: `Four points are needed; ${ties.length} are said.` }
  if (
    onALine(
      ties.map((t) => t.at),
      ON_A_LINE.onPlan,
    ) ||
    onALine(
      ties.map((t) => t.px),
      ON_A_LINE.inPicture,
    )
  )
    return {
      ok: false,
      says: 'The points lie on a line, or nearly: take four that span the bed, no three in a row.',
    }
  const [from, to] = [normalised(ties.map((t) => t.px)), normalised(ties.map((t) => t.at))]
  const rows = ties.flatMap((_, i) => {
    const [[x, y], [u, v]] = [from.points[i]!, to.points[i]!]
    return [
      [-x, -y, -1, 0, 0, 0, u * x, u * y, u],
      [0, 0, 0, -x, -y, -1, v * x, v * y, v],
    ]
  })
  // Nine columns need nine rows to have all their directions told.
  while (rows.length < 9) rows.push(Array.from({ length: 9 }, () => 0))
  const { rightSingularVectors: right } = new SingularValueDecomposition(new Matrix(rows))
  const own = new Matrix([0, 1, 2].map((r) => [0, 1, 2].map((c) => right.get(3 * r + c, 8))))
  const whole = inverted(to.to).mmul(own).mmul(from.to).to1DArray()
  const homography = refined(asHomography(whole.map((v) => v / whole[8]!)), ties)
  const misfitsM = ties.map((t) => {
    const [x, y] = straightened(homography, t.px)
    return Math.hypot(x - t.at[0], y - t.at[1])
  })
  const over = 2 * ties.length - 8
  return {
    ok: true,
    value: {
      homography,
      misfitsM,
      errorM: over > 0 ? Math.sqrt(misfitsM.reduce((s, m) => s + m * m, 0) / over) : null,
    },
  }
}

/** How well a point is clicked in a picture that is looked at closely, points: one standard error along each side. A judgement. */
export const CLICK_SD_PX = 2

/**
 * How far the ground at the ties of a straightened picture moves by how well they are clicked, metres: one standard error where it is
 * worst.
 */
export function clickedOutM({ homography, ties }: { homography: Homography; ties: readonly Tie[] }): number {
  const moved = ties.flatMap((t, i) =>
    [0, 1].flatMap((axis) => {
      const px: Point = axis === 0 ? [t.px[0] + CLICK_SD_PX, t.px[1]] : [t.px[0], t.px[1] + CLICK_SD_PX]
      const made = straighten(ties.with(i, { ...t, px }))
      return made.ok ? [made.value.homography] : []
    }),
  )
  if (moved.length < 2 * ties.length) return Infinity
  const variance = (t: Tie) => {
    const [x, y] = straightened(homography, t.px)
    return moved.reduce((sum, h) => {
      const [mx, my] = straightened(h, t.px)
      return sum + (mx - x) ** 2 + (my - y) ** 2
    }, 0)
  }
  return Math.sqrt(Math.max(...ties.map(variance)))
}

const inverted = (m: Matrix): Matrix => solve(m, Matrix.eye(3))

/** Least squares on the plan, eight numbers free, by Gauss and Newton. */
function refined(h: Homography, ties: readonly Tie[]): Homography {
  let now = h
  const off = (x: Homography) =>
    ties.flatMap((t) => {
      const [px, py] = straightened(x, t.px)
      return [t.at[0] - px, t.at[1] - py]
    })
  const cost = (x: Homography) => off(x).reduce((s, v) => s + v * v, 0)
  for (let i = 0; i < 20; i++) {
    const here = off(now)
    const rows = here.map((_, r) => r)
    const columns = Array.from({ length: 8 }, (_, k) => {
      const by = Math.max(1e-9, Math.abs(now[k]!) * 1e-6)
      const moved = off(asHomography(now.with(k, now[k]! + by)))
      return rows.map((r) => (here[r]! - moved[r]!) / by)
    })
    const a = new Matrix(columns).transpose()
    const step = new SingularValueDecomposition(a).solve(Matrix.columnVector(here)).to1DArray()
    const next = asHomography(now.map((v, k) => (k < 8 ? v + step[k]! : v)))
    if (!(cost(next) < cost(now) - 1e-16)) break
    now = next
  }
  return now
}
