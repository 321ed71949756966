import type { BenchView, GardenView, PlantingStory, RuleView, SeasonView } from '@border/contract'
import { civilDate } from '@border/core'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { practiceWithGarden, type TestPractice } from './practice.ts'
import { entering } from './edits.ts'

const today = civilDate(new Date(), 'Europe/London')
let practice: TestPractice
const post = (rest: string, body?: object) => practice.head.post(`/gardens/${practice.gardenId}${rest}`, body)
const get = async <T>(rest: string): Promise<T> =>
  (await practice.head.get(`/gardens/${practice.gardenId}${rest}`)).body
const bench = () => get<BenchView[]>('/bench')

beforeAll(async () => {
  practice = await practiceWithGarden()
})
afterAll(() => practice.stop())

it('what a division leaves over waits on the bench, is planted in part, and keeps its line', async () => {
  const rule = (await get<RuleView[]>('/rules')).find(
    (r) => r.operation === 'divide' && r.touches.length > 0 && r.next,
  )!
  const plantingId = rule.touches[0]!.id
  expect((await post(`/rules/${rule.id}/jobs`, { subjectId: plantingId })).status).toBe(200)
  const job = (await get<SeasonView>('/season')).jobs.find(
    (j) => j.ruleId === rule.id && j.plantingIds.includes(plantingId),
  )!
  const done = { on: today, minutes: 40, leftOver: [{ plantingId, count: 5 }] }
  const other = (await get<GardenView>('')).plantings.find((p) => p.id !== plantingId)!
  const wrong = { ...done, leftOver: [{ plantingId: other.id, count: 1 }] }
  expect((await post(`/jobs/${job.id}/done`, wrong)).status).toBe(422)
  expect(await bench()).toEqual([])
  expect((await post(`/jobs/${job.id}/done`, done)).status).toBe(200)
  const [waiting] = await bench()
  const parent = (await get<GardenView>('')).plantings.find((p) => p.id === plantingId)!
  expect(waiting).toMatchObject({ count: 5, fromTag: parent.tag, botanical: parent.taxon.botanical })

  // Taken back, it was never there; recorded again, it is there once.
  expect((await post(`/jobs/${job.id}/take-back`)).status).toBe(200)
  expect(await bench()).toEqual([])
  await post(`/jobs/${job.id}/done`, done)
  const [again] = await bench()
  const bed = (await get<GardenView>('')).features.find((f) => f.name === 'North bed')!
  const off = {
    tag: 'NEW-1',
    taxonBotanical: waiting!.botanical,
    placeId: bed.id,
    count: 3,
    plantedOn: today,
    source: 'division',
    x: 8.6,
    y: 22.9,
    benchId: again!.id,
  }
  const planted = await post('/plantings', entering(off))
  expect(planted.status).toBe(200)
  const { planting } = await get<PlantingStory>(`/plantings/${planted.body.plantingIds[0]}`)
  expect(planting.fromTag).toBe(parent.tag)
  const [rest, ...more] = await bench()
  expect([rest!.count, more]).toEqual([2, []])
  // Some of it stands now: the record can no longer be taken back.
  expect((await post(`/jobs/${job.id}/take-back`)).status).toBe(409)
  expect((await post(`/bench/${rest!.id}/gone`, { on: today, gone: 'given away' })).status).toBe(200)
  expect((await post(`/bench/${rest!.id}/gone`, { on: today, gone: 'given away' })).status).toBe(404)
  expect(await bench()).toEqual([])
})
