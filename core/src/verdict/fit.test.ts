import { describe, expect, it } from 'vitest'
import { climateOf, generateWeather, patternAt, summerOf, summers, type Summer } from '../climate/index.ts'
import { taxonNamed } from '../garden/test/made.ts'
import type { SunHours } from '../light/index.ts'
import { library } from '../plants/index.ts'
import { fitOf, isOutside, lightFit } from './index.ts'

describe('heat counts by climate', () => {
  const western: SunHours = { total: 4, morning: 0, midday: 1, afternoon: 3, heat: 2.3 }
  const of = (name: string, summer?: Summer) => lightFit(taxonNamed(name), western, summer)
  const summerAt = (latitude: number, longitude: number) => {
    const found = climateOf(generateWeather(patternAt({ latitude, longitude }), 1991, 2020), latitude)
    if (!found.ok) throw new Error(found.reason)
    return summerOf(found.climate)
  }

  it('the summers of the world are told apart', () => {
    expect(summerAt(57.1, -2.1)).toBe('cool')
    expect(summerAt(48.9, 2.4)).toBe('warm')
    expect(summerAt(33.7, -84.4)).toBe('hot')
    expect(summerAt(-34.9, 138.6)).toBe('hot')
    expect(summerOf(null)).toBe('warm')
  })

  it('the same west wall is right in a cool summer and wrong in a hot one', () => {
    const hosta = library.find((t) => t.hotAfternoon === 'suffers' && t.lightMaxHours >= 4)!.botanical
    expect(of(hosta, 'cool').scorched).toBe(false)
    expect(of(hosta, 'warm').scorched).toBe(true)
    expect(of(hosta, 'hot').misfitHours).toBeGreaterThan(of(hosta, 'warm').misfitHours)
    const bearing = library.find(
      (t) => t.hotAfternoon === 'bears' && t.lightMaxHours >= 4 && t.lightMaxHours < 24,
    )!.botanical
    expect([of(bearing, 'warm').scorched, of(bearing, 'hot').scorched]).toEqual([false, true])
    // Known of both sorts: what stands in full sun in hot summers, and what does so in cool ones alone.
    for (const sturdy of ['Hemerocallis fulva', 'Rudbeckia fulgida', 'Rosa Shrub group', 'Liriope muscari'])
      expect([sturdy, of(sturdy, 'hot').scorched]).toEqual([sturdy, false])
    for (const mild of [
      'Delphinium elatum',
      'Lupinus polyphyllus',
      'Hydrangea paniculata',
      'Calluna vulgaris',
    ])
      expect([mild, of(mild, 'warm').scorched, of(mild, 'hot').scorched]).toEqual([mild, false, true])
    const enjoying = library.find((t) => t.hotAfternoon === 'enjoys')!.botanical
    expect(of(enjoying, 'hot').scorched).toBe(false)
  })

  it('a hotter summer never makes afternoon sun fit better', () => {
    for (const t of library)
      for (const heat of [0, 0.5, 1, 1.5, 2, 2.5, 3]) {
        const hours = { ...western, heat }
        const [cool, warm, hot] = summers.map((s) => lightFit(t, hours, s).misfitHours)
        expect(cool!, t.botanical).toBeLessThanOrEqual(warm!)
        expect(warm!, t.botanical).toBeLessThanOrEqual(hot!)
      }
  })
})

describe('two spots of the same hours are not alike', () => {
  const at = (part: 'morning' | 'midday' | 'afternoon', total: number): SunHours => ({
    total,
    morning: 0,
    midday: 0,
    afternoon: 0,
    heat: part === 'afternoon' ? Math.min(3, total) : 0,
    [part]: total,
  })
  const suffering = library.filter((t) => t.hotAfternoon === 'suffers' && t.lightMaxHours <= 6)

  it('what suffers from heat fits morning sun best, then midday sun, then that of the afternoon', () => {
    expect(suffering.length).toBeGreaterThan(20)
    for (const t of suffering)
      for (const summer of summers)
        for (const total of [t.lightMinHours, t.lightMaxHours, t.lightMaxHours + 1]) {
          const [early, noon, late] = (['morning', 'midday', 'afternoon'] as const).map(
            (part) => fitOf(t, { hours: at(part, total), summer }).score,
          )
          expect([t.botanical, early! >= noon!, noon! >= late!]).toEqual([t.botanical, true, true])
        }
    const maple = taxonNamed('Acer palmatum')
    const over = at('morning', maple.lightMaxHours + 1)
    expect(isOutside(lightFit(maple, over, 'hot'))).toBe(false)
    expect(isOutside(lightFit(maple, { ...over, morning: 0, midday: over.total }, 'hot'))).toBe(true)
  })

  it('for what does not suffer an hour is an hour, and too little sun is never made up', () => {
    for (const t of library) {
      const short = at('morning', Math.max(0, t.lightMinHours - 1))
      expect(lightFit(t, short, 'hot').hoursOutside).toBeCloseTo(Math.max(-1, -t.lightMinHours))
      if (t.hotAfternoon === 'suffers') continue
      for (const summer of summers)
        expect(lightFit(t, at('morning', 8), summer)).toEqual(lightFit(t, at('midday', 8), summer))
    }
  })
})
