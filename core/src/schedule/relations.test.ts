import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays, daysBetween } from '../dates/index.ts'
import { seededRandom, type Random } from '../random/index.ts'
import {
  RESCHEDULE_ROUNDS,
  scheduleCosts,
  scheduleJobs,
  scheduleSteps,
  whyHere,
  type PlacedPart,
  type Schedule,
  type ScheduleJob,
  type ScheduleProblem,
  type Shift,
} from './index.ts'
import type { Progress } from '../search/index.ts'
import { daysOf, livelySeason, remembering } from './test/lively.ts'
import { counted, requireSound } from './test/sound.ts'

/** How plans of related seasons must lie to each other, whatever the search does on its way to them. */

const quick = { seed: 1, iterations: 1500 }
const again = { seed: 1, iterations: RESCHEDULE_ROUNDS }
const seeds = fc.integer({ min: 1, max: 1_000_000 })

const pick = <T>(random: Random, of: readonly T[]): T => of[Math.floor(random() * of.length)]!

/** Ways in which a season gets easier. What was a sound plan before is one after, and costs no more. */
const easier: readonly [string, (problem: ScheduleProblem, random: Random) => ScheduleProblem][] = [
  [
    'somebody stays an hour longer',
    (problem, random) => {
      const day = pick(random, problem.shifts).day
      return {
        ...problem,
        shifts: problem.shifts.map((s) =>
          s.day === day ? { ...s, people: s.people.map((p) => ({ ...p, minutes: p.minutes + 60 })) } : s,
        ),
      }
    },
  ],
  [
    'there is another working day',
    (problem, random) => {
      const { day, people } = pick(random, problem.shifts)
      const sunday = addDays(day, (7 - new Date(`${day}T00:00Z`).getUTCDay()) % 7)
      const extra: Shift = { id: `extra ${sunday}`, day: sunday, people }
      return problem.shifts.some((s) => s.day === sunday)
        ? problem
        : { ...problem, shifts: [...problem.shifts, extra].sort((a, b) => (a.day < b.day ? -1 : 1)) }
    },
  ],
  [
    'everybody learns to prune',
    (problem) => ({
      ...problem,
      shifts: problem.shifts.map((s) => ({
        ...s,
        people: s.people.map((p) => ({ ...p, skills: [...new Set([...p.skills, 'pruning' as const])] })),
      })),
    }),
  ],
  [
    'windows stay open a week longer',
    (problem) => ({
      ...problem,
      jobs: problem.jobs.map((j) => ({ ...j, window: { ...j.window, latest: addDays(j.window.latest, 7) } })),
    }),
  ],
  [
    'best weeks begin a week sooner',
    (problem) => ({
      ...problem,
      jobs: problem.jobs.map((j) => {
        const sooner = addDays(j.window.bestFrom, -7)
        const { earliest } = j.window
        return { ...j, window: { ...j.window, bestFrom: sooner < earliest ? earliest : sooner } }
      }),
    }),
  ],
  [
    'the forecast clears up',
    (problem) => ({
      ...problem,
      unsuitable: Object.fromEntries(
        Object.entries(problem.unsuitable).map(([need, days]) => [
          need,
          Object.fromEntries(Object.entries(days).map(([day, chance]) => [day, chance / 2])),
        ]),
      ),
    }),
  ],
  [
    'the gardens move nearer',
    (problem) => ({
      ...problem,
      gardens: problem.gardens.map((g) => ({ ...g, travelMinutes: Math.floor(g.travelMinutes / 2) })),
    }),
  ],
  [
    'a job can be done by one',
    (problem) => ({ ...problem, jobs: problem.jobs.map((j): ScheduleJob => ({ ...j, hands: 1 })) }),
  ],
]

describe('a season that gets easier', () => {
  it.each(easier)('costs no more than leaving everything where it was: %s', (_, ease) => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const hard = livelySeason(seed, 35)
        const before = scheduleJobs(hard, quick)
        const easy = remembering(ease(hard, seededRandom(seed)), before)
        const after = scheduleJobs(easy, again)
        requireSound(easy, after)
        expect(after.cost.total).toBeLessThanOrEqual(counted(easy, before))
      }),
      { numRuns: 4 },
    )
  })
})

/** The plan with one job's only part on another day. */
const withPartAt = (plan: Schedule, id: string, part: PlacedPart): Schedule => ({
  ...plan,
  placed: plan.placed.map((p) => (p.id === id ? { ...p, parts: [part] } : p)),
})

