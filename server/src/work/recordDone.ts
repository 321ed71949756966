import { aftercareDays, aftercareWindow, dayMonthYear } from '@border/core'
import type { z } from 'zod'
import type { jobDoneRequest } from '@border/contract'
import type { Piscina } from 'piscina'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'
import { putOnBench, withdrawFromBench, type NewOnBench } from '../store/bench.ts'
import { listFeatures, type GardenAccess } from '../store/gardens.ts'
import {
  findJobRow,
  insertJobRecord,
  listDone,
  listJobPlantings,
  listJobOrder,
  listJobRows,
  setState,
  setWindow,
  withdrawJobRecord,
  type JobRow,
} from '../store/jobs.ts'
import { insertEvents, listPlantings, moveSite, withdrawEventsOf, withdrawMove } from '../store/plantings.ts'
import { planSeason } from './planSeason.ts'

/** Records a job as really done, with all that follows from it. Run inside a transaction. */
export async function recordDone(
  trx: Db,
  pool: Piscina,
  who: { personId: string; today: string },
  garden: Pick<GardenAccess, 'id'>,
  jobId: string,
  done: z.infer<typeof jobDoneRequest>,
): Promise<void> {
  const gardenId = garden.id
  const job = await findJobRow(trx, gardenId, jobId)
  if (!job) throw notFound('This job')
  if (job.state !== 'open')
    throw new Refusal(
      409,
      job.state === 'done'
        ? 'This job is already recorded as done.'
        : 'This job was dropped by a later decision.',
    )
  if (done.on > who.today)
    throw new Refusal(422, `${dayMonthYear(done.on)} lies ahead: record work on or after the day it is done.`)
  const rows = await listJobRows(trx, gardenId)
  await requireOrder(trx, gardenId, job, rows, done.on)
  await insertJobRecord(trx, {
    jobId,
    on: done.on,
    minutes: done.minutes,
    lived: done.lived ?? null,
    used: done.used ?? null,
    note: done.note || null,
    personId: who.personId,
  })
  await setState(trx, jobId, 'done')
  await leftOver(trx, who, gardenId, job, done)
  if (job.kind === 'move') await moved(trx, who, gardenId, job, rows, done)
  if (job.kind === 'remove' && job.planting_id)
    await removed(trx, who, gardenId, job, job.planting_id, done.on)
  if (job.kind === 'aftercare' && done.lived !== undefined)
    await counted(trx, who, gardenId, job, done.on, done.lived)
  await planSeason(trx, pool, garden, who.today)
}

/** Pieces of a division that found no place. */
async function leftOver(
  trx: Db,
  who: { personId: string },
  gardenId: string,
  job: JobRow,
  { on, leftOver: pieces = [] }: z.infer<typeof jobDoneRequest>,
): Promise<void> {
  if (pieces.length === 0) return
  if (job.kind !== 'divide') throw new Refusal(422, 'Only a division leaves pieces over.')
  const handled = new Set(
    (await listJobPlantings(trx, gardenId)).flatMap((p) => (p.jobId === job.id ? [p.plantingId] : [])),
  )
  const items: NewOnBench[] = []
  for (const { plantingId, count } of pieces) {
    if (!handled.has(plantingId)) throw new Refusal(422, 'This job does not divide that planting.')
    const { taxon_id: taxonId } = await trx('plantings').where({ id: plantingId }).first('taxon_id')
    items.push({ taxonId, count, since: on, fromPlantingId: plantingId, jobId: job.id })
  }
  await putOnBench(trx, { gardenId, personId: who.personId }, items)
}

/** Takes back a record made by mistake: everything that followed from it stands as before. Run inside a transaction. */
export async function takeBackDone(
  trx: Db,
  pool: Piscina,
  today: string,
  garden: Pick<GardenAccess, 'id'>,
  jobId: string,
): Promise<void> {
  const gardenId = garden.id
  const job = await findJobRow(trx, gardenId, jobId)
  if (!job) throw notFound('This job')
  if (job.state !== 'done') throw new Refusal(409, 'This job is not recorded as done.')
  const rows = await listJobRows(trx, gardenId)
  const after = (await listJobOrder(trx, gardenId)).filter((o) => o.beforeId === job.id).map((o) => o.afterId)
  const next = rows.find((r) => after.includes(r.id) && r.state === 'done')
  if (next) throw new Refusal(409, `“${next.title}” came after it and is recorded: take that back first.`)
  if (job.kind === 'move') {
    if (!(await withdrawMove(trx, job.planting_id!, job.id)))
      throw new Refusal(409, 'The planting has moved on since: this record can no longer be taken back.')
    for (const look of rows.filter((r) => r.decision_id === job.decision_id && r.kind === 'aftercare')) {
      await setState(trx, look.id, 'open')
      await setWindow(trx, look, aftercareWindow(job.plan.window.bestFrom, aftercareDays[look.key]!))
    }
  }
  if (!(await withdrawFromBench(trx, job.id)))
    throw new Refusal(409, 'Pieces of it have left the bench since: this record can no longer be taken back.')
  await withdrawJobRecord(trx, job.id)
  await withdrawEventsOf(trx, job.id)
  await setState(trx, job.id, 'open')
  await planSeason(trx, pool, garden, today)
}

