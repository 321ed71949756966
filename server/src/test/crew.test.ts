import type { CrewView, SeasonView } from '@border/contract'
import { addDays, civilDate } from '@border/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { exampleFiles, practiceWithGarden, type TestPractice, workOutWaiting } from './practice.ts'

const today = civilDate(new Date(), 'Europe/London')
const WEEK = [0, 240, 240, 240, 240, 240, 0]
let practice: TestPractice
let other: string
const post = (rest: string, body?: object, garden = practice.gardenId) =>
  practice.head.post(`/gardens/${garden}${rest}`, body)
const get = async <T>(rest: string, garden = practice.gardenId): Promise<T> =>
  (await practice.head.get(`/gardens/${garden}${rest}`)).body
const crewOf = (garden?: string) => get<CrewView>('/crew', garden)
const season = (garden?: string) => get<SeasonView>('/season', garden)

async function scheduleAnew(garden = practice.gardenId): Promise<void> {
  const { runId } = (await post('/schedule-runs', {}, garden)).body
  await workOutWaiting(practice)
  expect((await post(`/schedule-runs/${runId}`, { take: true }, garden)).status).toBe(200)
}

/** Minutes of all given seasons on each day. */
function usedIn(...seasons: SeasonView[]): Map<string, number> {
  const used = new Map<string, number>()
  for (const { jobs } of seasons)
    for (const p of jobs.flatMap((j) => (j.state === 'open' ? j.parts : [])))
      used.set(p.day, (used.get(p.day) ?? 0) + p.minutes)
  return used
}

beforeAll(async () => {
  practice = await practiceWithGarden()
  const plan = exampleFiles.plan.replace(/"name": "Walled Court"/, '"name": "Second court"')
  other = (await practice.head.post('/imports', { ...exampleFiles, plan })).body.gardenId
  expect(other).toBeDefined()
  await practice.work(WEEK)
  await scheduleAnew()
})
afterAll(() => practice.stop())

describe('a crew', () => {
  it('gives work only to those who can do it, and says so where nobody can', async () => {
    const [gardener] = (await crewOf()).people
    await post('/crew/people', { ...gardener, skills: [] })
    const pruning = (await season()).jobs.filter((j) => j.kind === 'prune' && j.state === 'open')
    expect(pruning.length).toBeGreaterThan(0)
    for (const j of pruning) expect(j.unplaced).toMatch(/^Nobody with the skill/)
    await post('/crew/people', { name: 'Pruner', skills: ['pruning'], minutesByWeekday: WEEK })
    expect((await season()).jobs.some((j) => j.kind === 'prune' && j.plannedOn)).toBe(true)
  })

  it('has nothing to do while all are away, and the others’ days while one is ill', async () => {
    const first = (await season()).jobs.map((j) => j.plannedOn ?? '9').sort()[0]!
    const to = addDays(first, 20)
    const [ill] = (await crewOf()).people
    await post('/crew/absences', { personId: ill!.id, from: first, to, reason: 'ill' })
    const days = (await season()).workingDays.filter((d) => d.day >= first && d.day <= to)
    expect(days.every((d) => d.minutes === 240 && d.people.join() === 'Pruner')).toBe(true)
    await post('/crew/absences', { personId: null, from: first, to })
    const planned = (await season()).jobs.flatMap((j) => j.parts.map((p) => p.day))
    expect(planned.filter((d) => d >= first && d <= to)).toEqual([])
    for (const a of (await crewOf()).absences) await post(`/crew/absences/${a.id}/withdraw`)
    expect((await crewOf()).absences).toEqual([])
    expect((await post('/crew/absences', { personId: null, from: to, to: first })).status).toBe(422)
  })

  it('shared by two gardens works no more than its hours, the way included', async () => {
    await post('/crew', { name: 'Both', travelMinutes: 30 })
    expect((await post('/crew/share', { withGardenId: practice.gardenId }, other)).status).toBe(200)
    await post('/crew', { name: 'Both', travelMinutes: 20 }, other)
    expect((await crewOf(other)).gardens.map((g) => g.travelMinutes)).toEqual([30, 20])
    await scheduleAnew(other)
    const [here, there] = [await season(), await season(other)]
    expect(there.jobs.some((j) => j.plannedOn)).toBe(true)
    for (const { day, minutes, people } of here.workingDays) {
      const [a, b] = [usedIn(here).get(day) ?? 0, usedIn(there).get(day) ?? 0]
      const going = ((a > 0 ? 30 : 0) + (b > 0 ? 20 : 0)) * people.length
      expect(a + b + going, day).toBeLessThanOrEqual(minutes)
    }
    const busy = here.workingDays.find((d) => usedIn(there).has(d.day))!
    expect(busy.elsewhere).toBeGreaterThanOrEqual(usedIn(there).get(busy.day)! + 20 * busy.people.length)
  })

  it('is seen only as far as one belongs to its gardens, and changed by head gardeners', async () => {
    const crew = await practice.join('hand', 'crew')
    const seen: CrewView = (await crew.get(`/gardens/${practice.gardenId}/crew`)).body
    expect(seen.gardens.map((g) => g.id)).toEqual([practice.gardenId])
    expect(seen.others).toBe(1)
    const day = { day: today, minutes: 0 }
    expect((await crew.post(`/gardens/${practice.gardenId}/crew/days`, day)).status).toBe(403)
    // Nobody takes the crew of a garden they do not belong to.
    const stranger = await practice.join('stranger', null)
    await practice.db('memberships').insert({
      person_id: (await practice.db('people').where({ name: 'stranger' }).first('id')).id,
      garden_id: other,
      role: 'head',
    })
    const share = { withGardenId: practice.gardenId }
    expect((await stranger.post(`/gardens/${other}/crew/share`, share)).status).toBe(404)
    expect((await post('/crew/share', { withGardenId: null }, other)).status).toBe(200)
    expect((await crewOf(other)).gardens.map((g) => g.id)).toEqual([other])
  })
})
