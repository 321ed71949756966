import { describe, expect, it } from 'vitest'
import { taxonNamed } from '../garden/test/made.ts'
import { distanceToBoundary, isInside } from '../geometry/index.ts'
import {
  arrange,
  fillingAfter,
  GROWTH_YEARS,
  placeOutline,
  sizeAt,
  unarranged,
  type BedGround,
} from '../rework/index.ts'
import { bed, box, sited } from '../rework/test/site.ts'
import { seededRandom } from '../random/index.ts'
import { finished } from '../search/index.ts'
import { FILLERS, fillersOfScheme, plantsOfScheme } from './index.ts'

const CELL_M = 0.2
const on = '2026-09-15'
const kinds = ['Helenium autumnale', 'Nepeta × faassenii', 'Phlox paniculata', 'Miscanthus sinensis', 'Hydrangea paniculata', 'Geranium macrorrhizum'] // prettier-ignore
const marigold = taxonNamed('Tagetes patula')
const kindOf = new Map([[marigold.botanical, marigold]])

/** A seeded bed with as many drifts as it has room for. */
function laid(seed: number) {
  const random = seededRandom(seed)
  const garden = sited([bed('Long', box(0, 0, 5 + 4 * random(), 2 + 2 * random()))], undefined, CELL_M)
  const ground: BedGround = { of: garden.places[0]!, cellM: CELL_M, viewedFrom: [180], stays: [] }
  const drifts = Array.from({ length: 5 }, (_, i) => ({
    id: `d${i}`,
    taxon: taxonNamed(kinds[Math.floor(random() * kinds.length)]!),
    count: 1 + Math.floor(5 * random()),
  }))
  const arranged = finished(arrange(ground, unarranged(ground, drifts), seed))
  const scheme = { ground, arranged, pockets: [], between: [], filler: marigold.botanical, kindOf }
  return { ground, arranged, scheme, plants: plantsOfScheme(scheme, on) }
}

describe('annuals that fill a scheme', () => {
  it.each([101, 102, 103, 104, 105, 106])(
    'stand in the open, apart, inside the bed, and as many as were reckoned: seed %i',
    (seed) => {
      const { ground, arranged, scheme, plants } = laid(seed)
      const ring = placeOutline(ground.of.place)
      for (const years of [0.25, ...GROWTH_YEARS]) {
        const set = fillersOfScheme(scheme, plants, years)
        const { fillers } = fillingAfter(years, arranged.drifts, marigold)
        expect(set.length).toBeLessThanOrEqual(fillers)
        // Ground that lies in slivers between crowns is reckoned, and has room for none.
        expect(set.length).toBeGreaterThanOrEqual(Math.floor(0.85 * fillers))
        set.forEach((f, i) => {
          expect(f).toMatchObject({ groupId: FILLERS, taxon: marigold, ageYears: 0 })
          expect(isInside(ring, f.x, f.y)).toBe(true)
          expect(distanceToBoundary(ring, f.x, f.y)).toBeGreaterThan(0.08)
          for (const p of plants)
            expect(Math.hypot(p.x - f.x, p.y - f.y)).toBeGreaterThan(
              sizeAt(p.taxon, p.ageYears + years).spreadM / 2,
            )
          for (const o of set.slice(0, i))
            expect(Math.hypot(o.x - f.x, o.y - f.y)).toBeGreaterThan(0.8 * marigold.spacingM)
        })
      }
      const years = GROWTH_YEARS.map((y) => fillersOfScheme(scheme, plants, y).length)
      expect(years).toEqual(years.toSorted((a, b) => b - a))
    },
  )

  it('are none where nobody has said which, or the kind is in no library, or nothing is laid out', () => {
    const { ground, scheme, plants } = laid(107)
    const none = [
      { ...scheme, filler: undefined },
      { ...scheme, kindOf: new Map() },
      { ...scheme, arranged: unarranged(ground, scheme.arranged.drifts) },
    ]
    for (const of of none) expect(fillersOfScheme(of, plants, 1)).toEqual([])
    expect(fillersOfScheme(scheme, plants, 1).length).toBeGreaterThan(0)
  })
})
