import { describe, expect, it } from 'vitest'
import { taxonNamed } from '../garden/test/made.ts'
import type { Point } from '../geometry/index.ts'
import { finished } from '../search/index.ts'
import { arrange, plantsOf, pocketsOfScheme, settingOut, unarranged, type BedGround } from './index.ts'
import { bed, box, sited } from './test/site.ts'

const CELL_M = 0.25
const garden = sited([bed('Long', box(0, 0, 8, 3))], undefined, CELL_M)
const ground: BedGround = { of: garden.places[0]!, cellM: CELL_M, viewedFrom: [180], stays: [] }
const [helenium, snowdrop] = ['Helenium autumnale', 'Galanthus nivalis'].map((n) => taxonNamed(n))
const kindOf = new Map([snowdrop!].map((t) => [t.botanical, t]))
const arranged = finished(arrange(ground, unarranged(ground, [{ id: 'd', taxon: helenium!, count: 9 }]), 3))
const said = {
  drifts: [{ ground: [] }],
  between: [{ id: 'b', botanical: snowdrop!.botanical, count: 20 }],
  stones: [[4, 1] as Point],
  baseLine: null,
}
const pockets = pocketsOfScheme(ground, arranged, said, kindOf)
const laid = { ground, arranged, pockets }

describe('a scheme set out with a tape', () => {
  it('has every plant, every stone, and of each pocket the bulbs that it holds', () => {
    const names = settingOut(laid, said).table.map((r) => r.name)
    const plants = plantsOf(ground, arranged).length
    expect(names.filter((n) => n === 'Helenium autumnale')).toHaveLength(plants)
    expect(names.filter((n) => n === 'stepping stone')).toHaveLength(1)
    // Sevens, and what is left.
    expect(names.filter((n) => n.endsWith('nivalis')).sort()).toEqual([
      '6 Galanthus nivalis',
      '7 Galanthus nivalis',
      '7 Galanthus nivalis',
    ])
  })

  it('is measured from the side that is said, and from the longest where that is no side any more', () => {
    const short: readonly [Point, Point] = [[8, 0], [8, 3]] // prettier-ignore
    expect(settingOut(laid, { ...said, baseLine: short }).base).toMatchObject({ from: [8, 0], lengthM: 3 })
    const gone: readonly [Point, Point] = [[9, 0], [9, 3]] // prettier-ignore
    for (const baseLine of [gone, null]) {
      const { base, sides } = settingOut(laid, { ...said, baseLine })
      expect([base, base.lengthM]).toEqual([sides[0], 8])
    }
  })

  it('has no bulbs before it is laid out, nor of kinds that nobody knows', () => {
    expect(pocketsOfScheme(ground, arranged, { ...said, drifts: [{ ground: null }] }, kindOf)).toEqual([])
    expect(pocketsOfScheme(ground, arranged, said, new Map())).toEqual([])
  })
})
