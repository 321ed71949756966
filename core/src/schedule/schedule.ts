import { dayNumber, type IsoDate } from '../dates/index.ts'
import { dayMonth } from '../words/index.ts'
import { prepare, type Part, type Prepared } from './prepare.ts'
import { scheduleCosts, type ScheduleJob, type ScheduleProblem } from './problem.ts'
import { finished, type Progress, type SearchOptions } from '../search/index.ts'
import { FEW, search } from './search.ts'
import { scheduleState, type ScheduleState } from './state.ts'

/** A part of a job on a working day. */
export interface PlacedPart {
  day: IsoDate
  shiftId: string
  minutes: number
}

/** A job that has its days; `inBest` when all of them lie in its best weeks. */
export interface PlacedJob {
  id: string
  parts: PlacedPart[]
  inBest: boolean
}

/** A job without a day, and why. */
export interface UnplacedJob {
  id: string
  reason:
    'no-working-day' | 'no-skill' | 'days-full' | 'waits-for-unplaced' | 'order-leaves-no-day' | 'costs-more'
  /** For `days-full`: minutes missing on the roomiest day it could be on. */
  shortMinutes: number
  /** What leaving it out costs, in units of the cost table. */
  cost: number
  nextChance: IsoDate | null
}

/** A job that is on another day than before; `to` is null where it has none any more. */
export interface MovedJob {
  id: string
  from: IsoDate
  to: IsoDate | null
  /** Why it moved, in a sentence. */
  says: string
}

/** A plan of a season. */
export interface Schedule {
  placed: PlacedJob[]
  unplaced: UnplacedJob[]
  /** Jobs on other days than in the plan before. */
  moved: MovedJob[]
  cost: ScheduleCost
  /** Minutes used and at hand, by shift, travel included. */
  load: { shiftId: string; day: IsoDate; used: number; capacity: number }[]
}

/** What counts against a plan, in minutes, and of what it is made. */
export interface ScheduleCost {
  total: number
  /** Days outside the best weeks and unsuitable weather. */
  days: number
  visits: number
  moved: number
  unplaced: number
}

/** Rounds of the search for a season's plan: by how many groups of jobs that wait for one another it has, within these bounds. */
const ROUNDS_OF_GROUP = 1_000
const LEAST_ROUNDS = 60_000
const MOST_ROUNDS = 300_000
/** Rounds of a search that mends a plan after a change: fewer than a season’s, as most of it stays. */
export const RESCHEDULE_ROUNDS = 3_000

/** How a season's plan is searched: as long as its size asks for, unless told otherwise. */
export type SeasonSearch = Pick<SearchOptions, 'seed'> & Partial<SearchOptions>

/** A whole season’s search: the same season, the same plan. */
export const DEFAULT_SEARCH: SeasonSearch = { seed: 20_260_914 }

/** Rounds of the search for the plan of a whole season. */
export const seasonRounds = (problem: ScheduleProblem): number => roundsOf(prepare(problem))

const roundsOf = ({ components }: Prepared): number =>
  Math.min(MOST_ROUNDS, Math.max(LEAST_ROUNDS, ROUNDS_OF_GROUP * components.length))

/** A season's plan. The same problem and options give the same plan. */
export function scheduleJobs(problem: ScheduleProblem, options: SeasonSearch = DEFAULT_SEARCH): Schedule {
  return finished(scheduleSteps(problem, options))
}

