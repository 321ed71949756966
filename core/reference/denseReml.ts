/**
 * Restricted maximum likelihood from the whole covariance matrix of the records, written apart from the engine: no mixed-model
 * equations, no derivatives, no sparse matrices. V = sum of v_k Z_k Z_k' + e W⁻¹; the likelihood by Cholesky's factor of V
 * (Searle, Casella and McCulloch 1992, Variance Components, ch. 6), its top by the simplex of Nelder and Mead from many
 * starts, the predictions by u = v Z' V⁻¹ (y - mean) and their errors by what V leaves open.
 */
export interface DenseInput {
  y: readonly number[]
  weight: readonly number[]
  /** By factor, the level of each record. */
  factors: readonly (readonly number[])[]
  /** Densities of the standard deviations, normal folded at 0, and so many residuals of such a mean square beside the records. */
  prior?: { scale: number; variance: number; residuals: number }
}

export interface DenseFit {
  /** By factor, the error's last. */
  variance: number[]
  value: number
  /** The mean with the effects of one record's levels of some factors, and its standard error. */
  predict: (record: number, factors: readonly number[]) => { estimate: number; se: number }
}

/** Penalised restricted log-likelihood, up to a constant. */
export function denseLogLikelihood(input: DenseInput, variance: readonly number[]): number {
  const { y, prior } = input
  const l = factorOf(covariance(input, variance))
  const one = y.map(() => 1)
  const [a, b] = [forward(l, y), forward(l, one)]
  const [yy, y1, oneOne] = [inner(a, a), inner(a, b), inner(b, b)]
  let logDet = 0
  l.forEach((row, i) => (logDet += 2 * Math.log(row[i]!)))
  let value = -(logDet + Math.log(oneOne) + yy - (y1 * y1) / oneOne) / 2
  if (prior) {
    const error = variance.at(-1)!
    for (const v of variance.slice(0, -1)) value -= v / (2 * prior.scale ** 2)
    value -= (prior.residuals / 2) * (Math.log(error) + prior.variance / error)
  }
  return value
}

/** @param starts sets of standard deviations to begin at, the error's last */
export function denseReml(input: DenseInput, starts: readonly (readonly number[])[]): DenseFit {
  const { y, factors } = input
  const toVariance = (x: readonly number[]) => x.map((s, k) => Math.max(s * s, k === x.length - 1 ? 1e-8 : 0))
  const worth = (x: readonly number[]) => denseLogLikelihood(input, toVariance(x))
  let best: { x: number[]; value: number } | undefined
  for (const start of starts) {
    // A simplex can close on itself before the top: it is opened anew where it ended.
    let top = simplex(worth, start, 0.3)
    for (const size of [0.1, 0.03]) top = simplex(worth, top.x, size)
    if (!best || top.value > best.value) best = top
  }
  const variance = toVariance(best!.x)
  const v = covariance(input, variance)
  const l = factorOf(v)
  const one = y.map(() => 1)
  const solve = (b: readonly number[]) => backward(l, forward(l, b))
  const vOne = solve(one)
  const information = vOne.reduce((s, e) => s + e, 0)
  const mean = inner(vOne, y) / information
  const vResidual = solve(y.map((e) => e - mean))
  return {
    variance,
    value: best!.value,
    predict(record, of) {
      // c: covariance of each record with the sum of these effects.
      const c = y.map((_, r) =>
        of.reduce((s, k) => s + (factors[k]![r] === factors[k]![record] ? variance[k]! : 0), 0),
      )
      const own = of.reduce((s, k) => s + variance[k]!, 0)
      const vc = solve(c)
      const left = 1 - inner(one, vc)
      return {
        estimate: mean + inner(c, vResidual),
        se: Math.sqrt(Math.max(0, own - inner(c, vc) + (left * left) / information)),
      }
    },
  }
}

function covariance({ y, weight, factors }: DenseInput, variance: readonly number[]): number[][] {
  return y.map((_, i) =>
    y.map((_, j) => {
      let sum = i === j ? variance.at(-1)! / weight[i]! : 0
      factors.forEach((of, k) => {
        if (of[i] === of[j]) sum += variance[k]!
      })
      return sum
    }),
  )
}

function factorOf(a: number[][]): number[][] {
  const l = a.map((row) => [...row])
  for (let i = 0; i < l.length; i++)
    for (let j = 0; j <= i; j++) {
      let sum = a[i]![j]!
      for (let m = 0; m < j; m++) sum -= l[i]![m]! * l[j]![m]!
      l[i]![j] = i === j ? Math.sqrt(sum) : sum / l[j]![j]!
    }
  return l
}

function forward(l: readonly (readonly number[])[], b: readonly number[]): number[] {
  const x: number[] = []
  for (let i = 0; i < b.length; i++) {
    let sum = b[i]!
    for (let j = 0; j < i; j++) sum -= l[i]![j]! * x[j]!
    x.push(sum / l[i]![i]!)
  }
  return x
}

function backward(l: readonly (readonly number[])[], b: readonly number[]): number[] {
  const x = [...b]
  for (let i = b.length - 1; i >= 0; i--) {
    for (let j = i + 1; j < b.length; j++) x[i]! -= l[j]![i]! * x[j]!
    x[i]! /= l[i]![i]!
  }
  return x
}

const inner = (a: readonly number[], b: readonly number[]) => a.reduce((s, v, i) => s + v * b[i]!, 0)

/** Nelder and Mead 1965, uphill. */
function simplex(worth: (x: readonly number[]) => number, start: readonly number[], size: number) {
  const at = (x: number[]) => ({ x, value: worth(x) })
  let points = [at([...start]), ...start.map((_, k) => at(start.map((v, i) => (i === k ? v + size : v))))]
  for (let round = 0; round < 2_000; round++) {
    points = points.sort((a, b) => b.value - a.value)
    const [first, last] = [points[0]!, points.at(-1)!]
    const spread = Math.max(...start.map((_, k) => Math.abs(first.x[k]! - last.x[k]!)))
    if (first.value - last.value < 1e-12 && spread < 1e-6) break
    const rest = points.slice(0, -1)
    const middle = start.map((_, k) => rest.reduce((s, p) => s + p.x[k]!, 0) / rest.length)
    const along = (by: number) => at(middle.map((m, k) => m + by * (last.x[k]! - m)))
    const mirrored = along(-1)
    if (mirrored.value > first.value) {
      const further = along(-2)
      points[points.length - 1] = further.value > mirrored.value ? further : mirrored
    } else if (mirrored.value > rest.at(-1)!.value) points[points.length - 1] = mirrored
    else {
      const nearer = along(mirrored.value > last.value ? -0.5 : 0.5)
      if (nearer.value > Math.max(last.value, mirrored.value)) points[points.length - 1] = nearer
      else points = points.map((p, i) => (i === 0 ? p : at(p.x.map((v, k) => (v + first.x[k]!) / 2))))
    }
  }
  return points.sort((a, b) => b.value - a.value)[0]!
}
