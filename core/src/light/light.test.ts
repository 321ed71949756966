import * as Astronomy from 'astronomy-engine'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { marchedShare } from '../../reference/rayMarcher.ts'
import {
  boxed,
  causesOf,
  direction,
  fieldsBetween,
  frozen,
  hoursWithin,
  skyViewFactor,
  standing,
  sunHours,
  transmittance,
  usualThen,
  withSuppositions,
  type Direction,
  type Obstruction,
  type Scene,
  type Shape,
} from './index.ts'

const DEG = Math.PI / 180
const wall = (line: [number, number][], heightM: number, more: Partial<Obstruction> = {}): Obstruction =>
  ({
    id: 'w',
    name: 'wall',
    kind: 'wall',
    line,
    heightM,
    transmission: 0,
    thicknessM: 0,
    ...more,
  }) as Obstruction
const tree = (more: Partial<Extract<Obstruction, { kind: 'tree' }>> = {}): Obstruction => ({
  id: 't',
  name: 'tree',
  kind: 'tree',
  x: 0,
  y: 0,
  trunkRadiusM: 0.2,
  clearStemM: 2,
  heightM: 8,
  crownRadiusM: 3,
  crownShape: 'ellipsoid',
  transmissionInLeaf: 0.2,
  transmissionBare: 0.6,
  ...more,
})
const scene = (latitudeDeg: number, obstructions: Obstruction[] = [], northDeg = 0): Scene => ({
  latitudeDeg,
  longitudeDeg: 0,
  northDeg,
  obstructions,
})
const total = (s: Scene, x: number, y: number, on: string) =>
  sunHours(s, [{ x, y, z: 0 }], { kind: 'day', on })[0]!.total

/** Declination at noon from an independent ephemeris, degrees. */
const declination = (day: string) =>
  Astronomy.Equator(
    Astronomy.Body.Sun,
    new Date(`${day}T12:00:00Z`),
    new Astronomy.Observer(0, 0, 0),
    true,
    true,
  ).dec
/** Airless day length of the sun's centre, hours: cos H = -tan(latitude) tan(declination). */
const dayLength = (latitudeDeg: number, day: string) => {
  const c = -Math.tan(latitudeDeg * DEG) * Math.tan(declination(day) * DEG)
  return (2 * Math.acos(Math.max(-1, Math.min(1, c)))) / DEG / 15
}
/** Ten-minute samples place each end of the day within five minutes. */
const SAMPLING_HOURS = 1 / 6 + 0.01
const FAR = 100_000

describe('open ground', () => {
  it.each([
    [52.1, '2026-03-20'],
    [52.1, '2026-06-21'],
    [52.1, '2026-12-21'],
    [-35, '2026-06-21'],
    [0, '2026-09-23'],
    [78, '2026-06-21'],
    [78, '2026-12-21'],
    [66, '2026-06-10'],
  ])('has the day length of latitude %s on %s', (latitude, day) => {
    expect(Math.abs(total(scene(latitude), 0, 0, day) - dayLength(latitude, day))).toBeLessThan(
      SAMPLING_HOURS,
    )
  })
})

describe('a long east-west wall on the sunny side', () => {
  // The wall's top and the point span a plane that is the horizon of latitude + atan(h / d).
  it.each([
    ['north', 52.1, 1, '2026-02-20'],
    ['north', 40, 1, '2026-11-20'],
    ['south', -35, -1, '2026-08-20'],
    ['south', -35, -1, '2026-05-15'],
    ['far north', 62, 1, '2026-03-05'],
  ])('is a higher latitude’s horizon (%s, %s)', (_, latitude, side, day) => {
    const h = 2
    const d = 8
    const s = scene(latitude, [
      wall(
        [
          [-FAR, 0],
          [FAR, 0],
        ],
        h,
      ),
    ])
    const shifted = latitude + side * (Math.atan(h / d) / DEG)
    expect(Math.abs(total(s, 0, side * d, day) - dayLength(shifted, day))).toBeLessThan(SAMPLING_HOURS)
  })

  it('throws a noon shadow of height / tan(elevation) at the equinox', () => {
    const noon = direction(180, 90 - 52.1, 0)
    const solids = [
      standing(
        wall(
          [
            [-50, 0],
            [50, 0],
          ],
          3,
        ),
        '2026-03-20',
      )!,
    ]
    const shadow = 3 / Math.tan((90 - 52.1) * DEG)
    expect(transmittance(solids, 0, shadow * 0.999, 0, noon)).toBe(0)
    expect(transmittance(solids, 0, shadow * 1.001, 0, noon)).toBe(1)
  })
})