const isSound = (problem: ScheduleProblem, plan: Schedule): boolean => {
  try {
    requireSound(problem, plan)
    return true
  } catch {
    return false
  }
}

describe('what is said of the other days of a job', () => {
  it('is so: the free ones cost what they are said to, and on the others no plan would be sound', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const problem = livelySeason(seed, 40)
        const plan = scheduleJobs(problem, quick)
        const singles = plan.placed.filter(
          (p) => p.parts.length === 1 && !problem.jobs.find((j) => j.id === p.id)!.pinnedTo,
        )
        for (const { id, parts } of singles.slice(0, 8)) {
          const why = whyHere(problem, plan, id)
          expect(why.chosen!.day).toBe(parts[0]!.day)
          expect(why.chosen!.cost).toBe(why.chosen!.terms.reduce((sum, t) => sum + t.cost, 0))
          for (const choice of why.days) {
            const moved = withPartAt(plan, id, { ...parts[0]!, day: choice.day, shiftId: choice.shiftId })
            expect(isSound(problem, moved), `${id} on ${choice.day}: ${choice.says}`).toBe(choice.isFree)
            if (choice.isFree)
              expect(counted(problem, moved) - counted(problem, plan)).toBe(choice.cost! - why.chosen!.cost)
          }
        }
      }),
      { numRuns: 4 },
    )
  })

  it('names every working day of its window in its garden, and no other', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const problem = livelySeason(seed, 30)
        const plan = scheduleJobs(problem, quick)
        for (const { id } of plan.placed.slice(0, 10)) {
          const job = problem.jobs.find((j) => j.id === id)!
          if ((job.hands ?? 1) > 1 || job.skill) continue
          const days = problem.shifts.filter(
            (s) =>
              s.day >= job.window.earliest &&
              s.day <= job.window.latest &&
              s.people.length > 0 &&
              (s.gardenIds?.includes(job.gardenId) ?? true),
          )
          expect(
            whyHere(problem, plan, id)
              .days.map((d) => d.shiftId)
              .sort(),
          ).toEqual(days.map((s) => s.id).sort())
        }
      }),
      { numRuns: 4 },
    )
  })
})

/** A season with far more work than hands. */
const crowded = (seed: number): ScheduleProblem => {
  const season = livelySeason(seed, 60)
  return {
    ...season,
    shifts: season.shifts
      .filter((_, i) => i % 3 === 0)
      .map((s) => ({ ...s, people: s.people.map((p) => ({ ...p, minutes: 120 })) })),
  }
}

describe('what finds no day', () => {
  it('has the reason that is given', () => {
    const seen = new Map<string, number>()
    fc.assert(
      fc.property(seeds, (seed) => {
        const problem = crowded(seed)
        const plan = scheduleJobs(problem, quick)
        const unplaced = new Set(plan.unplaced.map((u) => u.id))
        for (const u of plan.unplaced) {
          seen.set(u.reason, (seen.get(u.reason) ?? 0) + 1)
          const job = problem.jobs.find((j) => j.id === u.id)!
          const open = problem.shifts.filter(
            (s) =>
              s.day >= job.window.earliest &&
              s.day <= job.window.latest &&
              (!job.pinnedTo || s.day === job.pinnedTo) &&
              (s.gardenIds?.includes(job.gardenId) ?? true) &&
              s.people.length >= (job.hands ?? 1),
          )
          if (u.reason === 'no-working-day') expect(open, u.id).toEqual([])
          if (u.reason === 'waits-for-unplaced')
            expect(job.after.some((a) => unplaced.has(a.id)) || job.minutes > 180, u.id).toBe(true)
          expect(u.shortMinutes > 0, u.id).toBe(u.reason === 'days-full')
          expect(u.nextChance).toBe(job.nextChance ?? null)
        }
      }),
      { numRuns: 6 },
    )
    // The seasons are hard enough for most of them.
    expect(seen.size, JSON.stringify([...seen])).toBeGreaterThanOrEqual(3)
  })

  it('of two alike, is the one that matters less', () => {
    const window = {
      earliest: '2026-03-02',
      bestFrom: '2026-03-02',
      bestTo: '2026-03-06',
      latest: '2026-03-06',
    }
    const job = (id: string, operation: ScheduleJob['operation'], worth = 1): ScheduleJob => ({
      id,
      gardenId: 'g',
      operation,
      window,
      minutes: 100,
      weather: 'none',
      after: [],
      worth,
    })
    const one: ScheduleProblem = {
      gardens: [{ id: 'g', travelMinutes: 10 }],
      shifts: [{ id: 's', day: '2026-03-04', people: [{ id: 'p', minutes: 120, skills: [] }] }],
      jobs: [],
      unsuitable: {},
    }
    const operations = Object.entries(scheduleCosts.unplaced) as [ScheduleJob['operation'], number][]
    for (const [a, costA] of operations)
      for (const [b, costB] of operations) {
        if (costA <= costB) continue
        const plan = scheduleJobs({ ...one, jobs: [job('less', b), job('more', a)] }, quick)
        expect([a, b, plan.placed.map((p) => p.id)]).toEqual([a, b, ['more']])
      }
    const dear = scheduleJobs({ ...one, jobs: [job('plain', 'weed'), job('dear', 'weed', 2)] }, quick)
    expect(dear.placed.map((p) => p.id)).toEqual(['dear'])
  })
})

