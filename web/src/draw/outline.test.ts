import { describe, expect, it } from 'vitest'
import { sidesOf, withSide } from './outline.ts'

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
})
