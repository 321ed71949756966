import type { DiagnosisView, FeatureView, JobView, PlantingView } from '@border/contract'
import type { Assessment, FileProblem, FileResult, IsoDate } from '@border/core'
import type { Db } from '../database/connect.ts'
import { featuresOn, openGarden } from '../reader.ts'
import { findGardenForWork, placesByName } from '../store/gardens.ts'
import { jobView } from '../store/jobs.ts'
import { insertSoilReadings } from '../store/weather.ts'
import { assessGardenOn } from './assess.ts'
import { bringCareUpToDate } from './care.ts'
import { ComputePool, computeThreads } from './compute.ts'
import { diagnoseGarden } from './diagnosis.ts'
import { readHere } from './fileTasks.ts'
import { keepLooks, readLooks } from './observationsFile.ts'

/** What was seen and measured in a garden, as files. */
export interface SeenFiles {
  /** `observations.csv` */
  observations?: string | undefined
  /** `soil.csv` */
  soil?: string | undefined
}

/**
 * Keeps what files tell of a garden beside its plan and plantings: all of it, or nothing.
 *
 * @returns every fault of every file where there is one
 */
export async function keepSeenFiles(
  db: Db,
  owner: { gardenId: string; personId: string },
  files: SeenFiles,
  today: IsoDate,
): Promise<FileResult<void>> {
  const garden = await gardenOf(db, owner.gardenId)
  const places = await placesByName(db, garden.id)
  const looks =
    files.observations === undefined
      ? undefined
      : await readLooks(db, garden, today, files.observations, readHere)
  const soil =
    files.soil === undefined
      ? undefined
      : await readHere('soilFile', { text: files.soil, places: [...places.keys()], today })
  const problems: FileProblem[] = [looks, soil].flatMap((read) => (read && !read.ok ? read.problems : []))
  if (problems.length > 0) return { ok: false, problems }
  await db.transaction(async (trx) => {
    if (looks?.ok) await keepLooks(trx, garden, owner.personId, looks.value)
    if (soil?.ok)
      await insertSoilReadings(
        trx,
        owner,
        soil.value.map((r) => ({ ...r, placeId: r.place ? places.get(r.place.toLowerCase())! : null })),
      )
  })
  return { ok: true, value: undefined }
}

/** What is advised of a garden on a day, as its screens say it. */
export interface Advice {
  /** The day the light is compared with. */
  then: IsoDate
  /** What stands and lives. */
  features: FeatureView[]
  plantings: PlantingView[]
  assessments: Assessment[]
  diagnosis: DiagnosisView
  /** Open work of the coming year. */
  jobs: JobView[]
}

/**
 * Judges a garden as its screens do: every planting, what its signs say, and the work of the coming year.
 *
 * @param then the day that the light is compared with; the one most worth it unless given
 */
export async function adviceOf(db: Db, gardenId: string, on: IsoDate, then?: IsoDate): Promise<Advice> {
  const threads = computeThreads()
  try {
    const pool = new ComputePool(threads)
    const garden = await gardenOf(db, gardenId)
    // Nobody else writes to it, so that one try is enough.
    await bringCareUpToDate(db, pool, garden, on)
    const reader = openGarden(db, garden, on)
    const assessed = await assessGardenOn(reader, pool, on, then)
    const diagnosis = await diagnoseGarden(reader, pool)
    const jobs = (await reader.jobs()).filter((j) => j.state === 'open').map((j) => jobView(j, on))
    return {
      then: assessed.then,
      features: await featuresOn(reader),
      plantings: await reader.plantings(),
      assessments: assessed.assessments,
      diagnosis,
      jobs,
    }
  } finally {
    await threads.destroy()
  }
}

async function gardenOf(db: Db, gardenId: string) {
  const garden = await findGardenForWork(db, gardenId)
  if (!garden) throw new Error(`There is no garden ${gardenId}`)
  return garden
}
