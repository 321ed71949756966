import { describe, expect, it } from 'vitest'
import { climateOf, generateWeather } from '../climate/index.ts'
import type { Planting } from '../garden/index.ts'
import { madeBed, madePlanting, rectangle, taxonNamed } from '../garden/test/made.ts'
import { footprintAreaM2 } from '../geometry/index.ts'
import { library, type Taxon } from '../plants/index.ts'
import {
  crowdingOf,
  grownGround,
  isOfConsequence,
  judgeGarden,
  succession,
  successorJob,
  weeksAlone,
  type Ailing,
  type KnownKinds,
} from './index.ts'
import type { SignId } from '../diagnosis/index.ts'
import type { SunHours } from '../light/index.ts'
import { patternAtLatitude } from '../climate/test/atLatitude.ts'

const planting = (id: string, name: string, x: number, more: Partial<Planting> = {}) =>
  madePlanting(id, name, { x, ...more })
const taxon = taxonNamed
const on = '2026-09-14'

describe('wet one bed and dry the next', () => {
  const wilts = planting('a', 'Astrantia major', 0)
  const soaked = { ...planting('b', 'Astrantia major', 9), placeId: 'other' }
  const judged = (piped: boolean, dryOn: string, wetOn: string) => {
    const hours: SunHours = { total: 4, morning: 1, midday: 3, afternoon: 0, heat: 0 }
    const plantings = [wilts, soaked]
    const seen = (sign: SignId, on: string) => ({
      signs: [sign],
      signsOn: { [sign]: on },
      rating: null,
      decline: null,
      living: 1,
      dividedOn: '2025-04-01',
      role: null,
      again: null,
    })
    const garden = {
      scene: { latitudeDeg: 52, longitudeDeg: 0, northDeg: 0, obstructions: [] },
      places: [madeBed('bed', rectangle(-2, -2, 2, 2), { piped }), madeBed('other', rectangle(7, -2, 11, 2))],
      plantings,
      reserved: [],
      conditions: { a: seen('wilting', dryOn), b: seen('stays-wet', wetOn) },
    }
    const light = {
      plantings: plantings.map((p) => ({ plantingId: p.id, before: hours, now: hours, causes: [] })),
    }
    const found = judgeGarden(garden, light, {}, {}, '2026-07-10')
    return ['a', 'b'].map((id) =>
      found
        .find((a) => a.plantingId === id)!
        .verdict.remedies.map((r) => r.id)
        .filter((r) => r.startsWith('share')),
    )
  }

  it('is a matter of pipes where there are any, on one walk; else not', () => {
    expect(judged(true, '2026-07-08', '2026-07-09')).toEqual([['share-water-dry'], ['share-water-wet']])
    expect(judged(false, '2026-07-08', '2026-07-09')).toEqual([[], []])
    expect(judged(true, '2026-07-08', '2026-06-20')).toEqual([[], []])
  })
})

describe('crowding', () => {
  it('comes from taller and stronger neighbours as they grow, not from the low', () => {
    const low = planting('a', 'Heuchera sanguinea', 0)
    const shrub = planting('b', 'Cotinus coggygria', 1.1)
    const area = (p: Planting) => footprintAreaM2(grownGround(p, on))
    expect(area({ ...shrub, inPlaceSince: on })).toBeLessThan(area(shrub))
    expect(crowdingOf(low, [low, { ...shrub, inPlaceSince: on, radiusM: 0.3 }], on)).toEqual([])
    const [by] = crowdingOf(low, [low, shrub], on)
    expect(by).toMatchObject({ plantingId: 'b' })
    expect(by!.share).toBeGreaterThan(0.5)
    expect(crowdingOf(shrub, [low, shrub], on)).toEqual([])
    // Growth on a wall, or on a stem, takes nobody's ground.
    for (const above of ['Wisteria sinensis', 'Lagerstroemia indica'])
      expect(crowdingOf(low, [low, planting('c', above, 1.1)], on)).toEqual([])
    expect(crowdingOf(low, [low, { ...shrub, placeId: 'elsewhere' }], on)).toEqual([])
  })

  it('knows the weeks in which one flowers alone', () => {
    const early = planting('a', 'Galanthus nivalis', 0)
    const late = planting('b', 'Helenium autumnale', 1)
    expect(weeksAlone(early, [early, late])).toBeGreaterThan(3)
    expect(weeksAlone(early, [early, late, { ...early, id: 'c' }])).toBe(0)
  })
})

