import type { AssessmentView, BulkAnswer, GardenView, SeasonView, SuccessionView } from '@border/contract'
import { addDays, civilDate } from '@border/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { practiceWithGarden, type TestPractice } from './practice.ts'

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
    expect((await post('/features', { feature })).status).toBe(200)
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