/** A season's plan, a stretch at a time: between stretches its caller may show progress or give up. */
export function* scheduleSteps(
  problem: ScheduleProblem,
  options: SeasonSearch = DEFAULT_SEARCH,
): Generator<Progress, Schedule> {
  const prepared = prepare(problem)
  const asked = options.iterations ?? roundsOf(prepared)
  // Small seasons are soon searched, and are searched from several seeds: the best of them is the plan.
  const isSmall = prepared.components.length <= FEW && asked >= LEAST_ROUNDS
  const starts = isSmall ? SMALL_STARTS : 1
  const iterations = isSmall ? Math.min(asked, SMALL_ROUNDS) : asked
  let best: { where: Int32Array; cost: number } | undefined
  for (let k = 0; k < starts; k++) {
    const steps = search(prepared, { seed: options.seed + k, iterations })
    let step = steps.next()
    for (; !step.done; step = steps.next())
      yield {
        done: k * iterations + step.value.done,
        of: starts * iterations,
        cost: Math.min(best?.cost ?? Infinity, step.value.cost),
      }
    if (!best || step.value.cost < best.cost) best = step.value
  }
  return asSchedule(prepared, best!.where)
}

/** A small season is searched from so many seeds, the best of which is taken: there is time, and one may be caught. */
const SMALL_STARTS = 4
const SMALL_ROUNDS = 20_000

/** Puts every part where a plan has it, without asking whether it fits. */
export function stateOf(prepared: Prepared, where: ArrayLike<number>): ScheduleState {
  const state = scheduleState(prepared)
  prepared.parts.forEach((part, p) => {
    const shift = where[p]!
    if (shift >= 0) state.put(p, shift, part.costs[part.shifts.indexOf(shift)]!)
  })
  return state
}

/**
 * A plan as it is told.
 *
 * @param where index of the shift of each part, -1 for none
 */
export function asSchedule(prepared: Prepared, where: Int32Array): Schedule {
  const { partsOf, parts, problem, rooms } = prepared
  const state = stateOf(prepared, where)
  const placed: PlacedJob[] = []
  const unplaced: UnplacedJob[] = []
  const moved: MovedJob[] = []
  for (const job of problem.jobs) {
    const own = partsOf.get(job.id)
    if (!own) continue
    if (own.every((p) => where[p]! >= 0)) {
      const days = own.map((p): PlacedPart => {
        const shift = problem.shifts[where[p]!]!
        return { day: shift.day, shiftId: shift.id, minutes: parts[p]!.minutes }
      })
      const { bestFrom, bestTo } = job.window
      placed.push({
        id: job.id,
        parts: days,
        inBest: days.every((d) => d.day >= bestFrom && d.day <= bestTo),
      })
    } else unplaced.push(unplacedJob(prepared, state, job))
    const move = movedFrom(prepared, state, job, own)
    if (move) moved.push(move)
  }
  const visits = new Set(parts.flatMap((part, p) => (where[p]! < 0 ? [] : [`${where[p]} ${part.garden}`])))
  return {
    placed,
    unplaced,
    moved,
    cost: costOf(prepared, where, visits.size),
    load: problem.shifts.map((s, i) => ({
      shiftId: s.id,
      day: s.day,
      used: state.used(i),
      capacity: rooms[i]!.whole,
    })),
  }
}

function costOf({ parts, problem }: Prepared, where: Int32Array, visits: number): ScheduleCost {
  let days = 0
  let moved = 0
  let unplaced = 0
  parts.forEach((part, p) => {
    const shift = where[p]!
    if (shift < 0) {
      unplaced += part.penalty
      return
    }
    const kept = part.job.keptOn?.[part.index]
    const move = kept !== undefined && kept !== problem.shifts[shift]!.day ? scheduleCosts.moved : 0
    moved += move
    days += part.costs[part.shifts.indexOf(shift)]! - move
  })
  const visited = visits * scheduleCosts.visit
  return { total: days + moved + unplaced + visited, days, visits: visited, moved, unplaced }
}

