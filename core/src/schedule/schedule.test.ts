import fc from 'fast-check'
import { expect, it } from 'vitest'
import { addDays } from '../dates/index.ts'
import { placeJobs, workingDays, type SchedulableJob } from './index.ts'

const job = (id: string, from: string, to: string, more: Partial<SchedulableJob> = {}): SchedulableJob => ({
  id,
  minutes: 60,
  after: [],
  window: { earliest: from, bestFrom: from, bestTo: to, latest: to },
  ...more,
})

it('working days follow the week and its exceptions', () => {
  const pattern = {
    minutesByWeekday: [0, 0, 300, 0, 300, 0, 0],
    exceptions: { '2026-09-17': 0, '2026-09-18': 120 },
  }
  // 14 September 2026 is a Monday.
  expect(workingDays(pattern, '2026-09-14', '2026-09-22')).toEqual([
    { day: '2026-09-15', minutes: 300 },
    { day: '2026-09-18', minutes: 120 },
    { day: '2026-09-22', minutes: 300 },
  ])
})

it('takes the first best day with room, then the day nearest to the best', () => {
  const days = [
    { day: '2026-09-15', minutes: 60 },
    { day: '2026-09-22', minutes: 60 },
    { day: '2026-09-29', minutes: 60 },
  ]
  const window = {
    earliest: '2026-09-14',
    bestFrom: '2026-09-20',
    bestTo: '2026-09-25',
    latest: '2026-10-05',
  }
  const plan = placeJobs(
    [job('a', '', '', { window }), job('b', '', '', { window }), job('c', '', '', { window })],
    days,
  )
  expect(plan.placed).toEqual([
    { id: 'a', day: '2026-09-22', inBest: true },
    { id: 'b', day: '2026-09-29', inBest: false },
    { id: 'c', day: '2026-09-15', inBest: false },
  ])
})

it('a pinned job draws what it waits for near enough, though that had another day before', () => {
  const days = ['2027-03-24', '2027-03-31', '2027-04-07', '2027-04-14'].map((day) => ({ day, minutes: 240 }))
  const prepare = job('prepare', '2027-03-04', '2027-04-29', { keptOn: '2027-03-24' })
  const lift = job('lift', '2027-03-18', '2027-04-29', {
    after: [{ id: 'prepare', leastDays: 0, mostDays: 14 }],
  })
  const dayOf = (pinnedTo: string) =>
    Object.fromEntries(placeJobs([prepare, { ...lift, pinnedTo }], days).placed.map((p) => [p.id, p.day]))
  expect(dayOf('2027-04-07')).toEqual({ prepare: '2027-03-24', lift: '2027-04-07' })
  expect(dayOf('2027-04-14')).toEqual({ prepare: '2027-03-31', lift: '2027-04-14' })
})

it('keeps the day a job had, unless a person set another', () => {
  const days = ['2026-09-15', '2026-09-17', '2026-09-22'].map((day) => ({ day, minutes: 240 }))
  const kept = job('a', '2026-09-14', '2026-09-30', { keptOn: '2026-09-22' })
  expect(placeJobs([kept], days).placed[0]!.day).toBe('2026-09-22')
  expect(placeJobs([{ ...kept, pinnedTo: '2026-09-17' }], days).placed[0]!.day).toBe('2026-09-17')
})

it('says why a job has no day', () => {
  const days = [{ day: '2026-09-15', minutes: 45 }]
  const plan = placeJobs(
    [
      job('short', '2026-09-14', '2026-09-16'),
      job('none', '2026-10-14', '2026-10-16'),
      job('waits', '2026-09-14', '2026-12-01', { after: [{ id: 'short', leastDays: 1 }] }),
    ],
    days,
  )
  expect(plan.placed).toEqual([])
  expect(plan.unplaced.sort((a, b) => (a.id < b.id ? -1 : 1))).toEqual([
    { id: 'none', reason: 'no-working-day' },
    { id: 'short', reason: 'days-full', shortMinutes: 15 },
    { id: 'waits', reason: 'waits-for-unplaced' },
  ])
})

it('never over-books a day, leaves a window or breaks an order', () => {
  const arbitrary = fc.array(
    fc.record({
      start: fc.nat(40),
      length: fc.nat(30),
      minutes: fc.integer({ min: 10, max: 200 }),
      follows: fc.boolean(),
    }),
    { minLength: 1, maxLength: 25 },
  )
  fc.assert(
    fc.property(arbitrary, (specs) => {
      const jobs = specs.map((s, i) =>
        job(`j${i}`, addDays('2026-09-14', s.start), addDays('2026-09-14', s.start + s.length), {
          minutes: s.minutes,
          after: s.follows && i > 0 ? [{ id: `j${i - 1}`, leastDays: 1, mostDays: 20 }] : [],
        }),
      )
      const days = workingDays(
        { minutesByWeekday: [0, 240, 0, 240, 0, 120, 0], exceptions: {} },
        '2026-09-14',
        '2026-12-01',
      )
      const { placed, unplaced } = placeJobs(jobs, days)
      expect(placed.length + unplaced.length).toBe(jobs.length)
      const on = new Map(placed.map((p) => [p.id, p.day]))
      for (const d of days) {
        const load = jobs.filter((j) => on.get(j.id) === d.day).reduce((sum, j) => sum + j.minutes, 0)
        expect(load).toBeLessThanOrEqual(d.minutes)
      }
      for (const j of jobs) {
        const day = on.get(j.id)
        if (!day) continue
        expect(day >= j.window.earliest && day <= j.window.latest).toBe(true)
        for (const a of j.after) {
          expect(addDays(on.get(a.id)!, a.leastDays) <= day).toBe(true)
          expect(day <= addDays(on.get(a.id)!, a.mostDays!)).toBe(true)
        }
      }
    }),
    { seed: 3, numRuns: 200 },
  )
})
