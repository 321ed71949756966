import type { AssessmentView, GardenView, JobView, PlantingStory, SeasonView } from '@border/contract'
import { addDays, civilDate } from '@border/core'
import ICAL from 'ical.js'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { exampleFiles, practiceWithGarden, type TestPractice } from './practice.ts'

let practice: TestPractice
const today = civilDate(new Date(), 'Europe/London')
const path = (rest: string) => `/gardens/${practice.gardenId}${rest}`
const view = async (): Promise<GardenView> => (await practice.head.get(path(''))).body
const assessment = async (): Promise<AssessmentView> => (await practice.head.get(path('/assessment'))).body
const season = async (): Promise<SeasonView> => (await practice.head.get(path('/season'))).body
const story = async (id: string): Promise<PlantingStory> =>
  (await practice.head.get(path(`/plantings/${id}`))).body

beforeAll(async () => {
  practice = await practiceWithGarden()
})
afterAll(() => practice.stop())

async function planting(tag: string) {
  return (await view()).plantings.find((p) => p.tag === tag)!
}

async function job(kind: JobView['kind'], plantingId: string): Promise<JobView> {
  return (await season()).jobs.find(
    (j) => j.kind === kind && j.plantingIds[0] === plantingId && j.state === 'open',
  )!
}

describe('from a change on the site to a job done', () => {
  it('names the shade plants once the workshop is gone, with the workshop as the cause', async () => {
    const before = await assessment()
    const hosta = await planting('W-01')
    expect(before.assessments.find((a) => a.plantingId === hosta.id)!.outside).toBe(false)
    const workshop = (await view()).features.find((f) => f.name === 'Old workshop')!
    expect(
      (await practice.head.post(path(`/features/${workshop.id}/end`), { to: addDays(today, -10) })).status,
    ).toBe(200)
    const after = (await assessment()).assessments.find((a) => a.plantingId === hosta.id)!
    expect(after.outside).toBe(true)
    expect(after.verdict.action).toBe('move')
    expect(after.causes[0]).toMatchObject({ name: 'Old workshop', what: 'gone' })
    expect(after.verdict.spots[0]!.placeName).toBe('North bed')
  })

  it('turns an accepted move into jobs in order, on working days inside their windows', async () => {
    const hosta = await planting('W-01')
    const answer = await practice.head.post(path('/decisions'), {
      plantingId: hosta.id,
      on: today,
      choice: 'accept',
    })
    expect(answer.status).toBe(200)
    const { jobs, workingDays } = await season()
    const own = jobs.filter((j) => j.plantingIds.includes(hosta.id) && j.ruleId === null)
    expect(own.map((j) => j.kind).sort()).toEqual(['aftercare', 'aftercare', 'aftercare', 'move', 'prepare'])
    const days = new Set(workingDays.map((d) => d.day))
    for (const j of own) {
      expect(days.has(j.plannedOn!)).toBe(true)
      expect(j.plannedOn! >= j.window.earliest && j.plannedOn! <= j.window.latest).toBe(true)
    }
    const on = (kind: string) => own.filter((j) => j.kind === kind).map((j) => j.plannedOn!)
    expect(on('prepare')[0]! <= on('move')[0]!).toBe(true)
    const looks = own.filter((j) => j.kind === 'aftercare').map((j) => j.window.bestFrom)
    expect(looks.sort()).toEqual([6, 20, 41].map((days) => addDays(on('move')[0]!, days)))
  })

  it('keeps promised ground for the one it was promised to', async () => {
    const [hosta, rodgersia] = [await planting('W-01'), await planting('W-02')]
    const { target } = await practice
      .db('jobs')
      .where({ planting_id: hosta.id, kind: 'move' })
      .first('target')
    const claim = { plantingId: rodgersia.id, on: today, choice: 'accept', target }
    const refused = await practice.head.post(path('/decisions'), claim)
    expect([refused.status, refused.body.error]).toEqual([409, expect.stringContaining('no room')])
    expect(await practice.db('decisions').where({ planting_id: rodgersia.id })).toEqual([])
  })

  it('gives out a calendar that another program reads, and the same event after re-planning', async () => {
    const events = async () => {
      const { text, headers } = await practice.head.get(path('/calendar.ics'))
      expect(headers['content-type']).toContain('text/calendar')
      return new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((c) => new ICAL.Event(c))
    }
    const before = await events()
    const planned = (await season()).jobs.filter((j) => j.plannedOn)
    expect(before.map((e) => e.startDate.toString()).sort()).toEqual(planned.map((j) => j.plannedOn!).sort())
    expect(before.every((e) => e.startDate.isDate && e.duration.days === 1)).toBe(true)
    const move = await job('move', (await planting('W-01')).id)
    const other = (await season()).workingDays.find(
      (d) => d.day > move.plannedOn! && d.day <= addDays(move.plannedOn!, 10) && d.day <= move.window.latest,
    )!
    expect((await practice.head.post(path(`/jobs/${move.id}/pin`), { day: other.day })).status).toBe(200)
    const after = (await events()).find((e) => e.uid === `${move.id}@seasoned-border`)!
    expect(after.startDate.toString()).toBe(other.day)
    expect(after.sequence).toBeGreaterThan(before.find((e) => e.uid === after.uid)!.sequence)
  })

  it('records what was really done, in order, and moves the planting with its tag and story', async () => {
    const hosta = await planting('W-01')
    const move = await job('move', hosta.id)
    const done = { on: today, minutes: 55, lived: 2, note: 'One crown had rotted.' }
    expect((await practice.head.post(path(`/jobs/${move.id}/done`), done)).status).toBe(409)
    const prepare = await job('prepare', hosta.id)
    await practice.head.post(path(`/jobs/${prepare.id}/done`), { on: today, minutes: 40 })
    for (const bad of [
      { ...done, on: addDays(today, 1) },
      { ...done, lived: 4 },
      { on: today, minutes: 5 },
    ])
      expect((await practice.head.post(path(`/jobs/${move.id}/done`), bad)).status).toBe(422)
    expect((await practice.head.post(path(`/jobs/${move.id}/done`), done)).status).toBe(200)
    const moved = await planting('W-01')
    const north = (await view()).features.find((f) => f.name === 'North bed')!
    expect([moved.placeId, moved.livingCount, moved.inPlaceSince]).toEqual([north.id, 2, today])
    const told = (await story(hosta.id)).story.map((e) => e.kind)
    expect(told).toEqual(['planted', 'decided', 'job', 'moved'])
    const aftercare = (await season()).jobs
      .filter((j) => j.kind === 'aftercare')
      .map((j) => j.window.bestFrom)
    expect(aftercare).toEqual([addDays(today, 6), addDays(today, 20), addDays(today, 41)])
  })

  it('takes back a record made by mistake, last first, and everything stands as before', async () => {
    const hosta = await planting('W-01')
    const jobs = (await season()).jobs.filter((j) => j.plantingIds.includes(hosta.id))
    const [prepare, move] = ['prepare', 'move'].map((kind) => jobs.find((j) => j.kind === kind)!)
    const takeBack = (j: JobView) => practice.head.post(path(`/jobs/${j.id}/take-back`))
    expect((await takeBack(prepare!)).status).toBe(409)
    expect((await takeBack(move!)).status).toBe(200)
    const back = await planting('W-01')
    const court = (await view()).features.find((f) => f.name === 'Court border')!
    expect([back.placeId, back.livingCount, back.inPlaceSince]).toEqual([court.id, 3, '2021-04-10'])
    expect((await story(hosta.id)).story.map((e) => e.kind)).toEqual(['planted', 'decided', 'job'])
    expect((await job('move', hosta.id)).id).toBe(move!.id)
    expect((await takeBack(move!)).status).toBe(409)
    const again = { on: today, minutes: 50, lived: 3 }
    expect((await practice.head.post(path(`/jobs/${move!.id}/done`), again)).status).toBe(200)
  })

  it('keeps a refusal and its reason, and asks again only after the day waited for', async () => {
    const astrantia = await planting('W-03')
    const base = { plantingId: astrantia.id, on: today }
    expect(
      (
        await practice.head.post(path('/decisions'), {
          ...base,
          choice: 'otherwise',
          action: 'keep',
          reason: '',
        })
      ).status,
    ).toBe(422)
    await practice.head.post(path('/decisions'), {
      ...base,
      choice: 'otherwise',
      action: 'keep',
      reason: 'It was her mother’s.',
    })
    await practice.head.post(path('/decisions'), { ...base, choice: 'wait', until: addDays(today, 100) })
    const own = (await assessment()).decisions.filter((d) => d.plantingId === astrantia.id)
    expect(own.map((d) => d.choice)).toEqual(['wait', 'otherwise'])
  })
})

