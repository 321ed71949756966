import type { AheadView, LightEvidenceView, FeatureView, LightLogView, WhatIfView } from '@border/contract'
import {
  addDays,
  castsShade,
  civilDate,
  dayWorthWaitingFor,
  instantsOf,
  logReadings,
  placeOf,
  placesOn,
  rasterOver,
  sceneOf,
  surfaceHeightM,
  type Look,
  type Place,
  type Reading,
  type WhatIfEffect,
  type Scene,
  type Supposition,
  type TellingLook,
} from '@border/core'
import { derive } from '../derived.ts'
import { featuresOn, standingIn, type GardenReader } from '../reader.ts'
import { listLogs, listReadings, listWhatIfs, type LogRow } from '../store/light.ts'
import type { ComputeTasks } from './computeTasks.ts'
import type { ComputePool } from './compute.ts'

const YEARS_AHEAD = 15

/** Plantings leaving their range in coming years, and what the going of ailing plants would do. */
export async function lightAhead(reader: GardenReader, pool: ComputePool, on: string): Promise<AheadView> {
  return derive(reader, ['ahead', [on, YEARS_AHEAD]], async () => {
    const ailing = (await featuresOn(reader, on)).filter(isAiling)
    const task: ComputeTasks['ahead'] = {
      garden: await standingIn(reader, on),
      on,
      years: YEARS_AHEAD,
      ailing: ailing.map((f) => f.id),
    }
    const found = await pool.run('ahead', task)
    return {
      on,
      years: YEARS_AHEAD,
      coming: found.coming,
      waiting: found.waiting.map((w) => ({
        ...w,
        health: String(ailing.find((f) => f.id === w.obstructionId)?.properties.health),
      })),
    }
  })
}

const isAiling = (f: FeatureView) =>
  castsShade(f) && (f.properties.health === 'poor' || f.properties.health === 'failing')

/** The garden as it stands and every kept what-if, by what each would do. */
export async function compareWhatIfs(
  reader: GardenReader,
  pool: ComputePool,
  on: string,
): Promise<WhatIfView[]> {
  const { db, garden } = reader
  const whatIfs = await listWhatIfs(db, garden.id)
  if (whatIfs.length === 0) return []
  const suppositions = [[], ...whatIfs.map((s) => s.suppositions)]
  const done: WhatIfEffect[] = await derive(reader, ['whatIfs', [on, suppositions]], async () => {
    const task: ComputeTasks['whatIfs'] = {
      garden: await standingIn(reader, on),
      on,
      suppositions,
    }
    return pool.run('whatIfs', task)
  })
  const all: { id: string | null; name: string; suppositions: Supposition[] }[] = [
    { id: null, name: 'As it stands', suppositions: [] },
    ...whatIfs,
  ]
  return all.map(({ id, name, suppositions }, i) => ({ id, name, suppositions, ...done[i]! }))
}

// Readings

/** Readings older than this say nothing about how things stand. */
const TELLING_DAYS = 120
/** Points of a bed where somebody could look lie this far apart. */
const LOOK_EVERY_M = 2
const MOST_POINTS = 60
const TELLING_SHOWN = 6
const EXPLANATIONS_SHOWN = 6

