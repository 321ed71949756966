import type { DailyWeather, ForecastDay } from '@border/core'
import { z } from 'zod'
import type { Db } from '../database/connect.ts'
import { kept } from './computed.ts'

const DAYS = 10
const TIMEOUT_MS = 1500
const TRIES = 3
const PAUSE_MS = 150

const forecastAnswer = z.object({
  simulated: z.boolean().default(false),
  issued: z.string(),
  days: z.array(
    z.object({
      day: z.string(),
      minC: z.number(),
      maxC: z.number(),
      rainMm: z.number(),
      windMs: z.number().optional(),
      cloud: z.number().optional(),
      rainChance: z.number(),
      spreadC: z.number(),
    }),
  ),
})

/** The days ahead as the weather service tells them, or why there are none. */
export type Forecast =
  { ok: true; issued: string; days: ForecastDay[]; isSimulated: boolean } | { ok: false; why: string }

/** The weather service did not answer, or with something that is no answer: what went wrong is its cause. */
export class WeatherSilent extends Error {}

const SILENT: Forecast = { ok: false, why: 'The weather service does not answer.' }
/** A service that did not answer is left alone for so long: work does not wait for it again and again. */
const LEFT_ALONE_MS = 60_000
let silentUntil = 0

/** Is told whatever goes wrong with the service; nothing until the server says who. */
let told: (error: unknown) => void = () => {}
/** Whom faults of the weather service are told to. */
export const tellWeatherFaults = (to: (error: unknown) => void): void => {
  told = to
}

/** What the weather service says of the days ahead of a place; kept for the day it was issued on. */
export async function findForecast(
  db: Db,
  place: { latitude: number; longitude: number },
  today: string,
  serviceUrl: string | undefined = process.env.WEATHER_URL,
): Promise<Forecast> {
  if (!serviceUrl) return { ok: false, why: 'No weather service is set up.' }
  if (Date.now() < silentUntil) return SILENT
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
        const { issued, days, simulated } = forecastAnswer.parse(
          await asked(`${serviceUrl}/v1/forecast?${query}`),
        )
        return { ok: true, issued, days: days as ForecastDay[], isSimulated: simulated }
      },
    )
  } catch (error) {
    silentUntil = Date.now() + LEFT_ALONE_MS
    told(error)
    return SILENT
  }
}

const historyAnswer = z.object({
  simulated: z.boolean().default(false),
  days: z.array(
    z.object({
      day: z.string(),
      minC: z.number(),
      maxC: z.number(),
      rainMm: z.number().min(0),
      windMs: z.number().optional(),
      cloud: z.number().optional(),
    }),
  ),
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
): Promise<{ days: DailyWeather[]; isSimulated: boolean }> {
  if (!serviceUrl) throw new WeatherSilent('No weather service is set up.')
  const query = new URLSearchParams({
    latitude: String(place.latitude),
    longitude: String(place.longitude),
    from,
    to,
  })
  try {
    const { days, simulated } = historyAnswer.parse(
      await asked(`${serviceUrl}/v1/history?${query}`, HISTORY_TIMEOUT_MS),
    )
    return { days, isSimulated: simulated }
  } catch (error) {
    told(error)
    throw new WeatherSilent('The weather service does not answer.', { cause: error })
  }
}

/** Asks a few times, each with a limit; a refusal is not asked again. */
async function asked(url: string, timeoutMs = TIMEOUT_MS): Promise<unknown> {
  for (let attempt = 1; ; attempt++) {
    try {
      const response = await fetch(url, { signal: AbortSignal.timeout(timeoutMs) })
      if (response.ok) return await response.json()
      if (response.status < 500) throw new RangeError(`refused: ${response.status}`)
    } catch (error) {
      if (error instanceof RangeError || attempt >= TRIES) throw error
    }
    if (attempt >= TRIES) throw new Error('no answer')
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS * attempt))
  }
}
