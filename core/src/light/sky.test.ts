import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { civilDate } from '../dates/index.ts'
import { isInside } from '../geometry/index.ts'
import { seededRandom } from '../random/index.ts'
import {
  direction,
  momentsOf,
  pointSky,
  shadowsAt,
  standing,
  transmittance,
  supposed,
  yearsLater,
  type Scene,
} from './index.ts'
import { sampleScene } from '../../simulated/index.ts'

const seeds = fc.integer({ min: 1, max: 1_000_000 })

describe('the sky of a point', () => {
  it('hours got and hours taken add up to those of open ground, each half-month of the year', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const { scene } = sampleScene(seed, 10, 60)
        const sky = pointSky(scene, { x: 3, y: 2, z: 0 }, '2026-06-15')
        expect(sky.halfMonths).toHaveLength(24)
        for (const h of sky.halfMonths)
          expect(h.hours.total + h.takenHours.reduce((a, b) => a + b, 0)).toBeCloseTo(h.openHours, 6)
      }),
      { numRuns: 10 },
    )
  })

  it('shows a wall to the south as a band of the sky as high as it looks', () => {
    const wall = {
      id: 'w',
      name: 'wall',
      kind: 'wall' as const,
      line: [
        [-100, -2],
        [100, -2],
      ] as const,
      heightM: 2,
      transmission: 0,
      thicknessM: 0,
    }
    const scene: Scene = { latitudeDeg: 50, longitudeDeg: 0, northDeg: 0, obstructions: [wall] }
    const sky = pointSky(scene, { x: 0, y: 0, z: 0 }, '2026-06-15')
    const azimuths = 360 / sky.azimuthStepDeg
    const blockedAt = (azimuthDeg: number, elevationDeg: number) =>
      sky.blocker[
        Math.floor(elevationDeg / sky.elevationStepDeg) * azimuths +
          Math.floor(azimuthDeg / sky.azimuthStepDeg)
      ] === 0
    // 2 m high and 2 m off: 45 deg up due south, atan(cos 60) = 26.6 deg up sixty degrees to the side.
    expect([blockedAt(180, 43), blockedAt(180, 47)]).toEqual([true, false])
    expect([blockedAt(240, 24.5), blockedAt(240, 29)]).toEqual([true, false])
    expect(blockedAt(0, 5)).toBe(false)
  })
})

describe('a moment', () => {
  it('casts shadows whose ground is what rays find dark', () => {
    fc.assert(
      fc.property(
        seeds,
        fc.integer({ min: 0, max: 359 }),
        fc.integer({ min: 12, max: 65 }),
        (seed, azimuth, elevation) => {
          const { scene } = sampleScene(seed, 10, 60)
          const d = direction(azimuth, elevation, scene.northDeg)
          const random = seededRandom(seed)
          for (const shadow of shadowsAt(scene, '2026-06-15', d)) {
            const solid = standing(
              scene.obstructions.find((o) => o.id === shadow.obstructionId)!,
              '2026-06-15',
            )!
            let differ = 0
            for (let k = 0; k < 200; k++) {
              const [x, y] = [-15 + 50 * random(), -15 + 40 * random()]
              const drawn = shadow.outlines.some((ring) => isInside(ring, x, y))
              if (drawn !== transmittance([solid], x, y, 0, d) < 1) differ++
            }
            // Round outlines are drawn with corners.
            expect(differ).toBeLessThanOrEqual(4)
          }
        },
      ),
      { numRuns: 15 },
    )
  })

  it.each([
    ['Auckland, a day ahead of the sun of Greenwich', -36.8, 174.8, 'Pacific/Auckland'],
    ['Samoa, that skipped a day', -13.8, -171.8, 'Pacific/Apia'],
    ['Kashgar, on clocks three hours off', 39.5, 76, 'Asia/Shanghai'],
  ])('belongs to the civil day: %s', (_, latitudeDeg, longitudeDeg, zone) => {
    const moments = momentsOf({ latitudeDeg, longitudeDeg, northDeg: 0 }, zone, '2026-03-20')
    // An equinox day is twelve hours, less what the airless centre of the sun loses.
    expect(Math.abs(moments.length / 6 - 12)).toBeLessThan(0.35)
    for (const m of moments) expect(civilDate(new Date(m.instantMs), zone)).toBe('2026-03-20')
  })

  it('does not come in polar night', () => {
    expect(
      momentsOf({ latitudeDeg: 78, longitudeDeg: 15, northDeg: 0 }, 'Arctic/Longyearbyen', '2026-12-21'),
    ).toEqual([])
  })
})

describe('a what-if', () => {
  const tree = sampleScene(3).scene.obstructions.find((o) => o.kind === 'tree')!
  it('grows by its recorded growth, keeps the clear stem below the top, and leaves the record alone', () => {
    const growing = {
      ...tree,
      growth: { measuredOn: '2026-01-01', matureHeightM: tree.heightM + 8, yearsToMature: 10 },
    }
    const older = supposed(growing, { obstructionId: tree.id, grownYears: 10 }, '2026-01-01')!
    // 95 % of the gap in the years to maturity.
    expect(older.heightM).toBeCloseTo(tree.heightM + 8 * (1 - Math.exp(-3)), 1)
    const cut = supposed(tree, { obstructionId: tree.id, heightM: 1, clearStemM: 5 }, '2026-06-15')
    expect(cut).toMatchObject({ heightM: 1, clearStemM: 1 })
    expect(supposed(tree, { obstructionId: tree.id, gone: true }, '2026-06-15')).toBeUndefined()
    expect(yearsLater('2024-02-29', 1)).toBe('2025-03-01')
  })
})
