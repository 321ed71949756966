import {
  blendWords,
  generateWeather,
  isIsoDate,
  patternAt,
  simulatedForecast,
  yearOf,
  type DailyWeather,
  type WeatherPattern,
} from '@border/core'
import { createServer } from 'node:http'
import { listeningOf } from '../listening.ts'

/**
 * The stand-in for a weather service, a process of its own. Its interface, on loopback:
 *
 * `GET /v1/forecast?latitude=52.1&longitude=1.3&issued=2026-09-14&days=10` answers
 * `{"simulated": true, "issued", "days": [{"day", "minC", "maxC", "rainMm", "rainChance", "windMs", "cloud", "spreadC"}]}`;
 * `GET /v1/history?latitude=52.1&longitude=1.3&from=2016-01-01&to=2025-12-31` answers
 * `{"simulated": true, "source", "days": [{"day", "maxC", "rainMm", "windMs", "cloud"}]}`, from 2011 on; 400 on a bad request.
 *
 * `simulated` says that nobody measured it: a service that measures leaves it out. The weather it knows is made by the seeded generator, for regions told by WEATHER_REGIONS (JSON:
 * `[{"latitude", "longitude", "withinDeg", "pattern", "firstYear"}]`) and elsewhere from the
 * usual years of the towns about the place.
 * Environment: PORT; HOST (loopback unless told otherwise).
 */
interface Region {
  latitude: number
  longitude: number
  withinDeg: number
  pattern: WeatherPattern
  firstYear: number
}

const regions = JSON.parse(process.env.WEATHER_REGIONS ?? '[]') as Region[]
const FIRST_YEAR = 2011
const LAST_YEAR = 2100
const MOST_DAYS = 15

const records = new Map<string, DailyWeather[]>()

const regionOf = (latitude: number, longitude: number) =>
  regions.find(
    (r) => Math.abs(r.latitude - latitude) <= r.withinDeg && Math.abs(r.longitude - longitude) <= r.withinDeg,
  )

/** What its weather is made from. */
const sourceOf = (latitude: number, longitude: number) =>
  regionOf(latitude, longitude) ? undefined : blendWords({ latitude, longitude })

function recordOf(latitude: number, longitude: number, year: number): DailyWeather[] {
  const region = regionOf(latitude, longitude)
  const pattern = region?.pattern ?? patternAt({ latitude, longitude })
  const key = `${pattern.seed} ${year}`
  const known = records.get(key) ?? generateWeather(pattern, region?.firstYear ?? FIRST_YEAR, year + 1)
  records.set(key, known)
  return known
}

const server = createServer((request, response) => {
  const url = new URL(request.url ?? '/', 'http://127.0.0.1')
  const answer = (status: number, body: object) => {
    response.writeHead(status, { 'content-type': 'application/json' })
    response.end(JSON.stringify(body))
  }
  const number = (name: string) => Number(url.searchParams.get(name) ?? NaN)
  const date = (name: string) => url.searchParams.get(name) ?? ''
  const [latitude, longitude] = [number('latitude'), number('longitude')]
  const isOnEarth = Math.abs(latitude) <= 90 && Math.abs(longitude) <= 180
  if (url.pathname === '/v1/history') {
    const [from, to] = [date('from'), date('to')]
    if (!isOnEarth || !isIsoDate(from) || !isIsoDate(to) || from > to || yearOf(to) > LAST_YEAR)
      return answer(400, { error: 'latitude, longitude, from and to (dates, in order) are needed' })
    const record = recordOf(latitude, longitude, yearOf(to))
    return answer(200, {
      simulated: true,
      source: sourceOf(latitude, longitude),
      days: record.filter((d) => d.day >= from && d.day <= to),
    })
  }
  if (url.pathname !== '/v1/forecast') return answer(404, { error: 'There is nothing at this address.' })
  const issued = date('issued')
  const days = number('days')
  if (!isOnEarth || !isIsoDate(issued) || !(days >= 1 && days <= MOST_DAYS))
    return answer(400, {
      error: `latitude, longitude, issued (a date) and days (1 to ${MOST_DAYS}) are needed`,
    })
  const record = recordOf(latitude, longitude, yearOf(issued))
  answer(200, {
    simulated: true,
    issued,
    days: simulatedForecast(record, issued, days, Math.round(latitude * 100)),
  })
})
const { host, port } = listeningOf(process.env, 5190)
server.listen(port, host)
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => server.close(() => process.exit(0)))
