import {
  endFeatureRequest,
  featureEventRequest,
  featureRequest,
  gardenRequest,
  importRequest,
  northRequest,
  personRequest,
  plantingRequest,
  type GardenView,
  type ImportPreviewResult,
} from '@border/contract'
import { castsShade, checkFeature, isInside, isIsoDate, isPlace, ringOf } from '@border/core'
import { randomUUID } from 'node:crypto'
import { fileRefusal, notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import {
  addMember,
  endFeature,
  everPlanted,
  findFeature,
  insertFeatureEvent,
  insertFeatures,
  listFeatures,
  listGardensFor,
  restoreFeature,
  setNorth,
  withdrawFeature,
  withdrawLatestEvent,
} from '../store/gardens.ts'
import { findColleague, insertPerson, listMembers, todayOf } from '../store/people.ts'
import { insertPlantings, listPlantings } from '../store/plantings.ts'
import { findOnBench, plantFromBench } from '../store/bench.ts'
import { findTaxon } from '../store/taxa.ts'
import { findClimate } from '../store/weather.ts'
import { previewOf, readGardenFiles, saveGarden } from '../work/importGarden.ts'
import { hashPassword } from './session.ts'

const head = { garden: 'head' } as const
const keeper = { garden: 'keeper' } as const

/** The day a read is asked for: `?on=` or the garden's today. */
export function dayAsked(query: Record<string, unknown>, name: string): string | undefined {
  const value = query[name]
  if (value === undefined) return undefined
  if (typeof value !== 'string' || !isIsoDate(value))
    throw new Refusal(422, `${name} must be a date like 2026-09-14.`)
  return value
}

export const gardenRoutes = (): Route[] => [
  route({
    method: 'get',
    path: '/gardens',
    access: 'signed in',
    handle: async ({ db, person }) =>
      (await listGardensFor(db, person.id)).map(
        ({ stationId: _station, schools: _schools, ...garden }) => garden,
      ),
  }),
  route({
    method: 'post',
    path: '/gardens',
    access: 'leads practice',
    body: gardenRequest,
    writes: true,
    handle: async ({ db, person, body }) => {
      const plan = {
        garden: { version: 1 as const, coordinates: 'local-metres' as const, ...body },
        features: [],
      }
      const { gardenId } = await saveGarden(
        db,
        { practiceId: person.practiceId, personId: person.id },
        { plan, plantings: [], weather: null },
      )
      return { gardenId }
    },
  }),
  route({
    method: 'post',
    path: '/imports/preview',
    access: 'leads practice',
    body: importRequest,
    handle: async ({ db, person, body }): Promise<ImportPreviewResult> => {
      const today = todayOf(person)
      const read = await readGardenFiles(db, person.practiceId, body, today)
      return read.ok ? { ok: true, preview: previewOf(read.value, today) } : read
    },
  }),
  route({
    method: 'post',
    path: '/imports',
    access: 'leads practice',
    body: importRequest,
    writes: true,
    handle: async ({ db, person, body }) => {
      const read = await readGardenFiles(db, person.practiceId, body, todayOf(person))
      if (!read.ok) throw fileRefusal(read.problems)
      const { gardenId } = await saveGarden(
        db,
        { practiceId: person.practiceId, personId: person.id },
        read.value,
      )
      return { gardenId }
    },
  }),
  route({
    method: 'get',
    path: '/gardens/:gardenId',
    access: keeper,
    handle: async ({ db, garden, query, person }): Promise<GardenView> => {
      const on = dayAsked(query, 'on') ?? todayOf(person, garden.timeZone)
      const { stationId: _station, schools, ...summary } = garden
      const { climate, source } = await findClimate(db, garden)
      return {
        garden: summary,
        features: await listFeatures(db, garden.id),
        plantings: await listPlantings(db, garden.id, on),
        climate,
        climateSource: source,
        schools,
      }
    },
  }),
  route({
    method: 'post',
    path: '/gardens/:gardenId/features',
    access: head,
    body: featureRequest,
    writes: true,
    handle: async ({ db, garden, body }) => {
      const read = checkFeature(body.feature)
      if (!read.ok) throw fileRefusal(read.problems)
      const [featureId] = await insertFeatures(db, garden.id, [read.value])
      return { featureId }
    },
  }),
  route({
    method: 'post',
    path: '/gardens/:gardenId/features/:featureId/end',
    access: head,
    body: endFeatureRequest,
    writes: true,
    handle: async ({ db, garden, params, body }) => {
      const feature = await featureOf(db, garden.id, params.featureId!)
      if (body.to && feature.from_date && body.to <= feature.from_date)
        throw new Refusal(422, `It only came on ${feature.from_date}: the day it is gone must be later.`)
      await endFeature(db, feature.id, body.to)
    },
  }),
  route({
    method: 'post',
    path: '/gardens/:gardenId/features/:featureId/events',
    access: head,
    body: featureEventRequest,
    writes: true,
    handle: async ({ db, garden, person, params, body }) => {
      const feature = await featureOf(db, garden.id, params.featureId!)
      if (body.action === 'limbed' && feature.kind !== 'tree')
        throw new Refusal(422, 'Only a tree can be limbed up.')
      if (!castsShade(feature)) throw new Refusal(422, `A ${feature.kind} casts no shade that could change.`)
      await insertFeatureEvent(db, feature.id, person.id, body)
    },
  }),
  route({
    method: 'post',
    path: '/gardens/:gardenId/features/:featureId/events/undo',
    access: head,
    writes: true,
    handle: async ({ db, garden, params }) => {
      const feature = await featureOf(db, garden.id, params.featureId!)
      if (!(await withdrawLatestEvent(db, feature.id)))
        throw new Refusal(
          409,
          'Nothing recorded here can be taken back: what came with the plan’s file stays.',
        )
    },
  }),
  route({
    method: 'post',
    path: '/gardens/:gardenId/features/:featureId/withdraw',
    access: head,
    writes: true,
    handle: async ({ db, garden, params }) => {
      const feature = await featureOf(db, garden.id, params.featureId!)
      if (await everPlanted(db, feature.id))
        throw new Refusal(409, `Plants stand or stood in ${feature.name}: give it a last day instead.`)
      await withdrawFeature(db, feature.id)
    },
  }),
  route({
    method: 'post',
    path: '/gardens/:gardenId/features/:featureId/restore',
    access: head,
    writes: true,
    handle: async ({ db, garden, params }) => {
      if (!(await restoreFeature(db, garden.id, params.featureId!))) throw notFound('This part of the plan')
    },
  }),
  route({
    method: 'post',
    path: '/gardens/:gardenId/plantings',
    access: head,
    body: plantingRequest,
    writes: true,
    handle: async ({ db, garden, person, body }) => {
      const place = await findFeature(db, garden.id, body.placeId)
      if (!place || !isPlace(place)) throw notFound('This place')
      if (place.kind === 'bed' && !isInside(ringOf(place.geometry), body.x, body.y))
        throw new Refusal(422, `This spot lies outside ${place.name}.`)
      if (body.plantedOn > todayOf(person, garden.timeZone))
        throw new Refusal(422, 'The planting date lies ahead.')
      const taxon = await findTaxon(db, person.practiceId, body.taxonBotanical)
      if (!taxon) throw new Refusal(422, `${body.taxonBotanical} is not in the plant library.`)
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
          placeName: place.name,
          personId: person.id,
        },
      ])
      if (body.benchId)
        await plantFromBench(db, body.benchId, { count: body.count, on: body.plantedOn, plantingId: id })
      return { plantingId: id }
    },
  }),
  route({
    method: 'post',
    path: '/gardens/:gardenId/north',
    access: head,
    body: northRequest,
    writes: true,
    handle: async ({ db, garden, body }) => setNorth(db, garden.id, body.northDeg),
  }),
  route({
    method: 'get',
    path: '/gardens/:gardenId/people',
    access: head,
    handle: async ({ db, garden }) => listMembers(db, garden.id),
  }),
  route({
    method: 'post',
    path: '/gardens/:gardenId/people',
    access: head,
    body: personRequest,
    writes: true,
    handle: async ({ db, garden, person, body }) => {
      const known = await findColleague(db, person.practiceId, body.email)
      if (known === person.id) throw new Refusal(409, 'You cannot change your own role in a garden.')
      const personId =
        known ??
        (await insertPerson(db, {
          practiceId: person.practiceId,
          name: body.name,
          email: body.email,
          passwordHash: await hashPassword(body.password),
        }))
      await addMember(db, garden.id, personId, body.role)
    },
  }),
]

async function featureOf(db: Parameters<typeof findFeature>[0], gardenId: string, id: string) {
  const feature = await findFeature(db, gardenId, id)
  if (!feature) throw notFound('This part of the plan')
  return feature
}
