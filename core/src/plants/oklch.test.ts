import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { accords, hueApart, library, oklchOf, standsOutInLeaf } from './index.ts'

describe('colours as the eye orders them', () => {
  it.each([
    // CSS Color 4, the primaries of sRGB in OKLCH.
    ['#ff0000', 0.628, 0.2577, 29.23],
    ['#00ff00', 0.8664, 0.2948, 142.5],
    ['#0000ff', 0.452, 0.3132, 264.05],
    ['#ffffff', 1, 0, undefined],
    ['#000000', 0, 0, undefined],
  ])('has %s at lightness %f, chroma %f', (hex, l, c, h) => {
    const found = oklchOf(hex)
    expect(found.l).toBeCloseTo(l, 3)
    expect(found.c).toBeCloseTo(c, 3)
    if (h !== undefined) expect(found.h).toBeCloseTo(h, 1)
  })

  it('counts hues round the circle', () => {
    expect(hueApart(350, 10)).toBe(20)
    expect(hueApart(10, 350)).toBe(20)
    expect(hueApart(90, 270)).toBe(180)
  })

  it('lets white and green go with everything, yellow with violet across, and nothing with single that neighbouring bars', () => {
    const violet = oklchOf('#6a4fb0').h
    expect(accords('#e8c62f', 'opposite', violet)).toBe(true)
    expect(accords('#e8c62f', 'single', violet)).toBe(false)
    expect(accords('#f4f2ea', 'single', violet)).toBe(true)
    const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`)
    fc.assert(
      fc.property(hex, fc.integer({ min: 0, max: 359 }), (of, hue) => {
        if (accords(of, 'single', hue)) {
          expect(accords(of, 'neighbouring', hue)).toBe(true)
          expect(accords(of, 'opposite', hue)).toBe(true)
          expect(accords(of, 'opposite', (hue + 180) % 360)).toBe(true)
        }
      }),
    )
  })
})

describe('leaves among leaves', () => {
  const leafOf = (botanical: string) => library.find((t) => t.botanical === botanical)!.foliageColour
  it('stand out where they are silver, purple or nearly black, and not where they are one green or another', () => {
    for (const name of [
      'Stachys byzantina',
      'Cotinus coggygria',
      'Ophiopogon planiscapus',
      'Artemisia ludoviciana',
    ])
      expect([name, standsOutInLeaf(leafOf(name))]).toEqual([name, true])
    for (const name of ['Helenium autumnale', 'Geranium macrorrhizum', 'Phlox paniculata', 'Iris sibirica'])
      expect([name, standsOutInLeaf(leafOf(name))]).toEqual([name, false])
    const some = library.filter((t) => standsOutInLeaf(t.foliageColour)).length
    expect(some / library.length).toBeGreaterThan(0.05)
    expect(some / library.length).toBeLessThan(0.2)
  })
})
