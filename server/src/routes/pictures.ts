import { pictureEndpoints } from '@border/contract'
import { notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import {
  findPictureFile,
  findPlanPicture,
  insertPicture,
  listPictures,
  updatePicture,
  withdrawPicture,
} from '../store/pictures.ts'
import type { ComputePool } from '../work/compute.ts'
import { makePlanPicture } from '../work/photos.ts'
import { pictureStanding } from '../work/standing.ts'

/** Scans and photos under the plan. */
export const pictureRoutes = (pool: ComputePool): Route[] => [
  route(pictureEndpoints.list, {
    handle: ({ db, garden }) => listPictures(db, garden.id),
  }),
  route(pictureEndpoints.add, {
    // Before the garden is held: a scan takes a second.
    prepare: ({ body, file }) => makePlanPicture(body, file),
    handle: async ({ db, garden, person, prepared }) => ({
      pictureId: await insertPicture(db, { gardenId: garden.id, personId: person.id }, prepared),
    }),
  }),
  route(pictureEndpoints.picture, {
    handle: async ({ db, garden, params }, { res }) => {
      const file = await findPictureFile(db, garden.id, params.pictureId)
      if (!file) throw notFound('This picture')
      // It never changes; only this person's browser may keep it.
      res.set('cache-control', 'private, max-age=31536000, immutable').type('image/jpeg').send(file)
    },
  }),
  route(pictureEndpoints.amend, {
    stands: async ({ db, garden, params }) =>
      pictureStanding(params.pictureId, await findPlanPicture(db, garden.id, params.pictureId)),
    // Of many points and tapes it takes a thread a second.
    prepare: ({ body }) =>
      body.laying ? pool.run('lie', { laying: body.laying }) : Promise.resolve(undefined),
    handle: async ({ db, garden, params, body, prepared: lies }) => {
      if (!(await findPlanPicture(db, garden.id, params.pictureId))) throw notFound('This picture')
      if (lies && !lies.ok) throw new Refusal(422, `${lies.says} Nothing was changed.`)
      await updatePicture(db, garden.id, params.pictureId, body)
    },
  }),
  route(pictureEndpoints.withdraw, {
    handle: async ({ db, garden, params }) => {
      if (!(await withdrawPicture(db, garden.id, params.pictureId, true))) throw notFound('This picture')
    },
  }),
  route(pictureEndpoints.restore, {
    handle: async ({ db, garden, params }) => {
      if (!(await withdrawPicture(db, garden.id, params.pictureId, false)))
        throw notFound('This picture, taken away,')
    },
  }),
]
