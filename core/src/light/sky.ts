import { yearOf, type IsoDate } from '../dates/index.ts'
import { SAMPLE_HOURS, solarDay } from '../sun/index.ts'
import { halfMonths, hoursAt, lightDays, type LightPoint, type Scene, type SunHours } from './hours.ts'
import { standing } from './obstruction.ts'
import { direction, LEVEL, pastSolid, type Direction, type Ground } from './trace.ts'

/** One point's whole sky, what stands in it, and what that takes from the sun through the year. */
export interface PointSky {
  /** Steps of azimuth (clockwise from true north) and of elevation (from the horizon up) of `seen`. */
  azimuthStepDeg: number
  elevationStepDeg: number
  /** By elevation, then azimuth: what keeps most light from that direction, as an index of `obstructions`; -1 open sky. */
  blocker: Int8Array
  /** The share of light that gets past everything, in the same order. */
  passing: Float32Array
  obstructions: { id: string; name: string }[]
  /** The 24 half-months of the year: what the point gets, what open ground would get, what each obstruction takes. */
  halfMonths: { day: IsoDate; hours: SunHours; openHours: number; takenHours: number[] }[]
  /** The sun's way across the sky on each of those days, in order; empty in polar night. */
  paths: { day: IsoDate; points: { azimuthDeg: number; elevationDeg: number; solarHours: number }[] }[]
}

/** Cells of a sky: a trunk of 35 cm ten metres off is as wide as one. */
const AZIMUTH_STEP_DEG = 2
const ELEVATION_STEP_DEG = 1.5
/** An opaque thing counts as passing this much when several things in the way share what is lost. */
const OPAQUE = 1e-4

/**
 * The sky of a point on a day: directions are tried against what stands then, in the leaf of that day; the half-months
 * are of that year, with what stands on the day and each half-month's leaf.
 *
 * Where several things stand in the sun's way the light lost is shared among them in proportion to -ln of what each
 * passes, so that hours got and hours taken add up to those of open ground.
 */
export function pointSky(scene: Scene, p: LightPoint, on: IsoDate, ground: Ground = LEVEL): PointSky {
  const obstructions = scene.obstructions.filter((o) => standing(o, on) !== undefined)
  const solids = obstructions.map((o) => standing(o, on)!)
  const azimuths = 360 / AZIMUTH_STEP_DEG
  const elevations = 90 / ELEVATION_STEP_DEG
  const blocker = new Int8Array(azimuths * elevations).fill(-1)
  const passing = new Float32Array(azimuths * elevations).fill(1)
  for (let e = 0; e < elevations; e++)
    for (let a = 0; a < azimuths; a++) {
      const at = e * azimuths + a
      const d = direction(
        (a + 0.5) * AZIMUTH_STEP_DEG,
        (e + 0.5) * ELEVATION_STEP_DEG,
        scene.northDeg,
        12,
        ground,
      )
      if (d.rise <= 0) {
        passing[at] = 0
        continue
      }
      let least = 1
      solids.forEach((s, k) => {
        const share = pastSolid(s, p.x, p.y, p.z, d)
        passing[at]! *= share
        if (share < least) {
          least = share
          blocker[at] = k
        }
      })
    }
  const days = halfMonths(yearOf(on))
  return {
    azimuthStepDeg: AZIMUTH_STEP_DEG,
    elevationStepDeg: ELEVATION_STEP_DEG,
    blocker,
    passing,
    obstructions: obstructions.map(({ id, name }) => ({ id, name })),
    halfMonths: days.map((day) => {
      const [light] = lightDays(scene, { kind: 'day', on: day, standing: on }, ground)
      return {
        day,
        hours: hoursAt([light!], p),
        openHours: light!.directions.length * SAMPLE_HOURS,
        takenHours: takenBy(
          obstructions.map((o) => standing(o, on, day)!),
          light!.directions,
          p,
        ),
      }
    }),
    paths: days.map((day) => ({ day, points: solarDay(day, scene.latitudeDeg, scene.longitudeDeg) })),
  }
}

function takenBy(
  solids: readonly ReturnType<typeof standing>[],
  directions: readonly Direction[],
  p: LightPoint,
): number[] {
  const taken = solids.map(() => 0)
  const weights = solids.map(() => 0)
  for (const d of directions) {
    let passed = 1
    let sum = 0
    solids.forEach((s, k) => {
      const share = pastSolid(s!, p.x, p.y, p.z, d)
      passed *= share
      weights[k] = -Math.log(Math.max(OPAQUE, share))
      sum += weights[k]!
    })
    if (sum === 0) continue
    weights.forEach((w, k) => (taken[k]! += ((1 - passed) * SAMPLE_HOURS * w) / sum))
  }
  return taken
}
