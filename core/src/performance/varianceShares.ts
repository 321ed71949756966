import { logLikelihood, type MixedModel, type MixedModelInput, type VariancePrior } from './mixedModel.ts'
import { normal, seededRandom } from '../random/index.ts'

/** How much of the variance of a record of weight 1 is one source's. */
export interface VarianceShare {
  /** Where the likelihood with its prior is highest. */
  share: number
  /** Eight times in ten the share lies between these. */
  low: number
  high: number
}

/** Draws are made by so many until they tell as much as this many independent ones, or there are no more to be had. */
const BATCH = 100
const ENOUGH = { ofFew: 150, ofMany: 60, few: 500 }
const MOST_DRAWS = 3_000
/** Draws of one in so many come from the prior: where it lies apart from the top, they still weigh what they are worth. */
const OF_PRIOR = 10
/** Draws about the top are spread as a t of so few degrees of freedom: what is further out than thought is found. */
const DEGREES = 5
/** Eight times in ten between. */
const TAILS = [0.1, 0.9] as const

/**
 * The shares of a model's sources in the variance, each with the range that records and prior leave it: variances are drawn
 * from about the top of the likelihood and from the prior, and weighed by what they are worth (importance sampling; Owen and
 * Zhou 2000, Journal of the American Statistical Association 95, 135-143). A standard deviation is drawn with a sign that
 * means nothing, so that its density is smooth where it is 0.
 *
 * @returns by factor, the nested ones last, and the error's at the end
 */
export function varianceShares(
  input: MixedModelInput,
  prior: VariancePrior,
  { variance }: Pick<MixedModel, 'variance'>,
): VarianceShare[] {
  const likelihood = logLikelihood(input, prior)
  const top = [...variance.factors.map(Math.sqrt), Math.log(variance.error)]
  const valueAt = (x: readonly number[]) => likelihood(variancesOf(x))
  const proposal = proposalAt(top, valueAt, prior)
  const random = seededRandom(1)
  const draws: { shares: number[]; logWeight: number }[] = []
  let weights: number[] = []
  const enough = input.y.length <= ENOUGH.few ? ENOUGH.ofFew : ENOUGH.ofMany
  while (draws.length < MOST_DRAWS && effective(weights) < enough) {
    for (let i = 0; i < BATCH; i++) {
      const x = proposal.draw(random, i % OF_PRIOR === 0)
      draws.push({ shares: sharesOf(variancesOf(x)), logWeight: valueAt(x) - proposal.logDensity(x) })
    }
    const most = Math.max(...draws.map((d) => d.logWeight))
    weights = draws.map((d) => Math.exp(d.logWeight - most))
  }
  const total = weights.reduce((a, b) => a + b, 0)
  return sharesOf([...variance.factors, variance.error]).map((share, k) => {
    const order = draws.map((d, i) => [d.shares[k]!, weights[i]!] as const).sort((a, b) => a[0] - b[0])
    const [low, high] = TAILS.map((tail) => {
      let sum = 0
      return order.find(([, w]) => (sum += w) >= tail * total)![0]
    }) as [number, number]
    return { share, low: Math.min(low, share), high: Math.max(high, share) }
  })
}

/** Draws' worth in independent ones (Kish 1965). */
function effective(weights: readonly number[]): number {
  const sum = weights.reduce((a, b) => a + b, 0)
  return sum === 0 ? 0 : sum ** 2 / weights.reduce((a, b) => a + b * b, 0)
}

const LEAST_VARIANCE = 1e-9

/** Signed standard deviations and the logarithm of the error's variance, to variances. */
const variancesOf = (x: readonly number[]) =>
  x.map((v, k) => (k === x.length - 1 ? Math.exp(v) : Math.max(v * v, LEAST_VARIANCE)))

function sharesOf(variances: readonly number[]): number[] {
  const total = variances.reduce((a, b) => a + b, 0)
  return variances.map((v) => v / total)
}

