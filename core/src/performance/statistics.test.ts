import { describe, expect, it } from 'vitest'
import { normal, seededRandom } from '../random/index.ts'
import { tellable } from './confounding.ts'
import { mixedModel, type Factor } from './mixedModel.ts'
import { followedPlants, survivalOf, survivingAt } from './survival.ts'
import { denseLogLikelihood, denseReml } from '../../reference/denseReml.ts'
import { effectsDeviation } from '../../verify/effects.ts'
import { theilSen } from './theilSen.ts'
import { varianceShares } from './varianceShares.ts'

describe('Theil and Sen', () => {
  it('cloud seeding, Hollander and Wolfe 1999 example 9.1: slope -0.056 over five years', () => {
    const slope = theilSen([
      [1, 1.26],
      [2, 1.27],
      [3, 1.12],
      [4, 1.16],
      [5, 1.03],
    ])!
    expect(slope).toBeCloseTo(-0.056, 3)
  })
  it('one bad season out of seven does not turn a level record', () => {
    const level = [4, 4, 4, 1, 4, 4, 4].map((y, x) => [x, y] as const)
    expect(theilSen(level)).toBe(0)
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

  it('where nothing is shrunk has the differences and errors of least squares', () => {
    for (let seed = 1; seed <= 12; seed++)
      expect(effectsDeviation(seed), `seed ${seed}`).toEqual({
        difference: expect.closeTo(0, 4),
        se: expect.closeTo(0, 4),
      })
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

  it('stands where the restricted likelihood, worked out from the whole covariance matrix, is highest', () => {
    for (let seed = 1; seed <= 6; seed++) {
      const random = seededRandom(seed)
      const n = 14 + Math.floor(20 * random())
      const of = (levels: number) => Array.from({ length: n }, () => Math.floor(random() * levels))
      const [a, b] = [of(2 + Math.floor(random() * 6)), of(2 + Math.floor(random() * 4))]
      const effect = a.map(() => 1.2 * random() * normal(random))
      const y = Array.from({ length: n }, (_, r) => 3 + effect[a[r]!]! + 0.8 * normal(random))
      const weight = Array.from({ length: n }, () => 0.3 + random())
      const model = mixedModel({
        y: Float64Array.from(y),
        weight: Float64Array.from(weight),
        factors: [factor('a', a), factor('b', b)],
      })
      const sd = [0.05, 0.4, 1]
      const starts = sd.flatMap((x) => sd.map((z) => [x, z, 0.6]))
      const top = denseReml({ y, weight, factors: [a, b] }, starts)
      const value = denseLogLikelihood({ y, weight, factors: [a, b] }, [
        ...model.variance.factors,
        model.variance.error,
      ])
      expect([seed, model.converged, value > top.value - 1e-5]).toEqual([seed, true, true])
    }
  })
})

describe('what records tell apart', () => {
  const tells = (...of: number[][]) => tellable(of.map((levels, k) => factor(String(k), levels)))

  it('leaves out a factor of one level, and one that goes with another in every record', () => {
    expect(tells([0, 0, 0, 0], [0, 0, 1, 1], [1, 1, 0, 0], [0, 1, 0, 1])).toEqual({
      kept: [1, 3],
      single: [0],
      confounded: [{ factors: [1, 2] }],
    })
  })
  it('knows a factor with one record a level for chance', () => {
    expect(tells([0, 0, 1, 1], [0, 1, 2, 3])).toEqual({
      kept: [0, 1],
      single: [],
      confounded: [{ factors: [1, 2] }],
    })
  })
  it('names all that are one, and chance among them', () => {
    expect(tells([0, 1, 2, 3], [3, 2, 1, 0]).confounded).toEqual([{ factors: [0, 1, 2] }])
  })
  it('is told by the rank of the covariance matrices, record by record', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const random = seededRandom(seed)
      const n = 4 + Math.floor(8 * random())
      const of = Array.from({ length: 3 }, () => {
        const levels = 1 + Math.floor(3 * random())
        return Array.from({ length: n }, () => Math.floor(random() * levels))
      })
      const { kept } = tells(...of)
      expect([seed, kept.length]).toEqual([seed, rankOf(of.map((levels) => covarianceOf(levels)))])
    }
  })
})

describe('shares of the variance', () => {
  it('lie where the posterior, summed over a grid, puts them eight times in ten', () => {
    const batches = [0, 0, 0, 0, 1, 1, 1, 1, 2, 2, 2, 2, 3, 3, 3, 3, 4, 4, 4, 4]
    const random = seededRandom(8)
    const own = [0.9, -0.4, 0.2, -0.8, 0.3]
    const y = batches.map((b) => 3 + own[b]! + 0.6 * normal(random))
    const prior = { scale: 1, error: { variance: 0.25, residuals: 2 } }
    const input = {
      y: Float64Array.from(y),
      weight: new Float64Array(y.length).fill(1),
      factors: [factor('batch', batches)],
    }
    const [share] = varianceShares(input, prior, mixedModel(input, prior))
    const dense = {
      y,
      weight: y.map(() => 1),
      factors: [batches],
      prior: { scale: 1, variance: 0.25, residuals: 2 },
    }
    const points: [share: number, weight: number][] = []
    for (let sd = 0.005; sd < 4; sd += 0.02)
      for (let log = -3.5; log < 2; log += 0.05) {
        const variance = [sd * sd, Math.exp(log)]
        points.push([
          variance[0]! / (variance[0]! + variance[1]!),
          Math.exp(denseLogLikelihood(dense, variance)),
        ])
      }
    points.sort((a, b) => a[0] - b[0])
    const total = points.reduce((sum, [, w]) => sum + w, 0)
    const below = (x: number) => points.reduce((sum, [s, w]) => sum + (s <= x ? w : 0), 0) / total
    expect(below(share!.low)).toBeCloseTo(0.1, 1)
    expect(below(share!.high)).toBeCloseTo(0.9, 1)
    expect(Math.abs(below(share!.low) - 0.1)).toBeLessThan(0.04)
    expect(Math.abs(below(share!.high) - 0.9)).toBeLessThan(0.04)
  })
})

/** Covariance of records that share a level, less what the mean takes, as one long row. */
function covarianceOf(levels: readonly number[]): number[] {
  const n = levels.length
  const size = levels.map((l) => levels.filter((m) => m === l).length)
  const all = size.reduce((a, b) => a + b, 0) / n ** 2
  return levels.flatMap((l, i) => levels.map((m, j) => (l === m ? 1 : 0) - size[i]! / n - size[j]! / n + all))
}

/** Rows that are not sums of rows before them. */
function rankOf(rows: number[][]): number {
  const basis: number[][] = []
  for (const row of rows) {
    let rest = [...row]
    for (const b of basis) {
      const share = rest.reduce((s, v, i) => s + v * b[i]!, 0) / b.reduce((s, v) => s + v * v, 0)
      rest = rest.map((v, i) => v - share * b[i]!)
    }
    if (Math.hypot(...rest) > 1e-6) basis.push(rest)
  }
  return basis.length
}
