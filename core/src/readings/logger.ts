import type { Ground, Scene } from '../light/index.ts'
import { solarPosition, trueSolarMs } from '../sun/index.ts'
import type { Reading } from './reading.ts'

/** One value of a light logger. */
export interface LuxSample {
  /** UTC, milliseconds since 1970. */
  instantMs: number
  lux: number
}

/** What a logger wrote where it stood. */
export interface LightLog {
  id: string
  /** Plan metres; z above the ground. */
  x: number
  y: number
  z: number
  ground?: Ground | null
  /** In order of time. */
  samples: readonly LuxSample[]
}

const DEG = Math.PI / 180
/** Lumens to a watt of daylight, about (Littlefair 1985 gives 105 to 120 for clear skies). */
const LUMEN_PER_WATT = 110
/** Diffuse light of a clear sky over the direct beam's, on the level with the sun overhead: a working value. */
const DIFFUSE_SHARE = 0.1

/**
 * Light of a clear sky on open level ground, lux: direct beam by Meinel and Meinel 1976, Applied Solar Energy, p. 46
 * (1353 W/m2 times 0.7^(air mass^0.678)), air mass by Kasten and Young 1989, a tenth of the beam more from the sky.
 */
export function clearSkyLux(elevationDeg: number): { direct: number; diffuse: number } {
  if (elevationDeg <= 0) return { direct: 0, diffuse: 0 }
  const airMass = 1 / (Math.sin(elevationDeg * DEG) + 0.50572 * (elevationDeg + 6.07995) ** -1.6364)
  const beam = 1353 * 0.7 ** (airMass ** 0.678) * LUMEN_PER_WATT
  return { direct: beam * Math.sin(elevationDeg * DEG), diffuse: beam * DIFFUSE_SHARE }
}

/** Below this the beam is too weak to tell from the sky. */
const LEAST_ELEVATION_DEG = 8
/** Days are looked at together by true solar time, in steps of this. */
const STEP_MIN = 20
/** The sun's path moves too far in more days than these. */
const MOST_DAYS = 16
/** A spell this far under the clearest day at the same hour is cloud. */
const CLOUD_BELOW = 0.7
/** A clouded sky gives up to so much more diffuse light than a clear one: a working value. */
const CLOUD_ADDS = 0.6
/** Shares under this much of what cloud adds to shade are darker than any cloud makes them. */
const DARKER = 0.9
/** Too few days to tell cloud from shade unless the sun came through somewhere that day. */
const ENOUGH_DAYS = 3
const DAY_WITH_SUN = 0.6

/** A log as readings of the share of clear sun. */
export interface LogReadings {
  /** Shares of the clear sun by solar time, one for each step and stretch of days. */
  readings: Reading[]
  /** Steps of a day that were looked at, and of them the ones set aside as cloudy or undecided. */
  steps: number
  cloudy: number
  undecided: number
}

/**
 * What a light log says of the sun at its point. Each sample becomes a share of the clear-sky beam. Cloud only ever takes
 * the beam away and does not keep hours, an obstruction keeps hours: so over a fortnight each step of solar time is taken
 * from its clearest days, and days far from those are cloud and set aside. A single dull day says nothing.
 */
export function logReadings(site: Scene, log: LightLog): LogReadings {
  const found: LogReadings = { readings: [], steps: 0, cloudy: 0, undecided: 0 }
  for (const stretch of stretchesOf(site, log.samples)) addStretch(found, log, stretch)
  return found
}

interface Share {
  instantMs: number
  day: number
  step: number
  share: number
  /** What the most cloud adds to a share of nothing. */
  cloudAdds: number
}

