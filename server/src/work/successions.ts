import type { SuccessionView, successorRequest } from '@border/contract'
import { regionsAt, successorJob } from '@border/core'
import type { z } from 'zod'
import type { Db } from '../database/connect.ts'
import { derive } from '../derived.ts'
import { notFound, Refusal } from '../errors.ts'
import { featuresOn, type GardenReader } from '../reader.ts'
import { askCareJob, closeJobs, findJob, findJobByKey } from '../store/jobs.ts'
import { insertSuccessionWord, listSuccessionWords, withdrawSuccessionWord } from '../store/successions.ts'
import type { ComputeTasks } from './computeTasks.ts'
import { conditionsOfGarden } from './conditions.ts'
import { diagnoseGarden } from './diagnosis.ts'
import { recordOfGarden } from './record.ts'
import type { Failing } from './successionTasks.ts'
import type { ComputePool } from './compute.ts'

/** Trees and shrubs of consequence that fail, with what could be planted now to stand when they go. */
export async function failingOf(reader: GardenReader, pool: ComputePool): Promise<Failing[]> {
  const { today } = reader
  return derive(reader, ['successions', [today]], async () => {
    const { climate } = await reader.climate()
    if (!climate) return []
    const task: ComputeTasks['successions'] = {
      garden: await reader.standing(),
      features: await featuresOn(reader),
      conditions: await conditionsOfGarden(reader, pool),
      library: (await reader.taxa()).map((t) => t.taxon),
      climate,
      on: today,
      regions: regionsAt(reader.garden),
      suspected: (await diagnoseGarden(reader, pool)).suspected,
      record: (await recordOfGarden(reader, pool)).taxa.map(({ taxon, again, outliers }) => ({
        taxon,
        again,
        outliers,
      })),
    }
    return pool.run('successions', task)
  })
}

const subjectOf = (f: { plantingId: string | null; featureId: string | null }): string =>
  (f.plantingId ?? f.featureId)!

/** Those that fail, with the word that was said of each. */
export async function successionsOf(reader: GardenReader, pool: ComputePool): Promise<SuccessionView[]> {
  const words = await wordsOnSuccessors(reader.db, reader.garden.id)
  return (await failingOf(reader, pool)).map((f) => ({
    subjectId: subjectOf(f),
    name: f.name,
    placeId: f.placeId,
    says: f.succession.says,
    choices: f.succession.choices,
    word: words.get(subjectOf(f)) ?? null,
  }))
}

/** What was said of successors, by whom they are to follow. */
export const wordsOnSuccessors = async (
  db: Db,
  gardenId: string,
): Promise<ReadonlyMap<string, NonNullable<SuccessionView['word']>>> =>
  new Map(
    (await listSuccessionWords(db, gardenId)).map(({ state, botanical, jobId, ...of }) => [
      subjectOf(of),
      { state, botanical, jobId },
    ]),
  )

/**
 * Keeps a person's word on a successor; a chosen one becomes a job. Run inside a transaction that holds the garden.
 *
 * @param failing those that fail, as the garden stands
 */
export async function sayOfSuccessor(
  trx: Db,
  reader: GardenReader,
  personId: string,
  subjectId: string,
  word: z.infer<typeof successorRequest>,
  failing: readonly Failing[],
): Promise<void> {
  const { garden, today } = reader
  const known = (await listSuccessionWords(trx, garden.id)).find((w) => subjectOf(w) === subjectId)
  if (word.state === 'open') {
    if (!known) throw notFound('A word on this')
    await withdrawSuccessionWord(trx, known.id)
    const job = known.jobId ? await findJob(trx, garden.id, known.jobId) : undefined
    if (job?.state === 'open') await closeJobs(trx, [job.id], 'dropped')
    return
  }
  if (known) throw new Refusal(409, 'You have said what is to be done here: take that back first.')
  const found = failing.find((f) => subjectOf(f) === subjectId)
  if (!found) throw notFound('A failing tree or shrub')
  const owner = { gardenId: garden.id, personId }
  const { plantingId, featureId } = found
  if (word.state === 'dismissed') {
    await insertSuccessionWord(trx, owner, {
      plantingId,
      featureId,
      state: 'dismissed',
      botanical: null,
      jobId: null,
    })
    return
  }
  const { climate } = await reader.climate()
  if (!climate) throw new Refusal(409, 'There is no climate record here to plan planting by.')
  const chosen = (await reader.taxa()).find((t) => t.taxon.botanical === word.botanical)
  if (!chosen) throw new Refusal(422, `${word.botanical} is not in the plant library.`)
  const job = successorJob(
    chosen.taxon,
    { subjectId, beside: found.name, placeId: found.placeId },
    climate,
    garden.schools,
    today,
  )
  if (!job) throw new Refusal(422, `${word.botanical} has no planting window in the usual year here.`)
  await askCareJob(trx, garden.id, job)
  const made = await findJobByKey(trx, garden.id, job.key)
  await insertSuccessionWord(trx, owner, {
    plantingId,
    featureId,
    state: 'planned',
    botanical: word.botanical,
    jobId: made?.id ?? null,
  })
}
