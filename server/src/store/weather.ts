import {
  addDays,
  climateOf,
  earlinessOf,
  generateWeather,
  isoDate,
  patternAtLatitude,
  soilCorrection,
  soilTemperatures,
  unsuitableUsually,
  USUAL_YEAR,
  weatherNeeds,
  withSoil,
  yearAt,
  type Climate,
  type DailyWeather,
  type Earliness,
  type SoilCorrection,
  type SoilReading,
  type WeatherNeed,
  type Year,
} from '@border/core'
import type { SoilReadingRecord } from '@border/contract'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { kept } from './computed.ts'
import { askHistory } from './weatherService.ts'

export type StationSource = 'file' | 'simulated' | 'service'
type Place = { latitude: number; longitude: number }

/** @param at where the weather service is asked for the days since; of a record of the service only */
export async function insertStation(
  db: Db,
  name: string,
  source: StationSource,
  days: readonly DailyWeather[],
  at?: Place,
): Promise<string> {
  const id = randomUUID()
  await db('stations').insert({
    id,
    name,
    source,
    latitude: at?.latitude ?? null,
    longitude: at?.longitude ?? null,
  })
  await insertDays(db, id, days)
  return id
}

async function insertDays(db: Db, stationId: string, days: readonly DailyWeather[]): Promise<void> {
  const rows = days.map((d) => ({
    station_id: stationId,
    day: d.day,
    min_c: d.minC,
    max_c: d.maxC,
    rain_mm: d.rainMm,
    wind_ms: d.windMs ?? null,
    cloud: d.cloud ?? null,
  }))
  for (let i = 0; i < rows.length; i += 1000)
    await db('weather_days')
      .insert(rows.slice(i, i + 1000))
      .onConflict(['station_id', 'day'])
      .ignore()
}

/** The last day on a station's record; results kept by it are of the days so far. */
async function lastDayOf(db: Db, stationId: string): Promise<string | null> {
  return (await db('weather_days').where({ station_id: stationId }).max('day as day').first())?.day ?? null
}

/** A record from the weather service, for a place where it has none yet. */
export async function serviceStation(db: Db, place: Place, until: string): Promise<string> {
  const days = await askHistory(place, isoDate(FIRST_YEAR, 1, 1), until)
  const name = `Record of the weather service, ${place.latitude.toFixed(1)}°, ${place.longitude.toFixed(1)}°`
  return insertStation(db, name, 'service', days, place)
}

/** Brings a garden's record from the service on to a day; one from elsewhere stays as it is. */
export async function followService(db: Db, stationId: string | null, until: string): Promise<void> {
  const station = stationId && (await db('stations').where({ id: stationId, source: 'service' }).first())
  if (!station) return
  const last = await lastDayOf(db, station.id)
  if (last && last >= until) return
  await insertDays(
    db,
    station.id,
    await askHistory(station, last ? addDays(last, 1) : isoDate(FIRST_YEAR, 1, 1), until),
  )
}

const FIRST_YEAR = 2011
const LAST_YEAR = 2025

/** A made-up record for a latitude, where nobody has brought one and no service answers. */
export async function simulatedStation(db: Db, latitudeDeg: number): Promise<string> {
  const name = `Simulated record for latitude ${latitudeDeg.toFixed(1)}°`
  const known = await db('stations').where({ name, source: 'simulated' }).first('id')
  if (known) return known.id
  const pattern = patternAtLatitude(Math.round(latitudeDeg * 10) / 10)
  return insertStation(db, name, 'simulated', generateWeather(pattern, FIRST_YEAR, LAST_YEAR))
}

/** Bump when the computation changes, so that stored results of the old one are not used. */
const COMPUTATION = 2

type Measured = { id: string; stationId: string | null; latitude: number }

/** What a garden's record says of usual years, with the soil as it was measured there. */
export async function findClimate(
  db: Db,
  garden: Measured,
): Promise<{ climate: Climate | null; source: string | null }> {
  const { stationId, latitude } = garden
  if (!stationId) return { climate: null, source: null }
  const station = await db('stations').where({ id: stationId }).first(['name'])
  const last = await lastDayOf(db, stationId)
  const climate = await kept(db, ['climate', COMPUTATION, stationId, last, latitude], async () => {
    const result = climateOf(await listDays(db, stationId), latitude)
    return result.ok ? result.climate : null
  })
  return {
    climate: climate && withSoil(climate, await findSoilCorrection(db, garden)),
    source: station?.name ?? null,
  }
}

/** Days before a reading that the soil of its day is told from. */
const SETTLING_DAYS = 40

