import { describe, expect, it } from 'vitest'
import { recordDeviation } from '../../verify/record.ts'
import { thinRecord } from '../../simulated/thinRecord.ts'
import { cannotTell, recordModel, sharesSaid } from './index.ts'

/** Gardens of which little is on record: few kinds, few places, few seasons, each of them sometimes one. */
describe('a thin record', () => {
  const names = { place: (id: string) => id, taxon: (botanical: string) => botanical }

  it('expects of each planting what the whole covariance matrix gives, to a fiftieth of a rating', () => {
    let compared = 0
    for (let seed = 1; compared < 4; seed++) {
      const d = recordDeviation(seed, 45)
      if (!d?.model) continue
      compared++
      expect([seed, d.expected < 0.02, d.se < 0.05]).toEqual([seed, true, true])
    }
  })

  it('says no number that is none, no share of which the range is wider than a half, and what would tell', () => {
    for (let seed = 300; seed < 315; seed++) {
      const { plantings, scores, lightOf } = thinRecord(seed)
      const model = recordModel(plantings, scores, lightOf)
      if (!model) continue
      const numbers = JSON.stringify(model)
      expect(numbers).not.toMatch(/null|NaN/)
      const alone = model.shares.map(({ share, low, high }) => ({ share, low, high }))
      for (const { share, low, high } of alone) {
        expect(low).toBeGreaterThanOrEqual(0)
        expect(high).toBeLessThanOrEqual(1)
        if (share === undefined) continue
        expect(high - low).toBeLessThanOrEqual(0.5)
        expect(share >= low && share <= high).toBe(true)
      }
      if (alone.every((s) => s.share !== undefined))
        expect(alone.reduce((sum, s) => sum + s.share!, 0)).toBeCloseTo(1, 9)
      const cannot = cannotTell(model, names)
      expect(cannot.length >= alone.filter((s) => s.share === undefined).length - 2).toBe(true)
      for (const { says, wouldTell } of cannot) {
        expect(says).toMatch(/^[A-Z].*\.$/)
        expect(wouldTell).toMatch(/would tell\.$|would tie them\.$/)
      }
      expect(sharesSaid(model)).not.toMatch(/NaN|undefined/)
    }
  })

  it('all rated alike differs by nothing', () => {
    const { plantings, scores, lightOf } = thinRecord(7)
    const flat = scores.map((s) => ({ ...s, score: 4, adjusted: 4 }))
    const model = recordModel(plantings, flat, lightOf)!
    expect(model.mean).toBeCloseTo(4, 6)
    for (const p of model.plantings) expect(p.expected.score).toBeCloseTo(4, 6)
  })
})
