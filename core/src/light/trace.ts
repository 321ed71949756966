import {
  distanceToBoundary,
  distanceToSegment,
  isInside,
  metresToCrossing,
  type Point,
  type Ring,
} from '../geometry/index.ts'
import { dayPart, type DayPart, type SunSample } from '../sun/index.ts'
import type { Box, Crown, Prism, Screen, Solid } from './obstruction.ts'

/**
 * A direction to look in, in plan axes: unit vector over the ground and the rise per metre of it.
 * A ray from (x, y, z) passes (x + ux s, y + uy s, z + rise s) after s metres over the ground.
 */
export interface Direction {
  ux: number
  uy: number
  /** 1 / ux and 1 / uy: every ray is tried against many boxes. */
  perUx: number
  perUy: number
  /** Metres climbed over the ground, per metre along it: on the level the tangent of the elevation. */
  rise: number
  /** Metres along the ray per metre over the ground. */
  slant: number
  part: DayPart
  /** Between 14:00 and 17:00 true solar time, when sun comes with the day's heat. */
  hot: boolean
}

/**
 * Lie of the ground of a place. It is taken to carry on at the same slope as far as whatever shades the place, and
 * heights are above the ground where each thing stands; so a slope comes to the same as the sun standing higher over
 * ground that faces it, and lower, or behind the hill, over ground that faces away.
 */
export interface Ground {
  /** 0 level to 60. */
  slopeDeg: number
  /** The way the ground falls, degrees clockwise from true north. */
  aspectDeg: number
}

/** Ground that slopes nowhere. */
export const LEVEL: Ground = { slopeDeg: 0, aspectDeg: 0 }

const DEG = Math.PI / 180

/**
 * @param azimuthDeg clockwise from true north
 * @param northDeg where true north lies on the plan, clockwise from the +y axis
 */
export function direction(
  azimuthDeg: number,
  elevationDeg: number,
  northDeg: number,
  solarHours = 12,
  ground: Ground = LEVEL,
): Direction {
  const bearing = (azimuthDeg + northDeg) * DEG
  const ux = Math.sin(bearing)
  const uy = Math.cos(bearing)
  return {
    ux,
    uy,
    perUx: 1 / ux,
    perUy: 1 / uy,
    rise:
      Math.tan(elevationDeg * DEG) +
      Math.tan(ground.slopeDeg * DEG) * Math.cos((azimuthDeg - ground.aspectDeg) * DEG),
    slant: 1 / Math.cos(elevationDeg * DEG),
    part: dayPart(solarHours),
    hot: solarHours >= HEAT_FROM && solarHours < HEAT_TO,
  }
}

/** True solar time of the day's heat; evening sun on a north side is not hot. */
const HEAT_FROM = 14
const HEAT_TO = 17

/** The sun's directions over ground as it lies; those behind the slope are left out. */
export function directions(
  samples: readonly SunSample[],
  northDeg: number,
  ground: Ground = LEVEL,
): Direction[] {
  return samples
    .map((s) => direction(s.azimuthDeg, s.elevationDeg, northDeg, s.solarHours, ground))
    .filter((d) => d.rise > 0)
}

/**
 * Share of direct light that reaches a point from a direction past everything that stands.
 *
 * @returns 0 to 1; transmissions multiply
 */
export function transmittance(
  solids: readonly Solid[],
  x: number,
  y: number,
  z: number,
  toSun: Direction,
): number {
  let share = 1
  for (const solid of solids) {
    if (isOutOfReach(solid.box, x, y, z, toSun)) continue
    share *= pastSolid(solid, x, y, z, toSun)
    if (share === 0) return 0
  }
  return share
}

/** True when the ray leaves the box's height before it meets its sides, or passes it by. */
function isOutOfReach(box: Box, x: number, y: number, z: number, d: Direction): boolean {
  const x1 = (box.minX - x) * d.perUx
  const x2 = (box.maxX - x) * d.perUx
  const y1 = (box.minY - y) * d.perUy
  const y2 = (box.maxY - y) * d.perUy
  // A ray along an axis from a point on the box's side gives 0 times infinity; such a comparison is false: not out.
  const from = Math.max(0, Math.min(x1, x2), Math.min(y1, y2))
  const to = Math.min((box.topM - z) / d.rise, Math.max(x1, x2), Math.max(y1, y2))
  return from > to
}

/** Share of light past one solid; see `transmittance`. */
export function pastSolid(solid: Solid, x: number, y: number, z: number, d: Direction): number {
  switch (solid.shape) {
    case 'prism':
      return pastPrism(solid, x, y, z, d)
    case 'screen':
      return pastScreen(solid, x, y, z, d)
    case 'crown':
      return pastCrown(solid, x, y, z, d)
  }
}

/** A point this near a face, in metres, is on it. */
const TOUCH_M = 1e-6

/**
 * A building. A point on its face is outside: it is lit from its own side only. A point within the footprint
 * and below the top gets nothing.
 */
