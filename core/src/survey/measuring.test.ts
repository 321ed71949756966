import { Equator, Horizon, Observer, Body } from 'astronomy-engine'
import { describe, expect, it } from 'vitest'
import { drawAs, sceneOf, type Feature, type PlanFeature } from '../garden/index.ts'
import { corner } from '../geometry/index.ts'
import { sunHours } from '../light/index.ts'
import { seededRandom } from '../random/index.ts'
import {
  heightByAngle,
  heightByPicture,
  heightByShadow,
  measuringWorth,
  northByShadow,
  sizedWords,
  type SizedOr,
} from './index.ts'

const got = (s: SizedOr) => {
  if (!s.ok) throw new Error(s.says)
  return s.sized
}
const at42 = { latitude: 42, longitude: -83 }

/** The sun by another almanac. */
function almanac({ latitude, longitude }: typeof at42, ms: number) {
  const when = new Date(ms)
  const there = new Observer(latitude, longitude, 0)
  const eq = Equator(Body.Sun, when, there, true, true)
  const { azimuth, altitude } = Horizon(when, there, eq.ra, eq.dec)
  return { azimuth, altitude }
}

describe('heights', () => {
  it('by a shadow are its length times the tangent of the sun as another almanac has it', () => {
    for (const iso of ['2026-04-20T15:00:00Z', '2026-06-21T14:00:00Z', '2026-09-25T19:30:00Z']) {
      const now = Date.parse(iso)
      const { altitude } = almanac(at42, now)
      const { value, sd } = got(heightByShadow(at42, { lengthM: 8, slopeDeg: 0, now }))
      expect(value).toBeCloseTo(8 * Math.tan((altitude * Math.PI) / 180), 1)
      expect(sd).toBeGreaterThan(0.05)
      expect(sd).toBeLessThan(0.6)
    }
  })

  it('on ground that falls away are less than on level ground, on ground that rises more', () => {
    const now = Date.parse('2026-06-21T14:00:00Z')
    const on = (slopeDeg: number) => got(heightByShadow(at42, { lengthM: 8, slopeDeg, now })).value
    expect(on(8)).toBeLessThan(on(0))
    expect(on(-8)).toBeGreaterThan(on(0))
  })

  it('by an angle of 45 degrees are the distance and the eye; the foot seen below counts instead of the eye', () => {
    expect(got(heightByAngle({ distanceM: 10, topDeg: 45, eyeM: 1.6 })).value).toBeCloseTo(11.6, 9)
    expect(got(heightByAngle({ distanceM: 10, topDeg: 45, eyeM: 1.6, footDeg: 10 })).value).toBeCloseTo(
      10 + 10 * Math.tan((10 * Math.PI) / 180),
      9,
    )
  })

  it('by a picture are in proportion to what is known in it', () => {
    const { value } = got(heightByPicture({ heightM: 2, px: 100 }, 350))
    expect(value).toBeCloseTo(7, 9)
    expect(sizedWords({ value: 7, sd: 0.2 })).toBe('7.0\u00a0m, between 6.6 and 7.4')
  })

  it('have intervals that hold the truth about nineteen times in twenty, errors drawn as they are said to be', () => {
    const random = seededRandom(31)
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    const now = Date.parse('2026-05-10T15:00:00Z')
    const sun = (ms: number) => Math.tan((almanac(at42, ms).altitude * Math.PI) / 180)
    let held = 0
    const n = 400
    for (let i = 0; i < n; i++) {
      const truth = 3 + 7 * random()
      const slope = normal() * (Math.PI / 180)
      const true_ = truth / (Math.cos(slope) * sun(now + 120_000 * normal()) - Math.sin(slope))
      const lengthM = true_ + Math.hypot(0.05, 0.01 * true_) * normal()
      const { value, sd } = got(heightByShadow(at42, { lengthM, slopeDeg: 0, now }))
      if (Math.abs(value - truth) <= 1.96 * sd) held++
    }
    expect(held / n).toBeGreaterThan(0.92)
    expect(held / n).toBeLessThan(0.98)
  })

  it('are refused in words where nothing can be told', () => {
    const night = Date.parse('2026-06-21T06:00:00Z')
    expect(heightByShadow(at42, { lengthM: 8, slopeDeg: 0, now: night })).toMatchObject({ ok: false })
    expect(heightByAngle({ distanceM: 1, topDeg: 88, eyeM: 1.6 })).toMatchObject({ ok: false })
    expect(heightByPicture({ heightM: 2, px: 5 }, 100)).toMatchObject({ ok: false })
    expect(northByShadow(at42, { bearingDeg: 10, now: night })).toMatchObject({ ok: false })
  })
})

describe('north', () => {
  it('is where the plan says when its shadow lies as another almanac has it', () => {
    for (const north of [-120, -30, 0, 17, 150]) {
      const now = Date.parse('2026-03-20T16:00:00Z')
      // On a plan turned so, true bearings are so much more.
      const bearingDeg = almanac(at42, now).azimuth + 180 + north
      expect(got(northByShadow(at42, { bearingDeg, now })).value).toBeCloseTo(north, 0)
    }
  })
})

describe('which measurement is worth taking better', () => {
  const base = { from: null, to: null, geometry: { type: 'LineString', coordinates: [] } } as const
  const wall = (id: string, y: number, heightM: number, more: object = {}): Feature => ({
    id,
    ...drawAs<PlanFeature>(
      {
        ...base,
        kind: 'wall',
        name: id,
        geometry: { ...base.geometry, coordinates: [] },
        properties: { heightM, thicknessM: 0.2, transmission: 0, ...more },
      },
      { handles: [corner([-20, y]), corner([20, y])], closed: false },
    ),
  })
  const garden = { latitude: 52, longitude: 0, northDeg: 0 }
  const plant = { id: 'P', point: { x: 0, y: 0, z: 0 } }

  it('is what moves the sun at the plants most, by the hours that the light itself tells', () => {
    const features = [wall('near', -3, 3), wall('far', -40, 3)]
    const found = measuringWorth(sceneOf(garden, features), features, [plant], '2026-06-01')
    expect(found.map((w) => w.featureId)).toEqual(['near'])
    const hoursWith = (heightM: number) =>
      sunHours(sceneOf(garden, [wall('near', -3, heightM)]), [plant.point], {
        kind: 'season',
        on: '2026-06-01',
      })[0]!.total
    expect(found[0]!.mostHours).toBeCloseTo(Math.abs(hoursWith(3.3) - hoursWith(2.7)) / 2, 6)
    expect(found[0]).toMatchObject({ size: 'heightM', isAssumed: true, at: 'P', moved: 1 })
  })

  it('is no longer worth it once it is measured well', () => {
    const features = [wall('near', -3, 3, { standardErrors: { heightM: 0.01 } })]
    expect(measuringWorth(sceneOf(garden, features), features, [plant], '2026-06-01')).toEqual([])
  })
})
