import { solarPosition } from '../sun/index.ts'

/** A size as it was measured by the sun, or by an angle, with its standard error. Metres, of a bearing degrees. */
export interface Sized {
  value: number
  sd: number
}

/** What cannot be worked out, in words. */
export type SizedOr = { ok: true; sized: Sized } | { ok: false; says: string }

const DEG = Math.PI / 180

/** How well the end of a shadow is seen, metres and as a share of its length: its edge is as wide as the sun. A judgement. */
const SHADOW_SD = { metres: 0.05, share: 0.01 }
/** Slope of ground that is called level, degrees. */
const SLOPE_SD_DEG = 1
/** How far a clock may be out, minutes. */
const CLOCK_SD_MIN = 2
/** An angle by a hand's instrument or a phone, degrees. */
const ANGLE_SD_DEG = 1
/** A distance paced or taped to a tree's middle. */
const DISTANCE_SD = { metres: 0.1, share: 0.01 }
/** Lower than this a shadow runs too far to tell anything, degrees. */
const LOWEST_DEG = 5
/** Higher than this a shadow is too short. */
const HIGHEST_DEG = 80

/** One standard error of what is worked out, by how much each thing it is made from moves it. */
const together = (work: (by: readonly number[]) => number, sds: readonly number[]): number =>
  Math.hypot(
    ...sds.map((sd, i) => {
      const by = sds.map((_, k) => (k === i ? sd : 0))
      return (work(by) - work(by.map((v) => -v))) / 2
    }),
  )

interface Place {
  latitude: number
  longitude: number
}

/**
 * Height from the length of a shadow at an instant: its tangent by the sun's elevation, on level or sloping ground.
 *
 * @param lengthM along the ground, from below the top to the shadow's end
 * @param slopeDeg of the ground along the shadow, falling away from the foot positive
 * @param now milliseconds since 1970
 */
export function heightByShadow(
  place: Place,
  { lengthM, slopeDeg, now }: { lengthM: number; slopeDeg: number; now: number },
): SizedOr {
  const elevationAt = (ms: number) => solarPosition(ms, place.latitude, place.longitude).elevationDeg
  const elevation = elevationAt(now)
  if (elevation < LOWEST_DEG)
    return {
      ok: false,
      says:
        elevation < 0
          ? 'The sun is below the horizon then: is the time right?'
          : `The sun stands only ${elevation.toFixed(0)}° high then: a shadow runs too far. Measure when it is higher.`,
    }
  if (elevation > HIGHEST_DEG)
    return {
      ok: false,
      says: 'The sun stands too high then: the shadow is too short. Measure in the morning.',
    }
  const height = ([dl = 0, ds = 0, dt = 0]: readonly number[]) => {
    const slope = (slopeDeg + ds) * DEG
    const sun = elevationAt(now + dt * 60_000) * DEG
    return (lengthM + dl) * (Math.cos(slope) * Math.tan(sun) - Math.sin(slope))
  }
  const value = height([])
  if (value <= 0) return { ok: false, says: 'On ground that falls away so steeply no shadow is so long.' }
  const sds = [Math.hypot(SHADOW_SD.metres, SHADOW_SD.share * lengthM), SLOPE_SD_DEG, CLOCK_SD_MIN]
  return { ok: true, sized: { value, sd: together(height, sds) } }
}

/**
 * Height from an angle to its top at a distance.
 *
 * @param eyeM above the ground where one stands
 * @param footDeg angle down to its foot; where it is not said the ground is level
 */
export function heightByAngle({
  distanceM,
  topDeg,
  eyeM,
  footDeg,
}: {
  distanceM: number
  topDeg: number
  eyeM: number
  footDeg?: number | undefined
}): SizedOr {
  if (topDeg >= 85) return { ok: false, says: 'Stand further away: the top is almost overhead.' }
  const height = ([dd = 0, dt = 0, de = 0]: readonly number[]) =>
    (distanceM + dd) * Math.tan((topDeg + dt) * DEG) +
    (footDeg === undefined ? eyeM + de : (distanceM + dd) * Math.tan((footDeg + de) * DEG))
  const value = height([])
  if (value <= 0) return { ok: false, says: 'By these angles its top lies below the ground.' }
  const sds = [
    Math.hypot(DISTANCE_SD.metres, DISTANCE_SD.share * distanceM),
    ANGLE_SD_DEG,
    footDeg === undefined ? 0.05 + distanceM * Math.tan(SLOPE_SD_DEG * DEG) : ANGLE_SD_DEG,
  ]
  return { ok: true, sized: { value, sd: together(height, sds) } }
}

/** How well a point of a picture is hit, picture points as a share of the longer of the two lengths. */
const PICTURE_SD = 0.005

/**
 * Height from a picture with something of known height at its foot: both upright, equally far away, seen from afar.
 *
 * @param known how high that is, metres, and from its foot to its top in points of the picture
 * @param wholePx from the foot to the top of what is measured
 */
export function heightByPicture(
  known: { heightM: number; px: number; sdM?: number },
  wholePx: number,
): SizedOr {
  if (known.px < 20)
    return {
      ok: false,
      says: 'What is known is too small in the picture: come closer, or take something taller.',
    }
  const hit = PICTURE_SD * Math.max(wholePx, known.px)
  const height = ([dk = 0, dw = 0, dm = 0]: readonly number[]) =>
    ((known.heightM + dm) * (wholePx + dw)) / (known.px + dk)
  return {
    ok: true,
    sized: { value: height([]), sd: together(height, [hit, hit, known.sdM ?? 0.02 * known.heightM]) },
  }
}

/** How well a line is laid along a shadow, degrees. */
const LAID_SD_DEG = 1.5

/**
 * Where true north lies on the plan, degrees clockwise from up, from the way a shadow lies on it at an instant.
 *
 * @param bearingDeg of the shadow, from the foot of what casts it, clockwise from up the plan
 */
export function northByShadow(
  place: Place,
  { bearingDeg, now }: { bearingDeg: number; now: number },
): SizedOr {
  const at = (ms: number) => solarPosition(ms, place.latitude, place.longitude)
  if (at(now).elevationDeg < LOWEST_DEG / 2)
    return { ok: false, says: 'The sun is too low then for a shadow to be seen: is the time right?' }
  const north = ([db = 0, dt = 0]: readonly number[]) =>
    // A shadow lies opposite the sun.
    bearingDeg + db - (at(now + dt * 60_000).azimuthDeg + 180)
  const round = (deg: number) => ((((deg + 180) % 360) + 360) % 360) - 180
  const value = round(north([]))
  const sd = Math.hypot(LAID_SD_DEG, round(north([0, CLOCK_SD_MIN]) - north([0, -CLOCK_SD_MIN])) / 2)
  return { ok: true, sized: { value, sd } }
}

/** “5.4 m, between 5.0 and 5.8”: where it lies nineteen times in twenty. */
export const sizedWords = ({ value, sd }: Sized, unit = 'm'): string =>
  `${value.toFixed(1)}\u00a0${unit}, between ${(value - 1.96 * sd).toFixed(1)} and ${(value + 1.96 * sd).toFixed(1)}`
