/** A robust trend and the range the data leave it. */
export interface Trend {
  /** Change of y per unit of x: the median over all pairs of points. */
  slope: number
  /** Line through the medians: y = intercept + slope x. */
  intercept: number
  /** Pairs that rise less pairs that fall, Kendall's S. */
  s: number
  /** Chance of an S this far from 0, either way, were there no trend: exact for up to ten points without ties in y. */
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
    p: kendallChance(points.length, s),
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

/** Two-sided chance of |S| this large or larger among n points in random order. */
function kendallChance(n: number, s: number): number {
  if (s === 0) return 1
  if (n > EXACT_UP_TO) {
    // Kendall and Gibbons 1990: S is near normal, with a continuity correction of one.
    const z = (Math.abs(s) - 1) / Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18)
    return 2 * upperNormal(z)
  }
  // Orders of n points by their number of inversions, built up a point at a time; S = n(n-1)/2 - 2 inversions.
  let counts = [1]
  for (let k = 2; k <= n; k++) {
    const next = new Array<number>(counts.length + k - 1).fill(0)
    counts.forEach((c, i) => {
      for (let j = 0; j < k; j++) next[i + j]! += c
    })
    counts = next
  }
  const most = (n * (n - 1)) / 2
  const total = counts.reduce((a, b) => a + b, 0)
  const extreme = counts.reduce((sum, c, i) => sum + (most - 2 * i >= Math.abs(s) ? c : 0), 0)
  return Math.min(1, (2 * extreme) / total)
}

/** Abramowitz and Stegun 1964, 26.2.17; error below 7.5e-8. */
function upperNormal(z: number): number {
  const t = 1 / (1 + 0.2316419 * z)
  const poly =
    t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))))
  return (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) * poly
}
