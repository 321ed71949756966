import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  areaM2,
  carried,
  carriedHandles,
  corner,
  cutBetween,
  describes,
  distanceToBoundary,
  drawnFault,
  flattened,
  joinedOutlines,
  mirror,
  nearestOnDrawn,
  readyShape,
  readyShapes,
  shift,
  snap,
  turn,
  withHandle,
  withHandleAt,
  type Drawn,
  type Handle,
  type Point,
} from './index.ts'

const closed = (handles: readonly Handle[]): Drawn => ({ handles, closed: true })
const box = (x0: number, y0: number, x1: number, y1: number): Drawn =>
  closed(
    (
      [
        [x0, y0],
        [x1, y0],
        [x1, y1],
        [x0, y1],
      ] as const
    ).map(corner),
  )
const metres = fc.double({ min: -8, max: 8, noNaN: true })
const size = fc.double({ min: 1, max: 12, noNaN: true })

describe('a curve drawn through points', () => {
  it('of twelve about a round is that round, to four thousandths of its area', () => {
    for (const across of [1, 3, 8]) {
      const area = areaM2(flattened(closed(readyShape('circle', [2, 1], across)), 1e-4))
      expect(area / ((Math.PI * across ** 2) / 4)).toBeGreaterThan(0.996)
      expect(area / ((Math.PI * across ** 2) / 4)).toBeLessThanOrEqual(1.001)
    }
  })

  it('passes through every one of them, and is within a centimetre of the curve drawn far finer', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(metres, metres, fc.boolean()), { minLength: 3, maxLength: 9 }),
        fc.boolean(),
        (points, isClosed) => {
          const drawn = { handles: points.map(([x, y, curved]) => ({ x, y, curved })), closed: isClosed }
          const flat = flattened(drawn)
          for (const h of drawn.handles)
            expect(flat.some((p) => Math.hypot(p[0] - h.x, p[1] - h.y) < 1e-9)).toBe(true)
          const fine = flattened(drawn, 1e-5)
          for (const p of fine) expect(nearest(flat, p, isClosed)).toBeLessThan(0.03)
        },
      ),
      { numRuns: 100 },
    )
  })

  it('of corners alone is their outline', () => {
    expect(flattened(box(0, 0, 3, 2))).toEqual([
      [0, 0],
      [3, 0],
      [3, 2],
      [0, 2],
    ])
  })

  it('goes wherever its handles are carried', () => {
    fc.assert(
      fc.property(metres, metres, fc.double({ min: -360, max: 360, noNaN: true }), (x, y, deg) => {
        const kidney = readyShape('kidney', [0, 0], 5, 3)
        for (const by of [shift([x, y]), turn([x, y], deg), mirror([x, y], [x + 1, y + deg / 100])]) {
          const [one, other] = [
            flattened(closed(carriedHandles(kidney, by))),
            flattened(closed(kidney)).map((p) => carried(by, p)),
          ]
          expect(one.length).toBe(other.length)
          for (const [k, p] of one.entries())
            expect(Math.hypot(p[0] - other[k]![0], p[1] - other[k]![1])).toBeLessThan(1e-6)
        }
      }),
    )
  })
})

function nearest(line: readonly Point[], p: Point, isClosed: boolean): number {
  if (isClosed) return distanceToBoundary(line, ...p)
  // There and back again is a ring without area.
  return distanceToBoundary([...line, ...line.slice(1, -1).reverse()], ...p)
}

