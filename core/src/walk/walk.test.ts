import { describe, expect, it } from 'vitest'
import { likelihoods } from '../diagnosis/index.ts'
import { library, usualState, USUAL_YEAR } from '../plants/index.ts'
import { normal, seededRandom } from '../random/index.ts'
import { alongPlace, likelySigns, walkingOrder, type Prospect } from './index.ts'

describe('the walking order', () => {
  it('goes round a ring of beds without crossing itself', () => {
    const ring = [3, 0, 6, 1, 7, 4, 2, 5].map((k) => ({
      id: String(k),
      at: [Math.cos((k * Math.PI) / 4), Math.sin((k * Math.PI) / 4)] as const,
    }))
    const order = walkingOrder(ring).map(Number)
    for (let i = 1; i < order.length; i++) expect([1, 7]).toContain(Math.abs(order[i]! - order[i - 1]!))
  })
  it('is no longer than the best of all orders by a tenth, over seeded gardens of seven places', () => {
    const random = seededRandom(4)
    for (let g = 0; g < 10; g++) {
      const places = Array.from({ length: 7 }, (_, i) => ({
        id: String(i),
        at: [10 * normal(random), 6 * normal(random)] as const,
      }))
      const start = [...places].sort((a, b) => a.at[0] - b.at[0])[0]!
      const length = (route: typeof places) =>
        route
          .slice(1)
          .reduce((sum, p, i) => sum + Math.hypot(p.at[0] - route[i]!.at[0], p.at[1] - route[i]!.at[1]), 0)
      const best = (route: typeof places, left: typeof places): number =>
        left.length === 0
          ? length(route)
          : Math.min(
              ...left.map((p) =>
                best(
                  [...route, p],
                  left.filter((q) => q !== p),
                ),
              ),
            )
      const order = walkingOrder(places).map((id) => places[Number(id)]!)
      expect(length(order)).toBeLessThan(
        1.1 *
          best(
            [start],
            places.filter((p) => p !== start),
          ) +
          1e-9,
      )
    }
  })
  it('of plantings runs along the longer side of a bed', () => {
    const at = (tag: string, x: number, y: number) => ({ tag, x, y })
    expect(alongPlace([at('b', 4, 1), at('c', 9, 0), at('a', 0, 2)]).map((p) => p.tag)).toEqual([
      'a',
      'b',
      'c',
    ])
    expect(alongPlace([at('b', 0, 5), at('a', 1, 1)]).map((p) => p.tag)).toEqual(['a', 'b'])
  })
})

describe('the likeliest signs', () => {
  const prospect = (botanical: string, more: Partial<Prospect> = {}): Prospect => {
    const taxon = library.find((t) => t.botanical === botanical)!
    return {
      taxon,
      usual: usualState(taxon, '2026-07-10', USUAL_YEAR),
      settling: false,
      seasons: 3,
      inPot: false,
      lastSigns: [],
      lightOutsideHours: 0,
      lightChangeHours: 0,
      ...more,
    }
  }
  it('of a plant of shade in new sun is scorch, of a plant of sun in new shade its opposite', () => {
    const shade = likelySigns(
      prospect('Hosta sieboldiana', { lightOutsideHours: 2, lightChangeHours: 2 }),
      likelihoods,
    )
    expect(shade.slice(0, 2)).toContain('scorched')
    const sun = likelySigns(prospect('Salvia nemorosa', { lightOutsideHours: -2 }), likelihoods)
    expect(sun.slice(0, 3)).toContain('stretched')
  })
  it('begin with what was there last time, and leave out what a plant cannot have', () => {
    const found = likelySigns(prospect('Phlox paniculata', { lastSigns: ['mildew'] }), likelihoods)
    expect(found[0]).toBe('mildew')
    expect(found).not.toContain('suckers')
    expect(found).not.toContain('pot-bound')
    expect(likelySigns(prospect('Rosa rugosa', { inPot: true }), likelihoods)).toContain('suckers')
  })
})
