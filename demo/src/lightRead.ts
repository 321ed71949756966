import {
  addDays,
  distanceToSegment,
  instantsOf,
  rasterOver,
  ringOf,
  sceneOf,
  seededRandom,
  solarDay,
  sunHours,
  type Brightness,
  type Look,
  type LuxSample,
  type Plan,
  type Point,
  type Scene,
} from '@border/core'
import { trulyStanding } from './history.ts'
import type { SketchGarden } from './sketch.ts'
import { DEMO_DATE } from './town.ts'
import { lookAt, simulateLog } from '@border/core/simulated'

interface LightRead {
  readings: { at: string; x: number; y: number; place: string; seen: Brightness }[]
  logs: { name: string; x: number; y: number; place: string; samples: LuxSample[] }[]
}

const LOOKS = 26
const LOOK_DAYS = [3, 5, 6].map((ago) => addDays(DEMO_DATE, -ago))
const WRONG = 0.08
const LOG_DAYS = 14
/** Somebody who wonders about a thing looks near it, where it would show most. */
const NEAR_M = 7
const SPOTS = 16

/**
 * What was seen of the light where something changed that nobody put on the plan: looks by eye on three days and a
 * fortnight of a logger, both of the garden as it truly stands. Same seed, same readings.
 */
export function lightReadOf(sketch: SketchGarden, plan: Plan): LightRead {
  const random = seededRandom(sketch.seed * 31 + 5)
  const truth = sceneOf(plan.garden, trulyStanding(sketch, plan))
  const drawn = sceneOf(
    plan.garden,
    plan.features.map((f, i) => ({ ...f, id: String(i) })),
  )
  const found: LightRead = { readings: [], logs: [] }
  for (const { feature } of sketch.unrecorded) {
    const line = plan.features.find((f) => f.name === feature)!.geometry
    const near = spotsNear(
      plan,
      line.type === 'LineString' ? line.coordinates.map((p): Point => [p[0], p[1]]) : [],
    )
    const hoursIn = (scene: Scene) =>
      sunHours(
        scene,
        near.map(({ x, y }) => ({ x, y, z: 0 })),
        { kind: 'day', on: LOOK_DAYS[0]! },
      )
    const [now, asDrawn] = [hoursIn(truth), hoursIn(drawn)]
    const shows = near.map((_, i) => Math.abs(now[i]!.total - asDrawn[i]!.total))
    const spots = near
      .map((spot, i) => ({ spot, shows: shows[i]! }))
      .sort((a, b) => b.shows - a.shows)
      .slice(0, SPOTS)
      .map(({ spot }) => spot)
    const looks = LOOK_DAYS.flatMap((day) =>
      solarDay(day, plan.garden.latitude, plan.garden.longitude)
        .filter((s) => s.elevationDeg > 10)
        .map((s) => s.instantMs),
    )
    while (found.readings.length < LOOKS) {
      const { place, ...spot } = spots[Math.floor(random() * spots.length)]!
      const look: Look = { ...spot, z: 0, instantMs: looks[Math.floor(random() * looks.length)]! }
      const seen = lookAt(truth, look, random, WRONG)
      if (seen) found.readings.push({ at: new Date(look.instantMs).toISOString(), ...spot, place, seen })
    }
    const { place, ...spot } = spots[0]!
    const [fromMs] = instantsOf(`${addDays(DEMO_DATE, -LOG_DAYS - 1)}T00:00`, plan.garden.timeZone)
    found.logs.push({
      name: `Logger in ${place}`,
      ...spot,
      place,
      samples: simulateLog(
        truth,
        { ...spot, z: 0 },
        { fromMs: fromMs!, days: LOG_DAYS, everyMin: 10 },
        random,
      ),
    })
  }
  return found
}

/** Every metre of the beds near a line, nearest first. */
function spotsNear(plan: Plan, line: readonly Point[]): { x: number; y: number; place: string }[] {
  const away = (x: number, y: number) =>
    Math.min(...line.slice(1).map((b, i) => distanceToSegment(x, y, line[i]!, b)))
  return plan.features
    .filter((f) => f.kind === 'bed')
    .flatMap((f) => {
      const raster = rasterOver([ringOf(f.geometry)], 1)
      return Array.from(raster.x, (x, i) => ({ x, y: raster.y[i]!, place: f.name }))
    })
    .filter((s) => away(s.x, s.y) < NEAR_M)
    .sort((a, b) => away(a.x, a.y) - away(b.x, b.y))
}
