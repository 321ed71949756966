import earcut from 'earcut'
import { isInside, signedArea, type Point, type Ring } from '../geometry/index.ts'
import type { Box, Crown, Prism, Screen, Solid } from './obstruction.ts'
import type { Raster } from './raster.ts'
import { GRAZE_M, hasCrown, pastSolid, type Direction } from './trace.ts'

/**
 * Shadows drawn onto the cells of a raster, each obstruction as runs of cells for one direction of the sun. It answers
 * what `transmittance` answers for every cell's centre, without asking cell by cell. Shares of light are whole numbers
 * with 15 bits after the point.
 */
export const FULL_LIGHT = 32_768
const BITS = 15
const HALF = 1 << (BITS - 1)

const inBits = (share: number) => Math.round(share * FULL_LIGHT)

/** Steps of the table of what a crown lets through, per mean diameter of chord. */
const STEPS_PER_DIAMETER = 1024

/** What can be worked out about a solid before the sun is known. */
export type Prepared =
  | { shape: 'prism'; solid: Solid & Prism; base: Int32Array; triangles: Triangle[]; clockwise: boolean }
  | { shape: 'screen'; solid: Solid & Screen; share: number }
  | { shape: 'crown'; solid: Solid & Crown; meanDiameterM: number; table: Uint16Array }

type Triangle = readonly [Point, Point, Point]

/** What of an obstruction is the same for every position of the sun, in cells of a raster. */
export function prepare(raster: Raster, solid: Solid): Prepared {
  switch (solid.shape) {
    case 'prism':
      return {
        shape: 'prism',
        solid,
        base: cellsUnder(raster, solid),
        triangles: solid.overhang ? triangles(solid.ring) : [],
        clockwise: signedArea(solid.ring) < 0,
      }
    case 'screen':
      return { shape: 'screen', solid, share: inBits(solid.transmission) }
    case 'crown': {
      const c = Math.max(0, solid.heightM - solid.clearStemM) / 2
      if (!hasCrown(solid)) return { shape: 'crown', solid, meanDiameterM: 0, table: new Uint16Array(0) }
      const meanDiameterM = 2 * Math.cbrt(solid.radiusM * solid.radiusM * c)
      // On the level no chord is longer than the diagonal of the crown's box.
      const longest = Math.hypot(2 * solid.radiusM, 2 * solid.radiusM, 2 * c) / meanDiameterM
      return { shape: 'crown', solid, meanDiameterM, table: tableOf(solid.transmission, longest) }
    }
  }
}

/** What a crown lets through by the length of the chord, in steps, up to the longest; mean diameters. */
function tableOf(transmission: number, longest: number): Uint16Array {
  const table = Uint16Array.from({ length: Math.ceil(longest * STEPS_PER_DIAMETER) + 2 }, (_, i) =>
    inBits(transmission ** (i / STEPS_PER_DIAMETER)),
  )
  // A chord shorter than half a step is a chord: through an opaque crown nothing passes.
  if (transmission === 0) table[0] = 0
  return table
}

/** The table, made longer where over sloping ground a chord is longer than on the level: mean diameters. */
function tableUpTo(p: Prepared & { shape: 'crown' }, longest: number): Uint16Array {
  if (longest * STEPS_PER_DIAMETER + 1 >= p.table.length) p.table = tableOf(p.solid.transmission, longest)
  return p.table
}

/** Runs of cells under a building, as pairs of first and one past the last. */
function cellsUnder(raster: Raster, p: Solid & Prism): Int32Array {
  const runs: number[] = []
  const first = Math.max(0, Math.floor((p.box.minY - raster.y0) / raster.cellM))
  const last = Math.min(raster.rows - 1, Math.floor((p.box.maxY - raster.y0) / raster.cellM))
  for (let row = first; row <= last; row++) {
    const end = raster.firstAt[row * (raster.columns + 1) + raster.columns]!
    for (let i = raster.firstAt[row * (raster.columns + 1)]!; i < end; i++) {
      if (!isInside(p.ring, raster.x[i]!, raster.y[i]!)) continue
      if (runs.at(-1) === i) runs[runs.length - 1] = i + 1
      else runs.push(i, i + 1)
    }
  }
  return Int32Array.from(runs)
}

