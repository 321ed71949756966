/**
 * The linear mixed model y = mean + sum of random effects + error, by Henderson's mixed-model equations, variances by
 * restricted maximum likelihood. Factors given as `nested` are solved by sparse elimination: where each level of one lies
 * within a level of the next, as a planting does in its kind, hundreds of levels cost next to nothing.
 */
export interface Factor {
  name: string
  levels: number
  /** Level of each record, 0 to levels - 1. */
  of: Int32Array
}

export interface Effect {
  /** Best linear unbiased prediction: shrunk towards 0 by how little is known. */
  estimate: number
  /** Standard error of prediction: root of the mean squared difference from the true effect. */
  se: number
  /** Records behind it. */
  records: number
}

/** Effects of crossed and nested factors on a mean, by restricted maximum likelihood. */
export interface MixedModel {
  mean: number
  meanSe: number
  /** Variance of each factor's effects, the nested ones last, and of a record of weight 1 about its prediction. */
  variance: { factors: number[]; error: number }
  /** By factor, the nested ones last. */
  effects: Effect[][]
  iterations: number
  converged: boolean
  /**
   * The mean with the effects of some levels added, and the standard error of the sum. Levels of nested factors must be
   * of one record.
   *
   * @param levels one a factor, the nested ones last; undefined leaves a factor at its average
   */
  predict: (levels: readonly (number | undefined)[]) => { estimate: number; se: number }
}

/** Records of a mixed model: one value, weight and level of each factor by record. */
export interface MixedModelInput {
  y: Float64Array
  /** Weight of each record: its error variance is that of the model divided by this. Above 0. */
  weight: Float64Array
  factors: readonly Factor[]
  /** Innermost first. */
  nested?: readonly Factor[]
}

/** Steps before a likelihood counts as one that will not settle. */
const MOST_ITERATIONS = 60
/** Change of a variance, over that of the scores, at which the steps end. */
const TOLERANCE = 1e-5
/** A variance this far below the error's is none: its effects are all but 0. */
const LEAST_RATIO = 1e-6
/** What is added to the diagonal of the information, of its own size. */
const RIDGE = 1e-8
/** No step takes a variance beyond these multiples of where it was. */
const LARGEST_STEP = 8
const LEAST_STEP = 0.02

/**
 * Henderson 1950, 1975 (Biometrics 31, 423-447) for the equations; the variances by average information: Gilmour,
 * Thompson and Cullis 1995 (Biometrics 51, 1440-1450). Each step solves the equations for the working variates; a step
 * that would leave the bounds is cut short, a variance that wants to be negative rests at its floor.
 *
 * @throws {RangeError} for fewer than three records (a caller's bug)
 */
export function mixedModel(input: MixedModelInput): MixedModel {
  const { y, weight, factors, nested = [] } = input
  const n = y.length
  if (n < 3) throw new RangeError('A mixed model needs at least three records')
  const equations = new Equations(input)
  const all = [...factors, ...nested]
  const spread = Math.max(weightedVariance(y, weight), 1e-12)
  // A start with every source alike: where it ends does not depend on it.
  let variance = [...all.map(() => spread / (all.length + 1)), spread / (all.length + 1)]
  let iterations = 0
  let converged = false
  while (!converged && iterations < MOST_ITERATIONS) {
    iterations++
    const next = averageInformationStep(equations, all, input, variance)
    const floor = Math.max(next.at(-1)!, spread * 1e-9) * LEAST_RATIO
    const bounded = next.map((v, k) => Math.max(v, k === all.length ? spread * 1e-9 : floor))
    converged = bounded.every((v, k) => Math.abs(v - variance[k]!) / spread < TOLERANCE)
    variance = bounded
  }
  equations.solve(variance)
  const error = variance.at(-1)!
  const solution = equations.solutionOf(y)
  const effectsOf = (k: number): Effect[] => {
    const records = new Int32Array(all[k]!.levels)
    for (let i = 0; i < n; i++) records[all[k]!.of[i]!]!++
    const c = equations.diagonal(k)
    return Array.from(solution.effects[k]!, (estimate, i) => ({
      estimate,
      se: Math.sqrt(Math.max(0, c[i]! * error)),
      records: records[i]!,
    }))
  }
  return {
    mean: solution.mean,
    meanSe: Math.sqrt(Math.max(0, equations.varianceOf([]) * error)),
    variance: {
      factors: variance.slice(0, -1).map((v) => (v <= error * LEAST_RATIO * 2 ? 0 : v)),
      error,
    },
    effects: all.map((_, k) => effectsOf(k)),
    iterations,
    converged,
    predict: (levels) => ({
      estimate: levels.reduce<number>(
        (sum, l, k) => sum + (l === undefined ? 0 : solution.effects[k]![l]!),
        solution.mean,
      ),
      se: Math.sqrt(Math.max(0, equations.varianceOf(levels) * error)),
    }),
  }
}

