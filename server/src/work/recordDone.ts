import { aftercareDays, aftercareWindow, dayMonthYear, type IsoDate } from '@border/core'
import type { z } from 'zod'
import type { jobDoneRequest, PlantingView } from '@border/contract'
import type { Db } from '../database/connect.ts'
import type { TrulyNoted } from '../deviceClock.ts'
import { notFound, Refusal } from '../errors.ts'
import { putOnBench, withdrawFromBench, type NewOnBench } from '../store/bench.ts'
import {
  closeJobs,
  insertJobRecord,
  isPast,
  listJobs,
  reopenJob,
  setWindow,
  withdrawJobRecord,
  type Job,
} from '../store/jobs.ts'
import {
  insertEvents,
  listPlantings,
  moveSite,
  withdrawEventsOf,
  withdrawMove,
  type EventFacts,
} from '../store/plantings.ts'
import { planted, takeBackPlanted } from './planted.ts'
import type { Recorder, Recording } from './recording.ts'

/** @throws {Refusal} for work of a day that is still to come */
export function requireDone(on: IsoDate, today: IsoDate): void {
  if (on > today)
    throw new Refusal(422, `${dayMonthYear(on)} lies ahead: record work on or after the day it is done.`)
}

/** Records a job as really done, with all that follows from it. Run inside a transaction that holds the garden. */
export async function recordDone(
  trx: Db,
  who: Recorder,
  jobId: string,
  done: TrulyNoted<z.infer<typeof jobDoneRequest>>,
): Promise<void> {
  const { gardenId, personId, today } = who
  const jobs = await listJobs(trx, gardenId)
  const job = jobs.find((j) => j.id === jobId)
  if (!job) throw notFound('This job')
  if (job.state !== 'open')
    throw new Refusal(
      409,
      job.state === 'done'
        ? 'This job is already recorded as done.'
        : 'This job was dropped by a later decision.',
    )
  requireDone(done.on, today)
  requireOrder(job, jobs, done.on)
  await closeJobs(trx, [job.id], 'done')
  await insertJobRecord(
    trx,
    { jobId, gardenId, personId },
    {
      on: done.on,
      minutes: done.minutes,
      lived: done.lived ?? null,
      used: done.used ?? null,
      note: done.note || null,
      deviceAt: done.deviceAt,
    },
  )
  const recording: Recording = { ...who, trx, job, jobs, done }
  await leftOver(recording)
  if (job.kind === 'move') await moved(recording)
  if (job.kind === 'remove' && job.plantingId) await removed(recording)
  if (job.kind === 'lift' && job.schemeId) await toBench(recording)
  if (job.sets) await planted(recording, job.sets)
  if (job.kind === 'aftercare' && done.lived !== undefined) await counted(recording, done.lived)
  for (const look of looksAfter(job, jobs).filter((j) => j.state === 'open'))
    if (done.lived === 0) await closeJobs(trx, [look.id], 'dropped')
    else await setWindow(trx, look.id, aftercareWindow(done.on, aftercareDays(look.key)!))
}

/** Pieces of a division that found no place. */
async function leftOver({ trx, gardenId, personId, job, done }: Recording): Promise<void> {
  const { on, leftOver: pieces = [] } = done
  if (pieces.length === 0) return
  if (job.kind !== 'divide') throw new Refusal(422, 'Only a division leaves pieces over.')
  const handled = new Set(job.plantings.map((p) => p.id))
  const items: NewOnBench[] = []
  for (const { plantingId, count } of pieces) {
    if (!handled.has(plantingId)) throw new Refusal(422, 'This job does not divide that planting.')
    const { taxon_id: taxonId } = await trx('plantings').where({ id: plantingId }).first('taxon_id')
    items.push({ taxonId, count, since: on, fromPlantingId: plantingId, jobId: job.id })
  }
  await putOnBench(trx, { gardenId, personId }, items)
}

/** Takes back a record made by mistake: everything that followed from it stands as before. Run inside a transaction. */
export async function takeBackDone(trx: Db, gardenId: string, jobId: string): Promise<void> {
  const jobs = await listJobs(trx, gardenId)
  const job = jobs.find((j) => j.id === jobId)
  if (!job) throw notFound('This job')
  if (job.state !== 'done') throw new Refusal(409, 'This job is not recorded as done.')
  const next = jobs.find((j) => j.state === 'done' && j.after.some((o) => o.id === job.id))
  if (next) throw new Refusal(409, `“${next.title}” came after it and is recorded: take that back first.`)
  if (job.kind === 'move' && !(await withdrawMove(trx, job.plantingId!, job.id)))
    throw new Refusal(409, 'The planting has moved on since: this record can no longer be taken back.')
  if (job.sets) await takeBackPlanted(trx, job)
  for (const look of looksAfter(job, jobs)) {
    if (look.state !== 'open') await reopenJob(trx, look.id)
    await setWindow(trx, look.id, aftercareWindow(job.window.bestFrom, aftercareDays(look.key)!))
  }
  if (!(await withdrawFromBench(trx, job.id)))
    throw new Refusal(409, 'Pieces of it have left the bench since: this record can no longer be taken back.')
  await withdrawJobRecord(trx, job.id)
  await withdrawEventsOf(trx, job.id)
  // Nothing had asked for it: there is nothing left to do.
  if (isPast(job)) await closeJobs(trx, [job.id], 'dropped')
  else await reopenJob(trx, job.id)
}