it('a north-south wall on the equator takes atan(h / d) / 15 hours of the equinox morning', () => {
  const s = scene(0, [
    wall(
      [
        [5, -FAR],
        [5, FAR],
      ],
      5,
    ),
  ])
  const hours = sunHours(s, [{ x: 0, y: 0, z: 0 }], { kind: 'day', on: '2026-03-20' })[0]!
  expect(Math.abs(hours.total - (12 - 45 / 15))).toBeLessThan(SAMPLING_HOURS)
  expect(hours.afternoon).toBeCloseTo(4, 1)
})

describe('lifelines and events', () => {
  const one = [{ x: 1, y: 2, z: 0 }]
  const on = (s: Scene, day: string) => sunHours(s, one, { kind: 'day', on: day })[0]

  it.each([52.1, -40, 68])(
    'felling the only tree at latitude %s is open ground from that day on',
    (latitude) => {
      const sunward = latitude > 0 ? -1 : 5
      const felled = scene(latitude, [tree({ y: sunward, to: '2026-05-10' })])
      expect(on(felled, '2026-05-10')).toEqual(on(scene(latitude), '2026-05-10'))
      expect(on(felled, '2026-05-09')).toEqual(on(scene(latitude, [tree({ y: sunward })]), '2026-05-09'))
      expect(on(felled, '2026-05-09')!.total).toBeLessThan(on(scene(latitude), '2026-05-09')!.total)
    },
  )

  it('leaf dates may wrap over New Year', () => {
    const solid = (day: string) => standing(tree({ leafFrom: '09-20', leafTo: '04-30' }), day)
    expect(solid('2026-01-10')).toMatchObject({ transmission: 0.2 })
    expect(solid('2026-04-30')).toMatchObject({ transmission: 0.6 })
    expect(solid('2026-09-20')).toMatchObject({ transmission: 0.2 })
  })

  it('growth closes 95 % of the gap to mature size in the stated years, and lowering sets it back', () => {
    const growing = tree({
      growth: { measuredOn: '2020-01-01', matureHeightM: 18, matureCrownRadiusM: 3, yearsToMature: 20 },
    })
    expect(standing(growing, '2020-01-01')).toMatchObject({ heightM: 8 })
    expect(standing(growing, '2040-01-01')).toMatchObject({
      heightM: expect.closeTo(18 - 10 * Math.exp(-3), 2),
    })
    const lowered = { ...growing, events: [{ date: '2030-01-01', action: 'lowered' as const, heightM: 6 }] }
    expect(standing(lowered, '2030-01-01')).toMatchObject({ heightM: 6 })
    expect(standing(lowered, '2031-01-01')).toMatchObject({
      heightM: expect.closeTo(18 - 12 * Math.exp(-0.15), 2),
    })
  })

  it('limbing raises the clear stem; thinning half of the leaf gives the square root of the transmission', () => {
    const events = [
      { date: '2025-01-01', action: 'limbed' as const, clearStemM: 4 },
      { date: '2025-01-01', action: 'thinned' as const, fraction: 0.5 },
    ]
    expect(standing(tree({ events }), '2025-06-01')).toMatchObject({
      clearStemM: 4,
      transmission: expect.closeTo(Math.sqrt(0.2), 10),
    })
  })

  it('names the change that moved the light, with its date and share', () => {
    const s = scene(52.1, [
      wall(
        [
          [-3, -2],
          [3, -2],
        ],
        4,
        { id: 'gone', name: 'shed', to: '2025-02-10' },
      ),
      wall(
        [
          [50, 50],
          [60, 50],
        ],
        2,
      ),
    ])
    // One cell, and its middle.
    const ring = [
      [1, 2],
      [1.25, 2],
      [1.25, 2.25],
      [1, 2.25],
    ] as const
    const middle = { x: 1.125, y: 2.125, z: 0 }
    const fields = fieldsBetween(s, [{ id: 'b', kind: 'bed', ring }], '2024-07-01', '2026-07-01')
    const [cause, ...others] = causesOf(fields, (field) =>
      hoursWithin(field, 'b', { x: middle.x, y: middle.y, radiusM: 0.1 })!,
    )
    expect(others).toEqual([])
    expect(cause).toMatchObject({ name: 'shed', what: 'gone', date: '2025-02-10' })
    const season = (day: string) => sunHours(s, [middle], { kind: 'season', on: day })[0]!.total
    expect(cause!.hours).toBeCloseTo(season('2026-07-01') - season('2024-07-01'), 1)
    const { morning, midday, afternoon } = cause!.byPart
    expect(morning + midday + afternoon).toBeCloseTo(cause!.hours, 4)
  })
})

