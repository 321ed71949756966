import {
  clockOffsetHours,
  readContainers,
  readLightLog,
  readObservations,
  readPlan,
  readPlantings,
  readSoil,
  readTaxa,
  readWeather,
  type ContainerRow,
  type FileResult,
  type IsoDate,
  type Located,
  type LuxSample,
  type ObservationRow,
  type Plan,
  type Planted,
  type PlantingRow,
  type Scene,
} from '@border/core'
import type { ComputePool } from './compute.ts'

// Files are read on a thread: a large one takes seconds.

interface Text {
  text: string
}
export const planFile = ({ text }: Text): FileResult<Plan> => readPlan(text)
export const plantingsFile = ({
  text,
  knows,
  today,
}: Text & { knows: Parameters<typeof readPlantings>[1]; today: IsoDate }): FileResult<
  Located<PlantingRow & Planted>[]
> => readPlantings(text, knows, today)
export const weatherFile = ({ text }: Text): ReturnType<typeof readWeather> => readWeather(text)
export const taxaFile = ({ text }: Text): ReturnType<typeof readTaxa> => readTaxa(text)
export const observationsFile = ({
  text,
  plantings,
  today,
}: Text & {
  plantings: Parameters<typeof readObservations>[1]
  today: IsoDate
}): FileResult<ObservationRow[]> => readObservations(text, plantings, today)

export const containersFile = ({ text }: Text): FileResult<ContainerRow[]> => readContainers(text)

export const soilFile = ({
  text,
  places,
  today,
}: Text & { places: string[]; today: IsoDate }): ReturnType<typeof readSoil> =>
  readSoil(text, new Set(places), today)
/** A logger's samples, and by how many hours its clock seems to be out where that can be told; 0 where it cannot. */
export function logFile({
  text,
  scene,
  timeZone,
  nowMs,
  name,
}: Text & { scene: Scene; timeZone: string; nowMs: number; name: string }): FileResult<{
  samples: LuxSample[]
  clockOutHours: number
}> {
  const read = readLightLog(text, timeZone, nowMs, name)
  return read.ok
    ? { ok: true, value: { samples: read.value, clockOutHours: clockOffsetHours(scene, read.value) ?? 0 } }
    : read
}

const files = {
  planFile,
  plantingsFile,
  containersFile,
  weatherFile,
  taxaFile,
  observationsFile,
  soilFile,
  logFile,
}
type Files = typeof files

/** Reads a file of a kind. */
export type ReadFile = <Name extends keyof Files>(
  name: Name,
  task: Parameters<Files[Name]>[0],
) => Promise<ReturnType<Files[Name]>>

/** Where nobody else waits: a command, a test. */
export const readHere: ReadFile = (name, task) =>
  Promise.resolve((files[name] as (task: unknown) => never)(task))

/** While others are served. */
export const readOn =
  (pool: ComputePool): ReadFile =>
  (name, task) =>
    pool.run(name, task as never) as never
