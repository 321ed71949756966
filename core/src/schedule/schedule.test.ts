import { describe, expect, it } from 'vitest'
import { provedOptimum } from '../../bench/oracle.ts'
import { graphExcess } from '../../verify/plan.ts'
import { addDays, type IsoDate } from '../dates/index.ts'
import {
  scheduleCosts,
  scheduleJobs,
  RESCHEDULE_ROUNDS,
  whyHere,
  type ScheduleJob,
  type ScheduleProblem,
  type Schedule,
} from './index.ts'
import { simulatedSeason } from '../../simulated/index.ts'
import { counted, requireSound } from './test/sound.ts'

const season = (seed: number, jobs = 60, days = 120): ScheduleProblem =>
  simulatedSeason({ seed, jobs, gardens: 3, days, from: '2026-02-01' })
const quick = { seed: 1, iterations: 2000 }

describe('the season plan', () => {
  it.each([1, 2, 3])('keeps every rule and costs what it says (season %s)', (seed) => {
    const problem = season(seed)
    const plan = scheduleJobs(problem, quick)
    requireSound(problem, plan)
    expect(plan.cost.total).toBe(counted(problem, plan))
  })

  it('comes within 1 % of the proved optimum of small seasons', async () => {
    let found = 0
    let proved = 0
    for (const seed of [11, 12]) {
      const problem = simulatedSeason({ seed, jobs: 14, gardens: 2, days: 45, from: '2026-03-01' })
      const optimum = await provedOptimum(problem)
      const plan = scheduleJobs(problem, { seed: 1, iterations: 4000 })
      expect(plan.cost.total).toBeGreaterThanOrEqual(optimum.cost * (1 - 0.001))
      found += plan.cost.total
      proved += optimum.cost
    }
    expect(found / proved).toBeLessThanOrEqual(1.01)
  })

  it('is the same for the same input, in whatever order it comes', () => {
    const problem = season(4)
    const plan = scheduleJobs(problem, quick)
    expect(scheduleJobs(problem, quick)).toEqual(plan)
    const turned = { ...problem, jobs: [...problem.jobs].reverse(), shifts: [...problem.shifts].reverse() }
    expect(scheduleJobs(turned, quick)).toEqual(plan)
  })

  it('moves little when a day is lost, says why, and leaves nothing on that day', () => {
    const problem = season(5, 80)
    const plan = scheduleJobs(problem, quick)
    const at = new Map(plan.placed.map((p) => [p.id, p.parts.map((x) => x.day)]))
    const busiest = [...plan.load].sort((a, b) => b.used - a.used)[0]!.day
    const onIt = plan.placed.filter((p) => p.parts.some((x) => x.day === busiest)).length
    const again: ScheduleProblem = {
      ...problem,
      shifts: problem.shifts.filter((s) => s.day !== busiest),
      jobs: problem.jobs.map((j) => ({ ...j, keptOn: at.get(j.id) })),
    }
    const rescheduled = scheduleJobs(again, { seed: 1, iterations: RESCHEDULE_ROUNDS })
    requireSound(again, rescheduled)
    expect(rescheduled.moved.length).toBeGreaterThanOrEqual(onIt)
    expect(rescheduled.moved.length).toBeLessThanOrEqual(onIt + 6)
    for (const m of rescheduled.moved) expect(m.says).toMatch(/\.$/)
    expect(rescheduled.moved.find((m) => m.from === busiest)!.says).toContain('no longer a working day')
  })

  const job = (id: string, more: Partial<ScheduleJob> = {}): ScheduleJob => ({
    id,
    gardenId: 'g',
    operation: 'prune',
    window: { earliest: '2026-03-02', bestFrom: '2026-03-09', bestTo: '2026-03-13', latest: '2026-03-20' },
    minutes: 100,
    weather: 'cut',
    after: [],
    ...more,
  })
  const shift = (
    day: IsoDate,
    minutes = 120,
    skills: ScheduleProblem['shifts'][0]['people'][0]['skills'] = [],
  ) => ({
    id: day,
    day,
    people: [{ id: 'p', minutes, skills }],
  })
  const small = (jobs: ScheduleJob[], more: Partial<ScheduleProblem> = {}): ScheduleProblem => ({
    gardens: [{ id: 'g', travelMinutes: 0 }],
    shifts: ['2026-03-03', '2026-03-10', '2026-03-17'].map((d) => shift(d)),
    jobs,
    unsuitable: {},
    ...more,
  })
  const dayOf = (plan: Schedule, id: string) => plan.placed.find((p) => p.id === id)?.parts[0]!.day

  it('keeps a person’s day even where others must give way', () => {
    const plan = scheduleJobs(small([job('a'), job('b', { pinnedTo: '2026-03-10' }), job('c')]), quick)
    expect(dayOf(plan, 'b')).toBe('2026-03-10')
    expect([dayOf(plan, 'a'), dayOf(plan, 'c')].sort()).toEqual(['2026-03-03', '2026-03-17'])
  })

  it('names what does not fit, by how much, what it costs and when its next chance is', () => {
    const jobs = ['a', 'b', 'c', 'd'].map((id) => job(id, { nextChance: '2027-03-01' }))
    const plan = scheduleJobs(small(jobs), quick)
    expect(plan.unplaced).toMatchObject([{ reason: 'days-full', shortMinutes: 80, nextChance: '2027-03-01' }])
    expect(plan.unplaced[0]!.cost).toBe(scheduleCosts.unplaced.prune)
    const skilled = scheduleJobs(small([job('a', { skill: 'pruning' })]), quick)
    expect(skilled.unplaced[0]!.reason).toBe('no-skill')
    const outside = scheduleJobs(small([job('a')], { shifts: [shift('2026-04-20')] }), quick)
    expect(outside.unplaced[0]!.reason).toBe('no-working-day')
  })

  it('puts weather before the middle of a window, and splits what is longer than a day', () => {
    const wet = scheduleJobs(small([job('a')], { unsuitable: { cut: { '2026-03-10': 1 } } }), quick)
    expect(dayOf(wet, 'a')).toBe('2026-03-17')
    const [long] = scheduleJobs(small([job('a', { minutes: 300 })]), quick).placed
    expect(long!.parts.map((p) => p.minutes)).toEqual([100, 100, 100])
  })

  it('of jobs that wait for one another in whatever way comes to the least cost there is, or next to it', () => {
    const excess = Array.from({ length: 10 }, (_, i) => graphExcess(41 + i, { seed: 1, iterations: 2000 }))
    for (const { cost, least } of excess) expect(cost).toBeGreaterThanOrEqual(least)
    expect(excess.filter((e) => e.cost === e.least).length).toBeGreaterThanOrEqual(9)
    expect(excess.reduce((sum, e) => sum + e.excess, 0) / excess.length).toBeLessThan(0.001)
  })

  it('does a job whole or not at all, once for its price, and leaves the room to others', () => {
    // Two of its three parts would find a day, and keep the other job off it.
    const jobs = [job('long', { minutes: 330, worth: 0.3 }), job('short', { minutes: 110 })]
    const shifts = [shift('2026-03-10', 115), shift('2026-03-12', 115)]
    const plan = scheduleJobs(small(jobs, { shifts }), quick)
    expect(plan.placed.map((p) => p.id)).toEqual(['short'])
    expect(plan.unplaced).toMatchObject([{ id: 'long', reason: 'days-full' }])
    expect(plan.cost.unplaced).toBe(Math.round(0.3 * scheduleCosts.unplaced.prune))
    expect(plan.load.reduce((sum, l) => sum + l.used, 0)).toBe(110)
  })

  it('splits a job by the days that it can stand on, not by longer ones elsewhere in the season', () => {
    const shifts = [
      ...['2026-03-09', '2026-03-10', '2026-03-11', '2026-03-12'].map((d) => shift(d, 60)),
      shift('2026-06-01', 480),
    ]
    const [placed] = scheduleJobs(small([job('a', { minutes: 170 })], { shifts }), quick).placed
    expect(placed!.parts.map((p) => p.minutes)).toEqual([57, 57, 56])
  })

  it('keeps a day that a person set outside its window, and counts what that costs', () => {
    const pinned = job('a', { pinnedTo: '2026-03-24' })
    const plan = scheduleJobs(small([pinned], { shifts: [shift('2026-03-10'), shift('2026-03-24')] }), quick)
    expect(dayOf(plan, 'a')).toBe('2026-03-24')
    // Eleven days after its best weeks.
    expect(plan.cost.days).toBe(11 * scheduleCosts.rate.prune)
    const why = whyHere(small([pinned], { shifts: [shift('2026-03-10'), shift('2026-03-24')] }), plan, 'a')
    expect(why.chosen).toMatchObject({
      day: '2026-03-24',
      cost: 11 * scheduleCosts.rate.prune + scheduleCosts.visit,
    })
    expect(why.runnerUp!.day).toBe('2026-03-10')
    const closed = scheduleJobs(small([pinned], { shifts: [shift('2026-03-10')] }), quick)
    expect(closed.unplaced[0]!.reason).toBe('no-working-day')
  })

  it('begins a job on the short day that a person set, with as much as that day has room for', () => {
    const pinned = job('a', { minutes: 300, pinnedTo: '2026-03-10' })
    const shifts = [
      shift('2026-03-10', 60),
      ...['2026-03-12', '2026-03-16', '2026-03-20'].map((d) => shift(d, 480)),
    ]
    const partsOf = (problem: ScheduleProblem) => scheduleJobs(problem, quick).placed[0]!.parts
    expect(partsOf(small([pinned], { shifts })).map((p) => p.minutes)).toEqual([60, 120, 120])
    expect(partsOf(small([pinned], { shifts }))[0]!.day).toBe('2026-03-10')
    // The way there is taken from the day.
    const far = small([pinned], { shifts, gardens: [{ id: 'g', travelMinutes: 20 }] })
    expect(partsOf(far).map((p) => p.minutes)).toEqual([40, 130, 130])
    // An hour and a bit is soon done after it; and where an even part fits the day, parts stay even.
    const short = job('a', { minutes: 100, pinnedTo: '2026-03-10' })
    expect(partsOf(small([short], { shifts })).map((p) => p.minutes)).toEqual([60, 40])
    const roomy = [shift('2026-03-10', 160), ...shifts.slice(1)]
    expect(partsOf(small([pinned], { shifts: roomy })).map((p) => p.minutes)).toEqual([150, 150])
  })

  const crew = (...minutes: number[]) => [
    { id: 's', day: '2026-03-10', people: minutes.map((m, i) => ({ id: `p${i}`, minutes: m, skills: [] })) },
  ]
  it.each<[says: string, minutes: number[], hands: number, isPlaced: boolean]>([
    ['two who have the time', [60, 60], 2, true],
    ['one who has it, and one who has not', [300, 10], 2, false],
    ['one who has it, and one who is not there', [300, 0], 2, false],
    ['three of whom any two have it', [40, 40, 40], 2, true],
    ['three, for three', [33, 33, 33], 3, false],
  ])('shares work of many hands among people who have the time: %s', (_, minutes, hands, isPlaced) => {
    const plan = scheduleJobs(small([job('a', { minutes: 100, hands })], { shifts: crew(...minutes) }), quick)
    expect(plan.placed.length === 1).toBe(isPlaced)
  })

  it('takes the way from those who go: whoever has no time for it is not counted', () => {
    const far = { gardens: [{ id: 'g', travelMinutes: 30 }], shifts: crew(200, 5, 0) }
    const fits = scheduleJobs(small([job('a', { minutes: 170 })], far), quick)
    expect(fits.placed).toHaveLength(1)
    expect(fits.load).toMatchObject([{ used: 205, capacity: 205 }])
    expect(scheduleJobs(small([job('a', { minutes: 171 })], far), quick).placed).toEqual([])
  })

  it('says why a job is where it is, and what another day would cost', () => {
    const problem = season(6)
    const plan = scheduleJobs(problem, quick)
    for (const { id, parts } of plan.placed.filter((p) => p.parts.length === 1).slice(0, 15)) {
      const why = whyHere(problem, plan, id)
      expect(why.chosen!.day).toBe(parts[0]!.day)
      if (!why.runnerUp) continue
      // Moving it there by hand costs just so much more.
      const to = why.days.find((d) => d.day === why.runnerUp!.day && d.isFree)!
      const other = plan.placed.map((p) =>
        p.id === id ? { ...p, parts: [{ ...p.parts[0]!, day: to.day, shiftId: to.shiftId }] } : p,
      )
      expect(counted(problem, { ...plan, placed: other }) - plan.cost.total).toBe(why.runnerUp.more)
    }
  })

  it('refuses jobs that wait for each other', () => {
    const circle = [
      job('a', { after: [{ id: 'b', leastDays: 0 }] }),
      job('b', { after: [{ id: 'a', leastDays: 0 }] }),
    ]
    expect(() => scheduleJobs(small(circle), quick)).toThrow('Jobs wait for each other: a, b')
  })

  it('looks after a move so many days after the day it was really done', () => {
    const move = job('move', { operation: 'move', doneOn: '2026-03-01' })
    const look = job('look', {
      operation: 'aftercare',
      minutes: 10,
      after: [{ id: 'move', leastDays: 5, mostDays: 12 }],
    })
    const plan = scheduleJobs(small([move, look]), quick)
    expect(dayOf(plan, 'look')).toBe(addDays('2026-03-01', 9))
  })
})
