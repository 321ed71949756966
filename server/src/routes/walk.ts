import { photoEndpoints, walkEndpoints } from '@border/contract'
import { notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import { withdrawLook } from '../store/observations.ts'
import {
  findPicture,
  insertPhoto,
  insertStandpoint,
  listPhotos,
  listStandpoints,
  withdrawPhoto,
} from '../store/photos.ts'
import type { ComputePool } from '../work/compute.ts'
import { makePhoto } from '../work/photos.ts'
import { keepEntries, looksTakenBackBy, walkOfGarden } from '../work/walk.ts'

/** Walking a garden and noting what is seen. */
export function walkRoutes(pool: ComputePool): Route[] {
  return [
    route(walkEndpoints.read, {
      handle: ({ read }) => walkOfGarden(read, pool),
    }),
    route(walkEndpoints.note, {
      handle: ({ db, garden, person, body, today, truly }) =>
        keepEntries(db, { gardenId: garden.id, personId: person.id, today, truly }, body.entries),
    }),
    route(walkEndpoints.withdrawLook, {
      handle: async ({ db, garden, person, params }) => {
        const whose = looksTakenBackBy(garden, person)
        if (!(await withdrawLook(db, 'observations', garden.id, whose, params.observationId)))
          throw notFound(whose === 'anyone' ? 'This look' : 'A look of yours')
      },
    }),
    route(photoEndpoints.list, {
      handle: ({ db, garden }) => listPhotos(db, garden.id),
    }),
    route(photoEndpoints.add, {
      // Before the garden is held: a picture takes a second.
      prepare: ({ body, file, today, truly }) => {
        const taken = truly(body)
        if (taken.on > today) throw new Refusal(422, 'A photo cannot be taken ahead of today.')
        return makePhoto(taken, file)
      },
      handle: async ({ db, garden, person, prepared }) => ({
        added: await insertPhoto(db, garden.id, person.id, prepared),
      }),
    }),
    route(photoEndpoints.picture, {
      handle: async ({ db, garden, params, query }, { res }) => {
        const size = query.size === 'small' ? 'small' : 'picture'
        const picture = await findPicture(db, garden.id, params.photoId, size)
        if (!picture) throw notFound('This photo')
        // A photo never changes; only this person's browser may keep it.
        res.set('cache-control', 'private, max-age=31536000, immutable').type('image/jpeg').send(picture)
      },
    }),
    route(photoEndpoints.withdraw, {
      handle: async ({ db, garden, params }) => {
        if (!(await withdrawPhoto(db, garden.id, params.photoId))) throw notFound('This photo')
      },
    }),
    route(photoEndpoints.listStandpoints, {
      handle: ({ db, garden, today }) => listStandpoints(db, garden.id, today),
    }),
    route(photoEndpoints.addStandpoint, {
      handle: async ({ db, garden, body }) => ({ id: await insertStandpoint(db, garden.id, body) }),
    }),
  ]
}
