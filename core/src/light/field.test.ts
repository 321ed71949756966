import * as Astronomy from 'astronomy-engine'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  cellAt,
  gardenField,
  hoursWithin,
  lightField,
  lightFieldsOn,
  LightStage,
  rasterOver,
  replacedHours,
  replacedLight,
  sunHours,
  type Ground,
  type LightPeriod,
  type Obstruction,
  type Raster,
  type Scene,
} from './index.ts'
import { sampleScene } from '../../simulated/index.ts'
import { lightDeviation } from '../../verify/light.ts'

const DAY: LightPeriod = { kind: 'day', on: '2026-04-23' }
/** The hours of every cell's centre, ray by ray. */
const byRays = (scene: Scene, raster: Raster, period: LightPeriod, ground?: Ground) =>
  sunHours(
    scene,
    Array.from({ length: raster.count }, (_, i) => ({ x: raster.x[i]!, y: raster.y[i]!, z: 0 })),
    period,
    ground,
  )
/** Shares are kept in 15 bits and every product rounds once: two dozen obstructions cannot add up to more. */
const ROUNDING_HOURS = 0.01

const seeds = fc.integer({ min: 1, max: 1_000_000 })
const grounds = fc.record({
  slopeDeg: fc.constantFrom(0, 0, 8, 25),
  aspectDeg: fc.integer({ min: 0, max: 359 }),
})

