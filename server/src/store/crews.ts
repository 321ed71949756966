import type { CrewView } from '@border/contract'
import type { Crew, CrewPerson, IsoDate, Skill } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

interface PersonRow {
  id: string
  name: string
  skills: Skill[]
  minutesByWeekday: number[]
}

/** A crew as it works, with its name and when who is away. */
export type StoredCrew = Crew & Pick<CrewView, 'id' | 'name'> & { absences: CrewView['absences'] }

/**
 * A crew with nobody in it yet.
 *
 * @returns its id
 */
export async function insertCrew(db: Db, practiceId: string, name: string): Promise<string> {
  const id = randomUUID()
  await db('crews').insert({ id, practice_id: practiceId, name })
  return id
}

/** The crew that looks after a garden; every garden has one. */
export const crewIdOf = async (db: Db, gardenId: string): Promise<string> =>
  (await db('gardens').where({ id: gardenId }).first('crew_id')).crew_id

/** A crew with its people, their weeks, the days that differ and who is away. */
export async function findCrew(db: Db, crewId: string): Promise<StoredCrew> {
  const { name } = await db('crews').where({ id: crewId }).first('name')
  const people = await db('crew_people')
    .where({ crew_id: crewId, left_at: null })
    .orderBy(['created_at', 'name'])
    .select<PersonRow[]>('id', 'name', 'skills', 'minutes_by_weekday as minutesByWeekday')
  const absences = await db('crew_absences')
    .where({ crew_id: crewId, withdrawn_at: null })
    .orderBy(['from_day', 'id'])
    .select<CrewView['absences']>('id', 'person_id as personId', 'from_day as from', 'to_day as to', 'reason')
  const days = await db('crew_days')
    .where({ crew_id: crewId })
    .orderBy('day')
    .select<{ day: string; minutes: number }[]>('day', 'minutes')
  return {
    id: crewId,
    name,
    people,
    absences,
    days: Object.fromEntries(days.map((d) => [d.day, d.minutes])),
  }
}

type PersonValues = Pick<CrewPerson, 'name' | 'skills' | 'minutesByWeekday'>

const personValues = ({ name, skills, minutesByWeekday }: PersonValues) => ({
  name,
  skills: [...skills],
  minutes_by_weekday: [...minutesByWeekday],
})

/**
 * Somebody new in a crew.
 *
 * @returns the id
 */
export async function insertCrewPerson(db: Db, crewId: string, person: PersonValues): Promise<string> {
  const id = randomUUID()
  await db('crew_people').insert({ id, crew_id: crewId, ...personValues(person) })
  return id
}

/** False where there is nobody of this id. */
export const changeCrewPerson = async (
  db: Db,
  crewId: string,
  id: string,
  person: PersonValues,
): Promise<boolean> =>
  (await db('crew_people').where({ id, crew_id: crewId, left_at: null }).update(personValues(person))) > 0

/**
 * Somebody leaves a crew; what they did stays theirs.
 *
 * @returns false where they were not in it
 */
export const leaveCrew = async (db: Db, crewId: string, personId: string): Promise<boolean> =>
  (await db('crew_people')
    .where({ id: personId, crew_id: crewId, left_at: null })
    .update({ left_at: db.fn.now() })) > 0

/** Somebody is away from one day to another, both included; everybody where no person is named. */
export async function insertAbsence(
  db: Db,
  crewId: string,
  away: { personId: string | null; from: IsoDate; to: IsoDate; reason?: string | undefined },
): Promise<void> {
  await db('crew_absences').insert({
    id: randomUUID(),
    crew_id: crewId,
    person_id: away.personId,
    from_day: away.from,
    to_day: away.to,
    reason: away.reason || null,
  })
}

/**
 * An absence is taken back.
 *
 * @returns false where there was none
 */
export const withdrawAbsence = async (db: Db, crewId: string, id: string): Promise<boolean> =>
  (await db('crew_absences')
    .where({ id, crew_id: crewId, withdrawn_at: null })
    .update({ withdrawn_at: db.fn.now() })) > 0

/** A day on which a crew works other minutes; null: as in any week again. */
export async function setCrewDay(
  db: Db,
  crewId: string,
  day: IsoDate,
  minutes: number | null,
): Promise<void> {
  if (minutes === null) await db('crew_days').where({ crew_id: crewId, day }).del()
  else
    await db('crew_days')
      .insert({ crew_id: crewId, day, minutes })
      .onConflict(['crew_id', 'day'])
      .merge(['minutes'])
}

/** Gives a crew another name. */
export async function nameCrew(db: Db, crewId: string, name: string): Promise<void> {
  await db('crews').where({ id: crewId }).update({ name })
}

/** Minutes of each person, there and back. */
export async function setTravel(db: Db, gardenId: string, minutes: number): Promise<void> {
  await db('gardens').where({ id: gardenId }).update({ travel_minutes: minutes })
}

/** Gives a garden to another crew. Run inside a transaction that holds both. */
export async function giveToCrew(db: Db, gardenId: string, crewId: string): Promise<void> {
  await db('gardens').where({ id: gardenId }).update({ crew_id: crewId })
}

/** Makes other changes of a crew wait until this transaction ends. */
export async function lockCrew(trx: Db, crewId: string): Promise<void> {
  await trx.raw('select 1 from crews where id = ? for no key update', [crewId])
}

/** Makes other changes of any garden of a practice wait until this transaction ends. */
export async function lockPractice(trx: Db, practiceId: string): Promise<void> {
  await trx.raw('select 1 from crews where practice_id = ? order by id for no key update', [practiceId])
}
