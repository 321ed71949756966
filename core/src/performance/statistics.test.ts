import { describe, expect, it } from 'vitest'
import { normal, seededRandom } from '../random/index.ts'
import { mixedModel, type Factor } from './mixedModel.ts'
import { followedPlants, survivalOf, survivingAt } from './survival.ts'
import { theilSen } from './theilSen.ts'

describe('Theil and Sen', () => {
  it('cloud seeding, Hollander and Wolfe 1999 example 9.1: slope -0.056 over five years', () => {
    const trend = theilSen([
      [1, 1.26],
      [2, 1.27],
      [3, 1.12],
      [4, 1.16],
      [5, 1.03],
    ])!
    expect(trend.slope).toBeCloseTo(-0.056, 3)
    expect(trend.s).toBe(-6)
    // Their table A.30: P(S >= 6) is 0.117 for n = 5.
    expect(trend.p / 2).toBeCloseTo(0.117, 3)
  })
  it('one bad season out of seven does not turn a level record', () => {
    const level = [4, 4, 4, 1, 4, 4, 4].map((y, x) => [x, y] as const)
    expect(theilSen(level)!.slope).toBe(0)
    expect(theilSen([[2020, 3]])).toBeUndefined()
  })
})

describe('Kaplan and Meier', () => {
  it('their own example of 1958: deaths at 0.8, 3.1, 5.4 and 9.2 among eight', () => {
    const died = [0.8, 3.1, 5.4, 9.2].map((years) => ({ years, died: true }))
    const lost = [1.0, 2.7, 7.0, 12.1].map((years) => ({ years, died: false }))
    expect(survivalOf([...died, ...lost]).map((s) => s.share)).toEqual([
      expect.closeTo(0.875, 10),
      expect.closeTo(0.7, 10),
      expect.closeTo(0.525, 10),
      expect.closeTo(0.2625, 10),
    ])
  })
  it('remission under 6-mercaptopurine (Freireich et al. 1963), as printed with Greenwood’s error', () => {
    const at = (died: boolean, ...years: number[]) => years.map((y) => ({ years: y, died }))
    const steps = survivalOf([
      ...at(true, 6, 6, 6, 7, 10, 13, 16, 22, 23),
      ...at(false, 6, 9, 10, 11, 17, 19, 20, 25, 32, 32, 34, 35),
    ])
    expect(
      steps.map((s) => [s.years, s.atRisk, Number(s.share.toFixed(4)), Number(s.se.toFixed(4))]),
    ).toEqual([
      [6, 21, 0.8571, 0.0764],
      [7, 17, 0.8067, 0.0869],
      [10, 15, 0.7529, 0.0963],
      [13, 12, 0.6902, 0.1068],
      [16, 11, 0.6275, 0.1141],
      [22, 7, 0.5378, 0.1282],
      [23, 6, 0.4482, 0.1346],
    ])
    expect(survivingAt(steps, 12).share).toBeCloseTo(0.7529, 4)
    expect(survivingAt(steps, 2)).toEqual({ share: 1, se: 0 })
  })
  it('follows each plant of a drift: three of seven lost, four still seen', () => {
    const plants = followedPlants([
      {
        plantedCount: 7,
        counts: [
          { years: 0.5, living: 7 },
          { years: 1.5, living: 5 },
          { years: 2.5, living: 6 },
          { years: 3.5, living: 4 },
        ],
        followedYears: 4,
      },
    ])
    expect(plants.filter((p) => p.died).map((p) => p.years)).toEqual([1.5, 1.5, 3.5])
    expect(plants.filter((p) => !p.died)).toHaveLength(4)
  })
})

const factor = (name: string, of: readonly number[]): Factor => ({
  name,
  of: Int32Array.from(of),
  levels: Math.max(...of) + 1,
})

