/**
 * Theil (1950) and Sen (1968): the slope is the median slope over all pairs of points, so that one bad season moves it
 * little. Pairs at the same x are left out.
 *
 * @returns change of y per unit of x; undefined for fewer than two different x
 */
export function theilSen(points: readonly (readonly [x: number, y: number])[]): number | undefined {
  const slopes: number[] = []
  for (let i = 0; i < points.length; i++)
    for (let j = i + 1; j < points.length; j++) {
      const [x1, y1] = points[i]!
      const [x2, y2] = points[j]!
      if (x1 === x2) continue
      slopes.push((y2 - y1) / (x2 - x1))
    }
  return slopes.length === 0 ? undefined : median(slopes)
}

/** The middle value, of an even number the mean of the two middle ones; NaN of none. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  const half = sorted.length / 2
  return Number.isInteger(half) ? (sorted[half - 1]! + sorted[half]!) / 2 : sorted[Math.floor(half)]!
}
