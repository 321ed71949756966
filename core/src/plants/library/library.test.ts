import { describe, expect, it } from 'vitest'
import { mayRunWild, poisonousTo, regionsAt, runsWildIn } from '../harm.ts'
import {
  contradictions,
  isWoody,
  library,
  lifeForms,
  taxonSearch,
  usualState,
  USUAL_YEAR,
  type Taxon,
  opinionsOn,
  rootKind,
  takenFor,
  type RootKind,
} from '../index.ts'

/** Every planting kind of the list, with how many the library must at least hold. */
const least: [string, (t: Taxon) => boolean, number][] = [
  ['herbaceous perennials', (t) => t.lifeForm === 'perennial', 60],
  ['warm-season grasses', (t) => t.lifeForm === 'warm grass', 10],
  ['cool-season grasses', (t) => t.lifeForm === 'cool grass', 10],
  ['bulbs', (t) => t.lifeForm === 'bulb', 25],
  ['shrubs flowering on old wood', (t) => t.lifeForm.endsWith('shrub') && t.flowersOn === 'old wood', 25],
  ['shrubs flowering on new wood', (t) => t.lifeForm.endsWith('shrub') && t.flowersOn === 'new wood', 15],
  ['small trees', (t) => t.lifeForm === 'small tree', 10],
  ['climbers', (t) => t.lifeForm === 'climber', 12],
  ['ferns', (t) => t.lifeForm === 'fern', 8],
  ['groundcovers', (t) => t.lifeForm === 'groundcover', 15],
  ['succulents', (t) => t.lifeForm === 'succulent', 6],
  ['cool-season annuals', (t) => t.annualSeason === 'cool', 8],
  ['warm-season annuals', (t) => t.lifeForm === 'annual' && t.annualSeason === 'warm', 10],
  ['tender perennials', (t) => t.lifeForm === 'tender perennial', 12],
]

describe('the plant library', () => {
  it('has at least 220 kinds under unique names, of every life form', () => {
    expect(library.length).toBeGreaterThanOrEqual(220)
    const names = library.flatMap((t) => [t.botanical, ...t.synonyms])
    expect(new Set(names).size).toBe(names.length)
    expect(new Set(library.map((t) => t.lifeForm))).toEqual(new Set(lifeForms))
  })

  it.each(least)('holds %s', (_, is, count) => {
    expect(library.filter(is).length).toBeGreaterThanOrEqual(count)
  })

  it.each(lifeForms)('makes sense in every row of a %s', (form) => {
    for (const t of library.filter((x) => x.lifeForm === form)) {
      const say = t.botanical
      expect(t.lightMinHours, say).toBeLessThan(t.lightMaxHours)
      expect(t.moistureMin, say).toBeLessThanOrEqual(t.moistureMax)
      expect(t.phMin, say).toBeLessThan(t.phMax)
      expect(t.phMin, say).toBeGreaterThanOrEqual(4)
      expect(t.phMax, say).toBeLessThanOrEqual(8.5)
      expect(t.spacingM, say).toBeLessThanOrEqual(t.spreadM)
      expect(t.spacingM, say).toBeGreaterThanOrEqual(t.spreadM / 2)
      expect(t.heightM, say).toBeLessThan(12)
      expect(t.hardyToC, say).toBeGreaterThanOrEqual(-45)
      expect(t.hardyToC, say).toBeLessThan(5)
      expect(t.yearsToSize, say).toBeGreaterThan(0)
      // Sun in the heat of the day and a limit to sun exclude each other.
      if (t.hotAfternoon === 'enjoys') expect(t.lightMaxHours, say).toBeGreaterThanOrEqual(10)
      if (t.hotAfternoon === 'suffers') expect(t.lightMaxHours, say).toBeLessThanOrEqual(8)
      // Only woody plants are pruned; what flowers on wood says on which.
      expect(t.pruning !== null, say).toBe(isWoody(t) || t.botanical === 'Salvia yangii')
      if (t.pruning === 'after bloom') expect(['old wood', 'both', 'new wood'], say).toContain(t.flowersOn)
      if (t.flowersOn === 'old wood') expect(t.botanical.startsWith('Hydrangea arborescens'), say).toBe(false)
      if (t.divideYears) {
        expect(t.divideYears[0], say).toBeLessThanOrEqual(t.divideYears[1])
        expect(t.divideHow, say).not.toBeNull()
        expect(t.moveWhen, say).not.toBe('never')
      }
      // Repeating needs flowers, and so does a day to flower on.
      if (t.repeats !== 'no') expect(t.bloomFrom, say).not.toBeNull()
      expect(Boolean(t.bloomFrom), say).toBe(Boolean(t.bloomTo))
      if (t.cutBack === 'warm grass') expect(t.cutToM, say).toBeGreaterThan(0)
      if (t.annualSeason === 'warm') expect(t.hardyToC, say).toBeGreaterThan(-6)
      if (t.lifeForm === 'annual') expect(t.annualSeason, say).not.toBeNull()
      if (t.lifeForm === 'warm grass') expect(['spring', 'either'], say).toContain(t.moveWhen)
    }
  })

  it('is not sure of everything alike', () => {
    expect(new Set(library.map((t) => t.sureness)).size).toBe(3)
  })
})