describe('writes happen once', () => {
  it('a repeat under the same key changes nothing and gets the same answer', async () => {
    const p = await planting('W-06')
    const key = randomUUID()
    const note = { on: today, note: 'Heads nodding.' }
    const send = () => practice.head.post(path(`/plantings/${p.id}/notes`), note, { key })
    const answers = await Promise.all([send(), send(), send()])
    expect(answers.map((a) => a.status)).toEqual([200, 200, 200])
    expect((await story(p.id)).story.filter((e) => e.says === note.note)).toHaveLength(1)
    const other = await practice.head.post(
      path(`/plantings/${p.id}/notes`),
      { ...note, note: 'Else.' },
      { key },
    )
    expect(other.status).toBe(409)
  })
})

describe('bad files', () => {
  it('are refused whole, each error with its place, and nothing is saved', async () => {
    const count = () => practice.db('gardens').count('* as n').first()
    const before = await count()
    const plan = exampleFiles.plan
      .replace('"Walled Court"', '"Second Court"')
      .replace('"heightM": 10.5', '"heightM": "tall"')
      .replace('[14.4, 13.6]', '[1, 9]')
    const bad = await practice.head.post('/imports', { plan })
    expect(bad.status).toBe(422)
    const said = bad.body.problems.map((p: { message: string }) => p.message)
    expect(said).toEqual([
      expect.stringMatching(/feature 2 “Old workshop”, heightM: must be a number/),
      expect.stringMatching(/feature 8 “Court border”, geometry: the outline crosses itself/),
    ])
    const rows = exampleFiles.plantings
      .replace('Court border,Hosta', 'Rose garden,Hosta')
      .replace('2022-04-02', '2022-02-31')
    const csv = await practice.head.post('/imports', {
      ...exampleFiles,
      plan: exampleFiles.plan.replace('Walled', 'Third'),
      plantings: rows,
    })
    expect(csv.body.problems.map((p: { message: string }) => p.message)).toEqual([
      'plantings.csv, line 2, column place: no place is called Rose garden',
      'plantings.csv, line 4, column planted_on: must be a day like 2024-03-31, a year, “before 2015” or “unknown”',
    ])
    expect(await count()).toEqual(before)
  })
})
