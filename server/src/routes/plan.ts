import { planEndpoints } from '@border/contract'
import { capitalised, castsShade, eventFault } from '@border/core'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'
import type { GardenReader } from '../reader.ts'
import { route, type Route } from '../routing.ts'
import { editNames, listEdits, openEdit, undoEdit } from '../store/edits.ts'
import {
  countHanging,
  findFeature,
  insertFeatureEvent,
  listRemovedFeatures,
  withdrawLatestEvent,
} from '../store/gardens.ts'
import { listRemovedPlantings, listSites } from '../store/plantings.ts'
import { changeObstruction } from '../work/changeObstruction.ts'
import { editPlan } from '../work/editPlan.ts'
import { editView } from '../work/editWords.ts'
import { partStanding, severalStanding } from '../work/standing.ts'

/** Changes of a garden that are told at most, the latest. */
const MOST_TOLD = 200

const stands = async ({ read, params }: { read: GardenReader; params: { featureId: string } }) =>
  partStanding(
    params.featureId,
    (await read.features()).find((f) => f.id === params.featureId),
  )

/** What stands in a garden, and what has happened to it. */
export const planRoutes = (): Route[] => [
  route(planEndpoints.edit, {
    stands: async ({ read, body }) => {
      const features = await read.features()
      const ids = body.parts.map((p) => p.id).filter((id) => features.some((f) => f.id === id))
      return severalStanding(
        ids.map((id) =>
          partStanding(
            id,
            features.find((f) => f.id === id),
          ),
        ),
        (seen) => seen.id,
        ids,
      )
    },
    handle: async ({ db, garden, person, body, today }) => {
      if (body.from && body.from > today) throw new Refusal(422, 'That day lies ahead.')
      return { editId: await editPlan(db, { gardenId: garden.id, personId: person.id }, body) }
    },
  }),
  route(planEndpoints.undo, {
    handle: async ({ db, garden, person, params }) => ({
      editId: await undoEdit(db, { gardenId: garden.id, personId: person.id }, params.editId),
    }),
  }),
  route(planEndpoints.edits, {
    handle: async ({ db, garden, read }) => {
      const edits = await listEdits(db, garden.id, MOST_TOLD)
      const names = await editNames(db, garden.id, await read.features())
      return edits.map((edit) => editView(edit, names))
    },
  }),
  route(planEndpoints.hanging, {
    handle: async ({ db, garden, params }) => {
      const feature = await featureOf(db, garden.id, params.featureId)
      const sites = await listSites(db, garden.id, feature.id)
      const present = sites.filter((s) => s.to_date === null)
      return {
        plantings: present.map((s) => s.tag),
        past: sites.length - present.length,
        ...(await countHanging(db, feature.id)),
      }
    },
  }),
  route(planEndpoints.removed, {
    handle: async ({ db, garden }) => {
      const parts = await listRemovedFeatures(db, garden.id)
      const plantings = await listRemovedPlantings(db, garden.id)
      return {
        parts: parts.map((p) => ({ ...p, at: p.at.toISOString() })),
        plantings: plantings.map((p) => ({ ...p, at: p.at.toISOString() })),
      }
    },
  }),
  route(planEndpoints.changeFeature, {
    stands,
    handle: async ({ db, garden, person, params, body }) => ({
      editId: await changeObstruction(
        db,
        { gardenId: garden.id, personId: person.id },
        params.featureId,
        body,
      ),
    }),
  }),
  route(planEndpoints.endFeature, {
    stands,
    handle: async ({ db, garden, person, params, body }) => {
      const feature = await featureOf(db, garden.id, params.featureId)
      if (body.to && feature.from_date && body.to <= feature.from_date)
        throw new Refusal(422, `It only came on ${feature.from_date}: the day it is gone must be later.`)
      const edit = openEdit(db, { gardenId: garden.id, personId: person.id })
      await edit.change('features', feature.id, { to_date: body.to })
      return { editId: await edit.save() }
    },
  }),
  route(planEndpoints.recordEvent, {
    stands,
    handle: async ({ db, garden, person, params, body }) => {
      const feature = await featureOf(db, garden.id, params.featureId)
      const fault = eventFault(feature.kind, body)
      if (fault) throw new Refusal(422, `${capitalised(fault)}.`)
      if (!castsShade(feature)) throw new Refusal(422, `A ${feature.kind} casts no shade that could change.`)
      const who = { gardenId: garden.id, personId: person.id }
      const edit = openEdit(db, { ...who, from: body.date })
      await insertFeatureEvent(edit, who, feature.id, body)
      return { editId: await edit.save() }
    },
  }),
  route(planEndpoints.takeBackEvent, {
    stands,
    handle: async ({ db, garden, person, params }) => {
      const feature = await featureOf(db, garden.id, params.featureId)
      const edit = openEdit(db, { gardenId: garden.id, personId: person.id })
      if (!(await withdrawLatestEvent(db, edit, feature.id)))
        throw new Refusal(
          409,
          'Nothing recorded here can be taken back: what came with the plan’s file stays.',
        )
      return { editId: await edit.save() }
    },
  }),
  route(planEndpoints.restore, {
    handle: async ({ db, garden, person, params }) => {
      const edit = openEdit(db, { gardenId: garden.id, personId: person.id })
      await edit.change('features', params.featureId, { withdrawn: false })
      const editId = await edit.save()
      if (!editId) throw notFound('This part of the plan, taken off it,')
      return { editId }
    },
  }),
]

async function featureOf(db: Db, gardenId: string, id: string) {
  const feature = await findFeature(db, gardenId, id)
  if (!feature) throw notFound('This part of the plan')
  return feature
}
