import type { AheadView, EvidenceView, FeatureRecord, LightLogRecord, ScenarioRecord } from '@border/contract'
import {
  addDays,
  castsShade,
  civilDate,
  groundOfPlace,
  isAlive,
  isPlace,
  logReadings,
  rasterOver,
  ringOf,
  sceneOf,
  surfaceHeightM,
  type ComingChange,
  type Explanation,
  type Look,
  type Reading,
  type ScenarioEffect,
  type Scene,
  type TellingLook,
  type Trial,
  type TrialEffect,
} from '@border/core'
import type { Piscina } from 'piscina'
import type { Db } from '../database/connect.ts'
import { kept } from '../store/computed.ts'
import { listFeatures, type GardenAccess } from '../store/gardens.ts'
import { listLogs, listReadings, listScenarios, type LogRow } from '../store/light.ts'
import { COMPUTATION, gardenModel, type ComputeTasks } from './assess.ts'

export const YEARS_AHEAD = 15

/** Plantings leaving their range in coming years, and what the going of ailing plants would do. */
export async function lightAhead(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  on: string,
  signal?: AbortSignal,
): Promise<AheadView> {
  const { scene, places, plantings } = await gardenModel(db, garden, on)
  const features = await listFeatures(db, garden.id)
  const ailing = features.filter(isAiling).filter((f) => isAlive(f, on))
  const task: ComputeTasks['ahead'] = {
    garden: { scene, places, plantings },
    on,
    years: YEARS_AHEAD,
    ailing: ailing.map((f) => f.id),
  }
  const found: { coming: ComingChange[]; waiting: { obstructionId: string; effects: TrialEffect[] }[] } =
    await kept(db, ['ahead', COMPUTATION, task], () => pool.run(task, { name: 'ahead', signal }))
  return {
    on,
    years: YEARS_AHEAD,
    coming: found.coming,
    waiting: found.waiting.map((w) => ({
      ...w,
      health: String(ailing.find((f) => f.id === w.obstructionId)?.properties.health),
    })),
  }
}

const isAiling = (f: FeatureRecord) =>
  castsShade(f) && (f.properties.health === 'poor' || f.properties.health === 'failing')

/** The garden as it stands and every kept what-if, by what each would do. */
export async function compareScenarios(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  on: string,
  signal?: AbortSignal,
): Promise<ScenarioRecord[]> {
  const scenarios = await listScenarios(db, garden.id)
  if (scenarios.length === 0) return []
  const { scene, places, plantings } = await gardenModel(db, garden, on)
  const task: ComputeTasks['scenarios'] = {
    garden: { scene, places, plantings },
    on,
    trials: [[], ...scenarios.map((s) => s.trials)],
  }
  const done: ScenarioEffect[] = await kept(db, ['scenarios', COMPUTATION, task], () =>
    pool.run(task, { name: 'scenarios', signal }),
  )
  const all: { id: string | null; name: string; trials: Trial[] }[] = [
    { id: null, name: 'As it stands', trials: [] },
    ...scenarios,
  ]
  return all.map(({ id, name, trials }, i) => ({ id, name, trials, ...done[i]! }))
}

// Readings

/** Readings older than this say nothing about how things stand. */
const TELLING_DAYS = 120
/** Points of a bed where somebody could look lie this far apart. */
const LOOK_EVERY_M = 2
const MOST_POINTS = 60
const TELLING_SHOWN = 6
const EXPLANATIONS_SHOWN = 6

