import {
  addDays,
  climateOf,
  earlinessOf,
  generateWeather,
  patternAtLatitude,
  unsuitableUsually,
  USUAL_YEAR,
  weatherNeeds,
  yearAt,
  type Climate,
  type DailyWeather,
  type Earliness,
  type WeatherNeed,
  type Year,
} from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { kept } from './computed.ts'

export async function insertStation(
  db: Db,
  name: string,
  source: 'file' | 'simulated',
  days: readonly DailyWeather[],
): Promise<string> {
  const id = randomUUID()
  await db('stations').insert({ id, name, source })
  const rows = days.map((d) => ({
    station_id: id,
    day: d.day,
    min_c: d.minC,
    max_c: d.maxC,
    rain_mm: d.rainMm,
  }))
  await db.batchInsert('weather_days', rows, 1000)
  return id
}

const FIRST_YEAR = 2011
const LAST_YEAR = 2025

/** The stand-in weather service: a made-up record for a latitude, where nobody has brought one. */
export async function simulatedStation(db: Db, latitudeDeg: number): Promise<string> {
  const name = `Simulated record for latitude ${latitudeDeg.toFixed(1)}°`
  const known = await db('stations').where({ name, source: 'simulated' }).first('id')
  if (known) return known.id
  const pattern = patternAtLatitude(Math.round(latitudeDeg * 10) / 10)
  return insertStation(db, name, 'simulated', generateWeather(pattern, FIRST_YEAR, LAST_YEAR))
}

/** Bump when the computation changes, so that stored results of the old one are not used. */
const COMPUTATION = 1

/** What a station's record says of usual years; kept, since a station's days are written once and never change. */
export async function findClimate(
  db: Db,
  stationId: string | null,
  latitudeDeg: number,
): Promise<{ climate: Climate | null; source: string | null }> {
  if (!stationId) return { climate: null, source: null }
  const station = await db('stations').where({ id: stationId }).first(['name'])
  const climate = await kept(db, ['climate', COMPUTATION, stationId, latitudeDeg], async () => {
    const days = await listDays(db, stationId)
    const result = climateOf(days, latitudeDeg)
    return result.ok ? result.climate : null
  })
  return { climate, source: station?.name ?? null }
}

/** Days of a station's record between two days, both included. */
export const listRecentDays = (
  db: Db,
  stationId: string,
  from: string,
  to: string,
): Promise<DailyWeather[]> =>
  db('weather_days')
    .where({ station_id: stationId })
    .whereBetween('day', [from, to])
    .orderBy('day')
    .select<DailyWeather[]>('day', 'min_c as minC', 'max_c as maxC', 'rain_mm as rainMm')

const listDays = (db: Db, stationId: string): Promise<DailyWeather[]> =>
  db('weather_days')
    .where({ station_id: stationId })
    .orderBy('day')
    .select<DailyWeather[]>('day', 'min_c as minC', 'max_c as maxC', 'rain_mm as rainMm')

/** How often days of the year do not suit each kind of work, by a station's record. */
export async function findUnsuitable(
  db: Db,
  stationId: string | null,
): Promise<Partial<Record<WeatherNeed, number[]>>> {
  if (!stationId) return {}
  return kept(db, ['unsuitable', COMPUTATION, stationId], async () => {
    const days = await listDays(db, stationId)
    return Object.fromEntries(weatherNeeds.map((need) => [need, unsuitableUsually(need, days)]))
  })
}

/** How the usual year runs at a garden. */
export async function usualYearOf(
  db: Db,
  garden: { stationId: string | null; latitude: number },
): Promise<Year> {
  const { climate } = await findClimate(db, garden.stationId, garden.latitude)
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
    ['earliness', COMPUTATION, stationId, latitude, seasons, today],
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
