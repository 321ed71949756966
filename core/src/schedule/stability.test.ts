import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays, type IsoDate } from '../dates/index.ts'
import { seededRandom } from '../random/index.ts'
import { scheduleJobs, RESCHEDULE_ROUNDS, type ScheduleProblem, type Schedule } from './index.ts'
import { simulatedSeason } from '../../simulated/index.ts'
import { daysOf, livelySeason, remembering } from './test/lively.ts'
import { counted, requireSound } from './test/sound.ts'

/** What must hold of every plan, and of every plan made anew from one that exists, over seasons that nobody has tuned for. */

const quick = { seed: 1, iterations: 1500 }
const again = { seed: 1, iterations: RESCHEDULE_ROUNDS }
const seeds = fc.integer({ min: 1, max: 1_000_000 })

/** What two plans of one season differ in. */
const differing = (a: Schedule, b: Schedule): string[] => {
  const [one, two] = [daysOf(a), daysOf(b)]
  return [...new Set([...one.keys(), ...two.keys()])].filter(
    (id) => JSON.stringify(one.get(id)) !== JSON.stringify(two.get(id)),
  )
}

describe('any plan', () => {
  it('keeps every rule, and costs what its days cost', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const problem = livelySeason(seed)
        const plan = scheduleJobs(problem, quick)
        requireSound(problem, plan)
        expect(plan.cost.total).toBe(counted(problem, plan))
        const { total, days, visits, moved, unplaced } = plan.cost
        expect(total).toBe(days + visits + moved + unplaced)
      }),
      { numRuns: 9 },
    )
  })

  it('uses of each day what its jobs and ways take, and no more than there is', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const problem = livelySeason(seed)
        const plan = scheduleJobs(problem, quick)
        const travel = new Map(problem.gardens.map((g) => [g.id, g.travelMinutes]))
        const gardenOf = new Map(problem.jobs.map((j) => [j.id, j.gardenId]))
        for (const { shiftId, used, capacity } of plan.load) {
          const shift = problem.shifts.find((s) => s.id === shiftId)!
          const here = plan.placed.flatMap((p) =>
            p.parts.filter((x) => x.shiftId === shiftId).map((x) => ({ garden: gardenOf.get(p.id)!, ...x })),
          )
          const ways = [...new Set(here.map((h) => h.garden))].reduce((sum, g) => sum + travel.get(g)!, 0)
          expect(used).toBe(here.reduce((sum, h) => sum + h.minutes, 0) + ways * shift.people.length)
          expect(used).toBeLessThanOrEqual(capacity)
        }
      }),
      { numRuns: 4 },
    )
  })

  it('is the same whatever ids its jobs are kept under', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const named = livelySeason(seed)
        // What a job is stays; what its row is called does not, and the order of the new names is another one.
        const random = seededRandom(seed * 3 + 5)
        const rows = new Map(named.jobs.map((j) => [j.id, `${Math.floor(random() * 1e9)}-${j.id}`]))
        const kept: ScheduleProblem = {
          ...named,
          jobs: named.jobs
            .map((j) => ({
              ...j,
              id: rows.get(j.id)!,
              identity: j.id,
              after: j.after.map((a) => ({ ...a, id: rows.get(a.id)! })),
            }))
            .sort((a, b) => (a.id < b.id ? -1 : 1)),
        }
        const plan = daysOf(scheduleJobs(named, quick))
        const other = daysOf(scheduleJobs(kept, quick))
        expect(new Map(named.jobs.map((j) => [j.id, other.get(rows.get(j.id)!)]))).toEqual(
          new Map(named.jobs.map((j) => [j.id, plan.get(j.id)])),
        )
      }),
      { numRuns: 5 },
    )
  })

  it('of a season four weeks later lies four weeks later', () => {
    const later = (day: IsoDate) => addDays(day, 28)
    fc.assert(
      fc.property(seeds, (seed) => {
        const problem = livelySeason(seed)
        const shifted: ScheduleProblem = {
          ...problem,
          shifts: problem.shifts.map((s) => ({ ...s, id: later(s.day), day: later(s.day) })),
          unsuitable: Object.fromEntries(
            Object.entries(problem.unsuitable).map(([need, by]) => [
              need,
              Object.fromEntries(Object.entries(by).map(([day, chance]) => [later(day), chance])),
            ]),
          ),
          jobs: problem.jobs.map((j) => ({
            ...j,
            window: {
              earliest: later(j.window.earliest),
              bestFrom: later(j.window.bestFrom),
              bestTo: later(j.window.bestTo),
              latest: later(j.window.latest),
            },
            ...(j.pinnedTo && { pinnedTo: later(j.pinnedTo) }),
            ...(j.doneOn && { doneOn: later(j.doneOn) }),
          })),
        }
        const plan = scheduleJobs(problem, quick)
        const moved = scheduleJobs(shifted, quick)
        expect(moved.cost).toEqual(plan.cost)
        expect([...daysOf(moved)].map(([id, days]) => [id, days.map((d) => addDays(d, -28))])).toEqual([
          ...daysOf(plan),
        ])
      }),
      { numRuns: 4 },
    )
  })

  it('of gardens that share neither people nor days costs what each costs by itself', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const one = simulatedSeason({ seed, jobs: 20, gardens: 1, days: 80, from: '2026-02-01' })
        const two = simulatedSeason({ seed: seed + 9, jobs: 20, gardens: 1, days: 80, from: '2026-02-01' })
        const as = (name: string, p: ScheduleProblem): ScheduleProblem => ({
          gardens: [{ ...p.gardens[0]!, id: name, unsuitable: p.unsuitable }],
          shifts: p.shifts.map((s) => ({ ...s, id: `${name} ${s.id}`, gardenIds: [name] })),
          unsuitable: {},
          jobs: p.jobs.map((j) => ({
            ...j,
            id: `${name} ${j.id}`,
            gardenId: name,
            after: j.after.map((a) => ({ ...a, id: `${name} ${a.id}` })),
          })),
        })
        const [a, b] = [as('a', one), as('b', two)]
        const both: ScheduleProblem = {
          gardens: [...a.gardens, ...b.gardens],
          shifts: [...a.shifts, ...b.shifts],
          jobs: [...a.jobs, ...b.jobs],
          unsuitable: {},
        }
        const plan = scheduleJobs(both, { seed: 1, iterations: 6000 })
        requireSound(both, plan)
        const apart = [a, b].map((p) => scheduleJobs(p, { seed: 1, iterations: 6000 }).cost.total)
        const sum = apart[0]! + apart[1]!
        // A search, not a proof: the two ways of asking may end a little apart.
        expect(Math.abs(plan.cost.total - sum)).toBeLessThanOrEqual(0.08 * sum)
      }),
      { numRuns: 4 },
    )
  })
})

