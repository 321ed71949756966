import { describe, expect, it } from 'vitest'
import { climateOf, generateWeather, usually, type Climate, type WeatherPattern } from '../climate/index.ts'
import { addDays, daysBetween, monthOf } from '../dates/index.ts'
import { bloomsOn, isWoody, library, type Taxon } from '../plants/index.ts'
import {
  careRules,
  taxonCare,
  isFor,
  isFollowed,
  ruleSentence,
  windowsOf,
  winterHere,
  yearsAbout,
} from './index.ts'
import type { Schools } from './schools.ts'
import { patternAtLatitude } from '../climate/test/atLatitude.ts'

function climateAt(latitudeDeg: number, more: Partial<WeatherPattern> = {}): Climate {
  const days = generateWeather({ ...patternAtLatitude(latitudeDeg), ...more }, 2008, 2025)
  const result = climateOf(days, latitudeDeg)
  if (!result.ok) throw new Error(result.reason)
  return result.climate
}
const climates = {
  maritime: climateAt(52.1, { annualMeanC: 10.4, seasonalAmplitudeC: 6.8 }),
  continental: climateAt(40, { annualMeanC: 12, seasonalAmplitudeC: 13 }),
  severe: climateAt(48, { annualMeanC: 4, seasonalAmplitudeC: 16 }),
  warm: climateAt(37, { annualMeanC: 17, seasonalAmplitudeC: 8 }),
  southern: climateAt(-38, { annualMeanC: 13.5, seasonalAmplitudeC: 5.5 }),
}
const taxonNamed = (botanical: string): Taxon => library.find((t) => t.botanical === botanical)!
const care = (name: string, climate: Climate, schools: Schools = {}, lateDays = 0) =>
  taxonCare(taxonNamed(name), { climate, place: 'bed', schools, lateDays, rules: careRules }, '2026-01-01')

/**
 * The middle of the best weeks lies in one of these months: the consensus of gardening manuals for such climates.
 * Southern months are six later.
 */
