import { MixedEquations, type Factor, type MixedModelInput } from './mixedEquations.ts'

export type { Factor, MixedModelInput } from './mixedEquations.ts'

/** Best linear unbiased prediction of a level's effect. */
export interface Effect {
  /** Shrunk towards 0 by how little is known. */
  estimate: number
  /** Standard error of prediction: root of the mean squared difference from the true effect. */
  se: number
  /** Records behind it. */
  records: number
}

/** Weakly informative priors of the variances: what is believed of them before any record. */
export interface VariancePrior {
  /** Standard deviation of the normal density, folded at 0, of each source's standard deviation; in units of y. */
  scale: number
  /** The error's variance is known as though so many independent residuals of weight 1 had this mean square. */
  error: { variance: number; residuals: number }
}

/** Effects of crossed and nested factors on a mean. */
export interface MixedModel {
  mean: number
  meanSe: number
  /** Variance of each factor's effects, the nested ones last, and of a record of weight 1 about its prediction. */
  variance: { factors: number[]; error: number }
  /** By factor, the nested ones last. */
  effects: Effect[][]
  /** Steps uphill, over all starts. */
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

/** Steps from one start before a likelihood counts as one that will not settle. */
const MOST_STEPS = 100
/** A climb ends where no step promises more than this, in log-likelihood. */
const LEAST_GAIN = 1e-10
/** What the last steps of a climb may leave undone, in log-likelihood, before it counts as one that did not settle. */
const SETTLED_GAIN = 1e-6
/** Of the variance of all records: below this a source's variance is none, and an error's cannot lie. */
const LEAST_OF_SPREAD = 1e-7
/** Standard deviations this near one another, over that of all records, are the same top. */
const SAME_TOP = 1e-3
/** What is added to the diagonal of the information, of its own size, at the first step and at the most. */
const FIRST_DAMPING = 1e-4
const LEAST_DAMPING = 1e-9
const MOST_DAMPING = 1e9

/**
 * The linear mixed model y = mean + sum of random effects + error, by Henderson's mixed-model equations, variances by
 * restricted maximum likelihood (Patterson and Thompson 1971, Biometrika 58, 545-554), with a prior by the highest point of the
 * likelihood times the prior (Chung et al. 2013, Psychometrika 78, 685-709, on why). Factors given as `nested` are solved by
 * sparse elimination: where each level of one lies within a level of the next, as a planting does in its kind, hundreds of
 * levels cost next to nothing.
 *
 * Henderson 1950, 1975 (Biometrics 31, 423-447) for the equations; uphill by average information (Gilmour, Thompson and
 * Cullis 1995, Biometrics 51, 1440-1450), damped (Marquardt 1963) and never accepted where it leads down; from several
 * starts, for a likelihood can have more than one top. A variance that wants to be negative rests at its floor.
 *
 * @throws {RangeError} for fewer than three records (a caller's bug)
 */
export function mixedModel(input: MixedModelInput, prior?: VariancePrior): MixedModel {
  if (input.y.length < 3) throw new RangeError('A mixed model needs at least three records')
  const slope = new Slope(input, prior)
  const tops: Top[] = []
  let iterations = 0
  for (const start of startsOf(slope, input.y.length)) {
    const top = climb(slope, start, tops)
    iterations += top.steps
    tops.push(top)
  }
  const best = tops.reduce((a, b) => (b.value > a.value ? b : a))
  return { ...solved(input, slope, best), iterations }
}

/**
 * The restricted log-likelihood of records, with the prior's if there is one, up to a constant; by the variance of each factor,
 * the nested ones after them and the error's last, all above 0.
 */
export function logLikelihood(
  input: MixedModelInput,
  prior?: VariancePrior,
): (variance: readonly number[]) => number {
  const slope = new Slope(input, prior)
  return (variance) => slope.value(variance)
}

/** Records beyond which a likelihood is taken to lead uphill from wherever it is high already. */
const MANY = 500
const STARTS_OF_MANY = 3
/** Of so many the highest start alone: each step goes through all of them. */
const VERY_MANY = 5000

/** One with every source alike, and one for each source and for chance that has most of it; of many records the highest. */
function startsOf(slope: Slope, records: number): number[][] {
  const sources = slope.all.length + 1
  const mostly = (most: number) =>
    Array.from({ length: sources }, (_, k) => slope.spread * (k === most ? 0.8 : 0.2 / sources))
  const starts = [
    Array.from({ length: sources }, () => slope.spread / sources),
    ...Array.from({ length: sources }, (_, k) => mostly(k)),
  ]
  if (records <= MANY) return starts
  const worth = new Map(starts.map((start) => [start, slope.value(start)]))
  return starts
    .sort((a, b) => worth.get(b)! - worth.get(a)!)
    .slice(0, records > VERY_MANY ? 1 : STARTS_OF_MANY)
}

/** A place on the likelihood, and what it is worth. */
interface At {
  variance: readonly number[]
  value: number
}

interface Top extends At {
  steps: number
  converged: boolean
}

function climb(slope: Slope, start: readonly number[], known: readonly Top[]): Top {
  let at: At = { variance: start, value: slope.value(start) }
  let damping = FIRST_DAMPING
  for (let steps = 1; steps <= MOST_STEPS; steps++) {
    const { score, information } = slope.at(at.variance)
    const moving = score.flatMap((s, k) => (slope.isFree(at.variance, k) || s > 0 ? [k] : []))
    const stepOf = (damp: number) =>
      solveSmall(
        moving.map((i) => moving.map((j) => information[i]![j]! * (i === j ? 1 + damp : 1))),
        moving.map((k) => score[k]!),
      )
    const gain = dot(
      stepOf(LEAST_DAMPING),
      moving.map((k) => score[k]!),
    )
    if (gain / 2 < LEAST_GAIN) return { ...at, steps, converged: true }
    let next: At | undefined
    while (!next && damping <= MOST_DAMPING) {
      const step = stepOf(damping)
      const variance = [...at.variance]
      moving.forEach((k, i) => (variance[k] = Math.max(at.variance[k]! + step[i]!, slope.floor)))
      const value = slope.value(variance)
      if (value > at.value) next = { variance, value }
      else damping *= 10
    }
    if (!next) return { ...at, steps, converged: gain / 2 < SETTLED_GAIN }
    damping = Math.max(damping / 10, LEAST_DAMPING)
    at = next
    const here = at
    const same = known.find((top) => top.value >= here.value && isNear(top, here, slope.spread))
    if (same) return { ...same, steps }
  }
  return { ...at, steps: MOST_STEPS, converged: false }
}

const isNear = (a: At, b: At, spread: number) =>
  a.variance.every(
    (v, k) => Math.abs(Math.sqrt(v) - Math.sqrt(b.variance[k]!)) < SAME_TOP * Math.sqrt(spread),
  )

/** The restricted likelihood of one set of records, with its prior: its value, and which way is up. */
class Slope {
  /** Variance of all records. */
  readonly spread: number
  /** What no variance goes below. */
  readonly floor: number
  readonly all: readonly Factor[]
  readonly equations: MixedEquations
  private readonly input: MixedModelInput
  private readonly prior: VariancePrior | undefined
  private readonly centred: Float64Array
  /** Their weighted squares, and their sums over the records of each unknown. */
  private readonly squares: number
  private readonly sums: Float64Array