describe('moving, turning and mirroring', () => {
  it('turns clockwise, as bearings do, about the point given', () => {
    const [x, y] = carried(turn([1, 1], 90), [1, 3])
    expect([x, y].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([3, 1])
  })

  it('mirrors to the other side, and twice is back', () => {
    expect(carried(mirror([0, 0], [0, 5]), [2, 3]).map((v) => Math.round(v * 1e9) / 1e9)).toEqual([-2, 3])
    fc.assert(
      fc.property(metres, metres, metres, metres, (ax, ay, x, y) => {
        const m = mirror([ax, ay], [ax + 1, ay + 2])
        const [bx, by] = carried(m, carried(m, [x, y]))
        expect(Math.hypot(bx - x, by - y)).toBeLessThan(1e-9)
      }),
    )
  })
})

describe('ready shapes', () => {
  it('have the two sizes asked for, and no fault', () => {
    fc.assert(
      fc.property(fc.constantFrom(...readyShapes), size, size, (shape, length, width) => {
        const drawn = closed(readyShape(shape, [1, 2], length, width))
        expect(drawnFault(drawn)).toBeUndefined()
        const flat = flattened(drawn)
        const across = (k: 0 | 1) => Math.max(...flat.map((p) => p[k])) - Math.min(...flat.map((p) => p[k]))
        expect(across(0)).toBeGreaterThan(0.96 * length)
        expect(across(0)).toBeLessThan(1.04 * length)
        const wide = shape === 'circle' ? length : width
        expect(across(1)).toBeGreaterThan(0.96 * wide)
        expect(across(1)).toBeLessThan(1.04 * wide)
      }),
    )
  })

  it('half a round has half its area', () => {
    expect(areaM2(flattened(closed(readyShape('half-moon', [0, 0], 4, 2))))).toBeCloseTo(2 * Math.PI, 1)
  })
})

describe('what is wrong with an outline', () => {
  it('is told by the corners that were drawn, not by the pieces of their curves', () => {
    expect(drawnFault(box(0, 0, 3, 2))).toBeUndefined()
    const crossed = withHandleAt(box(0, 0, 3, 2).handles, 0, { x: 2, y: 3 })
    expect(drawnFault(closed(crossed))).toBe('the outline crosses itself: the sides after corners 1 and 3')
    const curved = readyShape('circle', [0, 0], 4)
    expect(drawnFault(closed(withHandleAt(curved, 3, { x: 0, y: -3 })))).toMatch(
      /^the outline crosses itself: the sides after corners \d+ and \d+$/,
    )
    expect(drawnFault(closed(box(0, 0, 3, 2).handles.slice(0, 2)))).toBe('an outline needs three corners')
    expect(drawnFault(closed([...box(0, 0, 3, 2).handles, corner([0, 0])]))).toBe(
      'corners 1 and 5 are the same point: leave one of them out',
    )
  })

  it('handles describe the corners they were flattened to, and no others', () => {
    const drawn = closed(readyShape('kidney', [0, 0], 5, 3))
    const flat = flattened(drawn)
    expect(describes(drawn, flat)).toBe(true)
    expect(describes(drawn, flat.with(4, [flat[4]![0] + 0.1, flat[4]![1]]))).toBe(false)
    expect(describes(drawn, flat.slice(1))).toBe(false)
  })
})

describe('a handle put in', () => {
  it('where the outline was clicked leaves straight sides as they were', () => {
    const drawn = box(0, 0, 4, 2)
    const { at, after, metres: away } = nearestOnDrawn(drawn, [4.3, 1])
    expect([at, after]).toEqual([[4, 1], 1])
    expect(away).toBeCloseTo(0.3, 9)
    const more = closed(withHandle(drawn.handles, after, corner(at)))
    expect(areaM2(flattened(more))).toBeCloseTo(8, 9)
    expect(more.handles).toHaveLength(5)
  })
})

describe('cutting and joining', () => {
  it('makes two outlines that are together the one there was', () => {
    fc.assert(
      fc.property(fc.constantFrom(...readyShapes), fc.nat(11), fc.nat(11), (shape, i, j) => {
        const drawn = closed(readyShape(shape, [0, 0], 6, 4))
        const n = drawn.handles.length
        const cut = cutBetween(drawn, i % n, j % n)
        if (!cut.ok) return
        const whole = areaM2(flattened(drawn))
        const parts = cut.parts.map((handles) => areaM2(flattened(closed(handles))))
        // The ends of a cut are corners: the curve beside them runs a little otherwise.
        expect(Math.abs(parts[0]! + parts[1]! - whole)).toBeLessThan(0.05 * whole)
        const joined = joinedOutlines(closed(cut.parts[0]), closed(cut.parts[1]))
        if (!joined.ok) throw new Error(joined.says)
        expect(Math.abs(areaM2(flattened(closed(joined.handles))) - whole)).toBeLessThan(0.06 * whole)
      }),
    )
  })

  it('is refused with its reason where it makes no two outlines', () => {
    const ell = closed(
      (
        [
          [0, 0],
          [4, 0],
          [4, 4],
          [3, 4],
          [3, 1],
          [0, 1],
        ] as const
      ).map(corner),
    )
    expect(cutBetween(ell, 0, 1)).toMatchObject({ ok: false })
    expect(cutBetween(ell, 0, 5)).toMatchObject({ ok: false })
    expect(cutBetween(ell, 5, 3)).toEqual({
      ok: false,
      says: 'the straight line from corner 4 to corner 6 leaves the outline',
    })
    expect(joinedOutlines(box(0, 0, 2, 2), box(3, 0, 5, 2))).toEqual({
      ok: false,
      says: 'they do not touch: 1.00 m lie between them',
    })
  })

  it('closes the narrow gap that hand drawing leaves, and keeps whole curves as curves', () => {
    const joined = joinedOutlines(box(0, 0, 3, 2), box(3.08, 0, 5, 2))
    if (!joined.ok) throw new Error(joined.says)
    expect(areaM2(flattened(closed(joined.handles)))).toBeCloseTo(10, 1)
    expect(joined.handles).toHaveLength(4)
    const moon = closed(readyShape('half-moon', [0, 1], 4, 2))
    const both = joinedOutlines(box(-2, -2, 2, 0), moon)
    if (!both.ok) throw new Error(both.says)
    expect(both.handles.filter((h) => h.curved)).toHaveLength(5)
    expect(both.handles).toHaveLength(9)
  })
})

describe('a dragged corner', () => {
  const none = { corners: [], edges: [] }
  const beside = {
    before: [
      [0, 0],
      [0, -3],
    ] as Point[],
    after: [
      [4, 3],
      [4, 0],
    ] as Point[],
  }

  it('goes to another corner before all else, then to where its sides stand square', () => {
    const targets = { corners: [{ at: [3.9, 0.1] as Point, of: 'House' }], edges: [] }
    expect(snap([4, 0.12], beside, targets, 0.3, 0.1)).toMatchObject({ by: 'corner', of: 'House' })
    const square = snap([0.1, 2.9], beside, none, 0.3, 0.1)
    expect(square.at.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0, 3])
    expect(square.by).toBe('right angle')
  })

  it('lies on the wall it is dragged to, and on the grid where nothing is near', () => {
    const wall = { corners: [], edges: [{ from: [-9, 7] as Point, to: [9, 7] as Point, of: 'Wall' }] }
    const onWall = snap([1.234, 7.1], { before: [], after: [] }, wall, 0.3, 0.1)
    expect(onWall).toMatchObject({ by: 'edge', of: 'Wall' })
    expect(onWall.at[0]).toBeCloseTo(1.234, 9)
    expect(onWall.at[1]).toBeCloseTo(7, 9)
    const free = snap([1.234, 5.678], { before: [], after: [] }, none, 0.3, 0.1)
    expect(free.by).toBe('grid')
    expect(free.at[0]).toBeCloseTo(1.2, 9)
    expect(snap([1.234, 5.678], { before: [], after: [] }, none, 0.3, 0)).toEqual({ at: [1.234, 5.678] })
  })

  it('never goes further than its reach, save to the grid', () => {
    fc.assert(
      fc.property(metres, metres, (x, y) => {
        const { at, by } = snap([x, y], beside, none, 0.3, 0)
        expect(Math.hypot(at[0] - x, at[1] - y)).toBeLessThanOrEqual(by ? 0.3 + 1e-9 : 0)
      }),
    )
  })
})
