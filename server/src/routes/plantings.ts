import { type StoryEntry, plantingEndpoints } from '@border/contract'
import { colourFollowsSoil, dayMonthYear, isInside, isPlace, ringOf, type Ring } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'
import { route, type Call, type Route } from '../routing.ts'
import { findOnBench, plantFromBench } from '../store/bench.ts'
import { listDecisionStory } from '../store/decisions.ts'
import { findFeature } from '../store/gardens.ts'
import { listJobStory } from '../store/jobs.ts'
import { listObservedStory } from '../store/observations.ts'
import { listPhotos } from '../store/photos.ts'
import {
  amendPlanting,
  findPlanting,
  insertEvents,
  insertPlantings,
  listEvents,
  listOffspring,
  listTreatmentStory,
  listTrialStory,
  restorePlanting,
  withdrawPlanting,
} from '../store/plantings.ts'
import { findTaxon } from '../store/taxa.ts'
import { plantingStanding } from '../work/standing.ts'
import { looksTakenBackBy } from '../work/walk.ts'

async function plantingNow({
  db,
  garden,
  read,
  params: { plantingId },
}: Pick<Call<typeof plantingEndpoints.amend>, 'db' | 'garden' | 'read' | 'params'>) {
  const names = new Map((await read.features()).map((f) => [f.id, f.name]))
  const planting = await findPlanting(db, garden.id, plantingId)
  return plantingStanding(plantingId, planting, (id) => names.get(id) ?? 'a place')
}

/** Plantings: put in, put right, and told. */
export const plantingRoutes = (): Route[] => [
  route(plantingEndpoints.add, {
    handle: async ({ db, garden, person, body, today }) => {
      const place = await placeAt(db, garden.id, body)
      if (body.plantedOn > today) throw new Refusal(422, 'The planting date lies ahead.')
      const taxon = await taxonNamed(db, person.practiceId, body.taxonBotanical)
      const bench = body.benchId ? await findOnBench(db, garden.id, body.benchId) : undefined
      if (body.benchId && !bench) throw notFound('This on the bench')
      const id = randomUUID()
      await insertPlantings(db, [
        {
          ...body,
          id,
          gardenId: garden.id,
          taxonId: taxon.id,
          parentId: bench?.fromPlantingId ?? null,
          placeId: place.id,
          personId: person.id,
        },
      ])
      if (body.benchId)
        await plantFromBench(db, body.benchId, { count: body.count, on: body.plantedOn, plantingId: id })
      return { plantingId: id }
    },
  }),
  route(plantingEndpoints.amend, {
    stands: plantingNow,
    handle: async ({ db, garden, person, params, body, today }) => {
      const planting = await findPlanting(db, garden.id, params.plantingId)
      if (!planting) throw notFound('This planting')
      if (body.plantedOn > today) throw new Refusal(422, 'The planting date lies ahead.')
      if (body.plantedOn > planting.inPlaceSince && planting.inPlaceSince !== planting.plantedOn)
        throw new Refusal(
          422,
          `It came to its present place on ${dayMonthYear(planting.inPlaceSince)}: it was planted no later.`,
        )
      await placeAt(db, garden.id, body)
      const taxon = await taxonNamed(db, person.practiceId, body.taxonBotanical)
      if (body.colourWish && !colourFollowsSoil({ botanical: body.taxonBotanical }))
        throw new Refusal(
          422,
          `The flowers of ${body.taxonBotanical} do not follow the soil: no colour can be wished of them.`,
        )
      await amendPlanting(db, { gardenId: garden.id, personId: person.id }, planting, {
        ...body,
        taxonId: taxon.id,
      })
    },
  }),
  route(plantingEndpoints.withdraw, {
    stands: plantingNow,
    handle: async ({ db, garden, params }) => {
      if (!(await withdrawPlanting(db, garden.id, params.plantingId))) throw notFound('This planting')
    },
  }),
  route(plantingEndpoints.restore, {
    handle: async ({ db, garden, params }) => {
      if (!(await restorePlanting(db, garden.id, params.plantingId))) throw notFound('This planting')
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

async function placeAt(
  db: Db,
  gardenId: string,
  { placeId, x, y, outline }: { placeId: string; x: number; y: number; outline?: Ring | undefined },
) {
  const place = await findFeature(db, gardenId, placeId)
  if (!place || !isPlace(place)) throw notFound('This place')
  if (place.kind === 'bed' && !isInside(ringOf(place.geometry), x, y))
    throw new Refusal(422, `This spot lies outside ${place.name}.`)
  if (outline && place.kind !== 'bed')
    throw new Refusal(422, `A drift is drawn in a bed; ${place.name} is none.`)
  if (outline && !isInside(outline, x, y)) throw new Refusal(422, 'This spot lies outside its own outline.')
  return place
}

async function taxonNamed(db: Db, practiceId: string, botanical: string) {
  const taxon = await findTaxon(db, practiceId, botanical)
  if (!taxon) throw new Refusal(422, `${botanical} is not in the plant library.`)
  return taxon
}

/** By the day it happened, then by when it was written down. */
function inOrder(a: StoryEntry, b: StoryEntry): number {
  const later = (x: StoryEntry) => `${x.on} ${new Date(x.recordedAt).toISOString()}`
  return later(a) < later(b) ? -1 : 1
}
