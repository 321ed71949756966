import { createHash } from 'node:crypto'
import { codeVersion } from '../codeVersion.ts'
import type { Db } from '../database/connect.ts'

/** What nobody has asked for anew in so long is worked out again when it is. */
const KEPT_DAYS = 30

export async function findKept<T>(db: Db, hash: string): Promise<T | undefined> {
  return (await db('computed').where({ hash }).first<{ result: T } | undefined>('result'))?.result
}

export async function keep(db: Db, hash: string, result: unknown): Promise<void> {
  await db('computed')
    .insert({ hash, result: JSON.stringify(result ?? null) })
    .onConflict('hash')
    .ignore()
}

/**
 * A heavy result that is of no one garden, by all that it is worked out from: found, or worked out and kept for every process.
 */
export async function kept<T>(db: Db, from: unknown, work: () => Promise<T>): Promise<T> {
  const hash = createHash('sha256')
    .update(JSON.stringify([codeVersion, from]))
    .digest('hex')
  const known = await findKept<T>(db, hash)
  if (known !== undefined) return known
  const result = await work()
  await keep(db, hash, result)
  return result
}

/** Forgets results that are old; run now and then. */
export async function forgetOldResults(db: Db): Promise<void> {
  await db('computed').whereRaw(`created_at < now() - interval '${KEPT_DAYS} days'`).delete()
}
