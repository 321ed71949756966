import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  areCanonical,
  CANONICAL_UNITS,
  coordinatesTyped,
  quantityShown,
  quantityTyped,
  unitBeside,
  written,
  type AskedUnit,
  type Units,
} from './index.ts'

const american: Units = {
  length: 'feet and inches',
  temperature: 'Fahrenheit',
  volume: 'US gallons',
  weight: 'pounds',
  dates: 'month first',
}

describe('a text', () => {
  it.each([
    // By the exact factors of NIST SP 811: a foot 0.3048 m, a pound 0.45359237 kg, a US gallon 3.785411784 l.
    ['Its crown is 3.4 m across.', `Its crown is 11'2" across.`],
    ['A path of 12 m.', 'A path of 39 ft.'],
    ['Leave 45 cm between them.', 'Leave 18 in between them.'],
    ['Plant 30 to 45 cm apart.', 'Plant 12 to 18 in apart.'],
    ['A bed of 1.2 by 3.4 m.', `A bed of 3'11" by 11'2".`],
    ['1.20 × 0.80 m', `3'11" × 2'7"`],
    ['between 2 and 4 m of it', `between 6'7" and 13'1" of it`],
    ['of 5 and 4 m', `of 5 and 13'1"`],
    ['−12 °C', '10 °F'],
    ['from 5 to 8 °C', 'from 41 to 46 °F'],
    ['1.5 °C warmer', '2.7 °F warmer'],
    ['It takes 12.4 l.', 'It takes 3.3 gal.'],
    ['Give each 0.4 l.', 'Give each 13.5 fl oz.'],
    ['wet it weighs 48 kg', 'wet it weighs 106 lb'],
    ['35 g on each', '1.2 oz on each'],
    ['7.3 mm of rain', '0.29 in of rain'],
    ['4.5 m²', '48.4 sq ft'],
    ['a gust of 17 m/s', 'a gust of 38 mph'],
    ['35 g/m²', '1 oz/sq yd'],
    ['Due 3 May 2026.', 'Due May 3, 2026.'],
    ['14 Sept 2026, 09:20', 'Sept 14, 2026, 09:20'],
    ['3 to 14 May', 'May 3 to 14'],
    ['from 28 April to 9 June', 'from April 28 to June 9'],
    ['in early May, 3 weeks', 'in early May, 3 weeks'],
    ['2 l leaf mould', '0.53 gal leaf mould'],
    ['a handful of m and l, H7 m, 3 months, 3 men', 'a handful of m and l, H7 m, 3 months, 3 men'],
  ])('%s is %s', (said, is) => {
    expect(written(said, american)).toBe(is)
    expect(written(said, CANONICAL_UNITS)).toBe(said)
  })

  it('changes only what somebody wants otherwise', () => {
    const text = 'On 3 May, at 12 °C, 4 kg to 3.4 m and 8 l.'
    const one = (of: Partial<Units>) => written(text, { ...CANONICAL_UNITS, ...of })
    expect(one({ temperature: 'Fahrenheit' })).toBe(text.replace('12 °C', '54 °F'))
    expect(one({ dates: 'month first' })).toBe(text.replace('3 May', 'May 3'))
    expect(one({ weight: 'pounds' })).toBe(text.replace('4 kg', '8.8 lb'))
    expect(one({ volume: 'US gallons' })).toBe(text.replace('8 l', '2.1 gal'))
    expect(areCanonical(CANONICAL_UNITS)).toBe(true)
    expect(areCanonical({ ...CANONICAL_UNITS, weight: 'pounds' })).toBe(false)
  })

  const unit = fc.constantFrom(
    'm',
    'cm',
    'mm',
    'km',
    'l',
    'ml',
    'kg',
    'g',
    '°C',
    'm²',
    'm³',
    'm/s',
    'l/h',
    'g/m²',
  )
  const number = fc.oneof(
    fc.nat(5000).map(String),
    fc.nat(50_000).map((n) => (n / 10).toFixed(1)),
    fc.nat(50_000).map((n) => (n / 100).toFixed(2)),
  )
  const piece = fc.oneof(
    fc.tuple(number, unit).map(([n, u]) => `${n} ${u}`),
    fc.tuple(number, number, unit).map(([a, b, u]) => `${a} to ${b} ${u}`),
    fc
      .tuple(fc.integer({ min: 1, max: 31 }), fc.constantFrom('May', 'Sept', 'October'))
      .map(([d, m]) => `${d} ${m}`),
    fc.constantFrom('of it', 'and', 'Leave', 'in late June', 'No. 7', 'three'),
  )

  it('is rewritten once: what is in somebody’s units already stays', () => {
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 6 }), (pieces) => {
        const once = written(pieces.join('; '), american)
        expect(written(once, american)).toBe(once)
        // No quantity of the SI is left.
        expect(once).not.toMatch(/\d\s(km|m|cm|mm|l|ml|kg|g|°C|m²|m³)(?![\p{L}²³])/u)
      }),
    )
  })

  it('says what was said, give or take half of its last figure', () => {
    const back = (text: string): number => {
      const [, feet = '0', inch = '0'] = /^(?:(\d+)')?(?:(\d+)")?$/.exec(text) ?? []
      if (/['"]/.test(text)) return (Number(feet) * 12 + Number(inch)) * 0.0254
      const [value, name] = text.split(' ')
      const part = { '¼': 0.25, '½': 0.5, '¾': 0.75 }[value!.at(-1)!] ?? 0
      const all = Number(value!.replace(/[¼½¾]/, '') || 0) + part
      return all * (name === 'ft' ? 0.3048 : 0.0254)
    }
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20_000 }), (cm) => {
        const m = (cm / 100).toFixed(2)
        const off = Math.abs(back(written(`${m} m`, american)) - cm / 100)
        expect(off).toBeLessThanOrEqual(cm >= 3000 ? 0.1525 : 0.0128)
      }),
    )
  })
})

