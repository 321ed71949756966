import { containerEndpoints } from '@border/contract'
import { route, type Route } from '../routing.ts'
import { featuresOn, writeContainers } from '@border/core'
import { fileRefusal, notFound } from '../errors.ts'
import { withdrawPotCheck } from '../store/potChecks.ts'
import { readOn } from '../work/fileTasks.ts'
import {
  absenceFrom,
  bringContainers,
  checkContainer,
  containersOf,
  fillContainer,
  lineOfPots,
  spareForPots,
  spotsOfPot,
} from '../work/containers.ts'
import type { ComputePool } from '../work/compute.ts'

/** Containers: what they hold, weigh and drink, and how they are filled. */
export const containerRoutes = (pool: ComputePool): Route[] => [
  route(containerEndpoints.read, {
    handle: ({ read }) => containersOf(read, pool),
  }),
  route(containerEndpoints.absence, {
    handle: ({ read, query }) => absenceFrom(read, pool, query),
  }),
  route(containerEndpoints.spots, {
    handle: ({ read, params }) => spotsOfPot(read, pool, params.containerId),
  }),
  route(containerEndpoints.line, {
    handle: ({ read }) => lineOfPots(read, pool),
  }),
  route(containerEndpoints.spare, {
    handle: ({ read }) => spareForPots(read, pool),
  }),
  route(containerEndpoints.check, {
    handle: ({ db, garden, person, body, today }) =>
      checkContainer(db, { gardenId: garden.id, personId: person.id, today }, body),
  }),
  route(containerEndpoints.withdrawCheck, {
    handle: async ({ db, garden, params }) => {
      if (!(await withdrawPotCheck(db, garden.id, params.checkId))) throw notFound('What was noted')
    },
  }),
  route(containerEndpoints.csv, {
    handle: async ({ read, today }, { res }) => {
      res
        .type('text/csv; charset=utf-8')
        .set('content-disposition', 'attachment; filename="containers.csv"')
        .send(writeContainers(featuresOn(await read.features(), today)))
    },
  }),
  route(containerEndpoints.bring, {
    prepare: async ({ body }) => {
      const read = await readOn(pool)('containersFile', { text: body.csv })
      if (!read.ok) throw fileRefusal(read.problems)
      return read.value
    },
    handle: ({ db, garden, person, today, prepared }) =>
      bringContainers(db, { gardenId: garden.id, personId: person.id, today }, prepared),
  }),
  route(containerEndpoints.fill, {
    handle: ({ db, garden, person, body, today }) =>
      fillContainer(
        db,
        { gardenId: garden.id, practiceId: garden.practiceId, personId: person.id, today },
        body,
      ),
  }),
]
