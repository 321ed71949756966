import type { GardenView, PlantingStory, SeasonView } from '@border/contract'
import { addDays } from '@border/core'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { look, settle } from './asked.ts'
import { practiceWithGarden, shortRecord, type TestPractice } from './practice.ts'

const TODAY = '2026-09-15'
let practice: TestPractice
beforeAll(async () => {
  practice = await practiceWithGarden(shortRecord, () => Date.parse(`${TODAY}T10:00:00Z`))
  await practice.work([0, 240, 240, 240, 240, 240, 0])
  await settle(practice)
})
afterAll(() => practice.stop())

const post = (rest: string, body: object = {}) =>
  practice.head.post(`/gardens/${practice.gardenId}${rest}`, body)
const season = () => look<SeasonView>(practice, '/season')
const plantings = async () => (await look<GardenView>(practice, '')).plantings
const past = (more: object) => ({ id: randomUUID(), on: '2025-04-10', operation: 'divide', ...more })

describe('past work', () => {
  it('counts as done: what was divided last year is not due to be divided, until that is taken back', async () => {
    const dividing = async () =>
      (await season()).jobs.filter((j) => j.kind === 'divide' && j.state === 'open')
    const [due] = await dividing()
    const [plantingId] = due!.plantingIds
    const { placeId } = (await plantings()).find((p) => p.id === plantingId)!
    const isDue = async () => (await dividing()).some((j) => j.plantingIds.includes(plantingId!))
    const work = past({ placeId, plantingIds: [plantingId], note: 'Half went to next door.' })
    expect((await post('/past-work', work)).status).toBe(200)
    await settle(practice)
    expect(await isDue()).toBe(false)

    // Nobody said how long it took, and nothing says so.
    const job = (await season()).jobs.find((j) => j.id === work.id)!
    expect(job).toMatchObject({ isPast: true, state: 'done', plannedOn: null, done: { minutes: null } })
    const { story } = await look<PlantingStory>(practice, `/plantings/${plantingId}`)
    expect(story.find((e) => e.kind === 'job' && e.on === '2025-04-10')!.says).toMatch(
      /^Divide .*: done\. Half went to next door\.$/,
    )
    expect((await post(`/jobs/${work.id}/take-back`)).status).toBe(200)
    await settle(practice)
    expect(await isDue()).toBe(true)
    expect((await season()).jobs.some((j) => j.id === work.id)).toBe(false)
  })

  it('is kept once, and done to a whole place too', async () => {
    const { placeId } = (await plantings())[0]!
    const work = past({ operation: 'mulch', placeId, minutes: 90 })
    for (let i = 0; i < 2; i++) expect((await post('/past-work', work)).status).toBe(200)
    const kept = (await season()).jobs.filter((j) => j.kind === 'mulch' && j.done?.on === work.on)
    expect(kept.map((j) => [j.id, j.plantingIds, j.done!.minutes])).toEqual([[work.id, [], 90]])
  })

  it('that cannot have been is refused in words, and what is on the list is recorded there', async () => {
    const [p] = await plantings()
    const { id, placeId, plantedOn } = p!
    const open = (await season()).jobs.find(
      (j) =>
        j.state === 'open' &&
        j.plantingIds.length > 0 &&
        j.window.earliest <= TODAY &&
        j.window.latest >= TODAY &&
        j.kind !== 'aftercare',
    )!
    const bad: readonly [object, number, RegExp][] = [
      [past({ placeId, plantingIds: [id], on: addDays(TODAY, 2) }), 422, /lies ahead/],
      [past({ placeId, plantingIds: [id], on: addDays(plantedOn, -3) }), 422, /was planted on/],
      [past({ placeId: randomUUID(), plantingIds: [] }), 404, /place/],
      [past({ placeId, plantingIds: [randomUUID()] }), 404, /plantings/],
      [past({ placeId, operation: 'move' }), 422, /operation/],
      [
        past({ placeId: open.placeId, operation: open.kind, plantingIds: open.plantingIds, on: TODAY }),
        409,
        /season’s list/,
      ],
    ]
    const before = await season()
    for (const [body, status, why] of bad) {
      const answer = await post('/past-work', body)
      expect([answer.status, JSON.stringify(answer.body)]).toEqual([status, expect.stringMatching(why)])
    }
    expect(await season()).toEqual(before)
  })
})