describe('the mixed model', () => {
  /** Yield of six batches of dyestuff, five preparations each: Davies and Goldsmith 1972, table 6.1. */
  const dyestuff = [
    [1545, 1440, 1440, 1520, 1580],
    [1540, 1555, 1490, 1560, 1495],
    [1595, 1550, 1605, 1510, 1560],
    [1445, 1440, 1595, 1465, 1545],
    [1595, 1630, 1515, 1635, 1625],
    [1520, 1455, 1450, 1480, 1445],
  ]
  it.each([['dense', false] as const, ['nested', true] as const])(
    'dyestuff: mean 1527.5, batch variance 1764, error 2451, as published, with the factor %s',
    (_, nests) => {
      const batch = factor(
        'batch',
        dyestuff.flatMap((row, i) => row.map(() => i)),
      )
      const model = mixedModel({
        y: Float64Array.from(dyestuff.flat()),
        weight: new Float64Array(30).fill(1),
        factors: nests ? [] : [batch],
        nested: nests ? [batch] : [],
      })
      expect(model.converged).toBe(true)
      expect(model.mean).toBeCloseTo(1527.5, 6)
      expect(model.variance.factors[0]!).toBeCloseTo(1764.05, 0)
      expect(model.variance.error).toBeCloseTo(2451.25, 0)
      // Standard error of the mean as published: 19.38.
      expect(model.meanSe).toBeCloseTo(19.38, 1)
      // Balanced data: each effect is its batch's mean less the mean, shrunk by 5 s²b / (5 s²b + s²e).
      const shrink = (5 * 1764.05) / (5 * 1764.05 + 2451.25)
      const effects = model.effects[0]!
      dyestuff.forEach((row, i) => {
        const mean = row.reduce((a, b) => a + b) / 5
        expect(effects[i]!.estimate).toBeCloseTo(shrink * (mean - 1527.5), 1)
      })
    },
  )

  it('two crossed factors in balance: the variances are those of the analysis of variance', () => {
    const random = seededRandom(5)
    const [a, b] = [8, 6]
    const rowEffects = Array.from({ length: a }, () => 0.9 * normal(random))
    const columnEffects = Array.from({ length: b }, () => 0.6 * normal(random))
    const cells = rowEffects.flatMap((r, i) =>
      columnEffects.map((c, j) => ({ i, j, y: 3 + r + c + 0.4 * normal(random) })),
    )
    const model = mixedModel({
      y: Float64Array.from(cells, (c) => c.y),
      weight: new Float64Array(cells.length).fill(1),
      factors: [
        factor(
          'row',
          cells.map((c) => c.i),
        ),
        factor(
          'column',
          cells.map((c) => c.j),
        ),
      ],
    })
    const mean = (of: typeof cells) => of.reduce((s, c) => s + c.y, 0) / of.length
    const all = mean(cells)
    const rows = rowEffects.map((_, i) => mean(cells.filter((c) => c.i === i)))
    const columns = columnEffects.map((_, j) => mean(cells.filter((c) => c.j === j)))
    const squares = (values: number[]) => values.reduce((s, v) => s + v * v, 0)
    const msRows = (b * squares(rows.map((m) => m - all))) / (a - 1)
    const msColumns = (a * squares(columns.map((m) => m - all))) / (b - 1)
    const msError = squares(cells.map((c) => c.y - rows[c.i]! - columns[c.j]! + all)) / ((a - 1) * (b - 1))
    expect(model.variance.error).toBeCloseTo(msError, 3)
    expect(model.variance.factors[0]!).toBeCloseTo((msRows - msError) / b, 3)
    expect(model.variance.factors[1]!).toBeCloseTo((msColumns - msError) / a, 3)
  })

  it('sparse elimination gives the effects, errors and sums of the dense equations, nested or not', () => {
    const random = seededRandom(17)
    const n = 60
    const of = (levels: number) => Array.from({ length: n }, () => Math.floor(random() * levels))
    const place = factor('place', of(4))
    const planting = factor('planting', of(15))
    const taxon = factor(
      'taxon',
      Array.from(planting.of, (p) => p % 6),
    )
    const crossed = factor('crossed', of(5))
    const y = Float64Array.from({ length: n }, (_, r) => 3 + 0.5 * (taxon.of[r]! % 3) + 0.8 * normal(random))
    const weight = Float64Array.from({ length: n }, () => 0.2 + random())
    const one = mixedModel({ y, weight, factors: [place], nested: [planting, crossed, taxon] })
    const other = mixedModel({ y, weight, factors: [place, planting, crossed, taxon] })
    expect(one.variance.error).toBeCloseTo(other.variance.error, 6)
    one.effects.forEach((of, k) =>
      of.forEach((e, i) => {
        expect(e.estimate).toBeCloseTo(other.effects[k]![i]!.estimate, 6)
        expect(e.se).toBeCloseTo(other.effects[k]![i]!.se, 6)
      }),
    )
    const levels = [place.of[7], planting.of[7], undefined, taxon.of[7]]
    expect(one.predict(levels).estimate).toBeCloseTo(other.predict(levels).estimate, 6)
    expect(one.predict(levels).se).toBeCloseTo(other.predict(levels).se, 6)
  })

  it.each([3, 11, 40])(
    'shares between two factors that always go together what one alone would have (seed %i)',
    (seed) => {
      const random = seededRandom(seed)
      const n = 80
      const spot = factor(
        'spot',
        Array.from({ length: n }, () => Math.floor(random() * 5)),
      )
      const batch = factor(
        'batch',
        Array.from({ length: n }, (_, r) => r % 16),
      )
      const own = Array.from({ length: 16 }, () => 0.7 * normal(random))
      const y = Float64Array.from({ length: n }, (_, r) => 3 + own[batch.of[r]!]! + 0.5 * normal(random))
      const weight = Float64Array.from({ length: n }, () => 0.4 + random())
      const alone = mixedModel({ y, weight, factors: [spot], nested: [batch] })
      const together = mixedModel({ y, weight, factors: [spot], nested: [batch, { ...batch, name: 'same' }] })
      // The likelihood knows their sum only: what it is highest at, and what it predicts, is what one alone gives.
      const [, first, second] = together.variance.factors as [number, number, number]
      expect(first + second).toBeCloseTo(alone.variance.factors[1]!, 3)
      expect(first).toBeCloseTo(second, 3)
      expect(together.variance.error).toBeCloseTo(alone.variance.error, 3)
      expect(together.mean).toBeCloseTo(alone.mean, 3)
      expect(together.meanSe).toBeCloseTo(alone.meanSe, 3)
      for (let level = 0; level < 16; level++)
        expect(together.predict([undefined, level, level]).estimate).toBeCloseTo(
          alone.predict([undefined, level]).estimate,
          3,
        )
    },
  )

  it('stands where the restricted likelihood, worked out from the whole covariance matrix, is highest', () => {
    const random = seededRandom(29)
    const n = 36
    const a = factor(
      'a',
      Array.from({ length: n }, (_, i) => i % 6),
    )
    const b = factor(
      'b',
      Array.from({ length: n }, () => Math.floor(random() * 4)),
    )
    const ea = Array.from({ length: 6 }, () => normal(random))
    const eb = Array.from({ length: 4 }, () => 0.8 * normal(random))
    const y = Float64Array.from(
      { length: n },
      (_, r) => 2 + ea[a.of[r]!]! + eb[b.of[r]!]! + 0.6 * normal(random),
    )
    const weight = Float64Array.from({ length: n }, () => 0.3 + random())
    const model = mixedModel({ y, weight, factors: [a, b] })
    const at = (va: number, vb: number, ve: number) => restrictedLikelihood(y, weight, [a, b], [va, vb], ve)
    const [va, vb] = model.variance.factors as [number, number]
    const ve = model.variance.error
    const best = at(va, vb, ve)
    for (const step of [0.97, 1.03]) {
      expect(at(va * step, vb, ve)).toBeLessThan(best)
      expect(at(va, vb * step, ve)).toBeLessThan(best)
      expect(at(va, vb, ve * step)).toBeLessThan(best)
    }
  })
})

