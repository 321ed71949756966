import { describe, expect, it } from 'vitest'
import { waterDeviation } from '../../verify/water.ts'
import { dayOfWaterBalance, referenceEvapotranspiration, type DailyWeather } from '../climate/index.ts'
import { addDays, dayOfYear, daysBetween } from '../dates/index.ts'
import { library, USUAL_YEAR, usualState } from '../plants/index.ts'
import { balanceInSeason, waterBalance, type RootingPlant } from './index.ts'

const since = '2026-07-01'
const plant: RootingPlant = {
  since,
  taxon: { moistureMin: 2, moistureMax: 4, lifeForm: 'perennial' },
  areaM2: 2,
  texture: 'loam',
}
const spell = (n: number, rainMm = 0): DailyWeather[] =>
  Array.from({ length: n }, (_, i) => ({ day: addDays(since, i), minC: 12, maxC: 24, rainMm }))
const balance = (
  days: readonly DailyWeather[],
  today: string,
  more: { plant?: Partial<RootingPlant>; waterings?: { day: string; litres: number }[] } = {},
) => waterBalance({ ...plant, ...more.plant }, days, today, more.waterings ?? [], 52)

describe('a day of the balance', () => {
  it('FAO-56, example 36: ten days of a crop that comes short of water', () => {
    const zone = { total: 160, readily: 64 }
    const days = [
      [6.0, 61.0],
      [5.6, 66.6],
      [4.7, 71.2],
      [5.0, 75.8],
      [5.8, 80.9],
      [3.2, 83.5],
      [7.0, 89.1],
      [6.1, 93.6],
      [5.6, 97.5],
      [6.2, 101.6],
    ] as const
    let depletion = 55
    for (const [evapotranspiration, end] of days) {
      depletion = dayOfWaterBalance(depletion, zone, 0, evapotranspiration)
      // Printed to a tenth, from figures that were rounded at each step.
      expect(Math.abs(depletion - end)).toBeLessThan(0.25)
    }
  })
  it('over four months of any weather is what the sheet of the paper comes to, line by line', () => {
    for (let seed = 1; seed <= 12; seed++)
      expect(waterDeviation(seed), `seed ${seed}`).toEqual({ depletionMm: expect.closeTo(0, 3), dueDays: 0 })
  })
  it('never takes out more than there is, however long it is dry', () => {
    const zone = { total: 20, readily: 8 }
    let depletion = 0
    for (let day = 0; day < 400; day++) {
      const next = dayOfWaterBalance(depletion, zone, 0, 6)
      expect(next).toBeGreaterThanOrEqual(depletion)
      depletion = next
    }
    expect(depletion).toBeLessThanOrEqual(20)
  })
})

describe('the water of what is not rooted in', () => {
  it('is due when what the roots can draw with ease is gone: loam, 15 cm, 40 %', () => {
    // By hand: 1000 x 0.155 x (0.15 m and its growth by then) x 0.4, at 0.8 of the reference a day.
    const a = referenceEvapotranspiration({ minC: 12, maxC: 24 }, 52, dayOfYear(since))
    const first = (1000 * 0.155 * 0.15 * 0.4) / (0.8 * a)
    const { dueOn, litres } = balance(spell(20), since, { plant: { areaM2: 1 } })
    expect(daysBetween(since, dueOn!)).toBeGreaterThanOrEqual(Math.ceil(first))
    expect(daysBetween(since, dueOn!)).toBeLessThanOrEqual(Math.ceil(first) + 1)
    expect(litres).toBe(Math.ceil(0.8 * a * daysBetween(since, dueOn!)))
  })

  it('is told of today where nothing is known ahead', () => {
    const known = spell(20)
    const { dueOn, depletionMm } = balance(known, addDays(since, 20))
    expect(dueOn).toBe(addDays(since, 20))
    expect(depletionMm).toBeGreaterThan(0)
  })

  it('is put off by rain that reaches the roots and by watering, not by a sprinkle', () => {
    const dry = balance(spell(20), since).dueOn!
    expect(balance(spell(20, 0.4), since).dueOn).toBe(dry)
    expect(balance(spell(20, 6), since).dueOn).toBeNull()
    const waterings = [{ day: dry, litres: 40 }]
    const after = balance(spell(20), addDays(dry, 1), { waterings })
    expect(after.depletionMm).toBeLessThan(5)
    expect(after.dueOn! > addDays(dry, 1)).toBe(true)
  })

  it('comes sooner on sand, and sooner for what likes it moist', () => {
    const loam = balance(spell(20), since).dueOn!
    expect(balance(spell(20), since, { plant: { texture: 'sand' } }).dueOn! < loam).toBe(true)
    const taxon = { ...plant.taxon, moistureMin: 4 as const, moistureMax: 5 as const }
    expect(balance(spell(20), since, { plant: { taxon } }).dueOn! < loam).toBe(true)
  })
})

it('what rests by its nature is not watered for its looks; what is in leaf is, by the same dry ground', () => {
  const today = addDays(since, 40)
  const dry = balance(spell(45), today)
  expect(dry.dueOn).toBe(today)
  const of = (botanical: string) =>
    balanceInSeason(
      dry,
      usualState(
        library.find((t) => t.botanical === botanical)!,
        today,
        USUAL_YEAR,
      ),
    )
  // Bleeding heart and oriental poppy die down in July; asters are in bud in August.
  for (const name of ['Lamprocapnos spectabilis', 'Papaver orientale']) {
    expect([name, of(name).dueOn, of(name).litres]).toEqual([name, null, 0])
    expect(of(name).says).toMatch(/rests|underground/)
  }
  expect(of('Symphyotrichum novae-angliae')).toEqual(dry)
})
