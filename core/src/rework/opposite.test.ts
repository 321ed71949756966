import { describe, expect, it } from 'vitest'
import { madeBed, madePot, rectangle } from '../garden/test/made.ts'
import type { Point } from '../geometry/index.ts'
import { opposite } from './opposite.ts'

/** Two borders with a path of 1.4 m between them, turned by an angle about the origin. */
const turned = (deg: number) => {
  const a = (deg * Math.PI) / 180
  const turn = ([x, y]: readonly [number, number]): Point => [
    x * Math.cos(a) - y * Math.sin(a),
    x * Math.sin(a) + y * Math.cos(a),
  ]
  const bed = (id: string, y0: number, y1: number) => madeBed(id, rectangle(0, y0, 10, y1).map(turn))
  return { turn, near: bed('near', 0, 2), far: bed('far', 3.4, 5) }
}

describe('what lies opposite across a path', () => {
  it.each([0, 30, 137, 250])('is the mirror image in the middle of the path, turned by %i degrees', (deg) => {
    const { turn, near, far } = turned(deg)
    for (const [x, y] of [
      [1, 0.5],
      [5, 1.5],
      [8.2, 1.9],
    ] as const) {
      // By geometry: the middle of the path is y = 2.7.
      const [ex, ey] = turn([x, 5.4 - y])
      const [px, py] = opposite(near, turn([x, y]), far)
      expect(Math.hypot(px - ex, py - ey)).toBeLessThan(0.03)
      // And back again where it came from.
      const [bx, by] = opposite(far, [ex, ey], near)
      const [hx, hy] = turn([x, y])
      expect(Math.hypot(bx - hx, by - hy)).toBeLessThan(0.05)
    }
  })

  it('is the middle of a pot', () => {
    expect(opposite(turned(0).near, [1, 1], madePot('pot', 4, 3))).toEqual([4, 3])
  })
})
