import { planEndpoints } from '@border/contract'
import { capitalised, castsShade, checkFeature, eventFault } from '@border/core'
import type { Db } from '../database/connect.ts'
import { fileRefusal, notFound, Refusal } from '../errors.ts'
import type { GardenReader } from '../reader.ts'
import { route, type Route } from '../routing.ts'
import {
  amendFeature,
  endFeature,
  everPlanted,
  findFeature,
  insertFeatureEvent,
  insertFeatures,
  restoreFeature,
  withdrawFeature,
  withdrawLatestEvent,
} from '../store/gardens.ts'
import { changeObstruction } from '../work/changeObstruction.ts'
import { partStanding } from '../work/standing.ts'

const stands = async ({ read, params }: { read: GardenReader; params: { featureId: string } }) =>
  partStanding(
    params.featureId,
    (await read.features()).find((f) => f.id === params.featureId),
  )

/** What stands in a garden, and what has happened to it. */
export const planRoutes = (): Route[] => [
  route(planEndpoints.addFeature, {
    handle: async ({ db, garden, body }) => {
      const read = checkFeature(body.feature)
      if (!read.ok) throw fileRefusal(read.problems)
      const [featureId] = await insertFeatures(db, garden.id, [read.value])
      return { featureId: featureId! }
    },
  }),
  route(planEndpoints.amendFeature, {
    stands,
    handle: async ({ db, garden, person, params, body }) => {
      const feature = await featureOf(db, garden.id, params.featureId)
      const right = checkFeature(body.feature)
      if (!right.ok) throw fileRefusal(right.problems)
      if (right.value.kind !== feature.kind)
        throw new Refusal(422, `A ${feature.kind} cannot be made a ${right.value.kind}.`)
      await amendFeature(db, { gardenId: garden.id, personId: person.id }, feature, right.value)
    },
  }),
  route(planEndpoints.changeFeature, {
    stands,
    handle: ({ db, garden, person, params, body }) =>
      changeObstruction(db, { gardenId: garden.id, personId: person.id }, params.featureId, body),
  }),
  route(planEndpoints.endFeature, {
    stands,
    handle: async ({ db, garden, params, body }) => {
      const feature = await featureOf(db, garden.id, params.featureId)
      if (body.to && feature.from_date && body.to <= feature.from_date)
        throw new Refusal(422, `It only came on ${feature.from_date}: the day it is gone must be later.`)
      await endFeature(db, feature.id, body.to)
    },
  }),
  route(planEndpoints.recordEvent, {
    stands,
    handle: async ({ db, garden, person, params, body }) => {
      const feature = await featureOf(db, garden.id, params.featureId)
      const fault = eventFault(feature.kind, body)
      if (fault) throw new Refusal(422, `${capitalised(fault)}.`)
      if (!castsShade(feature)) throw new Refusal(422, `A ${feature.kind} casts no shade that could change.`)
      await insertFeatureEvent(db, { gardenId: garden.id, personId: person.id }, feature.id, body)
    },
  }),
  route(planEndpoints.takeBackEvent, {
    stands,
    handle: async ({ db, garden, params }) => {
      const feature = await featureOf(db, garden.id, params.featureId)
      if (!(await withdrawLatestEvent(db, feature.id)))
        throw new Refusal(
          409,
          'Nothing recorded here can be taken back: what came with the plan’s file stays.',
        )
    },
  }),
  route(planEndpoints.withdrawFeature, {
    stands,
    handle: async ({ db, garden, params }) => {
      const feature = await featureOf(db, garden.id, params.featureId)
      if (await everPlanted(db, feature.id))
        throw new Refusal(409, `Plants stand or stood in ${feature.name}: give it a last day instead.`)
      await withdrawFeature(db, feature.id)
    },
  }),
  route(planEndpoints.restoreFeature, {
    handle: async ({ db, garden, params }) => {
      if (!(await restoreFeature(db, garden.id, params.featureId))) throw notFound('This part of the plan')
    },
  }),
]

async function featureOf(db: Db, gardenId: string, id: string) {
  const feature = await findFeature(db, gardenId, id)
  if (!feature) throw notFound('This part of the plan')
  return feature
}
