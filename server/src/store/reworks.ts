import type { ReworkView, SaidScheme, SchemeView } from '@border/contract'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

interface SchemeRow {
  id: string
  rework_id: string
  revision_id: string
  said: SaidScheme
  after_id: string | null
  has_after: boolean
  by: string | null
  created_at: Date
  accepted_at: Date | null
  accepted_by: string | null
  done: number
  open: number
  planted: string[]
  link_since: Date | null
  link_until: string | null
}

const toScheme = (r: SchemeRow): SchemeView => ({
  id: r.id,
  said: r.said,
  revisionId: r.revision_id,
  hasBefore: r.after_id !== null,
  hasAfter: r.has_after,
  by: r.by,
  at: r.created_at.toISOString(),
  accepted: r.accepted_at && { at: r.accepted_at.toISOString(), by: r.accepted_by },
  steps: { done: r.done, open: r.open },
  plantedIds: r.planted,
  link: r.link_since && { since: r.link_since.toISOString(), until: r.link_until! },
})

/** The plantings that a scheme has planted, as a list in SQL. @param scheme its id there */
const plantedBy = (scheme: string): string =>
  `array(select p.id from plantings p join jobs j on j.id = p.planted_by
         where j.scheme_id = ${scheme} and p.withdrawn_at is null order by p.id)`

/** Places of a garden that are decided anew, the newest first, each with its schemes in the order in which they were made. */
export async function listReworks(db: Db, gardenId: string): Promise<ReworkView[]> {
  const reworks = await db('reworks')
    .leftJoin('people', 'people.id', 'person_id')
    .where({ garden_id: gardenId, 'reworks.withdrawn_at': null })
    .orderBy('reworks.created_at', 'desc')
    .select<{ id: string; placeId: string; by: string | null; at: Date }[]>(
      'reworks.id',
      'place_id as placeId',
      'people.name as by',
      'reworks.created_at as at',
    )
  const { rows } = await db.raw<{ rows: SchemeRow[] }>(
    `select s.id, s.rework_id, s.revision_id, r.said, r.after_id, p.name as by, r.created_at,
            exists (select from scheme_revisions a where a.after_id = r.id) as has_after,
            s.accepted_at, ap.name as accepted_by, l.created_at as link_since, l.until as link_until,
            (select count(*)::int from jobs j where j.scheme_id = s.id and j.state = 'done') as done,
            (select count(*)::int from jobs j where j.scheme_id = s.id and j.state = 'open') as open,
            ${plantedBy('s.id')} as planted
     from schemes s join scheme_revisions r on r.id = s.revision_id left join people p on p.id = r.person_id
     left join people ap on ap.id = s.accepted_by
     left join scheme_links l on l.scheme_id = s.id and l.withdrawn_at is null
     where s.garden_id = ? and s.withdrawn_at is null order by s.created_at, s.id`,
    [gardenId],
  )
  return reworks.map(({ at, ...rework }) => ({
    ...rework,
    at: at.toISOString(),
    schemes: rows.filter((r) => r.rework_id === rework.id).map(toScheme),
  }))
}

interface Owner {
  gardenId: string
  personId: string
}

export async function insertRework(
  trx: Db,
  { gardenId, personId }: Owner,
  rework: { id: string; placeId: string },
): Promise<void> {
  await trx('reworks').insert({
    id: rework.id,
    garden_id: gardenId,
    place_id: rework.placeId,
    person_id: personId,
  })
}

/** A scheme with what is first said of it. */
export async function insertScheme(
  trx: Db,
  { gardenId, personId }: Owner,
  reworkId: string,
  { id, said }: { id: string; said: SaidScheme },
): Promise<void> {
  const revisionId = randomUUID()
  await trx('schemes').insert({ id, garden_id: gardenId, rework_id: reworkId, revision_id: revisionId })
  await trx('scheme_revisions').insert(revision(revisionId, id, null, personId, said))
}

const revision = (
  id: string,
  schemeId: string,
  afterId: string | null,
  personId: string,
  said: SaidScheme,
) => ({
  id,
  scheme_id: schemeId,
  after_id: afterId,
  person_id: personId,
  said: JSON.stringify(said),
})

/** Keeps what is said of a scheme now; what was said before is kept behind it. @returns the new revision */
export async function keepScheme(
  trx: Db,
  { personId }: Pick<Owner, 'personId'>,
  scheme: { id: string; revisionId: string },
  said: SaidScheme,
): Promise<string> {
  const revisionId = randomUUID()
  await trx('scheme_revisions').insert(revision(revisionId, scheme.id, scheme.revisionId, personId, said))
  await trx('schemes').where({ id: scheme.id }).update({ revision_id: revisionId })
  return revisionId
}

/** Goes to what was said before, or after it last. @returns that revision; undefined where there is none */
export async function stepScheme(
  trx: Db,
  scheme: { id: string; revisionId: string },
  to: 'before' | 'after',
): Promise<string | undefined> {
  const next =
    to === 'before'
      ? await trx('scheme_revisions')
          .where({ id: scheme.revisionId })
          .whereNotNull('after_id')
          .first('after_id as id')
      : await trx('scheme_revisions')
          .where({ after_id: scheme.revisionId })
          .orderBy('created_at', 'desc')
          .first('id')
  if (!next) return undefined
  await trx('schemes').where({ id: scheme.id }).update({ revision_id: next.id })
  return next.id as string
}

/** A scheme that stands, of a rework that stands. */
export const findScheme = (
  db: Db,
  gardenId: string,
  reworkId: string,
  schemeId: string,
): Promise<
  | {
      id: string
      placeId: string
      revisionId: string
      said: SaidScheme
      isAccepted: boolean
      plantedIds: string[]
    }
  | undefined
> =>
  db('schemes')
    .join('scheme_revisions', 'scheme_revisions.id', 'revision_id')
    .join('reworks', 'reworks.id', 'rework_id')
    .where({ 'schemes.id': schemeId, 'schemes.garden_id': gardenId, rework_id: reworkId })
    .where({ 'schemes.withdrawn_at': null, 'reworks.withdrawn_at': null })
    .first(
      'schemes.id',
      'place_id as placeId',
      'revision_id as revisionId',
      'said',
      db.raw('accepted_at is not null as "isAccepted"'),
      db.raw(`${plantedBy('schemes.id')} as "plantedIds"`),
    )

/** A scheme is carried out from now on, by somebody's word; or it is no longer. */
export async function setAccepted(trx: Db, schemeId: string, personId: string | null): Promise<void> {
  await trx('schemes')
    .where({ id: schemeId })
    .update({ accepted_at: personId && trx.fn.now(), accepted_by: personId })
}

/** The schemes of a rework that are being carried out, or have been. */
export const acceptedOf = async (db: Db, reworkId: string): Promise<string[]> =>
  (
    await db('schemes')
      .where({ rework_id: reworkId, withdrawn_at: null })
      .whereNotNull('accepted_at')
      .select<{ id: string }[]>('id')
  ).map((s) => s.id)

/** Takes a rework or one of its schemes away, or brings it back. @returns false where there is none to */
export async function setWithdrawn(
  trx: Db,
  table: 'reworks' | 'schemes',
  where: { id: string; garden_id: string; rework_id?: string },
  withdrawn: boolean,
): Promise<boolean> {
  const changed = await trx(table)
    .where(where)
    .andWhere((q) => (withdrawn ? q.whereNull('withdrawn_at') : q.whereNotNull('withdrawn_at')))
    .update({ withdrawn_at: withdrawn ? trx.fn.now() : null })
  return changed > 0
}
