import type {
  GardenView,
  SeasonView,
  SoilView,
  TownView,
  UnfittedClimate,
  WateringView,
} from '@border/contract'
import { addDays, civilDate, generateWeather, patternAt, townClimates, yearOf } from '@border/core'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { findGardenForWork } from '../store/gardens.ts'
import { followService } from '../store/weather.ts'
import { practiceWithGarden, type TestPractice, workOutWaiting } from './practice.ts'
import { entering } from './edits.ts'

const today = civilDate(new Date(), 'Europe/London')
const record = generateWeather(patternAt({ latitude: 51.5, longitude: 0 }), 2011, yearOf(today))
let practice: TestPractice
let service: Server
let asked: string[] = []
const post = (rest: string, body?: object) => practice.head.post(`/gardens/${practice.gardenId}${rest}`, body)
const get = async <T>(rest: string): Promise<T> =>
  (await practice.head.get(`/gardens/${practice.gardenId}${rest}`)).body
const climate = async () => (await get<GardenView>('')).climate!

beforeAll(async () => {
  practice = await practiceWithGarden()
  // A weather service of the test's own, by the interface in docs/operations.md.
  service = createServer((req, res) => {
    const { pathname, searchParams } = new URL(req.url!, 'http://127.0.0.1')
    const [from, to] = [searchParams.get('from')!, searchParams.get('to')!]
    asked.push(`${pathname} ${from} ${to}`)
    res.writeHead(pathname === '/v1/history' ? 200 : 404, { 'content-type': 'application/json' })
    res.end(JSON.stringify({ days: record.filter((d) => d.day >= from && d.day <= to) }))
  })
  await new Promise<void>((resolve) => service.listen(0, '127.0.0.1', resolve))
})
afterAll(async () => {
  service.close()
  await practice.stop()
})

describe('what the gardener knows of a climate that nobody measured', () => {
  let path: string
  const say = (known: object) => practice.head.post(`${path}/known-climate`, known)
  const unfitted = async (): Promise<UnfittedClimate> =>
    (await practice.head.get(`${path}/climate-record`)).body
  const usual = async (): Promise<NonNullable<GardenView['climate']>> =>
    (await practice.head.get(path)).body.climate
  beforeAll(async () => {
    const yard = { name: 'Up the hill', latitude: 47.2, longitude: 9.1, timeZone: 'Europe/Zurich' }
    path = `/gardens/${(await practice.head.post('/gardens', yard)).body.gardenId}`
  })
  const highest = (c: { maxC: number[] }) => Math.max(...c.maxC)
  const lowest = (c: { minC: number[] }) => Math.min(...c.minC)
  it('changes its days by as much, is told apart from the blend, and leaves no trace when it is taken back', async () => {
    const before = await usual()
    const blend = (await unfitted())!
    const known = { hottestC: blend.hottestC + 4, coldestMonthC: blend.coldestMonthC - 5, rainMm: 1400 }
    expect((await say(known)).status).toBe(200)
    const fitted = await usual()
    expect(highest(fitted) - highest(before)).toBeCloseTo(4, 0)
    expect(lowest(fitted) - lowest(before)).toBeCloseTo(-5, 0)
    expect(fitted.soilC[20]!).toBeLessThan(before.soilC[20]! - 3)
    expect(fitted.firstFrost!.p50).toBeLessThan(before.firstFrost!.p50)
    expect(await unfitted()).toEqual(blend)
    expect((await say({})).status).toBe(200)
    expect(await usual()).toEqual(before)
  })

  it('a garden high up is colder by the standard lapse than the towns about it', async () => {
    const before = await usual()
    const { heightM } = (await unfitted())!
    await say({ heightM: Math.round(heightM! + 800) })
    // 6.5 K a kilometre, and what towns of other heights weigh.
    expect(highest(before) - highest(await usual())).toBeGreaterThan(3.5)
    expect(highest(before) - highest(await usual())).toBeLessThan(7)
    await say({})
  })

  it('is refused in words where no place on Earth has it', async () => {
    const refused = await say({ heightM: 12_000 })
    expect(refused.status).toBe(422)
    expect(JSON.stringify(refused.body)).toContain('heightM')
    const reversed = await say({ hottestC: 5, coldestMonthC: 12 })
    expect([reversed.status, JSON.stringify(reversed.body)]).toEqual([
      422,
      expect.stringContaining('the coldest month cannot be warmer than the hottest'),
    ])
  })
})