/** How a garden's soil differs from what the air says, by its thermometers. */
export async function findSoilCorrection(
  db: Db,
  { id, stationId }: Pick<Measured, 'id' | 'stationId'>,
): Promise<SoilCorrection> {
  const readings = await listSoilReadings(db, id)
  const modelled = new Map<string, number>()
  if (stationId && readings.length > 0) {
    const from = addDays(readings.at(-1)!.day, -SETTLING_DAYS)
    const days = await listRecentDays(db, stationId, from, readings[0]!.day)
    soilTemperatures(days).forEach((c, i) => modelled.set(days[i]!.day, c))
  }
  return soilCorrection(readings, modelled)
}

/** Readings of a garden's soil, latest first. */
export const listSoilReadings = (db: Db, gardenId: string): Promise<SoilReadingRecord[]> =>
  db('soil_readings')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .orderBy([
      { column: 'day', order: 'desc' },
      { column: 'created_at', order: 'desc' },
    ])
    .select<SoilReadingRecord[]>('id', 'day', 'celsius', 'place_id as placeId')

/** @returns how many were new */
export async function insertSoilReadings(
  db: Db,
  owner: { gardenId: string; personId: string },
  readings: readonly (SoilReading & { placeId: string | null })[],
): Promise<number> {
  if (readings.length === 0) return 0
  const added = await db('soil_readings')
    .insert(
      readings.map((r) => ({
        id: randomUUID(),
        garden_id: owner.gardenId,
        person_id: owner.personId,
        day: r.day,
        celsius: r.celsius,
        place_id: r.placeId,
      })),
    )
    .onConflict()
    .ignore()
    .returning('id')
  return added.length
}

export const withdrawSoilReading = async (db: Db, gardenId: string, id: string): Promise<boolean> =>
  (await db('soil_readings')
    .where({ id, garden_id: gardenId, withdrawn_at: null })
    .update({ withdrawn_at: db.fn.now() })) > 0

/** Days of a station's record between two days, both included. */
export const listRecentDays = async (
  db: Db,
  stationId: string,
  from: string,
  to: string,
): Promise<DailyWeather[]> =>
  (
    await db('weather_days')
      .where({ station_id: stationId })
      .whereBetween('day', [from, to])
      .orderBy('day')
      .select<DayRow[]>('day', 'min_c', 'max_c', 'rain_mm', 'wind_ms', 'cloud')
  ).map((r) => ({
    day: r.day,
    minC: r.min_c,
    maxC: r.max_c,
    rainMm: r.rain_mm,
    ...(r.wind_ms !== null && { windMs: r.wind_ms }),
    ...(r.cloud !== null && { cloud: r.cloud }),
  }))

interface DayRow {
  day: string
  min_c: number
  max_c: number
  rain_mm: number
  wind_ms: number | null
  cloud: number | null
}

const listDays = (db: Db, stationId: string): Promise<DailyWeather[]> =>
  listRecentDays(db, stationId, '1000-01-01', '9999-12-31')

/** How often days of the year do not suit each kind of work, by a station's record. */
export async function findUnsuitable(
  db: Db,
  stationId: string | null,
): Promise<Partial<Record<WeatherNeed, number[]>>> {
  if (!stationId) return {}
  return kept(db, ['unsuitable', COMPUTATION, stationId, await lastDayOf(db, stationId)], async () => {
    const days = await listDays(db, stationId)
    return Object.fromEntries(weatherNeeds.map((need) => [need, unsuitableUsually(need, days)]))
  })
}

/** How the usual year runs at a garden. */
export async function usualYearOf(db: Db, garden: Measured): Promise<Year> {
  const { climate } = await findClimate(db, garden)
  return climate ? yearAt(climate) : { ...USUAL_YEAR, south: garden.latitude < 0 }
}

/** The earliness of a garden's seasons up to a day: of finished ones by their middle, of the present one by today. */
export async function findEarliness(
  db: Db,
  garden: { stationId: string | null; latitude: number },
  seasons: readonly number[],
  today: string,
): Promise<Map<number, Earliness>> {
  const { stationId, latitude } = garden
  if (!stationId || seasons.length === 0) return new Map()
  const found: [number, Earliness][] = await kept(
    db,
    ['earliness', COMPUTATION, stationId, await lastDayOf(db, stationId), latitude, seasons, today],
    async () => {
      const days = await listDays(db, stationId)
      return seasons.flatMap((season): [number, Earliness][] => {
        const middle = latitude >= 0 ? `${season}-06-30` : `${season - 1}-12-31`
        const on = middle < today ? middle : addDays(today, -1)
        const early = earlinessOf(days, latitude, on)
        return early ? [[season, early]] : []
      })
    },
  )
  return new Map(found)
}
