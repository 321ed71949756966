import { describe, expect, it } from 'vitest'
import { groundOf } from '../garden/index.ts'
import { madePlanting } from '../garden/test/made.ts'
import { asDisc } from '../geometry/index.ts'
import { plantsOfPlanting } from './index.ts'

describe('the plants of a planting', () => {
  it.each([1, 2, 3, 7, 40])(
    'stand within its ground and apart from each other, %i of them, as old as they are',
    (many) => {
      const planting = madePlanting('P-1', 'Astrantia major', {
        livingCount: many,
        x: 2,
        y: 3,
        plantedOn: '2022-06-01',
      })
      const { radiusM } = asDisc(groundOf(planting))
      const plants = plantsOfPlanting(planting, '2026-06-01')
      expect(new Set(plants.map((p) => p.id)).size).toBe(many)
      for (const p of plants) {
        expect(Math.hypot(p.x - 2, p.y - 3)).toBeLessThan(radiusM)
        expect(p.ageYears).toBeCloseTo(4, 1)
      }
      const nearest = plants.map((p) =>
        Math.min(Infinity, ...plants.filter((o) => o !== p).map((o) => Math.hypot(o.x - p.x, o.y - p.y))),
      )
      for (const m of nearest) expect(m).toBeGreaterThan(0.5 * planting.taxon.spacingM * 0.78)
    },
  )
})