describe('solids', () => {
  const past = (shapes: Shape[], x: number, y: number, z: number, d: Direction) =>
    transmittance(shapes.map(boxed), x, y, z, d)
  const up = (elevationDeg: number, azimuthDeg = 180) => direction(azimuthDeg, elevationDeg, 0)
  const prism = (overhang: { depthM: number; heightM: number } | null = null): Shape => ({
    shape: 'prism',
    id: 'b',
    ring: [
      [-5, 0],
      [5, 0],
      [5, 4],
      [-5, 4],
    ],
    heightM: 3,
    overhang,
  })

  it('a point inside a building gets nothing, one on its roof everything', () => {
    expect(past([prism()], 0, 2, 0, up(80))).toBe(0)
    expect(past([prism()], 0, 2, 3, up(10))).toBe(1)
  })

  it('a point on a face is lit from its own side only', () => {
    expect(past([prism()], 0, 0, 0, up(30, 180))).toBe(1)
    expect(past([prism()], 0, 0, 0, up(30, 0))).toBe(0)
  })

  it('a building lowered or raised is that building drawn so, eaves and all: on record, tried and fixed', () => {
    const house = (heightM: number): Obstruction => ({
      id: 'house',
      name: 'house',
      kind: 'building',
      ring: [
        [-4, -9],
        [4, -9],
        [4, -2],
        [-4, -2],
      ],
      heightM,
      overhang: { depthM: 1.5, heightM },
    })
    const drawn = (o: Obstruction): Scene => ({
      latitudeDeg: 50,
      longitudeDeg: 0,
      northDeg: 0,
      obstructions: [o],
    })
    const points = [-1.5, -0.5, 1, 3].map((y) => ({ x: 0.3, y, z: 0 }))
    const hours = (scene: Scene) =>
      sunHours(scene, points, { kind: 'day', on: '2026-06-21' }).map((h) => h.total)
    for (const [action, heightM] of [
      ['lowered', 2.4],
      ['measured', 9],
    ] as const) {
      const { id } = house(6)
      const recorded = drawn({ ...house(6), events: [{ date: '2026-01-10', action, heightM }] })
      const expected = hours(drawn(house(heightM)))
      expect(hours(recorded)).toEqual(expected)
      expect(
        hours(withSuppositions(drawn(house(6)), [{ obstructionId: id, heightM }], '2026-06-21')),
      ).toEqual(expected)
      expect(hours(drawn(frozen(recorded.obstructions[0]!, '2026-06-21')!))).toEqual(expected)
    }
    // Eaves below the roof stay as far below it, and go with what is taken down to them.
    const low = { ...house(6), overhang: { depthM: 1.5, heightM: 5 } } as Obstruction
    expect(
      standing({ ...low, events: [{ date: '2026-01-10', action: 'lowered', heightM: 3 }] }, '2026-06-21'),
    ).toMatchObject({
      overhang: { heightM: 2 },
    })
    expect(
      standing({ ...low, events: [{ date: '2026-01-10', action: 'lowered', heightM: 0.8 }] }, '2026-06-21'),
    ).toMatchObject({
      overhang: null,
    })
  })

  it('an overhang takes the high sun and leaves the low', () => {
    // 1 m out from the south face under a slab 2 m deep at 2.5 m: its edge stands at atan(2.5 / 1).
    const under = [prism({ depthM: 2, heightM: 2.5 })]
    const edge = Math.atan(2.5 / 1) / DEG
    expect(past(under, 0, -1, 0, up(edge + 0.5))).toBe(0)
    expect(past(under, 0, -1, 0, up(edge - 0.5))).toBe(1)
  })

  it('transmissions multiply at each crossing, a bend is crossed once, a point in the line counts once', () => {
    const lattice = (line: [number, number][], thicknessM = 0): Shape => ({
      shape: 'screen',
      id: 'f',
      line,
      heightM: 9,
      transmission: 0.5,
      thicknessM,
    })
    const corner: [number, number][] = [
      [-4, -2],
      [0, -2],
      [4, -2],
    ]
    expect(past([lattice(corner)], 0, 0, 0, up(20))).toBe(0.5)
    expect(past([lattice(corner, 0.6)], 0, 0, 0, up(20))).toBe(0.5)
    expect(
      past(
        [
          lattice(
            [
              [-4, -2],
              [4, -2],
              [4, -3],
              [-4, -3],
            ],
            0.2,
          ),
        ],
        0,
        0,
        0,
        up(20),
      ),
    ).toBe(0.25)
    expect(past([lattice(corner)], 0, -2, 0, up(20, 0))).toBe(0.5)
  })

  it('a thick hedge shades from its near face', () => {
    const hedge: Shape = {
      shape: 'screen',
      id: 'h',
      line: [
        [-50, -4],
        [50, -4],
      ],
      heightM: 2,
      transmission: 0,
      thicknessM: 1,
    }
    const edge = Math.atan(2 / 3.5) / DEG
    expect(past([hedge], 0, 0, 0, up(edge - 0.1))).toBe(0)
    expect(past([hedge], 0, 0, 0, up(edge + 0.1))).toBe(1)
  })

  it('a spherical crown passes T through its centre', () => {
    const ball: Shape = {
      shape: 'crown',
      id: 't',
      x: 0,
      y: 0,
      trunkRadiusM: 0,
      clearStemM: 4,
      heightM: 8,
      radiusM: 2,
      crownShape: 'ellipsoid',
      transmission: 0.3,
    }
    const elevation = Math.atan(6 / 10) / DEG
    expect(past([ball], 0, 10, 0, up(elevation))).toBeCloseTo(0.3, 9)
  })

  it('crown chords of every shape agree with marching along the ray', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('ellipsoid' as const, 'cone' as const, 'column' as const),
        fc.double({ min: -6, max: 6, noNaN: true }),
        fc.double({ min: -6, max: 6, noNaN: true }),
        fc.double({ min: 0, max: 9, noNaN: true }),
        fc.double({ min: 3, max: 85, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        (crownShape, x, y, z, elevation, azimuth) => {
          const crown = tree({
            trunkRadiusM: 0,
            clearStemM: 1,
            heightM: 7,
            crownRadiusM: 2.5,
            crownShape,
            transmissionInLeaf: 0.1,
          })
          const [a, e] = [azimuth * DEG, elevation * DEG]
          const toSun = [Math.cos(e) * Math.sin(a), Math.cos(e) * Math.cos(a), Math.sin(e)] as const
          const expected = marchedShare([crown], { x, y, z }, toSun, () => 0, '2026-06-21', 0.002)
          const solid = standing(crown, '2026-06-21')!
          expect(transmittance([solid], x, y, z, direction(azimuth, elevation, 0))).toBeCloseTo(expected, 2)
        },
      ),
      { numRuns: 150 },
    )
  })

  it('an endless wall leaves (1 + cos(atan(h / d))) / 2 of the sky', () => {
    const solids = [
      standing(
        wall(
          [
            [-FAR, -4],
            [FAR, -4],
          ],
          3,
        ),
        '2026-01-01',
      )!,
    ]
    expect(skyViewFactor(solids, { x: 0, y: 0, z: 0 })).toBeCloseTo((1 + Math.cos(Math.atan(3 / 4))) / 2, 2)
  })
})