function triangles(ring: Ring): Triangle[] {
  const corners = earcut(ring.flat())
  return Array.from({ length: corners.length / 3 }, (_, k): Triangle => {
    const corner = (i: number) => ring[corners[3 * k + i]!]!
    return [corner(0), corner(1), corner(2)]
  })
}

/** Draws shadows onto one raster. Holds scratch rows, so one brush serves one thread. */
export class ShadowBrush {
  /** Cells touched since `forget`, by row: from, to. */
  readonly touchedFrom: Int32Array
  readonly touchedTo: Int32Array
  /** Rows touched since `forget`: from, to. */
  firstRow = 0
  endRow = 0

  private readonly low: Float64Array
  private readonly high: Float64Array
  private polygonFirst: number
  private polygonEnd = 0
  private readonly runFrom: Int32Array
  private readonly runTo: Int32Array
  /** Stretches of one thick line that each cell's ray passes, with the cells it was counted for. */
  private readonly passages: Uint8Array
  private countedFrom: number
  private countedTo = 0
  private readonly perCell: number
  /** Farther than this over the ground no shadow matters. */
  private readonly spanM: number

  constructor(private readonly raster: Raster) {
    const { rows, columns, cellM, count } = raster
    this.low = new Float64Array(rows).fill(Infinity)
    this.high = new Float64Array(rows).fill(-Infinity)
    this.touchedFrom = new Int32Array(rows).fill(count)
    this.touchedTo = new Int32Array(rows)
    this.firstRow = rows
    this.passages = new Uint8Array(count)
    this.perCell = 1 / cellM
    this.spanM = Math.hypot(rows * cellM, columns * cellM)
    this.polygonFirst = rows
    this.runFrom = new Int32Array(rows)
    this.runTo = new Int32Array(rows)
    this.countedFrom = count
  }

  /** Makes nothing touched. */
  forget(): void {
    for (let row = this.firstRow; row < this.endRow; row++) {
      this.touchedFrom[row] = this.raster.count
      this.touchedTo[row] = 0
    }
    this.firstRow = this.raster.rows
    this.endRow = 0
  }

  /** Multiplies into each cell the share of light that passes the solid from a direction. */
  draw(p: Prepared, d: Direction, into: Uint16Array): void {
    if (this.isElsewhere(p.solid.box, d)) return
    switch (p.shape) {
      case 'prism':
        return this.drawPrism(p, d, into)
      case 'screen':
        return this.drawScreen(p, d, into)
      case 'crown':
        return this.drawCrown(p, d, into)
    }
  }

  /** True when the shadow of a box falls beside the raster. */
  private isElsewhere(box: Box, d: Direction): boolean {
    const r = this.raster
    const reach = this.reach(box.topM, d, box)
    const dx = -d.ux * reach
    const dy = -d.uy * reach
    return (
      Math.max(box.maxX, box.maxX + dx) < r.x0 ||
      Math.max(box.maxY, box.maxY + dy) < r.y0 ||
      Math.min(box.minX, box.minX + dx) > r.x0 + r.columns * r.cellM ||
      Math.min(box.minY, box.minY + dy) > r.y0 + r.rows * r.cellM
    )
  }

  /** Length of the shadow of a height, no longer than takes it across the whole raster. */
  private reach(heightM: number, d: Direction, box: Box): number {
    const r = this.raster
    const away =
      Math.max(0, r.x0 - box.maxX, box.minX - r.x0 - r.columns * r.cellM) +
      Math.max(0, r.y0 - box.maxY, box.minY - r.y0 - r.rows * r.cellM)
    const across = box.maxX - box.minX + box.maxY - box.minY
    return Math.min(heightM / d.rise, this.spanM + away + across)
  }

