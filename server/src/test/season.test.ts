import type { JobView, OutlookView, ScheduleRunView, RuleView, SeasonView } from '@border/contract'
import { addDays, civilDate, daysBetween, type WhyHere } from '@border/core'
import ICAL from 'ical.js'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { findForecast } from '../store/weatherService.ts'
import { HORIZON_DAYS } from '../work/schedule.ts'
import { Client, practiceWithGarden, type TestPractice, workOutWaiting } from './practice.ts'

let practice: TestPractice
const today = civilDate(new Date(), 'Europe/London')
const path = (rest: string) => `/gardens/${practice.gardenId}${rest}`
const get = async <T>(rest: string): Promise<T> => (await practice.head.get(path(rest))).body
const post = (rest: string, body?: object) => practice.head.post(path(rest), body)
const season = () => get<SeasonView>('/season')
const latest = async () => (await get<{ run: ScheduleRunView | null }>('/schedule-runs/latest')).run!

async function planned(): Promise<ScheduleRunView> {
  expect((await post('/schedule-runs')).status).toBe(200)
  expect(await workOutWaiting(practice)).toBe(true)
  return latest()
}

beforeAll(async () => {
  practice = await practiceWithGarden()
  await practice.work([0, 0, 240, 0, 240, 0, 0])
})
afterAll(() => practice.stop())

describe('the season’s plan', () => {
  it('is worked out in the background, looked at, and taken: care jobs on working days in their windows', async () => {
    const before = (await season()).jobs.map((j) => j.parts)
    const run = await planned()
    expect(run).toMatchObject({ state: 'ready', progress: 1 })
    // Looked at, it has changed nothing yet.
    expect((await season()).jobs.map((j) => j.parts)).toEqual(before)
    expect((await post(`/schedule-runs/${run.id}`, { take: true })).status).toBe(200)
    const { jobs, workingDays } = await season()
    expect(jobs.length).toBeGreaterThan(10)
    const minutes = new Map(workingDays.map((d) => [d.day, d.minutes]))
    const used = new Map<string, number>()
    for (const j of jobs.filter((x) => x.plannedOn)) {
      expect(j.parts.reduce((sum, p) => sum + p.minutes, 0)).toBe(j.minutes)
      for (const p of j.parts) {
        expect(p.day >= j.window.earliest && p.day <= j.window.latest, j.title).toBe(true)
        used.set(p.day, (used.get(p.day) ?? 0) + p.minutes)
      }
    }
    for (const [day, m] of used) expect(m).toBeLessThanOrEqual(minutes.get(day) ?? 0)
    // Whatever the day, work may be planned for the last of them.
    expect(daysBetween(today, workingDays.at(-1)!.day)).toBeGreaterThan(HORIZON_DAYS - 7)
    // Taken once, it cannot be taken again.
    expect((await post(`/schedule-runs/${run.id}`, { take: true })).status).toBe(409)
  })

  it('makes the same work once, however often it is planned', async () => {
    const before = (await season()).jobs.map((j) => j.id).sort()
    await post(`/schedule-runs/${(await planned()).id}`, { take: true })
    expect((await season()).jobs.map((j) => j.id).sort()).toEqual(before)
  })

  it('is not taken when the garden has changed since', async () => {
    const run = await planned()
    const day = (await season()).workingDays[3]!.day
    await post('/crew/days', { day, minutes: 0 })
    const answer = await post(`/schedule-runs/${run.id}`, { take: true })
    expect(answer.status).toBe(409)
    expect(answer.body.error).toContain('have changed since')
  })

  it('is asked for once while it waits, and stopped by a word', async () => {
    const [a, b] = [(await post('/schedule-runs')).body.runId, (await post('/schedule-runs')).body.runId]
    expect(a).toBe(b)
    await post(`/schedule-runs/${a}`, { take: false })
    expect(await workOutWaiting(practice)).toBe(false)
    expect((await latest()).state).toBe('dropped')
  })

  it('is shared out: of two who look for work, one gets it', async () => {
    await post('/schedule-runs')
    const got = await Promise.all([1, 2].map(() => workOutWaiting(practice)))
    expect(got.sort()).toEqual([false, true])
    await post(`/schedule-runs/${(await latest()).id}`, { take: false })
  })

  it('says why a job is where it is, and what each other day would cost', async () => {
    const job = (await season()).jobs.find((j) => j.plannedOn && j.parts.length === 1)!
    const why = await get<WhyHere>(`/jobs/${job.id}/why`)
    expect(why.chosen!.day).toBe(job.plannedOn)
    expect(why.chosen!.terms.length).toBeGreaterThan(0)
    for (const d of why.days) expect(d.isFree ? d.cost! >= 0 : d.says.length > 0).toBe(true)
  })
})

