import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { angleBefore, bearingAt, sidesOf, withSide } from './outline.ts'

describe('outline by typed lengths', () => {
  const threeFourFive: [number, number][] = [
    [0, 0],
    [0, 3],
    [4, 3],
  ]

  it('measures a 3-4-5 triangle with its closing side heading back south-west', () => {
    const sides = sidesOf(threeFourFive, true)
    expect(sides.map((s) => s.lengthM)).toEqual([3, 4, 5])
    expect(sides.map((s) => Math.round(s.bearingDeg))).toEqual([0, 90, 233])
  })

  it('lengthens one side and carries the later corners along', () => {
    const longer = withSide(threeFourFive, 0, { lengthM: 5, bearingDeg: 0 })
    expect(longer.map((p) => p.map((v) => Math.round(v * 1e9) / 1e9))).toEqual([
      [0, 0],
      [0, 5],
      [4, 5],
    ])
  })

  it('has the angles of that triangle inside it, whichever way round it was drawn', () => {
    const angles = (corners: [number, number][]) =>
      [0, 1, 2].map((i) => Math.round(angleBefore(corners, true, i) * 100) / 100).sort((a, b) => a - b)
    expect(angles(threeFourFive)).toEqual([36.87, 53.13, 90])
    expect(angles([...threeFourFive].reverse())).toEqual([36.87, 53.13, 90])
  })

  it('heads where a typed angle says, so that the angle is there when it is measured again', () => {
    const angle = fc.double({ min: 20, max: 160, noNaN: true })
    fc.assert(
      fc.property(angle, fc.boolean(), (deg, round) => {
        const square: [number, number][] = [
          [0, 0],
          [0, 4],
          [4, 4],
          [4, 0],
        ]
        const corners = round ? square : square.reverse()
        const bearingDeg = bearingAt(corners, true, 1, deg)
        const set = withSide(corners, 1, { lengthM: 1, bearingDeg })
        expect(angleBefore(set, true, 1)).toBeCloseTo(deg, 6)
      }),
    )
  })
})
