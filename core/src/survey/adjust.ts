import { EigenvalueDecomposition, Matrix, pseudoInverse } from 'ml-matrix'
import type { Point } from '../geometry/index.ts'
import { counted, listed } from '../words/index.ts'

/** A point of a survey: on the plan already, or to be found; of one to be found a coordinate may be known. Plan metres. */
export interface SurveyPoint {
  id: string
  x?: number | undefined
  y?: number | undefined
}

/** What was measured between points, each with how far it may be out, one standard error. */
export type Measured =
  /** A tape from one point to another. */
  | { id: string; kind: 'distance'; from: string; to: string; metres: number; sdM?: number | undefined }
  /** Along a base line from its first point, and how far off it: to the left positive. */
  | {
      id: string
      kind: 'offset'
      base: readonly [string, string]
      to: string
      alongM: number
      offM: number
      sdM?: number | undefined
    }
  /** The angle at a point between two others is right. */
  | { id: string; kind: 'right angle'; at: string; from: string; to: string; sdDeg?: number | undefined }
  /** From one point to another, degrees clockwise from up the plan. */
  | { id: string; kind: 'bearing'; from: string; to: string; deg: number; sdDeg?: number | undefined }

/** On which side of a line from its first to its second point something lies: settles what two tapes leave open. */
export interface OnSide {
  point: string
  of: readonly [string, string]
  side: 'left' | 'right'
}

/** A point as it was found, with how far it may be out. */
export interface AdjustedPoint {
  id: string
  at: Point
  /** Standard errors along the plan's axes, metres. */
  sdM: readonly [x: number, y: number]
  /** Where it lies 95 times in 100: half axes in metres, the longer heading so many degrees clockwise from up the plan. */
  ellipse: { majorM: number; minorM: number; headingDeg: number }
  /** How many more measurements reach it than it needs; none of one that is only just found. */
  isChecked: boolean
}

/** How well one measurement fits the rest. */
export interface Residual {
  id: string
  /** Measured less adjusted: metres, of an angle degrees; of an offset the worse of the two. */
  misfit: number
  /** In its own standard errors (Baarda 1968: normally distributed unless it is a blunder); 0 where nothing checks it. */
  standardised: number
}

export interface Adjusted {
  points: AdjustedPoint[]
  residuals: Residual[]
  /** The one that does not fit, or those of which one does not and that cannot be told apart: to be measured again. */
  blunder: string[]
  /** Points that could not be found, each with why. */
  missing: { id: string; says: string }[]
  /** Measurements more than are needed. */
  redundancy: number
}

/** A tape in a garden: a centimetre, and two thousandths of its length for sag, slope and stretch. A judgement. */
export const tapeSdM = (metres: number): number => Math.hypot(0.01, 0.002 * metres)
/** A corner that is called right, and a bearing by compass, degrees. */
const SQUARE_SD_DEG = 1
const BEARING_SD_DEG = 2

/** Of 1000 sound measurements one is taken for a blunder at this (two-sided normal). */
export const CRITICAL = 3.29
/** Standardised residuals within this share of the worst cannot be told from it. */
const ALIKE = 0.02
/** Two degrees of freedom, 95 % (chi squared). */
const CHI2_95 = 5.9915
const DEG = Math.PI / 180

type At = Map<string, Point>

/** One equation: what was measured, its standard error, and what it would be where the points lie. */
interface Equation {
  of: string
  value: number
  sd: number
  points: readonly string[]
  isAngle: boolean
  predict: (at: At) => number
}

const wrapped = (rad: number) => Math.atan2(Math.sin(rad), Math.cos(rad))
const heading = (a: Point, b: Point) => Math.atan2(b[0] - a[0], b[1] - a[1])
const apart = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1])

