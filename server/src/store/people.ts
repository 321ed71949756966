import { USUAL_PREFERENCES, type MemberView, type Preferences, type Role } from '@border/contract'
import type { StandsAt } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

/** Somebody who can sign in, and the practice they belong to. */
export interface Person {
  id: string
  name: string
  practiceId: string
  practiceName: string
  demoDate: string | null
  usesRealToday: boolean
  leads: boolean
  preferences: Preferences
}

const personColumns = [
  'people.id',
  'people.name',
  'practice_id as practiceId',
  'practices.name as practiceName',
  'demo_date as demoDate',
  'use_real_today as usesRealToday',
  'leads',
  'preferences',
]

/** Somebody by id. */
export async function findPerson(db: Db, id: string): Promise<Person | undefined> {
  const person = await db('people')
    .join('practices', 'practices.id', 'practice_id')
    .where('people.id', id)
    .first(personColumns)
  return person && { ...person, preferences: { ...USUAL_PREFERENCES, ...person.preferences } }
}

/** How somebody wants things called, measured and written from now on; what is not said stays as it was. */
export async function setPreferences(
  db: Db,
  personId: string,
  preferences: Partial<Preferences>,
): Promise<void> {
  await db('people')
    .where({ id: personId })
    .update({ preferences: db.raw('preferences || ?::jsonb', [JSON.stringify(preferences)]) })
}

/** Whose address this is, whatever its capitals, and what the password is held against: one at most in each practice. */
export async function findAccounts(db: Db, email: string): Promise<{ id: string; passwordHash: string }[]> {
  return db('people')
    .whereRaw('lower(email) = lower(?)', [email])
    .whereNotNull('password_hash')
    .orderBy('created_at')
    .select(['id', 'password_hash as passwordHash'])
}

/** The fixed day that a practice stands at; null where it stands at the real one. */
export const standsAt = ({
  demoDate,
  usesRealToday,
}: Pick<Person, 'demoDate' | 'usesRealToday'>): StandsAt => (usesRealToday ? null : demoDate)

/** Whether anybody has an account; without one a practice can be set up. */
export async function anyAccount(db: Db): Promise<boolean> {
  return (await db('people').first('id')) !== undefined
}

/** The made-up people of a demo, with the highest role each holds. */
export async function listDemoPeople(db: Db): Promise<{ id: string; name: string; role: Role }[]> {
  const { rows } = await db.raw(`
    select p.id, p.name, coalesce(min(case m.role when 'head' then 1 when 'crew' then 2 else 3 end), 3) as rank
    from people p left join memberships m on m.person_id = p.id
    where p.is_demo group by p.id order by rank, p.name`)
  const words: Role[] = ['head', 'crew', 'keeper']
  return rows.map((r: { id: string; name: string; rank: number }) => ({
    id: r.id,
    name: r.name,
    role: words[r.rank - 1]!,
  }))
}

/** Whether somebody may be entered as without a password: only the people of a demo. */
export async function isDemoPerson(db: Db, id: string): Promise<boolean> {
  return (await db('people').where({ id, is_demo: true }).first('id')) !== undefined
}

/**
 * A practice nobody belongs to yet.
 *
 * @param demoDate the day that its demo stands still at
 * @returns its id
 */
export async function insertPractice(db: Db, name: string, demoDate: string | null = null): Promise<string> {
  const id = randomUUID()
  await db('practices').insert({ id, name, demo_date: demoDate })
  return id
}

/**
 * An account.
 *
 * @returns its id
 */
export async function insertPerson(
  db: Db,
  person: {
    practiceId: string
    name: string
    email: string
    passwordHash: string | null
    isDemo?: boolean
    leads?: boolean
  },
): Promise<string> {
  const id = randomUUID()
  await db('people').insert({
    id,
    practice_id: person.practiceId,
    name: person.name,
    email: person.email,
    password_hash: person.passwordHash,
    is_demo: person.isDemo ?? false,
    leads: person.leads ?? false,
  })
  return id
}

/** Whether a demo goes by today or by its own day; other practices have no such choice. */
export async function setClock(db: Db, practiceId: string, useRealToday: boolean): Promise<void> {
  await db('practices')
    .where({ id: practiceId })
    .whereNotNull('demo_date')
    .update({ use_real_today: useRealToday })
}

/** Who belongs to a garden, and as what. */
export async function listMembers(db: Db, gardenId: string): Promise<MemberView[]> {
  return db('memberships')
    .join('people', 'people.id', 'person_id')
    .where({ garden_id: gardenId })
    .orderBy('name')
    .select<MemberView[]>('people.id', 'name', 'email', 'role')
}

/** Someone of the practice by address; addresses of other practices are not looked into. */
export const findColleague = (
  db: Db,
  practiceId: string,
  email: string,
): Promise<Pick<Person, 'id' | 'name' | 'leads'> | undefined> =>
  db('people')
    .where({ practice_id: practiceId })
    .whereRaw('lower(email) = lower(?)', [email])
    .first('id', 'name', 'leads')
