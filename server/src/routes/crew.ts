import { type CrewPersonView, type CrewView, crewEndpoints } from '@border/contract'
import type { CrewPerson } from '@border/core'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import {
  changeCrewPerson,
  findCrew,
  giveToCrew,
  insertAbsence,
  insertCrew,
  insertCrewPerson,
  leaveCrew,
  lockCrew,
  nameCrew,
  setCrewDay,
  setTravel,
  withdrawAbsence,
} from '../store/crews.ts'
import { findMember, listCrewGardens, listGardensFor, type GardenAccess } from '../store/gardens.ts'
import type { Person } from '../store/people.ts'
import { crewStanding, dayStanding, memberStanding, sharingStanding } from '../work/standing.ts'

/** Who works in a garden, when and at what. */
export function crewRoutes(): Route[] {
  return [
    route(crewEndpoints.read, {
      handle: async ({ db, garden, person }) => crewView(db, garden, person),
    }),
    route(crewEndpoints.name, {
      stands: async ({ db, garden }) =>
        crewStanding(garden.id, {
          name: (await findCrew(db, garden.crewId)).name,
          travelMinutes: (await listCrewGardens(db, garden.crewId)).find((g) => g.id === garden.id)!
            .travelMinutes,
        }),
      handle: async ({ db, garden, body }) => {
        await nameCrew(db, garden.crewId, body.name)
        await setTravel(db, garden.id, body.travelMinutes)
      },
    }),
    route(crewEndpoints.share, {
      stands: async ({ db, garden: { id, crewId } }) =>
        sharingStanding(id, crewId, (await findCrew(db, crewId)).name),
      handle: async ({ db, garden, person, body }) => {
        const before = garden.crewId
        const left = (await listCrewGardens(db, before)).filter((g) => g.id !== garden.id)
        if (body.withGardenId === null) {
          if (left.length === 0) throw new Refusal(409, `${garden.name} has a crew of its own already.`)
          const own = await insertCrew(db, person.practiceId, garden.name)
          for (const p of (await findCrew(db, before)).people) await insertCrewPerson(db, own, p)
          await giveToCrew(db, garden.id, own)
        } else {
          const other = (await findMember(db, person.id, body.withGardenId))?.garden
          if (!other) throw notFound('That garden')
          if (other.role !== 'head')
            throw new Refusal(403, `Only a head gardener of ${other.name} too may share its crew.`)
          const crewId = other.crewId
          if (crewId === before) throw new Refusal(409, `${other.name} has the same crew already.`)
          await lockCrew(db, crewId)
          await giveToCrew(db, garden.id, crewId)
        }
      },
    }),
    route(crewEndpoints.savePerson, {
      stands: async ({ db, garden, body: { id } }) => (id ? memberNow(db, garden.crewId, id) : undefined),
      handle: async ({ db, garden, body }) => {
        const crewId = garden.crewId
        if (!body.id) await insertCrewPerson(db, crewId, body)
        else if (!(await changeCrewPerson(db, crewId, body.id, body))) throw notFound('This person')
      },
    }),
    route(crewEndpoints.leave, {
      stands: ({ db, garden, params }) => memberNow(db, garden.crewId, params.personId),
      handle: async ({ db, garden, params }) => {
        if (!(await leaveCrew(db, garden.crewId, params.personId))) throw notFound('This person')
      },
    }),
    route(crewEndpoints.addAbsence, {
      handle: async ({ db, garden, body }) => {
        const crew = await findCrew(db, garden.crewId)
        if (body.personId && !crew.people.some((p) => p.id === body.personId)) throw notFound('This person')
        await insertAbsence(db, crew.id, body)
      },
    }),
    route(crewEndpoints.withdrawAbsence, {
      handle: async ({ db, garden, params }) => {
        if (!(await withdrawAbsence(db, garden.crewId, params.absenceId))) throw notFound('This absence')
      },
    }),
    route(crewEndpoints.setDay, {
      stands: async ({ db, garden, body: { day } }) => {
        const { days } = await findCrew(db, garden.crewId)
        return dayStanding(garden.crewId, day, { minutes: days[day] ?? null })
      },
      handle: async ({ db, garden, body }) => {
        await setCrewDay(db, garden.crewId, body.day, body.minutes)
      },
    }),
  ]
}

const memberNow = async (db: Db, crewId: string, id: string) =>
  memberStanding(
    id,
    (await findCrew(db, crewId)).people.map(viewOf).find((p) => p.id === id),
  )

const viewOf = (p: CrewPerson): CrewPersonView => ({
  ...p,
  skills: [...p.skills],
  minutesByWeekday: [...p.minutesByWeekday],
})

/** A crew as someone sees it: of its gardens only those that the person belongs to. */
async function crewView(db: Db, garden: GardenAccess, person: Person): Promise<CrewView> {
  const { id, name, people, absences, days } = await findCrew(db, garden.crewId)
  const own = new Set((await listGardensFor(db, person.id)).map((g) => g.id))
  const gardens = await listCrewGardens(db, id)
  const seen = gardens.filter((g) => own.has(g.id))
  return {
    id,
    name,
    gardens: seen.map((g) => ({ id: g.id, name: g.name, travelMinutes: g.travelMinutes })),
    others: gardens.length - seen.length,
    people: people.map(viewOf),
    absences,
    days: Object.entries(days).map(([day, minutes]) => ({ day, minutes })),
  }
}