describe('a search on its way', () => {
  it('tells of plans that only get better, and ends with the one that is given at once', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const problem = livelySeason(seed, 30)
        const told: Progress[] = []
        const steps = scheduleSteps(problem, quick)
        let step = steps.next()
        for (; !step.done; step = steps.next()) told.push(step.value)
        expect(step.value).toEqual(scheduleJobs(problem, quick))
        told.slice(1).forEach((t, i) => {
          expect(t.cost).toBeLessThanOrEqual(told[i]!.cost)
          expect(t.done).toBeGreaterThan(told[i]!.done)
          expect(t.of).toBe(told[0]!.of)
        })
        expect(told.at(-1)!.done).toBeLessThanOrEqual(told[0]!.of)
      }),
      { numRuns: 4 },
    )
  })

  it('leaves nothing behind when it is given up', () => {
    const problem = livelySeason(77, 30)
    const whole = scheduleJobs(problem, quick)
    const steps = scheduleSteps(problem, quick)
    steps.next()
    steps.return(whole)
    expect(scheduleJobs(problem, quick)).toEqual(whole)
  })

  it('from other seeds comes to about as good a plan: the season decides, not the dice', () => {
    for (const seed of [501, 502, 503]) {
      const problem = livelySeason(seed, 50)
      const costs = [1, 2, 3, 4].map((s) => scheduleJobs(problem, { seed: s, iterations: 8000 }).cost.total)
      expect(Math.max(...costs) / Math.min(...costs), JSON.stringify(costs)).toBeLessThanOrEqual(1.05)
    }
  })
})

describe('seasons of nothing', () => {
  const nothing: ScheduleProblem = { gardens: [], shifts: [], jobs: [], unsuitable: {} }

  it('have a plan of nothing, that costs nothing', () => {
    const { placed, unplaced, moved, cost, load } = scheduleJobs(nothing, quick)
    expect([placed, unplaced, moved, load, cost.total]).toEqual([[], [], [], [], 0])
  })

  it('with hands and no work leave every day free; with work and no hands leave all of it out, and say why', () => {
    const season = livelySeason(12, 25)
    const idle = scheduleJobs({ ...season, jobs: [] }, quick)
    expect(idle.load.every((l) => l.used === 0)).toBe(true)
    const alone = scheduleJobs({ ...season, shifts: [] }, quick)
    expect(alone.placed).toEqual([])
    expect(new Set(alone.unplaced.map((u) => u.reason))).toEqual(
      new Set(['no-working-day', 'waits-for-unplaced']),
    )
  })

  it('that are all done ask for nothing, and what follows them goes by the days they were done on', () => {
    const season = livelySeason(13, 25)
    const doneOn = season.shifts[3]!.day
    const followed = new Set(season.jobs.flatMap((j) => j.after.map((a) => a.id)))
    const done = {
      ...season,
      jobs: season.jobs.map((j) => (followed.has(j.id) ? { ...j, doneOn } : j)),
    }
    const plan = scheduleJobs(done, quick)
    requireSound(done, plan)
    const days = daysOf(plan)
    for (const j of done.jobs)
      for (const a of j.after) {
        const [first] = days.get(j.id) ?? []
        if (first) expect(daysBetween(doneOn, first)).toBeGreaterThanOrEqual(a.leastDays)
      }
  })
})