/** Looks that follow the day on which a job is done. */
const looksAfter = (job: Job, jobs: readonly Job[]): Job[] =>
  jobs.filter((j) => j.kind === 'aftercare' && j.after.some((o) => o.id === job.id))

function requireOrder(job: Job, jobs: readonly Job[], on: IsoDate): void {
  const byId = new Map(jobs.map((j) => [j.id, j]))
  for (const { id } of job.after) {
    const first = byId.get(id)
    if (first?.state === 'open')
      throw new Refusal(409, `“${first.title}” comes first: record it done before this.`)
    if (first?.done && first.done.on > on)
      throw new Refusal(422, `“${first.title}” was done on ${dayMonthYear(first.done.on)}, after this day.`)
  }
}

/** The planting that a job handles, as it stood on the day of its record. */
async function handled({ trx, gardenId, job, done }: Recording): Promise<PlantingView> {
  const plantingId = job.plantingId ?? (job.plantings.length === 1 ? job.plantings[0]!.id : null)
  const [planting] = plantingId ? await listPlantings(trx, gardenId, done.on, plantingId) : []
  if (!planting) throw new Refusal(409, 'This planting did not stand in the garden on that day.')
  return planting
}

const record = (
  { trx, gardenId, personId, job, done }: Recording,
  plantingId: string,
  event: { kind: 'moved' | 'counted'; living: number; facts: EventFacts; note?: string | undefined },
): Promise<void> =>
  insertEvents(trx, [{ gardenId, plantingId, on: done.on, personId, jobId: job.id, ...event }])

async function moved(recording: Recording): Promise<void> {
  const { trx, gardenId, job, done } = recording
  const planting = await handled(recording)
  if (!job.target) throw new Refusal(409, 'This move has no place to go to any more.')
  if (done.lived === undefined) throw new Refusal(422, 'Say how many were replanted alive.')
  if (done.lived > planting.livingCount)
    throw new Refusal(422, `Only ${planting.livingCount} were living before the move.`)
  if (done.on < planting.inPlaceSince)
    throw new Refusal(422, `It only came to its place on ${dayMonthYear(planting.inPlaceSince)}.`)
  await moveSite(trx, {
    plantingId: planting.id,
    gardenId,
    ...job.target,
    on: done.on,
    radiusM: planting.radiusM,
    jobId: job.id,
  })
  await record(recording, planting.id, {
    kind: 'moved',
    living: done.lived,
    facts: {
      fromPlaceId: planting.placeId,
      placeId: job.target.placeId,
      of: planting.livingCount,
      minutes: done.minutes,
    },
    note: done.note,
  })
}

/** What is taken out lives no longer; its tag and its story stay. */
async function removed(recording: Recording): Promise<void> {
  const planting = await handled(recording)
  await record(recording, planting.id, {
    kind: 'counted',
    living: 0,
    facts: { of: planting.livingCount, takenOut: true },
  })
}

/** What is lifted for a scheme waits on the bench; its tag and its story stay. */
async function toBench(recording: Recording): Promise<void> {
  const { trx, job, done } = recording
  const planting = await handled(recording)
  const lived = done.lived ?? planting.livingCount
  if (lived > planting.livingCount)
    throw new Refusal(422, `Only ${planting.livingCount} were living before they were lifted.`)
  await record(recording, planting.id, {
    kind: 'counted',
    living: 0,
    facts: { of: planting.livingCount, toBench: true },
    note: done.note,
  })
  if (lived === 0) return
  const { taxon_id: taxonId } = await trx('plantings').where({ id: planting.id }).first('taxon_id')
  await putOnBench(trx, recording, [
    { taxonId, count: lived, since: done.on, fromPlantingId: planting.id, jobId: job.id },
  ])
}

async function counted(recording: Recording, lived: number): Promise<void> {
  const planting = await handled(recording)
  if (lived > planting.livingCount)
    throw new Refusal(422, `Only ${planting.livingCount} were living at the last count.`)
  await record(recording, planting.id, {
    kind: 'counted',
    living: lived,
    facts: { of: planting.livingCount },
  })
}
