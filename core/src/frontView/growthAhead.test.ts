import { cpuUsage } from 'node:process'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { taxonNamed } from '../garden/test/made.ts'
import { sunHours, type Scene } from '../light/index.ts'
import { library } from '../plants/index.ts'
import { sizeAt } from '../rework/index.ts'
import { caster } from './growthAhead.ts'
import { grownOver, overtopped, shaded, type StandingPlant } from './index.ts'

const plant = (botanical: string, x: number, y: number): StandingPlant => ({
  id: `${botanical} ${x} ${y}`,
  groupId: botanical,
  taxon: taxonNamed(botanical),
  x,
  y,
  ageYears: 0,
})
const open = (latitudeDeg: number): Scene => ({ latitudeDeg, longitudeDeg: 0, northDeg: 0, obstructions: [] })
const shrub = 'Buddleja davidii'
const low = 'Geranium sanguineum'
/** A row of shrubs from west to east, and what is low on either side of it. */
const row = [-2, -1, 0, 1, 2].map((x) => plant(shrub, x, 0))

describe('what grows over what', () => {
  it('is what stands within the crown of something much taller: those and no others', () => {
    const { spreadM, heightM } = sizeAt(taxonNamed(shrub), 10)
    expect(heightM).toBeGreaterThan(1.3 * taxonNamed(low).heightM)
    const near = plant(low, 0.8 * (spreadM / 2), 0)
    const far = plant(low, 0.95 * (spreadM / 2), 0)
    const alone = plant(shrub, 0, 0)
    expect(overtopped([alone, near, far], 10)).toEqual([
      { below: near.taxon, above: alone.taxon, plants: 1, of: 2 },
    ])
    // Nothing stands over its own kind, nor over bulbs that come up under it.
    expect(overtopped([alone, plant(shrub, 0.3, 0)], 10)).toEqual([])
    expect(overtopped([alone, plant('Galanthus nivalis', 0.1, 0)], 10)).toEqual([])
  })

  it('counts each plant once, and no more of a kind than there are', () => {
    const anywhere = fc.record({
      taxon: fc.constantFrom(...library.slice(0, 120)),
      x: fc.double({ min: 0, max: 4, noNaN: true }),
      y: fc.double({ min: 0, max: 4, noNaN: true }),
    })
    fc.assert(
      fc.property(fc.array(anywhere, { maxLength: 25 }), fc.constantFrom(1, 3, 10), (said, years) => {
        const plants = said.map((s, i): StandingPlant => ({ ...s, id: `${i}`, groupId: `${i}`, ageYears: 0 }))
        const per = new Map<string, number>()
        for (const { below, above, plants: n, of } of overtopped(plants, years)) {
          expect(sizeAt(above, years).heightM).toBeGreaterThan(sizeAt(below, years).heightM)
          per.set(below.botanical, n + (per.get(below.botanical) ?? 0))
          expect(per.get(below.botanical)).toBeLessThanOrEqual(of)
        }
      }),
    )
  })
})

describe('the shade of what is planted', () => {
  it('falls away from the sun: behind a row of shrubs, not before it, on either half of the earth', () => {
    const lost = (latitude: number, y: number) => {
      const [found] = shaded(open(latitude), [...row, plant(low, 0, y)], 10, '2026-06-15')
      return found ? found.without - found.with : 0
    }
    const { spreadM } = sizeAt(taxonNamed(shrub), 10)
    const away = spreadM / 2 + 0.4
    expect(lost(52, away)).toBeGreaterThan(lost(52, -away) + 1)
    expect(lost(-34, -away)).toBeGreaterThan(lost(-34, away) + 1)
  })

  it('is what the light of the garden would say without and with it, and grows with the years', () => {
    const below = plant(low, 0, 1.6)
    const years = [1, 3, 10]
    const told = years.map((y) => shaded(open(52), [...row, below], y, '2026-06-15'))
    const with_ = told.map((of) => of[0]?.with ?? Infinity)
    expect(with_).toEqual(with_.toSorted((a, b) => b - a))
    const z = sizeAt(below.taxon, 10).heightM / 2
    const [own] = sunHours(open(52), [{ x: 0, y: 1.6, z }], { kind: 'season', on: '2026-06-15' })
    expect(told[2]![0]!.without).toBeCloseTo(own!.total)
    expect(told[2]![0]!.by.map((t) => t.botanical)).toEqual([shrub])
    // With the row as trees on the plan the light says the same as here.
    const size = sizeAt(taxonNamed(shrub), 10)
    const trees = row.map((p) => caster({ ...p, heightM: size.heightM, radiusM: size.spreadM / 2 }))
    const planted = { ...open(52), obstructions: trees }
    const [shadedBy] = sunHours(planted, [{ x: 0, y: 1.6, z }], { kind: 'season', on: '2026-06-15' })
    expect(told[2]![0]!.with).toBeCloseTo(shadedBy!.total, 1)
    // Without anything tall nothing is taken.
    expect(shaded(open(52), [below], 10, '2026-06-15')).toEqual([])
  })

  it('of five hundred plants over ten years is worked out in about a second', () => {
    const kinds = [
      'Miscanthus sinensis',
      'Helenium autumnale',
      'Buddleja davidii',
      low,
      'Nepeta × faassenii',
      'Phlox paniculata',
      'Rudbeckia fulgida',
      'Alchemilla mollis',
      'Astrantia major',
      'Sesleria autumnalis',
    ]
    const plants = Array.from({ length: 500 }, (_, i) =>
      plant(kinds[Math.floor(i / 50)]!, (i % 25) * 0.6, Math.floor(i / 25) * 0.35),
    )
    const began = cpuUsage()
    const found = grownOver(open(52), plants, [1, 2, 3, 5, 10], '2026-06-15')
    expect(found.map((f) => f.years)).toEqual([1, 2, 3, 5, 10])
    // Of the processor's own time, and far above what it takes: a slow or busy machine is no fault of the code.
    expect(cpuUsage(began).user / 1e6).toBeLessThan(8)
  })
})
