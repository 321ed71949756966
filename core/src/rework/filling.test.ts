import { describe, expect, it } from 'vitest'
import { london } from '../climate/test/london.ts'
import { taxonNamed } from '../garden/test/made.ts'
import { library } from '../plants/index.ts'
import { fillerKinds, fillingAfter, sizeAt } from './index.ts'
import { sited } from './test/site.ts'

const helenium = taxonNamed('Helenium autumnale')
const marigold = taxonNamed('Tagetes patula')

describe('what a scheme leaves open', () => {
  it('is the ground of its plants that they do not cover yet, filled at the spacing of what fills it, by hand', () => {
    const { spreadM } = sizeAt(helenium, 0.25)
    // Twelve at their spacing in a triangular grid, less twelve discs; marigolds 25 cm apart take 0.866 · 0.0625 m² each.
    const open = 12 * 0.866 * helenium.spacingM ** 2 - (12 * Math.PI * spreadM ** 2) / 4
    const filling = fillingAfter(0.25, [{ taxon: helenium, count: 12 }], marigold)
    expect(filling.openM2).toBeCloseTo(open)
    expect(filling.fillers).toBe(Math.floor(open / (0.866 * 0.25 ** 2)))
  })

  it('is filled as long as an annual has room in the middle of three plants, and no longer, by hand', () => {
    const gapM = (years: number) => helenium.spacingM / Math.sqrt(3) - sizeAt(helenium, years).spreadM / 2
    for (let years = 0; years < 5; years += 0.25) {
      const { openM2, fillers } = fillingAfter(years, [{ taxon: helenium, count: 12 }], marigold)
      // They stand 25 cm apart, and may be leaned on: 7.5 cm from the crowns about them.
      expect([years, fillers > 0]).toEqual([years, gapM(years) >= 0.075 && openM2 > 0.06])
    }
  })

  it('is less each year, wants more of what stands closer, and leaves bulbs out, which come up between', () => {
    const planted = [
      { taxon: helenium, count: 12 },
      { taxon: taxonNamed('Miscanthus sinensis'), count: 3 },
    ]
    const years = [0, 1, 2, 3, 5, 10].map((y) => fillingAfter(y, planted, marigold).fillers)
    expect(years).toEqual(years.toSorted((a, b) => b - a))
    expect(years[0]).toBeGreaterThan(years[5]!)
    const close = fillingAfter(0, planted, taxonNamed('Lobelia erinus'))
    expect(close.fillers).toBeGreaterThan(years[0]!)
    expect(
      fillingAfter(1, [...planted, { taxon: taxonNamed('Galanthus nivalis'), count: 100 }], marigold),
    ).toEqual(fillingAfter(1, planted, marigold))
    expect(fillingAfter(1, [], undefined)).toEqual({ openM2: 0, fillers: 0 })
  })
})

describe('kinds that could fill it', () => {
  const garden = sited(undefined, london)
  const { place, stations } = garden.places.find((p) => p.place.name === 'Open')!
  const inLight = (hours: number) =>
    fillerKinds(
      library,
      place,
      stations.map((s) => ({
        ...s,
        hours: { total: hours, morning: hours / 2, midday: 0, afternoon: hours / 2, heat: 0 },
      })),
      garden,
    )

  it('are low ones of a season, those for sun in the sun and those for shade in the shade', () => {
    const [sun, shade] = [inLight(8), inLight(2.5)]
    for (const { taxon } of [...sun, ...shade]) {
      expect(taxon.heightM).toBeLessThanOrEqual(0.6)
      expect([taxon.botanical, ['annual', 'tender perennial'].includes(taxon.lifeForm) || taxon.annualSeason !== null]).toEqual([taxon.botanical, true]) // prettier-ignore
    }
    const names = (of: typeof sun) => of.map((k) => k.taxon.botanical)
    expect(names(sun)).toContain('Tagetes patula')
    expect(names(shade)).not.toContain('Tagetes patula')
    expect(names(shade)).toContain('Impatiens walleriana')
    for (const of of [sun, shade]) {
      const scores = of.map((k) => k.score)
      expect(scores).toEqual(scores.toSorted((a, b) => b - a))
      expect(Math.min(...scores)).toBeGreaterThan(0.5)
    }
  })

  it('are none where nothing is known of the ground', () => {
    expect(fillerKinds(library, place, [], garden)).toEqual([])
  })
})
