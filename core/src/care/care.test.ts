import { describe, expect, it } from 'vitest'
import { climateOf, generateWeather, usually, type Climate } from '../climate/index.ts'
import { addDays, daysBetween, monthOf, seasonYearOf } from '../dates/index.ts'
import { bloomsOn, library, seasonDates, yearAt, type Taxon } from '../plants/index.ts'
import { aftercareWindow, careRules, moveJobs, moveWindows, taxonCare, type MoveRequest } from './index.ts'
import { quarterHours } from '../words/index.ts'
import { patternAtLatitude } from '../climate/test/atLatitude.ts'

function climateAt(latitudeDeg: number, more: object = {}): Climate {
  const result = climateOf(
    generateWeather({ ...patternAtLatitude(latitudeDeg), ...more }, 2008, 2025),
    latitudeDeg,
  )
  if (!result.ok) throw new Error(result.reason)
  return result.climate
}
const maritime = climateAt(52.1, { annualMeanC: 10.4, seasonalAmplitudeC: 6.8 })
const southern = climateAt(-38, { annualMeanC: 13.5, seasonalAmplitudeC: 5.5 })
const severe = climateAt(48, { annualMeanC: 4, seasonalAmplitudeC: 16 })

const taxon = (botanical: string): Taxon => library.find((t) => t.botanical === botanical)!
const first = (name: string, climate: Climate, on: string) => {
  const found = moveWindows(taxon(name), climate, on)
  if (!found.ok) throw new Error(found.reason)
  return found.windows[0]!
}

describe('windows for a move', () => {
  // Horticultural sense: summer bloomers in early autumn, late bloomers and warm grasses in spring,
  // woody plants while dormant, bulbs when died down; mirrored in the south, shorter where winter is severe.
  it.each([
    ['Astrantia major', maritime, '2026-09-14', 'autumn', [8, 9, 10]],
    ['Rodgersia podophylla', maritime, '2026-09-14', 'autumn', [8, 9, 10]],
    ['Helenium autumnale', maritime, '2026-09-14', 'spring', [2, 3, 4, 5]],
    ['Miscanthus sinensis', maritime, '2026-09-14', 'spring', [4, 5]],
    ['Hydrangea paniculata', maritime, '2026-09-14', 'dormant season', [10, 11, 12, 1, 2, 3]],
    ['Galanthus nivalis', maritime, '2026-01-10', 'spring', [2, 3, 4, 5]],
    ['Colchicum autumnale', maritime, '2026-01-10', 'summer', [6, 7, 8]],
    ['Narcissus pseudonarcissus', maritime, '2026-01-10', 'summer', [5, 6, 7, 8, 9, 10]],
    ['Pelargonium × hortorum', maritime, '2026-02-01', 'spring', [4, 5, 6, 7]],
    ['Astrantia major', southern, '2026-02-14', 'autumn', [3, 4, 5, 6]],
    ['Helenium autumnale', southern, '2026-06-14', 'spring', [7, 8, 9, 10, 11]],
    ['Astrantia major', severe, '2026-07-14', 'autumn', [7, 8, 9]],
  ] as const)('%s (%#)', (name, climate, on, season, months) => {
    const w = first(name, climate, on)
    expect(w.season).toBe(season)
    expect(months).toContain(monthOf(w.earliest))
    expect(months).toContain(monthOf(w.latest))
  })

  it('are in order, never in flower, and leave plants in leaf six weeks of soil above 6 °C', () => {
    let checked = 0
    for (const climate of [maritime, southern, severe])
      for (const t of library) {
        const found = moveWindows(t, climate, '2026-06-01')
        if (!found.ok) continue
        for (const w of found.windows) {
          checked++
          expect([w.earliest, w.bestFrom, w.bestTo, w.latest]).toEqual(
            [w.earliest, w.bestFrom, w.bestTo, w.latest].sort(),
          )
          if (w.season === 'autumn')
            for (let d = 0; d < 41; d++)
              expect(usually(climate.soilC, addDays(w.latest, d))).toBeGreaterThanOrEqual(6)
          if (
            climate === maritime &&
            w.season !== 'dormant season' &&
            t.moveWhen !== 'after frost' &&
            t.bloomFrom &&
            t.bloomTo
          )
            for (const day of [w.earliest, w.latest])
              expect(bloomsOn(t, day.slice(5)), `${t.botanical} ${day}`).toBe(false)
        }
      }
    expect(checked).toBeGreaterThan(200)
  })

  it('are refused for plants that resent it, and dormancy is not claimed where winter never comes', () => {
    expect(moveWindows(taxon('Papaver orientale'), maritime, '2026-09-14')).toEqual({
      ok: false,
      reason: 'resents-moving',
    })
    expect(moveWindows(taxon('Rosa rugosa'), climateAt(5), '2026-09-14')).toMatchObject({
      ok: false,
      reason: 'no-window',
    })
  })

  it('passes to the next window when this one has closed', () => {
    const autumn = first('Astrantia major', maritime, '2026-09-14')
    expect(first('Astrantia major', maritime, addDays(autumn.latest, 1)).season).toBe('spring')
  })
})