/** What readings of the last months say, and where looking would tell most in the rest of the day, and in the months to come. */
export async function lightEvidence(
  reader: GardenReader,
  pool: ComputePool,
  nowMs: number,
): Promise<LightEvidenceView> {
  const { db, garden, today } = reader
  // The proposals change every twenty minutes, not by the second: kept results then serve.
  const fromMs = Math.ceil(nowMs / LOOK_EVERY_MS) * LOOK_EVERY_MS
  return derive(reader, ['explanations', [today, fromMs]], async () => {
    const since = addDays(today, -TELLING_DAYS)
    const features = await reader.features()
    const scene = sceneOf(garden, features)
    const places = new Map(features.flatMap((f) => placeOf(f) ?? []).map((p) => [p.id, p]))
    const taps = await listReadings(db, garden.id, since)
    const logs = (await listLogs(db, garden.id, since)).map((row) =>
      logOf(scene, row, places, Date.parse(since)),
    )
    const readings: Reading[] = [
      ...taps.map((r) => ({
        id: r.id,
        instantMs: Date.parse(r.at),
        x: r.x,
        y: r.y,
        seen: r.seen,
        ...surfaceOf(places.get(r.placeId ?? '')),
      })),
      ...logs.flatMap((l) => l.readings.slice(-MOST_LOG_READINGS)),
    ]
    const points = placesOn(features, today).flatMap(pointsIn)
    const fewPoints = thinned(points, MOST_POINTS_LATER)
    // Tomorrow has the sun of today, and all of it.
    const daysLater = [1, ...LATER_DAYS].map((days) => addDays(today, days))
    const task: ComputeTasks['explain'] = {
      scene,
      readings,
      days: [
        looksFrom(fromMs, LOOK_EVERY_MS, garden, today, thinned(points, MOST_POINTS)),
        ...daysLater.map((day) =>
          looksFrom(morningOf(day, garden.timeZone), LATER_LOOK_EVERY_MS, garden, day, fewPoints),
        ),
      ],
      most: TELLING_SHOWN,
      shown: EXPLANATIONS_SHOWN,
    }
    const { telling, ...found } = await pool.run('explain', task)
    const [now, ...later] = telling as [TellingLook[], ...TellingLook[][]]
    const [tomorrow, ...days] = later.map((looks, k) => ({ day: daysLater[k]!, looks }))
    return {
      since,
      readings: taps,
      logs: logs.map((l) => l.record),
      ...found,
      telling: now,
      later: dayWorthWaitingFor(tomorrow!.looks, days),
    }
  })
}

/** The last fortnight of a log tells how things stand; more only weighs the same again. */
const MOST_LOG_READINGS = 40

function logOf(
  scene: Scene,
  row: LogRow,
  places: ReadonlyMap<string, Place>,
  sinceMs: number,
): { record: LightLogView; readings: Reading[] } {
  const { readings, steps, cloudy, undecided } = logReadings(scene, {
    id: row.id,
    x: row.x,
    y: row.y,
    ...surfaceOf(places.get(row.place_id ?? '')),
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
export const surfaceOf = (place: Place | undefined) => ({
  z: surfaceHeightM(place),
  ground: place?.ground ?? null,
})

/** An hour after midnight on most days, told from noon, which every day has in every zone. */
const morningOf = (day: string, timeZone: string): number =>
  instantsOf(`${day}T12:00`, timeZone)[0]! - 11 * 3_600_000

/** What could be looked at from an instant of a day to its end, at some points. */
function looksFrom(
  fromMs: number,
  everyMs: number,
  { timeZone }: { timeZone: string },
  day: string,
  points: readonly Omit<Look, 'instantMs'>[],
): Look[] {
  const looks: Look[] = []
  for (let ms = fromMs; civilDate(new Date(ms), timeZone) === day; ms += everyMs)
    for (const p of points) looks.push({ instantMs: ms, ...p })
  return looks
}

const LOOK_EVERY_MS = 20 * 60_000
/** Days to come are looked through by the fortnight, at fewer points and less often: which of them, not where on it. */
const LATER_DAYS = [14, 28, 42, 56, 70, 84, 98, 112]
const LATER_LOOK_EVERY_MS = 60 * 60_000
const MOST_POINTS_LATER = 24

function pointsIn(place: Place): Omit<Look, 'instantMs'>[] {
  const surface = surfaceOf(place)
  if (place.kind === 'container') return [{ x: place.x, y: place.y, ...surface }]
  const found: Omit<Look, 'instantMs'>[] = []
  const raster = rasterOver([place.ring], LOOK_EVERY_M)
  for (let i = 0; i < raster.count; i++) found.push({ x: raster.x[i]!, y: raster.y[i]!, ...surface })
  return found
}

/** Evenly taken down to what can be weighed in a moment. */
function thinned<T>(points: readonly T[], most: number): T[] {
  const every = Math.max(1, points.length / most)
  return Array.from({ length: Math.min(points.length, most) }, (_, i) => points[Math.floor(i * every)]!)
}
