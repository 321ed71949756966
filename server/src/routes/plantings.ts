import { type StoryEntry, plantingEndpoints } from '@border/contract'
import { notFound, Refusal } from '../errors.ts'
import { route, type Call, type Route } from '../routing.ts'
import { listDecisionStory } from '../store/decisions.ts'
import { openEdit } from '../store/edits.ts'
import { listJobStory } from '../store/jobs.ts'
import { listObservedStory } from '../store/observations.ts'
import { listPhotos } from '../store/photos.ts'
import {
  findPlanting,
  insertEvents,
  listEvents,
  listOffspring,
  listTreatmentStory,
  listTrialStory,
} from '../store/plantings.ts'
import { addPlantings, amendPlantings } from '../work/editPlantings.ts'
import { plantingStanding, severalStanding } from '../work/standing.ts'
import { looksTakenBackBy } from '../work/walk.ts'

/** How several plantings stand that are put right together. */
async function plantingsNow(
  { db, garden, read }: Pick<Call<typeof plantingEndpoints.amend>, 'db' | 'garden' | 'read'>,
  ids: readonly string[],
) {
  const names = new Map((await read.features()).map((f) => [f.id, f.name]))
  const found = await Promise.all(ids.map((id) => findPlanting(db, garden.id, id)))
  return severalStanding(
    ids.map((id, i) => plantingStanding(id, found[i], (placeId) => names.get(placeId) ?? 'a place')),
    (seen) => seen.id,
    ids,
  )
}

/** Plantings: put in, put right, and told. */
export const plantingRoutes = (): Route[] => [
  route(plantingEndpoints.add, {
    handle: ({ db, garden, person, body, today }) =>
      addPlantings(db, { ...garden, gardenId: garden.id, personId: person.id, today }, body.plantings),
  }),
  route(plantingEndpoints.amend, {
    stands: (call) =>
      plantingsNow(
        call,
        call.body.plantings.map((p) => p.plantingId),
      ),
    handle: async ({ db, garden, person, body, today }) => ({
      editId: await amendPlantings(
        db,
        { ...garden, gardenId: garden.id, personId: person.id, today },
        body.plantings,
      ),
    }),
  }),
  route(plantingEndpoints.withdraw, {
    stands: (call) => plantingsNow(call, call.body.plantingIds),
    handle: async ({ db, garden, person, body }) => {
      const edit = openEdit(db, { gardenId: garden.id, personId: person.id })
      for (const id of body.plantingIds) {
        if (!(await findPlanting(db, garden.id, id))) throw notFound('This planting')
        await edit.change('plantings', id, { withdrawn: true })
      }
      return { editId: await edit.save() }
    },
  }),
  route(plantingEndpoints.restore, {
    handle: async ({ db, garden, person, params }) => {
      const edit = openEdit(db, { gardenId: garden.id, personId: person.id })
      await edit.change('plantings', params.plantingId, { withdrawn: false })
      const editId = await edit.save()
      if (!editId) throw notFound('This planting, taken out,')
      return { editId }
    },
  }),
  route(plantingEndpoints.story, {
    handle: async ({ db, garden, person, params }) => {
      const planting = await findPlanting(db, garden.id, params.plantingId)
      if (!planting) throw notFound('This planting')
      const story = [
        ...(await listEvents(db, planting)),
        ...(await listObservedStory(db, planting.id, looksTakenBackBy(garden, person))),
        ...(await listDecisionStory(db, planting.id)),
        ...(await listJobStory(db, planting.id)),
        ...(await listTrialStory(db, planting.id)),
        ...(await listTreatmentStory(db, planting.id)),
      ]
      return {
        planting,
        photos: await listPhotos(db, garden.id, planting.id),
        offspring: await listOffspring(db, planting.id),
        story: story.sort(inOrder),
      }
    },
  }),
  route(plantingEndpoints.note, {
    handle: async ({ db, garden, person, params, body, today }) => {
      const planting = await findPlanting(db, garden.id, params.plantingId)
      if (!planting) throw notFound('This planting')
      if (body.on > today) throw new Refusal(422, 'A note cannot lie ahead of today.')
      await insertEvents(db, [
        {
          gardenId: garden.id,
          plantingId: planting.id,
          on: body.on,
          kind: 'note',
          note: body.note,
          personId: person.id,
        },
      ])
    },
  }),
]

/** By the day it happened, then by when it was written down. */
function inOrder(a: StoryEntry, b: StoryEntry): number {
  const later = (x: StoryEntry) => `${x.on} ${new Date(x.recordedAt).toISOString()}`
  return later(a) < later(b) ? -1 : 1
}
