/**
 * Least squares by Householder's reflections of the weighted rows (Golub and Van Loan 2013, Matrix Computations, algorithms 5.2.1
 * and 5.3.2), written apart from the engine: no normal equations, nothing shrunk.
 *
 * @param rows of the design, as many columns each and of full rank
 * @param weight of each row: its error variance is the model's divided by this
 * @returns the coefficients, and the factor R of the design, upper triangular
 */
export function leastSquares(
  rows: readonly (readonly number[])[],
  y: readonly number[],
  weight: readonly number[],
): { coefficients: number[]; r: number[][] } {
  const columns = rows[0]!.length
  const a = rows.map((row, i) => [...row, y[i]!].map((v) => v * Math.sqrt(weight[i]!)))
  for (let k = 0; k < columns; k++) {
    const length = Math.hypot(...a.slice(k).map((row) => row[k]!))
    const v = a.map((row, i) => (i < k ? 0 : row[k]!))
    v[k]! += v[k]! < 0 ? -length : length
    const norm = v.reduce((sum, e) => sum + e * e, 0)
    for (let j = k; j <= columns; j++) {
      const along = (2 * a.reduce((sum, row, i) => sum + v[i]! * row[j]!, 0)) / norm
      a.forEach((row, i) => (row[j]! -= along * v[i]!))
    }
  }
  const r = a.slice(0, columns).map((row) => row.slice(0, columns))
  const coefficients = new Array<number>(columns).fill(0)
  for (let k = columns - 1; k >= 0; k--) {
    const known = r[k]!.reduce((sum, e, j) => (j > k ? sum + e * coefficients[j]! : sum), 0)
    coefficients[k] = (a[k]![columns]! - known) / r[k]![k]!
  }
  return { coefficients, r }
}

/**
 * Variance of a sum of coefficients, over the error's.
 *
 * @param r as `leastSquares` gives it
 * @param asked how often each coefficient is in the sum
 */
export function varianceOfSum(r: readonly (readonly number[])[], asked: readonly number[]): number {
  const x: number[] = []
  r.forEach((_, k) => {
    const known = x.reduce((sum, e, j) => sum + r[j]![k]! * e, 0)
    x.push((asked[k]! - known) / r[k]![k]!)
  })
  return x.reduce((sum, e) => sum + e * e, 0)
}