describe('a field drawn from shadows', () => {
  it('has the hours that rays give, for every part of the day, on random scenes and slopes', () => {
    fc.assert(
      fc.property(
        seeds,
        grounds,
        fc.constantFrom('2026-01-08', '2026-04-23', '2026-06-21'),
        (seed, ground, on) => {
          const { scene, beds } = sampleScene(seed, 20, 60)
          const raster = rasterOver(beds, 0.5)
          const field = lightField(scene, raster, { kind: 'day', on }, ground)
          byRays(scene, raster, { kind: 'day', on }, ground).forEach((h, i) => {
            for (const part of ['total', 'morning', 'midday', 'afternoon', 'heat'] as const)
              expect(Math.abs(field[part][i]! - h[part])).toBeLessThan(ROUNDING_HOURS)
          })
        },
      ),
      { numRuns: 25 },
    )
  })

  it('has the hours of rays marched through the garden in small steps, by a sun of another theory', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const { traced, drawn } = lightDeviation(seed, 2)
        // A step in or out of a crown: hundredths of an hour; ten minutes would be a shadow in another place.
        expect(Math.max(...traced, ...drawn)).toBeLessThan(0.02)
      }),
      { numRuns: 6 },
    )
  })

  it('has the hours that rays give behind a crown of any shape, opaque or not, on ground as steep as it comes', () => {
    const crowns = fc.record({
      shape: fc.constantFrom('ellipsoid' as const, 'cone' as const, 'column' as const),
      transmission: fc.constantFrom(0, 0.2, 0.6),
      // On a fine grid with the cells, so that some of their centres come to lie on a rim.
      x: fc.integer({ min: 0, max: 16 }).map((k) => k / 4),
      radiusM: fc.integer({ min: 2, max: 14 }).map((k) => k / 4),
      heightM: fc.integer({ min: 3, max: 12 }),
      clearStemM: fc.constantFrom(0, 0.5, 2),
      slopeDeg: fc.constantFrom(0, 25, 45, 59),
      aspectDeg: fc.integer({ min: 0, max: 359 }),
      latitudeDeg: fc.integer({ min: -60, max: 60 }),
    })
    fc.assert(
      fc.property(crowns, (c) => {
        const scene: Scene = {
          latitudeDeg: c.latitudeDeg,
          longitudeDeg: 0,
          northDeg: 0,
          obstructions: [
            {
              id: 't',
              name: 't',
              kind: 'tree',
              x: c.x,
              y: 1,
              trunkRadiusM: 0.15,
              clearStemM: c.clearStemM,
              heightM: c.heightM,
              crownRadiusM: c.radiusM,
              crownShape: c.shape,
              transmissionInLeaf: c.transmission,
              transmissionBare: c.transmission,
            },
          ],
        }
        const raster = rasterOver(
          [
            [
              [-5, -5],
              [8, -5],
              [8, 8],
              [-5, 8],
            ],
          ],
          0.5,
        )
        const ground = { slopeDeg: c.slopeDeg, aspectDeg: c.aspectDeg }
        const field = lightField(scene, raster, DAY, ground)
        byRays(scene, raster, DAY, ground).forEach((h, i) =>
          expect(Math.abs(field.total[i]! - h.total)).toBeLessThan(ROUNDING_HOURS),
        )
      }),
      { numRuns: 40 },
    )
  })

  it('with one obstruction moved, grown or felled is the field of the scene so changed', () => {
    fc.assert(
      fc.property(
        seeds,
        fc.integer({ min: 0, max: 19 }),
        fc.constantFrom('moved', 'grown', 'felled'),
        (seed, k, how) => {
          const { scene, beds } = sampleScene(seed, 20, 60)
          const raster = rasterOver(beds, 0.5)
          const old = scene.obstructions[k]!
          const changed =
            how === 'felled'
              ? undefined
              : how === 'grown'
                ? { ...old, heightM: old.heightM * 1.4 }
                : moved(old)
          const stage = new LightStage(scene, raster, DAY, old.id)
          // Twice, because a supposition must leave the stage as it was.
          stage.withChanged(old)
          const supposition = stage.withChanged(changed).total
          const whole = lightField(
            { ...scene, obstructions: scene.obstructions.flatMap((o) => (o === old ? (changed ?? []) : o)) },
            raster,
            DAY,
          ).total
          supposition.forEach((h, i) => expect(Math.abs(h - whole[i]!)).toBeLessThan(ROUNDING_HOURS))
        },
      ),
      { numRuns: 25 },
    )
  })

  it('on days to come is the field of the garden as it stands on each, under one sun', () => {
    fc.assert(
      fc.property(
        seeds,
        grounds,
        fc.array(fc.integer({ min: 0, max: 19 }), { maxLength: 6 }),
        (seed, ground, on) => {
          const { scene, beds } = sampleScene(seed, 20, 60)
          const growing = scene.obstructions.map((o, k): Obstruction => {
            if (!on.includes(k)) return o
            if (k % 3 === 0) return { ...o, from: '2029-03-01' }
            return k % 3 === 1
              ? { ...o, to: '2031-10-01' }
              : {
                  ...o,
                  growth: { measuredOn: '2026-05-01', matureHeightM: o.heightM * 1.5, yearsToMature: 12 },
                }
          })
          const raster = rasterOver(beds, 0.8)
          const days = ['2026-05-01', '2029-05-01', '2033-05-01']
          const changed = { ...scene, obstructions: growing }
          lightFieldsOn(changed, raster, days, ground).forEach((field, k) => {
            const alone = lightField(
              changed,
              raster,
              { kind: 'season', on: days[0]!, standing: days[k]! },
              ground,
            )
            for (const part of ['total', 'midday', 'heat'] as const)
              alone[part].forEach((h, i) =>
                expect(Math.abs(field[part][i]! - h)).toBeLessThan(ROUNDING_HOURS),
              )
          })
        },
      ),
      { numRuns: 12 },
    )
  })

  it('with changes put back, together and each alone, is the field of each scene so changed, in beds and in pots', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const { scene, beds } = sampleScene(seed, 12, 40)
        const raster = rasterOver(beds, 0.6)
        const [a, b, c] = scene.obstructions
        const replaced = [
          { obstructionId: a!.id, before: { ...a!, heightM: a!.heightM * 1.5 } },
          { obstructionId: b!.id, before: moved(b!) },
          { obstructionId: c!.id, before: undefined },
        ]
        const swapped = (only?: string): Scene => ({
          ...scene,
          obstructions: scene.obstructions.flatMap((o) => {
            const r = replaced.find((x) => x.obstructionId === o.id && (!only || x.obstructionId === only))
            return r ? (r.before ?? []) : [o]
          }),
        })
        const scenes = [scene, swapped(), ...replaced.map((r) => swapped(r.obstructionId))]
        const lit = replacedLight(scene, raster, DAY, replaced)
        const fields = [lit.now, lit.before, ...lit.putBack]
        const pot = { x: raster.x[0]!, y: raster.y[0]!, z: 0.4 }
        const potLit = replacedHours(scene, pot, DAY, replaced)
        const pots = [potLit.now, potLit.before, ...potLit.putBack]
        scenes.forEach((s, k) => {
          const whole = lightField(s, raster, DAY)
          for (const part of ['total', 'morning', 'heat'] as const)
            whole[part].forEach((h, i) =>
              expect(Math.abs(fields[k]![part][i]! - h)).toBeLessThan(ROUNDING_HOURS),
            )
          const [hours] = sunHours(s, [pot], DAY)
          expect(pots[k]!.total).toBeCloseTo(hours!.total, 9)
          expect(pots[k]!.afternoon).toBeCloseTo(hours!.afternoon, 9)
        })
      }),
      { numRuns: 12 },
    )
  })

  const moved = (o: Obstruction): Obstruction => {
    const by = ([x, y]: readonly [number, number]) => [x + 1.5, y - 0.75] as const
    if (o.kind === 'tree') return { ...o, x: o.x + 1.5, y: o.y - 0.75 }
    return o.kind === 'building' ? { ...o, ring: o.ring.map(by) } : { ...o, line: o.line.map(by) }
  }

  it('keeps the cells of the outlines and no others, and one for the smallest bed', () => {
    const triangle = [
      [0, 0],
      [4, 0],
      [0, 4],
    ] as const
    const speck = [
      [9.1, 9.1],
      [9.2, 9.1],
      [9.2, 9.2],
    ] as const
    const raster = rasterOver([triangle, speck], 0.1)
    expect(Math.abs(raster.count * 0.01 - 8)).toBeLessThan(0.3)
    expect(cellAt(raster, 3, 3)).toBeUndefined()
    expect(cellAt(raster, 9.16, 9.13)).toBeDefined()
    expect(() =>
      rasterOver([
        [
          [0, 0],
          [2, 0],
          [4, 0],
        ],
      ]),
    ).toThrow(RangeError)
  })
})

