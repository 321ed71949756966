import type { GardenView, SeasonView, SessionInfo, WalkAnswer, WithdrawnGarden } from '@border/contract'
import { addDays, civilDate, gardenDay } from '@border/core'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { exampleFiles, practiceWithGarden, type TestPractice } from './practice.ts'

/**
 * Today is the garden's own day. The same garden is put far in the west, far in the east and where clocks change, and one clock,
 * the server's, is set about the edges of its day.
 */

let practice: TestPractice
let nowMs = Date.parse('2026-09-15T10:00:00Z')
const at = (instant: string) => {
  nowMs = Date.parse(instant)
}
const path = (rest: string) => `/gardens/${practice.gardenId}${rest}`
const view = async (): Promise<GardenView> => (await practice.head.get(path(''))).body
const zone = async (timeZone: string) => {
  const answer = await practice.head.post(path('/amend'), { timeZone })
  if (answer.status !== 200) throw new Error(JSON.stringify(answer.body))
}

beforeAll(async () => {
  practice = await practiceWithGarden(exampleFiles, () => nowMs)
  await practice.work([240, 240, 240, 240, 240, 240, 240])
})
afterAll(() => practice.stop())

async function look(on: string): Promise<{ kept: number; refused: string[] }> {
  const { plantings } = await view()
  const answer = await practice.head.post(path('/walk-entries'), {
    entries: [
      {
        kind: 'planting',
        id: randomUUID(),
        plantingId: plantings[0]!.id,
        on,
        at: new Date(nowMs).toISOString(),
        rating: 4,
      },
    ],
  })
  const { kept, refused } = answer.body as WalkAnswer
  return { kept: kept.length, refused: refused.map((r) => r.why) }
}

const note = async (on: string) => {
  const { plantings } = await view()
  return (await practice.head.post(path(`/plantings/${plantings[0]!.id}/notes`), { on, note: 'Seen.' }))
    .status
}

interface Edge {
  where: string
  timeZone: string
  instant: string
  today: string
}
/** Days by the calendars of the places; offsets as published for 2026. */
const edges: readonly Edge[] = [
  {
    where: 'the evening at UTC-11',
    timeZone: 'Pacific/Pago_Pago',
    instant: '2026-09-15T08:30:00Z',
    today: '2026-09-14',
  },
  {
    where: 'the first minute at UTC-11',
    timeZone: 'Pacific/Pago_Pago',
    instant: '2026-09-15T11:00:30Z',
    today: '2026-09-15',
  },
  {
    where: 'the last minute at UTC-11',
    timeZone: 'Pacific/Pago_Pago',
    instant: '2026-09-16T10:59:30Z',
    today: '2026-09-15',
  },
  {
    where: 'the first minute at UTC+14',
    timeZone: 'Pacific/Kiritimati',
    instant: '2026-09-15T10:00:30Z',
    today: '2026-09-16',
  },
  {
    where: 'the last minute at UTC+14',
    timeZone: 'Pacific/Kiritimati',
    instant: '2026-09-15T09:59:30Z',
    today: '2026-09-15',
  },
  {
    where: 'the evening in the west of America',
    timeZone: 'America/Los_Angeles',
    instant: '2026-09-16T03:00:00Z',
    today: '2026-09-15',
  },
  {
    where: 'before midnight as clocks go back',
    timeZone: 'Europe/London',
    instant: '2026-10-24T22:59:00Z',
    today: '2026-10-24',
  },
  {
    where: 'after midnight as clocks go back',
    timeZone: 'Europe/London',
    instant: '2026-10-24T23:01:00Z',
    today: '2026-10-25',
  },
  {
    where: 'the last hour of that longer day',
    timeZone: 'Europe/London',
    instant: '2026-10-25T23:59:00Z',
    today: '2026-10-25',
  },
  {
    where: 'New Year’s Eve in the east',
    timeZone: 'Pacific/Auckland',
    instant: '2026-12-31T10:59:00Z',
    today: '2026-12-31',
  },
  {
    where: 'New Year in the east',
    timeZone: 'Pacific/Auckland',
    instant: '2026-12-31T11:01:00Z',
    today: '2027-01-01',
  },
]

