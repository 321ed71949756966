import { describe, expect, it } from 'vitest'
import { library, USUAL_YEAR } from '../plants/index.ts'
import { seededRandom } from '../random/index.ts'
import { gardenRecord, type RecordedPlanting, type Seen } from './index.ts'

/** What a record of few beds, few seasons or single plantings cannot tell apart is said, and no share is put to it. */

const taxa = ['Salvia nemorosa', 'Phlomis russeliana', 'Geranium pratense'].map((b) =>
  library.find((t) => t.botanical === b)!,
)

/** Every kind in every place, so many plantings of it there, rated once a season. */
function recordOf({
  places,
  seasons,
  each = 1,
  looks = 1,
}: {
  places: number
  seasons: number
  each?: number
  looks?: number
}) {
  const random = seededRandom(17)
  const plantings: RecordedPlanting[] = taxa.flatMap((taxon) =>
    Array.from({ length: places * each }, (_, i) => ({
      id: `${taxon.botanical} ${i}`,
      taxon,
      placeId: `bed ${i % places}`,
      inPlaceSince: '2015-10-01',
      plantedCount: 3,
    })),
  )
  const seen: Seen[] = plantings.flatMap((p) =>
    Array.from({ length: seasons }, (_, s) => s).flatMap((s) =>
      Array.from({ length: looks }, (_, k) => ({
        plantingId: p.id,
        on: `${2021 + s}-0${6 + k}-20`,
        rating: 2 + Math.floor(3.999 * random()),
        living: null,
        stage: null,
        flush: null,
        absent: false,
        signs: [],
      })),
    ),
  )
  const settings = { yearOfSeason: () => USUAL_YEAR, south: false, lightOf: () => undefined }
  return gardenRecord(plantings, seen, [], settings).model
}

describe('what the record cannot tell', () => {
  it('is nothing, over several beds and seasons with kinds in several places', () => {
    const model = recordOf({ places: 3, seasons: 4 })!
    expect(model.untold).toEqual([])
  })

  it('is the place, where there is one bed', () => {
    const model = recordOf({ places: 1, seasons: 4, each: 2 })!
    expect(model.untold).toContain('place')
    expect(model.shares.place).toBe(0)
  })

  it('is the year, where there is one season', () => {
    const model = recordOf({ places: 3, seasons: 1, each: 3 })!
    expect(model.untold).toContain('year')
    expect(model.shares.year).toBe(0)
  })

  it('is the kind from the planting, where each kind stands once', () => {
    const model = recordOf({ places: 1, seasons: 4 })!
    expect(model.untold).toContain('taxon from planting')
  })

  it('is the planting from chance, where each was scored once', () => {
    const model = recordOf({ places: 3, seasons: 1, each: 3 })!
    expect(model.untold).toContain('planting from chance')
  })

  it('leaves shares that still make a whole', () => {
    for (const asked of [
      { places: 1, seasons: 1, each: 3 },
      { places: 1, seasons: 5 },
      { places: 4, seasons: 1 },
      { places: 3, seasons: 3 },
    ]) {
      const model = recordOf(asked)
      if (!model) continue
      const { taxon, place, year, light, planting, rest } = model.shares
      for (const share of [taxon, place, year, light, planting, rest]) {
        expect(share).toBeGreaterThanOrEqual(0)
        expect(share).toBeLessThanOrEqual(1)
      }
      expect(taxon + place + year + light + planting + rest).toBeCloseTo(1, 9)
    }
  })
})