/** Two spreads of draws, about the top and of the prior, and their density together, up to a constant. */
function proposalAt(
  top: readonly number[],
  valueAt: (x: readonly number[]) => number,
  { scale, error }: VariancePrior,
) {
  const size = top.length
  const precision = curvature(top, valueAt, scale)
  const factor = cholesky(precision)
  const ofPrior = {
    centre: [...top.slice(0, -1).map(() => 0), Math.log(error.variance)],
    factor: top.map((_, i) => top.map((_, j) => (i === j ? (i === size - 1 ? 0.7 : 1 / scale) : 0))),
  }
  const about = { centre: top, factor }
  const logT = ({ centre, factor }: typeof about, x: readonly number[]) => {
    let squares = 0
    let logDet = 0
    for (let j = 0; j < size; j++) {
      let sum = 0
      for (let i = j; i < size; i++) sum += factor[i]![j]! * (x[i]! - centre[i]!)
      squares += sum * sum
      logDet += Math.log(factor[j]![j]!)
    }
    return logDet - ((DEGREES + size) / 2) * Math.log1p(squares / DEGREES)
  }
  /** Over every choice of signs, which mean the same. */
  const folded = (of: typeof about, x: readonly number[]) => {
    let sum = 0
    for (let signs = 0; signs < 2 ** (size - 1); signs++)
      sum += Math.exp(
        logT(
          of,
          x.map((v, k) => ((signs >> k) & 1 ? -v : v)),
        ),
      )
    return sum
  }
  return {
    draw(random: () => number, fromPrior: boolean): number[] {
      const { centre, factor } = fromPrior ? ofPrior : about
      const z = centre.map(() => normal(random))
      let chi = 0
      for (let i = 0; i < DEGREES; i++) chi += normal(random) ** 2
      const stretch = Math.sqrt(DEGREES / chi)
      // factor' (x - centre) = stretch z
      const x = new Array<number>(size).fill(0)
      for (let i = size - 1; i >= 0; i--) {
        let sum = stretch * z[i]!
        for (let j = i + 1; j < size; j++) sum -= factor[j]![i]! * x[j]!
        x[i] = sum / factor[i]![i]!
      }
      return x.map((v, k) => v + centre[k]!)
    },
    logDensity: (x: readonly number[]) =>
      Math.log(((OF_PRIOR - 1) * folded(about, x) + folded(ofPrior, x)) / OF_PRIOR),
  }
}

/** Step of the second differences, on the scale of standard deviations. */
const STEP = 0.05

/** Minus the second derivatives at the top, made positive definite. */
function curvature(
  top: readonly number[],
  valueAt: (x: readonly number[]) => number,
  scale: number,
): number[][] {
  const moved = (...steps: readonly (readonly [k: number, by: number])[]) => {
    const x = [...top]
    for (const [k, by] of steps) x[k]! += by
    return valueAt(x)
  }
  const here = valueAt(top)
  const second = top.map((_, i) =>
    top.map((_, j) => {
      if (j > i) return 0
      if (i === j) return -(moved([i, STEP]) + moved([i, -STEP]) - 2 * here) / STEP ** 2
      return (
        -(
          moved([i, STEP], [j, STEP]) -
          moved([i, STEP], [j, -STEP]) -
          moved([i, -STEP], [j, STEP]) +
          moved([i, -STEP], [j, -STEP])
        ) /
        (4 * STEP ** 2)
      )
    }),
  )
  // Nothing is known better than its own curvature says, nor less well than before any record.
  const least = 1 / scale ** 2
  return second.map((row, i) =>
    row.map((_, j) =>
      i === j ? Math.max(second[i]![i]!, least) : 0.9 * (second[Math.max(i, j)]![Math.min(i, j)] ?? 0),
    ),
  )
}

/** Lower factor of a symmetric matrix; one that is not positive definite is taken for its diagonal. */
function cholesky(a: readonly (readonly number[])[]): number[][] {
  const size = a.length
  const l = a.map(() => new Array<number>(size).fill(0))
  for (let i = 0; i < size; i++)
    for (let j = 0; j <= i; j++) {
      let sum = a[i]![j]!
      for (let m = 0; m < j; m++) sum -= l[i]![m]! * l[j]![m]!
      if (i !== j) l[i]![j] = sum / l[j]![j]!
      else if (sum > 1e-3 * a[i]![i]!) l[i]![i] = Math.sqrt(sum)
      else return a.map((row, p) => row.map((v, q) => (p === q ? Math.sqrt(v) : 0)))
    }
  return l
}