/** The variances after one step, the error's last. */
function averageInformationStep(
  equations: Equations,
  all: readonly Factor[],
  { y, weight }: MixedModelInput,
  variance: readonly number[],
): number[] {
  equations.solve(variance)
  const error = variance.at(-1)!
  const n = y.length
  const { effects, fit } = equations.solutionOf(y)
  const residual = y.map((v, r) => v - fit[r]!)
  const working = [
    ...all.map((f, k) => y.map((_, r) => effects[k]![f.of[r]!]! / variance[k]!)),
    residual.map((e) => e / error),
  ]
  // P f = W (f - fit of f) / error: the projection of each working variate.
  const projected = working.map((f) => {
    const fitted = equations.solutionOf(f).fit
    return f.map((v, r) => (weight[r]! * (v - fitted[r]!)) / error)
  })
  const free = effectiveLevels(equations, all, variance)
  const score = [
    ...all.map((_, k) => {
      const squares = effects[k]!.reduce((sum, u) => sum + u * u, 0)
      return (squares / variance[k]! - free[k]!) / variance[k]! / 2
    }),
    (residual.reduce((sum, e, r) => sum + weight[r]! * e * e, 0) / error -
      (n - 1 - free.reduce((a, b) => a + b, 0))) /
      error /
      2,
  ]
  const floor = error * LEAST_RATIO * 2
  // A variance at its floor that wants to fall further is out of the step.
  const moving = score
    .map((_, k) => k)
    .filter((k) => k === all.length || variance[k]! > floor || score[k]! > 0)
  // Two factors whose levels go together in every record cannot be told apart: a little more on the diagonal shares the step
  // between them, and moves where no step is due by nothing.
  const information = moving.map((i) =>
    moving.map((j) => (dot(working[i]!, projected[j]!) / 2) * (i === j ? 1 + RIDGE : 1)),
  )
  const step = solveSmall(
    information,
    moving.map((k) => score[k]!),
  )
  const next = [...variance]
  moving.forEach((k, i) => {
    const [from, to] = [variance[k]!, variance[k]! + step[i]!]
    // From nothing a variance may rise to a share of the error's; a step below nothing goes most of the way there.
    const most = Math.max(from * LARGEST_STEP, error / LARGEST_STEP)
    next[k] = to <= 0 ? from * LEAST_STEP : Math.min(Math.max(to, from * LEAST_STEP), most)
  })
  return next
}

/** Levels of each factor less what the data leave open of them. */
const effectiveLevels = (
  equations: Equations,
  all: readonly Factor[],
  variance: readonly number[],
): number[] =>
  all.map((f, k) => {
    const trace = equations.diagonal(k).reduce((a, b) => a + b, 0)
    return f.levels - (trace * variance.at(-1)!) / variance[k]!
  })

const dot = (a: Float64Array, b: Float64Array) => a.reduce((sum, v, i) => sum + v * b[i]!, 0)

/** A few linear equations by elimination with pivoting. */
function solveSmall(a: number[][], b: number[]): number[] {
  const rows = a.map((row, i) => [...row, b[i]!])
  const n = rows.length
  for (let p = 0; p < n; p++) {
    let best = p
    for (let i = p + 1; i < n; i++) if (Math.abs(rows[i]![p]!) > Math.abs(rows[best]![p]!)) best = i
    ;[rows[p], rows[best]] = [rows[best]!, rows[p]!]
    if (Math.abs(rows[p]![p]!) < 1e-300) rows[p]![p] = 1e-300
    for (let i = p + 1; i < n; i++) {
      const f = rows[i]![p]! / rows[p]![p]!
      for (let j = p; j <= n; j++) rows[i]![j]! -= f * rows[p]![j]!
    }
  }
  const x = new Array<number>(n).fill(0)
  for (let i = n - 1; i >= 0; i--) {
    let sum = rows[i]![n]!
    for (let j = i + 1; j < n; j++) sum -= rows[i]![j]! * x[j]!
    x[i] = sum / rows[i]![i]!
  }
  return x
}

