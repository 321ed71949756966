import { aspects, type Aspect, type Versions } from '@border/contract'
import type { Db } from '../database/connect.ts'

/** How often each aspect of a garden has changed. The database counts (`database/009_what_is_told.ts`); nothing else does. */
export async function versionsOf(db: Db, gardenId: string): Promise<Versions> {
  const row = await db('garden_versions')
    .where({ garden_id: gardenId })
    .first<Versions | undefined>(...aspects)
  if (!row) throw new Error(`No versions of garden ${gardenId}`)
  return row
}

/** What a transaction has changed of a garden. */
export interface Raised {
  gardenId: string
  crewId: string
  aspects: Aspect[]
}

/** What this transaction has raised so far, and nothing of what others raise meanwhile: the database notes it. */
export async function raisedHere(trx: Db): Promise<Raised[]> {
  const { rows } = await trx.raw<{ rows: Raised[] }>(
    `select id as "gardenId", crew_id as "crewId", array_agg(split_part(entry, ' ', 2)) as aspects
     from unnest(string_to_array(rtrim(coalesce(current_setting('border.raised', true), ''), E'\n'), E'\n')) entry
     join gardens on id = split_part(entry, ' ', 1)::uuid
     group by id order by id`,
  )
  return rows
}