describe('a plan made anew', () => {
  it('moves nothing where nothing has changed, however often it is asked', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const problem = livelySeason(seed)
        let plan = scheduleJobs(problem, quick)
        plan = scheduleJobs(remembering(problem, plan), again)
        for (let i = 0; i < 2; i++) {
          const next = scheduleJobs(remembering(problem, plan), again)
          expect(next.moved).toEqual([])
          expect(differing(plan, next)).toEqual([])
          plan = next
        }
      }),
      { numRuns: 4 },
    )
  })

  it('names every job that it moved and none that it did not, each with its days', () => {
    fc.assert(
      fc.property(seeds, fc.integer({ min: 0, max: 30 }), (seed, nth) => {
        const problem = livelySeason(seed)
        const plan = scheduleJobs(problem, quick)
        const lost = problem.shifts[nth]!.day
        const changed = remembering(
          { ...problem, shifts: problem.shifts.filter((s) => s.day !== lost) },
          plan,
        )
        const next = scheduleJobs(changed, again)
        requireSound(
          { ...changed, jobs: changed.jobs.map((j) => (j.pinnedTo === lost ? { ...j, pinnedTo: null } : j)) },
          next,
        )
        expect([...new Set(next.moved.map((m) => m.id))].sort()).toEqual(differing(plan, next).sort())
        for (const m of next.moved) {
          expect(daysOf(plan).get(m.id)).toContain(m.from)
          if (m.to) expect(daysOf(next).get(m.id)).toContain(m.to)
          else expect(next.unplaced.map((u) => u.id)).toContain(m.id)
          expect(m.says).toMatch(/^[A-Z0-9].*\.$/)
        }
      }),
      { numRuns: 5 },
    )
  })

  it('leaves the rest alone when a job goes', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const problem = livelySeason(seed)
        const first = scheduleJobs(problem, quick)
        const plan = scheduleJobs(remembering(problem, first), again)
        const awaited = new Set(problem.jobs.flatMap((j) => j.after.map((a) => a.id)))
        const gone = plan.placed.find((p) => !awaited.has(p.id))!.id
        const without = remembering({ ...problem, jobs: problem.jobs.filter((j) => j.id !== gone) }, plan)
        const next = scheduleJobs(without, again)
        requireSound(without, next)
        // Room that comes free may be used, where it is worth a move; it is not turned over.
        expect(next.moved.length).toBeLessThanOrEqual(4)
        expect(next.unplaced.length).toBeLessThanOrEqual(plan.unplaced.length)
      }),
      { numRuns: 5 },
    )
  })

  it('finds room for a job that comes, and keeps what people have said', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const problem = livelySeason(seed)
        const plan = scheduleJobs(problem, quick)
        const pinned = problem.jobs.filter((j) => j.pinnedTo && !j.doneOn)
        const model = problem.jobs.find((j) => j.after.length === 0 && !j.pinnedTo && !j.doneOn && !j.skill)!
        const more = remembering(
          { ...problem, jobs: [...problem.jobs, { ...model, id: 'new', hands: 1, minutes: 30 }] },
          plan,
        )
        const next = scheduleJobs(more, again)
        requireSound(more, next)
        const before = daysOf(plan)
        for (const j of pinned) if (before.has(j.id)) expect(daysOf(next).get(j.id)).toEqual(before.get(j.id))
        expect(next.moved.length).toBeLessThanOrEqual(6)
      }),
      { numRuns: 5 },
    )
  })

  it('goes on from work that was done on another day than planned', () => {
    fc.assert(
      fc.property(seeds, (seed) => {
        const problem = livelySeason(seed, 60)
        const plan = scheduleJobs(problem, quick)
        const chain = problem.jobs.find((j) => j.operation === 'move' && daysOf(plan).has(j.id))
        fc.pre(chain !== undefined)
        const planned = daysOf(plan).get(chain!.id)![0]!
        const done = remembering(
          {
            ...problem,
            jobs: problem.jobs.map((j) =>
              j.id === chain!.id || chain!.after.some((a) => a.id === j.id)
                ? { ...j, doneOn: addDays(planned, -1), pinnedTo: null }
                : j,
            ),
          },
          plan,
        )
        requireSound(done, scheduleJobs(done, again))
      }),
      { numRuns: 4 },
    )
  })
})
