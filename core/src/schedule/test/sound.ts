import { expect } from 'vitest'
import { daysBetween } from '../../dates/index.ts'
import {
  MOST_DAYS_BETWEEN_PARTS,
  MOST_PART_MINUTES,
  scheduleCosts,
  type ScheduleProblem,
  type Schedule,
} from '../index.ts'

const days = (problem: ScheduleProblem) => new Map(problem.shifts.map((s) => [s.id, s.day]))
const jobOf = (problem: ScheduleProblem) => new Map(problem.jobs.map((j) => [j.id, j]))

/** What a plan costs, counted anew from the cost table and nothing of the search. */
export function counted(problem: ScheduleProblem, plan: Schedule): number {
  const jobs = jobOf(problem)
  const visits = new Set<string>()
  let cost = 0
  for (const placed of plan.placed) {
    const job = jobs.get(placed.id)!
    placed.parts.forEach((part, i) => {
      visits.add(`${part.shiftId} ${job.gardenId}`)
      const early = Math.max(0, daysBetween(part.day, job.window.bestFrom))
      const late = Math.max(0, daysBetween(job.window.bestTo, part.day))
      const own = problem.gardens.find((g) => g.id === job.gardenId)!.unsuitable?.[job.weather]
      const chance = (own ?? problem.unsuitable[job.weather])?.[part.day] ?? 0
      cost += Math.round(
        (scheduleCosts.rate[job.operation] / placed.parts.length) * (early + late) +
          scheduleCosts.badWeather * chance * (part.minutes / job.minutes),
      )
      if (job.keptOn?.[i] !== undefined && job.keptOn[i] !== part.day) cost += scheduleCosts.moved
    })
  }
  for (const u of plan.unplaced) cost += u.cost
  return cost + visits.size * scheduleCosts.visit
}

/** Every rule a plan must keep, each checked on its own. */
export function requireSound(problem: ScheduleProblem, plan: Schedule): void {
  const jobs = jobOf(problem)
  const at = new Map(plan.placed.map((p) => [p.id, p]))
  expect([...at.keys(), ...plan.unplaced.map((u) => u.id)].sort()).toEqual(
    problem.jobs
      .filter((j) => !j.doneOn)
      .map((j) => j.id)
      .sort(),
  )
  for (const { id, parts } of plan.placed) {
    const job = jobs.get(id)!
    expect(parts.reduce((sum, p) => sum + p.minutes, 0)).toBe(job.minutes)
    expect(parts.length, `${id} in as few parts as may be`).toBe(Math.ceil(job.minutes / MOST_PART_MINUTES))
    parts.slice(1).forEach((p, i) => {
      const apart = daysBetween(parts[i]!.day, p.day)
      expect(apart, `${id} in the order of its parts`).toBeGreaterThanOrEqual(0)
      expect(apart, `${id} goes on soon`).toBeLessThanOrEqual(MOST_DAYS_BETWEEN_PARTS)
    })
    for (const p of parts) {
      expect(days(problem).get(p.shiftId)).toBe(p.day)
      // A person's word goes beyond a window.
      if (!job.pinnedTo) expect(p.day >= job.window.earliest && p.day <= job.window.latest, id).toBe(true)
    }
    for (const a of job.after) {
      const first = jobs.get(a.id)!.doneOn ?? at.get(a.id)?.parts.at(-1)?.day
      expect(first, `${id} waits for ${a.id}`).toBeDefined()
      expect(daysBetween(first!, parts[0]!.day)).toBeGreaterThanOrEqual(a.leastDays)
      if (a.mostDays != null) expect(daysBetween(first!, parts[0]!.day)).toBeLessThanOrEqual(a.mostDays)
    }
  }
  for (const { id, parts } of plan.placed) {
    const job = jobs.get(id)!
    for (const p of parts) {
      const shift = problem.shifts.find((s) => s.id === p.shiftId)!
      expect(shift.gardenIds?.includes(job.gardenId) ?? true, `${id} in a garden of its day`).toBe(true)
    }
    if (job.pinnedTo) expect(parts[0]!.day, `${id} on its person’s day`).toBe(job.pinnedTo)
  }
  const travel = new Map(problem.gardens.map((g) => [g.id, g.travelMinutes]))
  for (const shift of problem.shifts) {
    const here = plan.placed.flatMap((p) =>
      p.parts
        .filter((x) => x.shiftId === shift.id)
        .map((x) => ({ job: jobs.get(p.id)!, minutes: x.minutes })),
    )
    const going = [...new Set(here.map((h) => h.job.gardenId))].reduce((sum, g) => sum + travel.get(g)!, 0)
    const people = shift.people.map((p) => Math.max(0, p.minutes - going))
    // Whatever some of the people can give at most, the others must have the time for the rest: of a job each gives but a share.
    for (let some = 0; some < 2 ** people.length; some++) {
      const others = people.filter((_, i) => (some >> i) & 1)
      const given = here.reduce(
        (sum, h) =>
          sum + Math.min(h.minutes, (h.minutes / (h.job.hands ?? 1)) * (people.length - others.length)),
        0,
      )
      const work = here.reduce((sum, h) => sum + h.minutes, 0)
      expect(work - given, `hands on ${shift.day}`).toBeLessThanOrEqual(
        others.reduce((sum, m) => sum + m, 0) + 1e-6,
      )
    }
    for (const skill of ['pruning', 'machine', 'spraying'] as const) {
      const asked = here.filter((h) => h.job.skill === skill).reduce((sum, h) => sum + h.minutes, 0)
      const able = shift.people
        .filter((p) => p.skills.includes(skill))
        .reduce((sum, p) => sum + Math.max(0, p.minutes - going), 0)
      expect(asked, `${skill} on ${shift.day}`).toBeLessThanOrEqual(able)
    }
  }
}