  constructor(input: MixedModelInput, prior?: VariancePrior) {
    this.input = input
    this.prior = prior
    this.all = [...input.factors, ...(input.nested ?? [])]
    this.equations = new MixedEquations(input)
    const { mean, variance } = weightedMoments(input)
    this.centred = input.y.map((v) => v - mean)
    this.spread = Math.max(variance, prior ? prior.error.variance : 1e-12)
    this.floor = this.spread * LEAST_OF_SPREAD
    this.squares = this.centred.reduce((sum, v, r) => sum + input.weight[r]! * v * v, 0)
    this.sums = this.equations.sumsOf(this.centred)
  }

  isFree(variance: readonly number[], k: number): boolean {
    return variance[k]! > 2 * this.floor
  }

  value(variance: readonly number[]): number {
    const { equations, all, centred, prior } = this
    equations.factorise(variance)
    const error = variance.at(-1)!
    const squares = this.squares - equations.explained(this.sums)
    const levels = all.reduce((sum, f, k) => sum + f.levels * Math.log(variance[k]! / error), 0)
    const likelihood =
      -((centred.length - 1) * Math.log(error) + levels + equations.logDeterminant() + squares / error) / 2
    if (!prior) return likelihood
    const sources = variance.slice(0, -1).reduce((sum, v) => sum + v, 0)
    const { residuals, variance: usual } = prior.error
    return likelihood - sources / (2 * prior.scale ** 2) - (residuals / 2) * (Math.log(error) + usual / error)
  }