interface Solution {
  mean: number
  /** By factor, the nested ones last. */
  effects: Float64Array[]
  /** Prediction of each record. */
  fit: Float64Array
}

/**
 * Henderson's equations: built once, solved for one set of variances after another. Unknowns are numbered nested factors
 * first, in the order given, then the mean and the factors. The first part is eliminated by sparse rows, each of an
 * unknown's coefficients with later ones; what is left is dense and small. Where elimination fills rows up is found once, from
 * the records alone (George and Liu 1981, Computer Solution of Large Sparse Positive Definite Systems). Of the inverse only
 * the entries are kept that share a row (Takahashi, Fagan and Chen 1973): they are all that variances of effects and of
 * their sums need.
 */
class Equations {
  private readonly input: MixedModelInput
  private readonly all: readonly Factor[]
  /** First unknown of each factor, in the order of `all`. */
  private readonly first: number[]
  /** Unknowns before this one are sparse; it is the mean. */
  private readonly mean: number
  private readonly size: number
  /** Where the entries of each sparse row begin, and after the last where they end. */
  private readonly start: Int32Array
  /** Unknown of each entry, ascending in its row and later than the row's own. */
  private readonly column: Int32Array
  private readonly coefficients: Float64Array
  private readonly diagonals: Float64Array
  /** Coefficients among the dense unknowns, rows on end. */
  private readonly dense: Float64Array
  /** Unknowns of each record, ascending. */
  private readonly unknowns: Int32Array[]
  private pivots = new Float64Array()
  /** Sparse rows over their pivots, with what earlier eliminations added. */
  private lower: Float64Array = new Float64Array()
  private inverse: Float64Array = new Float64Array()
  private sparseInverse = new Float64Array()
  private sparseVariances = new Float64Array()

  constructor(input: MixedModelInput) {
    const { y, weight, factors, nested = [] } = input
    this.input = input
    this.all = [...factors, ...nested]
    this.first = new Array<number>(this.all.length)
    let at = 0
    nested.forEach((f, k) => {
      this.first[factors.length + k] = at
      at += f.levels
    })
    this.mean = at++
    factors.forEach((f, k) => {
      this.first[k] = at
      at += f.levels
    })
    this.size = at - this.mean
    const of = (k: number) => this.all[k]!.of.map((l) => l + this.first[k]!)
    this.unknowns = [
      ...nested.map((_, k) => of(factors.length + k)),
      new Int32Array(y.length).fill(this.mean),
      ...factors.map((_, k) => of(k)),
    ]
    const rows = this.filledRows()
    this.start = new Int32Array(this.mean + 1)
    rows.forEach((row, v) => (this.start[v + 1] = this.start[v]! + row.length))
    this.column = Int32Array.from(rows.flat())
    this.coefficients = new Float64Array(this.column.length)
    this.diagonals = new Float64Array(this.mean)
    this.dense = new Float64Array(this.size * this.size)
    for (let r = 0; r < y.length; r++)
      this.unknowns.forEach((u, k) => {
        const i = u[r]!
        const w = weight[r]!
        if (i >= this.mean) this.dense[this.place(i, i)]! += w
        else this.diagonals[i]! += w
        for (let m = k + 1; m < this.unknowns.length; m++) {
          const j = this.unknowns[m]![r]!
          if (i < this.mean) this.coefficients[this.entryAt(i, j)]! += w
          else {
            this.dense[this.place(i, j)]! += w
            this.dense[this.place(j, i)]! += w
          }
        }
      })
  }