describe('sloping ground', () => {
  const DEG = Math.PI / 180
  const bare = (latitudeDeg: number): Scene => ({
    latitudeDeg,
    longitudeDeg: 0,
    northDeg: 0,
    obstructions: [],
  })
  const declination = (day: string) =>
    Astronomy.Equator(
      Astronomy.Body.Sun,
      new Date(`${day}T12:00:00Z`),
      new Astronomy.Observer(0, 0, 0),
      true,
      true,
    ).dec
  const halfDay = (latitudeDeg: number, day: string) =>
    Math.acos(Math.max(-1, Math.min(1, -Math.tan(latitudeDeg * DEG) * Math.tan(declination(day) * DEG)))) /
    DEG /
    15

  // A slope falling to the south is level ground of a latitude further south; it sees the sun while both have it up.
  it.each([
    [52, 20, '2026-06-21'],
    [52, -20, '2026-06-21'],
    [52, -20, '2026-11-20'],
    [40, 35, '2026-05-10'],
  ])(
    'at latitude %s tilted %s deg to the south on %s has the days of both horizons',
    (latitude, tilt, day) => {
      const ground = { slopeDeg: Math.abs(tilt), aspectDeg: tilt > 0 ? 180 : 0 }
      const hours = sunHours(bare(latitude), [{ x: 0, y: 0, z: 0 }], { kind: 'day', on: day }, ground)[0]!
      const both = 2 * Math.min(halfDay(latitude, day), halfDay(latitude - tilt, day))
      expect(Math.abs(hours.total - both)).toBeLessThan(0.2)
    },
  )

  it('beds of one garden may lie differently', () => {
    const ring = (x: number) =>
      [
        [x, 0],
        [x + 2, 0],
        [x + 2, 2],
        [x, 2],
      ] as const
    const field = gardenField(
      bare(52),
      [
        { id: 'level', kind: 'bed', ring: ring(0) },
        { id: 'north', kind: 'bed', ring: ring(4), ground: { slopeDeg: 30, aspectDeg: 0 } },
      ],
      { kind: 'day', on: '2026-10-20' },
    )
    expect(hoursWithin(field, 'level', { x: 1, y: 1, radiusM: 0.5 })!.total).toBeGreaterThan(9)
    // At noon the sun stands about 28 deg high: behind a slope of 30.
    expect(hoursWithin(field, 'north', { x: 5, y: 1, radiusM: 0.5 })!.midday).toBe(0)
  })
})
