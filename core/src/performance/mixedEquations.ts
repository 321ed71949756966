/** A source of random effects: which of its levels each record is of. */
export interface Factor {
  name: string
  levels: number
  /** Level of each record, 0 to levels - 1. */
  of: Int32Array
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

/** Solution of the equations for one set of values. */
export interface Solution {
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
export class MixedEquations {
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
  /**
   * Where each product of two entries of a sparse row is taken off as the row is eliminated, in the order of elimination: the
   * number of an entry where the former is of a sparse unknown, else a place of the dense part.
   */
  private readonly target: Int32Array
  private readonly coefficients: Float64Array
  private readonly diagonals: Float64Array
  /** Coefficients among the dense unknowns, rows on end. */
  private readonly dense: Float64Array
  /** Unknowns of each record, ascending. */
  private readonly unknowns: Int32Array[]
  private pivots = new Float64Array()
  /** Sparse rows over their pivots, with what earlier eliminations added. */
  private lower: Float64Array = new Float64Array()
  /** Cholesky's factor of the dense part, rows on end. */
  private factor: Float64Array = new Float64Array()
  private isInverted = false
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
    this.target = this.targets()
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

  private targets(): Int32Array {
    const { mean, start, column } = this
    const target: number[] = []
    for (let v = 0; v < mean; v++)
      for (let e = start[v]!; e < start[v + 1]!; e++) {
        const i = column[e]!
        // A row holds all that is later in the rows before it. Of the dense part above the diagonal only: Cholesky reads no more.
        for (let m = i < mean ? e + 1 : e; m < start[v + 1]!; m++)
          target.push(i < mean ? this.entryAt(i, column[m]!) : this.place(i, column[m]!))
      }
    return Int32Array.from(target)
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

  /**
   * Factorises the equations for one set of variances; what is asked next is of these.
   *
   * @param variance of each factor, the nested ones after them, the error's last; above 0
   */
  factorise(variance: readonly number[]): void {
    const { factors } = this.input
    const { mean, size, start, column, target } = this
    const error = variance.at(-1)!
    const dense = this.dense.slice()
    const rows = this.coefficients.slice()
    const pivots = this.diagonals.slice()
    this.all.forEach((f, k) => {
      for (let i = this.first[k]!; i < this.first[k]! + f.levels; i++)
        if (k < factors.length) dense[this.place(i, i)]! += error / variance[k]!
        else pivots[i]! += error / variance[k]!
    })
    let t = 0
    for (let v = 0; v < mean; v++) {
      const begin = start[v]!
      const end = start[v + 1]!
      const pivot = pivots[v]!
      for (let e = begin; e < end; e++) {
        const i = column[e]!
        const share = rows[e]! / pivot
        if (i < mean) {
          pivots[i]! -= share * rows[e]!
          for (let m = e + 1; m < end; m++) rows[target[t++]!]! -= share * rows[m]!
        } else for (let m = e; m < end; m++) dense[target[t++]!]! -= share * rows[m]!
      }
      for (let e = begin; e < end; e++) rows[e]! /= pivot
    }
    this.pivots = pivots
    this.lower = rows
    this.factor = choleskyOf(dense, size)
    this.isInverted = false
  }

  /** Logarithm of the determinant of the equations. */
  logDeterminant(): number {
    let sum = 0
    for (const pivot of this.pivots) sum += Math.log(pivot)
    for (let i = 0; i < this.size; i++) sum += 2 * Math.log(this.factor[i * this.size + i]!)
    return sum
  }

  /** The inverse is asked for at a few sets of variances only, and takes longer than all else. */
  private invert(): void {
    if (this.isInverted) return
    this.isInverted = true
    this.inverse = inverseOf(this.factor, this.size)
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

  /** Weighted sums of values of the records over each unknown's records. */
  sumsOf(y: Float64Array): Float64Array {
    const { weight } = this.input
    const b = new Float64Array(this.mean + this.size)
    for (const u of this.unknowns) for (let r = 0; r < y.length; r++) b[u[r]!]! += weight[r]! * y[r]!
    return b
  }

  /** Weighted sum of squares that mean and effects explain of the values whose sums are given: the sums times the solution. */
  explained(sums: Float64Array): number {
    const b = this.eliminated(sums)
    let squares = 0
    for (let v = 0; v < this.mean; v++) squares += b[v]! ** 2 / this.pivots[v]!
    const dense = forward(this.factor, this.size, b.subarray(this.mean))
    for (const v of dense) squares += v * v
    return squares
  }

  private eliminated(sums: Float64Array): Float64Array {
    const b = sums.slice()
    const { lower, start, column, mean } = this
    for (let v = 0; v < mean; v++) {
      const own = b[v]!
      for (let e = start[v]!; e < start[v + 1]!; e++) b[column[e]!]! -= lower[e]! * own
    }
    return b
  }

  /** The effects and the mean that the records of `y` would give. */
  solutionOf(y: Float64Array): Solution {
    const { lower, start, column } = this
    const b = this.eliminated(this.sumsOf(y))
    const x = new Float64Array(b.length)
    const dense = backward(this.factor, this.size, forward(this.factor, this.size, b.subarray(this.mean)))
    x.set(dense, this.mean)
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
    this.invert()
    const first = this.first[k]!
    return new Float64Array(this.all[k]!.levels).map((_, i) => this.entry(first + i, first + i))
  }

  /** Variance, over the error's, of the mean plus the effects of some levels. */
  varianceOf(levels: readonly (number | undefined)[]): number {
    this.invert()
    const unknowns = [this.mean, ...levels.flatMap((l, k) => (l === undefined ? [] : [this.first[k]! + l]))]
    let sum = 0
    for (const a of unknowns) for (const b of unknowns) sum += this.entry(a, b)
    return sum
  }
}

/**
 * Cholesky's factor of a symmetric positive definite matrix, rows on end, of which the upper half is read and the lower
 * overwritten.
 */
function choleskyOf(a: Float64Array, n: number): Float64Array {
  for (let i = 0; i < n; i++)
    for (let k = 0; k <= i; k++) {
      const sum = a[k * n + i]! - run(a, i * n, a, k * n, k)
      a[i * n + k] = k === i ? Math.sqrt(Math.max(sum, 1e-12)) : sum / a[k * n + k]!
    }
  return a
}

/** Solution of L x = b, rows of L on end. */
function forward(l: Float64Array, n: number, b: Float64Array): Float64Array {
  const x = b.slice()
  for (let i = 0; i < n; i++) x[i] = (x[i]! - run(l, i * n, x, 0, i)) / l[i * n + i]!
  return x
}

/** Solution of L' x = b, rows of L on end. */
function backward(l: Float64Array, n: number, b: Float64Array): Float64Array {
  const x = b.slice()
  for (let i = n - 1; i >= 0; i--) {
    x[i]! /= l[i * n + i]!
    for (let j = 0; j < i; j++) x[j]! -= l[i * n + j]! * x[i]!
  }
  return x
}

/** Inverse of the matrix whose Cholesky factor is given. */
function inverseOf(a: Float64Array, n: number): Float64Array {
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
