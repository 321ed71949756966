import {
  addDays,
  climateOf,
  earlinessOfSeason,
  blendOf,
  blendWords,
  dailyFit,
  factsOf,
  fitsDays,
  fittedDay,
  fittedMonths,
  generateWeather,
  isoDate,
  latitudeWords,
  longitudeWords,
  monthsOf,
  patternAt,
  soilCorrection,
  soilTemperatures,
  unsuitableUsually,
  usualYearAt,
  weatherNeeds,
  withKnown,
  withSoil,
  type Climate,
  type DailyFit,
  type DailyWeather,
  type Earliness,
  type IsoDate,
  type SoilCorrection,
  type SoilReading,
  type WeatherNeed,
  type Year,
} from '@border/core'
import type { SoilReadingView, UnfittedClimate } from '@border/contract'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { kept } from './computed.ts'
import type { GardenAccess } from './gardens.ts'
import { askHistory, findForecast, type Forecast } from './weatherService.ts'

/** Where a record of weather comes from. */
export type StationSource = 'file' | 'simulated' | 'service'
type Place = { latitude: number; longitude: number }

/**
 * @param record `at` is where the weather service is asked for the days since, of a record of the service only;
 *   `isSimulated` says that nobody measured it
 */
export async function insertStation(
  db: Db,
  record: { name: string; source: StationSource; isSimulated?: boolean; at?: Place },
  days: readonly DailyWeather[],
): Promise<string> {
  const { name, source, at } = record
  const id = randomUUID()
  await db('stations').insert({
    id,
    name,
    source,
    is_simulated: record.isSimulated ?? source === 'simulated',
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

/** The days of a place up to one, as the weather service has them; what was not measured says so. */
export interface ServiceRecord {
  at: Place
  days: DailyWeather[]
  isSimulated: boolean
  /** What its record is from, in the service's words. */
  source?: string | undefined
}

/** @throws {WeatherSilent} where no service is set up or it does not answer */
export async function askRecord({ latitude, longitude }: Place, until: IsoDate): Promise<ServiceRecord> {
  const at = { latitude, longitude }
  return { at, ...(await askHistory(at, isoDate(FIRST_YEAR, 1, 1), until)) }
}

/**
 * Keeps what the weather service sent for a place, and whether anybody measured it.
 *
 * @returns the station’s id
 */
export const insertServiceRecord = (
  db: Db,
  { at, days, isSimulated, source }: ServiceRecord,
): Promise<string> => {
  const name = isSimulated
    ? `Simulated weather for ${placeWords(at)}, from ${source ?? 'the stand-in for a weather service'}`
    : `Record of the weather service, ${placeWords(at)}`
  return insertStation(db, { name, source: 'service', isSimulated, at }, days)
}

/** Brings a garden's record from the service on to a day; one from elsewhere stays as it is. */
export async function followService(db: Db, stationId: string | null, until: string): Promise<void> {
  const station = stationId && (await db('stations').where({ id: stationId, source: 'service' }).first())
  if (!station) return
  const last = await lastDayOf(db, station.id)
  if (last && last >= until) return
  const { days } = await askHistory(station, last ? addDays(last, 1) : isoDate(FIRST_YEAR, 1, 1), until)
  await insertDays(db, station.id, days)
}

const FIRST_YEAR = 2011
const LAST_YEAR = 2025

const placeWords = ({ latitude, longitude }: Place) =>
  `${latitudeWords(latitude, 1)}, ${longitudeWords(longitude, 1)}`

/** A made-up record for a place, where nobody has brought one and no service answers: blended from the towns about it. */
export async function simulatedStation(db: Db, place: Place): Promise<string> {
  const name = `Simulated record for ${placeWords(place)}, blended from ${blendWords(place)}`
  const known = await db('stations').where({ name, source: 'simulated' }).first('id')
  if (known) return known.id
  return insertStation(
    db,
    { name, source: 'simulated' },
    generateWeather(patternAt(place), FIRST_YEAR, LAST_YEAR),
  )
}

/** A garden as far as its weather goes. */
export type Measured = Pick<GardenAccess, 'id' | 'stationId' | 'latitude' | 'longitude' | 'knownClimate'>

/** What a garden's usual years are like, and where that is from. */
export interface FoundClimate {
  climate: Climate | null
  /** The record it is told from, by name; null where there is none. */
  source: string | null
  /** The last day on record; kept results are of the days so far. */
  lastDay: IsoDate | null
}

/** What a garden's record says of usual years, put right by what the gardener knows and its own soil. */
export async function findClimate(db: Db, garden: Measured): Promise<FoundClimate> {
  const { stationId, latitude } = garden
  if (!stationId) return { climate: null, source: null, lastDay: null }
  const station = await db('stations')
    .where({ id: stationId })
    .first<{ name: string; isSimulated: boolean; lastDay: IsoDate | null; soil: SoilReading[] | null }>(
      'name',
      'is_simulated as isSimulated',
      db.raw('(select max(day) from weather_days where station_id = stations.id) as "lastDay"'),
      db.raw(
        `(select json_agg(json_build_object('day', day, 'celsius', celsius) order by day desc, created_at desc)
          from soil_readings where garden_id = ? and withdrawn_at is null) as soil`,
        [garden.id],
      ),
    )
  const { name, isSimulated, lastDay } = station
  const climate = await kept(
    db,
    ['climate', stationId, lastDay, latitude, isSimulated, ...fittedBy(garden)],
    async () => {
      const result = climateOf(await listDays(db, garden), latitude, isSimulated)
      return result.ok ? result.climate : null
    },
  )
  return {
    climate:
      climate &&
      withSoil(
        withKnown(climate, garden.knownClimate),
        await soilCorrectionBy(db, garden, station.soil ?? []),
      ),
    source: name,
    lastDay,
  }
}

/** Days before a reading that the soil of its day is told from. */
const SETTLING_DAYS = 40

/** How a garden's soil differs from what the air says, by its thermometers. */
export const findSoilCorrection = async (db: Db, garden: Measured): Promise<SoilCorrection> =>
  soilCorrectionBy(db, garden, await listSoilReadings(db, garden.id))

/** @param readings latest first */
async function soilCorrectionBy(
  db: Db,
  garden: Measured,
  readings: readonly SoilReading[],
): Promise<SoilCorrection> {
  const modelled = new Map<string, number>()
  if (readings.length > 0) {
    const from = addDays(readings.at(-1)!.day, -SETTLING_DAYS)
    const days = await listWeather(db, garden, from, readings[0]!.day)
    soilTemperatures(days).forEach((c, i) => modelled.set(days[i]!.day, c))
  }
  return soilCorrection(readings, modelled)
}

/** Readings of a garden's soil, latest first. */
export const listSoilReadings = (db: Db, gardenId: string): Promise<SoilReadingView[]> =>
  db('soil_readings')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .orderBy([
      { column: 'day', order: 'desc' },
      { column: 'created_at', order: 'desc' },
    ])
    .select<SoilReadingView[]>('id', 'day', 'celsius', 'place_id as placeId')

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

/**
 * Takes a reading of the soil back.
 *
 * @returns false where there is none under this id
 */
export const withdrawSoilReading = async (db: Db, gardenId: string, id: string): Promise<boolean> =>
  (await db('soil_readings')
    .where({ id, garden_id: gardenId, withdrawn_at: null })
    .update({ withdrawn_at: db.fn.now() })) > 0

/**
 * Days of a garden's record between two days, both included. Days that nobody measured are brought to what the gardener knows
 * of the climate.
 */
export async function listWeather(
  db: Db,
  garden: Measured,
  from: IsoDate,
  to: IsoDate,
): Promise<DailyWeather[]> {
  if (!garden.stationId) return []
  const days = await recordedDays(db, garden.stationId, from, to)
  const fit = await findFit(db, garden)
  return fit ? days.map((d) => fittedDay(d, fit)) : days
}

/** The days ahead, as `findForecast` has them; those that nobody forecast are brought to what the gardener knows. */
export async function forecastFor(db: Db, garden: Measured, today: IsoDate): Promise<Forecast> {
  const forecast = await findForecast(db, garden, today)
  if (!forecast.ok || !forecast.isSimulated) return forecast
  const fit = await findFit(db, garden)
  return fit ? { ...forecast, days: forecast.days.map((d) => fittedDay(d, fit)) } : forecast
}

/** What, beside its record, the days of a garden hang on. */
const fittedBy = ({ latitude, longitude, knownClimate }: Measured): unknown[] =>
  fitsDays(knownClimate) ? [latitude, longitude, knownClimate] : []

/** What brings a garden's made-up days to what is known of its climate; null where they were measured or nothing is known. */
async function findFit(db: Db, garden: Measured): Promise<DailyFit | null> {
  const { stationId, knownClimate } = garden
  if (!stationId || !fitsDays(knownClimate)) return null
  const made = await db('stations').where({ id: stationId, is_simulated: true }).first('id')
  if (!made) return null
  const until = await wholeYearsUntil(db, stationId)
  return kept(db, ['fit', stationId, until, ...fittedBy(garden)], async () => {
    const months = await findMonths(db, stationId, until)
    return months ? dailyFit(months, fittedMonths(months, garden, knownClimate)) : null
  })
}

/** The end of a record's last whole year: what a few days more make of a month is no change of climate. */
async function wholeYearsUntil(db: Db, stationId: string): Promise<IsoDate> {
  const to = (await lastDayOf(db, stationId)) ?? ''
  return to.endsWith('12-31') ? to : `${Number(to.slice(0, 4)) - 1}-12-31`
}

/** The usual months of a record as it is. */
const findMonths = (db: Db, stationId: string, until: IsoDate) =>
  kept(
    db,
    ['months', stationId, until],
    async () => monthsOf(await recordedDays(db, stationId, FIRST_DAY, until)) ?? null,
  )

/** What a garden's record says of the climate without what the gardener knows; null where there is none. */
export async function findUnfitted(db: Db, garden: Measured): Promise<UnfittedClimate> {
  const { stationId } = garden
  const { climate } = await findClimate(db, { ...garden, knownClimate: null })
  if (!climate || !stationId) return null
  const months = await findMonths(db, stationId, await wholeYearsUntil(db, stationId))
  if (!months) return null
  return {
    ...factsOf(months),
    lastFrost: climate.lastFrost?.p50 ?? null,
    firstFrost: climate.firstFrost?.p50 ?? null,
    coldestC: climate.meanAnnualMinimumC,
    heightM: climate.isSimulated ? blendOf(garden).heightM : null,
  }
}

const recordedDays = async (db: Db, stationId: string, from: IsoDate, to: IsoDate): Promise<DailyWeather[]> =>
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

const FIRST_DAY = '1000-01-01'
const LAST_DAY = '9999-12-31'

const listDays = (db: Db, garden: Measured): Promise<DailyWeather[]> =>
  listWeather(db, garden, FIRST_DAY, LAST_DAY)

/** How often days of the year do not suit each kind of work, by a garden's record. */
export async function findUnsuitable(
  db: Db,
  garden: Measured,
): Promise<Partial<Record<WeatherNeed, number[]>>> {
  const { stationId } = garden
  if (!stationId) return {}
  return kept(
    db,
    ['unsuitable', stationId, await lastDayOf(db, stationId), ...fittedBy(garden)],
    async () => {
      const days = await listDays(db, garden)
      return Object.fromEntries(weatherNeeds.map((need) => [need, unsuitableUsually(need, days)]))
    },
  )
}

/** How the usual year runs in a climate, or in the library's where none is known. */
export const usualYearOf = ({ climate }: FoundClimate, { latitude }: { latitude: number }): Year =>
  usualYearAt(climate, latitude)

/** The earliness of a garden's seasons up to a day: of finished ones by their middle, of the present one by today. */
export async function findEarliness(
  db: Db,
  garden: Measured,
  lastDay: IsoDate | null,
  seasons: readonly number[],
  today: string,
): Promise<Map<number, Earliness>> {
  const { stationId, latitude } = garden
  if (!stationId || !lastDay || seasons.length === 0) return new Map()
  const found: [number, Earliness][] = await kept(
    db,
    ['earliness', stationId, lastDay, latitude, seasons, today, ...fittedBy(garden)],
    async () => {
      const days = await listDays(db, garden)
      return seasons.flatMap((season): [number, Earliness][] => {
        const early = earlinessOfSeason(days, latitude, season, today)
        return early ? [[season, early]] : []
      })
    },
  )
  return new Map(found)
}
