import type { ScheduleJob, ScheduleProblem, scheduleCosts } from '../src/schedule/index.ts'

/**
 * A job longer than this, or than the roomiest day it may stand on has for it alone, is split as evenly as whole minutes go, but into
 * no shorter sittings than the least; sittings of a job lie at most so many days apart.
 */
const LONGEST_MIN = 180
const SHORTEST_MIN = 15
const DAYS_BETWEEN = 10

const dayNumber = (day: string) => Date.parse(`${day}T00:00Z`) / 86_400_000

interface Sitting {
  shift: number
  minutes: number
  job: ScheduleJob
}

/**
 * The least cost of a small season by trying every day of every job, written apart from the engine: costs are counted from the
 * table, room on a day by asking of every group of its people whether the work that only they can do is too much for them.
 * Costs only grow as jobs are given days, so a branch that is dearer than the best so far is left.
 *
 * @param season without pins, days done or plans before; jobs in an order in which none comes before what it waits for
 * @returns the least cost of any plan that keeps every rule
 */
export function leastCost(season: ScheduleProblem, costs: typeof scheduleCosts): number {
  const { jobs, shifts } = season
  const days = shifts.map((s) => dayNumber(s.day))
  const travel = new Map(season.gardens.map((g) => [g.id, g.travelMinutes]))
  const sittings: Sitting[] = []
  const lastDay = new Map<string, number>()
  let best = Infinity
  next(0, 0)
  return best

  function next(k: number, cost: number): void {
    if (cost >= best) return
    const job = jobs[k]
    if (!job) {
      best = cost
      return
    }
    const of = Math.ceil(job.minutes / longestSitting(job))
    const minutes = Array.from(
      { length: of },
      (_, i) => Math.floor(job.minutes / of) + (i < job.minutes % of ? 1 : 0),
    )
    let from = dayNumber(job.window.earliest)
    let to = dayNumber(job.window.latest)
    let waits = false
    for (const a of job.after) {
      const done = lastDay.get(a.id)
      if (done === undefined) waits = true
      else {
        from = Math.max(from, done + a.leastDays)
        to = Math.min(to, done + (a.mostDays ?? Infinity))
      }
    }
    if (!waits) sit(job, minutes, 0, from, to, cost, k)
    next(k + 1, cost + Math.round(costs.unplaced[job.operation] * (job.worth ?? 1)))
  }

  /** The most minutes that some day of its window has for a job alone, as long as nothing else is there. */
  function longestSitting(job: ScheduleJob): number {
    const { earliest, latest } = job.window
    for (let minutes = LONGEST_MIN; minutes > SHORTEST_MIN; minutes--)
      for (const [shift, { day, gardenIds }] of shifts.entries()) {
        if (day < earliest || day > latest || (gardenIds && !gardenIds.includes(job.gardenId))) continue
        if (hasRoom(shift, [{ shift, minutes, job }])) return minutes
      }
    return SHORTEST_MIN
  }

  function sit(
    job: ScheduleJob,
    minutes: readonly number[],
    i: number,
    from: number,
    to: number,
    cost: number,
    k: number,
  ): void {
    if (i === minutes.length) {
      lastDay.set(job.id, days[sittings.at(-1)!.shift]!)
      next(k + 1, cost)
      lastDay.delete(job.id)
      return
    }
    for (let shift = 0; shift < shifts.length; shift++) {
      const day = days[shift]!
      const { gardenIds } = shifts[shift]!
      if (day < from || day > to || (gardenIds && !gardenIds.includes(job.gardenId))) continue
      const isNew = !sittings.some((s) => s.shift === shift && s.job.gardenId === job.gardenId)
      sittings.push({ shift, minutes: minutes[i]!, job })
      if (hasRoom(shift)) {
        const { bestFrom, bestTo } = job.window
        const away = Math.max(0, dayNumber(bestFrom) - day, day - dayNumber(bestTo))
        const chance = season.unsuitable[job.weather]?.[shifts[shift]!.day] ?? 0
        const own = Math.round(
          (costs.rate[job.operation] / minutes.length) * away +
            costs.badWeather * chance * (minutes[i]! / job.minutes),
        )
        // The window's end is that of every sitting, what comes before it that of the first.
        const latest = Math.min(dayNumber(job.window.latest), day + DAYS_BETWEEN)
        sit(job, minutes, i + 1, day, latest, cost + own + (isNew ? costs.visit : 0), k)
      }
      sittings.pop()
    }
  }

  /** Whether the people of a shift have the time, each taking no more of a job than a share of its hands. */
  function hasRoom(shift: number, all: readonly Sitting[] = sittings): boolean {
    const here = all.filter((s) => s.shift === shift)
    const going = [...new Set(here.map((s) => s.job.gardenId))].reduce((sum, g) => sum + travel.get(g)!, 0)
    const people = shifts[shift]!.people.map((p) => ({ ...p, minutes: Math.max(0, p.minutes - going) }))
    for (let group = 0; group < 2 ** people.length; group++) {
      const inside = people.filter((_, i) => (group >> i) & 1)
      const outside = people.length - inside.length
      const theirs = inside.reduce((sum, p) => sum + p.minutes, 0)
      const work = here.reduce(
        (sum, s) => sum + s.minutes - Math.min(s.minutes, (s.minutes / (s.job.hands ?? 1)) * outside),
        0,
      )
      if (work > theirs + 1e-6) return false
    }
    const skilled = here.filter((s) => s.job.skill)
    for (const asked of subsetsOf([...new Set(skilled.map((s) => s.job.skill!))])) {
      const work = skilled.filter((s) => asked.includes(s.job.skill!)).reduce((sum, s) => sum + s.minutes, 0)
      const able = people.filter((p) => asked.some((k) => p.skills.includes(k)))
      if (work > able.reduce((sum, p) => sum + p.minutes, 0)) return false
    }
    return true
  }
}

const subsetsOf = <T>(of: readonly T[]): T[][] =>
  of.reduce<T[][]>((found, x) => [...found, ...found.map((f) => [...f, x])], [[]])
