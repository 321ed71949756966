import type {
  AssessmentView,
  GardenView,
  PlantingStory,
  RecordView,
  SeasonView,
  WalkView,
} from '@border/contract'
import { UNKNOWN } from '@border/core'
import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { look, settle, write } from './asked.ts'
import { amending, entering } from './edits.ts'
import { practiceWithGarden, shortRecord, type TestPractice } from './practice.ts'

let practice: TestPractice
beforeAll(async () => {
  practice = await practiceWithGarden(shortRecord, () => Date.parse('2026-09-15T10:00:00Z'))
})
afterAll(() => practice.stop())

describe('a plant that nobody knows', () => {
  const enter = async (more: object = {}) => {
    const { features } = await look<GardenView>(practice, '')
    const bed = features.find((f) => f.name === 'North bed')!
    const planting = {
      tag: 'Q-1',
      taxonBotanical: UNKNOWN.botanical,
      placeId: bed.id,
      count: 3,
      plantedOn: '2020-05-01',
      plantedKnown: 'before',
      source: 'bought',
      x: 4,
      y: 22.4,
      ...more,
    }
    return (await write<{ plantingIds: string[] }>(practice, '/plantings', entering(planting)))
      .plantingIds[0]!
  }

  it('grows, has its photo and its ground, and nothing is said of it until it is named', async () => {
    const id = await enter()
    const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#385' } })
      .jpeg()
      .toBuffer()
    const photo = { id: randomUUID(), on: '2026-09-10', at: '2026-09-10T09:00:00Z', plantingId: id }
    await practice.head.post(`/gardens/${practice.gardenId}/photos`, photo, { file: picture })
    await settle(practice)

    const growing = async () => (await look<GardenView>(practice, '')).plantings.find((p) => p.id === id)!
    expect(await growing()).toMatchObject({ tag: 'Q-1', taxon: UNKNOWN, livingCount: 3 })
    const told = async () => {
      const { assessments } = await look<AssessmentView>(practice, '/assessment')
      const { stays } = await look<RecordView>(practice, '/record')
      const { places } = await look<WalkView>(practice, '/walk')
      const { jobs } = await look<SeasonView>(practice, '/season')
      return {
        judged: assessments.some((a) => a.plantingId === id),
        compared: stays.some((s) => s.plantingId === id),
        walked: places.some((p) => p.plantings.some((x) => x.id === id)),
        worked: jobs.some((j) => j.plantingIds.includes(id)),
      }
    }
    expect(await told()).toEqual({ judged: false, compared: false, walked: false, worked: false })
    expect(JSON.stringify(await practice.head.get('/taxa').then((a) => a.body))).not.toContain(
      UNKNOWN.botanical,
    )

    // Named, it is a planting like any other, with the same photo and the same day.
    await write(practice, '/plantings/amend', amending(id, { taxonBotanical: 'Hosta sieboldiana' }))
    await settle(practice)
    expect(await told()).toMatchObject({ judged: true, compared: true, walked: true })
    const story = await look<PlantingStory>(practice, `/plantings/${id}`)
    expect(story.photos.map((p) => p.id)).toEqual([photo.id])
    expect(story.planting).toMatchObject({ plantedKnown: 'before', plantedOn: '2020-05-01' })
    await write(practice, '/plantings/withdraw', { plantingIds: [id] })
  })

  it('stands on its ground: what was proposed there is proposed elsewhere', async () => {
    const proposed = async () =>
      (await look<AssessmentView>(practice, '/assessment')).assessments.flatMap((a) => a.verdict.spots)
    const inBed = (await look<GardenView>(practice, '')).features
      .filter((f) => f.kind === 'bed')
      .map((f) => f.id)
    const best = (await proposed()).find((s) => inBed.includes(s.placeId))!
    const id = await enter({
      tag: 'Q-2',
      placeId: best.placeId,
      x: best.x,
      y: best.y,
      count: 1,
      radiusM: 0.5,
    })
    const after = await proposed()
    expect(after.length).toBeGreaterThan(0)
    for (const s of after)
      if (s.placeId === best.placeId) expect(Math.hypot(s.x - best.x, s.y - best.y)).toBeGreaterThan(0.5)
    await write(practice, '/plantings/withdraw', { plantingIds: [id] })
    expect(await proposed()).toContainEqual(best)
  })

  it('cannot be made a kind in the library', async () => {
    const { status, body } = await practice.head.post('/taxa', { taxon: UNKNOWN })
    expect([status, body.error]).toEqual([409, expect.stringMatching(/nobody has named/)])
  })
})