const consensus: [taxon: string, rule: string, climate: keyof typeof climates, months: number[]][] = [
  ['Hydrangea paniculata', 'prune-panicle-hydrangea', 'maritime', [2, 3]],
  ['Hydrangea paniculata', 'prune-panicle-hydrangea', 'severe', [4, 5]],
  ['Hydrangea paniculata', 'prune-panicle-hydrangea', 'southern', [7, 8]],
  ['Hydrangea macrophylla', 'tidy-mophead-hydrangea', 'maritime', [4]],
  ['Hydrangea macrophylla', 'cut-mophead-to-live-buds', 'severe', [5, 6]],
  ['Hydrangea petiolaris', 'climbing-hydrangea', 'maritime', [7]],
  ['Forsythia × intermedia', 'prune-after-bloom', 'maritime', [4, 5]],
  ['Forsythia × intermedia', 'prune-after-bloom', 'severe', [6]],
  ['Syringa vulgaris', 'prune-after-bloom', 'continental', [5, 6]],
  ['Buddleja davidii', 'cut-butterfly-bush', 'maritime', [3, 4]],
  ['Rosa Bush group', 'prune-bush-roses', 'maritime', [2, 3]],
  ['Rosa Bush group', 'prune-bush-roses', 'continental', [3, 4]],
  ['Rosa Bush group', 'prune-bush-roses', 'southern', [7, 8]],
  ['Rosa Shrub group', 'prune-shrub-roses', 'maritime', [2, 3]],
  ['Rosa Old garden group', 'prune-old-roses', 'maritime', [7, 8]],
  ['Rosa Climbing group', 'prune-climbing-roses-mild', 'maritime', [1, 2]],
  ['Rosa Climbing group', 'prune-climbing-roses-cold', 'severe', [4, 5]],
  ['Rosa Rambler group', 'prune-rambling-roses', 'maritime', [7, 8]],
  ['Lavandula angustifolia', 'shear-after-bloom', 'maritime', [8]],
  ['Lavandula angustifolia', 'shear-after-bloom', 'southern', [1, 2]],
  ['Salvia officinalis', 'half-shrubs-in-spring', 'maritime', [3, 4]],
  ['Calluna vulgaris', 'shear-late-heaths', 'maritime', [3, 4]],
  ['Clematis montana', 'tidy-early-clematis', 'maritime', [6]],
  ['Clematis viticella', 'cut-late-clematis', 'maritime', [2, 3]],
  ['Prunus serrulata', 'prune-midsummer', 'maritime', [6, 7]],
  ['Prunus serrulata', 'prune-midsummer', 'southern', [12, 1]],
  ['Wisteria sinensis', 'spur-in-summer', 'maritime', [7, 8]],
  ['Wisteria sinensis', 'spur-in-winter', 'maritime', [1, 2]],
  ['Wisteria sinensis', 'spur-in-winter', 'southern', [6, 7, 8]],
  ['Vitis vinifera', 'vine-in-winter', 'maritime', [12, 1]],
  ['Malus Flowering crab group', 'prune-apples', 'continental', [1, 2]],
  ['Lagerstroemia indica', 'thin-crape-myrtle', 'continental', [3, 4]],
  ['Camellia japonica', 'shape-evergreens-after-bloom', 'maritime', [4, 5]],
  ['Taxus baccata', 'clip-yew', 'maritime', [8]],
  ['Fagus sylvatica', 'clip-leafy-hedges', 'maritime', [8]],
  ['Ilex aquifolium', 'clip-holly', 'maritime', [8]],
  ['Buxus sempervirens', 'clip-evergreens', 'maritime', [6, 7]],
  ['Miscanthus sinensis', 'cut-back-warm-grass', 'maritime', [3, 4]],
  ['Miscanthus sinensis', 'divide-warm-grass', 'continental', [4, 5]],
  ['Stipa gigantea', 'comb-grass', 'maritime', [3]],
  ['Helenium autumnale', 'divide-spring', 'maritime', [4]],
  ['Helenium autumnale', 'divide-spring', 'severe', [5, 6]],
  ['Helenium autumnale', 'cut-by-half', 'maritime', [5, 6]],
  ['Helenium autumnale', 'cut-by-half', 'southern', [11, 12]],
  ['Paeonia lactiflora', 'divide-autumn-only', 'maritime', [9, 10]],
  ['Paeonia lactiflora', 'divide-autumn-only', 'severe', [8, 9]],
  ['Paeonia lactiflora', 'divide-autumn-only', 'southern', [4, 5]],
  ['Iris germanica', 'divide-iris-rhizomes', 'maritime', [8]],
  ['Geranium pratense', 'cut-after-first-flush', 'maritime', [7]],
  ['Tulipa Garden group', 'plant-tulips', 'maritime', [11]],
  ['Narcissus Garden group', 'plant-spring-bulbs', 'maritime', [10]],
  ['Narcissus Garden group', 'plant-spring-bulbs', 'southern', [4, 5, 6]],
  ['Dahlia × pinnata', 'lift-tender-roots', 'maritime', [11]],
  ['Petunia × atkinsiana', 'plant-warm-season', 'maritime', [5]],
  ['Petunia × atkinsiana', 'plant-warm-season', 'severe', [5, 6]],
  ['Petunia × atkinsiana', 'plant-warm-season', 'southern', [9, 10, 11]],
  ['Helleborus × hybridus', 'old-leaves-before-bloom', 'maritime', [1]],
  ['Heuchera villosa', 'old-leaves-before-bloom', 'maritime', [2, 3]],
  ['Liriope muscari', 'old-leaves-before-bloom', 'warm', [2, 3]],
  ['Liriope muscari', 'old-leaves-before-bloom', 'southern', [8, 9]],
  ['Paeonia lactiflora', 'clear-in-autumn', 'maritime', [10, 11]],
  ['Paeonia lactiflora', 'clear-in-autumn', 'continental', [10, 11]],
  ['Paeonia lactiflora', 'clear-in-autumn', 'severe', [9, 10]],
  ['Dryopteris filix-mas', 'old-fronds', 'maritime', [3, 4]],
  ['Narcissus Garden group', 'clear-bulb-leaves', 'maritime', [6]],
  ['Rosa Bush group', 'feed-roses-after-first-flush', 'maritime', [7]],
  ['Rosa Bush group', 'feed-roses-after-first-flush', 'southern', [12, 1]],
  ['Hosta sieboldiana', 'hunt-slugs', 'maritime', [4, 5]],
  ['Malus Flowering crab group', 'tree-ties', 'maritime', [3, 4]],
  ['Dahlia × pinnata', 'look-at-stored-roots', 'maritime', [1]],
  ['Dahlia × pinnata', 'pinch-out', 'maritime', [6]],
  ['Phlox paniculata', 'basal-cuttings', 'maritime', [4, 5]],
  ['Hydrangea paniculata', 'softwood-cuttings', 'maritime', [5, 6]],
  ['Buxus sempervirens', 'half-ripe-cuttings', 'maritime', [8]],
  ['Buxus sempervirens', 'half-ripe-cuttings', 'southern', [2]],
  ['Cornus alba', 'hardwood-cuttings', 'maritime', [12, 1]],
  ['Papaver orientale', 'root-cuttings', 'maritime', [1, 2]],
  ['Cotinus coggygria', 'layer', 'maritime', [4, 5]],
  ['Cosmos bipinnatus', 'sow-tender-inside', 'maritime', [3]],
  ['Geranium pratense', 'plant-pot-grown-perennials', 'maritime', [4]],
  ['Paeonia lactiflora', 'plant-peonies', 'maritime', [9, 10]],
  ['Syringa vulgaris', 'plant-bare-root', 'maritime', [11, 12, 1]],
]