describe('towns', () => {
  const found = async (name: string): Promise<TownView[]> =>
    (await practice.head.get(`/towns?name=${encodeURIComponent(name)}`)).body
  it('are found by the beginning of their names, accents or none, largest first, with their time zones', async () => {
    expect((await found('portland'))[0]).toMatchObject({
      country: 'US',
      region: 'OR',
      timeZone: 'America/Los_Angeles',
    })
    expect((await found('munch')).length + (await found('Zürich')).length).toBeGreaterThan(0)
    expect((await found('zurich'))[0]).toMatchObject({ country: 'CH', timeZone: 'Europe/Zurich' })
    expect(await found('no town is called this')).toEqual([])
  })

  it('lie where the table of reference climates has them', async () => {
    const far: string[] = []
    const spelt: Record<string, string> = {
      Seville: 'Sevilla',
      Washington: 'Washington, D.C.',
      'Saint Louis': 'St. Louis',
    }
    for (const p of townClimates()) {
      const bare = spelt[p.name] ?? p.name.replace(/ \(.*/, '')
      const towns = (await found(bare)).filter((t) => t.country === p.country)
      const near = towns.some(
        (t) => Math.abs(t.latitude - p.latitude) < 0.4 && Math.abs(t.longitude - p.longitude) < 0.6,
      )
      if (towns.length > 0 && !near) far.push(p.name)
    }
    expect(far).toEqual([])
  })
})

describe('the weather service’s record', () => {
  it('is refused in words where there is none, and the record stays', async () => {
    const before = await climate()
    expect((await post('/weather-service')).status).toBe(409)
    expect(await climate()).toEqual(before)
  })

  it('comes whole, with wind and cloud, and goes on by the days that are missing', async () => {
    process.env.WEATHER_URL = `http://127.0.0.1:${(service.address() as AddressInfo).port}`
    try {
      expect((await post('/weather-service')).status).toBe(200)
      const garden = (await findGardenForWork(practice.db, practice.gardenId))!
      const own = practice.db('weather_days').where({ station_id: garden.stationId })
      const yesterday = addDays(today, -1)
      expect(await own.clone().max('day as day').first()).toEqual({ day: yesterday })
      expect(await own.clone().whereRaw('(wind_ms is null or cloud is null)').count().first()).toMatchObject({
        count: '0',
      })
      await own.clone().where('day', '>=', addDays(today, -5)).del()
      asked = []
      await followService(practice.db, garden.stationId, yesterday)
      await followService(practice.db, garden.stationId, yesterday)
      expect(asked).toEqual([`/v1/history ${addDays(today, -5)} ${yesterday}`])
      expect(await own.clone().max('day as day').first()).toEqual({ day: yesterday })
    } finally {
      delete process.env.WEATHER_URL
    }
  })
})

describe('the soil thermometer', () => {
  it('moves the soil of the usual year toward what it shows, the more the more days, and back', async () => {
    const before = (await climate()).soilC[100]!
    for (let i = 0; i < 2; i++) await post('/soil', { day: addDays(today, -30), celsius: 40 })
    // The same reading twice is one.
    expect((await get<SoilView>('/soil')).readings).toHaveLength(1)
    const one = (await get<SoilView>('/soil')).correction
    const csv = `day,celsius,place\n${addDays(today, -20)},40,\n${addDays(today, -10)},40,North bed\n`
    expect((await post('/soil-file', { csv })).body).toEqual({ added: 2, known: 0 })
    expect((await post('/soil-file', { csv })).body).toEqual({ added: 0, known: 2 })
    const { readings, correction } = await get<SoilView>('/soil')
    expect(correction.days).toBe(3)
    expect(correction.offsetC).toBeGreaterThan(one.offsetC)
    expect(correction.errorC).toBeLessThan(one.errorC)
    expect((await climate()).soilC[100]! - before).toBeCloseTo(correction.offsetC, 6)
    for (const r of readings) await post(`/soil/${r.id}/withdraw`)
    expect((await climate()).soilC[100]).toBe(before)
  })

  it('refuses what lies ahead, and places that are not there, with their line', async () => {
    expect((await post('/soil', { day: addDays(today, 1), celsius: 9 })).status).toBe(422)
    const bad = await post('/soil-file', { csv: `day,celsius,place\n${today},9,Nowhere\n` })
    expect(bad.body.problems[0].message).toContain('line 2, column place: Nowhere is not on the plan')
  })
})

describe('watering', () => {
  it('is told of what was just set, by the weather since, until water is on record', async () => {
    const { features } = await get<GardenView>('')
    const bed = features.find((f) => f.name === 'North bed')!
    // Forty days without rain, warm: what was set at their start lacks water.
    const dry = record.map((d) =>
      d.day >= addDays(today, -40) ? { ...d, minC: 12, maxC: 26, rainMm: 0 } : d,
    )
    const weather = ['day,min_c,max_c,rain_mm', ...dry.filter((d) => d.day < today).map(csvLine)].join('\n')
    expect((await post('/weather', { weather })).status).toBe(200)
    const fresh = {
      tag: 'NEW-1',
      taxonBotanical: 'Geum chiloense',
      placeId: bed.id,
      count: 3,
      plantedOn: addDays(today, -40),
      source: 'bought',
      x: 8.6,
      y: 22.9,
    }
    const [plantingId] = (await post('/plantings', entering(fresh))).body.plantingIds
    const of = async () =>
      (await get<WateringView>('/watering')).plants.find((p) => p.plantingId === plantingId)
    const before = (await of())!
    expect(before.depletionMm).toBeGreaterThan(before.readilyMm)
    const on = addDays(today, -1)
    await post('/waterings', { on, given: [{ plantingId, litres: 500 }] })
    expect((await of())!.depletionMm).toBe(0)
    expect(
      (await post('/waterings', { on: addDays(today, 1), given: [{ plantingId, litres: 5 }] })).status,
    ).toBe(422)
  })
})

const csvLine = (d: { day: string; minC: number; maxC: number; rainMm: number }) =>
  `${d.day},${d.minC},${d.maxC},${d.rainMm}`

it('a job keeps what it really used', async () => {
  await post('/schedule-runs')
  await workOutWaiting(practice)
  const { jobs } = await get<SeasonView>('/season')
  const job = jobs.find((j) => j.materials.length > 0 && j.after.length === 0 && j.ruleId)!
  const used = job.materials.map(({ name, unit }) => ({ name, unit, amount: 7 }))
  expect((await post(`/jobs/${job.id}/done`, { on: today, minutes: 30, used })).status).toBe(200)
  const done = (await get<SeasonView>('/season')).jobs.find((j) => j.id === job.id)!.done
  expect(done).toMatchObject({ minutes: 30, used })
})
