import { describe, expect, it } from 'vitest'
import { library, USUAL_YEAR, type Taxon } from '../plants/index.ts'
import { seededRandom } from '../random/index.ts'
import { cannotTell, gardenRecord, type RecordedPlanting, type RecordModel, type Seen } from './index.ts'

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
  const plantings = taxa.flatMap((taxon) =>
    Array.from({ length: places * each }, (_, i) => ({
      ...planted(taxon),
      id: `${taxon.botanical} ${i}`,
      placeId: `bed ${i % places}`,
    })),
  )
  return modelOf(plantings, seasons, looks)
}

const planted = (taxon: Taxon): RecordedPlanting => ({
  id: taxon.botanical,
  taxon,
  placeId: 'bed 0',
  inPlaceSince: '2015-10-01',
  plantedCount: 3,
})

function modelOf(plantings: readonly RecordedPlanting[], seasons: number, looks = 1) {
  const random = seededRandom(17)
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
  const names = { place: (id: string) => id, taxon: (botanical: string) => botanical }
  const said = (model: RecordModel) => cannotTell(model, names).map((c) => `${c.says} ${c.wouldTell}`)
  const certain = ({ untold }: RecordModel) => untold.filter((u) => u.why !== 'wide')

  it('is nothing, over several beds and seasons with kinds in several places', () => {
    const model = recordOf({ places: 3, seasons: 4 })!
    expect(certain(model)).toEqual([])
    expect(model.untied).toEqual([])
  })

  it('is the place, where there is one bed', () => {
    const model = recordOf({ places: 1, seasons: 4, each: 2 })!
    expect(certain(model)).toEqual([{ sources: ['place'], why: 'single' }])
    expect(model.places).toEqual([])
    expect(said(model)).toContain(
      'One place alone cannot show what places do. A second clump of Geranium pratense in another place would tell.',
    )
  })

  it('is the year, where there is one season: no year is said to have done anything', () => {
    const model = recordOf({ places: 3, seasons: 1, each: 3, looks: 2 })!
    expect(certain(model)).toContainEqual({ sources: ['year'], why: 'single' })
    expect(model.years).toEqual([])
    expect(said(model)[0]).toBe('One season alone cannot show what years do. Another season would tell.')
  })

  it('is the kind from the planting, where each kind stands once: they have one share between them', () => {
    const model = recordOf({ places: 1, seasons: 4 })!
    expect(certain(model)).toContainEqual({ sources: ['taxon', 'planting'], why: 'confounded' })
    expect(model.shares.map((s) => s.sources)).toEqual([['year'], ['taxon', 'planting'], ['chance']])
    expect(said(model).join(' ')).toContain('Each kind stands here once')
  })

  it('is the planting from chance, where each was scored once: neither has a share', () => {
    const model = recordOf({ places: 3, seasons: 1, each: 3 })!
    expect(certain(model)).toContainEqual({ sources: ['planting', 'chance'], why: 'confounded' })
    for (const source of ['planting', 'chance'] as const)
      expect(model.shares.find((s) => s.sources.includes(source))!.share).toBeUndefined()
  })

  it('is plant from place, where no kind stands in two', () => {
    const plantings = taxa.map((taxon, i) => ({ taxon, placeId: `bed ${i}` }))
    const model = modelOf(
      plantings.flatMap(({ taxon, placeId }) =>
        ['a', 'b'].map((id) => ({ ...planted(taxon), id: `${placeId} ${id}`, placeId })),
      ),
      4,
    )!
    expect(certain(model)).toContainEqual({ sources: ['place', 'taxon'], why: 'confounded' })
    expect(model.taxa.every((t) => t.expected === undefined)).toBe(true)
    expect(model.places).toEqual([])
    expect(model.untied).toEqual([['bed 0'], ['bed 1'], ['bed 2']])
    expect(said(model).at(-1)).toContain('Nothing ties bed 1 and bed 2 to bed 0: no kind stands in both')
  })
})