async function requireOrder(
  trx: Db,
  gardenId: string,
  job: JobRow,
  rows: readonly JobRow[],
  on: string,
): Promise<void> {
  const before = (await listJobOrder(trx, gardenId))
    .filter((o) => o.afterId === job.id)
    .map((o) => o.beforeId)
  const done = new Map((await listDone(trx, gardenId)).map((d) => [d.jobId, d.on]))
  for (const id of before) {
    const first = rows.find((r) => r.id === id)
    const day = done.get(id)
    if (first && day === undefined)
      throw new Refusal(409, `“${first.title}” comes first: record it done before this.`)
    if (first && day !== undefined && day > on)
      throw new Refusal(422, `“${first.title}” was done on ${dayMonthYear(day)}, after this day.`)
  }
}

async function moved(
  trx: Db,
  who: { personId: string },
  gardenId: string,
  job: JobRow,
  rows: readonly JobRow[],
  done: z.infer<typeof jobDoneRequest>,
): Promise<void> {
  const [planting] = await listPlantings(trx, gardenId, done.on, job.planting_id)
  if (!planting || !job.target)
    throw new Refusal(409, 'This planting did not stand in the garden on that day.')
  if (done.lived === undefined) throw new Refusal(422, 'Say how many were replanted alive.')
  if (done.lived > planting.livingCount)
    throw new Refusal(422, `Only ${planting.livingCount} were living before the move.`)
  if (done.on < planting.inPlaceSince)
    throw new Refusal(422, `It only came to its place on ${dayMonthYear(planting.inPlaceSince)}.`)
  const features = await listFeatures(trx, gardenId)
  const name = (id: string) => features.find((f) => f.id === id)?.name ?? 'its place'
  await moveSite(trx, {
    plantingId: planting.id,
    gardenId,
    ...job.target,
    on: done.on,
    radiusM: planting.radiusM,
    jobId: job.id,
  })
  const note = done.note ? ` ${done.note}` : ''
  await insertEvents(trx, [
    {
      plantingId: planting.id,
      on: done.on,
      kind: 'moved',
      living: done.lived,
      says: `Moved from ${name(planting.placeId)} to ${name(job.target.placeId)}: ${done.lived} of ${planting.livingCount} replanted, ${done.minutes} min.${note}`,
      personId: who.personId,
      jobId: job.id,
    },
  ])
  for (const look of rows.filter(
    (r) => r.decision_id === job.decision_id && r.kind === 'aftercare' && r.state === 'open',
  )) {
    if (done.lived === 0) await setState(trx, look.id, 'dropped')
    else await setWindow(trx, look, aftercareWindow(done.on, aftercareDays[look.key]!))
  }
}

/** What is taken out lives no longer; its tag and its story stay. */
async function removed(
  trx: Db,
  who: { personId: string },
  gardenId: string,
  job: JobRow,
  plantingId: string,
  on: string,
): Promise<void> {
  const [planting] = await listPlantings(trx, gardenId, on, plantingId)
  if (!planting) throw new Refusal(409, 'This planting did not stand in the garden on that day.')
  await insertEvents(trx, [
    {
      plantingId,
      on,
      kind: 'counted',
      living: 0,
      says: `Taken out, ${planting.livingCount} living.`,
      personId: who.personId,
      jobId: job.id,
    },
  ])
}

async function counted(
  trx: Db,
  who: { personId: string },
  gardenId: string,
  job: JobRow,
  on: string,
  lived: number,
): Promise<void> {
  const [planting] = await listPlantings(trx, gardenId, on, job.planting_id)
  if (!planting) throw new Refusal(409, 'This planting did not stand in the garden on that day.')
  if (lived > planting.livingCount)
    throw new Refusal(422, `Only ${planting.livingCount} were living at the last count.`)
  await insertEvents(trx, [
    {
      plantingId: planting.id,
      on,
      kind: 'counted',
      living: lived,
      says: `${lived} of ${planting.livingCount} living.`,
      personId: who.personId,
      jobId: job.id,
    },
  ])
}