  private drawPrism(p: Prepared & { shape: 'prism' }, d: Direction, into: Uint16Array): void {
    const { ring, heightM, overhang, box } = p.solid
    if (heightM > 0) for (let k = 0; k < p.base.length; k += 2) this.darken(p.base[k]!, p.base[k + 1]!, into)
    const reach = this.reach(heightM, d, box)
    const ox = -d.ux * reach
    const oy = -d.uy * reach
    const n = ring.length
    for (let i = 0; i < n; i++) {
      const a = ring[i]!
      const b = ring[i + 1 === n ? 0 : i + 1]!
      // A ray from outside meets a face turned to it first; the faces behind add nothing.
      const facing = (b[1] - a[1]) * d.ux - (b[0] - a[0]) * d.uy
      if (facing < 0 === p.clockwise) continue
      this.sweep(a, b, ox, oy, 0)
      this.fill(0, into)
    }
    if (!overhang) return
    const shift = overhang.heightM / d.rise
    const sx = -d.ux * shift
    const sy = -d.uy * shift
    for (const [a, b, c] of p.triangles) {
      this.edge(a[0] + sx, a[1] + sy, b[0] + sx, b[1] + sy)
      this.edge(b[0] + sx, b[1] + sy, c[0] + sx, c[1] + sy)
      this.edge(c[0] + sx, c[1] + sy, a[0] + sx, a[1] + sy)
      this.fill(0, into)
    }
    for (let i = 0; i < n; i++) {
      const a = ring[i]!
      const b = ring[i + 1 === n ? 0 : i + 1]!
      this.sweep([a[0] + sx, a[1] + sy], [b[0] + sx, b[1] + sy], 0, 0, overhang.depthM)
      this.fill(0, into)
    }
  }

  private drawScreen(p: Prepared & { shape: 'screen' }, d: Direction, into: Uint16Array): void {
    const { line, heightM, thicknessM, box } = p.solid
    if (heightM <= 0 || p.share === FULL_LIGHT) return
    const reach = this.reach(heightM, d, box)
    const ox = -d.ux * reach
    const oy = -d.uy * reach
    // Stretches of a thick line overlap at its corners, where one passage must not count twice.
    const counted = thicknessM > 0 && p.share > 0 && line.length > 2
    for (let i = 0; i + 1 < line.length; i++) {
      this.sweep(line[i]!, line[i + 1]!, ox, oy, thicknessM / 2)
      if (counted) this.count()
      else this.fill(p.share, into)
    }
    if (counted) this.passCounted(p, d, into)
  }

  /** Adds the polygon to each cell's number of stretches passed. */
  private count(): void {
    const runs = this.takeRuns()
    for (let k = 0; k < runs; k++) {
      const from = this.runFrom[k]!
      const to = this.runTo[k]!
      if (from < this.countedFrom) this.countedFrom = from
      if (to > this.countedTo) this.countedTo = to
      for (let i = from; i < to; i++) this.passages[i]!++
    }
  }

  /** One stretch is one passage; where a ray meets more, the ray itself is asked. */
  private passCounted(p: Prepared & { shape: 'screen' }, d: Direction, into: Uint16Array): void {
    const { passages, raster } = this
    for (let i = this.countedFrom; i < this.countedTo; i++) {
      if (passages[i] === 0) continue
      // What is dark already stays so.
      const share =
        passages[i] === 1 || into[i] === 0
          ? p.share
          : inBits(pastSolid(p.solid, raster.x[i]!, raster.y[i]!, 0, d))
      into[i] = (into[i]! * share + HALF) >>> BITS
      passages[i] = 0
    }
    this.countedFrom = raster.count
    this.countedTo = 0
  }

  private drawCrown(p: Prepared & { shape: 'crown' }, d: Direction, into: Uint16Array): void {
    const t = p.solid
    if (t.trunkRadiusM > 0 && t.clearStemM > 0) {
      const reach = this.reach(t.clearStemM, d, t.box)
      this.sweep([t.x, t.y], [t.x, t.y], -d.ux * reach, -d.uy * reach, t.trunkRadiusM)
      this.fill(0, into)
    }
    if (!hasCrown(t)) return
    switch (t.crownShape) {
      case 'ellipsoid':
        return this.drawEllipsoid(p, d, into)
      case 'column':
        return this.drawColumn(p, d, into)
      case 'cone':
        return this.drawCone(p, d, into)
    }
  }