describe.each(edges)('$where', ({ timeZone, instant, today }) => {
  beforeAll(async () => {
    at(instant)
    await zone(timeZone)
  })

  it('a look of the garden’s today is kept, one of its tomorrow is not', async () => {
    expect(gardenDay(null, timeZone, nowMs)).toBe(today)
    expect(await look(today)).toEqual({ kept: 1, refused: [] })
    const ahead = await look(addDays(today, 1))
    expect(ahead.kept).toBe(0)
    // It says of what, on which day, and what to do.
    expect(ahead.refused[0]).toMatch(/ lies ahead, it is .* in this garden\./)
  })

  it('so is a note', async () => {
    expect(await note(today)).toBe(200)
    expect(await note(addDays(today, 1))).toBe(422)
  })
})

describe('devices whose clocks are wrong', () => {
  const DAY = 86_400_000
  const HOUR = 3_600_000

  it('three at once, each set to the wall clock of another zone, note one garden’s day', async () => {
    // One took the wall clock of UTC-11 and one that of UTC+14 for universal time.
    const offsets = [-11 * HOUR, 0, 14 * HOUR]
    at('2026-10-20T16:00:00Z')
    await zone('America/Denver')
    const { plantings } = await view()
    const entries = offsets.map((offMs, i) => ({
      kind: 'planting',
      id: randomUUID(),
      plantingId: plantings[i]!.id,
      on: gardenDay(null, 'America/Denver', nowMs + offMs),
      at: new Date(nowMs + offMs).toISOString(),
      rating: 3,
    }))
    // As told by the devices they are not of one day.
    expect(new Set(entries.map((e) => e.on)).size).toBeGreaterThan(1)
    const answers = await Promise.all(
      entries.map((entry, i) =>
        practice.head.post(
          path('/walk-entries'),
          { entries: [entry] },
          { deviceClock: new Date(nowMs + offsets[i]!).toISOString() },
        ),
      ),
    )
    expect(answers.map((a) => a.body)).toEqual(entries.map((e) => ({ kept: [e.id], refused: [] })))
    const rows = await practice
      .db('observations')
      .whereIn(
        'id',
        entries.map((e) => e.id),
      )
      .select('on_date', 'seen_at')
    expect(new Set(rows.map((r) => r.on_date))).toEqual(new Set(['2026-10-20']))
    expect(new Set(rows.map((r) => r.seen_at.getTime()))).toEqual(new Set([nowMs]))
  })

  it.each([
    ['three days ahead, at UTC-11', 'Pacific/Pago_Pago', 3 * DAY],
    ['a day and a half behind, at UTC+14', 'Pacific/Kiritimati', -1.5 * DAY],
    ['an hour ahead, where clocks change that night', 'America/Denver', HOUR],
  ])(
    '%s: nothing that was noted is lost, each is of its day, with what the device said',
    async (_, timeZone, aheadMs) => {
      // Clocks go back in Denver on 1 November 2026, at two in the morning.
      const walkedMs = Date.parse('2026-11-01T05:30:00Z')
      at(new Date(walkedMs).toISOString())
      await zone(timeZone)
      const { plantings } = await view()
      const treeBed = plantings[0]!.placeId
      const device = (ms: number) => new Date(ms + aheadMs).toISOString()
      const onDevice = gardenDay(null, timeZone, walkedMs + aheadMs)
      const noted = { id: randomUUID(), on: onDevice, at: device(walkedMs) }
      const entry = { kind: 'planting', ...noted, plantingId: plantings[0]!.id, rating: 4 }
      const place = { kind: 'place', ...noted, id: randomUUID(), placeId: treeBed, weeds: 'some' }
      const season = (await practice.head.get(path('/season'))).body as SeasonView
      const job = season.jobs.find(
        (j) => j.state === 'open' && j.after.length === 0 && j.plantingIds.length === 0,
      )!
      // They are sent six hours later, when there is a connection.
      at(new Date(walkedMs + 6 * HOUR).toISOString())
      const deviceClock = device(nowMs)
      const answer = await practice.head.post(
        path('/walk-entries'),
        { entries: [entry, place] },
        { deviceClock },
      )
      expect(answer.body).toEqual({ kept: [entry.id, place.id], refused: [] })
      const done = await practice.head.post(
        path(`/jobs/${job.id}/done`),
        { on: onDevice, at: noted.at, minutes: 20 },
        { deviceClock },
      )
      expect([done.status, done.body.error]).toEqual([200, undefined])
      const today = gardenDay(null, timeZone, walkedMs)
      for (const [table, id, when, day] of [
        ['observations', { id: entry.id }, 'seen_at', 'on_date'],
        ['place_looks', { id: place.id }, 'seen_at', 'on_date'],
        ['job_records', { job_id: job.id }, 'device_at', 'done_on'],
      ] as const) {
        const row = await practice.db(table).where(id).first()
        expect([table, row[day], row.device_at.toISOString()]).toEqual([table, today, noted.at])
        if (when === 'seen_at') expect(row.seen_at.getTime()).toBe(walkedMs)
      }
    },
  )
})

