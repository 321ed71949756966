import { nextTag } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { Refusal } from '../errors.ts'
import { putBackOnBench, takeForPlanting } from '../store/bench.ts'
import { closeJobs, insertJobPlantings, insertJobRecord, type Job, type Sets } from '../store/jobs.ts'
import { insertPlantings, listTags, plantedBy, withdrawPlanting } from '../store/plantings.ts'
import { findTaxon } from '../store/taxa.ts'
import type { Recording } from './recording.ts'

/**
 * A step of a scheme that plants: what was planted stands in the garden from that day, under the next tag. What was in hand is taken off
 * the bench, what waited there longest first; the rest is bought.
 *
 * @throws {Refusal} where nobody says how many, or where it was to stand is no place any more
 */
export async function planted(recording: Recording, sets: Sets): Promise<void> {
  const { trx, gardenId, practiceId, personId, job, jobs, done } = recording
  const count = done.lived
  if (count === undefined) throw new Refusal(422, 'Say how many were planted.')
  if (count === 0) return
  const taxon = await findTaxon(trx, practiceId, sets.botanical)
  if (!taxon || !job.placeId)
    throw new Refusal(409, `${sets.botanical} has no place to be planted in any more.`)
  const id = randomUUID()
  const from = await takeForPlanting(trx, gardenId, taxon.id, {
    most: Math.min(count, sets.have),
    on: done.on,
  })
  await insertPlantings(trx, [
    {
      id,
      gardenId,
      taxonId: taxon.id,
      tag: nextTag(await listTags(trx, gardenId)),
      plantedOn: done.on,
      count,
      source: from.length === 0 ? 'bought' : from.some((f) => f.isDivision) ? 'division' : 'moved',
      parentId: from[0]?.fromPlantingId ?? null,
      placeId: job.placeId,
      x: sets.x,
      y: sets.y,
      outline: sets.outline,
      note: done.note,
      personId,
      jobId: job.id,
    },
  ])
  for (const { benchId } of from) await trx('bench').where({ id: benchId }).update({ planting_id: id })
  // What is done to all that is planted together is done to it.
  const later = followersOf(job, jobs)
  await insertJobPlantings(
    trx,
    gardenId,
    [job, ...later].map((j) => ({ id: j.id, plantingIds: [id] })),
  )
}

/** Open steps of the same scheme that come after one, one by one. */
function followersOf(job: Job, jobs: readonly Job[]): Job[] {
  const after = jobs.filter(
    (j) => j.schemeId === job.schemeId && j.state === 'open' && j.after.some((o) => o.id === job.id),
  )
  return [...new Set([...after, ...after.flatMap((j) => followersOf(j, jobs))])]
}

/** A step that plants what stands in the garden already: it was planted by it, on the day on which that was. */
export async function plantedAlready(
  trx: Db,
  of: { gardenId: string; personId: string },
  jobId: string,
  plantingId: string,
  minutes: number,
): Promise<void> {
  const { planted_on: on, planted_count: lived } = await trx('plantings').where({ id: plantingId }).first()
  await closeJobs(trx, [jobId], 'done')
  const done = { on, minutes, lived, used: null, note: null, deviceAt: null }
  await insertJobRecord(trx, { jobId, ...of }, done)
  await trx('plantings').where({ id: plantingId }).update({ planted_by: jobId })
  await insertJobPlantings(trx, of.gardenId, [{ id: jobId, plantingIds: [plantingId] }])
}

/**
 * What was planted by a step was never there; what was taken off the bench waits again.
 *
 * @throws {Refusal} where something has happened to it since
 */
export async function takeBackPlanted(trx: Db, job: Job): Promise<void> {
  const planting = await plantedBy(trx, job.id)
  if (!planting) return
  if (planting.hasGoneOn)
    throw new Refusal(
      409,
      `${planting.tag} has been looked at or handled since it was planted: this record can no longer be taken back.`,
    )
  await putBackOnBench(trx, planting.id)
  await trx('job_plantings').where({ planting_id: planting.id }).delete()
  await withdrawPlanting(trx, planting.id)
}
