import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { taxonNamed } from '../garden/test/made.ts'
import { areaM2, isInside, outlineFault } from '../geometry/index.ts'
import { CELL_M } from '../light/index.ts'
import { groundM2 } from '../plants/index.ts'
import { finished } from '../search/index.ts'
import { arrange, driftStands, unarranged, type Arrangement, type BedGround } from './index.ts'
import { bed, box, sited } from './test/site.ts'

const [of] = sited([bed('Border', box(0, 0, 6, 2))], undefined, CELL_M).places
const ground: BedGround = { of: of!, cellM: CELL_M, viewedFrom: [180], stays: [] }
const kinds = ['Helenium autumnale', 'Geranium sanguineum', 'Nepeta × faassenii', 'Miscanthus sinensis']
const drift = (n: number, count: number) => ({
  id: `${n}`,
  taxon: taxonNamed(kinds[n % kinds.length]!),
  count,
})

describe('where a drift stands once it is planted', () => {
  it('is its ground: a half of a bed is a rectangle of its size, with its middle in it', () => {
    const has = Int16Array.from(of!.stations, (s) => (s.x < 3 ? 0 : 1))
    const [left, right, none] = driftStands(ground, { drifts: [drift(0, 9), drift(1, 9), drift(2, 3)], has })
    for (const [stand, x] of [
      [left!, 1.5],
      [right!, 4.5],
    ] as const) {
      expect(Math.abs(stand.x - x)).toBeLessThan(2 * CELL_M)
      expect(Math.abs(stand.y - 1)).toBeLessThan(2 * CELL_M)
      // Half of twelve square metres, less the corners, which are cut.
      expect(areaM2(stand.outline!)).toBeGreaterThan(6 - 4 * CELL_M ** 2)
      expect(areaM2(stand.outline!)).toBeLessThanOrEqual(6)
      // Straight sides have no corners between.
      expect(stand.outline!.length).toBeLessThan(12)
    }
    expect(none).toBeUndefined()
  })

  it('never crosses itself, holds its own middle, and nothing of another drift but at the rim', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 2, max: 12 }), { minLength: 2, maxLength: 7 }),
        fc.nat(99),
        (counts, seed) => {
          const bare = unarranged(
            ground,
            counts.map((count, n) => drift(n, count)),
          )
          const arranged: Arrangement = finished(arrange(ground, bare, seed))
          driftStands(ground, arranged).forEach((stand, k) => {
            if (!stand?.outline) return
            expect(outlineFault(stand.outline)).toBeUndefined()
            expect(isInside(stand.outline, stand.x, stand.y)).toBe(true)
            const own = of!.stations.filter((_, c) => arranged.has[c] === k).length * CELL_M ** 2
            expect(areaM2(stand.outline)).toBeLessThanOrEqual(own + groundM2(1, 0.3))
          })
        },
      ),
      { numRuns: 12 },
    )
  })
})
