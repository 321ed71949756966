import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays, dayOfYear } from '../dates/index.ts'
import {
  climateOf,
  frostIsGuessed,
  generateWeather,
  withKnown,
  hardyWords,
  zoneMiddleC,
  zoneOf,
  type Climate,
} from './index.ts'
import { patternAtLatitude } from './test/atLatitude.ts'

const climateAt = (latitudeDeg: number): Climate => {
  const found = climateOf(generateWeather(patternAtLatitude(latitudeDeg), 2004, 2025), latitudeDeg)
  if (!found.ok) throw new Error(found.reason)
  return { ...found.climate, isSimulated: true }
}
const north = climateAt(48)
const south = climateAt(-48)

describe('hardiness zones', () => {
  it('are steps of ten degrees Fahrenheit of the mean annual minimum, from -60 on', () => {
    // The published scale: zone 5a is -20 to -15 °F, 8b 15 to 20 °F, 10 is 30 to 40 °F.
    const celsius = (fahrenheit: number) => ((fahrenheit - 32) * 5) / 9
    expect(zoneMiddleC('5a')).toBeCloseTo(celsius(-17.5), 0)
    expect(zoneMiddleC('8B')).toBeCloseTo(celsius(17.5), 0)
    expect(zoneMiddleC(' 10 ')).toBeCloseTo(celsius(35), 0)
  })

  it('are read back as they were said', () => {
    for (let n = 1; n <= 13; n++)
      for (const half of ['a', 'b']) expect(zoneOf(zoneMiddleC(`${n}${half}`)!)).toBe(`${n}${half}`)
  })

  it('stand beside the cold that a kind bears: the coldest whose usual winter it comes through', () => {
    // Published: zone 6b begins at -20.6 °C, 7b at -15.0, 9b at -3.9, 3a at -40.
    expect([-20, -15, -4, -40].map(hardyWords)).toEqual([
      '−20 °C (zone 6b)',
      '−15 °C (zone 7b)',
      '−4 °C (zone 9b)',
      '−40 °C (zone 3a)',
    ])
    for (let c = -45; c < 5; c += 0.5)
      expect(zoneMiddleC(/zone (\w+)/.exec(hardyWords(c))![1]!)!).toBeGreaterThan(c)
  })

  it('are a guess for no one: what is no zone gives nothing', () => {
    for (const zone of ['0', '14', '7c', 'b', '-3', '', '8a8', 'zone 7'])
      expect(zoneMiddleC(zone)).toBeUndefined()
  })

  it('grow with warmth, and hold the coldest and the mildest places in their last steps', () => {
    const order = (zone: string) => 2 * Number.parseInt(zone, 10) + (zone.endsWith('b') ? 1 : 0)
    fc.assert(
      fc.property(
        fc.double({ min: -60, max: 25, noNaN: true }),
        fc.double({ min: 0, max: 9, noNaN: true }),
        (c, more) => {
          expect(order(zoneOf(c + more))).toBeGreaterThanOrEqual(order(zoneOf(c)))
        },
      ),
    )
    expect(zoneOf(-70)).toBe('1a')
    expect(zoneOf(40)).toBe('13b')
  })
})

describe('what a gardener knows of a climate', () => {
  it('stands in place of what was made up, and the years keep their spread', () => {
    const known = withKnown(north, { lastFrost: '05-20', firstFrost: '09-25' })
    const { lastFrost, firstFrost } = north
    expect(known.lastFrost!.p50).toBe(dayOfYear('2024-05-20'))
    expect(known.firstFrost!.p50).toBe(dayOfYear('2024-09-25'))
    expect(known.lastFrost!.p90 - known.lastFrost!.p50).toBeCloseTo(lastFrost!.p90 - lastFrost!.p50, -0.5)
    expect(known.firstFrost!.p50 - known.firstFrost!.p10).toBeCloseTo(firstFrost!.p50 - firstFrost!.p10, -0.5)
    expect(known.meanAnnualMinimumC).toBe(north.meanAnnualMinimumC)
  })

  it('moves the risk of frost with the date, in spring and in autumn each by its own', () => {
    for (const climate of [north, south]) {
      const last = addDays(`2023-12-31`, Math.round(climate.lastFrost!.p50) + 12).slice(5)
      const later = withKnown(climate, { lastFrost: last })
      const sum = (risk: readonly number[], from: number, to: number) =>
        risk.slice(from, to).reduce((a, b) => a + b, 0)
      const [spring, autumn] =
        climate.latitudeDeg > 0
          ? [
              [0, 182],
              [182, 366],
            ]
          : [
              [182, 366],
              [0, 182],
            ]
      expect(sum(later.frostRisk, spring![0]!, spring![1]!)).toBeGreaterThan(
        sum(climate.frostRisk, spring![0]!, spring![1]!),
      )
      expect(sum(later.frostRisk, autumn![0]!, autumn![1]!)).toBeCloseTo(
        sum(climate.frostRisk, autumn![0]!, autumn![1]!),
        6,
      )
    }
  })

  it('of the winter is the winter, and nothing else', () => {
    const { meanAnnualMinimumC, known, ...rest } = withKnown(north, { coldestC: -23 })
    expect(meanAnnualMinimumC).toBe(-23)
    expect(known).toEqual({ frost: false, winter: true })
    const { meanAnnualMinimumC: _, known: __, ...before } = north
    expect(rest).toEqual(before)
  })

  it('taken back leaves what was there before it', () => {
    expect(withKnown(north, null)).toEqual(north)
  })

  it('said where no frost was ever recorded, says how far a year may lie off', () => {
    const frostless: Climate = { ...north, lastFrost: undefined, firstFrost: undefined } as Climate
    const { lastFrost } = withKnown(frostless, { lastFrost: '03-01' })
    expect(lastFrost!.p50).toBe(dayOfYear('2024-03-01'))
    expect(lastFrost!.p10).toBeLessThan(lastFrost!.p50)
    expect(lastFrost!.p90).toBeGreaterThan(lastFrost!.p50)
  })

  it('ends the guessing of frosts: by dates, by a zone, and by nothing else', () => {
    expect(frostIsGuessed(north)).toBe(true)
    expect(frostIsGuessed({ ...north, isSimulated: false })).toBe(false)
    expect(frostIsGuessed(withKnown(north, { lastFrost: '05-01' }))).toBe(false)
    expect(frostIsGuessed(withKnown(north, { firstFrost: '10-01' }))).toBe(false)
    expect(frostIsGuessed(withKnown(north, { coldestC: -12 }))).toBe(false)
    expect(frostIsGuessed(withKnown(north, {}))).toBe(true)
  })
})