function pastPrism(p: Prism, x: number, y: number, z: number, d: Direction): 0 | 1 {
  if (z < p.heightM && isInside(p.ring, x + d.ux * TOUCH_M * 2, y + d.uy * TOUCH_M * 2)) return 0
  const n = p.ring.length
  for (let i = 0; i < n; i++) {
    const s = metresToCrossing(x, y, d, p.ring[i]!, p.ring[i + 1 === n ? 0 : i + 1]!)
    if (s !== undefined && s > TOUCH_M && z + s * d.rise < p.heightM) return 0
  }
  const roof = p.overhang
  if (roof && z < roof.heightM) {
    const s = (roof.heightM - z) / d.rise
    if (isWithin(p.ring, x + d.ux * s, y + d.uy * s, roof.depthM)) return 0
  }
  return 1
}

const isWithin = (ring: Ring, x: number, y: number, margin: number) =>
  isInside(ring, x, y) || distanceToBoundary(ring, x, y) <= margin

/**
 * A wall, fence or hedge: each crossing below its top passes `transmission`. With a thickness it is the band
 * within half of it of the line, and one passage through the band is one crossing. A point exactly on the line
 * (or in the band) and below the top is in it: one crossing, whatever the direction.
 */
function pastScreen(w: Screen, x: number, y: number, z: number, d: Direction): number {
  if (z >= w.heightM) return 1
  const reach = (w.heightM - z) / d.rise
  const half = w.thicknessM / 2
  const passages =
    half > 0 ? bandPassages(w.line, x, y, d, half, reach) : lineCrossings(w.line, x, y, d, reach)
  return passages === 0 ? 1 : w.transmission ** passages
}

function lineCrossings(line: readonly Point[], x: number, y: number, d: Direction, reach: number): number {
  for (let i = 0; i + 1 < line.length; i++)
    if (distanceToSegment(x, y, line[i]!, line[i + 1]!) <= TOUCH_M) return 1
  let found = 0
  for (let i = 0; i + 1 < line.length; i++) {
    const s = metresToCrossing(x, y, d, line[i]!, line[i + 1]!)
    if (s !== undefined && s > 0 && s < reach) found++
  }
  return found
}

/** The stretch of a ray within something, metres over the ground: from, to. Kept, because rays are many. */
const span = new Float64Array(2)
/** Stretches of one ray within the segments of a band, sorted by where they begin. */
let starts = new Float64Array(8)
let ends = new Float64Array(8)

/**
 * Separate passages of a ray, from its start and before `reach`, through the band within `half` metres of a line:
 * overlapping stretches of neighbouring segments are one passage.
 */
function bandPassages(
  line: readonly Point[],
  x: number,
  y: number,
  d: Direction,
  half: number,
  reach: number,
): number {
  if (line.length > starts.length) {
    starts = new Float64Array(line.length)
    ends = new Float64Array(line.length)
  }
  let n = 0
  for (let i = 0; i + 1 < line.length; i++) {
    if (!stadiumSpan(x, y, d, line[i]!, line[i + 1]!, half) || span[1]! <= 0) continue
    const from = Math.max(0, span[0]!)
    let k = n++
    for (; k > 0 && starts[k - 1]! > from; k--) {
      starts[k] = starts[k - 1]!
      ends[k] = ends[k - 1]!
    }
    starts[k] = from
    ends[k] = span[1]!
  }
  let passages = 0
  let end = -Infinity
  for (let k = 0; k < n && starts[k]! < reach; k++) {
    if (starts[k]! > end) passages++
    end = Math.max(end, ends[k]!)
  }
  return passages
}

/**
 * The stretch of a ray within `half` metres of a segment, into `span`: two round ends and the straight band between,
 * together convex.
 *
 * @returns whether there is one
 */
function stadiumSpan(x: number, y: number, d: Direction, a: Point, b: Point, half: number): boolean {
  let from = Infinity
  let to = -Infinity
  for (let end = 0; end < 2; end++) {
    const centre = end === 0 ? a : b
    const dx = x - centre[0]
    const dy = y - centre[1]
    const along = dx * d.ux + dy * d.uy
    const disc = along * along - dx * dx - dy * dy + half * half
    if (disc <= 0) continue
    const root = Math.sqrt(disc)
    from = Math.min(from, -along - root)
    to = Math.max(to, -along + root)
  }
  const sx = b[0] - a[0]
  const sy = b[1] - a[1]
  const length = Math.sqrt(sx * sx + sy * sy)
  if (length > 0) {
    const tx = sx / length
    const ty = sy / length
    const px = x - a[0]
    const py = y - a[1]
    if (slabSpan(px * tx + py * ty, d.ux * tx + d.uy * ty, 0, length)) {
      const alongFrom = span[0]!
      const alongTo = span[1]!
      if (slabSpan(py * tx - px * ty, d.uy * tx - d.ux * ty, -half, half)) {
        const bothFrom = Math.max(alongFrom, span[0]!)
        const bothTo = Math.min(alongTo, span[1]!)
        if (bothFrom < bothTo) {
          from = Math.min(from, bothFrom)
          to = Math.max(to, bothTo)
        }
      }
    }
  }
  span[0] = from
  span[1] = to
  return from <= to
}

