import type { KnownTaxon } from '@border/contract'
import { isUnknown, type Taxon } from '@border/core'
import { randomUUID } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import type { Db } from '../database/connect.ts'
import { Refusal } from '../errors.ts'

/** A kind as a practice knows it, by its name in any case. */
export const findTaxon = async (
  db: Db,
  practiceId: string,
  botanical: string,
): Promise<{ id: string; taxon: Taxon } | undefined> => {
  const row = (await named(db, practiceId, botanical)) ?? (await named(db, null, botanical))
  return row && { id: row.id, taxon: row.traits }
}

interface TaxonRow {
  id: string
  practice_id: string | null
  traits: Taxon
  is_changed: boolean
}

/** The kinds a practice knows: its own, and the library's where it has none of the name. */
export const listTaxa = async (db: Db, practiceId: string) =>
  (await listEnterable(db, practiceId)).filter((t) => !isUnknown(t.taxon))

/** What a planting can be entered as: the kinds a practice knows, and that nobody knows what it is. */
export async function listEnterable(
  db: Db,
  practiceId: string,
): Promise<{ id: string; taxon: Taxon; own: KnownTaxon['own'] }[]> {
  const { rows } = await db.raw<{ rows: TaxonRow[] }>(
    `select distinct on (lower(t.botanical)) t.id, t.practice_id, t.traits,
            exists (select from taxa s where s.practice_id is null and lower(s.botanical) = lower(t.botanical)) as is_changed
     from taxa t where t.practice_id is null or t.practice_id = ?
     order by lower(t.botanical), t.practice_id nulls last`,
    [practiceId],
  )
  return rows.map((r) => ({
    id: r.id,
    taxon: r.traits,
    own: r.practice_id === null ? null : r.is_changed ? 'changed' : 'new',
  }))
}

const named = (db: Db, practiceId: string | null, botanical: string) =>
  db('taxa')
    .where({ practice_id: practiceId })
    .whereRaw('lower(botanical) = lower(?)', [botanical])
    .first<{ id: string; traits: Taxon } | undefined>('id', 'traits')

/**
 * Keeps a kind of a practice's own: a new one, a changed one, or its own version of one in the library. Plantings of the
 * kind follow it. Run inside a transaction.
 *
 * @param was the name it had until now
 * @returns whether anything changed
 */
export async function saveOwnTaxon(
  trx: Db,
  practiceId: string,
  taxon: Taxon,
  was: string = taxon.botanical,
): Promise<boolean> {
  if (isUnknown(taxon))
    throw new Refusal(
      409,
      `“${taxon.botanical}” is what a plant is called that nobody has named: call it otherwise.`,
    )
  const before = await named(trx, practiceId, was)
  if (taxon.botanical.toLowerCase() !== was.toLowerCase()) {
    if (await named(trx, practiceId, taxon.botanical))
      throw new Refusal(409, `${taxon.botanical} is in your library already.`)
    if (!before) throw new Refusal(404, `${was} is no kind of your own.`)
  }
  const shipped = await named(trx, null, taxon.botanical)
  if (!before && shipped && sameTraits(shipped.traits, taxon)) return false
  if (before && sameTraits(before.traits, taxon)) return false
  const id = before?.id ?? randomUUID()
  const values = { botanical: taxon.botanical, traits: JSON.stringify(taxon) }
  if (before) await trx('taxa').where({ id }).update(values)
  else await trx('taxa').insert({ id, practice_id: practiceId, ...values })
  if (shipped) await repoint(trx, practiceId, shipped.id, id)
  return true
}

/** Takes a kind of a practice's own away: plantings go back to the library's. Run inside a transaction. */
export async function removeOwnTaxon(trx: Db, practiceId: string, botanical: string): Promise<void> {
  const own = await named(trx, practiceId, botanical)
  if (!own) throw new Refusal(404, `${botanical} is no kind of your own.`)
  const shipped = await named(trx, null, botanical)
  if (shipped) {
    await repoint(trx, practiceId, own.id, shipped.id)
  } else if (
    (await trx('plantings').where({ taxon_id: own.id }).first('id')) ??
    (await trx('bench').where({ taxon_id: own.id }).first('id'))
  )
    throw new Refusal(409, `Plants of ${botanical} stand or stood in your gardens: it has to stay.`)
  await trx('taxa').where({ id: own.id }).del()
}

const sameTraits = (a: Taxon, b: Taxon) => isDeepStrictEqual(plain(a), plain(b))
/** Without what is absent, however it is said. */
const plain = (t: Taxon): unknown =>
  JSON.parse(JSON.stringify(t, (_, v: unknown) => (v === null ? undefined : v)))

async function repoint(trx: Db, practiceId: string, from: string, to: string): Promise<void> {
  for (const table of ['plantings', 'bench'])
    await trx(table)
      .where({ taxon_id: from })
      .whereIn('garden_id', trx('gardens').where({ practice_id: practiceId }).select('id'))
      .update({ taxon_id: to })
}
