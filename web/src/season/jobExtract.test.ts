import type { PlantingView } from '@border/contract'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { groundAbout, inWalkingOrder } from './JobExtract.tsx'

const planting = (id: string, x: number, y: number) =>
  ({
    id,
    x,
    y,
    radiusM: 0.3,
    livingCount: 1,
    outline: null,
    taxon: { spacingM: 0.4 },
  }) as unknown as PlantingView

describe('where the plants of a job stand', () => {
  it('is numbered as one walks: along a border from end to end, whatever their tags', () => {
    const border = [4, 0, 6, 2, 8].map((x) => ({ id: `p${x}`, x, y: 0 }))
    expect(inWalkingOrder(border).map((p) => p.x)).toEqual([0, 2, 4, 6, 8])
  })

  it('shows every plant with what stands about it, and never so little that nobody knows where it is', () => {
    const at = fc.double({ min: -20, max: 20, noNaN: true })
    fc.assert(
      fc.property(fc.array(fc.tuple(at, at), { minLength: 1, maxLength: 12 }), (points) => {
        const plants = points.map(([x, y], i) => planting(`${i}`, x, y))
        const e = groundAbout(plants)
        expect(e.maxX - e.minX).toBeGreaterThanOrEqual(4 - 1e-9)
        expect(e.maxY - e.minY).toBeGreaterThanOrEqual(4 - 1e-9)
        for (const p of plants) {
          expect(p.x - e.minX).toBeGreaterThan(1)
          expect(e.maxY - p.y).toBeGreaterThan(1)
        }
        expect(new Set(inWalkingOrder(plants)).size).toBe(plants.length)
      }),
    )
  })
})