describe('a name that people use', () => {
  const search = taxonSearch(library)

  it.each([
    ['black-eyed Susan', 'Rudbeckia hirta'],
    ['bee balm', 'Monarda didyma'],
    ['garden phlox', 'Phlox paniculata'],
    ['boxwood', 'Buxus sempervirens'],
    ['bigleaf hydrangea', 'Hydrangea macrophylla'],
    ['ostrich fern', 'Matteuccia struthiopteris'],
    ['arborvitae', 'Thuja occidentalis'],
    ['burning bush', 'Euonymus alatus'],
    ['glory of the snow', 'Scilla luciliae'],
    ['calla lily', 'Zantedeschia aethiopica'],
    ['Gaura', 'Oenothera lindheimeri'],
    ['Michaelmas daisy', 'Symphyotrichum novi-belgii'],
  ])('%s finds %s', (name, botanical) => {
    expect(search.find(name)[0]?.botanical).toBe(botanical)
  })

  it('of a group finds each of its kinds', () => {
    const named = search.find('sedum').map((t) => t.botanical)
    expect(named).toEqual(expect.arrayContaining(['Hylotelephium spectabile', 'Phedimus spurius']))
  })
})

describe('what is said of a kind', () => {
  const of = (botanical: string) => library.find((t) => t.botanical === botanical)!

  it('is free of what no plant is', () => {
    expect(library.flatMap((t) => contradictions(t).map((c) => [t.botanical, c.message]))).toEqual([])
  })

  it('keeps mulch off crowns that rot under it', () => {
    for (const name of ['Paeonia lactiflora', 'Asclepias tuberosa', 'Phedimus spurius', 'Iris germanica'])
      expect([name, of(name).mulchAtCrown]).toEqual([name, false])
  })

  it('warns of what harms people or pets that eat it', () => {
    const harmful =
      /^(Anemone|Iris|Allium|Hemerocallis|Hosta|Hydrangea|Trollius|Sambucus|Gladiolus|Colchicum|Narcissus|Arum|Zantedeschia|Caladium|Begonia (grandis|× tub)|Lobelia cardinalis|Helleborus|Nicotiana)/
    const silent = library.filter((t) => harmful.test(t.botanical) && !t.cautions.includes('poison'))
    expect(silent.map((t) => t.botanical)).toEqual([])
  })

  it('says of each that poisons whom, as vets and poison lines list them', () => {
    const to = (name: string) => poisonousTo(of(name))
    expect(to('Lilium regale')).toEqual(['cats'])
    expect(to('Hemerocallis Hybrid group')).toEqual(['cats'])
    expect(to('Tulipa Garden group')).not.toContain('people')
    for (const name of [
      'Taxus baccata',
      'Aconitum carmichaelii',
      'Digitalis purpurea',
      'Nerium oleander',
      'Rhododendron luteum',
    ])
      expect([name, to(name)]).toEqual([name, ['people', 'cats', 'dogs', 'horses']])
    for (const name of ['Rosa Shrub group', 'Lavandula angustifolia', 'Heuchera villosa'])
      expect(to(name)).toEqual([])
    // Whatever is marked as poisonous says to whom.
    for (const t of library.filter((k) => k.cautions.includes('poison')))
      expect(poisonousTo(t).length, t.botanical).toBeGreaterThan(0)
  })

  it('roots as those who lift it know', () => {
    // From the usual handbooks: what is lifted with a taproot, what divides by rhizomes, what is kept as tubers.
    const known: [RootKind, string[]][] = [
      [
        'taproot',
        ['Papaver orientale', 'Baptisia australis', 'Lupinus polyphyllus', 'Gypsophila paniculata'],
      ],
      ['rhizome', ['Iris germanica', 'Convallaria majalis', 'Canna × generalis', 'Polystichum setiferum']],
      ['tuber', ['Dahlia × pinnata', 'Cyclamen coum']],
      ['corm', ['Crocus tommasinianus', 'Gladiolus × hortulanus']],
      ['bulb', ['Tulipa Garden group', 'Lilium regale', 'Galanthus nivalis']],
      ['shallow', ['Rhododendron luteum', 'Camellia japonica', 'Calluna vulgaris']],
      ['fibrous', ['Phlox paniculata', 'Panicum virgatum']],
      ['woody', ['Syringa vulgaris', 'Malus domestica']],
    ]
    for (const [kind, names] of known)
      for (const name of names) expect([name, rootKind(of(name))]).toEqual([name, kind])
    // What has a taproot is never said to be pulled apart, nor to move easily.
    for (const t of library.filter((k) => rootKind(k) === 'taproot'))
      expect([t.botanical, t.divideHow, t.moveEase === 'easy']).toEqual([
        t.botanical,
        t.divideHow === 'pull apart' ? 'never' : t.divideHow,
        false,
      ])
  })

  it('tells each of two that are taken for each other from the other, and neither from itself', () => {
    for (const t of library)
      for (const { with: other, toldBy } of takenFor(t)) {
        expect([t.botanical, t.botanical.startsWith(other)]).toEqual([t.botanical, false])
        expect(toldBy).toMatch(/^\S.*[^.]$/)
        for (const back of library.filter((k) => k.botanical.startsWith(other)))
          expect(takenFor(back).some((l) => t.botanical.startsWith(l.with))).toBe(true)
      }
    expect(takenFor(of('Laurus nobilis'))[0]).toMatchObject({ with: 'Prunus laurocerasus' })
    expect(library.filter((t) => takenFor(t).length > 0).length).toBeGreaterThan(60)
    expect(library.filter((t) => opinionsOn(t)).length).toBeGreaterThan(30)
  })

  it('runs wild where the lists name it: by where the garden lies', () => {
    const at = (latitude: number, longitude: number) => regionsAt({ latitude, longitude })
    expect(at(51.5, -0.1)).toEqual(['north-western Europe'])
    expect(at(40.7, -74)).toEqual(['eastern North America'])
    expect(at(-36.9, 174.8)).toEqual(['New Zealand'])
    expect(at(45.5, -122.7)).toEqual(['western North America'])
    const buddleja = of('Buddleja davidii')
    expect(mayRunWild(buddleja, at(45.5, -122.7))).toBe(true)
    expect(mayRunWild(buddleja, at(40.7, -74))).toBe(false)
    expect(mayRunWild(of('Agapanthus praecox'), at(-36.9, 174.8))).toBe(true)
    expect(mayRunWild(of('Agapanthus praecox'), at(51.5, -0.1))).toBe(false)
    // What nobody has listed goes by its own mark, wherever the garden is.
    expect(runsWildIn(of('Artemisia ludoviciana'))).toBeUndefined()
    expect(mayRunWild(of('Artemisia ludoviciana'), at(51.5, -0.1))).toBe(true)
  })

  it('does not cut hard what does not break from old wood', () => {
    for (const name of [
      'Euphorbia characias',
      'Calluna vulgaris',
      'Juniperus communis',
      'Pinus mugo',
      'Thuja occidentalis',
    ])
      expect([name, of(name).bearsHardCut]).toEqual([name, false])
    for (const name of ['Lagerstroemia indica', 'Clethra alnifolia', 'Hibiscus syriacus'])
      expect([name, of(name).pruning]).toEqual([name, 'lightly'])
  })

  it.each([
    ['Arum italicum', '2026-08-10', 'underground'],
    ['Anemone coronaria', '2026-08-10', 'underground'],
    ['Ranunculus asiaticus', '2026-08-20', 'underground'],
    ['Scilla luciliae', '2026-07-15', 'underground'],
    ['Paeonia × suffruticosa', '2026-09-05', 'summer rest'],
    ['Helleborus niger', '2026-01-25', 'in full bloom'],
    ['Sesleria autumnalis', '2026-09-10', 'in full bloom'],
  ])('has %s on %s as it usually is: %s', (name, on, phase) => {
    const usual = usualState(of(name), on, USUAL_YEAR)
    expect(phase === 'underground' ? usual.resting : usual.phase).toBe(phase === 'underground' ? true : phase)
  })
})