describe('succession', () => {
  const hours = (total: number) => ({ total, heat: 0, morning: total / 2, midday: total / 2, afternoon: 0 })
  const found = climateOf(generateWeather(patternAtLatitude(52), 2008, 2025), 52)
  if (!found.ok) throw new Error(found.reason)
  const { climate } = found

  const anything = { whyNot: () => undefined }

  it('proposes what bears the light as it is and as it will be, of about the size', () => {
    expect(isOfConsequence(taxon('Amelanchier lamarckii'))).toBe(true)
    expect(isOfConsequence(taxon('Helenium autumnale'))).toBe(false)
    const ailing = { heightM: 6, says: 'It fails.', now: hours(3), then: hours(8) }
    const proposal = succession(ailing, library, anything)!
    expect(proposal.choices.length).toBeGreaterThan(1)
    for (const c of proposal.choices) {
      const t = taxon(c.botanical)
      expect(t.lightMinHours - 3).toBeLessThanOrEqual(1)
      expect(8 - t.lightMaxHours).toBeLessThanOrEqual(1)
      expect(t.heightM).toBeGreaterThanOrEqual(0.4 * 6)
    }
    expect(succession(ailing, library, { whyNot: () => 'too cold' })).toBeUndefined()
  })

  it('goes by the record: what did well comes sooner, what failed or did poorly there is left out', () => {
    const ailing = { heightM: 6, says: 'It fails.', now: hours(5), then: hours(7) }
    const names = (known: Partial<KnownKinds>, of: Ailing = ailing) =>
      succession(of, library, { ...anything, ...known })!.choices.map((c) => c.botanical)
    const plain = names({})
    const last = plain.at(-1)!
    const proven = names({ again: new Map([[last, 'again']]) })
    expect(proven.indexOf(last)).toBeLessThan(plain.length - 1)
    expect(names({ again: new Map([[plain[0]!, 'not again']]) })).not.toContain(plain[0])
    expect(names({ poorThere: new Set([plain[0]!]) })).not.toContain(plain[0])
    const told = succession(ailing, library, { ...anything, again: new Map([[last, 'again']]) })!
    expect(told.choices.find((c) => c.botanical === last)!.reason).toMatch(/done well in this garden/)
  })

  it('does not set one of the rose family after another without a word', () => {
    const apple = taxon('Malus domestica')
    const after = (of?: Taxon) =>
      succession(
        { taxon: of, heightM: 4, says: 'It fails.', now: hours(7), then: hours(7) },
        library,
        anything,
      )!.choices
    const sick = (c: { botanical: string }) =>
      /^(Malus|Prunus|Crataegus|Amelanchier|Sorbus)/.test(c.botanical)
    expect(after(undefined).some(sick)).toBe(true)
    for (const c of after(apple).filter(sick)) expect(c.reason).toMatch(/where its family has stood/)
    expect(after(apple).filter(sick).length).toBeLessThan(after(undefined).filter(sick).length)
  })

  it('is planted in a window of its kind, dormant where it loses its leaves', () => {
    const beside = { subjectId: 's', beside: 'Alder 6', placeId: null }
    const job = successorJob(taxon('Amelanchier lamarckii'), beside, climate, {}, on)!
    expect(['11', '12', '01', '02', '03']).toContain(job.window.bestFrom.slice(5, 7))
    expect(job.cautions.join(' ')).toContain('utility')
    expect(job.materials.map((m) => m.name)).toContain('garden compost')
    const native = successorJob(
      taxon('Amelanchier lamarckii'),
      beside,
      climate,
      { 'planting-hole': 'native' },
      on,
    )!
    expect(native.materials.map((m) => m.name)).not.toContain('garden compost')
  })
})