/** What readings of the last months say, and where looking would tell most in the rest of the day. */
export async function lightEvidence(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  { today, nowMs, signal }: { today: string; nowMs: number; signal?: AbortSignal },
): Promise<EvidenceView> {
  const since = addDays(today, -TELLING_DAYS)
  const features = await listFeatures(db, garden.id)
  const scene = sceneOf(garden, features)
  const byId = new Map(features.map((f) => [f.id, f]))
  const taps = await listReadings(db, garden.id, since)
  const sinceMs = Date.parse(since)
  const logs = (await listLogs(db, garden.id, since)).map((row) => logOf(scene, row, byId, sinceMs))
  const readings: Reading[] = [
    ...taps.map((r) => ({
      id: r.id,
      instantMs: Date.parse(r.at),
      x: r.x,
      y: r.y,
      seen: r.seen,
      ...surfaceOf(byId.get(r.placeId ?? '')),
    })),
    ...logs.flatMap((l) => l.readings.slice(-MOST_LOG_READINGS)),
  ]
  const task: ComputeTasks['explain'] = {
    scene,
    readings,
    looks: looksOf(garden, features, today, nowMs),
    most: TELLING_SHOWN,
    shown: EXPLANATIONS_SHOWN,
  }
  const found: ExplainedTask = await kept(db, ['explain', COMPUTATION, task], () =>
    pool.run(task, { name: 'explain', signal }),
  )
  return { since, readings: taps, logs: logs.map((l) => l.record), ...found }
}

export interface ExplainedTask {
  explanations: Explanation[]
  used: number
  unusable: string[]
  telling: TellingLook[]
}

/** The last fortnight of a log tells how things stand; more only weighs the same again. */
const MOST_LOG_READINGS = 40

function logOf(
  scene: Scene,
  row: LogRow,
  features: ReadonlyMap<string, FeatureRecord>,
  sinceMs: number,
): { record: LightLogRecord; readings: Reading[] } {
  const { readings, steps, cloudy, undecided } = logReadings(scene, {
    id: row.id,
    x: row.x,
    y: row.y,
    ...surfaceOf(features.get(row.place_id ?? '')),
    samples: row.samples
      .filter(([instantMs]) => instantMs >= sinceMs)
      .map(([instantMs, lux]) => ({ instantMs, lux })),
  })
  return {
    readings,
    record: {
      id: row.id,
      name: row.name,
      x: row.x,
      y: row.y,
      placeId: row.place_id,
      firstAt: row.first_at.toISOString(),
      lastAt: row.last_at.toISOString(),
      sampleCount: row.samples.length,
      readingCount: readings.length,
      steps,
      cloudy,
      undecided,
    },
  }
}

/** Height and lie of the surface that a reading was taken on. */
export const surfaceOf = (f: FeatureRecord | undefined) => ({
  z: f ? surfaceHeightM(f) : 0,
  ground: f ? groundOfPlace(f) : null,
})

/** What could be looked at in the rest of the day: points of the beds and pots, every twenty minutes. */
function looksOf(
  garden: GardenAccess,
  features: readonly FeatureRecord[],
  today: string,
  nowMs: number,
): Look[] {
  const points = thinned(features.filter((f) => isPlace(f) && isAlive(f, today)).flatMap(pointsIn))
  // The proposals change by the hour, not by the second: kept results then serve.
  const fromMs = Math.ceil(nowMs / LOOK_EVERY_MS) * LOOK_EVERY_MS
  const looks: Look[] = []
  for (let ms = fromMs; civilDate(new Date(ms), garden.timeZone) === today; ms += LOOK_EVERY_MS)
    for (const p of points) looks.push({ instantMs: ms, ...p })
  return looks
}

const LOOK_EVERY_MS = 20 * 60_000

function pointsIn(f: FeatureRecord): Omit<Look, 'instantMs'>[] {
  const surface = surfaceOf(f)
  if (f.geometry.type === 'Point') {
    const [x, y] = f.geometry.coordinates
    return [{ x, y, ...surface }]
  }
  const found: Omit<Look, 'instantMs'>[] = []
  const raster = rasterOver([ringOf(f.geometry)], LOOK_EVERY_M)
  for (let i = 0; i < raster.count; i++) found.push({ x: raster.x[i]!, y: raster.y[i]!, ...surface })
  return found
}

/** Evenly taken down to what can be weighed in a moment. */
function thinned<T>(points: readonly T[]): T[] {
  const every = Math.max(1, points.length / MOST_POINTS)
  return Array.from(
    { length: Math.min(points.length, MOST_POINTS) },
    (_, i) => points[Math.floor(i * every)]!,
  )
}
