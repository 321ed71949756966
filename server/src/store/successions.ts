import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

/** A person’s word on who follows something that fails. */
export interface SuccessionWord {
  id: string
  /** Of a planting, or of something on the plan. */
  plantingId: string | null
  featureId: string | null
  state: 'planned' | 'dismissed'
  botanical: string | null
  jobId: string | null
}

/** What was said of successors in a garden, and stands. */
export const listSuccessionWords = (db: Db, gardenId: string): Promise<SuccessionWord[]> =>
  db('successions')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .select<SuccessionWord[]>(
      'id',
      'planting_id as plantingId',
      'feature_id as featureId',
      'state',
      'botanical',
      'job_id as jobId',
    )

/** Keeps a word on a successor. */
export async function insertSuccessionWord(
  db: Db,
  owner: { gardenId: string; personId: string },
  word: Omit<SuccessionWord, 'id'>,
): Promise<void> {
  await db('successions').insert({
    id: randomUUID(),
    garden_id: owner.gardenId,
    person_id: owner.personId,
    planting_id: word.plantingId,
    feature_id: word.featureId,
    state: word.state,
    botanical: word.botanical,
    job_id: word.jobId,
  })
}

/** Takes a word back; the successor is proposed again. */
export const withdrawSuccessionWord = async (db: Db, id: string): Promise<void> => {
  await db('successions').where({ id }).update({ withdrawn_at: db.fn.now() })
}