/** -1/2 (log|V| + log|1'V⁻¹1| + (y - m)'V⁻¹(y - m)), by elimination on V itself. */
function restrictedLikelihood(
  y: Float64Array,
  weight: Float64Array,
  factors: readonly Factor[],
  variances: readonly number[],
  error: number,
): number {
  const n = y.length
  const v = Array.from({ length: n }, (_, i) =>
    Array.from({ length: n }, (_, j) =>
      factors.reduce(
        (sum, f, k) => sum + (f.of[i] === f.of[j] ? variances[k]! : 0),
        i === j ? error / weight[i]! : 0,
      ),
    ),
  )
  // V x = [y, 1] by Gaussian elimination; the pivots give the determinant.
  const rows = v.map((row, i) => [...row, y[i]!, 1])
  let logDet = 0
  for (let p = 0; p < n; p++) {
    logDet += Math.log(rows[p]![p]!)
    for (let i = p + 1; i < n; i++) {
      const f = rows[i]![p]! / rows[p]![p]!
      for (let j = p; j < n + 2; j++) rows[i]![j]! -= f * rows[p]![j]!
    }
  }
  const back = (column: number) => {
    const x = new Array<number>(n).fill(0)
    for (let i = n - 1; i >= 0; i--) {
      let sum = rows[i]![column]!
      for (let j = i + 1; j < n; j++) sum -= rows[i]![j]! * x[j]!
      x[i] = sum / rows[i]![i]!
    }
    return x
  }
  const [vy, v1] = [back(n), back(n + 1)]
  const sum = (x: readonly number[]) => x.reduce((s, e) => s + e, 0)
  const information = sum(v1)
  const mean = sum(vy) / information
  const quadratic = vy.reduce((s, e, i) => s + (y[i]! - mean) * (e - mean * v1[i]!), 0)
  return -0.5 * (logDet + Math.log(information) + quadratic)
}