it('trying boxes first never changes what a ray passes, on seeded random scenes', () => {
  const everywhere = { minX: -1e6, minY: -1e6, maxX: 1e6, maxY: 1e6, topM: 1e6 }
  const near = fc.double({ min: -15, max: 15, noNaN: true })
  const height = fc.double({ min: 0.2, max: 12, noNaN: true })
  const corner = fc.tuple(near, near)
  const shape: fc.Arbitrary<Shape> = fc.oneof(
    fc.record({
      shape: fc.constant('prism' as const),
      id: fc.constant('p'),
      ring: fc.array(corner, { minLength: 3, maxLength: 6 }),
      heightM: height,
      overhang: fc.option(
        fc.record({ depthM: fc.double({ min: 0.1, max: 3, noNaN: true }), heightM: height }),
      ),
    }),
    fc.record({
      shape: fc.constant('screen' as const),
      id: fc.constant('s'),
      line: fc.array(corner, { minLength: 2, maxLength: 5 }),
      heightM: height,
      transmission: fc.double({ min: 0, max: 0.9, noNaN: true }),
      thicknessM: fc.constantFrom(0, 0.4, 1.5),
    }),
    fc.record({
      shape: fc.constant('crown' as const),
      id: fc.constant('c'),
      x: near,
      y: near,
      trunkRadiusM: fc.constantFrom(0, 0.2),
      clearStemM: fc.constantFrom(0, 1),
      heightM: fc.double({ min: 1.5, max: 12, noNaN: true }),
      radiusM: fc.double({ min: 0.3, max: 5, noNaN: true }),
      crownShape: fc.constantFrom('ellipsoid' as const, 'cone' as const, 'column' as const),
      transmission: fc.double({ min: 0.05, max: 0.9, noNaN: true }),
    }),
  )
  fc.assert(
    fc.property(
      fc.array(shape, { minLength: 1, maxLength: 6 }),
      near,
      near,
      fc.constantFrom(0, 0.5, 2),
      fc.double({ min: 0, max: 360, noNaN: true }),
      fc.double({ min: 0.5, max: 89, noNaN: true }),
      (shapes, x, y, z, azimuth, elevation) => {
        const d = direction(azimuth, elevation, 0)
        const unboxed = shapes.map((s) => ({ ...s, box: everywhere }))
        expect(transmittance(shapes.map(boxed), x, y, z, d)).toBe(transmittance(unboxed, x, y, z, d))
      },
    ),
    { numRuns: 3000 },
  )
})