function unplacedJob(prepared: Prepared, state: ScheduleState, job: ScheduleJob): UnplacedJob {
  const { parts, partsOf, days } = prepared
  const own = partsOf.get(job.id)!
  const answer = (reason: UnplacedJob['reason'], shortMinutes = 0): UnplacedJob => ({
    id: job.id,
    reason,
    shortMinutes,
    cost: parts[own[0]!]!.penalty,
    nextChance: job.nextChance ?? null,
  })
  const [first] = own as [number]
  if (parts[first]!.before.some((a) => state.where[a.part]! < 0)) return answer('waits-for-unplaced')
  if (parts[first]!.shifts.length === 0)
    return answer(parts[first]!.skill >= 0 && hasOpenDay(prepared, job) ? 'no-skill' : 'no-working-day')
  // Its parts one after another as soon as each can be: the first that finds no day says why.
  const against = ((): UnplacedJob | undefined => {
    for (const p of own) {
      const [from, to] = between(prepared, state, parts[p]!)
      const open = [...parts[p]!.shifts].filter((s) => days[s]! >= from && days[s]! <= to)
      if (open.length === 0)
        return answer(p === first ? 'order-leaves-no-day' : 'days-full', p === first ? 0 : parts[p]!.minutes)
      const shift = open.find((s) => state.fits(p, s))
      if (shift === undefined) {
        const byTime = Math.min(...open.map((s) => state.shortBy(p, s)))
        return byTime > 0 ? answer('days-full', byTime) : answer('no-skill')
      }
      state.put(p, shift, 0)
    }
    return undefined
  })()
  for (const p of own) state.take(p)
  return against ?? answer('costs-more')
}

const hasOpenDay = ({ problem }: Prepared, { window }: ScheduleJob) =>
  problem.shifts.some((s) => s.day >= window.earliest && s.day <= window.latest)

/** Days between which the order of a plan leaves a part. */
export function between(prepared: Prepared, state: ScheduleState, part: Part): [from: number, to: number] {
  const { days } = prepared
  let from = part.earliest
  let to = part.latest
  for (const { part: p, least, most } of part.before) {
    const shift = state.where[p]!
    if (shift < 0) continue
    from = Math.max(from, days[shift]! + least)
    to = Math.min(to, days[shift]! + most)
  }
  for (const { part: p, least, most } of part.after) {
    const shift = state.where[p]!
    if (shift < 0) continue
    to = Math.min(to, days[shift]! - least)
    from = Math.max(from, days[shift]! - most)
  }
  return [from, to]
}

function movedFrom(
  prepared: Prepared,
  state: ScheduleState,
  job: ScheduleJob,
  own: readonly number[],
): MovedJob | undefined {
  const { parts, problem, days } = prepared
  for (const p of own) {
    const kept = job.keptOn?.[parts[p]!.index]
    const shift = state.where[p]!
    const to = shift < 0 ? null : problem.shifts[shift]!.day
    if (kept === undefined || kept === to) continue
    const before = [...parts[p]!.shifts].find((s) => problem.shifts[s]!.day === kept)
    return { id: job.id, from: kept, to, says: movedWhy() }

    function movedWhy(): string {
      if (!job.pinnedTo && (kept! < job.window.earliest || kept! > job.window.latest))
        return `${dayMonth(kept!)} no longer lies in its window.`
      if (before === undefined) return `${dayMonth(kept!)} is no longer a working day for it.`
      const [from, until] = between(prepared, state, parts[p]!)
      const day = dayNumber(kept!)
      if (day < from || day > until) return 'What comes before or after it has moved.'
      if (shift >= 0) state.take(p)
      const short = state.shortBy(p, before)
      const fits = state.fits(p, before)
      if (shift >= 0) state.put(p, shift, parts[p]!.costs[parts[p]!.shifts.indexOf(shift)]!)
      if (!fits)
        return short > 0
          ? `${dayMonth(kept!)} is full without it: ${short} minutes short.`
          : `Those with the skill for it are taken on ${dayMonth(kept!)}.`
      return shift >= 0 && days[shift]! !== day
        ? 'The plan as a whole is better so: fewer visits, better weeks or better weather.'
        : 'Leaving it out costs less than what it would displace.'
    }
  }
  return undefined
}
