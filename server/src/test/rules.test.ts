import type { GardenView, PlantingStory, RuleView, SeasonView } from '@border/contract'
import { addDays, civilDate, innerPoint, ringOf } from '@border/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ownRule as own } from './validWrites.ts'
import { practiceWithGarden, type TestPractice, workOutWaiting } from './practice.ts'
import { amending, entering } from './edits.ts'

const today = civilDate(new Date(), 'Europe/London')
let practice: TestPractice
const post = (rest: string, body?: object) => practice.head.post(`/gardens/${practice.gardenId}${rest}`, body)
const get = async <T>(rest: string): Promise<T> =>
  (await practice.head.get(`/gardens/${practice.gardenId}${rest}`)).body
const rule = async (id: string) => (await get<RuleView[]>('/rules')).find((r) => r.id === id)
const jobsOf = async (id: string) => (await get<SeasonView>('/season')).jobs.filter((j) => j.ruleId === id)

beforeAll(async () => {
  practice = await practiceWithGarden()
  await post('/schedule-runs')
  await workOutWaiting(practice)
})
afterAll(() => practice.stop())

describe('a rule of the garden’s own', () => {
  it('makes jobs in its window, is changed, and takes its jobs with it', async () => {
    const { id } = (await post('/rules', own)).body
    const kept = (await rule(id))!
    expect(kept).toMatchObject({ isOwn: true, isOn: true, own: { id, does: own.does } })
    const jobs = await jobsOf(id)
    expect(jobs.length).toBeGreaterThanOrEqual(kept.touches.length)
    const frost = (await get<GardenView>('')).climate!.lastFrost!.p50
    for (const j of jobs) {
      expect(j.window.latest).toBe(addDays(j.window.earliest, 40))
      const dayOfYear = Math.round(
        (Date.parse(j.window.earliest) - Date.parse(`${j.window.earliest.slice(0, 4)}-01-01`)) / 86_400_000,
      )
      expect(Math.abs(dayOfYear + 1 - (frost + 10))).toBeLessThanOrEqual(1)
      expect(j).toMatchObject({ cautions: ['Eye protection.'], tools: ['broom'] })
    }
    await post('/rules', { ...own, id, closes: { at: 'earliest', days: 20 } })
    expect((await jobsOf(id)).every((j) => j.window.latest === addDays(j.window.earliest, 20))).toBe(true)
    await post(`/rules/${id}`, { isOn: false })
    expect(await jobsOf(id)).toEqual([])
    expect((await post(`/rules/${id}/remove`)).status).toBe(200)
    expect(await rule(id)).toBeUndefined()
    expect((await post('/rules', { ...own, id })).status).toBe(404)
    // Shipped rules are switched off, not taken away.
    expect((await post('/rules/mulch-beds/remove')).status).toBe(404)
  })

  it('comes round on the weekdays of the month it says, with what is given by turns', async () => {
    const { everyDays: _, ...once } = own as typeof own & { everyDays?: number }
    const said = {
      ...once,
      monthDays: { weekday: 6, nths: [1, 3] },
      byTurns: ['sand', 'grit'],
      bestTo: { at: 'earliest', days: 80 },
      closes: { at: 'earliest', days: 90 },
    }
    const { id } = (await post('/rules', said)).body
    expect((await rule(id))!.sentence).toMatch(
      /on the first and third Saturday of the month, by turns sand and grit/,
    )
    const jobs = await jobsOf(id)
    expect(jobs.length).toBeGreaterThan(1)
    for (const j of jobs) expect(new Date(j.window.bestFrom).getUTCDay()).toBe(6)
    expect(new Set(jobs.map((j) => j.steps[1]))).toEqual(new Set(['This turn: sand.', 'This turn: grit.']))
    const twice = await post('/rules', { ...said, id, monthDays: { weekday: 6, nths: [1, 1] } })
    expect(twice.status).toBe(422)
    expect(JSON.stringify(twice.body)).toMatch(/each of them once/)
    await post(`/rules/${id}/remove`)
  })

  it('is refused whole where it does not say for which plants', async () => {
    const before = (await get<RuleView[]>('/rules')).length
    const bad = await post('/rules', { ...own, on: { what: 'plants', taxa: [], lifeForms: [] } })
    expect(bad.status).toBe(422)
    expect((await get<RuleView[]>('/rules')).length).toBe(before)
  })
})

