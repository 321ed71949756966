import type { Window } from '../care/index.ts'
import { addDays, dayNumber, maxDay, minDay, type IsoDate } from '../dates/index.ts'

export interface WorkingDay {
  day: IsoDate
  minutes: number
}

/** A job as the planner sees it. */
export interface SchedulableJob {
  id: string
  window: Pick<Window, 'earliest' | 'bestFrom' | 'bestTo' | 'latest'>
  minutes: number
  /** Jobs that come first and how many days must, and may, lie between. */
  after: { id: string; leastDays: number; mostDays?: number | null }[]
  /** A day set by a person: what comes before it makes way for it. */
  pinnedTo?: IsoDate | null
  /** The day it had in the plan before: kept while it can be, so that a new plan moves little. */
  keptOn?: IsoDate | null
  /** Already done on this day: takes no room, but others follow it. */
  doneOn?: IsoDate | null
}

export interface Placement {
  id: string
  day: IsoDate
  inBest: boolean
}

export interface Unplaced {
  id: string
  reason: 'no-working-day' | 'days-full' | 'waits-for-unplaced' | 'order-leaves-no-day'
  /** For `days-full`: minutes missing on the roomiest day of the window. */
  shortMinutes?: number
}

export interface DayPlan {
  placed: Placement[]
  unplaced: Unplaced[]
}

/**
 * Each job on the first working day of its best weeks with room, else the first in its whole window; what comes
 * first is placed first. Jobs are taken by the day their window closes, ties by id, so that the same input gives the
 * same plan.
 */
export function placeJobs(jobs: readonly SchedulableJob[], days: readonly WorkingDay[]): DayPlan {
  const room = new Map(days.map((d) => [d.day, d.minutes]))
  const placed = new Map<string, Placement>()
  const unplaced: Unplaced[] = []
  const limits = limitsFromPins(jobs)
  for (const job of inOrder(jobs)) {
    if (job.doneOn) {
      placed.set(job.id, { id: job.id, day: job.doneOn, inBest: true })
      continue
    }
    const found = place(job, days, room, placed, limits.get(job.id))
    if ('reason' in found) unplaced.push(found)
    else {
      room.set(found.day, (room.get(found.day) ?? 0) - job.minutes)
      placed.set(job.id, found)
    }
  }
  const done = new Set(jobs.filter((j) => j.doneOn).map((j) => j.id))
  return { placed: [...placed.values()].filter((p) => !done.has(p.id)), unplaced }
}

function place(
  job: SchedulableJob,
  days: readonly WorkingDay[],
  room: ReadonlyMap<IsoDate, number>,
  placed: ReadonlyMap<string, Placement>,
  limit: Limit | undefined,
): Placement | Unplaced {
  let earliest = maxDay(job.window.earliest, limit?.earliest ?? job.window.earliest)
  let latest = minDay(job.window.latest, limit?.latest ?? job.window.latest)
  for (const first of job.after) {
    const before = placed.get(first.id)
    if (!before) return { id: job.id, reason: 'waits-for-unplaced' }
    earliest = maxDay(earliest, addDays(before.day, first.leastDays))
    if (first.mostDays != null) latest = minDay(latest, addDays(before.day, first.mostDays))
  }
  if (earliest > latest) return { id: job.id, reason: 'order-leaves-no-day' }
  const open = days.filter((d) => d.day >= earliest && d.day <= latest)
  if (open.length === 0) return { id: job.id, reason: 'no-working-day' }
  const roomy = open.filter((d) => room.get(d.day)! >= job.minutes)
  const isBest = (day: IsoDate) => day >= job.window.bestFrom && day <= job.window.bestTo
  const chosen =
    roomy.find((d) => d.day === job.pinnedTo) ??
    roomy.find((d) => d.day === job.keptOn) ??
    roomy.find((d) => isBest(d.day)) ??
    nearestBest(roomy, job)
  if (!chosen) {
    const most = Math.max(...open.map((d) => room.get(d.day)!))
    return { id: job.id, reason: 'days-full', shortMinutes: job.minutes - most }
  }
  return { id: job.id, day: chosen.day, inBest: isBest(chosen.day) }
}

interface Limit {
  earliest: IsoDate
  latest: IsoDate
}

/** What a pinned job asks of the jobs it waits for: to be done in time, and not too long before. */
function limitsFromPins(jobs: readonly SchedulableJob[]): Map<string, Limit> {
  const limits = new Map<string, Limit>()
  for (const job of jobs) {
    if (!job.pinnedTo || job.doneOn) continue
    for (const first of job.after) {
      const known = limits.get(first.id)
      const earliest = first.mostDays == null ? '0001-01-01' : addDays(job.pinnedTo, -first.mostDays)
      const latest = addDays(job.pinnedTo, -first.leastDays)
      limits.set(first.id, {
        earliest: known ? maxDay(known.earliest, earliest) : earliest,
        latest: known ? minDay(known.latest, latest) : latest,
      })
    }
  }
  return limits
}

function nearestBest(days: readonly WorkingDay[], job: SchedulableJob): WorkingDay | undefined {
  const away = (day: IsoDate) =>
    Math.max(dayNumber(job.window.bestFrom) - dayNumber(day), dayNumber(day) - dayNumber(job.window.bestTo))
  return [...days].sort((a, b) => away(a.day) - away(b.day) || (a.day < b.day ? -1 : 1))[0]
}

/**
 * Jobs so that none stands before what it waits for; otherwise by closing day, then id.
 * @throws {Error} when jobs wait for each other in a circle (a caller's bug)
 */
function inOrder(jobs: readonly SchedulableJob[]): SchedulableJob[] {
  const known = new Set(jobs.map((j) => j.id))
  const waiting = [...jobs].sort((a, b) =>
    a.window.latest === b.window.latest ? (a.id < b.id ? -1 : 1) : a.window.latest < b.window.latest ? -1 : 1,
  )
  const ordered: SchedulableJob[] = []
  const taken = new Set<string>()
  while (waiting.length > 0) {
    const at = waiting.findIndex((j) => j.after.every((a) => taken.has(a.id) || !known.has(a.id)))
    if (at < 0) throw new Error(`Jobs wait for each other: ${waiting.map((j) => j.id).join(', ')}`)
    const [job] = waiting.splice(at, 1)
    taken.add(job!.id)
    ordered.push(job!)
  }
  return ordered
}
