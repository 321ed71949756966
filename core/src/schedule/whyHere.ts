import { daysBetween, type IsoDate } from '../dates/index.ts'
import { counted, dayMonth } from '../words/index.ts'
import { between, stateOf, type Schedule } from './schedule.ts'
import { prepare, type Prepared } from './prepare.ts'
import { scheduleCosts, type ScheduleJob, type ScheduleProblem } from './problem.ts'

/** A day a job could be on, and what that would cost; or what is against it. */
export interface DayChoice {
  day: IsoDate
  shiftId: string
  isFree: boolean
  /** Cost of the job being here, in units of the cost table; undefined where it cannot be. */
  cost?: number | undefined
  says: string
}

/** Why a job is where it is: the terms of its day, the next best, and every other day of its window. */
export interface WhyHere {
  id: string
  chosen: { day: IsoDate; terms: { says: string; cost: number }[]; cost: number } | null
  runnerUp: { day: IsoDate; more: number; says: string } | null
  days: DayChoice[]
}

/** Explains where a plan has a job, by the table that the plan was made from. Its first part stands for the whole. */
export function whyHere(problem: ScheduleProblem, plan: Pick<Schedule, 'placed'>, jobId: string): WhyHere {
  const own = problem.jobs.find((j) => j.id === jobId)
  // Of a day that a person set, what other days would cost is asked as well; it may lie outside the window.
  const prepared = prepare({
    ...problem,
    jobs: problem.jobs.map((j) => (j === own ? { ...j, pinnedTo: null, window: reaching(j) } : j)),
  })
  const [p] = prepared.partsOf.get(jobId) ?? []
  if (p === undefined) return { id: jobId, chosen: null, runnerUp: null, days: [] }
  const where = whereOf(prepared, plan)
  const state = stateOf(prepared, where)
  const part = prepared.parts[p]!
  const at = where[p]!
  state.take(p)
  const [from, to] = between(prepared, state, part)
  const isAsked = (day: IsoDate) =>
    day === own!.pinnedTo || (day >= own!.window.earliest && day <= own!.window.latest)
  const days = [...part.shifts].map((shift, i): DayChoice => {
    const { day, id: shiftId } = prepared.problem.shifts[shift]!
    const number = prepared.days[shift]!
    const terms = termsOf(prepared, p, i, state.isVisited(part.garden, shift))
    const cost = terms.reduce((sum, t) => sum + t.cost, 0)
    const blocked = (says: string): DayChoice => ({ day, shiftId, isFree: false, says })
    if (number < from) return blocked('Before it what comes first is not done, or too short a time ago.')
    if (number > to) return blocked('Too late for what comes before or after it.')
    const short = state.shortBy(p, shift)
    if (short > 0) return blocked(`Full: ${short} minutes short.`)
    if (!state.fits(p, shift)) return blocked('Those with the skill for it are taken.')
    return { day, shiftId, isFree: true, cost, says: says(terms) }
  })
  const chosen = days.find((_, i) => part.shifts[i] === at)
  const others = days
    .filter((d) => d.isFree && d !== chosen && isAsked(d.day))
    .sort((a, b) => a.cost! - b.cost! || (a.day < b.day ? -1 : 1))
  const [next] = others
  const i = part.shifts.indexOf(at)
  const terms = at < 0 ? [] : termsOf(prepared, p, i, state.isVisited(part.garden, at))
  const cost = terms.reduce((sum, t) => sum + t.cost, 0)
  return {
    id: jobId,
    chosen: at < 0 ? null : { day: prepared.problem.shifts[at]!.day, terms, cost },
    runnerUp: next ? { day: next.day, more: next.cost! - cost, says: next.says } : null,
    days: days.filter((d) => isAsked(d.day)),
  }
}

/** A window that reaches to the day a person has set. */
function reaching({ window, pinnedTo }: ScheduleJob): ScheduleJob['window'] {
  if (!pinnedTo) return window
  const earliest = pinnedTo < window.earliest ? pinnedTo : window.earliest
  const latest = pinnedTo > window.latest ? pinnedTo : window.latest
  return { ...window, earliest, latest }
}

const says = (terms: readonly { says: string }[]) => terms.map((t) => t.says).join(' ')

function termsOf(
  { problem, parts }: Prepared,
  p: number,
  i: number,
  visited: boolean,
): { says: string; cost: number }[] {
  const { job, index, of, shifts, costs, garden } = parts[p]!
  const { day } = problem.shifts[shifts[i]!]!
  const unsuitable = problem.gardens[garden]!.unsuitable ?? problem.unsuitable
  const { bestFrom, bestTo } = job.window
  const rate = scheduleCosts.rate[job.operation] / of
  const chance = unsuitable[job.weather]?.[day] ?? 0
  const outside = day < bestFrom ? daysBetween(day, bestFrom) : day > bestTo ? daysBetween(bestTo, day) : 0
  const kept = job.keptOn?.[index]
  const away = Math.round(rate * outside)
  const moved = kept !== undefined && kept !== day ? scheduleCosts.moved : 0
  // What the part costs here by itself is this, its days away from the best weeks, and having been moved.
  const weather = costs[i]! - away - moved
  return [
    outside === 0
      ? { says: 'In its best weeks.', cost: 0 }
      : {
          says: `${counted(outside, 'day')} ${day < bestFrom ? 'before' : 'after'} its best weeks.`,
          cost: away,
        },
    ...(weather > 0
      ? [{ says: `The weather does not suit it in ${oftenWords(chance)} such days.`, cost: weather }]
      : []),
    visited
      ? { says: 'The garden is visited that day anyway.', cost: 0 }
      : { says: 'It would be a visit of its own.', cost: scheduleCosts.visit },
    ...(kept === undefined
      ? []
      : kept === day
        ? [{ says: 'It stays where the plan before had it.', cost: 0 }]
        : [{ says: `The plan before had it on ${dayMonth(kept)}.`, cost: scheduleCosts.moved }]),
  ]
}

const oftenWords = (chance: number) =>
  chance < 0.05 ? 'fewer than 1 of 20' : chance < 0.95 ? `${Math.round(chance * 10)} of 10` : 'nearly all'

/** Shifts of a plan's parts, in the order of a prepared problem. */
function whereOf(prepared: Prepared, plan: Pick<Schedule, 'placed'>): Int32Array {
  const shiftIndex = new Map(prepared.problem.shifts.map((s, i) => [s.id, i]))
  const where = new Int32Array(prepared.parts.length).fill(-1)
  for (const job of plan.placed)
    prepared.partsOf.get(job.id)?.forEach((p, i) => {
      const shift = job.parts[i] && shiftIndex.get(job.parts[i].shiftId)
      where[p] = shift !== undefined && prepared.parts[p]!.shifts.includes(shift) ? shift : -1
    })
  return where
}
