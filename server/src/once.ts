import { createHash } from 'node:crypto'
import type { Db } from './database/connect.ts'
import { Refusal } from './errors.ts'

/** A write as a person's device sent it. */
export interface Write {
  key: string
  personId: string
  /** What was asked, to catch one key used for two things. */
  request: unknown
}

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
  const requestHash = createHash('sha256').update(JSON.stringify(write.request)).digest('hex')
  return db.transaction(async (trx) => {
    const claimed = await trx('writes')
      .insert({ idempotency_key: write.key, person_id: write.personId, request_hash: requestHash })
      .onConflict('idempotency_key')
      .ignore()
      .returning('idempotency_key')
    if (claimed.length === 0) {
      const earlier = await trx('writes').where({ idempotency_key: write.key }).first()
      if (earlier.person_id !== write.personId || earlier.request_hash !== requestHash)
        throw new Refusal(409, 'This key was already used for another request.')
      return earlier.answer as T
    }
    const answer = await change(trx)
    await trx('writes')
      .where({ idempotency_key: write.key })
      .update({ answer: JSON.stringify(keepAnswer ? (answer ?? null) : null) })
    return answer
  })
}
