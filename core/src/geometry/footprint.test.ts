import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { seededRandom } from '../random/index.ts'
import {
  asDisc,
  centroid,
  covers,
  footprintAreaM2,
  footprintMiddle,
  grown,
  innerPoint,
  isInside,
  metresOutside,
  sharedAreaM2,
  type Disc,
  type Footprint,
  type Outline,
  type Point,
} from './index.ts'

const disc = (x: number, y: number, radiusM: number): Disc => ({ x, y, radiusM })
const box = (x0: number, y0: number, x1: number, y1: number): Outline => ({
  ring: [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ],
})
/** A round drawn as an outline of so many corners. */
const drawn = ({ x, y, radiusM }: Disc, corners = 180): Footprint => ({
  ring: Array.from({ length: corners }, (_, i) => {
    const turn = (2 * Math.PI * i) / corners
    return [x + radiusM * Math.cos(turn), y + radiusM * Math.sin(turn)] as const
  }),
})

describe('ground shared by two footprints', () => {
  it('is two circular segments where both are rounds', () => {
    // Two unit circles one apart: 2 pi / 3 - sqrt(3) / 2.
    expect(sharedAreaM2(disc(0, 0, 1), disc(1, 0, 1))).toBeCloseTo((2 * Math.PI) / 3 - Math.sqrt(3) / 2, 12)
    expect(sharedAreaM2(disc(0, 0, 1), disc(2, 0, 1))).toBe(0)
    expect(sharedAreaM2(disc(0, 0, 0.5), disc(0, 1, 2))).toBeCloseTo(Math.PI * 0.25, 12)
  })

  it('is the common rectangle where both are rectangles', () => {
    expect(sharedAreaM2(box(0, 0, 4, 2), box(3, 1, 9, 9))).toBeCloseTo(1, 1)
    expect(sharedAreaM2(box(0, 0, 4, 2), box(4.1, 0, 9, 9))).toBe(0)
    expect(sharedAreaM2(box(0, 0, 4, 2), box(1, 0.5, 2, 1))).toBeCloseTo(0.5, 6)
  })

  it('is the same whether a round is a round or drawn as an outline, and whichever is named first', () => {
    const size = fc.double({ min: 0.3, max: 3, noNaN: true })
    const at = fc.double({ min: -3, max: 3, noNaN: true })
    fc.assert(
      fc.property(size, size, at, at, (a, b, x, y) => {
        const [one, other] = [disc(0, 0, a), disc(x, y, b)]
        const exact = sharedAreaM2(one, other)
        const tolerance = 0.05 * Math.PI * Math.min(a, b) ** 2
        expect(Math.abs(sharedAreaM2(one, drawn(other)) - exact)).toBeLessThan(tolerance)
        expect(sharedAreaM2(other, one)).toBeCloseTo(exact, 9)
        expect(sharedAreaM2(drawn(one), other)).toBeCloseTo(sharedAreaM2(other, drawn(one)), 9)
        expect(exact).toBeLessThanOrEqual(Math.PI * Math.min(a, b) ** 2 + 1e-9)
      }),
      { numRuns: 60 },
    )
  })
})

describe('a footprint', () => {
  it('grows by metres all round, and keeps its middle', () => {
    expect(footprintAreaM2(grown(disc(1, 1, 1), 0.5))).toBeCloseTo(Math.PI * 2.25, 9)
    const wider = grown(drawn(disc(2, 3, 1)), 0.5)
    expect(footprintAreaM2(wider)).toBeCloseTo(Math.PI * 2.25, 1)
    expect(footprintMiddle(wider)[0]).toBeCloseTo(2, 6)
  })

  it('as a round has its own area', () => {
    expect(asDisc(box(0, 0, 4, 2)).radiusM).toBeCloseTo(Math.sqrt(8 / Math.PI), 12)
    expect(asDisc(box(0, 0, 4, 2))).toMatchObject({ x: 2, y: 1 })
  })

  it('measures outwards: below nothing inside, to the nearest edge outside', () => {
    for (const f of [box(0, 0, 4, 2), disc(2, 1, 1)]) {
      expect(metresOutside(f, 2, 1)).toBe(-1)
      expect(covers(f, 2, 1)).toBe(true)
    }
    expect(metresOutside(box(0, 0, 4, 2), 7, 6)).toBe(5)
    expect(metresOutside(disc(2, 1, 1), 2, 4)).toBe(2)
    expect(covers(box(0, 0, 4, 2), 7, 6)).toBe(false)
  })
})

describe('a point inside an outline', () => {
  it('is its middle where that lies inside', () => {
    expect(innerPoint(box(0, 0, 4, 2).ring)).toEqual([2, 1])
  })

  it('lies inside a crescent, a comb and any star, where the middle may not', () => {
    const crescent = [
      [0, 0],
      [6, 0],
      [6, 5],
      [5, 5],
      [5, 1],
      [1, 1],
      [1, 5],
      [0, 5],
    ] as const
    expect(isInside(crescent, ...centroid(crescent))).toBe(false)
    expect(isInside(crescent, ...innerPoint(crescent))).toBe(true)
    const random = seededRandom(41)
    for (let k = 0; k < 200; k++) {
      // A simple ring: corners in order of their bearing from the origin, however far off.
      const n = 3 + Math.floor(9 * random())
      const star = Array.from({ length: n }, (_, i): Point => {
        const a = ((i + 0.9 * random()) / n) * 2 * Math.PI
        const r = 0.2 + 5 * random() ** 3
        return [r * Math.cos(a), r * Math.sin(a)]
      })
      expect(isInside(star, ...innerPoint(star)), JSON.stringify(star)).toBe(true)
    }
  })
})
