import {
  photoRequest,
  standpointRequest,
  walkRequest,
  type PhotoView,
  type StandpointView,
  type WalkView,
} from '@border/contract'
import type { Piscina } from 'piscina'
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
import { makePhoto } from '../work/photos.ts'
import { keepEntries, looksTakenBackBy, walkOfGarden } from '../work/walk.ts'
import { goneAway } from './goneAway.ts'

const head = { garden: 'head' } as const
const crew = { garden: 'crew' } as const
const keeper = { garden: 'keeper' } as const

/** Walking a garden and noting what is seen. */
export function walkRoutes(pool: Piscina): Route[] {
  return [
    route({
      method: 'get',
      path: '/gardens/:gardenId/walk',
      access: crew,
      handle: ({ read }, { res }): Promise<WalkView> => walkOfGarden(read, pool, goneAway(res)),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/walk-entries',
      access: crew,
      body: walkRequest,
      writes: true,
      handle: ({ db, garden, person, body, today }) =>
        keepEntries(db, { gardenId: garden.id, personId: person.id, today }, body.entries),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/observations/:observationId/withdraw',
      access: crew,
      writes: true,
      handle: async ({ db, garden, person, params }) => {
        const whose = looksTakenBackBy(garden, person)
        if (!(await withdrawLook(db, 'observations', garden.id, whose, params.observationId!)))
          throw notFound(whose === 'anyone' ? 'This look' : 'A look of yours')
      },
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/photos',
      access: keeper,
      handle: ({ db, garden }): Promise<PhotoView[]> => listPhotos(db, garden.id),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/photos',
      access: crew,
      body: photoRequest,
      writes: true,
      handle: async ({ db, garden, person, body, today }) => {
        if (body.on > today) throw new Refusal(422, 'A photo cannot be taken ahead of today.')
        const photo = await makePhoto(body)
        return { added: await insertPhoto(db, garden.id, person.id, photo) }
      },
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/photos/:photoId',
      access: keeper,
      handle: async ({ db, garden, params, query }, { res }) => {
        const size = query.size === 'small' ? 'small' : 'picture'
        const picture = await findPicture(db, garden.id, params.photoId!, size)
        if (!picture) throw notFound('This photo')
        // A photo never changes; only this person's browser may keep it.
        res.set('cache-control', 'private, max-age=31536000, immutable').type('image/jpeg').send(picture)
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/photos/:photoId/withdraw',
      access: crew,
      writes: true,
      handle: async ({ db, garden, params }) => {
        if (!(await withdrawPhoto(db, garden.id, params.photoId!))) throw notFound('This photo')
      },
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/standpoints',
      access: keeper,
      handle: ({ db, garden, today }): Promise<StandpointView[]> => listStandpoints(db, garden.id, today),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/standpoints',
      access: head,
      body: standpointRequest,
      writes: true,
      handle: async ({ db, garden, body }) => ({ id: await insertStandpoint(db, garden.id, body) }),
    }),
  ]
}
