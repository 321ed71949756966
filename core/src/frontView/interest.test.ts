import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { taxonNamed } from '../garden/test/made.ts'
import { library, usualYearAt } from '../plants/index.ts'
import { addedBloom, interestOf, showsFlowers, spells, type InterestWeek } from './index.ts'

const year = usualYearAt(null, 52)
const southern = usualYearAt(null, -34)
const on = (names: [string, number][], of = year) =>
  interestOf(
    names.map(([n, areaM2]) => ({ taxon: taxonNamed(n), areaM2 })),
    2026,
    of,
  )
const inMonth = (weeks: readonly InterestWeek[], month: string) =>
  weeks.filter((w) => w.from.slice(5, 7) === month)
const months = (weeks: readonly InterestWeek[], is: (w: InterestWeek) => boolean) =>
  new Set(weeks.filter(is).map((w) => Number(w.from.slice(5, 7))))

describe('the year of a bed', () => {
  it('has what flowers in its month, with the share of the ground that is in flower', () => {
    const weeks = on([
      ['Galanthus nivalis', 1],
      ['Helenium autumnale', 3],
    ])
    expect(weeks).toHaveLength(52)
    const names = (month: string) =>
      new Set(inMonth(weeks, month).flatMap((w) => w.flowers.map((f) => f.taxon.botanical)))
    expect(names('02')).toEqual(new Set(['Galanthus nivalis']))
    expect(names('08')).toEqual(new Set(['Helenium autumnale']))
    expect(names('05')).toEqual(new Set())
    // Full out, three of four square metres are in flower.
    expect(Math.max(...weeks.flatMap((w) => w.flowers.map((f) => f.share)))).toBeCloseTo(0.75, 1)
    // South of the equator the snowdrop flowers in their winter.
    const there = months(on([['Galanthus nivalis', 1]], southern), showsFlowers)
    expect(there.has(8)).toBe(true)
    for (const month of there) expect([6, 7, 8, 9]).toContain(month)
  })

  it('knows green structure, leaves that are not green, autumn colour and seed heads', () => {
    const yew = on([['Buxus sempervirens', 1]])
    expect(yew.every((w) => w.evergreen === 1 && w.coloured === 0)).toBe(true)
    const heuchera = on([['Stachys byzantina', 1]])
    expect(inMonth(heuchera, '07').every((w) => w.coloured > 0.8)).toBe(true)
    const shadbush = on([['Amelanchier lamarckii', 1]])
    expect(months(shadbush, (w) => w.coloured > 0.3).has(7)).toBe(false)
    expect([...months(shadbush, (w) => w.coloured > 0.3)].some((m) => m === 9 || m === 10)).toBe(true)
    const grass = on([['Miscanthus sinensis', 1]])
    expect(inMonth(grass, '12').every((w) => w.heads > 0.9)).toBe(true)
    expect(inMonth(grass, '06').every((w) => w.heads === 0)).toBe(true)
  })

  it('is told in shares: the same bed twice over shows the same, and no share is more than all', () => {
    const kind = fc.constantFrom(...library)
    const bed = fc.array(fc.record({ taxon: kind, areaM2: fc.double({ min: 0.1, max: 9, noNaN: true }) }), {
      minLength: 1,
      maxLength: 8,
    })
    fc.assert(
      fc.property(bed, (standing) => {
        const once = interestOf(standing, 2026, year)
        const twice = interestOf([...standing, ...standing], 2026, year)
        once.forEach((w, i) => {
          for (const v of [w.coloured, w.evergreen, w.heads, ...w.flowers.map((f) => f.share)]) {
            expect(v).toBeGreaterThanOrEqual(0)
            expect(v).toBeLessThanOrEqual(1 + 1e-9)
          }
          expect(twice[i]!.coloured).toBeCloseTo(w.coloured)
          expect(twice[i]!.flowers.map((f) => f.taxon.botanical)).toEqual(
            w.flowers.map((f) => f.taxon.botanical),
          )
        })
      }),
      { numRuns: 40 },
    )
  })

  it('names its gaps: they and what flowers are the whole year', () => {
    const weeks = on([['Helenium autumnale', 3]])
    const bare = spells(weeks, (w) => !showsFlowers(w))
    const flowers = spells(weeks, showsFlowers)
    expect(flowers).toHaveLength(1)
    expect(bare).toHaveLength(2)
    expect([...bare, ...flowers].reduce((n, s) => n + s.weeks, 0)).toBe(52)
    expect(bare[0]!.from).toBe('2026-01-01')
    expect(bare[0]!.to < flowers[0]!.from).toBe(true)
    expect(on([]).every((w) => !showsFlowers(w))).toBe(true)
  })
})

describe('bloom that a cut adds', () => {
  const added = (name: string) => addedBloom([taxonNamed(name), taxonNamed(name)], 2026, year)
  it('is the second flush of what is cut back, after the first', () => {
    const [second] = added('Nepeta × faassenii')
    expect(second).toMatchObject({ by: 'second flush' })
    expect(second!.from > '2026-06-01' && second!.from < second!.to).toBe(true)
  })
  it('is three weeks of what is halved, once for a kind, and none of what is neither', () => {
    const [later, ...more] = added('Helenium autumnale').filter((a) => a.by === 'stagger cut')
    expect(more).toEqual([])
    expect((Date.parse(later!.to) - Date.parse(later!.from)) / 86_400_000).toBe(20)
    expect(added('Galanthus nivalis')).toEqual([])
  })
})
