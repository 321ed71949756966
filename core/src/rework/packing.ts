import type { Point } from '../geometry/index.ts'

/** Lengths that differ by less are the same, metres. */
const SAME_M = 1e-6

/**
 * Places rounds in a round so that none overlap: the largest first, each as far out as it can touch two others, or another and the
 * edge. A quick hand's way, which misses some that could just be fitted; what it places does fit.
 *
 * @returns the middles by the order of the radii, about the middle of the outer round; undefined where it does not manage
 */
export function packedIn(outerM: number, radiiM: readonly number[]): Point[] | undefined {
  const order = radiiM.map((_, i) => i).sort((a, b) => radiiM[b]! - radiiM[a]!)
  return hugging(outerM, radiiM, order, 'out') ?? hugging(outerM, radiiM, order, 'in')
}

/** Rounds that lie already, one after another, and the one that is being laid: asked for thousands of sets, so without a list for each. */
class Laying {
  private readonly x: number[] = []
  private readonly y: number[] = []
  private readonly r: number[] = []
  private radius = 0
  private bestX = NaN
  private bestY = NaN
  private bestOut = 0

  constructor(
    private readonly outerM: number,
    private readonly way: 'out' | 'in',
  ) {}

  /** Lays a round as far out, or in, as it goes; of places as far out the first round from the east, so that the same radii lie the same. */
  lay(radius: number): Point | undefined {
    this.radius = radius
    this.bestX = NaN
    const { x, y, r, outerM } = this
    const many = x.length
    if (many === 0) this.consider(outerM - radius, 0)
    this.consider(0, 0)
    for (let i = 0; i < many; i++) {
      for (let k = i + 1; k < many; k++)
        this.considerCrossings(x[i]!, y[i]!, r[i]! + radius, x[k]!, y[k]!, r[k]! + radius)
      // Where it touches another and the edge.
      this.considerCrossings(x[i]!, y[i]!, r[i]! + radius, 0, 0, outerM - radius)
    }
    if (Number.isNaN(this.bestX)) return undefined
    x.push(this.bestX)
    y.push(this.bestY)
    r.push(radius)
    return [this.bestX, this.bestY]
  }

  private consider(px: number, py: number): void {
    const { x, y, r, radius } = this
    const out = Math.hypot(px, py)
    if (out + radius > this.outerM + SAME_M) return
    for (let i = 0; i < x.length; i++)
      if (Math.hypot(px - x[i]!, py - y[i]!) < radius + r[i]! - SAME_M) return
    if (!Number.isNaN(this.bestX)) {
      const further = out - this.bestOut
      const isBetter =
        Math.abs(further) < SAME_M
          ? angle(px, py) < angle(this.bestX, this.bestY) - SAME_M
          : (this.way === 'out') === further > 0
      if (!isBetter) return
    }
    this.bestX = px
    this.bestY = py
    this.bestOut = out
  }

  /** Where two circles cross. */
  private considerCrossings(ax: number, ay: number, ra: number, bx: number, by: number, rb: number): void {
    const dx = bx - ax
    const dy = by - ay
    const d = Math.hypot(dx, dy)
    if (d < SAME_M || ra < 0 || rb < 0) return
    const along = (d * d + ra * ra - rb * rb) / (2 * d)
    const square = ra * ra - along * along
    // Circles that touch cross there, for all that rounding says.
    if (square < -SAME_M) return
    const off = Math.sqrt(Math.max(0, square))
    const ux = dx / d
    const uy = dy / d
    this.consider(ax + along * ux - off * uy, ay + along * uy + off * ux)
    this.consider(ax + along * ux + off * uy, ay + along * uy - off * ux)
  }
}

const angle = (x: number, y: number): number => (Math.atan2(y, x) + 2 * Math.PI) % (2 * Math.PI)

function hugging(
  outerM: number,
  radiiM: readonly number[],
  order: readonly number[],
  way: 'out' | 'in',
): Point[] | undefined {
  const laying = new Laying(outerM, way)
  const middles: Point[] = []
  for (const i of order) {
    const at = laying.lay(radiiM[i]!)
    if (!at) return undefined
    middles[i] = at
  }
  return middles
}
