import type { BenchView } from '@border/contract'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import type { OpenEdit } from './edits.ts'

/** What waits on a garden's bench, longest first. */
export const listBench = (db: Db, gardenId: string): Promise<BenchView[]> =>
  db('bench')
    .join('taxa', 'taxa.id', 'bench.taxon_id')
    .leftJoin('plantings', 'plantings.id', 'from_planting_id')
    .where({ 'bench.garden_id': gardenId, gone: null, 'bench.withdrawn_at': null })
    .orderBy(['since', 'bench.id'])
    .select<BenchView[]>('bench.id', 'botanical', 'count', 'since', 'tag as fromTag', 'note')

/** What comes to wait for a place: how many of a taxon, since when, and from where. */
export interface NewOnBench {
  taxonId: string
  count: number
  since: string
  fromPlantingId?: string
  jobId?: string
  note?: string | undefined
}

/** Puts plants on the bench; nothing is no row. */
export async function putOnBench(
  db: Db,
  owner: { gardenId: string; personId: string },
  items: readonly NewOnBench[],
): Promise<void> {
  if (items.length === 0) return
  await db('bench').insert(
    items.map((i) => ({
      id: randomUUID(),
      garden_id: owner.gardenId,
      person_id: owner.personId,
      taxon_id: i.taxonId,
      count: i.count,
      since: i.since,
      from_planting_id: i.fromPlantingId ?? null,
      job_id: i.jobId ?? null,
      note: i.note || null,
    })),
  )
}

type Gone = { gone: 'planted' | 'given away' | 'thrown away'; on: string }

/** What still waits under an id; undefined once it has left the bench. */
export const findOnBench = (
  db: Db,
  gardenId: string,
  id: string,
): Promise<{ count: number; fromPlantingId: string | null } | undefined> =>
  db('bench')
    .where({ id, garden_id: gardenId, gone: null, withdrawn_at: null })
    .first('count', 'from_planting_id as fromPlantingId')

/** Takes something off the bench. False where it is not there. */
export const takeOffBench = async (db: Db, gardenId: string, id: string, how: Gone): Promise<boolean> =>
  (await db('bench')
    .where({ id, garden_id: gardenId, gone: null, withdrawn_at: null })
    .update({ gone: how.gone, gone_on: how.on })) > 0

/** Plants some or all of what waits, as part of an edit; the rest waits on. Run inside a transaction. */
export async function plantFromBench(
  trx: Db,
  edit: OpenEdit,
  id: string,
  { count, on, plantingId }: { count: number; on: string; plantingId: string },
): Promise<void> {
  const row = await trx('bench').where({ id }).first()
  if (row.count > count)
    await edit.insert('bench', {
      ...row,
      id: randomUUID(),
      count: row.count - count,
      created_at: trx.fn.now(),
    })
  await edit.change('bench', id, {
    count: Math.min(count, row.count),
    gone: 'planted',
    gone_on: on,
    planting_id: plantingId,
  })
}

/** What was taken off the bench to be planted. */
export interface TakenOffBench {
  benchId: string
  fromPlantingId: string | null
  /** It is of a division. */
  isDivision: boolean
}

/** Takes plants of a kind off the bench to be planted, what waited longest first; what of it is over waits on. */
export async function takeForPlanting(
  trx: Db,
  gardenId: string,
  taxonId: string,
  { most, on }: { most: number; on: string },
): Promise<TakenOffBench[]> {
  const rows = await trx('bench')
    .leftJoin('jobs', 'jobs.id', 'bench.job_id')
    .where({ 'bench.garden_id': gardenId, taxon_id: taxonId, gone: null, 'bench.withdrawn_at': null })
    .andWhere('since', '<=', on)
    .orderBy(['since', 'bench.id'])
    .select('bench.*', 'jobs.kind as by')
  const taken: TakenOffBench[] = []
  let left = most
  for (const { by, ...row } of rows) {
    if (left <= 0) break
    const count = Math.min(left, row.count)
    if (row.count > count)
      await trx('bench').insert({
        ...row,
        id: randomUUID(),
        count: row.count - count,
        created_at: trx.fn.now(),
      })
    await trx('bench').where({ id: row.id }).update({ count, gone: 'planted', gone_on: on })
    taken.push({ benchId: row.id, fromPlantingId: row.from_planting_id, isDivision: by === 'divide' })
    left -= count
  }
  return taken
}

/** What was planted off the bench waits there again. */
export const putBackOnBench = async (trx: Db, plantingId: string): Promise<void> => {
  await trx('bench')
    .where({ planting_id: plantingId, gone: 'planted' })
    .update({ gone: null, gone_on: null, planting_id: null })
}

/** What a record of work put on the bench was never there. False where some of it has gone on since. */
export async function withdrawFromBench(db: Db, jobId: string): Promise<boolean> {
  if (
    await db('bench')
      .where({ job_id: jobId })
      .whereIn('gone', ['planted', 'given away', 'thrown away'])
      .first('id')
  )
    return false
  await db('bench')
    .where({ job_id: jobId, gone: null, withdrawn_at: null })
    .update({ gone: 'withdrawn', gone_on: db.raw('since') })
  return true
}
