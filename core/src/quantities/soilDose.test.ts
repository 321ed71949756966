import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { soilTextures } from '../garden/index.ts'
import { doseTurns, soilDose } from './index.ts'

const texture = fc.constantFrom(...soilTextures.filter((t) => t !== 'chalk'))
const ph = fc.double({ min: 4, max: 7.1, noNaN: true })

describe('what moves a soil', () => {
  it('is of the size that laboratories hand out: sulphur for one unit of loam is one to one and a half hundred grams', () => {
    // Extension tables give 2 to 3 lb of sulphur on 100 square feet of loam for a unit: 98 to 146 g a square metre.
    const loam = soilDose(6.5, 5.5, 'loam')!
    expect(loam.with).toBe('sulphur')
    expect(loam.inAllKgM2).toBeGreaterThanOrEqual(0.098)
    expect(loam.inAllKgM2).toBeLessThanOrEqual(0.146)
    // And 5 to 7 lb of ground limestone: 244 to 342 g.
    const limed = soilDose(5.5, 6.5, 'loam')!
    expect(limed.with).toBe('ground limestone')
    expect(limed.inAllKgM2).toBeGreaterThanOrEqual(0.244)
    expect(limed.inAllKgM2).toBeLessThanOrEqual(0.342)
  })

  it('grows with the way to go and with the fineness of the soil, and is never more at once than roots bear', () => {
    fc.assert(
      fc.property(ph, ph, texture, (from, to, of) => {
        const dose = soilDose(from, to, of)
        fc.pre(from !== to)
        expect(dose!.with).toBe(to < from ? 'sulphur' : 'ground limestone')
        expect(dose!.nowKgM2).toBeLessThanOrEqual(dose!.inAllKgM2)
        expect(dose!.nowKgM2).toBeLessThanOrEqual(0.25)
        expect(soilDose(from, (from + to) / 2, of)!.inAllKgM2).toBeCloseTo(dose!.inAllKgM2 / 2)
        expect(soilDose(from, to, 'sand')!.inAllKgM2).toBeLessThanOrEqual(dose!.inAllKgM2)
        expect(soilDose(from, to, 'clay')!.inAllKgM2).toBeGreaterThanOrEqual(dose!.inAllKgM2)
      }),
    )
    expect(soilDose(7.5, 5.5, 'chalk')).toBeUndefined()
    expect(soilDose(6, 6, 'loam')).toBeUndefined()
  })

  it('is given in turns, none more than roots bear, that come to all of it: a clay to be limed by a unit wants two', () => {
    // Half a kilogram a square metre, no more than a quarter at once.
    expect(doseTurns(soilDose(5.5, 6.5, 'clay')!)).toEqual({
      with: 'ground limestone',
      inAllKgM2: 0.5,
      turns: [
        { kgM2: 0.25, afterMonths: 0 },
        { kgM2: 0.25, afterMonths: 6 },
      ],
    })
    // Sandy loam by half a unit: 40 g of sulphur, or 240 g of aluminium sulphate, which may all go on at once.
    const sandy = soilDose(6.5, 6, 'sandy loam')!
    const aluminium = doseTurns(sandy, 'aluminium sulphate')
    expect(aluminium.with).toBe('aluminium sulphate')
    expect(aluminium.turns.map((t) => t.kgM2)).toEqual([expect.closeTo(0.24)])
    expect(doseTurns(soilDose(5.5, 6.5, 'loam')!, 'aluminium sulphate').with).toBe('ground limestone')
    fc.assert(
      fc.property(ph, ph, texture, fc.boolean(), (from, to, of, isAluminium) => {
        fc.pre(from !== to)
        const { inAllKgM2, turns } = doseTurns(
          soilDose(from, to, of)!,
          isAluminium ? 'aluminium sulphate' : undefined,
        )
        expect(turns.reduce((sum, t) => sum + t.kgM2, 0)).toBeCloseTo(inAllKgM2)
        expect(Math.max(...turns.map((t) => t.kgM2))).toBeLessThanOrEqual(0.25)
        expect(Math.min(...turns.map((t) => t.kgM2))).toBeGreaterThan(0)
      }),
    )
  })
})
