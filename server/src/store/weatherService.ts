import { day, daysBetween, limits, words, type DailyWeather, type ForecastDay } from '@border/core'
import { z } from 'zod'
import type { Db } from '../database/connect.ts'
import { kept } from './computed.ts'

const DAYS = 10
const TIMEOUT_MS = 1500
const TRIES = 3
const PAUSE_MS = 150
/** No answer is longer: bytes. */
const FORECAST_BYTES = 20_000
const HISTORY_BYTES = 4_000_000

const between = ([least, most]: readonly [number, number]) => z.number().min(least).max(most)

/** A day's weather, as somebody can have measured it or will. */
const weatherDay = z
  .object({
    day,
    minC: between(limits.celsius),
    maxC: between(limits.celsius),
    rainMm: between(limits.rainMm),
    windMs: between(limits.windMs).optional(),
    cloud: between(limits.cloud).optional(),
  })
  .refine((d) => d.minC <= d.maxC, 'is colder at its warmest than at its coldest')

/**
 * Days one after another, each once; counted before they are looked at.
 *
 * @param most how many were asked for
 */
const daysInOrder = <S extends z.ZodType<{ day: string }>>(of: S, most: number) =>
  z
    .array(z.unknown())
    .max(most)
    .pipe(z.array(of))
    .refine((days) => days.every((d, i) => i === 0 || d.day > days[i - 1]!.day), 'are not in order')

const forecastAnswer = z.object({
  simulated: z.boolean().default(false),
  issued: day,
  days: daysInOrder(
    z.intersection(weatherDay, z.object({ rainChance: between([0, 1]), spreadC: between([0, 40]) })),
    DAYS,
  ),
})

/** The days ahead as the weather service tells them, or why there are none. */
export type Forecast =
  { ok: true; issued: string; days: ForecastDay[]; isSimulated: boolean } | { ok: false; why: string }

/** The weather service did not answer, or with something that is no answer: what went wrong is its cause. */
export class WeatherSilent extends Error {}

/** It answered, with something that is no weather: nothing of it is taken. */
class NoWeather extends Error {}

const SILENT: Forecast = { ok: false, why: 'The weather service does not answer.' }
const SENSELESS: Forecast = { ok: false, why: 'The weather service answers with what is no weather.' }
/** A service that did not answer is left alone for so long: work does not wait for it again and again. */
const LEFT_ALONE_MS = 60_000
/** Services that are left alone, by their address: until when, and what is said meanwhile. */
const leftAlone = new Map<string, { until: number; says: Forecast }>()

/** Is told whatever goes wrong with the service; nothing until the server says who. */
let told: (error: unknown) => void = () => {}
/** Whom faults of the weather service are told to. */
export const tellWeatherFaults = (to: (error: unknown) => void): void => {
  told = to
}

/**
 * What the weather service says of the days ahead of a place; kept for the day it was issued on.
 *
 * @throws {Error} within a transaction (a caller's bug): what it holds would wait as long as the service does
 */
export async function findForecast(
  db: Db,
  place: { latitude: number; longitude: number },
  today: string,
  serviceUrl: string | undefined = process.env.WEATHER_URL,
): Promise<Forecast> {
  if (db.isTransaction) throw new Error('The weather is asked for before anything is held')
  if (!serviceUrl) return { ok: false, why: 'No weather service is set up.' }
  const alone = leftAlone.get(serviceUrl)
  if (alone && Date.now() < alone.until) return alone.says
  const { latitude, longitude } = place
  try {
    return await kept(
      db,
      ['forecast', serviceUrl, latitude, longitude, today],
      async (): Promise<Forecast> => {
        const query = new URLSearchParams({
          latitude: String(latitude),
          longitude: String(longitude),
          issued: today,
          days: String(DAYS),
        })
        const { issued, days, simulated } = read(
          forecastAnswer,
          await asked(`${serviceUrl}/v1/forecast?${query}`, TIMEOUT_MS, FORECAST_BYTES),
        )
        if (issued !== today || days.some((d) => d.day < today)) throw new NoWeather('It is of another day.')
        return { ok: true, issued, days: days as ForecastDay[], isSimulated: simulated }
      },
    )
  } catch (error) {
    told(error)
    const says = error instanceof NoWeather ? SENSELESS : SILENT
    leftAlone.set(serviceUrl, { until: Date.now() + LEFT_ALONE_MS, says })
    return says
  }
}

const historyAnswer = (mostDays: number) =>
  z.object({
    simulated: z.boolean().default(false),
    source: words(300).optional(),
    days: daysInOrder(weatherDay, mostDays),
  })

/** Years of days are longer in coming than a forecast. */
const HISTORY_TIMEOUT_MS = 8000

/**
 * The days of a place on record at the weather service, both ends included.
 *
 * @throws {WeatherSilent} where there is no service or it does not answer
 */
export async function askHistory(
  place: { latitude: number; longitude: number },
  from: string,
  to: string,
  serviceUrl: string | undefined = process.env.WEATHER_URL,
): Promise<{ days: DailyWeather[]; isSimulated: boolean; source?: string | undefined }> {
  if (!serviceUrl) throw new WeatherSilent('No weather service is set up.')
  const query = new URLSearchParams({
    latitude: String(place.latitude),
    longitude: String(place.longitude),
    from,
    to,
  })
  try {
    const { days, simulated, source } = read(
      historyAnswer(daysBetween(from, to) + 1),
      await asked(`${serviceUrl}/v1/history?${query}`, HISTORY_TIMEOUT_MS, HISTORY_BYTES),
    )
    if (days.some((d) => d.day < from || d.day > to)) throw new NoWeather('It is of other days.')
    return { days, isSimulated: simulated, source }
  } catch (error) {
    told(error)
    throw new WeatherSilent('The weather service does not answer.', { cause: error })
  }
}

/** @throws {NoWeather} saying what is wrong with the first thing that is */
function read<S extends z.ZodType>(schema: S, answer: unknown): z.output<S> {
  const found = schema.safeParse(answer)
  if (!found.success) {
    const [issue] = found.error.issues
    throw new NoWeather(`${issue?.path.join('.')}: ${issue?.message}`)
  }
  return found.data
}

/** Asks a few times, each with a limit; a refusal, or an answer that is no weather, is not asked for again. */
async function asked(url: string, timeoutMs: number, mostBytes: number): Promise<unknown> {
  for (let attempt = 1; ; attempt++) {
    try {
      const response = await fetch(url, { signal: AbortSignal.timeout(timeoutMs) })
      if (response.ok) return await jsonOf(response, mostBytes)
      if (response.status < 500) throw new RangeError(`refused: ${response.status}`)
    } catch (error) {
      if (error instanceof RangeError || error instanceof NoWeather || attempt >= TRIES) throw error
    }
    if (attempt >= TRIES) throw new Error('no answer')
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS * attempt))
  }
}

async function jsonOf(response: Response, mostBytes: number): Promise<unknown> {
  const parts: Uint8Array[] = []
  let bytes = 0
  for await (const part of response.body ?? []) {
    bytes += part.byteLength
    if (bytes > mostBytes) throw new NoWeather(`It is longer than ${mostBytes} bytes.`)
    parts.push(part)
  }
  try {
    return JSON.parse(Buffer.concat(parts).toString('utf8'))
  } catch {
    throw new NoWeather('It is no JSON.')
  }
}
