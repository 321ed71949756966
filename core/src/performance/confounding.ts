import { rollup } from 'd3-array'
import type { Factor } from './mixedEquations.ts'

/** Sources of which the records know only the sum of their variances. */
export interface Confounded {
  /** Indices of the factors, the first of them able to stand for all; chance is the index after the last factor. */
  factors: readonly number[]
}

/** Which factors of a mixed model its records can tell apart. */
export interface Tellable {
  /** Indices of factors that can stand in one model, in the order given. */
  kept: number[]
  /** Factors of one level only: whatever they do is in the mean. */
  single: number[]
  confounded: Confounded[]
}

/** A factor of which less than this share is its own is a sum of the others. */
const LEAST_OWN = 1e-9

/**
 * What the incidence of records on levels lets a model tell: variances of factors can be estimated if, and only if, their
 * covariance matrices, less what the mean takes, are linearly independent (Rao 1971, Journal of Multivariate Analysis 1,
 * 257-275). Found by orthogonalising them one after another, in counts of records that share levels, so that no matrix of
 * records by records is made.
 *
 * @param factors in order of which is to stay where two tell the same
 */
export function tellable(factors: readonly Factor[]): Tellable {
  const products = gram(factors)
  const kept: number[] = []
  const single: number[] = []
  const confounded: Confounded[] = []
  for (const k of factors.keys()) {
    if (products[k]![k]! <= LEAST_OWN) single.push(k)
    else {
      const of = dependsOn(products, kept, k)
      if (of) join(confounded, of, k)
      else kept.push(k)
    }
  }
  // A factor may stand in a model beside chance with which it is confounded: what each believes of itself tells them apart.
  const chance = factors.length
  const withChance = dependsOn(products, kept, chance)
  if (withChance) join(confounded, withChance, chance)
  return { kept, single, confounded }
}

function join(confounded: Confounded[], of: readonly number[], k: number): void {
  const at = confounded.findIndex((c) => c.factors[0] === of[0] && of.length === 1)
  if (at < 0) confounded.push({ factors: [...of, k] })
  else confounded[at] = { factors: [...confounded[at]!.factors, k] }
}

/**
 * Inner products of the covariance matrices of factors and, last, of chance: each less what the mean takes.
 * For factors a and b the sum over pairs of levels of (records in both - expected in both)².
 */
function gram(factors: readonly Factor[]): number[][] {
  const n = factors[0]?.of.length ?? 0
  const sizes = factors.map((f) => {
    const count = new Float64Array(f.levels)
    for (const level of f.of) count[level]!++
    return count
  })
  const squares = sizes.map((s) => s.reduce((sum, c) => sum + c * c, 0))
  const between = (a: number, b: number) => {
    const [fa, fb] = [factors[a]!, factors[b]!]
    const shared = rollup(
      fa.of.keys(),
      (rows) => rows.length,
      (r) => fa.of[r]! * fb.levels + fb.of[r]!,
    )
    let sum = (squares[a]! * squares[b]!) / n ** 2
    for (const [key, count] of shared) {
      const expected = (sizes[a]![Math.floor(key / fb.levels)]! * sizes[b]![key % fb.levels]!) / n
      sum += count ** 2 - 2 * count * expected
    }
    return sum
  }
  const products = factors.map((_, a) => factors.map((_, b) => between(a, b)))
  const own = squares.map((s) => n - s / n)
  return [...products.map((row, a) => [...row, own[a]!]), [...own, n - 1]]
}

/** The kept factors of which another is a sum, or nothing where it has a part of its own. */
function dependsOn(products: readonly (readonly number[])[], kept: readonly number[], k: number) {
  // Gram and Schmidt, each residual as a combination of the kept.
  const basis: { combination: Map<number, number>; square: number }[] = []
  const inner = (a: ReadonlyMap<number, number>, b: ReadonlyMap<number, number>) => {
    let sum = 0
    for (const [i, x] of a) for (const [j, y] of b) sum += x * y * products[i]![j]!
    return sum
  }
  const reduced = (of: number) => {
    const combination = new Map([[of, 1]])
    const start = new Map([[of, 1]])
    for (const { combination: earlier, square } of basis) {
      const share = inner(start, earlier) / square
      for (const [i, x] of earlier) combination.set(i, (combination.get(i) ?? 0) - share * x)
    }
    return { combination, square: inner(combination, combination) }
  }
  for (const of of kept) basis.push(reduced(of))
  const { combination, square } = reduced(k)
  if (square > LEAST_OWN * products[k]![k]!) return undefined
  const size = (i: number) => Math.abs(combination.get(i) ?? 0) * Math.sqrt(products[i]![i]!)
  return kept.filter((i) => size(i) > 1e-6 * size(k))
}