it('turning the plan and its north together changes nothing', () => {
  const turn = 37
  const at = (x: number, y: number): [number, number] => [
    x * Math.cos(turn * DEG) + y * Math.sin(turn * DEG),
    -x * Math.sin(turn * DEG) + y * Math.cos(turn * DEG),
  ]
  const straight = total(
    scene(52.1, [
      wall(
        [
          [-2, -3],
          [4, -3],
        ],
        4,
      ),
    ]),
    0,
    0,
    '2026-05-08',
  )
  const turned = total(scene(52.1, [wall([at(-2, -3), at(4, -3)], 4)], turn), 0, 0, '2026-05-08')
  expect(turned).toBeCloseTo(straight, 6)
})

describe('the day compared with when none is asked for', () => {
  const felledEarly = wall(
    [
      [0, 0],
      [1, 0],
    ],
    2,
    { to: '2024-03-02' },
  )
  const limbedLater = tree({ events: [{ date: '2025-11-20', action: 'limbed', clearStemM: 4 }] })

  it('is the eve of the last recorded change, whatever changed before it and however long ago', () => {
    expect(usualThen([felledEarly, limbedLater], '2026-11-28')).toBe('2025-11-19')
    expect(usualThen([felledEarly], '2034-01-01')).toBe('2024-03-01')
  })

  it('knows nothing of what is still to come', () => {
    expect(usualThen([felledEarly, limbedLater], '2025-11-19')).toBe('2024-03-01')
  })

  it('does not take a size measured today for a change', () => {
    const measured = tree({ events: [{ date: '2026-11-28', action: 'measured', heightM: 9 }] })
    expect(usualThen([felledEarly, measured], '2026-11-28')).toBe('2024-03-01')
  })

  it('lies five years back where nothing is recorded', () => {
    expect(usualThen([tree()], '2026-11-28')).toBe('2021-11-28')
  })
})
