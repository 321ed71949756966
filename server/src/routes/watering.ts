import { wateringEndpoints } from '@border/contract'
import { notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import { findPlanting } from '../store/plantings.ts'
import { insertWaterings } from '../store/waterings.ts'
import { wateringOf } from '../work/watering.ts'

/** Watering of what is not rooted in yet. */
export const wateringRoutes = (): Route[] => [
  route(wateringEndpoints.read, {
    handle: ({ read }) => wateringOf(read),
  }),
  route(wateringEndpoints.give, {
    handle: async ({ db, garden, person, body, today }) => {
      if (body.on > today) throw new Refusal(422, 'Water cannot have been given ahead of today.')
      for (const { plantingId } of body.given)
        if (!(await findPlanting(db, garden.id, plantingId))) throw notFound('This planting')
      await insertWaterings(
        db,
        { gardenId: garden.id, personId: person.id },
        body.given.map((g) => ({ ...g, day: body.on })),
      )
    },
  }),
]
