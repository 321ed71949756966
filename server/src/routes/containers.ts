import { containerEndpoints } from '@border/contract'
import { route, type Route } from '../routing.ts'
import { absenceFrom, containersOf, fillContainer } from '../work/containers.ts'
import type { ComputePool } from '../work/compute.ts'

/** Containers: what they hold, weigh and drink, and how they are filled. */
export const containerRoutes = (pool: ComputePool): Route[] => [
  route(containerEndpoints.read, {
    handle: ({ read }) => containersOf(read, pool),
  }),
  route(containerEndpoints.absence, {
    handle: ({ read, query }) => absenceFrom(read, pool, query),
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