  /** By sparse unknown: the later unknowns that share a record with it, or come to by the elimination of earlier ones. */
  private filledRows(): number[][] {
    const rows = Array.from({ length: this.mean }, () => new Set<number>())
    this.unknowns.forEach((u, k) => {
      for (const later of this.unknowns.slice(k + 1))
        u.forEach((i, r) => {
          if (i < this.mean) rows[i]!.add(later[r]!)
        })
    })
    return rows.map((row) => {
      const columns = [...row].sort((a, b) => a - b)
      // What it leaves behind is passed on from the first of the rest to the next.
      const [next] = columns
      if (next !== undefined && next < this.mean) for (const j of columns.slice(1)) rows[next]!.add(j)
      return columns
    })
  }

  private place(i: number, j: number): number {
    return (i - this.mean) * this.size + (j - this.mean)
  }

  /** Number of the entry of a sparse row for a later unknown; -1 where they share none. */
  private entryAt(row: number, unknown: number): number {
    let low = this.start[row]!
    let high = this.start[row + 1]! - 1
    while (low < high) {
      const middle = (low + high) >> 1
      if (this.column[middle]! < unknown) low = middle + 1
      else high = middle
    }
    return low === high && this.column[low] === unknown ? low : -1
  }

  /** @param variance of each factor, the nested ones after them, the error's last */
  solve(variance: readonly number[]): void {
    const { factors } = this.input
    const { mean, size, start, column } = this
    const error = variance.at(-1)!
    const dense = Float64Array.from(this.dense)
    const rows = Float64Array.from(this.coefficients)
    const pivots = Float64Array.from(this.diagonals)
    this.all.forEach((f, k) => {
      for (let i = this.first[k]!; i < this.first[k]! + f.levels; i++)
        if (k < factors.length) dense[this.place(i, i)]! += error / variance[k]!
        else pivots[i]! += error / variance[k]!
    })
    for (let v = 0; v < mean; v++) {
      const end = start[v + 1]!
      for (let e = start[v]!; e < end; e++) {
        const i = column[e]!
        const share = rows[e]! / pivots[v]!
        if (i < mean) {
          pivots[i]! -= share * rows[e]!
          // A row holds all that is later in the rows before it: both are gone along together.
          let at = start[i]!
          for (let m = e + 1; m < end; m++) {
            while (column[at]! < column[m]!) at++
            rows[at]! -= share * rows[m]!
          }
        } else {
          const row = (i - mean) * size - mean
          dense[row + i]! -= share * rows[e]!
          for (let m = e + 1; m < end; m++) {
            const j = column[m]!
            const taken = share * rows[m]!
            dense[row + j]! -= taken
            dense[(j - mean) * size + i - mean]! -= taken
          }
        }
      }
      for (let e = start[v]!; e < end; e++) rows[e]! /= pivots[v]!
    }
    this.pivots = pivots
    this.lower = rows
    this.inverse = invertPositive(dense, size)
    this.invertSparse()
  }

  private invertSparse(): void {
    const { mean, size, start, column, lower, inverse } = this
    const covariances = new Float64Array(column.length)
    const variances = new Float64Array(mean)
    for (let v = mean - 1; v >= 0; v--) {
      const end = start[v + 1]!
      for (let e = start[v]!; e < end; e++) {
        const i = column[e]!
        const isDense = i >= mean
        const row = (i - mean) * size - mean
        covariances[e]! -= lower[e]! * (isDense ? inverse[row + i]! : variances[i]!)
        let at = isDense ? 0 : start[i]!
        for (let m = e + 1; m < end; m++) {
          const j = column[m]!
          if (!isDense) while (column[at]! < j) at++
          const between = isDense ? inverse[row + j]! : covariances[at]!
          covariances[e]! -= lower[m]! * between
          covariances[m]! -= lower[e]! * between
        }
      }
      let variance = 1 / this.pivots[v]!
      for (let e = start[v]!; e < end; e++) variance -= lower[e]! * covariances[e]!
      variances[v] = variance
    }
    this.sparseInverse = covariances
    this.sparseVariances = variances
  }

  /** An entry of the inverse, of two unknowns that share a row; 0 for two that share none. */
  private entry(i: number, j: number): number {
    if (i > j) return this.entry(j, i)
    if (i >= this.mean) return this.inverse[this.place(i, j)]!
    if (i === j) return this.sparseVariances[i]!
    const at = this.entryAt(i, j)
    return at < 0 ? 0 : this.sparseInverse[at]!
  }

