import type { Piscina } from 'piscina'
import { soilFileRequest, soilReadingRequest, weatherRequest, type SoilView } from '@border/contract'
import { addDays, isPlace, readSoil, readWeather } from '@border/core'
import { fileRefusal, notFound, Refusal } from '../errors.ts'
import { route, type Call, type Route } from '../routing.ts'
import { listFeatures, setStation } from '../store/gardens.ts'
import { todayOf } from '../store/people.ts'
import {
  findSoilCorrection,
  insertSoilReadings,
  insertStation,
  listSoilReadings,
  serviceStation,
  withdrawSoilReading,
} from '../store/weather.ts'
import { careAndPlan } from '../work/planSeason.ts'

const head = { garden: 'head' } as const
const crew = { garden: 'crew' } as const
const keeper = { garden: 'keeper' } as const

/** What a garden's year is like: its weather record and its soil thermometers. Windows follow every change. */
export function climateRoutes(pool: Piscina): Route[] {
  const replan = ({ db, garden, person }: Call<unknown>) =>
    careAndPlan(db, pool, garden, todayOf(person, garden.timeZone))
  return [
    route({
      method: 'post',
      path: '/gardens/:gardenId/weather',
      access: head,
      body: weatherRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, body } = call
        const read = readWeather(body.weather)
        if (!read.ok) throw fileRefusal(read.problems)
        const stationId = await insertStation(db, `Record brought with ${garden.name}`, 'file', read.value)
        await setStation(db, garden.id, stationId)
        await replan({ ...call, garden: { ...garden, stationId } })
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/weather-service',
      access: head,
      writes: true,
      handle: async (call) => {
        const { db, garden, person } = call
        const yesterday = addDays(todayOf(person, garden.timeZone), -1)
        const stationId = await serviceStation(db, garden, yesterday).catch(() => undefined)
        if (!stationId)
          throw new Refusal(409, 'The weather service does not answer. The record stays as it was.')
        await setStation(db, garden.id, stationId)
        await replan({ ...call, garden: { ...garden, stationId } })
      },
    }),
    route({
      method: 'get',
      path: '/gardens/:gardenId/soil',
      access: keeper,
      handle: async ({ db, garden }): Promise<SoilView> => ({
        readings: await listSoilReadings(db, garden.id),
        correction: await findSoilCorrection(db, garden),
      }),
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/soil',
      access: crew,
      body: soilReadingRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, person, body } = call
        if (body.day > todayOf(person, garden.timeZone))
          throw new Refusal(422, 'A reading cannot lie ahead of today.')
        const places = (await listFeatures(db, garden.id)).filter(isPlace)
        if (body.placeId && !places.some((p) => p.id === body.placeId)) throw notFound('This place')
        await insertSoilReadings(db, { gardenId: garden.id, personId: person.id }, [
          { ...body, placeId: body.placeId ?? null },
        ])
        await replan(call)
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/soil-file',
      access: head,
      body: soilFileRequest,
      writes: true,
      handle: async (call) => {
        const { db, garden, person, body } = call
        const places = new Map(
          (await listFeatures(db, garden.id)).filter(isPlace).map((p) => [p.name.toLowerCase(), p.id]),
        )
        const read = readSoil(body.csv, new Set(places.keys()), todayOf(person, garden.timeZone))
        if (!read.ok) throw fileRefusal(read.problems)
        const added = await insertSoilReadings(
          db,
          { gardenId: garden.id, personId: person.id },
          read.value.map((r) => ({ ...r, placeId: r.place ? places.get(r.place.toLowerCase())! : null })),
        )
        await replan(call)
        return { added, known: read.value.length - added }
      },
    }),
    route({
      method: 'post',
      path: '/gardens/:gardenId/soil/:readingId/withdraw',
      access: crew,
      writes: true,
      handle: async (call) => {
        const { db, garden, params } = call
        if (!(await withdrawSoilReading(db, garden.id, params.readingId!))) throw notFound('This reading')
        await replan(call)
      },
    }),
  ]
}
