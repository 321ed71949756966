import { describe, expect, it } from 'vitest'
import { isWoody, library, lifeForms, type Taxon } from '../index.ts'

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
