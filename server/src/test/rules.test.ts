import type { GardenView, RuleView, SeasonView } from '@border/contract'
import { addDays, civilDate } from '@border/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ownRule as own } from './validWrites.ts'
import { practiceWithGarden, type TestPractice, workOutWaiting } from './practice.ts'

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

  it('is refused whole where it does not say for which plants', async () => {
    const before = (await get<RuleView[]>('/rules')).length
    const bad = await post('/rules', { ...own, on: { what: 'plants', taxa: [], lifeForms: [] } })
    expect(bad.status).toBe(422)
    expect((await get<RuleView[]>('/rules')).length).toBe(before)
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
