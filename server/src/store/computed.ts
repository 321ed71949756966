import { createHash } from 'node:crypto'
import type { Db } from '../database/connect.ts'

const KEPT_DAYS = 30

/**
 * A heavy result by all that it is worked out from: found, or worked out and kept for every process.
 *
 * @param from everything the result depends on, the version of the computation among it
 */
export async function kept<T>(db: Db, from: unknown, work: () => Promise<T>): Promise<T> {
  const hash = createHash('sha256').update(JSON.stringify(from)).digest('hex')
  const known = await db('computed').where({ hash }).first('result')
  if (known) return known.result
  const result = await work()
  // What nobody has asked for anew in a month is worked out again when it is.
  await db.raw(`delete from computed where created_at < now() - interval '${KEPT_DAYS} days'`)
  await db('computed')
    .insert({ hash, result: JSON.stringify(result) })
    .onConflict('hash')
    .ignore()
  return result
}
