import { codeVersion } from '../codeVersion.ts'
import type { Db } from '../database/connect.ts'
import { hashOf } from '../hashOf.ts'

/** What nobody has asked for anew in so long is worked out again when it is. */
const KEPT_DAYS = 30

/** Results by their names, of those that are kept. */
export async function findKept(db: Db, hashes: readonly string[]): Promise<Map<string, unknown>> {
  const rows = await db('computed')
    .whereIn('hash', [...hashes])
    .select<{ hash: string; result: unknown }[]>('hash', 'result')
  return new Map(rows.map((r) => [r.hash, r.result]))
}

/** What was worked out of a garden. */
export interface KeptView {
  /** Of all that it was worked out from. */
  hash: string
  /** What it is a later state of. */
  viewOf: string
  result: unknown
}

const written = (result: unknown) => JSON.stringify(result ?? null)

/** Keeps views, each in place of the one before it, which nobody will ask for again. */
export async function keepLatest(db: Db, views: readonly KeptView[]): Promise<void> {
  if (views.length === 0) return
  await db('computed')
    .insert(
      views.map(({ hash, viewOf, result }) => ({
        hash,
        view_of: viewOf,
        result: written(result),
        created_at: db.fn.now(),
      })),
    )
    .onConflict('view_of')
    .merge()
}

/**
 * A heavy result that is of no one garden, by all that it is worked out from: found, or worked out and kept for every process.
 */
export async function kept<T>(db: Db, from: unknown, work: () => Promise<T>): Promise<T> {
  const hash = hashOf([codeVersion, from])
  const known = (await findKept(db, [hash])).get(hash)
  if (known !== undefined) return known as T
  const result = await work()
  await db('computed')
    .insert({ hash, result: written(result) })
    .onConflict('hash')
    .ignore()
  return result
}

/** Forgets results that are old; run now and then. */
export async function forgetOldResults(db: Db): Promise<void> {
  await db('computed').whereRaw(`created_at < now() - interval '${KEPT_DAYS} days'`).delete()
}
