import * as Astronomy from 'astronomy-engine'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { solarDay, solarPosition } from './index.ts'
import { sunCoordinates } from './position.ts'

/** Azimuth and geometric elevation by astronomy-engine, a separate theory (VSOP87) and implementation. */
function independent(ms: number, latitude: number, longitude: number) {
  const time = Astronomy.MakeTime(new Date(ms))
  const observer = new Astronomy.Observer(latitude, longitude, 0)
  const equatorial = Astronomy.Equator(Astronomy.Body.Sun, time, observer, true, true)
  const horizon = Astronomy.Horizon(time, observer, equatorial.ra, equatorial.dec)
  return { azimuthDeg: horizon.azimuth, elevationDeg: horizon.altitude, declinationDeg: equatorial.dec }
}

describe('solarPosition', () => {
  it('gives the declination of Meeus, Astronomical Algorithms, example 25.a', () => {
    expect(sunCoordinates(Date.UTC(1992, 9, 13)).declinationDeg).toBeCloseTo(-7.78507, 3)
  })

  it('gives the equation of time of Meeus, example 28.b: 13 m 42.7 s', () => {
    expect(sunCoordinates(Date.UTC(1992, 9, 13)).equationOfTimeMin).toBeCloseTo(13 + 42.7 / 60, 1)
  })

  it('gives the position worked out in Reda and Andreas 2003, table A5.1', () => {
    const at = solarPosition(Date.UTC(2003, 9, 17, 19, 30, 30), 39.742476, -105.1786)
    expect(at.azimuthDeg).toBeCloseTo(194.340241, 1)
    expect(Math.abs(at.elevationDeg - 39.872046)).toBeLessThan(0.03)
  })

  it('agrees with an independent ephemeris within 0.03 deg at any latitude, 1950 to 2100', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: Date.UTC(1950, 0, 1), max: Date.UTC(2100, 0, 1) }),
        fc.double({ min: -89, max: 89, noNaN: true }),
        fc.double({ min: -180, max: 180, noNaN: true }),
        (ms, latitude, longitude) => {
          const ours = solarPosition(ms, latitude, longitude)
          const theirs = independent(ms, latitude, longitude)
          const turn = ((ours.azimuthDeg - theirs.azimuthDeg + 540) % 360) - 180
          expect(Math.abs(ours.elevationDeg - theirs.elevationDeg)).toBeLessThan(0.03)
          // On the sky, not on the compass: near the zenith azimuth means little.
          expect(Math.abs(turn) * Math.cos((theirs.elevationDeg * Math.PI) / 180)).toBeLessThan(0.03)
        },
      ),
      { numRuns: 400 },
    )
  })

  it('refuses a latitude beyond the poles', () => {
    expect(() => solarPosition(0, 91, 0)).toThrow(RangeError)
  })
})

describe('solarDay', () => {
  it('samples true solar time: the hour angle of each instant is the one an ephemeris gives', () => {
    const observer = new Astronomy.Observer(52.1, 1.3, 0)
    for (const day of ['2026-02-11', '2026-06-21', '2026-11-03'])
      for (const s of solarDay(day, 52.1, 1.3)) {
        const hourAngle = Astronomy.HourAngle(Astronomy.Body.Sun, new Date(s.instantMs), observer)
        expect(Math.abs(((((s.solarHours - 12 - hourAngle) % 24) + 36) % 24) - 12)).toBeLessThan(0.003)
      }
  })

  it.each([
    ['midsummer at 78 N', '2026-06-21', 78, 144],
    ['midwinter at 78 N', '2026-12-21', 78, 0],
    ['midwinter at 78 S', '2026-06-21', -78, 0],
  ])('%s', (_, day, latitude, samples) => {
    expect(solarDay(day, latitude, 15)).toHaveLength(samples)
  })

  it('splits an equinox day into four, four and four hours', () => {
    const parts = solarDay('2026-03-20', 52.1, 1.3).map((s) => s.part)
    for (const part of ['morning', 'midday', 'afternoon'] as const)
      expect(parts.filter((p) => p === part).length / 6).toBeCloseTo(4, 0)
  })
})
