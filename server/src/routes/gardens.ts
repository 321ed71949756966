import { gardenEndpoints, type GardenSummary } from '@border/contract'
import { civilDate } from '@border/core'
import { fileRefusal, notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import {
  addMember,
  amendGarden,
  listGardensFor,
  listWithdrawnGardens,
  restoreGarden,
  withdrawGarden,
  type GardenAccess,
} from '../store/gardens.ts'
import { findColleague, insertPerson, listMembers } from '../store/people.ts'
import { isUnderWay } from '../store/runs.ts'
import { findWorkedOut } from '../store/workedOut.ts'
import type { ComputePool } from '../work/compute.ts'
import { readOn } from '../work/fileTasks.ts'
import { gardenNow } from '../work/gardenNow.ts'
import { climateFor, climateWords, previewOf, readGardenFiles, saveGarden } from '../work/importGarden.ts'
import { gardenStanding } from '../work/standing.ts'
import { hashPassword } from './session.ts'

/** Gardens themselves: entered, brought in, put right, taken out; and what is told of them at a glance. */
export const gardenRoutes = (pool: ComputePool): Route[] => [
  route(gardenEndpoints.list, {
    handle: async ({ db, person }) => (await listGardensFor(db, person.id)).map(summaryOf),
  }),
  route(gardenEndpoints.create, {
    prepare: ({ body, todayIn }) => climateFor(body, todayIn(body.timeZone)),
    handle: async ({ db, person, body, prepared }) => {
      const plan = {
        garden: { version: 1 as const, coordinates: 'local-metres' as const, ...body },
        features: [],
      }
      const owner = { practiceId: person.practiceId, personId: person.id }
      const { gardenId } = await saveGarden(db, owner, { plan, plantings: [] }, prepared)
      return { gardenId, climate: climateWords(prepared) }
    },
  }),
  route(gardenEndpoints.findTowns, {
    handle: ({ query }) => pool.run('townsNamed', query),
  }),
  route(gardenEndpoints.previewImport, {
    handle: async ({ db, person, body, todayIn }) => {
      const read = await readGardenFiles(db, person.practiceId, body, todayIn, readOn(pool))
      return read.ok ? { ok: true as const, preview: previewOf(read.value) } : read
    },
  }),
  route(gardenEndpoints.import, {
    // The weather is asked for before anything is held.
    prepare: async ({ db, person, body, todayIn }) => {
      const read = await readGardenFiles(db, person.practiceId, body, todayIn, readOn(pool))
      if (!read.ok) throw fileRefusal(read.problems)
      const { weather, plan, today } = read.value
      return { read: read.value, climate: await climateFor(plan.garden, today, weather) }
    },
    handle: async ({ db, person, prepared: { read, climate } }) => {
      const owner = { practiceId: person.practiceId, personId: person.id }
      const { gardenId } = await saveGarden(db, owner, read, climate)
      return { gardenId, climate: climateWords(climate) }
    },
  }),
  route(gardenEndpoints.read, {
    handle: async ({ garden, query, today, read }) => {
      const { climate, source } = await read.climate()
      return {
        garden: summaryOf(garden),
        features: await read.features(),
        plantings: await read.growing(query.on ?? today),
        climate,
        climateSource: source,
        knownClimate: garden.knownClimate,
        schools: garden.schools,
      }
    },
  }),
  route(gardenEndpoints.versions, {
    handle: async ({ db, garden, read }) => ({
      versions: await read.versions(),
      isBehind:
        (await findWorkedOut(db, garden.id)).careBasis === null ||
        (await isUnderWay(db, garden.crewId, 'follow')),
    }),
  }),
  route(gardenEndpoints.now, {
    handle: ({ read, query, today }) => gardenNow(read, pool, query.on ?? today),
  }),
  route(gardenEndpoints.amend, {
    stands: ({ garden }) => Promise.resolve(gardenStanding(garden.id, garden)),
    handle: ({ db, garden, person, body }) => amendGarden(db, garden, person.id, body),
  }),
  route(gardenEndpoints.withdraw, {
    handle: async ({ db, garden, body, nowMs }) => {
      if (body.name.trim() !== garden.name)
        throw new Refusal(422, `Type the name of the garden, ${garden.name}, to take it out.`)
      await withdrawGarden(db, garden.id, nowMs)
    },
  }),
  route(gardenEndpoints.listWithdrawn, {
    handle: async ({ db, person }) =>
      (await listWithdrawnGardens(db, person.practiceId)).map(({ id, name, timeZone, withdrawnAt }) => ({
        id,
        name,
        withdrawnOn: civilDate(withdrawnAt, timeZone),
      })),
  }),
  route(gardenEndpoints.restore, {
    handle: async ({ db, person, params }) => {
      if (!(await restoreGarden(db, person.practiceId, params.withdrawnId))) throw notFound('This garden')
    },
  }),
  route(gardenEndpoints.listMembers, {
    handle: async ({ db, garden }) => listMembers(db, garden.id),
  }),
  route(gardenEndpoints.addMember, {
    handle: async ({ db, garden, person, body }) => {
      const known = await findColleague(db, person.practiceId, body.email)
      if (known?.id === person.id) throw new Refusal(409, 'You cannot change your own role in a garden.')
      if (known?.leads && !person.leads)
        throw new Refusal(
          403,
          `${known.name} leads the practice: only someone who leads it too may change that role.`,
        )
      const personId =
        known?.id ??
        (await insertPerson(db, {
          practiceId: person.practiceId,
          name: body.name,
          email: body.email,
          passwordHash: await hashPassword(body.password),
        }))
      await addMember(db, garden.id, personId, body.role)
    },
  }),
]

const summaryOf = ({
  id,
  name,
  latitude,
  longitude,
  timeZone,
  northDeg,
  role,
}: GardenAccess): GardenSummary => ({ id, name, latitude, longitude, timeZone, northDeg, role })