function equationsOf(m: Measured): Equation[] {
  const eq = (
    points: readonly string[],
    value: number,
    sd: number,
    predict: (p: Point[]) => number,
    isAngle = false,
  ): Equation => ({
    of: m.id,
    value,
    sd,
    points,
    isAngle,
    predict: (at) => predict(points.map((id) => at.get(id)!)),
  })
  switch (m.kind) {
    case 'distance':
      return [eq([m.from, m.to], m.metres, m.sdM ?? tapeSdM(m.metres), ([a, b]) => apart(a!, b!))]
    case 'offset': {
      const points = [...m.base, m.to]
      const along = ([a, b, p]: Point[]) =>
        ((p![0] - a![0]) * (b![0] - a![0]) + (p![1] - a![1]) * (b![1] - a![1])) / apart(a!, b!)
      const off = ([a, b, p]: Point[]) =>
        ((b![0] - a![0]) * (p![1] - a![1]) - (b![1] - a![1]) * (p![0] - a![0])) / apart(a!, b!)
      return [
        eq(points, m.alongM, m.sdM ?? tapeSdM(m.alongM), along),
        eq(points, m.offM, m.sdM ?? tapeSdM(m.offM), off),
      ]
    }
    case 'right angle': {
      const sd = (m.sdDeg ?? SQUARE_SD_DEG) * DEG
      // Square either way round: how far the cosine is from nought.
      const square = ([c, a, b]: Point[]) =>
        Math.asin(
          Math.max(
            -1,
            Math.min(
              1,
              ((a![0] - c![0]) * (b![0] - c![0]) + (a![1] - c![1]) * (b![1] - c![1])) /
                Math.max(1e-9, apart(a!, c!) * apart(b!, c!)),
            ),
          ),
        )
      return [eq([m.at, m.from, m.to], 0, sd, square, true)]
    }
    case 'bearing':
      return [
        eq([m.from, m.to], m.deg * DEG, (m.sdDeg ?? BEARING_SD_DEG) * DEG, ([a, b]) => heading(a!, b!), true),
      ]
  }
}

/** Measured less where the points have it. */
function misclosure(e: Equation, at: At): number {
  const off = e.value - e.predict(at)
  return e.isAngle ? wrapped(off) : off
}

// A first figure

/** Where two tapes meet: both points, or the one between where they only nearly do. */
function circlesMeet(a: Point, ra: number, b: Point, rb: number): Point[] {
  const d = apart(a, b)
  if (d < 1e-9) return []
  const along = (ra * ra - rb * rb + d * d) / (2 * d)
  const off = Math.sqrt(Math.max(0, ra * ra - along * along))
  const [ux, uy] = [(b[0] - a[0]) / d, (b[1] - a[1]) / d]
  const foot: Point = [a[0] + along * ux, a[1] + along * uy]
  if (off < 1e-9) return [foot]
  return [
    [foot[0] - off * uy, foot[1] + off * ux],
    [foot[0] + off * uy, foot[1] - off * ux],
  ]
}

/** How many standard errors two tapes may fail to meet by and be left to the adjustment. */
const NEARLY = 4

const leftOf = (p: Point, a: Point, b: Point) =>
  (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) > 0

interface Figure {
  at: At
  says: Map<string, string>
}

/** Where a point lies by what leads to it from points that are found: the places it may be. */
function candidates(
  id: string,
  measured: readonly Measured[],
  at: At,
  sides: readonly OnSide[],
): Point[] | string {
  const tapes: { from: string; metres: number }[] = []
  const rays: { from: Point; deg: number }[] = []
  for (const m of measured) {
    if (m.kind === 'offset' && m.to === id) {
      const [a, b] = m.base.map((p) => at.get(p))
      if (!a || !b) continue
      const d = apart(a, b)
      const [ux, uy] = [(b[0] - a[0]) / d, (b[1] - a[1]) / d]
      return [[a[0] + m.alongM * ux - m.offM * uy, a[1] + m.alongM * uy + m.offM * ux]]
    }
    if (m.kind === 'distance' && (m.from === id || m.to === id)) {
      const from = m.from === id ? m.to : m.from
      if (at.has(from)) tapes.push({ from, metres: m.metres })
    }
    if (m.kind === 'bearing') {
      const [there, back] = [at.get(m.from), at.get(m.to)]
      if (m.to === id && there) rays.push({ from: there, deg: m.deg })
      if (m.from === id && back) rays.push({ from: back, deg: m.deg + 180 })
    }
  }
  const [ray] = rays
  if (ray && tapes[0]) {
    const tape = tapes.find((t) => apart(at.get(t.from)!, ray.from) < 1e-9)
    if (tape)
      return [
        [
          ray.from[0] + tape.metres * Math.sin(ray.deg * DEG),
          ray.from[1] + tape.metres * Math.cos(ray.deg * DEG),
        ],
      ]
  }
  if (tapes.length >= 2) return byTapes(id, tapes, at, sides)
  return tapes[0] ? bySquare(id, tapes[0], measured, at, sides) : []
}

