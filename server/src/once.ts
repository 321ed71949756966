import type { Db } from './database/connect.ts'
import { Refusal } from './errors.ts'
import { hashOf } from './hashOf.ts'

/** A write as a person's device sent it. */
export interface Write {
  key: string
  personId: string
  /** What was asked, to catch one key used for two things. */
  request: unknown
}

/** The answer of a write that was done already, where its key was used. */
export async function answeredBefore(db: Db, write: Write): Promise<{ answer: unknown } | undefined> {
  const earlier = await db('writes').where({ idempotency_key: write.key }).first()
  if (!earlier) return undefined
  if (earlier.person_id !== write.personId || earlier.request_hash !== hashOf(write.request))
    throw new Refusal(409, 'This key was already used for another request.')
  return { answer: earlier.answer }
}

/** Two changes that waited for each other crosswise; the database ended one of them, and nothing of it was kept. */
const isDeadlock = (error: unknown) => ['40P01', '40001'].includes((error as { code?: string }).code ?? '')
const MOST_TRIES = 4

/**
 * Does a write once, whole or not at all: the key, the change and the answer are one transaction. A repeat gets the
 * first answer again, where it is kept; two at the same moment wait for each other on the key.
 */
export async function once<T>(
  db: Db,
  write: Write,
  change: (trx: Db) => Promise<T>,
  { keepAnswer = true } = {},
): Promise<T> {
  const requestHash = hashOf(write.request)
  for (let attempt = 1; ; attempt++)
    try {
      return await db.transaction(async (trx) => {
        const claimed = await trx('writes')
          .insert({ idempotency_key: write.key, person_id: write.personId, request_hash: requestHash })
          .onConflict('idempotency_key')
          .ignore()
          .returning('idempotency_key')
        if (claimed.length === 0) return (await answeredBefore(trx, write))!.answer as T
        const answer = await change(trx)
        await trx('writes')
          .where({ idempotency_key: write.key })
          .update({ answer: JSON.stringify(keepAnswer ? (answer ?? null) : null) })
        return answer
      })
    } catch (error) {
      if (!isDeadlock(error) || attempt >= MOST_TRIES) throw error
    }
}

/** Keys are kept for so long: a device that was away longer sends what the record knows by its own id. */
const KEPT_DAYS = 90

export async function forgetOldWrites(db: Db): Promise<void> {
  await db('writes').whereRaw(`created_at < now() - interval '${KEPT_DAYS} days'`).delete()
}
