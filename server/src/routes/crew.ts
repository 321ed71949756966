import type { Piscina } from 'piscina'
import {
  absenceRequest,
  crewDayRequest,
  crewPersonRequest,
  crewRequest,
  shareCrewRequest,
  type CrewView,
} from '@border/contract'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'
import { route, type Call, type Route } from '../routing.ts'
import {
  changeCrewPerson,
  crewIdOf,
  findCrew,
  giveToCrew,
  insertAbsence,
  insertCrew,
  insertCrewPerson,
  leaveCrew,
  listCrewGardens,
  lockCrew,
  nameCrew,
  setCrewDay,
  setTravel,
  withdrawAbsence,
} from '../store/crews.ts'
import { findGardenFor, listGardensFor } from '../store/gardens.ts'
import { todayOf, type Person } from '../store/people.ts'
import { planSeason, replanned } from '../work/planSeason.ts'

const head = { garden: 'head' } as const
const keeper = { garden: 'keeper' } as const

/** Who works in a garden, when and at what; every change plans the season of all their gardens anew. */
export function crewRoutes(pool: Piscina): Route[] {
  const replan = async ({ db, garden, person }: Call<unknown>) =>
    replanned(db, garden.id, await planSeason(db, pool, garden, todayOf(person, garden.timeZone)))
  return [
    route({
      method: 'get',
      path: '/gardens/:gardenId/crew',
      access: keeper,
      handle: async ({ db, garden, person }) => crewView(db, garden.id, person),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/crew',
      access: head,
      body: crewRequest,
      writes: true,
      handle: async (call) => {
        await nameCrew(call.db, await crewIdOf(call.db, call.garden.id), call.body.name)
        await setTravel(call.db, call.garden.id, call.body.travelMinutes)
        return replan(call)
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/crew/share',
      access: head,
      body: shareCrewRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, person, body } = call
        const before = await crewIdOf(db, garden.id)
        const left = (await listCrewGardens(db, before)).filter((g) => g.id !== garden.id)
        if (body.withGardenId === null) {
          if (left.length === 0) throw new Refusal(409, `${garden.name} has a crew of its own already.`)
          const own = await insertCrew(db, person.practiceId, garden.name)
          for (const p of (await findCrew(db, before)).people) await insertCrewPerson(db, own, p)
          await giveToCrew(db, garden.id, own)
        } else {
          const other = await findGardenFor(db, person.id, body.withGardenId)
          if (!other) throw notFound('That garden')
          if (other.role !== 'head')
            throw new Refusal(403, `Only a head gardener of ${other.name} too may share its crew.`)
          const crewId = await crewIdOf(db, other.id)
          if (crewId === before) throw new Refusal(409, `${other.name} has the same crew already.`)
          await lockCrew(db, crewId)
          await giveToCrew(db, garden.id, crewId)
        }
        await replan(call)
        if (left[0]) await planSeason(db, pool, left[0], todayOf(person, garden.timeZone))
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/crew/people',
      access: head,
      body: crewPersonRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, body } = call
        const crewId = await crewIdOf(db, garden.id)
        if (!body.id) await insertCrewPerson(db, crewId, body)
        else if (!(await changeCrewPerson(db, crewId, body.id, body))) throw notFound('This person')
        return replan(call)
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/crew/people/:personId/leave',
      access: head,
      writes: true,
      handle: async (call) => {
        const { db, garden, params } = call
        if (!(await leaveCrew(db, await crewIdOf(db, garden.id), params.personId!)))
          throw notFound('This person')
        return replan(call)
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/crew/absences',
      access: head,
      body: absenceRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, body } = call
        const crew = await findCrew(db, await crewIdOf(db, garden.id))
        if (body.personId && !crew.people.some((p) => p.id === body.personId)) throw notFound('This person')
        await insertAbsence(db, crew.id, body)
        return replan(call)
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/crew/absences/:absenceId/withdraw',
      access: head,
      writes: true,
      handle: async (call) => {
        const { db, garden, params } = call
        if (!(await withdrawAbsence(db, await crewIdOf(db, garden.id), params.absenceId!)))
          throw notFound('This absence')
        return replan(call)
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/crew/days',
      access: head,
      body: crewDayRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, body } = call
        await setCrewDay(db, await crewIdOf(db, garden.id), body.day, body.minutes)
        return replan(call)
      },
    }),
  ]
}

/** A crew as someone sees it: of its gardens only those that the person belongs to. */
async function crewView(db: Db, gardenId: string, person: Person): Promise<CrewView> {
  const { id, name, people, absences, days } = await findCrew(db, await crewIdOf(db, gardenId))
  const own = new Set((await listGardensFor(db, person.id)).map((g) => g.id))
  const gardens = await listCrewGardens(db, id)
  const seen = gardens.filter((g) => own.has(g.id))
  return {
    id,
    name,
    gardens: seen.map((g) => ({ id: g.id, name: g.name, travelMinutes: g.travelMinutes })),
    others: gardens.length - seen.length,
    people: people.map((p) => ({
      ...p,
      skills: [...p.skills],
      minutesByWeekday: [...p.minutesByWeekday],
    })),
    absences,
    days: Object.entries(days).map(([day, minutes]) => ({ day, minutes })),
  }
}
