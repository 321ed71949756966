import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { hashOf, newSecret } from './secrets.ts'

/** A new link of a garden; the one before it stops working. The secret is known only to whoever asked. */
export async function makeCalendarLink(db: Db, gardenId: string, personId: string): Promise<string> {
  await withdrawCalendarLink(db, gardenId)
  const { token, hash } = newSecret()
  await db('calendar_links').insert({
    id: randomUUID(),
    garden_id: gardenId,
    token_hash: hash,
    person_id: personId,
  })
  return token
}

/** Ends the link of a garden: its address answers nothing from then on. */
export async function withdrawCalendarLink(db: Db, gardenId: string): Promise<void> {
  await db('calendar_links')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .update({ withdrawn_at: db.fn.now() })
}

/** When the link that works was made; null where there is none. */
export async function calendarLinkSince(db: Db, gardenId: string): Promise<string | null> {
  const link = await db('calendar_links')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .first('created_at')
  return link ? (link.created_at as Date).toISOString() : null
}

/** The garden whose calendar an address may read; undefined where it was withdrawn. Only a hash of the token is kept. */
export async function gardenOfCalendarLink(db: Db, token: string): Promise<string | undefined> {
  const link = await db('calendar_links')
    .where({ token_hash: hashOf(token), withdrawn_at: null })
    .first('garden_id')
  return link?.garden_id
}