describe('a move as jobs', () => {
  const request: MoveRequest = {
    taxon: taxon('Rodgersia podophylla'),
    count: 5,
    fromPlace: 'Courtyard border',
    toPlace: 'Loft strip',
    hazards: ['Power cable'],
    toContainer: false,
    schools: {},
  }
  const planned = moveJobs(request, maritime, '2026-09-14')
  if (!planned.ok) throw new Error(planned.reason)
  const byKey = Object.fromEntries(planned.jobs.map((j) => [j.key, j]))

  it('prepares first, lifts, then looks three times', () => {
    expect(planned.jobs.map((j) => j.kind)).toEqual([
      'prepare',
      'move',
      'aftercare',
      'aftercare',
      'aftercare',
    ])
    expect(byKey.move!.after).toEqual([{ key: 'prepare', leastDays: 0, mostDays: 14 }])
    for (const j of planned.jobs) for (const why of Object.values(j.window.why)) expect(why).toMatch(/\.$/)
  })

  it('never opens a window in the past', () => {
    for (const j of planned.jobs) expect(j.window.earliest >= '2026-09-14').toBe(true)
  })

  it('brings cautions to the job: the cable, the weight', () => {
    expect(byKey.prepare!.cautions[0]).toContain('Power cable')
    expect(byKey.move!.cautions.join(' ')).toMatch(/two people/i)
  })

  it('takes longer for more and larger plants', () => {
    const minutes = (more: Partial<MoveRequest>) => {
      const r = moveJobs({ ...request, ...more }, maritime, '2026-09-14')
      return r.ok ? r.jobs.reduce((sum, j) => sum + j.minutes, 0) : 0
    }
    expect(minutes({ count: 9 })).toBeGreaterThan(minutes({ count: 5 }))
    expect(minutes({ taxon: taxon('Astrantia major') })).toBeLessThan(minutes({}))
  })

  it('compost covers the planted area 5 cm deep', () => {
    const area = 5 * 0.866 * 0.8 ** 2
    expect(byKey.prepare!.materials).toEqual([
      { name: 'garden compost', amount: Math.ceil(area * 0.05 * 1000), unit: 'l' },
    ])
  })

  it('a look falls so many days after the day it was really moved', () => {
    const w = aftercareWindow('2026-10-01', 21)
    expect(daysBetween('2026-10-01', w.bestFrom)).toBe(20)
    expect(w.why.bestFrom).toContain('22 October')
  })
})

it.each([
  [2.75, '2¾ h'],
  [0.1, '0 h'],
  [-1.5, '−1½ h'],
  [0.26, '¼ h'],
  [6.9, '7 h'],
])('%s hours reads %s', (h, words) => {
  expect(quarterHours(h)).toBe(words)
})

describe('work that has its own time, whatever the formula', () => {
  const care = (name: string, climate: typeof maritime, on = '2026-01-01') =>
    taxonCare(taxon(name), { climate, place: 'bed', schools: {}, lateDays: 0, rules: careRules }, on)
  const windowOfRule = (name: string, climate: typeof maritime, id: string) =>
    care(name, climate)
      .rules.find((r) => r.id === id)
      ?.windows.find((w) => w.earliest >= '2026-01-01')
  const ids = (name: string) => care(name, maritime).rules.map((r) => r.id)

  it('late heaths are clipped in spring, early ones after their flowers', () => {
    expect(ids('Calluna vulgaris')).not.toContain('shear-after-bloom')
    expect([2, 3, 4]).toContain(
      monthOf(windowOfRule('Calluna vulgaris', maritime, 'shear-late-heaths')!.bestFrom),
    )
    expect(ids('Erica carnea')).toContain('shear-after-bloom')
  })

  it('peonies are cleared in autumn by every school', () => {
    expect(ids('Paeonia lactiflora')).toContain('clear-in-autumn')
    for (const id of ['cut-back-late-winter', 'cut-back-autumn'])
      expect(ids('Paeonia lactiflora')).not.toContain(id)
    expect([10, 11]).toContain(
      monthOf(windowOfRule('Paeonia lactiflora', maritime, 'clear-in-autumn')!.bestFrom),
    )
  })

  it('what flowers on new wood is cut when hard frosts have become rare, trees while they sleep', () => {
    for (const climate of [maritime, severe]) {
      const rose = windowOfRule('Rosa Bush group', climate, 'prune-late-winter')
      if (!rose) continue
      const crab = windowOfRule('Malus Flowering crab group', climate, 'prune-winter-old-wood')!
      expect(usually(climate.minC, rose.bestFrom)).toBeGreaterThan(1)
      expect(crab.earliest < rose.earliest).toBe(true)
    }
  })

  it('in spring nothing is lifted before it shows', () => {
    for (const climate of [maritime, climateAt(33), southern])
      for (const name of ['Hemerocallis fulva', 'Helenium autumnale', 'Symphyotrichum novi-belgii']) {
        const year = yearAt(climate)
        const found = moveWindows(taxon(name), climate, '2026-01-01')
        if (!found.ok) continue
        for (const w of found.windows.filter((x) => x.season === 'spring')) {
          const { showsFrom } = seasonDates(taxon(name), seasonYearOf(w.latest, year.south), year)
          expect([name, w.earliest >= addDays(showsFrom, -8)]).toEqual([name, true])
        }
      }
  })
})
