import type { AssessmentView, FeatureView, GardenView, SeasonView } from '@border/contract'
import { addDays, civilDate, weekdayOf } from '@border/core'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Client, exampleFiles, PASSWORD, practiceWithGarden, testApp, type TestPractice } from './practice.ts'
import { amending, drawing, entering, takingOff } from './edits.ts'

let practice: TestPractice
const today = civilDate(new Date(), 'Europe/London')
const path = (rest: string) => `/gardens/${practice.gardenId}${rest}`
const view = async (on = today): Promise<GardenView> => (await practice.head.get(path(`?on=${on}`))).body
const named = async (name: string): Promise<FeatureView> =>
  (await view()).features.find((f) => f.name === name)!
const post = (rest: string, body?: object) => practice.head.post(path(rest), body)

beforeAll(async () => {
  practice = await practiceWithGarden()
})
afterAll(() => practice.stop())

const square = [
  [20, 0],
  [24, 0],
  [24, 3],
  [20, 3],
  [20, 0],
]
const bed = (name: string, more: object = {}) => ({
  feature: {
    type: 'Feature',
    properties: { kind: 'bed', name, ...more },
    geometry: { type: 'Polygon', coordinates: [square] },
  },
})

describe('the plan by hand', () => {
  it('takes a bed as a file would, and refuses what a file would be refused for', async () => {
    expect(
      (await post('/plan/edits', drawing(bed('East bed', { moisture: 'moist', colourOfSigns: 'blue' }))))
        .status,
    ).toBe(200)
    const made = await named('East bed')
    expect(made.properties).toMatchObject({ moisture: 'moist', colourOfSigns: 'blue' })
    expect((await post('/plan/edits', drawing(bed('east bed')))).body.error).toBe(
      'Another place in this garden has this name.',
    )
    for (const [wrong, says] of [
      [bed('x', { ph: 14 }), /ph: must be at most 10/],
      [
        { feature: { ...bed('x').feature, geometry: { type: 'Point', coordinates: [0, 0] } } },
        /a bed is a Polygon/,
      ],
      [{ feature: { ...bed('x').feature, properties: { kind: 'pond', name: 'x' } } }, /kind/],
      [bed('x', { from: '2026-05-01', to: '2026-04-01' }), /must be after from/],
    ] as const) {
      const answer = await post('/plan/edits', drawing(wrong))
      expect([answer.status, answer.body.problems[0].message]).toEqual([422, expect.stringMatching(says)])
    }
  })

  it('records what became of a tree, takes the latest word back, and never what came with the file', async () => {
    const pear = await named('Pear')
    const events = async () => (await named('Pear')).properties.events as { date: string; action: string }[]
    expect((await events()).map((e) => e.action)).toEqual(['limbed'])
    expect(
      (await post(`/features/${pear.id}/events`, { date: today, action: 'thinned', fraction: 0.3 })).status,
    ).toBe(200)
    expect((await events()).map((e) => e.action)).toEqual(['limbed', 'thinned'])
    expect((await post(`/features/${pear.id}/events/undo`)).status).toBe(200)
    expect((await events()).map((e) => e.action)).toEqual(['limbed'])
    expect((await post(`/features/${pear.id}/events/undo`)).status).toBe(409)
    const house = await named('House')
    const limbed = await post(`/features/${house.id}/events`, {
      date: today,
      action: 'limbed',
      clearStemM: 2,
    })
    expect(limbed.status).toBe(422)
  })

  it('ends a thing on a day and lets it stand again', async () => {
    const hedge = await named('Yew hedge')
    await post(`/features/${hedge.id}/end`, { to: addDays(today, -3) })
    expect((await named('Yew hedge')).to).toBe(addDays(today, -3))
    await post(`/features/${hedge.id}/end`, { to: null })
    expect((await named('Yew hedge')).to).toBeNull()
  })

  it('takes a mistake off the plan and puts it back, but not ground that plants stand in', async () => {
    const east = await named('East bed')
    expect((await post('/plan/edits', takingOff(east.id))).status).toBe(200)
    expect(await named('East bed')).toBeUndefined()
    expect((await post('/plan/edits', drawing(bed('East bed')))).status).toBe(200)
    expect((await post(`/features/${east.id}/restore`)).status).toBe(409)
    const court = await named('Court border')
    expect((await post('/plan/edits', takingOff(court.id))).body.error).toMatch(
      /^Plants stand or stood there \(W-/,
    )
  })
})

const ring = (...corners: [number, number][]) => corners

describe('plantings by hand', () => {
  const planting = async (more: object = {}) => ({
    tag: 'W-20',
    taxonBotanical: 'Astilbe × arendsii',
    placeId: (await named('North bed')).id,
    count: 3,
    plantedOn: today,
    source: 'division',
    x: 10,
    y: 23,
    ...more,
  })

  it('stand where they were put, from the day they were planted', async () => {
    expect((await post('/plantings', entering(await planting()))).status).toBe(200)
    expect((await view()).plantings.find((p) => p.tag === 'W-20')).toMatchObject({
      livingCount: 3,
      x: 10,
      y: 23,
    })
    expect((await view(addDays(today, -1))).plantings.find((p) => p.tag === 'W-20')).toBeUndefined()
  })

  it('stand on the ground that was drawn, until it is drawn otherwise or not at all', async () => {
    const outline = [
      [9, 22.5],
      [11, 22.5],
      [10, 23.5],
    ]
    expect(
      (await post('/plantings', entering(await planting({ tag: 'W-21', y: 22.8, outline })))).status,
    ).toBe(200)
    const one = async () => (await view()).plantings.find((p) => p.tag === 'W-21')!
    expect((await one()).outline).toEqual(outline)
    const amend = async (more: object) => post('/plantings/amend', amending((await one()).id, more))
    const wider = [...outline, [9, 23.5]]
    expect((await amend({ outline: wider })).status).toBe(200)
    expect((await one()).outline).toEqual(wider)
    expect((await amend({ outline: null, radiusM: 0.4 })).status).toBe(200)
    expect(await one()).toMatchObject({ outline: null, radiusM: 0.4 })
  })

  it.each([
    [{ x: 40 }, 422, /outside North bed/],
    [{ outline: ring([9, 22], [11, 22], [9, 24], [11, 24]) }, 422, /Nothing was saved/],
    [{ outline: ring([9, 22], [10, 22], [11, 22]) }, 422, /Nothing was saved/],
    [{ outline: ring([4, 22], [5, 22], [5, 23]) }, 422, /outside its own outline/],
    [{ plantedOn: addDays(today, 1) }, 422, /lies ahead/],
    [{ taxonBotanical: 'Rosa imaginaria' }, 422, /not in the plant library/],
    [{ tag: 'W-01' }, 409, /Another planting in this garden has this tag/],
    [{ count: 0 }, 422, /Nothing was saved/],
    [{ placeId: randomUUID() }, 404, /was not found/],
  ])('are refused with %j, and nothing is saved', async (wrong, status, says) => {
    const count = async () => (await practice.db('plantings').count('* as n').first())!.n
    const before = await count()
    const answer = await post('/plantings', entering(await planting({ tag: 'W-30', ...wrong })))
    expect([answer.status, answer.body.error]).toEqual([status, expect.stringMatching(says)])
    expect(await count()).toBe(before)
  })
})

describe('what a sign asks for', () => {
  it('is proposed, accepted in its own word, and a job in its window with what it costs to wait', async () => {
    const planted = (await view()).plantings.find((p) => p.tag === 'W-03')!
    const entry = {
      kind: 'planting',
      id: randomUUID(),
      plantingId: planted.id,
      on: today,
      at: `${today}T09:00:00Z`,
      signs: ['reverted'],
    }
    expect((await post('/walk-entries', { entries: [entry] })).body.kept).toEqual([entry.id])
    const { assessments } = (await practice.head.get(path('/assessment'))).body as AssessmentView
    const { verdict } = assessments.find((a) => a.plantingId === planted.id)!
    const remedy = verdict.remedies.find((r) => r.id === 'cut-out-reverted')!
    expect(remedy).toMatchObject({ action: 'cut out', signs: ['reverted'] })
    const word = { plantingId: planted.id, on: today, choice: 'otherwise', reason: 'It is right.' }
    expect((await post('/decisions', { ...word, action: 'cut out' })).status).toBe(200)
    const { jobs } = (await practice.head.get(path('/season'))).body as SeasonView
    const [job, ...more] = jobs.filter((j) => j.ruleId === null && j.plantingIds.includes(planted.id))
    expect(more).toEqual([])
    expect(job).toMatchObject({
      kind: 'prune',
      window: remedy.window,
      missed: remedy.waiting,
      why: remedy.says,
    })
    expect(job!.steps[0]).toBe(remedy.does)
    // What is said anew takes the place of what was said, with its work.
    expect((await post('/decisions', { ...word, action: 'keep' })).status).toBe(200)
    const after = ((await practice.head.get(path('/season'))).body as SeasonView).jobs
    expect(after.filter((j) => j.ruleId === null && j.plantingIds.includes(planted.id))).toEqual([])
  })
})

describe('set-up', () => {
  it('re-plans on new working days, and leaves out a day off', async () => {
    const hosta = (await view()).plantings.find((p) => p.tag === 'W-01')!
    const target = { placeId: (await named('North bed')).id, x: 6, y: 22.9 }
    const decision = {
      plantingId: hosta.id,
      on: today,
      choice: 'otherwise',
      action: 'move',
      reason: 'A wish.',
      target,
    }
    expect((await post('/decisions', decision)).status).toBe(200)
    const days = async () => {
      const { jobs } = (await practice.head.get(path('/season'))).body as SeasonView
      return jobs.map((j) => j.plannedOn!)
    }
    await practice.work([0, 0, 0, 0, 0, 0, 480])
    const saturdays = await days()
    expect(new Set(saturdays.map(weekdayOf))).toEqual(new Set([6]))
    await post('/crew/days', { day: saturdays[0], minutes: 0 })
    expect(await days()).not.toContain(saturdays[0])
    await practice.work([0, 0, 0, 0, 0, 0, 0])
    const { jobs } = (await practice.head.get(path('/season'))).body as SeasonView
    expect(jobs.every((j) => j.plannedOn === null && /Nobody works|waits for a job/.test(j.unplaced!))).toBe(
      true,
    )
  })

  it('brings a weather record in, or refuses it with its lines and keeps the old one', async () => {
    const before = (await view()).climate
    const bad = await post('/weather', {
      weather: 'day,min_c,max_c,rain_mm\n2020-01-01,9,4,0\n2020-01-01,1,4,-2\n',
    })
    expect(bad.body.problems.map((p: { message: string }) => p.message)).toEqual([
      'weather.csv, line 2, column min_c: above max_c (4)',
      'weather.csv, line 3, column rain_mm: must be at least 0',
    ])
    expect((await view()).climate).toEqual(before)
    const colder = exampleFiles.weather.replace(
      /^(\d{4}-\d\d-\d\d),([-\d.]+)/gm,
      (_, day, min) => `${day},${Number(min) - 5}`,
    )
    expect((await post('/weather', { weather: colder })).status).toBe(200)
    const after = (await view()).climate!
    expect(after.meanAnnualMinimumC).toBeCloseTo(before!.meanAnnualMinimumC - 5, 5)
    expect(after.lastFrost!.p50).toBeGreaterThan(before!.lastFrost!.p50)
  })

  it('adds people by role, who can then sign in; nobody changes their own role', async () => {
    const person = { name: 'New crew', email: 'crew@example.invalid', password: PASSWORD, role: 'crew' }
    expect((await post('/people', person)).status).toBe(200)
    const crew = new Client(practice.app)
    expect((await crew.signIn('crew@example.invalid')).status).toBe(200)
    expect((await crew.get('/gardens')).body).toMatchObject([{ id: practice.gardenId, role: 'crew' }])
    expect((await post('/people', { ...person, role: 'keeper' })).status).toBe(200)
    expect((await crew.get('/gardens')).body).toMatchObject([{ role: 'keeper' }])
    expect((await post('/people', { ...person, email: 'head@example.invalid' })).status).toBe(409)
    expect((await post('/people', { ...person, email: 'x@example.invalid', password: 'short' })).status).toBe(
      422,
    )
  })

  it('leaves compost out of jobs where the school is to plant into native soil', async () => {
    await practice.work([0, 480, 480, 480, 480, 480, 0])
    await post('/schools', { school: 'planting-hole', choice: 'native' })
    const rodgersia = (await view()).plantings.find((p) => p.tag === 'W-02')!
    const target = { placeId: (await named('North bed')).id, x: 8.6, y: 22.9 }
    const sent = await post('/decisions', {
      plantingId: rodgersia.id,
      on: today,
      choice: 'otherwise',
      action: 'move',
      reason: 'A wish.',
      target,
    })
    expect(sent.status).toBe(200)
    const { jobs } = (await practice.head.get(path('/season'))).body as SeasonView
    const prepare = jobs.find((j) => j.plantingIds.includes(rodgersia.id) && j.kind === 'prepare')!
    expect(prepare.materials).toEqual([])
  })
})

describe('two people at once', () => {
  const move = (tag: string, at: { x: number; y: number }) => async () => {
    const { plantings } = await view()
    const target = { placeId: (await named('North bed')).id, ...at }
    return {
      plantingId: plantings.find((p) => p.tag === tag)!.id,
      on: today,
      choice: 'otherwise',
      action: 'move',
      reason: 'A race.',
      target,
    }
  }

  it('cannot both have the same ground', async () => {
    const [first, second] = await Promise.all([
      move('W-03', { x: 11.2, y: 22.9 })(),
      move('W-04', { x: 11.2, y: 22.9 })(),
    ])
    const other = await practice.join('second', 'head')
    const answers = await Promise.all([
      practice.head.post(path('/decisions'), first),
      other.post(path('/decisions'), second),
    ])
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409])
  })

  it('doing the same job record it once', async () => {
    const { jobs } = (await practice.head.get(path('/season'))).body as SeasonView
    const prepare = jobs.find((j) => j.kind === 'prepare' && j.state === 'open')!
    const other = await practice.join('third', 'crew')
    const done = { on: today, minutes: 30 }
    const answers = await Promise.all([
      practice.head.post(path(`/jobs/${prepare.id}/done`), done),
      other.post(path(`/jobs/${prepare.id}/done`), done),
    ])
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409])
    expect(await practice.db('job_records').where({ job_id: prepare.id })).toHaveLength(1)
  })

  it('a refused write leaves its key free for the right one', async () => {
    const key = randomUUID()
    const hosta = (await view()).plantings.find((p) => p.tag === 'W-01')!
    const note = `/plantings/${hosta.id}/notes`
    const early = await practice.head.post(path(note), { on: addDays(today, 1), note: 'Too early.' }, { key })
    const right = await practice.head.post(path(note), { on: today, note: 'In time.' }, { key })
    expect([early.status, right.status]).toEqual([422, 200])
  })
})

describe('the first account', () => {
  it('is made once, however many ask at the same moment', async () => {
    const empty = await testApp()
    const account = (n: number) => ({
      practiceName: 'P',
      name: 'N',
      email: `n${n}@example.invalid`,
      password: PASSWORD,
    })
    const clients = [1, 2, 3].map(() => new Client(empty.app))
    for (const c of clients) expect((await c.open()).needsFirstAccount).toBe(true)
    const answers = await Promise.all(clients.map((c, n) => c.post('/session/first-account', account(n))))
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409, 409])
    expect(await empty.db('people').count('* as n').first()).toEqual({ n: '1' })
    await empty.stop()
  })
})
