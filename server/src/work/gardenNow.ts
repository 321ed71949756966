import type { GardenNow } from '@border/contract'
import { addDays, daysBetween, openVerdicts, openWindows, workingDays, type IsoDate } from '@border/core'
import type { GardenReader } from '../reader.ts'
import { findCrew } from '../store/crews.ts'
import { listOpenSuspicions } from '../store/light.ts'
import { assessGardenOn } from './assess.ts'
import type { ComputePool } from './compute.ts'
import { HORIZON_DAYS } from './schedule.ts'

/** What is told of a garden beside whichever screen of it is open, on a day. */
export async function gardenNow(reader: GardenReader, pool: ComputePool, on: IsoDate): Promise<GardenNow> {
  const { db, garden, today } = reader
  const { assessments } = await assessGardenOn(reader, pool, on)
  const open = (await reader.jobs()).filter((j) => j.state === 'open')
  const crew = await findCrew(db, garden.crewId)
  return {
    outside: assessments.filter((a) => a.outside).length,
    openVerdicts: openVerdicts(assessments, await reader.decisions(), on).length,
    openJobs: open.length,
    suspicions: (await listOpenSuspicions(db, garden.id)).length,
    openWindows: openWindows(open.map((j) => j.window)),
    workingDays: workingDays(crew, today, addDays(today, HORIZON_DAYS)).map((d) => daysBetween(today, d.day)),
  }
}