  /**
   * Parallel chords of an ellipsoid shrink as sqrt(1 - r^2) with the distance r from the middle one, measured in the
   * ellipse that is its shadow.
   */
  private drawEllipsoid(p: Prepared & { shape: 'crown' }, d: Direction, into: Uint16Array): void {
    const t = p.solid
    const { raster, perCell } = this
    const { rows, columns, cellM, firstAt, x: cellX } = raster
    const a2 = t.radiusM * t.radiusM
    const c = (t.heightM - t.clearStemM) / 2
    const shift = (t.clearStemM + c) / d.rise
    const cx = t.x - d.ux * shift
    const cy = t.y - d.uy * shift
    const stretch = (c * c) / (d.rise * d.rise)
    const k = stretch / (a2 + stretch)
    const halfY = Math.sqrt(a2 + stretch * d.uy * d.uy)
    const longest = (2 * d.slant) / Math.sqrt(1 / a2 + 1 / stretch) / p.meanDiameterM
    const scale = longest * STEPS_PER_DIAMETER
    const grazes = (GRAZE_M * d.slant * STEPS_PER_DIAMETER) / p.meanDiameterM
    const table = tableUpTo(p, longest)
    const A = (1 - k * d.ux * d.ux) / a2
    const first = Math.max(0, Math.ceil((cy - halfY - raster.y0) * perCell - 0.5))
    const end = Math.min(rows, Math.ceil((cy + halfY - raster.y0) * perCell - 0.5))
    for (let row = first; row < end; row++) {
      const dy = raster.y0 + (row + 0.5) * cellM - cy
      // 1 - r^2 along the row: C + 2 B x - A x^2 with x from the middle of the shadow.
      const B = (k * d.ux * d.uy * dy) / a2
      const C = 1 - ((1 - k * d.uy * d.uy) * dy * dy) / a2
      const disc = B * B + A * C
      if (disc <= 0) continue
      const middle = cx + B / A
      const half = Math.sqrt(disc) / A
      const c0 = Math.max(0, Math.ceil((middle - half - raster.x0) * perCell - 0.5))
      const c1 = Math.min(columns, Math.ceil((middle + half - raster.x0) * perCell - 0.5))
      if (c0 >= c1) continue
      const from = firstAt[row * (columns + 1) + c0]!
      const to = firstAt[row * (columns + 1) + c1]!
      if (from === to) continue
      this.touch(row, from, to)
      const top = C + (B * B) / A
      for (let i = from; i < to; i++) {
        const x = cellX[i]! - middle
        const w = top - A * x * x
        if (w <= 0) continue
        const steps = Math.sqrt(w) * scale
        if (steps > grazes) into[i] = (into[i]! * table[(steps + 0.5) | 0]! + HALF) >>> BITS
      }
    }
  }

  /** A column: over the ground a ray is inside it between the circle's two sides and the crown's bottom and top. */
  private drawColumn(p: Prepared & { shape: 'crown' }, d: Direction, into: Uint16Array): void {
    const t = p.solid
    const { x: cellX, y: cellY } = this.raster
    const low = t.clearStemM / d.rise
    const high = t.heightM / d.rise
    const near = this.reach(t.clearStemM, d, t.box)
    const far = this.reach(t.heightM, d, t.box) - near
    const start: Point = [t.x - d.ux * near, t.y - d.uy * near]
    this.sweep(start, start, -d.ux * far, -d.uy * far, t.radiusM)
    const a2 = t.radiusM * t.radiusM
    const scale = (d.slant / p.meanDiameterM) * STEPS_PER_DIAMETER
    const table = tableUpTo(p, (Math.min(2 * t.radiusM, high - low) * d.slant) / p.meanDiameterM)
    const runs = this.takeRuns()
    for (let k = 0; k < runs; k++)
      for (let i = this.runFrom[k]!; i < this.runTo[k]!; i++) {
        const dx = cellX[i]! - t.x
        const dy = cellY[i]! - t.y
        const b = dx * d.ux + dy * d.uy
        const disc = b * b - dx * dx - dy * dy + a2
        if (disc <= 0) continue
        const root = Math.sqrt(disc)
        const run = Math.min(root - b, high) - Math.max(-root - b, low)
        if (run > GRAZE_M) into[i] = (into[i]! * table[(run * scale + 0.5) | 0]! + HALF) >>> BITS
      }
  }

