import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { taxonNamed } from '../garden/test/made.ts'
import { library } from '../plants/index.ts'
import { divisionOf, milestones, openGroundM2, plantingDivided, sharedOut, sizeAt } from './index.ts'

const cut = { divideHow: 'cut', divideYears: [3, 5], moveEase: 'easy' } as const
const clump = { taxon: cut, plants: 1, years: 4, inSeason: true }

describe('a division', () => {
  it('of a clump with 24 shoots is six pieces of four, five of which live', () => {
    // 24 / 4 = 6; 88 in a hundred of 6 is 5.3.
    const found = divisionOf({ ...clump, shoots: 24 })
    expect(found).toMatchObject({ ok: true, division: { pieces: 6, living: 5 } })
    expect(found.ok && found.division.working[0]).toBe('24 shoots, 4 to a piece: 6')
  })

  it('throws the middle of an old clump away: 24 shoots are sixteen, and four pieces', () => {
    expect(divisionOf({ ...clump, shoots: 24, years: 8 })).toMatchObject({ division: { pieces: 4 } })
  })

  it('goes by the size where nobody has counted: 40 cm across are 1257 square centimetres, eight pieces of 12 by 12', () => {
    expect(divisionOf({ ...clump, acrossM: 0.4 })).toMatchObject({ division: { pieces: 8, living: 7 } })
    expect(divisionOf({ ...clump, acrossM: 0.4, plants: 3 })).toMatchObject({
      division: { pieces: 24, living: 21 },
    })
  })

  it('is refused of what is never divided, too small or not measured', () => {
    expect(divisionOf({ ...clump, taxon: { ...cut, divideHow: null }, shoots: 9 })).toEqual({ ok: false, why: 'never divided' }) // prettier-ignore
    expect(divisionOf({ ...clump, shoots: 7 })).toEqual({ ok: false, why: 'too small' })
    expect(divisionOf(clump)).toEqual({ ok: false, why: 'not measured' })
  })

  it('never gives fewer for more shoots, nor more living out of season, and what is shared out adds up', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 80 }),
        fc.integer({ min: 1, max: 9 }),
        fc.array(fc.integer({ min: 0, max: 12 }), { maxLength: 5 }),
        (shoots, plants, wants) => {
          const one = divisionOf({ ...clump, shoots, plants })
          const more = divisionOf({ ...clump, shoots: shoots + 4, plants })
          if (!one.ok || !more.ok) return
          expect(more.division.pieces).toBeGreaterThanOrEqual(one.division.pieces)
          const late = divisionOf({ ...clump, shoots, plants, inSeason: false })
          expect(late.ok && late.division.living).toBeLessThanOrEqual(one.division.living)
          const wanted = wants.map((count, i) => ({ id: `${i}`, count }))
          const { given, surplus } = sharedOut(one.division.living, wanted)
          expect(given.reduce((sum, g) => sum + g.count, surplus)).toBe(one.division.living)
          for (const g of given) expect(g.count).toBeLessThanOrEqual(wanted.find((w) => w.id === g.id)!.count)
          if (surplus > 0) expect(given).toEqual(wanted.filter((w) => w.count > 0))
        },
      ),
    )
  })
})

describe('growth', () => {
  it('never shrinks, never passes the mature size, and is nineteen twentieths of it at the years the kind takes', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...library),
        fc.double({ min: 0, max: 30, noNaN: true }),
        (taxon, years) => {
          const [now, later] = [sizeAt(taxon, years), sizeAt(taxon, years + 1)]
          expect(later.heightM).toBeGreaterThanOrEqual(now.heightM)
          expect(later.spreadM).toBeLessThanOrEqual(taxon.spreadM)
          const full = sizeAt(taxon, Math.max(1, taxon.yearsToSize))
          expect(full.heightM / taxon.heightM).toBeGreaterThanOrEqual(0.95 - 1e-9)
        },
      ),
    )
  })

  it('closes a drift after it touches, sooner where it is planted closer, and never where it is set further apart than it spreads', () => {
    const kind = library.find((t) => t.botanical === 'Geranium macrorrhizum')!
    const usual = milestones(kind, kind.spacingM)
    expect(usual.touchYears).not.toBeNull()
    expect(usual.closedYears ?? Infinity).toBeGreaterThanOrEqual(usual.touchYears!)
    expect(milestones(kind, kind.spacingM / 2).touchYears!).toBeLessThanOrEqual(usual.touchYears!)
    expect(milestones(kind, 2 * kind.spreadM).touchYears).toBeNull()
  })

  it('leaves less ground open each year, and never less than none nor more than the bed', () => {
    const kind = library.find((t) => t.botanical === 'Geranium macrorrhizum')!
    const drift = { taxon: kind, count: 10, areaM2: 10 * 0.866 * kind.spacingM ** 2 }
    const open = [0, 1, 2, 3, 5, 10].map((years) => openGroundM2([drift], drift.areaM2 + 1, years))
    expect(open).toEqual(open.toSorted((a, b) => b - a))
    expect(open[0]).toBeLessThan(drift.areaM2 + 1)
    // The metre that nothing is planted on stays open.
    expect(open.at(-1)).toBeGreaterThanOrEqual(1 - 1e-9)
    expect(openGroundM2([], 3, 5)).toBe(3)
    expect(openGroundM2([drift], 0, 5)).toBe(0)
  })
})

describe('a planting divided where it stands', () => {
  const taxon = taxonNamed('Geranium macrorrhizum')
  const planting = { taxon, livingCount: 2, inPlaceSince: '2022-09-01' }

  it('gives what is over once as many are set back; a clump counted tells more than its age', () => {
    const counted = plantingDivided(planting, '2026-09-01', { shoots: 30 })
    const direct = divisionOf({ taxon, plants: 2, shoots: 30, years: 4, inSeason: true })
    expect(counted.isMeasured).toBe(true)
    expect(counted.answer).toEqual(direct)
    expect(counted.spare).toBe(direct.ok ? direct.division.living - 2 : NaN)
    const guessed = plantingDivided(planting, '2026-09-01')
    expect(guessed.isMeasured).toBe(false)
    const young = plantingDivided(planting, '2022-10-01')
    expect(young.spare).toBeLessThanOrEqual(guessed.spare)
  })

  it('gives nothing where it is never divided', () => {
    const never = plantingDivided({ ...planting, taxon: { ...taxon, divideHow: null } }, '2026-09-01')
    expect(never).toMatchObject({ answer: { ok: false, why: 'never divided' }, spare: 0 })
  })
})
