import { benchEndpoints } from '@border/contract'
import { notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import { listBench, putOnBench, takeOffBench } from '../store/bench.ts'
import { findTaxon } from '../store/taxa.ts'

/** Plants that wait for a place. */
export const benchRoutes = (): Route[] => [
  route(benchEndpoints.list, {
    handle: ({ db, garden }) => listBench(db, garden.id),
  }),
  route(benchEndpoints.put, {
    handle: async ({ db, garden, person, body, today }) => {
      if (body.since > today) throw new Refusal(422, 'That day lies ahead.')
      const taxon = await findTaxon(db, person.practiceId, body.taxonBotanical)
      if (!taxon) throw new Refusal(422, `${body.taxonBotanical} is not in the plant library.`)
      await putOnBench(db, { gardenId: garden.id, personId: person.id }, [
        { taxonId: taxon.id, count: body.count, since: body.since, note: body.note },
      ])
    },
  }),
  route(benchEndpoints.gone, {
    handle: async ({ db, garden, params, body, today }) => {
      if (body.on > today) throw new Refusal(422, 'That day lies ahead.')
      if (!(await takeOffBench(db, garden.id, params.benchId, body))) throw notFound('This on the bench')
    },
  }),
]
