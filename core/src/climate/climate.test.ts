import { describe, expect, it } from 'vitest'
import { addDays, dayOfYear, type IsoDate } from '../dates/index.ts'
import {
  climateOf,
  generateWeather,
  leafDates,
  quantile,
  soilCorrection,
  soilTemperatures,
  type DailyWeather,
} from './index.ts'

/** Years of mild days with frost on stated days. */
function record(frosts: Record<number, [spring: IsoDate, autumn: IsoDate]>): DailyWeather[] {
  return Object.entries(frosts).flatMap(([year, days]) => {
    const list: DailyWeather[] = []
    for (let day = `${year}-01-01`; day.startsWith(year); day = addDays(day, 1))
      list.push({ day, minC: days.some((d) => day === `${year}-${d}`) ? -1 : 5, maxC: 12, rainMm: 0 })
    return list
  })
}

it('quantiles follow type 7: R’s quantile(1:10, 0.1) is 1.9, quantile(c(1, 2, 4), 0.5) is 2', () => {
  expect(quantile([10, 9, 8, 7, 6, 5, 4, 3, 2, 1], 0.1)).toBeCloseTo(1.9, 10)
  expect(quantile([4, 1, 2], 0.5)).toBe(2)
})

it('frost dates are the last of spring and the first of autumn, year by year', () => {
  const days = record({ 2021: ['04-10', '11-01'], 2022: ['04-20', '10-22'], 2023: ['04-30', '10-12'] })
  const result = climateOf(days, 52)
  if (!result.ok) throw new Error(result.reason)
  expect(result.climate.lastFrost).toEqual({
    p10: expect.closeTo(dayOfYear('2021-04-12')),
    p50: dayOfYear('2022-04-20'),
    p90: expect.closeTo(dayOfYear('2023-04-28')),
  })
  expect(result.climate.firstFrost?.p50).toBe(dayOfYear('2022-10-22'))
})

it('south of the equator the same record has its spring frost in the second half of the year', () => {
  const days = record({ 2021: ['06-01', '09-01'], 2022: ['06-01', '09-01'], 2023: ['06-01', '09-01'] })
  const result = climateOf(days, -37)
  expect(result.ok && result.climate.lastFrost?.p50).toBe(dayOfYear('2021-09-01'))
  expect(result.ok && result.climate.firstFrost?.p50).toBe(dayOfYear('2021-06-01'))
})

it('two years are too few, and a frost-free place has no frost dates', () => {
  expect(climateOf(record({ 2021: ['01-02', '12-01'], 2022: ['01-02', '12-01'] }), 52)).toEqual({
    ok: false,
    reason: 'too-few-years',
    completeYears: 2,
  })
  const mild = climateOf(record({ 2021: ['', ''], 2022: ['', ''], 2023: ['', ''] }), 28)
  expect(mild.ok && mild.climate.lastFrost).toBeUndefined()
})

it('soil follows Zheng 1993: a quarter of the way to the eleven-day mean each day', () => {
  const step = Array.from({ length: 40 }, (_, i) => ({
    day: addDays('2024-01-01', i),
    minC: i < 20 ? 0 : 11,
    maxC: i < 20 ? 0 : 11,
    rainMm: 0,
  }))
  const soil = soilTemperatures(step)
  expect(soil[19]).toBe(0)
  // Day one: running mean 1, soil 0.25; day two: running mean 2, soil 0.25 + 0.25 (2 - 0.25).
  expect(soil[20]).toBeCloseTo(0.25, 10)
  expect(soil[21]).toBeCloseTo(0.6875, 10)
  expect(soil[39]).toBeGreaterThan(10)
  expect(soil[39]).toBeLessThan(11)
})

it('the soil’s correction is the posterior mean of a normal difference under a normal prior of the same spread', () => {
  const modelled = new Map([
    ['2026-04-01', 8],
    ['2026-04-02', 9],
    ['2026-04-03', 10],
  ])
  const reading = (day: string, celsius: number) => ({ day, celsius })
  expect(soilCorrection([], modelled)).toEqual({ offsetC: 0, days: 0, errorC: 1.5 })
  // Two readings of one day are one day; a day the model does not know tells nothing.
  const some = [reading('2026-04-01', 9), reading('2026-04-01', 11), reading('2026-04-02', 12)]
  const { offsetC, days, errorC } = soilCorrection([...some, reading('2026-05-01', 30)], modelled)
  // Differences 2 and 3: (0 x 1 + 2 + 3) / (1 + 2), and 1.5 / sqrt(3).
  expect([offsetC, days, errorC]).toEqual([5 / 3, 2, 1.5 / Math.sqrt(3)])
})

it('the generator repeats itself and keeps to its pattern', () => {
  const pattern = {
    annualMeanC: 10.4,
    seasonalAmplitudeC: 6.8,
    coldestDay: 25,
    dailyRangeC: 7.5,
    annualRainMm: 600,
    seed: 1,
  }
  const days = generateWeather(pattern, 2000, 2019)
  expect(generateWeather(pattern, 2000, 2019)).toEqual(days)
  expect(days).toHaveLength(7305)
  const mean = (v: number[]) => v.reduce((a, b) => a + b, 0) / v.length
  expect(mean(days.map((d) => (d.minC + d.maxC) / 2))).toBeCloseTo(10.4, 0)
  expect(days.reduce((sum, d) => sum + d.rainMm, 0) / 20 / 600).toBeCloseTo(1, 0)
  expect(days.every((d) => d.minC <= d.maxC && d.rainMm >= 0)).toBe(true)
})

describe('leaf dates', () => {
  /** A yearly wave of the mean day, coldest on a day of the year. */
  const wave = (meanC: number, amplitudeC: number, coldest: number) => {
    const middle = Array.from(
      { length: 366 },
      (_, i) => meanC - amplitudeC * Math.cos((2 * Math.PI * (i + 1 - coldest)) / 366),
    )
    return { minC: middle.map((c) => c - 4), maxC: middle.map((c) => c + 4) }
  }
  const away = (a: string, b: string) => Math.abs(dayOfYear(`2024-${a}`) - dayOfYear(`2024-${b}`))

  it('are where a wave about ten degrees crosses them: a quarter of a year either side of its coldest day', () => {
    // Coldest on 28 January (day 28): 10 °C is passed 91.5 days later and 91.5 days before.
    const dates = leafDates(wave(10, 7, 28))!
    expect(away(dates.leafFrom, '04-29')).toBeLessThanOrEqual(1)
    expect(away(dates.leafTo, '10-29')).toBeLessThanOrEqual(1)
  })

  it('wrap over New Year in the south, and do not exist where no winter comes', () => {
    const south = leafDates(wave(12, 8, 210))!
    expect(south.leafFrom > south.leafTo).toBe(true)
    expect(leafDates(wave(24, 3, 28))).toBeUndefined()
    expect(leafDates(wave(0, 4, 28))).toBeUndefined()
  })
})