describe('what is typed', () => {
  it.each<[string, AskedUnit, number]>([
    [`4'6"`, 'm', 1.3716],
    ['4 ft 6 in', 'm', 1.3716],
    ['4’6½”', 'm', 1.3843],
    ["4'", 'm', 1.2192],
    ['54 in', 'm', 1.3716],
    ['54"', 'cm', 137.16],
    ['1.4 m', 'm', 1.4],
    ['1,4 m', 'm', 1.4],
    ['140 cm', 'm', 1.4],
    ['12 1/2 in', 'cm', 31.75],
    ['54 F', '°C', 12.2222],
    ['-4 °F', '°C', -20],
    ['−20 C', '°C', -20],
    ['2 gal', 'l', 7.5708],
    ['8 fl oz', 'l', 0.2366],
    ['500 ml', 'l', 0.5],
    ['5 lb 4 oz', 'kg', 2.3814],
    ['2 oz', 'g', 56.699],
    ['3 gal/h', 'l/h', 11.3562],
  ])('%s is read, in whatever units somebody has', (text, asked, value) => {
    expect(quantityTyped(text, asked, american)).toBeCloseTo(value, 3)
    expect(quantityTyped(text, asked, CANONICAL_UNITS)).toBeCloseTo(value, 3)
  })

  it.each<[string, AskedUnit, number, number]>([
    ['4', 'm', 4, 1.2192],
    ['10', 'cm', 10, 25.4],
    ['50', '°C', 50, 10],
    ['3', 'l', 3, 11.3562],
    ['10', 'kg', 10, 4.5359],
  ])('a bare %s is in one’s own units', (text, asked, metric, other) => {
    expect(quantityTyped(text, asked, CANONICAL_UNITS)).toBe(metric)
    expect(quantityTyped(text, asked, american)).toBeCloseTo(other, 3)
  })

  it.each(['', 'm', 'four', `6" 4'`, '4 kg', '3 m 4 x', "4' 6' 2", '-', '1/0'])('%s is no length', (text) => {
    expect(quantityTyped(text, 'm', american)).toBeUndefined()
  })

  it('is read back from what a field shows, as near as the field can show it', () => {
    const near: Record<AskedUnit, number> = {
      m: 0.007,
      cm: 0.7,
      mm: 0.13,
      l: 0.002,
      'l/h': 0.002,
      kg: 0.0003,
      g: 0.02,
      '°C': 0.03,
    }
    const asked = fc.constantFrom(...(Object.keys(near) as AskedUnit[]))
    fc.assert(
      fc.property(asked, fc.double({ min: 0, max: 60, noNaN: true }), (unit, value) => {
        for (const of of [american, CANONICAL_UNITS]) {
          const shown = quantityShown(value, unit, of)
          expect(Math.abs(quantityTyped(shown, unit, of)! - value)).toBeLessThanOrEqual(near[unit])
          // With its unit behind it, it is the same in any units.
          const beside = unitBeside(unit, of)
          if (beside)
            expect(quantityTyped(`${shown} ${beside}`, unit, CANONICAL_UNITS)).toBeCloseTo(
              quantityTyped(shown, unit, of)!,
              9,
            )
        }
      }),
    )
  })
})

describe('where something lies', () => {
  it.each([
    '42.27 N 71.8 W',
    '42.27N, 71.8W',
    '42.27, -71.8',
    '42.27 −71.8',
    'N 42.27 W 71.8',
    '71.8 W 42.27 N',
    `42°16'12"N 71°48'0"W`,
    '42° 16.2′ N, 71° 48′ W',
    'N 42 16 12, W 71 48 00',
    '42,27 N 71,8 W',
    '42.27° North, 71.8° West',
  ])('%s is one place', (text) => {
    const found = coordinatesTyped(text)!
    expect([found.latitude, found.longitude]).toEqual([expect.closeTo(42.27, 9), expect.closeTo(-71.8, 9)])
  })

  it.each([
    '',
    'Worcester',
    '42',
    '42.27 N',
    '42 N 71 N',
    '91 N 10 E',
    '10, 181',
    '42 61 N 71 W',
    '-4 N 7 E',
    '1 2 3',
    'N42.27',
  ])('%s is none', (text) => expect(coordinatesTyped(text)).toBeUndefined())

  it('is found again from degrees, minutes and seconds anywhere', () => {
    const dms = (v: number, letters: string) => {
      const all = Math.round(Math.abs(v) * 3600)
      return `${Math.floor(all / 3600)}°${Math.floor(all / 60) % 60}'${all % 60}"${letters[v < 0 ? 1 : 0]}`
    }
    fc.assert(
      fc.property(
        fc.double({ min: -90, max: 90, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        (lat, lon) => {
          const found = coordinatesTyped(`${dms(lat, 'NS')} ${dms(lon, 'EW')}`)!
          expect(Math.abs(found.latitude - lat)).toBeLessThan(0.5 / 3600 + 1e-9)
          expect(Math.abs(found.longitude - lon)).toBeLessThan(0.5 / 3600 + 1e-9)
        },
      ),
    )
  })
})