describe('a wish for the colour of flowers', () => {
  it('makes work of the soil, begins with its test, and is refused of flowers that do not follow it', async () => {
    const { features } = await get<GardenView>('')
    const place = features.find((f) => f.kind === 'bed' && f.properties['ph'] === undefined)!
    const [x, y] = innerPoint(ringOf(place.geometry))
    const said = {
      tag: 'wished',
      taxonBotanical: 'Hydrangea macrophylla',
      placeId: place.id,
      count: 1,
      plantedOn: addDays(today, -900),
      source: 'bought',
      x,
      y,
    }
    const [plantingId] = (await post('/plantings', entering(said))).body.plantingIds
    const touched = async () =>
      (await get<RuleView[]>('/rules'))
        .filter((r) => r.touches.some((t) => t.id === plantingId) && /colour|blue|pink/.test(r.id))
        .map((r) => r.id)
    expect(await touched()).toEqual([])
    expect((await post('/plantings/amend', amending(plantingId, { colourWish: 'blue' }))).status).toBe(200)
    expect(await touched()).toEqual(['test-for-colour'])
    expect((await get<PlantingStory>(`/plantings/${plantingId}`)).planting.colourWish).toBe('blue')
    const refused = await post(
      '/plantings/amend',
      amending(plantingId, { taxonBotanical: 'Hydrangea paniculata', colourWish: 'blue' }),
    )
    expect([refused.status, refused.body.error]).toEqual([
      422,
      'The flowers of Hydrangea paniculata do not follow the soil: no colour can be wished of them.',
    ])
    expect((await post('/plantings/amend', amending(plantingId, { colourWish: null }))).status).toBe(200)
    expect(await touched()).toEqual([])
  })
})

describe('work at a person’s word', () => {
  it('is made of a rule that makes none by itself, once, and stays when care is worked out anew', async () => {
    const { touches, yearly } = (await rule('move-spring'))!
    expect(yearly).toBe(false)
    const subjectId = touches[0]!.id
    expect((await post('/rules/move-spring/jobs', { subjectId })).status).toBe(200)
    expect((await post('/rules/move-spring/jobs', { subjectId })).status).toBe(409)
    await post('/schedule-runs')
    await workOutWaiting(practice)
    const [job, ...more] = await jobsOf('move-spring')
    expect(more).toEqual([])
    expect(job!.plantingIds).toEqual([subjectId])
    expect(job!.window.latest >= today).toBe(true)
    const { gardenId } = practice
    expect((await post('/rules/move-spring/jobs', { subjectId: gardenId })).status).toBe(422)
  })

  it('is left out for once, and taken up again', async () => {
    const [job] = (await get<SeasonView>('/season')).jobs.filter((j) => j.ruleId === 'mulch-beds')
    expect((await post(`/jobs/${job!.id}/leave-out`, { leaveOut: true })).status).toBe(200)
    await post('/schedule-runs')
    await workOutWaiting(practice)
    const without = await get<SeasonView>('/season')
    expect(without.leftOut.map((j) => j.id)).toEqual([job!.id])
    expect(without.jobs.map((j) => j.id)).not.toContain(job!.id)
    expect((await post(`/jobs/${job!.id}/leave-out`, { leaveOut: false })).status).toBe(200)
    const again = await get<SeasonView>('/season')
    expect(again.leftOut).toEqual([])
    expect(again.jobs.find((j) => j.id === job!.id)).toMatchObject({ state: 'open' })
  })
})