/** By one tape, and a right angle where it sets out: on the side that was said. */
function bySquare(
  id: string,
  tape: { from: string; metres: number },
  measured: readonly Measured[],
  at: At,
  sides: readonly OnSide[],
): Point[] | string {
  for (const m of measured) {
    if (m.kind !== 'right angle' || m.at !== tape.from || (m.from !== id && m.to !== id)) continue
    const [foot, other] = [at.get(m.at)!, at.get(m.from === id ? m.to : m.from)]
    if (!other) continue
    const d = apart(foot, other)
    const [ux, uy] = [(other[0] - foot[0]) / d, (other[1] - foot[1]) / d]
    const both: Point[] = [
      [foot[0] - tape.metres * uy, foot[1] + tape.metres * ux],
      [foot[0] + tape.metres * uy, foot[1] - tape.metres * ux],
    ]
    const told = sides.filter((s) => s.point === id && s.of.every((p) => at.has(p)))
    const fits = both.filter((p) =>
      told.every((s) => leftOf(p, at.get(s.of[0])!, at.get(s.of[1])!) === (s.side === 'left')),
    )
    if (told.length > 0 && fits[0]) return fits
    return `${id} may lie on either side of the line from ${m.at} to ${m.from === id ? m.to : m.from}: say on which, or measure from a third point`
  }
  return []
}

/** By tapes from two or more points: the pair that crosses best, and of its two places the one that the rest, or a side, tells. */
function byTapes(
  id: string,
  tapes: readonly { from: string; metres: number }[],
  at: At,
  sides: readonly OnSide[],
): Point[] | string {
  let best: { a: (typeof tapes)[number]; b: (typeof tapes)[number]; sine: number } | undefined
  let apartWords: string | undefined
  for (const [i, a] of tapes.entries())
    for (const b of tapes.slice(i + 1)) {
      const d = apart(at.get(a.from)!, at.get(b.from)!)
      const slack = NEARLY * Math.hypot(tapeSdM(a.metres), tapeSdM(b.metres))
      if (d > a.metres + b.metres + slack || d < Math.abs(a.metres - b.metres) - slack) {
        apartWords ??= `${a.metres.toFixed(2)} m from ${a.from} and ${b.metres.toFixed(2)} m from ${b.from} cannot meet: ${a.from} and ${b.from} lie ${d.toFixed(2)} m apart`
        continue
      }
      const cos = (a.metres ** 2 + b.metres ** 2 - d * d) / (2 * a.metres * b.metres)
      const sine = Math.sqrt(Math.max(0, 1 - cos * cos))
      if (!best || sine > best.sine) best = { a, b, sine }
    }
  if (!best) return apartWords ?? []
  const found = circlesMeet(at.get(best.a.from)!, best.a.metres, at.get(best.b.from)!, best.b.metres)
  const told = sides.filter((s) => s.point === id && s.of.every((p) => at.has(p)))
  const fits = found.filter((p) =>
    told.every((s) => leftOf(p, at.get(s.of[0])!, at.get(s.of[1])!) === (s.side === 'left')),
  )
  const off = (p: Point) =>
    tapes.reduce((sum, t) => sum + ((apart(p, at.get(t.from)!) - t.metres) / tapeSdM(t.metres)) ** 2, 0)
  const left = (fits.length > 0 ? fits : found).sort((a, b) => off(a) - off(b))
  if (left.length > 1 && told.length === 0 && off(left[1]!) - off(left[0]!) < CHI2_95)
    return `${id} may lie on either side of the line from ${best.a.from} to ${best.b.from}: say on which, or measure from a third point`
  return left
}

/** Points one after another, each from those that are found. */
function firstFigure(
  points: readonly SurveyPoint[],
  measured: readonly Measured[],
  sides: readonly OnSide[],
): Figure {
  const at: At = new Map()
  const says = new Map<string, string>()
  for (const p of points) if (p.x !== undefined && p.y !== undefined) at.set(p.id, [p.x, p.y])
  for (let found = true; found;) {
    found = false
    for (const { id, x, y } of points) {
      if (at.has(id)) continue
      const oneTape = y !== undefined || x !== undefined ? alongAxis(id, { x, y }, measured, at) : undefined
      const places = oneTape ? [oneTape] : candidates(id, measured, at, sides)
      if (typeof places === 'string') says.set(id, places)
      else if (places[0]) {
        at.set(id, places[0])
        says.delete(id)
        found = true
      }
    }
  }
  return { at, says }
}