/** Mean share in each step of each solar day, in stretches of at most a fortnight. */
function stretchesOf(site: Scene, samples: readonly LuxSample[]): Share[][] {
  const bins = new Map<
    string,
    { sum: number; n: number; at: number; day: number; step: number; adds: number }
  >()
  for (const { instantMs, lux } of samples) {
    const sun = solarPosition(instantMs, site.latitudeDeg, site.longitudeDeg)
    if (sun.elevationDeg < LEAST_ELEVATION_DEG) continue
    const { direct, diffuse } = clearSkyLux(sun.elevationDeg)
    const solarMs = trueSolarMs(instantMs, site.longitudeDeg)
    const day = Math.floor(solarMs / 86_400_000)
    const step = Math.floor((solarMs % 86_400_000) / (STEP_MIN * 60_000))
    const bin = bins.get(`${day}|${step}`) ?? { sum: 0, n: 0, at: 0, day, step, adds: 0 }
    // Noise goes both ways about nothing: it is cut off once the step is summed.
    bin.sum += Math.min(1.1, (lux - diffuse) / direct)
    bin.at += instantMs
    bin.adds += (CLOUD_ADDS * diffuse) / direct
    bin.n++
    bins.set(`${day}|${step}`, bin)
  }
  const shares = [...bins.values()].map(({ sum, n, at, day, step, adds }) => ({
    instantMs: at / n,
    day,
    step,
    share: Math.max(0, Math.min(1, sum / n)),
    cloudAdds: adds / n,
  }))
  const first = Math.min(...shares.map((s) => s.day))
  const stretches = new Map<number, Share[]>()
  for (const s of shares) {
    const k = Math.floor((s.day - first) / MOST_DAYS)
    stretches.set(k, [...(stretches.get(k) ?? []), s])
  }
  return [...stretches.values()]
}

/**
 * The days of one step on which the sky was clear, in order of their share. Cloud draws a share towards what it adds to shade:
 * in sun the brightest days are the clear ones, and in deep shade the darkest.
 */
function clearDays(days: readonly Share[]): readonly Share[] {
  const ordered = [...days].sort((a, b) => a.share - b.share)
  // The darkest but one: a single day may have had something else in the way.
  const dark = ordered[Math.min(1, ordered.length - 1)]!
  if (ordered.length >= ENOUGH_DAYS && dark.share < DARKER * dark.cloudAdds)
    return ordered.filter((s) => s.share <= dark.share)
  const clearest = ordered.at(-1)!.share
  return ordered.filter((s) => s.share >= CLOUD_BELOW * clearest)
}

function addStretch(found: LogReadings, log: LightLog, shares: readonly Share[]): void {
  const brightest = new Map<number, number>()
  for (const s of shares) brightest.set(s.day, Math.max(brightest.get(s.day) ?? 0, s.share))
  const byStep = new Map<number, Share[]>()
  for (const s of shares) byStep.set(s.step, [...(byStep.get(s.step) ?? []), s])
  for (const [step, all] of byStep) {
    found.steps += all.length
    // A day on which the sun came through somewhere, or company enough to compare with.
    const telling = all.filter((s) => all.length >= ENOUGH_DAYS || brightest.get(s.day)! >= DAY_WITH_SUN)
    found.undecided += all.length - telling.length
    if (telling.length === 0) continue
    const clear = clearDays(telling)
    found.cloudy += telling.length - clear.length
    const middle = clear[Math.floor(clear.length / 2)]!
    found.readings.push({
      id: `${log.id}|${step}|${middle.day}`,
      instantMs: middle.instantMs,
      x: log.x,
      y: log.y,
      z: log.z,
      ground: log.ground ?? null,
      seen: middle.share,
    })
  }
}

/** A log whose light comes this far from the sun's noon, hours, kept another clock: daylight saving or another zone. */
export const CLOCK_OUT_HOURS = 0.75

/** Light from which a sample counts as day. */
const LIT_LUX = 300
/** Below this mean resultant length the lit hours have no middle: polar day, or no days at all. */
const LEAST_RESULTANT = 0.15

/**
 * How far a log's clock is out: the circular mean of the hours with light against noon by the sun, hours; positive when
 * the log is late. Shade and cloud leave light enough to count, so they hardly move it.
 *
 * @returns undefined when the lit hours have no middle
 */
export function clockOffsetHours(site: Scene, samples: readonly LuxSample[]): number | undefined {
  let east = 0
  let north = 0
  let lit = 0
  for (const { instantMs, lux } of samples) {
    if (lux < LIT_LUX) continue
    const angle = ((trueSolarMs(instantMs, site.longitudeDeg) % 86_400_000) / 86_400_000) * 2 * Math.PI
    east += Math.sin(angle)
    north += Math.cos(angle)
    lit++
  }
  if (lit === 0 || Math.hypot(east, north) / lit < LEAST_RESULTANT) return undefined
  // Noon lies half a turn from midnight.
  return (Math.atan2(-east, -north) / (2 * Math.PI)) * 24
}
