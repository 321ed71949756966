import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { carried, turn, type Point } from '../geometry/index.ts'
import { seededRandom } from '../random/index.ts'
import {
  bearingInPicture,
  CLICK_SD_PX,
  clickedOutM,
  groundShown,
  laidByTwo,
  lieOf,
  straighten,
  straightened,
  warped,
  type Laying,
  type MarkTape,
  type Pixels,
  type Tie,
} from './index.ts'

const rounded = (p: Point) => p.map((v) => Math.round(v * 1e9) / 1e9 + 0)

describe('a picture laid by two points', () => {
  it('puts both where they lie, and up in it is up the plan where it is not turned', () => {
    const laid = laidByTwo({ px: [100, 400], at: [2, 3] }, [300, 400], 5, 0)!
    expect(rounded(straightened(laid, [100, 400]))).toEqual([2, 3])
    expect(rounded(straightened(laid, [300, 400]))).toEqual([7, 3])
    expect(rounded(straightened(laid, [100, 360]))).toEqual([2, 4])
    // Turned a quarter clockwise, what was to its right lies below.
    const turned = laidByTwo({ px: [100, 400], at: [2, 3] }, [300, 400], 5, 90)!
    expect(rounded(straightened(turned, [300, 400]))).toEqual([2, -2])
    expect(bearingInPicture([100, 400], [300, 400])).toBe(90)
    expect(laidByTwo({ px: [1, 1], at: [0, 0] }, [1, 1], 5, 0)).toBeUndefined()
  })
})

/** A camera that stands before a bed and looks down at it: what its picture has of points on the ground. */
function seenBy(tilt: number, pan: number) {
  return ([x, y]: Point): Point => {
    const [gx, gy] = carried(turn([0, 0], pan), [x, y])
    const [c, s] = [Math.cos(tilt), Math.sin(tilt)]
    const [dx, dy, dz] = [gx, gy + 6, -2]
    const [depth, up] = [dy * c - dz * s, dy * s + dz * c]
    return [800 + (1200 * dx) / depth, 600 - (1200 * up) / depth]
  }
}

describe('a slanting picture', () => {
  const corners: Point[] = [
    [-3, 0],
    [3, 0],
    [3, 2.5],
    [-3, 2.5],
    [0, 1],
    [1.5, 2],
  ]

  it('is straightened to where things lie, from constructed pictures', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.15, max: 0.5, noNaN: true }),
        fc.double({ min: -25, max: 25, noNaN: true }),
        fc.integer({ min: 4, max: 6 }),
        (tilt, pan, n) => {
          const see = seenBy(tilt, pan)
          const made = straighten(corners.slice(0, n).map((at) => ({ at, px: see(at) })))
          if (!made.ok) throw new Error(made.says)
          for (const at of [
            [-1, 0.7],
            [2, 1.9],
            [0.3, 2.4],
          ] as Point[]) {
            const [x, y] = straightened(made.value.homography, see(at))
            expect(Math.hypot(x - at[0], y - at[1])).toBeLessThan(1e-6)
          }
          expect(made.value.errorM === null).toBe(n === 4)
        },
      ),
    )
  })

  it('says how far out it is where its points were not hit, and its error is of that size', () => {
    const random = seededRandom(5)
    const see = seenBy(0.3, 10)
    const ties = corners.map((at): Tie => {
      const [px, py] = see(at)
      return { at, px: [px + 4 * (random() - 0.5), py + 4 * (random() - 0.5)] }
    })
    const made = straighten(ties)
    if (!made.ok) throw new Error(made.says)
    expect(made.value.errorM!).toBeGreaterThan(0.001)
    expect(made.value.errorM!).toBeLessThan(0.05)
  })

  it('tells how far clicks alone put it out: as far as trying them out does', () => {
    const random = seededRandom(11)
    const see = seenBy(0.2, 8)
    const ties = corners.slice(0, 5).map((at): Tie => ({ at, px: see(at) }))
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    const shaken = Array.from({ length: 400 }, () => {
      const made = straighten(
        ties.map(({ at, px }): Tie => ({
          at,
          px: [px[0] + CLICK_SD_PX * normal(), px[1] + CLICK_SD_PX * normal()],
        })),
      )
      if (!made.ok) throw new Error(made.says)
      return made.value.homography
    })
    const spread = ties.map(({ at, px }) =>
      Math.sqrt(shaken.reduce((s, h) => s + Math.hypot(...minus(straightened(h, px), at)) ** 2, 0) / 400),
    )
    const made = straighten(ties)
    if (!made.ok) throw new Error(made.says)
    const told = clickedOutM({ homography: made.value.homography, ties })
    expect(told / Math.max(...spread)).toBeGreaterThan(0.85)
    expect(told / Math.max(...spread)).toBeLessThan(1.15)
  })

  it('is refused with four points on a line, or with three', () => {
    const see = seenBy(0.3, 0)
    const line: Point[] = [
      [-3, 1],
      [-1, 1],
      [1, 1],
      [3, 1],
    ]
    const of = (points: Point[]) => straighten(points.map((at) => ({ at, px: see(at) })))
    expect(of(line)).toMatchObject({ ok: false, says: expect.stringMatching(/on a line/) })
    expect(of([...line.slice(0, 3), [0, 2]])).toMatchObject({ ok: false })
    expect(of(corners.slice(0, 3))).toEqual({ ok: false, says: 'Four points are needed; 3 are said.' })
  })
})