/** Where `low <= start + slope s <= high`, into `span`; returns whether anywhere. */
function slabSpan(start: number, slope: number, low: number, high: number): boolean {
  if (Math.abs(slope) < 1e-12) {
    span[0] = -Infinity
    span[1] = Infinity
    return start >= low && start <= high
  }
  const s1 = (low - start) / slope
  const s2 = (high - start) / slope
  span[0] = Math.min(s1, s2)
  span[1] = Math.max(s1, s2)
  return true
}

/** The stretch of a ray over a disc about the origin; (dx, dy) is the ray's start. */
function circleSpan(dx: number, dy: number, d: Direction, radius: number): [number, number] | undefined {
  const b = dx * d.ux + dy * d.uy
  const disc = b * b - (dx * dx + dy * dy - radius * radius)
  if (disc <= 0) return undefined
  const root = Math.sqrt(disc)
  return [-b - root, -b + root]
}

/** A tree: its trunk is opaque up to the clear stem, its crown passes T^(chord / mean diameter). */
function pastCrown(t: Crown, x: number, y: number, z: number, d: Direction): number {
  const dx = x - t.x
  const dy = y - t.y
  const over = circleSpan(dx, dy, d, Math.max(t.radiusM, t.trunkRadiusM))
  if (!over || over[1] <= 0 || z + Math.max(0, over[0]) * d.rise >= t.heightM) return 1
  const trunk = circleSpan(dx, dy, d, t.trunkRadiusM)
  if (trunk && trunk[1] > 0 && z + Math.max(0, trunk[0]) * d.rise < t.clearStemM) return 0
  const run = crownRun(t, dx, dy, z, d)
  if (run <= GRAZE_M) return 1
  const c = (t.heightM - t.clearStemM) / 2
  const meanDiameter = 2 * Math.cbrt(t.radiusM * t.radiusM * c)
  const chord = run * d.slant
  return t.transmission ** (chord / meanDiameter)
}

/** A ray that is in a crown for no more than this, metres over the ground, only grazes it: so little is lost in rounding. */
export const GRAZE_M = 1e-6

/** False for a trunk cut off below its crown. */
export const hasCrown = (t: Crown): boolean => t.heightM - t.clearStemM > 1e-3 && t.radiusM > 1e-3

/** Metres over the ground for which the ray, from its start onwards, is inside the crown. */
function crownRun(t: Crown, dx: number, dy: number, z: number, d: Direction): number {
  const c = (t.heightM - t.clearStemM) / 2
  const a = t.radiusM
  if (!hasCrown(t)) return 0
  if (t.crownShape === 'ellipsoid') {
    const dz = z - (t.clearStemM + c)
    const A = 1 / (a * a) + (d.rise * d.rise) / (c * c)
    const B = (dx * d.ux + dy * d.uy) / (a * a) + (dz * d.rise) / (c * c)
    const C = (dx * dx + dy * dy) / (a * a) + (dz * dz) / (c * c) - 1
    const disc = B * B - A * C
    if (disc <= 0) return 0
    const root = Math.sqrt(disc)
    return Math.max(0, (-B + root) / A) - Math.max(0, (-B - root) / A)
  }
  const low = Math.max(0, (t.clearStemM - z) / d.rise)
  const high = (t.heightM - z) / d.rise
  if (high <= low) return 0
  if (t.crownShape === 'column') {
    const span = circleSpan(dx, dy, d, a)
    return span ? overlap(span[0], span[1], low, high) : 0
  }
  // Cone of base radius a at the clear stem: |ground offset|^2 <= k^2 (top - height)^2.
  const k2 = (a / (2 * c)) ** 2
  const top = t.heightM - z
  const A = 1 - k2 * d.rise * d.rise
  const B = dx * d.ux + dy * d.uy + k2 * top * d.rise
  const C = dx * dx + dy * dy - k2 * top * top
  const disc = B * B - A * C
  if (Math.abs(A) < 1e-12) {
    // The ray runs parallel to the cone's side: 2 B s + C <= 0.
    const s = -C / (2 * B)
    return B > 0 ? overlap(-Infinity, s, low, high) : overlap(s, Infinity, low, high)
  }
  if (disc <= 0) return A < 0 ? high - low : 0
  const root = Math.sqrt(disc)
  const s1 = Math.min((-B - root) / A, (-B + root) / A)
  const s2 = Math.max((-B - root) / A, (-B + root) / A)
  return A > 0
    ? overlap(s1, s2, low, high)
    : overlap(-Infinity, s1, low, high) + overlap(s2, Infinity, low, high)
}

const overlap = (a1: number, a2: number, b1: number, b2: number) =>
  Math.max(0, Math.min(a2, b2) - Math.max(a1, b1))
