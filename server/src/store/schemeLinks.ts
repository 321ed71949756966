import type { IsoDate } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { hashOf, newSecret } from './secrets.ts'

/** A new link by which a scheme may be looked at, up to a day; the one before it stops working. @returns its secret */
export async function makeSchemeLink(
  db: Db,
  { gardenId, personId }: { gardenId: string; personId: string },
  schemeId: string,
  until: IsoDate,
): Promise<string> {
  await withdrawSchemeLink(db, schemeId)
  const { token, hash } = newSecret()
  await db('scheme_links').insert({
    id: randomUUID(),
    scheme_id: schemeId,
    garden_id: gardenId,
    person_id: personId,
    token_hash: hash,
    until,
  })
  return token
}

/** Ends the link of a scheme: its address shows nothing from then on. */
export async function withdrawSchemeLink(db: Db, schemeId: string): Promise<void> {
  await db('scheme_links')
    .where({ scheme_id: schemeId, withdrawn_at: null })
    .update({ withdrawn_at: db.fn.now() })
}

/** What an address may look at: a scheme that stands. Undefined where the link was withdrawn, or never was. */
export const schemeOfLink = (
  db: Db,
  token: string,
): Promise<{ gardenId: string; reworkId: string; schemeId: string; until: IsoDate } | undefined> =>
  db('scheme_links')
    .join('schemes', 'schemes.id', 'scheme_id')
    .join('reworks', 'reworks.id', 'rework_id')
    .where({
      token_hash: hashOf(token),
      'scheme_links.withdrawn_at': null,
      'schemes.withdrawn_at': null,
      'reworks.withdrawn_at': null,
    })
    .first('scheme_links.garden_id as gardenId', 'rework_id as reworkId', 'scheme_id as schemeId', 'until')
