import { describe, expect, it } from 'vitest'
import { library, readArmful, readArmfuls, taxonSearch } from './index.ts'

const search = taxonSearch(library)
const first = (line: string) => {
  const read = readArmful(line, search)
  return read && [read.count, read.found[0]?.botanical]
}

describe('plants by the armful', () => {
  it.each([
    ['5 conef', [5, 'Echinacea purpurea']],
    ['5 coneflower', [5, 'Echinacea purpurea']],
    ['5x hosta', [5, expect.stringMatching(/^Hosta/)]],
    ['hosta sieboldiana x3', [3, 'Hosta sieboldiana']],
    ['Lady’s mantle, 7', [7, 'Alchemilla mollis']],
    ['ladys mantel', [1, 'Alchemilla mollis']],
    ['12 × Lavandula angustifolia 9cm £3.50', [12, 'Lavandula angustifolia']],
    ['Lavandula angustifolia ‘Made Up Blue’ 2', [2, 'Lavandula angustifolia']],
    ['3\tPerovskia\tP9\t4.20', [3, 'Salvia yangii']],
    ['2 sedum autumn joy', [2, 'Hylotelephium spectabile']],
    ['1 Dicentra spectabilis', [1, 'Lamprocapnos spectabilis']],
    ['red hot poker', [1, 'Kniphofia uvaria']],
    ['10 daylilly', [10, expect.stringMatching(/^Hemerocallis/)]],
  ])('%s', (line, expected) => {
    expect(first(line)).toEqual(expected)
  })

  it('is read line by line, and what names nothing is left out', () => {
    const list = ['Order 2031', '', '5 echinacea purpurea', '----', '3 xyzzyplant', '£12.00'].join('\n')
    const read = readArmfuls(list, search)
    expect(read.map((r) => [r.count, r.found[0]?.botanical, r.isSure])).toEqual([
      [2031, expect.anything(), false],
      [5, 'Echinacea purpurea', true],
      [3, undefined, false],
    ])
  })

  it('says where it is not sure which is meant', () => {
    expect(readArmful('3 geranium', search)).toMatchObject({ isSure: false })
    expect(readArmful('3 geranium phaeum', search)).toMatchObject({ isSure: true })
  })
})

/** What sixteen plants of a back yard are called in three regions: each is to be found among the first three. */
const called: [string, RegExp][] = [
  ['black eyed susan', /^Rudbeckia/],
  ['bee balm', /^Monarda/],
  ['stonecrop', /^(Hylotelephium|Phedimus|Sedum)/],
  ['catmint', /^Nepeta/],
  ['peony', /^Paeonia/],
  ['day lily', /^Hemerocallis/],
  ['maiden grass', /^Miscanthus/],
  ['arborvitae', /^Thuja/],
  ['serviceberry', /^Amelanchier/],
  ['lilac', /^Syringa/],
  ['crepe myrtle', /^Lagerstroemia/],
  ['creeping phlox', /^Phlox subulata/],
  ['russian sage', /^Salvia yangii/],
  ['hellebore', /^Helleborus/],
  ['bleeding heart', /^(Lamprocapnos|Dicentra)/],
  ['hybrid tea', /^Rosa/],
]

describe('names people use', () => {
  it.each(called)('%s is found', (name, expected) => {
    const best = search.find(name).slice(0, 3)
    expect(best.some((t) => expected.test(t.botanical))).toBe(true)
  })
})
