import { priceEndpoints } from '@border/contract'
import { notFound } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import { listOffers, sayOffer, withdrawOffer } from '../store/offers.ts'

/** What suppliers ask. */
export const priceRoutes = (): Route[] => [
  route(priceEndpoints.list, { handle: ({ db, person }) => listOffers(db, person.practiceId) }),
  route(priceEndpoints.say, {
    handle: ({ db, person, body }) =>
      sayOffer(db, { practiceId: person.practiceId, personId: person.id }, body),
  }),
  route(priceEndpoints.withdraw, {
    handle: async ({ db, person, body }) => {
      if (!(await withdrawOffer(db, person.practiceId, body.id))) throw notFound('This price')
    },
  }),
]
