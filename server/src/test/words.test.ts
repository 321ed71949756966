import type { AssessmentView, BulkAnswer, GardenView, SeasonView, SuccessionView } from '@border/contract'
import { addDays, civilDate } from '@border/core'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { practiceWithGarden, type TestPractice } from './practice.ts'
import { drawing, entering } from './edits.ts'

const today = civilDate(new Date(), 'Europe/London')
let practice: TestPractice
const post = (rest: string, body?: object) => practice.head.post(`/gardens/${practice.gardenId}${rest}`, body)
const get = async <T>(rest: string): Promise<T> =>
  (await practice.head.get(`/gardens/${practice.gardenId}${rest}`)).body

beforeAll(async () => {
  practice = await practiceWithGarden()
})
afterAll(() => practice.stop())

describe('one word on many proposals', () => {
  it('is kept for each that can be, and says why of the rest; nothing is promised twice', async () => {
    const { assessments } = await get<AssessmentView>(`/assessment?on=${today}`)
    const open = assessments.filter((a) => a.verdict.action !== 'keep')
    expect(open.length).toBeGreaterThan(1)
    const stranger = practice.practiceId
    const plantingIds = [...open.map((a) => a.plantingId), stranger]
    const word = { choice: 'accept' as const }
    const answer: BulkAnswer = (await post('/decisions/many', { plantingIds, on: today, word })).body
    expect([...answer.kept, ...answer.refused.map((r) => r.plantingId)].sort()).toEqual(plantingIds.sort())
    expect(answer.refused.map((r) => r.plantingId)).toContain(stranger)
    expect(answer.kept.length).toBeGreaterThan(0)
    const { decisions } = await get<AssessmentView>(`/assessment?on=${today}`)
    expect(decisions.map((d) => d.plantingId).sort()).toEqual([...answer.kept].sort())
    const moves = (await get<SeasonView>('/season')).jobs.filter((j) => j.kind === 'move')
    expect(new Set(moves.map((j) => j.plantingIds[0])).size).toBe(moves.length)
  })

  it('waits until a day, and refuses one that has passed', async () => {
    const { assessments } = await get<AssessmentView>(`/assessment?on=${today}`)
    const plantingIds = assessments.slice(0, 3).map((a) => a.plantingId)
    const past = { choice: 'wait' as const, until: addDays(today, -1) }
    const bad: BulkAnswer = (await post('/decisions/many', { plantingIds, on: today, word: past })).body
    expect(bad.kept).toEqual([])
    expect(bad.refused[0]!.why).toContain('must lie ahead')
    const until = addDays(today, 90)
    await post('/decisions/many', { plantingIds, on: today, word: { choice: 'wait', until } })
    const { decisions } = await get<AssessmentView>(`/assessment?on=${today}`)
    expect(decisions.filter((d) => d.waitUntil === until)).toHaveLength(3)
  })
})

describe('what shades a planting', () => {
  it('is opened by a cut that was worked out, and is a job on the tree once that is accepted', async () => {
    const bed = {
      type: 'Polygon',
      coordinates: [
        [
          [60, 60],
          [66, 60],
          [66, 64],
          [60, 64],
          [60, 60],
        ],
      ],
    }
    const placeId = randomUUID()
    const made = await post(
      '/plan/edits',
      drawing(
        { feature: { type: 'Feature', geometry: bed, properties: { kind: 'bed', name: 'Under the lime' } } },
        placeId,
      ),
    )
    const tree = {
      kind: 'tree',
      name: 'Lime',
      heightM: 12,
      crownRadiusM: 6,
      crownShape: 'column',
      clearStemM: 0.5,
      transmissionInLeaf: 0.05,
    }
    const planted = await post(
      '/plan/edits',
      drawing({
        feature: { type: 'Feature', geometry: { type: 'Point', coordinates: [63, 59] }, properties: tree },
      }),
    )
    expect([made.status, planted.status]).toEqual([200, 200])
    const beneath = {
      tag: 'beneath',
      taxonBotanical: 'Helenium autumnale',
      placeId,
      count: 1,
      plantedOn: addDays(today, -1500),
      source: 'bought',
      x: 63,
      y: 62,
    }
    const [plantingId] = (await post('/plantings', entering(beneath))).body.plantingIds
    const { assessments } = await get<AssessmentView>(`/assessment?on=${today}`)
    const { verdict } = assessments.find((a) => a.plantingId === plantingId)!
    const remedy = verdict.remedies.find((r) => r.action === 'limb up')!
    expect(remedy).toMatchObject({ subject: 'Lime' })
    expect(remedy.says).toMatch(/Lime shades it/)
    const word = { on: today, choice: 'otherwise', action: 'limb up', reason: 'It shades the path too.' }
    expect((await post('/decisions', { plantingId, ...word })).status).toBe(200)
    const job = (await get<SeasonView>('/season')).jobs.find((j) => j.title === 'Limb up: Lime')!
    expect(job).toMatchObject({ kind: 'prune', window: remedy.window })
    expect(job.steps[0]).toBe(remedy.does)
  })
})

describe('a successor', () => {
  const proposals = () => get<SuccessionView[]>('/successions')

  it('is proposed for a failing tree, planted at a word, and proposed again when that is taken back', async () => {
    expect(await proposals()).toEqual([])
    const { features } = await get<GardenView>('')
    const tree = features.find((f) => f.kind === 'tree')!
    const feature = {
      type: 'Feature',
      geometry: { type: 'Point', coordinates: [30, 30] },
      properties: {
        ...tree.properties,
        kind: 'tree',
        name: 'Old ash',
        heightM: 8,
        crownRadiusM: 3,
        health: 'failing',
      },
    }
    expect((await post('/plan/edits', drawing({ feature }))).status).toBe(200)
    const [proposal] = await proposals()
    expect(proposal).toMatchObject({ name: 'Old ash', word: null })
    const { subjectId, choices } = proposal!
    const { botanical } = choices[0]!
    expect((await post(`/successions/${subjectId}`, { state: 'planned', botanical })).status).toBe(200)
    expect((await post(`/successions/${subjectId}`, { state: 'dismissed' })).status).toBe(409)
    const word = (await proposals())[0]!.word!
    expect(word).toMatchObject({ state: 'planned', botanical })
    const job = async () => (await get<SeasonView>('/season')).jobs.find((j) => j.id === word.jobId)
    expect((await job())!.title).toBe(`Plant ${botanical} beside Old ash, as its successor`)
    await post(`/successions/${subjectId}`, { state: 'open' })
    expect(await job()).toBeUndefined()
    expect((await proposals())[0]!.word).toBeNull()
    await post(`/successions/${subjectId}`, { state: 'dismissed' })
    expect((await proposals())[0]!.word).toMatchObject({ state: 'dismissed' })
  })
})
