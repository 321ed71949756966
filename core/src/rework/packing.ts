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

interface Disc {
  at: Point
  r: number
}

function hugging(
  outerM: number,
  radiiM: readonly number[],
  order: readonly number[],
  way: 'out' | 'in',
): Point[] | undefined {
  const placed: Disc[] = []
  const middles: Point[] = radiiM.map(() => [0, 0])
  for (const i of order) {
    const r = radiiM[i]!
    const fits = ([x, y]: Point) =>
      Math.hypot(x, y) + r <= outerM + SAME_M &&
      placed.every((d) => Math.hypot(x - d.at[0], y - d.at[1]) >= r + d.r - SAME_M)
    const candidates = candidatesFor(outerM, r, placed).filter(fits)
    if (candidates.length === 0) return undefined
    const out = (p: Point) => Math.hypot(...p)
    const best = candidates.reduce((a, b) => {
      const further = out(b) - out(a)
      // Of those as far out the first round from the east, so that the same radii lie the same.
      if (Math.abs(further) < SAME_M) return angle(b) < angle(a) - SAME_M ? b : a
      return (way === 'out') === further > 0 ? b : a
    })
    placed.push({ at: best, r })
    middles[i] = best
  }
  return middles
}

const angle = ([x, y]: Point): number => (Math.atan2(y, x) + 2 * Math.PI) % (2 * Math.PI)

/** Where a round could lie: in the middle, at the edge, and wherever it touches two of what is there. */
function candidatesFor(outerM: number, r: number, placed: readonly Disc[]): Point[] {
  const edge: Disc = { at: [0, 0], r: outerM - 2 * r }
  const found: Point[] = placed.length === 0 ? [[outerM - r, 0]] : []
  found.push([0, 0])
  const touched = [...placed, edge]
  touched.forEach((a, i) => {
    for (const b of touched.slice(i + 1)) found.push(...crossings(a.at, a.r + r, b.at, b.r + r))
  })
  return found
}

/** Where two circles cross. */
function crossings(a: Point, ra: number, b: Point, rb: number): Point[] {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
  const d = Math.hypot(dx, dy)
  if (d < SAME_M || ra < 0 || rb < 0) return []
  const along = (d * d + ra * ra - rb * rb) / (2 * d)
  const square = ra * ra - along * along
  // Circles that touch cross there, for all that rounding says.
  if (square < -SAME_M) return []
  const off = Math.sqrt(Math.max(0, square))
  const [ux, uy] = [dx / d, dy / d]
  return [
    [a[0] + along * ux - off * uy, a[1] + along * uy + off * ux],
    [a[0] + along * ux + off * uy, a[1] + along * uy - off * ux],
  ]
}
