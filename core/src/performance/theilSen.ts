import { rollup } from 'd3-array'

/** A robust trend and the range the data leave it. */
export interface Trend {
  /** Change of y per unit of x: the median over all pairs of points. */
  slope: number
  /** Line through the medians: y = intercept + slope x. */
  intercept: number
  /** Pairs that rise less pairs that fall, Kendall's S. */
  s: number
  /** Chance of an S this far from 0, either way, were the same y in any order: exact for up to ten points, ties in y and all. */
  p: number
}

/**
 * Theil (1950) and Sen (1968): the slope is the median slope over all pairs of points, so that one bad season moves it
 * little. Pairs at the same x are left out.
 *
 * @returns undefined for fewer than two different x
 */
export function theilSen(points: readonly (readonly [x: number, y: number])[]): Trend | undefined {
  const slopes: number[] = []
  let s = 0
  for (let i = 0; i < points.length; i++)
    for (let j = i + 1; j < points.length; j++) {
      const [x1, y1] = points[i]!
      const [x2, y2] = points[j]!
      if (x1 === x2) continue
      const slope = (y2 - y1) / (x2 - x1)
      slopes.push(slope)
      s += Math.sign(slope)
    }
  if (slopes.length === 0) return undefined
  const slope = median(slopes)
  return {
    slope,
    intercept: median(points.map(([x, y]) => y - slope * x)),
    s,
    p: kendallChance(
      points.map(([, y]) => y),
      s,
    ),
  }
}

/** The middle value, of an even number the mean of the two middle ones; NaN of none. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  const half = sorted.length / 2
  return Number.isInteger(half) ? (sorted[half - 1]! + sorted[half]!) / 2 : sorted[Math.floor(half)]!
}

/** Of so many values every order is counted; beyond, S is taken for normal. */
const EXACT_UP_TO = 10

/** Two-sided chance of |S| this large or larger among these values in random order. */
function kendallChance(y: readonly number[], s: number): number {
  if (s === 0) return 1
  const n = y.length
  const ties = [
    ...rollup(
      y,
      (of) => of.length,
      (v) => v,
    ).values(),
  ]
  if (n > EXACT_UP_TO) {
    // Kendall and Gibbons 1990, 4.3: S is near normal, its variance less by what ties take, with a continuity correction of one.
    const of = (k: number) => k * (k - 1) * (2 * k + 5)
    const variance = (of(n) - ties.reduce((sum, t) => sum + of(t), 0)) / 18
    return 2 * upperNormal((Math.abs(s) - 1) / Math.sqrt(variance))
  }
  // Orders of the values by their number of inversions, a run of equal ones at a time; S = pairs that differ - 2 inversions.
  let counts = [1]
  let before = 0
  let most = 0
  for (const t of ties) {
    counts = product(counts, placings(before, t))
    most += before * t
    before += t
  }
  const total = counts.reduce((a, b) => a + b, 0)
  const extreme = counts.reduce((sum, c, i) => sum + (Math.abs(most - 2 * i) >= Math.abs(s) ? c : 0), 0)
  return extreme / total
}

/** Ways to place so many equal values among others, by how many of the others each comes after, summed. */
function placings(others: number, equal: number): number[] {
  if (equal === 0 || others === 0) return [1]
  // The last comes after all the others, or they are all placed among one fewer.
  const after = placings(others, equal - 1)
  const fewer = placings(others - 1, equal)
  return Array.from({ length: others * equal + 1 }, (_, i) => (after[i - others] ?? 0) + (fewer[i] ?? 0))
}

function product(a: readonly number[], b: readonly number[]): number[] {
  const sums = new Array<number>(a.length + b.length - 1).fill(0)
  a.forEach((x, i) => b.forEach((y, j) => (sums[i + j]! += x * y)))
  return sums
}

/** Abramowitz and Stegun 1964, 26.2.17; error below 7.5e-8. */
function upperNormal(z: number): number {
  const t = 1 / (1 + 0.2316419 * z)
  const poly =
    t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))))
  return (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * poly
}