  solutionOf(y: Float64Array): Solution {
    const { weight } = this.input
    const b = new Float64Array(this.mean + this.size)
    for (const u of this.unknowns) for (let r = 0; r < y.length; r++) b[u[r]!]! += weight[r]! * y[r]!
    const { lower, start, column } = this
    for (let v = 0; v < this.mean; v++)
      for (let e = start[v]!; e < start[v + 1]!; e++) b[column[e]!]! -= lower[e]! * b[v]!
    const x = new Float64Array(b.length)
    for (let i = 0; i < this.size; i++)
      x[this.mean + i] = run(this.inverse, i * this.size, b, this.mean, this.size)
    for (let v = this.mean - 1; v >= 0; v--) {
      let known = b[v]! / this.pivots[v]!
      for (let e = start[v]!; e < start[v + 1]!; e++) known -= lower[e]! * x[column[e]!]!
      x[v] = known
    }
    const fit = new Float64Array(y.length)
    for (const u of this.unknowns) for (let r = 0; r < y.length; r++) fit[r]! += x[u[r]!]!
    const effects = this.all.map((f, k) => x.slice(this.first[k]!, this.first[k]! + f.levels))
    return { mean: x[this.mean]!, effects, fit }
  }

  /** Variance of each level's effect, over the error's. */
  diagonal(k: number): Float64Array {
    const first = this.first[k]!
    return new Float64Array(this.all[k]!.levels).map((_, i) => this.entry(first + i, first + i))
  }

  /** Variance, over the error's, of the mean plus the effects of some levels. */
  varianceOf(levels: readonly (number | undefined)[]): number {
    const unknowns = [this.mean, ...levels.flatMap((l, k) => (l === undefined ? [] : [this.first[k]! + l]))]
    let sum = 0
    for (const a of unknowns) for (const b of unknowns) sum += this.entry(a, b)
    return sum
  }
}

function weightedVariance(y: Float64Array, weight: Float64Array): number {
  let sum = 0
  let total = 0
  y.forEach((v, i) => {
    sum += weight[i]! * v
    total += weight[i]!
  })
  const mean = sum / total
  return y.reduce((acc, v, i) => acc + weight[i]! * (v - mean) ** 2, 0) / y.length
}

/** Inverse of a symmetric positive definite matrix, rows on end, by Cholesky's factor. The argument is overwritten. */
function invertPositive(a: Float64Array, n: number): Float64Array {
  for (let i = 0; i < n; i++)
    for (let k = 0; k <= i; k++) {
      const sum = a[i * n + k]! - run(a, i * n, a, k * n, k)
      a[i * n + k] = k === i ? Math.sqrt(Math.max(sum, 1e-12)) : sum / a[k * n + k]!
    }
  // The inverse factor a column at a time, kept transposed so that every sum runs along rows.
  const l = new Float64Array(n * n)
  for (let c = 0; c < n; c++) {
    l[c * n + c] = 1 / a[c * n + c]!
    for (let i = c + 1; i < n; i++) l[c * n + i] = -run(a, i * n + c, l, c * n + c, i - c) / a[i * n + i]!
  }
  const inverse = new Float64Array(n * n)
  for (let i = 0; i < n; i++)
    for (let j = 0; j <= i; j++) {
      const sum = run(l, i * n + i, l, j * n + i, n - i)
      inverse[i * n + j] = sum
      inverse[j * n + i] = sum
    }
  return inverse
}

/** Sum of products of two runs of numbers; four sums side by side, so that none waits for the last. */
function run(a: Float64Array, from: number, b: Float64Array, at: number, length: number): number {
  let s0 = 0
  let s1 = 0
  let s2 = 0
  let s3 = 0
  let m = 0
  for (; m + 3 < length; m += 4) {
    s0 += a[from + m]! * b[at + m]!
    s1 += a[from + m + 1]! * b[at + m + 1]!
    s2 += a[from + m + 2]! * b[at + m + 2]!
    s3 += a[from + m + 3]! * b[at + m + 3]!
  }
  for (; m < length; m++) s0 += a[from + m]! * b[at + m]!
  return s0 + s1 + s2 + s3
}