describe('the clock', () => {
  it('is told to whoever signs in, as the server has it: a device set wrong goes by it', async () => {
    at('2026-09-15T22:00:00Z')
    const { body } = await practice.head.get('/session')
    expect(Date.parse((body as SessionInfo).now)).toBe(nowMs)
  })

  it('lets work be recorded on the evening it is done, west of Greenwich', async () => {
    // Six in the evening of the 15th in Denver is the 16th in Greenwich.
    at('2026-09-16T00:00:00Z')
    await zone('America/Denver')
    const season = (await practice.head.get(path('/season'))).body as SeasonView
    const [job, other] = season.jobs.filter((j) => j.state === 'open' && j.after.length === 0)
    const done = (id: string, on: string) => practice.head.post(path(`/jobs/${id}/done`), { on, minutes: 20 })
    expect((await done(job!.id, '2026-09-16')).status).toBe(422)
    expect((await done(job!.id, '2026-09-15')).status).toBe(200)
    at('2026-09-16T06:00:30Z')
    expect((await done(other!.id, '2026-09-16')).status).toBe(200)
  })

  it('never plans work for a day that is over in the garden', async () => {
    for (const [timeZone, instant] of [
      ['Pacific/Kiritimati', '2026-10-05T12:00:00Z'],
      ['Pacific/Pago_Pago', '2026-10-05T09:00:00Z'],
    ] as const) {
      at(instant)
      await zone(timeZone)
      const today = gardenDay(null, timeZone, nowMs)
      const season = (await practice.head.get(path('/season'))).body as SeasonView
      const days = season.jobs.filter((j) => j.state === 'open').flatMap((j) => j.parts.map((p) => p.day))
      expect(days.length).toBeGreaterThan(0)
      expect(days.filter((d) => d < today)).toEqual([])
    }
  })

  it('of another garden is its own', async () => {
    at('2026-09-15T10:30:00Z')
    await zone('Pacific/Pago_Pago')
    const answer = await practice.head.post('/gardens', {
      name: 'Over the date line',
      latitude: 1.9,
      longitude: -157.4,
      timeZone: 'Pacific/Kiritimati',
    })
    const east = `/gardens/${answer.body.gardenId as string}`
    const soil = (garden: string, day: string) => practice.head.post(`${garden}/soil`, { day, celsius: 14 })
    expect((await soil(path(''), '2026-09-15')).status).toBe(422)
    expect((await soil(east, '2026-09-15')).status).toBe(200)
    expect((await soil(east, '2026-09-16')).status).toBe(200)
    expect((await soil(path(''), '2026-09-14')).status).toBe(200)
  })

  it('is the day that a garden was taken out on', async () => {
    for (const timeZone of ['Pacific/Kiritimati', 'Pacific/Pago_Pago']) {
      const name = `Gone in ${timeZone}`
      const made = await practice.head.post('/gardens', { name, latitude: 1, longitude: 0, timeZone })
      await practice.head.post(`/gardens/${made.body.gardenId as string}/withdraw`, { name })
      const gone = (await practice.head.get('/withdrawn-gardens')).body as WithdrawnGarden[]
      expect(gone.find((g) => g.name === name)!.withdrawnOn).toBe(civilDate(new Date(nowMs), timeZone))
    }
  })
})
