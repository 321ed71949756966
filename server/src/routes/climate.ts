import { climateEndpoints } from '@border/contract'
import { addDays, isPlace } from '@border/core'
import { fileRefusal, notFound, Refusal } from '../errors.ts'
import { route, type Route } from '../routing.ts'
import { listFeatures, placesByName, setKnownClimate, setStation } from '../store/gardens.ts'
import {
  askRecord,
  findSoilCorrection,
  findUnfitted,
  insertServiceRecord,
  insertSoilReadings,
  insertStation,
  listSoilReadings,
  withdrawSoilReading,
} from '../store/weather.ts'
import { WeatherSilent } from '../store/weatherService.ts'
import type { ComputePool } from '../work/compute.ts'
import { readOn } from '../work/fileTasks.ts'
import { outlookOf } from '../work/outlook.ts'
import { knownStanding } from '../work/standing.ts'

/** What a garden's year is like: its weather record, what is known of it, its soil thermometers, and the days to come. */
export function climateRoutes(pool: ComputePool): Route[] {
  return [
    route(climateEndpoints.bringWeather, {
      prepare: async ({ body }) => {
        const read = await readOn(pool)('weatherFile', { text: body.weather })
        if (!read.ok) throw fileRefusal(read.problems)
        return read.value
      },
      handle: async ({ db, garden, prepared }) => {
        const record = { name: `Record brought with ${garden.name}`, source: 'file' as const }
        await setStation(db, garden.id, await insertStation(db, record, prepared))
      },
    }),
    route(climateEndpoints.askWeatherService, {
      prepare: async ({ garden, today }) => {
        try {
          return await askRecord(garden, addDays(today, -1))
        } catch (error) {
          if (!(error instanceof WeatherSilent)) throw error
          throw new Refusal(409, `${error.message} The record stays as it was.`)
        }
      },
      handle: async ({ db, garden, prepared }) => {
        await setStation(db, garden.id, await insertServiceRecord(db, prepared))
        return { isSimulated: prepared.isSimulated }
      },
    }),
    route(climateEndpoints.sayKnown, {
      stands: ({ garden }) => Promise.resolve(knownStanding(garden.id, garden.knownClimate)),
      handle: ({ db, garden, body }) =>
        setKnownClimate(db, garden.id, Object.keys(body).length > 0 ? body : null),
    }),
    route(climateEndpoints.unfitted, {
      handle: ({ db, garden }) => findUnfitted(db, garden),
    }),
    route(climateEndpoints.soil, {
      handle: async ({ db, garden }) => ({
        readings: await listSoilReadings(db, garden.id),
        correction: await findSoilCorrection(db, garden),
      }),
    }),
    route(climateEndpoints.measureSoil, {
      handle: async ({ db, garden, person, body, today }) => {
        if (body.day > today) throw new Refusal(422, 'A reading cannot lie ahead of today.')
        const places = (await listFeatures(db, garden.id)).filter(isPlace)
        if (body.placeId && !places.some((p) => p.id === body.placeId)) throw notFound('This place')
        await insertSoilReadings(db, { gardenId: garden.id, personId: person.id }, [
          { ...body, placeId: body.placeId ?? null },
        ])
      },
    }),
    route(climateEndpoints.bringSoil, {
      prepare: async ({ db, garden, body, today }) => {
        const places = [...(await placesByName(db, garden.id)).keys()]
        const read = await readOn(pool)('soilFile', { text: body.csv, places, today })
        if (!read.ok) throw fileRefusal(read.problems)
        return read.value
      },
      handle: async ({ db, garden, person, prepared }) => {
        const places = await placesByName(db, garden.id)
        const placeIdOf = (name: string) => {
          const id = places.get(name.toLowerCase())
          if (!id) throw notFound(`${name}, which the file names,`)
          return id
        }
        const added = await insertSoilReadings(
          db,
          { gardenId: garden.id, personId: person.id },
          prepared.map((r) => ({ ...r, placeId: r.place ? placeIdOf(r.place) : null })),
        )
        return { added, known: prepared.length - added }
      },
    }),
    route(climateEndpoints.withdrawSoil, {
      handle: async ({ db, garden, params }) => {
        if (!(await withdrawSoilReading(db, garden.id, params.readingId))) throw notFound('This reading')
      },
    }),
    route(climateEndpoints.outlook, {
      handle: ({ db, garden, today }) => outlookOf(db, garden, today),
    }),
  ]
}
