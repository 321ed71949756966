import { leastSquares, varianceOfSum } from '../reference/leastSquares.ts'
import { MixedEquations, type Factor } from '../src/performance/mixedEquations.ts'
import { normal, seededRandom } from '../src/random/index.ts'

/** How far the mixed model’s equations lie from least squares where nothing is shrunk. */
export interface EffectsDeviation {
  /** Of differences between levels of one source, in units of the values. */
  difference: number
  /** Of their standard errors, of their own size. */
  se: number
}

/** So much wider than the error's that effects are what the records alone say. */
const BOUNDLESS = 1e7

/** Records of a crossed and a nested source, unevenly filled but connected. */
export function effectsDeviation(seed: number): EffectsDeviation {
  const random = seededRandom(seed * 19 + 1)
  const dice = (n: number) => Math.floor(random() * n)
  const [rows, columns] = [2 + dice(6), 2 + dice(4)]
  const cells: [row: number, column: number][] = []
  for (let i = 0; i < rows; i++)
    for (let j = 0; j < columns; j++)
      // The first row and column are whole: they tie all levels together.
      for (let k = i === 0 || j === 0 ? 1 : dice(3); k > 0; k--) cells.push([i, j])
  const y = cells.map(([i, j]) => 3 + 0.4 * i - 0.7 * j + normal(random))
  const weight = cells.map(() => 0.2 + random())
  const factor = (name: string, levels: number, of: number[]): Factor => ({
    name,
    levels,
    of: Int32Array.from(of),
  })
  const row = factor(
    'row',
    rows,
    cells.map(([i]) => i),
  )
  const column = factor(
    'column',
    columns,
    cells.map(([, j]) => j),
  )
  const equations = new MixedEquations({
    y: Float64Array.from(y),
    weight: Float64Array.from(weight),
    factors: [column],
    nested: [row],
  })
  equations.factorise([BOUNDLESS, BOUNDLESS, 1])
  const { effects } = equations.solutionOf(Float64Array.from(y))
  // Its own sums of a row and a column with the mean are what can be known of either.
  const design = cells.map(([i, j]) => [
    ...Array.from({ length: rows }, (_, k) => (k === i ? 1 : 0)),
    ...Array.from({ length: columns - 1 }, (_, k) => (k + 1 === j ? 1 : 0)),
  ])
  const { coefficients, r } = leastSquares(design, y, weight)
  let difference = 0
  for (let i = 1; i < rows; i++)
    difference = Math.max(
      difference,
      Math.abs(effects[1]![i]! - effects[1]![0]! - (coefficients[i]! - coefficients[0]!)),
    )
  for (let j = 1; j < columns; j++)
    difference = Math.max(
      difference,
      Math.abs(effects[0]![j]! - effects[0]![0]! - coefficients[rows + j - 1]!),
    )
  let se = 0
  for (const [i, j] of cells) {
    const asked = design[0]!.map((_, k) => (k === i || (j > 0 && k === rows + j - 1) ? 1 : 0))
    const own = Math.sqrt(equations.varianceOf([j, i]))
    se = Math.max(se, Math.abs(own / Math.sqrt(varianceOfSum(r, asked)) - 1))
  }
  return { difference, se }
}