  /** First derivatives by the variances, and the average of observed and expected information. */
  at(variance: readonly number[]): { score: number[]; information: number[][] } {
    const { equations, all, prior } = this
    const { weight } = this.input
    equations.factorise(variance)
    const error = variance.at(-1)!
    const { effects, fit } = equations.solutionOf(this.centred)
    const residual = this.centred.map((v, r) => v - fit[r]!)
    const working = [
      ...all.map((f, k) => residual.map((_, r) => effects[k]![f.of[r]!]! / variance[k]!)),
      residual.map((e) => e / error),
    ]
    // P f = W (f - fit of f) / error: the projection of each working variate.
    const projected = working.map((f) => {
      const fitted = equations.solutionOf(f).fit
      return f.map((v, r) => (weight[r]! * (v - fitted[r]!)) / error)
    })
    const information = working.map((f) => projected.map((p) => dot(f, p) / 2))
    const free = this.effectiveLevels(variance)
    const squares = residual.reduce((sum, e, r) => sum + weight[r]! * e * e, 0) / error
    const residuals = residual.length - 1 - free.reduce((a, b) => a + b, 0)
    const score = [
      ...effects.map((u, k) => (dot(u, u) / variance[k]! - free[k]!) / variance[k]! / 2),
      (squares - residuals) / error / 2,
    ]
    if (prior) {
      const { residuals: seen, variance: usual } = prior.error
      all.forEach((_, k) => (score[k]! -= 1 / (2 * prior.scale ** 2)))
      score[all.length]! -= (seen / 2) * (1 / error - usual / error ** 2)
      information[all.length]![all.length]! += seen / 2 / error ** 2
    }
    return { score, information }
  }

  /** Levels of each factor less what the data leave open of them. */
  private effectiveLevels(variance: readonly number[]): number[] {
    return this.all.map((f, k) => {
      const trace = this.equations.diagonal(k).reduce((a, b) => a + b, 0)
      return f.levels - (trace * variance.at(-1)!) / variance[k]!
    })
  }
}

function solved(
  { y }: MixedModelInput,
  slope: Slope,
  { variance, converged }: Top,
): Omit<MixedModel, 'iterations'> {
  const { equations, all } = slope
  equations.factorise(variance)
  const error = variance.at(-1)!
  const { mean, effects } = equations.solutionOf(y)
  const effectsOf = (k: number): Effect[] => {
    const records = new Int32Array(all[k]!.levels)
    for (const level of all[k]!.of) records[level]!++
    const c = equations.diagonal(k)
    return Array.from(effects[k]!, (estimate, i) => ({
      estimate,
      se: Math.sqrt(Math.max(0, c[i]! * error)),
      records: records[i]!,
    }))
  }
  return {
    mean,
    meanSe: Math.sqrt(Math.max(0, equations.varianceOf([]) * error)),
    variance: {
      factors: all.map((_, k) => (slope.isFree(variance, k) ? variance[k]! : 0)),
      error,
    },
    effects: all.map((_, k) => effectsOf(k)),
    converged,
    predict: (levels) => ({
      estimate: levels.reduce<number>((sum, l, k) => sum + (l === undefined ? 0 : effects[k]![l]!), mean),
      se: Math.sqrt(Math.max(0, equations.varianceOf(levels) * error)),
    }),
  }
}

const dot = (a: Float64Array | readonly number[], b: Float64Array | readonly number[]) => {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!
  return sum
}

/** Weighted mean of the records, and mean weighted square of what differs from it. */
function weightedMoments({ y, weight }: MixedModelInput): { mean: number; variance: number } {
  let sum = 0
  let total = 0
  y.forEach((v, i) => {
    sum += weight[i]! * v
    total += weight[i]!
  })
  const mean = sum / total
  return { mean, variance: y.reduce((acc, v, i) => acc + weight[i]! * (v - mean) ** 2, 0) / y.length }
}

/** A few linear equations by elimination with pivoting. */
function solveSmall(a: readonly (readonly number[])[], b: readonly number[]): number[] {
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