  /** A cone, widest at the clear stem: |offset from the stem|^2 <= k2 (top - height)^2, between clear stem and top. */
  private drawCone(p: Prepared & { shape: 'crown' }, d: Direction, into: Uint16Array): void {
    const t = p.solid
    const { x: cellX, y: cellY } = this.raster
    const low = t.clearStemM / d.rise
    const high = t.heightM / d.rise
    this.coneOutline(t, d, low, high - low)
    const k2 = (t.radiusM / (t.heightM - t.clearStemM)) ** 2
    const A = 1 - k2 * d.rise * d.rise
    const scale = (d.slant / p.meanDiameterM) * STEPS_PER_DIAMETER
    const table = tableUpTo(p, (Math.min(2 * t.radiusM, high - low) * d.slant) / p.meanDiameterM)
    const runs = this.takeRuns()
    for (let k = 0; k < runs; k++)
      for (let i = this.runFrom[k]!; i < this.runTo[k]!; i++) {
        const dx = cellX[i]! - t.x
        const dy = cellY[i]! - t.y
        const B = dx * d.ux + dy * d.uy + k2 * t.heightM * d.rise
        const C = dx * dx + dy * dy - k2 * t.heightM * t.heightM
        const disc = B * B - A * C
        let run = 0
        if (disc > 0) {
          // The two roots without a division by a small A: their product is C / A.
          const q = B > 0 ? -B - Math.sqrt(disc) : -B + Math.sqrt(disc)
          const r1 = q / A
          const r2 = C / q
          const s1 = r1 < r2 ? r1 : r2
          const s2 = r1 < r2 ? r2 : r1
          // Flatter than the cone's side, a ray is inside between the roots; steeper, beyond them.
          run =
            A > 0
              ? Math.min(s2, high) - Math.max(s1, low)
              : Math.max(0, Math.min(s1, high) - low) + Math.max(0, high - Math.max(s2, low))
        } else if (A < 0) run = high - low
        if (run > GRAZE_M) into[i] = (into[i]! * table[(run * scale + 0.5) | 0]! + HALF) >>> BITS
      }
  }

  /** The hull of the shadow of a cone's base and of its tip. */
  private coneOutline(t: Crown, d: Direction, near: number, far: number): void {
    const x = t.x - d.ux * near
    const y = t.y - d.uy * near
    this.disc(x, y, t.radiusM)
    if (far <= t.radiusM) return
    const along = (t.radiusM * t.radiusM) / far
    const across = t.radiusM * Math.sqrt(1 - (t.radiusM / far) ** 2)
    const tipX = x - d.ux * far
    const tipY = y - d.uy * far
    const touchX = x - d.ux * along
    const touchY = y - d.uy * along
    this.edge(touchX - d.uy * across, touchY + d.ux * across, tipX, tipY)
    this.edge(touchX + d.uy * across, touchY - d.ux * across, tipX, tipY)
  }

  /** Adds the hull of the segment a-b and its copy moved by (ox, oy), widened by a radius, to the polygon. */
  private sweep(a: Point, b: Point, ox: number, oy: number, radius: number): void {
    if (radius === 0) {
      this.edge(a[0], a[1], b[0], b[1])
      this.edge(a[0], a[1], a[0] + ox, a[1] + oy)
      this.edge(b[0], b[1], b[0] + ox, b[1] + oy)
      this.edge(a[0] + ox, a[1] + oy, b[0] + ox, b[1] + oy)
      return
    }
    this.disc(a[0], a[1], radius)
    this.disc(a[0] + ox, a[1] + oy, radius)
    this.band(a[0], a[1], a[0] + ox, a[1] + oy, radius)
    if (a === b) return
    this.disc(b[0], b[1], radius)
    this.disc(b[0] + ox, b[1] + oy, radius)
    this.band(b[0], b[1], b[0] + ox, b[1] + oy, radius)
    this.band(a[0], a[1], b[0], b[1], radius)
    this.band(a[0] + ox, a[1] + oy, b[0] + ox, b[1] + oy, radius)
  }