describe('how a picture lies', () => {
  // A bed of two sides, seven by three metres, with a stone in it.
  const bed: Point[] = [
    [0, 0],
    [7, 0],
    [7, 3],
    [0, 3],
    [2, 2],
  ]
  const see = seenBy(0.35, 12)
  const marks = bed.map((p) => see([p[0] - 3.5, p[1]]))
  const tape = (from: number, to: number, out = 0): MarkTape => ({
    from,
    to,
    metres: Math.hypot(bed[from]![0] - bed[to]![0], bed[from]![1] - bed[to]![1]) + out,
  })
  const lying = (laying: Laying) => {
    const lies = lieOf(laying)
    if (!lies.ok) throw new Error(lies.says)
    return lies.lie
  }
  const taped = (n: number, tapes: MarkTape[]) =>
    ({ how: 'tapes between points', marks: marks.slice(0, n), tapes, at: [10, 20], bearingDeg: 30 }) as const

  it('follows from the tapes between its points: the first where it is, the second in its direction', () => {
    const lie = lying(taped(4, [tape(0, 1), tape(1, 2), tape(2, 3), tape(3, 0), tape(0, 2)]))
    // Along 30 degrees clockwise from up the plan, and three metres to the left of it.
    const along = [Math.sin(Math.PI / 6), Math.cos(Math.PI / 6)] as const
    const at = ([u, v]: Point): Point => [10 + u * along[0] - v * along[1], 20 + u * along[1] + v * along[0]]
    for (const [i, p] of bed.entries())
      expect(Math.hypot(...minus(straightened(lie.homography, marks[i]!), at(p)))).toBeLessThan(1e-4)
    expect(lie.errorM).toBeNull()
  })

  it('names the tape that does not fit the others', () => {
    const all = [0, 1, 2, 3, 4].flatMap((a) =>
      [0, 1, 2, 3, 4].filter((b) => b > a).map((b) => [a, b] as const),
    )
    const lie = lying(
      taped(
        5,
        all.map(([a, b], i) => tape(a, b, i === 5 ? 0.25 : 0)),
      ),
    )
    expect(lie.doubtful).toEqual([5])
  })

  it('is refused in words: too few tapes, points exchanged, one point twice', () => {
    const says = (laying: Laying) => {
      const lies = lieOf(laying)
      return lies.ok ? 'lies' : lies.says
    }
    expect(says(taped(4, [tape(0, 1), tape(1, 2), tape(2, 3), tape(3, 0)]))).toMatch(
      /cannot be found from these tapes/,
    )
    expect(says(taped(3, [tape(0, 1)]))).toMatch(/Four points are needed; 3/)
    const ties = bed.map((at, i): Tie => ({ at, px: marks[i]! }))
    expect(says({ how: 'points on the plan', ties })).toBe('lies')
    const exchanged = [ties[0]!, { ...ties[1]!, at: bed[2]! }, { ...ties[2]!, at: bed[1]! }, ties[3]!]
    expect(says({ how: 'points on the plan', ties: exchanged })).toMatch(/two of them are exchanged/)
    const mirrored = ties.map((t): Tie => ({ ...t, at: [-t.at[0], t.at[1]] }))
    expect(says({ how: 'points on the plan', ties: mirrored })).toMatch(/two of them are exchanged/)
    const [a] = ties
    expect(says({ how: 'two points', a: a!, b: a!.px, lengthM: 3, turnDeg: 0 })).toMatch(
      /The two points are one/,
    )
  })

  it('shows no ground near the horizon, and all of a scan', () => {
    const ties = bed.map((at, i): Tie => ({ at, px: marks[i]! }))
    const ground = groundShown(lying({ how: 'points on the plan', ties }), 1600, 1200)
    expect(ground.maxX - ground.minX).toBeLessThan(7 * 4)
    expect(ground.minY).toBeLessThan(0.1)
    const scan = lying({
      how: 'two points',
      a: { px: [0, 1200], at: [0, 0] },
      b: [1600, 1200],
      lengthM: 16,
      turnDeg: 0,
    })
    const whole = groundShown(scan, 1600, 1200)
    expect(rounded([whole.maxX, whole.maxY])).toEqual([16, 12])
  })

  it('straightened, shows each square of a chequered ground where it lies', () => {
    // The picture is made from the ground by the camera itself, point by point.
    const [width, height] = [1600, 1200]
    const ties = bed.map((at, i): Tie => ({ at, px: marks[i]! }))
    const lie = lying({ how: 'points on the plan', ties })
    const white = ([x, y]: Point) => (Math.floor(x) + Math.floor(y)) % 2 === 0
    const source: Pixels = { data: new Uint8ClampedArray(width * height * 4), width, height }
    const ground = cameraRays(0.35, 12)
    for (let y = 0, to = 0; y < height; y++)
      for (let x = 0; x < width; x++, to += 4) {
        const at = ground([x + 0.5, y + 0.5])
        source.data.fill(at && white([at[0] + 3.5, at[1]]) ? 255 : 0, to, to + 3)
        source.data[to + 3] = 255
      }
    const made = warped(source, lie.homography, { minX: 0, minY: 0, maxX: 7, maxY: 3 }, 350)
    expect([made.width, made.height]).toEqual([350, 150])
    let wrong = 0
    for (let row = 0; row < 150; row++)
      for (let column = 0; column < 350; column++) {
        const at: Point = [(column + 0.5) / 50, 3 - (row + 0.5) / 50]
        const inside = at.every((v) => Math.abs(v - Math.round(v)) > 0.04)
        if (inside && made.data[4 * (row * 350 + column)]! > 127 !== white(at)) wrong++
      }
    expect(wrong).toBe(0)
    // Beyond the picture there is nothing.
    const beyond = warped(source, lie.homography, { minX: 500, minY: 500, maxX: 501, maxY: 501 }, 4)
    expect(beyond.data.every((v) => v === 0)).toBe(true)
  })
})

const minus = (a: Point, b: Point): [number, number] => [a[0] - b[0], a[1] - b[1]]

/** Where on the ground what a picture has at a point lies, by the ray from the camera; nothing above its horizon. */
function cameraRays(tilt: number, pan: number) {
  const [c, s] = [Math.cos(tilt), Math.sin(tilt)]
  return ([px, py]: Point): Point | undefined => {
    const [right, up] = [(px - 800) / 1200, (600 - py) / 1200]
    const [y, z] = [c + up * s, up * c - s]
    if (z >= 0) return undefined
    return carried(turn([0, 0], -pan), [(2 / -z) * right, (2 / -z) * y - 6])
  }
}