describe('rules and schools', () => {
  const rule = async (id: string) => (await get<RuleView[]>('/rules')).find((r) => r.id === id)!

  it('say which plantings they touch; switched off, their open jobs go, done ones stay', async () => {
    const { jobs } = await season()
    const weeding = jobs.filter((j) => j.ruleId === 'weed-beds')
    expect(weeding.length).toBeGreaterThan(0)
    expect((await rule('weed-beds')).touches.map((t) => t.label)).toContain('Court border')
    await practice
      .db('jobs')
      .where({ id: weeding[0]!.id })
      .update({ earliest: addDays(today, -3) })
    await post(`/jobs/${weeding[0]!.id}/done`, { on: today, minutes: 25 })
    expect((await post('/rules/weed-beds', { isOn: false })).status).toBe(200)
    const after = (await season()).jobs.filter((j) => j.ruleId === 'weed-beds')
    expect(after.map((j) => [j.id, j.state])).toEqual([[weeding[0]!.id, 'done']])
    expect((await rule('weed-beds')).isOn).toBe(false)
    await post('/rules/weed-beds', { isOn: true })
    const back = (await season()).jobs.filter((j) => j.ruleId === 'weed-beds')
    expect(back).toHaveLength(weeding.length)
    expect((await post('/rules/no-such-rule', { isOn: false })).status).toBe(404)
    expect((await post('/rules/weed-beds', { adjusted: { shiftDays: 400 } })).status).toBe(422)
  })

  it('turn to the other school when the garden does', async () => {
    expect((await rule('cut-back-autumn')).school!.followed).toBe(false)
    expect((await post('/schools', { school: 'cutting-back', choice: 'autumn' })).status).toBe(200)
    expect((await rule('cut-back-autumn')).school!.followed).toBe(true)
    expect((await post('/schools', { school: 'cutting-back', choice: 'never' })).status).toBe(422)
  })
})

describe('a decision that is not a move', () => {
  it('becomes a job in its own window, and what is taken out lives no longer', async () => {
    const { plantings } = await get<{ plantings: { id: string; tag: string; livingCount: number }[] }>('')
    const decide = (tag: string, action: string) =>
      post('/decisions', {
        plantingId: plantings.find((p) => p.tag === tag)!.id,
        on: today,
        choice: 'otherwise',
        action,
        reason: 'It has had its day.',
      })
    expect((await decide('W-02', 'divide')).status).toBe(200)
    expect((await decide('W-03', 'remove')).status).toBe(200)
    const of = async (kind: JobView['kind']) =>
      (await season()).jobs.find((j) => j.kind === kind && j.ruleId === null && j.state === 'open')!
    expect((await of('divide')).window.why.earliest).toMatch(/^Not before/)
    const removal = await of('remove')
    expect((await post(`/jobs/${removal.id}/done`, { on: today, minutes: 20 })).status).toBe(200)
    const left = await get<{ plantings: { tag: string }[] }>('')
    expect(left.plantings.map((p) => p.tag)).not.toContain('W-03')
    await post(`/jobs/${removal.id}/take-back`)
    const back = await get<{ plantings: { tag: string }[] }>('')
    expect(back.plantings.map((p) => p.tag)).toContain('W-03')
  })
})

describe('the calendar link', () => {
  const read = async (link: string) => {
    const { status, text } = await new Client(practice.app).get(link.replace('/api', ''))
    return {
      status,
      events: status === 200 ? new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent') : [],
    }
  }

  it('is read by a calendar without signing in, keeps its events apart, and stops when withdrawn', async () => {
    const { path: link } = (await post('/calendar-link', { on: true })).body
    const { status, events } = await read(link)
    expect(status).toBe(200)
    const uids = events.map((e) => String(e.getFirstPropertyValue('uid')))
    expect(uids.length).toBe((await season()).jobs.filter((j) => j.plannedOn || j.done).length)
    expect(new Set(uids).size).toBe(uids.length)
    const [alarmed] = (await read(`${link}?alarms`)).events.filter(
      (e) => !String(e.getFirstPropertyValue('summary')).startsWith('Done'),
    )
    expect(alarmed!.getAllSubcomponents('valarm')).toHaveLength(1)
    const { path: newer } = (await post('/calendar-link', { on: true })).body
    expect((await read(link)).status).toBe(404)
    expect((await read(newer)).status).toBe(200)
    await post('/calendar-link', { on: false })
    expect((await read(newer)).status).toBe(404)
  })
})

describe('the forecast', () => {
  it('is honestly missing where there is no service', async () => {
    const outlook = await get<OutlookView>('/outlook')
    expect(outlook).toMatchObject({ available: false, why: 'No weather service is set up.' })
  })

  const serve = (
    answer: (n: number) => { status: number; body: string } | null,
  ): Promise<{ server: Server; url: string; asked: () => number }> =>
    new Promise((resolve) => {
      let asked = 0
      const server = createServer((_, res) => {
        const a = answer(++asked)
        if (!a) return
        res.writeHead(a.status, { 'content-type': 'application/json' })
        res.end(a.body)
      }).listen(0, '127.0.0.1', () =>
        resolve({
          server,
          url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
          asked: () => asked,
        }),
      )
    })
  const good = JSON.stringify({
    issued: today,
    days: [{ day: today, minC: 3, maxC: 9, rainMm: 0, rainChance: 0.1, spreadC: 0 }],
  })

  it('is asked for again after a failure, kept for the day, and given up in time', async () => {
    const place = { latitude: 52, longitude: 0 }
    const flaky = await serve((n) => (n < 3 ? { status: 503, body: '{}' } : { status: 200, body: good }))
    expect(await findForecast(practice.db, place, today, flaky.url)).toMatchObject({ ok: true })
    expect(await findForecast(practice.db, place, today, flaky.url)).toMatchObject({ ok: true })
    expect(flaky.asked()).toBe(3)
    flaky.server.close()
    const nonsense = await serve(() => ({ status: 200, body: '{"days": 3}' }))
    expect(await findForecast(practice.db, place, today, nonsense.url)).toMatchObject({ ok: false })
    // A service that failed is left alone for a while.
    expect(await findForecast(practice.db, place, today, nonsense.url)).toMatchObject({ ok: false })
    expect(nonsense.asked()).toBe(1)
    nonsense.server.close()
  })
})