describe('rules of care', () => {
  it.each(consensus)('%s: %s in a %s climate', (name, id, climate, months) => {
    const rule = care(name, climates[climate]).rules.find((r) => r.id === id)
    const [window] = rule!.windows.filter((w) => w.latest >= '2026-01-15')
    const middle = addDays(window!.bestFrom, daysBetween(window!.bestFrom, window!.bestTo) / 2)
    expect(months, JSON.stringify(window)).toContain(monthOf(middle))
  })

  it('each date in order, with a sentence of its own, and none in flower that forbids it', () => {
    let windows = 0
    for (const climate of Object.values(climates)) {
      const years = yearsAbout(climate, '2026-06-01', 0)
      for (const taxon of library)
        for (const rule of careRules.filter((r) => isFor(r.applies, { taxon, climate, place: 'bed' }))) {
          for (const w of windowsOf(rule, years, taxon, '2025-06-01').windows) {
            windows++
            const dates = [w.earliest, w.bestFrom, w.bestTo, w.latest]
            expect(dates, `${taxon.botanical} ${rule.id}`).toEqual([...dates].sort())
            for (const why of Object.values(w.why)) expect(why).toMatch(/^(Not|Best) .+: .+\.$/)
            if (rule.operation === 'divide' && w.season === 'autumn' && rule.id !== 'divide-iris-rhizomes')
              expect(usually(climate.soilC, addDays(w.latest, 40))).toBeGreaterThanOrEqual(5.9)
          }
        }
    }
    expect(windows).toBeGreaterThan(5000)
  })

  it('moves and divides nothing in flower where the library’s own dates hold', () => {
    const climate = climates.maritime
    const years = yearsAbout(climate, '2026-06-01', 0)
    for (const taxon of library)
      for (const rule of careRules.filter(
        (r) => r.forbids.includes('in flower') && isFor(r.applies, { taxon, climate, place: 'bed' }),
      ))
        for (const w of windowsOf(rule, years, taxon, '2026-01-01').windows)
          if (!['dormant season', 'summer'].includes(w.season) && taxon.moveWhen !== 'after frost')
            for (const day of [w.bestFrom, w.bestTo])
              expect(bloomsOn(taxon, day.slice(5)), `${taxon.botanical} ${rule.id} ${day}`).toBe(false)
  })

  it('old wood is never pruned in late winter, new wood never after bloom', () => {
    for (const taxon of library.filter((t) => t.pruning === 'after bloom' && t.flowersOn === 'old wood')) {
      const ids = careRules
        .filter((r) => r.yearly && isFor(r.applies, { taxon, climate: climates.maritime, place: 'bed' }))
        .map((r) => r.id)
      const windows = careRules
        .filter((r) => ids.includes(r.id) && r.operation === 'prune')
        .flatMap((r) => r.windows)
      expect(windows.length, taxon.botanical).toBeGreaterThan(0)
      // Thinning twiners and clearing a wall are of age and bounds, not of the wood that flowers.
      if (!['Lonicera periclymenum'].includes(taxon.botanical))
        expect(windows.map((w) => w.season)).not.toContain('winter')
    }
  })

  it('every woody kind has one yearly pruning of its own, two where it is spurred, none where it wants none', () => {
    for (const climate of Object.values(climates))
      for (const taxon of library.filter(isWoody)) {
        const rules = careRules.filter(
          (r) =>
            r.operation === 'prune' &&
            r.yearly &&
            isFollowed(r, {}) &&
            isFor(r.applies, { taxon, climate, place: 'bed' }),
        )
        const wanted = taxon.pruning === 'spur' ? 2 : taxon.pruning === 'hardly' ? [0, 1] : 1
        const seen = rules.map((r) => r.id)
        expect([wanted].flat(), `${taxon.botanical}: ${seen.join(', ')}`).toContain(seen.length)
      }
  })

  it('warm-season plants are cleared while what follows them can still be set, in every climate', () => {
    const rule = (id: string) => careRules.find((r) => r.id === id)!
    for (const [name, climate] of Object.entries(climates)) {
      const years = yearsAbout(climate, '2026-06-01', 0)
      const cleared = windowsOf(
        rule('clear-warm-season'),
        years,
        taxonNamed('Petunia × atkinsiana'),
        '2026-06-01',
      )
      const set = windowsOf(
        rule('plant-cool-season'),
        years,
        taxonNamed('Viola × wittrockiana'),
        '2026-06-01',
      )
      const out = cleared.windows[0]!
      const into = set.windows.find((w) => w.season === 'autumn')!
      expect(out.earliest < addDays(into.latest, -7), `${name}: ${out.earliest} ${into.latest}`).toBe(true)
      expect(out.latest >= into.earliest, name).toBe(true)
    }
  })

  it('where there is no winter, what wants one has no dates; what does without goes on', () => {
    const equator = climateAt(1, { seasonalAmplitudeC: 0.6 })
    for (const name of [
      'Paeonia lactiflora',
      'Syringa vulgaris',
      'Tulipa Garden group',
      'Hosta sieboldiana',
    ]) {
      expect(winterHere(taxonNamed(name), equator, 'bed')).toBe('no winter')
      expect(care(name, equator).rules.flatMap((r) => (r.yearly ? r.windows : []))).toEqual([])
    }
    for (const name of [
      'Hemerocallis Hybrid group',
      'Canna × generalis',
      'Citrus × limon',
      'Petunia × atkinsiana',
    ])
      expect([name, winterHere(taxonNamed(name), equator, 'bed')]).not.toEqual([name, 'no winter'])
    for (const climate of [climates.maritime, climates.warm, climates.severe])
      expect(library.filter((t) => winterHere(t, climate, 'bed') === 'no winter')).toEqual([])
  })

  it('what holds a wall by itself is not tied in', () => {
    for (const name of ['Hedera helix', 'Hydrangea petiolaris', 'Parthenocissus tricuspidata'])
      expect(care(name, climates.maritime).rules.map((r) => r.operation)).not.toContain('tie in')
    expect(care('Clematis montana', climates.maritime).rules.map((r) => r.operation)).toContain('tie in')
  })

  it('what is covered for the winter is uncovered after it, in every climate', () => {
    const covers = careRules.filter((r) => r.id.endsWith('-on') || r.id === 'protect-crowns')
    expect(covers.length).toBeGreaterThan(3)
    let covered = 0
    for (const climate of Object.values(climates))
      for (const taxon of library)
        for (const on of covers.filter((r) => isFor(r.applies, { taxon, climate, place: 'bed' }))) {
          const off = careRules.find((r) =>
            on.id === 'protect-crowns' ? r.id === 'uncover-crowns' : r.id === on.id.replace(/-on$/, '-off'),
          )!
          const years = yearsAbout(climate, '2026-06-01', 0)
          const [first] = windowsOf(on, years, taxon, '2026-06-01').windows
          if (!first) continue
          covered++
          const next = windowsOf(off, years, taxon, first.latest).windows[0]
          expect(next, `${taxon.botanical} ${off.id}`).toBeDefined()
          expect(
            daysBetween(first.bestFrom, next!.bestFrom),
            `${taxon.botanical} ${off.id} ${first.bestFrom} ${next!.bestFrom} ${climate.latitudeDeg}`,
          ).toBeLessThan(270)
        }
    expect(covered).toBeGreaterThan(20)
  })

  it('where winters kill the buds of big-leaved hydrangeas, that is said and nothing is cut before it shows', () => {
    const cold = care('Hydrangea macrophylla', climates.severe).rules.find((r) => r.operation === 'prune')!
    expect(cold.why).toMatch(/few flowers or none/)
    expect(care('Hydrangea macrophylla', climates.maritime).rules.map((r) => r.id)).not.toContain(cold.id)
  })

  it('tells the hydrangeas apart', () => {
    const pruned = (name: string) =>
      care(name, climates.maritime)
        .rules.filter((r) => r.operation === 'prune' && r.yearly && r.school?.followed !== false)
        .map((r) => r.id)
    expect(pruned('Hydrangea paniculata')).toEqual(['prune-panicle-hydrangea'])
    expect(pruned('Hydrangea arborescens')).toEqual(['prune-smooth-hydrangea-frame'])
    expect(pruned('Hydrangea macrophylla')).toEqual(['tidy-mophead-hydrangea'])
    expect(pruned('Hydrangea quercifolia')).toEqual(['prune-oakleaf-hydrangea'])
    expect(pruned('Hydrangea petiolaris')).toEqual(['climbing-hydrangea'])
  })

  it('follows one school and says what the other would do', () => {
    const cuts = (schools: Schools) =>
      care('Helenium autumnale', climates.maritime, schools).rules.filter((r) => r.school)
    for (const rule of cuts({ 'cutting-back': 'autumn' })) {
      expect(rule.school!.followed).toBe(rule.id === 'cut-back-autumn')
      expect(rule.school!.other).not.toBe(rule.school!.follows)
    }
    expect(cuts({}).find((r) => r.school!.followed)!.id).toBe('cut-back-late-winter')
  })

  it('moves with this year’s earliness and says so', () => {
    const earliest = (lateDays: number) =>
      care('Helenium autumnale', climates.maritime, {}, lateDays).rules.find((r) => r.id === 'divide-spring')!
        .windows[0]!
    expect(daysBetween(earliest(-5).earliest, earliest(0).earliest)).toBe(5)
    expect(earliest(-5).why.earliest).toMatch(
      /soil passes 6 °C, usually .* here; this year about 5 days early/,
    )
  })

  it('has no time for a hard cut where too little warmth is left, and none for dormancy without a winter', () => {
    const cut = (climate: Climate) =>
      care('Photinia × fraseri', climate).rules.find((r) => r.id === 'rejuvenate-evergreen')!.windows[0]
    expect(cut(climates.maritime)!.why.latest.length).toBeGreaterThan(20)
    const tropic = climateAt(5)
    expect(care('Rosa Shrub group', tropic).rules.find((r) => r.id === 'move-dormant')!.windows).toEqual([])
    expect(care('Petunia × atkinsiana', tropic).rules.some((r) => r.windows.length > 0)).toBe(true)
  })

  it('what is tender in a severe winter is hardy in a mild one, and a pot costs two zones', () => {
    const yucca = taxonNamed('Buddleja davidii')
    expect(winterHere(yucca, climates.maritime, 'bed')).toBe('hardy')
    expect(winterHere(yucca, climates.severe, 'bed')).not.toBe('hardy')
    expect(winterHere(yucca, climates.severe, 'container')).toBe('tender')
  })

  it('reads as sentences under unique names', () => {
    expect(new Set(careRules.map((r) => r.id)).size).toBe(careRules.length)
    for (const rule of careRules) {
      expect(ruleSentence(rule)).toMatch(/^[A-Z].+: .+ from .+ to .+\.$/)
      expect(ruleSentence(rule)).not.toMatch(/3\d\d days/)
      for (const text of [rule.why, rule.missed]) expect(text).toMatch(/\.$/)
    }
  })
})