/** Of a point with one coordinate known, as the second of a base line: where a tape from a found point puts it. */
function alongAxis(
  id: string,
  { x, y }: { x?: number | undefined; y?: number | undefined },
  measured: readonly Measured[],
  at: At,
): Point | undefined {
  for (const m of measured) {
    if (m.kind !== 'distance' || (m.from !== id && m.to !== id)) continue
    const from = at.get(m.from === id ? m.to : m.from)
    if (!from) continue
    const across = y !== undefined ? y - from[1] : x! - from[0]
    const along = Math.sqrt(Math.max(0, m.metres ** 2 - across ** 2))
    return y !== undefined ? [from[0] + along, y] : [x!, from[1] + along]
  }
  return undefined
}

// The adjustment

const STEPS = 40
const STILL_M = 1e-9

interface Unknown {
  id: string
  axis: 0 | 1
}

/** Rows of the design by differences: every equation is smooth where points lie apart. */
function design(equations: readonly Equation[], unknowns: readonly Unknown[], at: At): number[][] {
  const H = 1e-6
  return equations.map((e) =>
    unknowns.map(({ id, axis }) => {
      if (!e.points.includes(id)) return 0
      const p = at.get(id)!
      const moved = (by: number): At =>
        new Map(at).set(id, axis === 0 ? [p[0] + by, p[1]] : [p[0], p[1] + by])
      const change = e.predict(moved(H)) - e.predict(moved(-H))
      return (e.isAngle ? wrapped(change) : change) / (2 * H)
    }),
  )
}

/**
 * Points from what was measured between them: weighted least squares by Gauss and Newton from a first figure by intersection; each
 * with its standard error and the ellipse in which it lies 95 times in 100; the measurement that does not fit named by its
 * standardised residual (Ghilani, Adjustment Computations, chapters on trilateration, error ellipses and blunder detection).
 *
 * What could not be found is told with why; what could is found all the same.
 *
 * @param sides what settles a figure and its mirror image
 */
export function adjust(
  points: readonly SurveyPoint[],
  measured: readonly Measured[],
  sides: readonly OnSide[] = [],
): Adjusted {
  const figure = firstFigure(points, measured, sides)
  const missing = points
    .filter((p) => !figure.at.has(p.id))
    .map((p) => ({ id: p.id, says: figure.says.get(p.id) ?? lacking(p.id, measured, figure.at) }))
  const unknowns = points.flatMap((p): Unknown[] =>
    figure.at.has(p.id)
      ? [
          ...(p.x === undefined ? [{ id: p.id, axis: 0 } as const] : []),
          ...(p.y === undefined ? [{ id: p.id, axis: 1 } as const] : []),
        ]
      : [],
  )
  const equations = measured.flatMap(equationsOf).filter((e) => e.points.every((id) => figure.at.has(id)))
  const at = settled(equations, unknowns, figure.at)
  if (unknowns.length === 0 || equations.length === 0)
    return { points: [], residuals: [], blunder: [], missing, redundancy: 0 }
  const rows = design(equations, unknowns, at)
  const weighted = new Matrix(rows.map((row, i) => row.map((v) => v / equations[i]!.sd)))
  const covariance = pseudoInverse(weighted.transpose().mmul(weighted))
  const residuals = residualsOf(equations, weighted, covariance, at)
  return {
    points: points
      .filter((p) => figure.at.has(p.id) && unknowns.some((u) => u.id === p.id))
      .map((p) => adjustedPoint(p.id, at.get(p.id)!, unknowns, covariance, residuals, measured)),
    residuals,
    blunder: blunderIn(residuals),
    missing,
    redundancy: equations.length - unknowns.length,
  }
}

