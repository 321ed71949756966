/**
 * Where the sun stands. Azimuth is in degrees clockwise from true north; elevation is in degrees above
 * the horizon, geometric (no refraction). Instants are UTC.
 */
export interface SolarPosition {
  azimuthDeg: number
  elevationDeg: number
}

const RAD = Math.PI / 180
const J2000 = Date.UTC(2000, 0, 1, 12)
const MS_PER_DAY = 86_400_000

/** Apparent equatorial coordinates of the sun. */
export interface SunCoordinates {
  declinationDeg: number
  /** Apparent minus mean solar time, minutes. */
  equationOfTimeMin: number
}

/**
 * Declination and equation of time at an instant.
 *
 * Meeus, Astronomical Algorithms (2nd ed.), chapter 25 "lower accuracy" (0.01 deg) and chapter 28. The
 * difference between dynamical and universal time (under 100 s in 1950-2100) moves the sun by less than
 * 0.001 deg and is left out.
 */
export function sunCoordinates(instantMs: number): SunCoordinates {
  const days = (instantMs - J2000) / MS_PER_DAY
  const t = days / 36_525
  // (25.2), (25.3): mean longitude and mean anomaly
  const meanLongitude = 280.46646 + t * (36_000.76983 + t * 0.0003032)
  const anomaly = (357.52911 + t * (35_999.05029 - t * 0.0001537)) * RAD
  const centre =
    (1.914602 - t * (0.004817 + t * 0.000014)) * Math.sin(anomaly) +
    (0.019993 - t * 0.000101) * Math.sin(2 * anomaly) +
    0.000289 * Math.sin(3 * anomaly)
  // nutation and aberration, p. 164
  const node = (125.04 - 1934.136 * t) * RAD
  const apparentLongitude = (meanLongitude + centre - 0.00569 - 0.00478 * Math.sin(node)) * RAD
  const obliquity =
    (23.4392911 - t * (0.0130042 + t * (1.6e-7 - t * 5.04e-7)) + 0.00256 * Math.cos(node)) * RAD
  const rightAscension =
    Math.atan2(Math.cos(obliquity) * Math.sin(apparentLongitude), Math.cos(apparentLongitude)) / RAD
  const declination = Math.asin(Math.sin(obliquity) * Math.sin(apparentLongitude)) / RAD
  // (28.1), in degrees of hour angle
  const nutationInLongitude = -0.00478 * Math.sin(node)
  const equation = meanLongitude - 0.0057183 - rightAscension + nutationInLongitude * Math.cos(obliquity)
  return { declinationDeg: declination, equationOfTimeMin: 4 * (mod(equation + 180, 360) - 180) }
}

/**
 * The sun's place in the sky at an instant.
 *
 * @param instantMs UTC, milliseconds since 1970 (leap seconds ignored)
 * @param latitudeDeg -90 to 90, north positive
 * @param longitudeDeg east positive
 * @throws {RangeError} when an argument is not a finite number or the latitude is out of range
 */
export function solarPosition(instantMs: number, latitudeDeg: number, longitudeDeg: number): SolarPosition {
  if (!Number.isFinite(instantMs) || !Number.isFinite(longitudeDeg) || !(Math.abs(latitudeDeg) <= 90))
    throw new RangeError('solarPosition needs a finite instant, a latitude from -90 to 90 and a longitude')
  const { declinationDeg, equationOfTimeMin } = sunCoordinates(instantMs)
  const universalHours = mod(instantMs / 3_600_000, 24)
  const solarHours = universalHours + longitudeDeg / 15 + equationOfTimeMin / 60
  return sunAtSolarTime(solarHours, declinationDeg, latitudeDeg)
}

/** True solar time at an instant and longitude, as milliseconds since 1970 of a clock that has the sun south or north at noon. */
export const trueSolarMs = (instantMs: number, longitudeDeg: number): number =>
  instantMs + (longitudeDeg / 15) * 3_600_000 + sunCoordinates(instantMs).equationOfTimeMin * 60_000

/** The sun at a true solar time (hours, 12 at the meridian) for a known declination. Meeus (13.5), (13.6). */
export function sunAtSolarTime(
  solarHours: number,
  declinationDeg: number,
  latitudeDeg: number,
): SolarPosition {
  const h = (solarHours - 12) * 15 * RAD
  const phi = latitudeDeg * RAD
  const delta = declinationDeg * RAD
  const sinElevation = Math.sin(phi) * Math.sin(delta) + Math.cos(phi) * Math.cos(delta) * Math.cos(h)
  const azimuth = Math.atan2(
    -Math.sin(h) * Math.cos(delta),
    Math.sin(delta) * Math.cos(phi) - Math.cos(h) * Math.cos(delta) * Math.sin(phi),
  )
  return {
    azimuthDeg: mod(azimuth / RAD, 360),
    elevationDeg: Math.asin(Math.max(-1, Math.min(1, sinElevation))) / RAD,
  }
}

const mod = (a: number, n: number) => ((a % n) + n) % n