  /** The two long sides of a segment's band; ones inside the hull do no harm. */
  private band(ax: number, ay: number, bx: number, by: number, radius: number): void {
    const length = Math.hypot(bx - ax, by - ay)
    if (length === 0) return
    const nx = (-(by - ay) / length) * radius
    const ny = ((bx - ax) / length) * radius
    this.edge(ax + nx, ay + ny, bx + nx, by + ny)
    this.edge(ax - nx, ay - ny, bx - nx, by - ny)
  }

  private disc(x: number, y: number, radius: number): void {
    const { raster, perCell, low, high } = this
    const first = Math.max(0, Math.ceil((y - radius - raster.y0) * perCell - 0.5))
    const end = Math.min(raster.rows, Math.ceil((y + radius - raster.y0) * perCell - 0.5))
    for (let row = first; row < end; row++) {
      const dy = raster.y0 + (row + 0.5) * raster.cellM - y
      const half = Math.sqrt(Math.max(0, radius * radius - dy * dy))
      if (x - half < low[row]!) low[row] = x - half
      if (x + half > high[row]!) high[row] = x + half
    }
    if (first < end) this.widen(first, end)
  }

  /** Widens the polygon's rows by an edge. Worked out from its lower end, so that a shared edge is the same for both sides. */
  private edge(ax: number, ay: number, bx: number, by: number): void {
    if (ay > by || (ay === by && ax > bx)) return this.edge(bx, by, ax, ay)
    const { raster, perCell, low, high } = this
    const first = Math.max(0, Math.ceil((ay - raster.y0) * perCell - 0.5))
    const end = Math.min(raster.rows, Math.ceil((by - raster.y0) * perCell - 0.5))
    if (first >= end) return
    const slope = (bx - ax) / (by - ay)
    const step = slope * raster.cellM
    let x = ax + (raster.y0 + (first + 0.5) * raster.cellM - ay) * slope
    for (let row = first; row < end; row++) {
      if (x < low[row]!) low[row] = x
      if (x > high[row]!) high[row] = x
      x += step
    }
    this.widen(first, end)
  }

  private widen(first: number, end: number): void {
    if (first < this.polygonFirst) this.polygonFirst = first
    if (end > this.polygonEnd) this.polygonEnd = end
  }

  /** Multiplies a share into the polygon's cells. */
  private fill(share: number, into: Uint16Array): void {
    const runs = this.takeRuns()
    for (let k = 0; k < runs; k++) {
      const from = this.runFrom[k]!
      const to = this.runTo[k]!
      if (share > 0) for (let i = from; i < to; i++) into[i] = (into[i]! * share + HALF) >>> BITS
      else if (to - from > 12) into.fill(0, from, to)
      else for (let i = from; i < to; i++) into[i] = 0
    }
  }

  /**
   * Turns the polygon into runs of cells and forgets it.
   *
   * @returns how many of `runFrom` and `runTo` hold a run
   */
  private takeRuns(): number {
    const { raster, perCell, low, high } = this
    const { columns, firstAt, x0 } = raster
    let runs = 0
    for (let row = this.polygonFirst; row < this.polygonEnd; row++) {
      const c0 = Math.max(0, Math.ceil((low[row]! - x0) * perCell - 0.5))
      const c1 = Math.min(columns, Math.ceil((high[row]! - x0) * perCell - 0.5))
      low[row] = Infinity
      high[row] = -Infinity
      if (c0 >= c1) continue
      const from = firstAt[row * (columns + 1) + c0]!
      const to = firstAt[row * (columns + 1) + c1]!
      if (from === to) continue
      this.touch(row, from, to)
      this.runFrom[runs] = from
      this.runTo[runs++] = to
    }
    this.polygonFirst = raster.rows
    this.polygonEnd = 0
    return runs
  }

  private darken(from: number, to: number, into: Uint16Array): void {
    into.fill(0, from, to)
    // A run lies in one row.
    this.touch(Math.floor((this.raster.y[from]! - this.raster.y0) * this.perCell), from, to)
  }

  private touch(row: number, from: number, to: number): void {
    if (from < this.touchedFrom[row]!) this.touchedFrom[row] = from
    if (to > this.touchedTo[row]!) this.touchedTo[row] = to
    if (row < this.firstRow) this.firstRow = row
    if (row + 1 > this.endRow) this.endRow = row + 1
  }
}