/** Gauss and Newton, half a step back where a whole one makes it worse. */
function settled(equations: readonly Equation[], unknowns: readonly Unknown[], from: At): At {
  let at = new Map(from)
  const cost = (a: At) => equations.reduce((sum, e) => sum + (misclosure(e, a) / e.sd) ** 2, 0)
  for (let i = 0; i < STEPS && unknowns.length > 0 && equations.length > 0; i++) {
    const rows = design(equations, unknowns, at)
    const a = new Matrix(rows.map((row, k) => row.map((v) => v / equations[k]!.sd)))
    const b = Matrix.columnVector(equations.map((e) => misclosure(e, at) / e.sd))
    const step = pseudoInverse(a.transpose().mmul(a)).mmul(a.transpose().mmul(b)).to1DArray()
    const before = cost(at)
    let taken = 1
    let next = stepped(at, unknowns, step, taken)
    while (cost(next) > before && taken > 1e-4) next = stepped(at, unknowns, step, (taken /= 2))
    at = next
    if (Math.max(...step.map(Math.abs)) < STILL_M) break
  }
  return at
}

function stepped(at: At, unknowns: readonly Unknown[], step: readonly number[], share: number): At {
  const next = new Map(at)
  unknowns.forEach(({ id, axis }, k) => {
    const [x, y] = next.get(id)!
    next.set(id, axis === 0 ? [x + share * step[k]!, y] : [x, y + share * step[k]!])
  })
  return next
}

function residualsOf(
  equations: readonly Equation[],
  weighted: Matrix,
  covariance: Matrix,
  at: At,
): Residual[] {
  // Share of its own error that each equation shows: the diagonal of I - A Q A'.
  const hat = weighted.mmul(covariance).mmul(weighted.transpose())
  const worst = new Map<string, Residual>()
  equations.forEach((e, i) => {
    const shown = Math.max(0, 1 - hat.get(i, i))
    const off = misclosure(e, at)
    const standardised = shown < 1e-6 ? 0 : Math.abs(off) / (e.sd * Math.sqrt(shown))
    const before = worst.get(e.of)
    if (!before || standardised > before.standardised)
      worst.set(e.of, { id: e.of, misfit: e.isAngle ? off / DEG : off, standardised })
  })
  return [...worst.values()]
}

function blunderIn(residuals: readonly Residual[]): string[] {
  const worst = Math.max(0, ...residuals.map((r) => r.standardised))
  if (worst < CRITICAL) return []
  return residuals.filter((r) => r.standardised >= worst * (1 - ALIKE)).map((r) => r.id)
}

function adjustedPoint(
  id: string,
  at: Point,
  unknowns: readonly Unknown[],
  covariance: Matrix,
  residuals: readonly Residual[],
  measured: readonly Measured[],
): AdjustedPoint {
  const k = ([0, 1] as const).map((axis) => unknowns.findIndex((u) => u.id === id && u.axis === axis))
  const q = (i: number, j: number) => (k[i]! < 0 || k[j]! < 0 ? 0 : covariance.get(k[i]!, k[j]!))
  const own = new EigenvalueDecomposition(
    new Matrix([
      [q(0, 0), q(0, 1)],
      [q(1, 0), q(1, 1)],
    ]),
    { assumeSymmetric: true },
  )
  const [small, large] = own.realEigenvalues.map((v) => Math.sqrt(CHI2_95 * Math.max(0, v)))
  const [ex, ey] = [own.eigenvectorMatrix.get(0, 1), own.eigenvectorMatrix.get(1, 1)]
  const touching = measured.filter((m) => equationsOf(m).some((e) => e.points.includes(id)))
  return {
    id,
    at,
    sdM: [Math.sqrt(Math.max(0, q(0, 0))), Math.sqrt(Math.max(0, q(1, 1)))],
    ellipse: {
      majorM: large!,
      minorM: small!,
      headingDeg: (Math.atan2(ex, ey) / DEG + 360) % 180,
    },
    isChecked: residuals.some((r) => r.standardised > 0 && touching.some((m) => m.id === r.id)),
  }
}

/** What a point that is not found lacks, in words. */
function lacking(id: string, measured: readonly Measured[], at: At): string {
  const reach = measured.filter((m) => equationsOf(m).some((e) => e.points.includes(id)))
  const from = [...new Set(reach.flatMap((m) => equationsOf(m).flatMap((e) => e.points)))].filter(
    (p) => p !== id && at.has(p),
  )
  return from.length === 0
    ? `nothing measured leads to ${id} from a point that is known`
    : `${id} needs ${counted(Math.max(1, 2 - from.length), 'more tape')} than that from ${listed(from)}`
}
