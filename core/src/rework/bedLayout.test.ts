import { describe, expect, it } from 'vitest'
import { taxonNamed } from '../garden/test/made.ts'
import { library } from '../plants/index.ts'
import {
  bedLayout,
  candidatesFor,
  GOOD_FIT,
  HEIGHT_SLACK_M,
  layoutScore,
  layoutWeights,
  suits,
} from './index.ts'
import { bed, sited } from './test/site.ts'

/** Long and pointed: its stations stand for more ground, or less, than a square of the way between them. */
const pointed = sited([
  bed('Pointed', [
    [0, 0],
    [31, 0.3],
    [30, 3.1],
    [4, 1.7],
  ]),
])
const [of] = pointed.places
const APART_M = 0.5

describe('a bed to be laid out', () => {
  const [tall, low] = [taxonNamed('Helenium autumnale'), taxonNamed('Nepeta × faassenii')]
  const drifts = [
    { taxon: tall, count: 9 },
    { taxon: low, count: 20 },
  ]
  const problem = bedLayout(of!, APART_M, drifts, [180])

  it('has a cell for every station, and its drifts in their order with the ground that they take', () => {
    expect(problem.cells).toHaveLength(of!.stations.length)
    expect(of!.stationM2).not.toBeCloseTo(APART_M ** 2, 3)
    expect(problem.drifts.map((d) => [d.id, d.count])).toEqual([
      ['1', 9],
      ['2', 20],
    ])
    expect(problem.drifts[1]!.areaM2).toBeCloseTo(20 * 0.866 * low.spacingM ** 2)
  })

  it('knows which cell stands before which along all of its length', () => {
    // Every other row tall, counted here from where the cells are.
    const row = (y: number) => Math.round(y / APART_M)
    const has = Int16Array.from(problem.cells, (c) => row(c.y) % 2)
    const behindTall = problem.cells.filter(
      (c, i) =>
        has[i] === 1 &&
        problem.cells.some(
          (f, k) => has[k] === 0 && Math.abs(f.x - c.x) < 0.01 && Math.abs(c.y - f.y - APART_M) < 0.01,
        ),
    )
    expect(behindTall.length).toBeGreaterThan(20)
    const lostM = tall.heightM - low.heightM - HEIGHT_SLACK_M
    expect(layoutScore(problem, has).heights).toBeCloseTo(
      layoutWeights.heights * behindTall.length * lostM * APART_M ** 2,
    )
  })
})

describe('candidates for a place', () => {
  const offered = library.map((taxon) => ({ taxon, from: 'library' as const, price: null }))

  it('would do well in a quarter of it at least, as each spot tells; and those that are wanted whatever is said', () => {
    const found = candidatesFor(of!, pointed, offered, ['Hosta sieboldiana'])
    expect(found.length).toBeGreaterThan(20)
    expect(found.length).toBeLessThan(offered.length)
    expect(found.map((c) => c.taxon.botanical)).toContain('Hosta sieboldiana')
    for (const { taxon, fit } of found.filter((c) => c.taxon.botanical !== 'Hosta sieboldiana')) {
      expect(fit).toBeGreaterThanOrEqual(GOOD_FIT)
      const asGood = of!.stations.filter((s) => suits(taxon, of!.place, s, pointed).score >= fit)
      expect(asGood.length).toBeGreaterThanOrEqual(of!.stations.length / 4)
    }
  })
})
