import type { JobView } from '@border/contract'
import { expect, it } from 'vitest'
import { materialsOf, workOf } from './dayWork.ts'

const job = (id: string, more: Partial<JobView>): JobView =>
  ({
    id,
    title: id,
    state: 'open',
    minutes: 60,
    parts: [{ day: '2026-10-06', minutes: more.minutes ?? 60 }],
    after: [],
    materials: [],
    placeId: null,
    ...more,
  }) as unknown as JobView
const order = new Map([
  ['north', 0],
  ['south', 1],
])

it('a day’s work goes from place to place, and what comes first comes first', () => {
  const jobs = [
    job('lift', { placeId: 'north', after: ['prepare'] }),
    job('prepare', { placeId: 'south' }),
    job('weed', { placeId: 'north' }),
    job('other day', { parts: [{ day: '2026-10-07', minutes: 60 }] }),
    job('done', { state: 'done' }),
  ]
  expect(workOf(jobs, '2026-10-06', order).map((s) => s.job.id)).toEqual(['weed', 'prepare', 'lift'])
})

it('its materials are added up, those of a job in parts by what falls on the day', () => {
  const compost = { name: 'garden compost', amount: 300, unit: 'l' }
  const work = workOf(
    [
      job('mulch', { minutes: 180, materials: [compost], parts: [{ day: '2026-10-06', minutes: 90 }] }),
      job('prepare', {
        materials: [
          { ...compost, amount: 41 },
          { name: 'feed', amount: 0.25, unit: 'kg' },
        ],
      }),
    ],
    '2026-10-06',
    order,
  )
  expect(materialsOf(work)).toEqual([
    { name: 'feed', amount: 0.3, unit: 'kg' },
    { name: 'garden compost', amount: 191, unit: 'l' },
  ])
})
