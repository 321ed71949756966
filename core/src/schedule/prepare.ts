import { skills } from '../care/index.ts'
import { dayNumber } from '../dates/index.ts'
import {
  MOST_DAYS_BETWEEN_PARTS,
  MOST_PART_MINUTES,
  scheduleCosts,
  type ScheduleJob,
  type ScheduleProblem,
  type Shift,
} from './problem.ts'
import { roomFor, shiftRoom, type ShiftRoom } from './room.ts'

/** An arc of the precedence graph between parts: days from the first to the second. */
export interface Arc {
  part: number
  least: number
  /** Infinity where there is no limit. */
  most: number
}

/** One sitting of a job. */
export interface Part {
  job: ScheduleJob
  /** Index among the job's parts, and how many there are. */
  index: number
  of: number
  minutes: number
  garden: number
  /** Index of the skill it asks for; -1 for none. */
  skill: number
  /** People who must be there together. */
  hands: number
  /** Shifts it could be in, ascending, and what each costs by itself. */
  shifts: Int32Array
  costs: Int32Array
  /** Of leaving the job out: all of it at its first part, for a job is done whole or not at all. */
  penalty: number
  before: Arc[]
  after: Arc[]
  /** Days it may lie on by its window and by what is done already. */
  earliest: number
  latest: number
}

/** The problem in arrays: days as numbers, shifts in date order. */
export interface Prepared {
  problem: ScheduleProblem
  parts: Part[]
  /** Parts of each job, by id. */
  partsOf: ReadonlyMap<string, number[]>
  days: Int32Array
  rooms: ShiftRoom[]
  /** Most people that any job asks for together. */
  mostHands: number
  /** By garden, minutes of each person. */
  travel: Int32Array
  gardens: number
  /** Groups of parts joined by order, in an order that puts what comes first first. */
  components: number[][]
  componentOf: Int32Array
}

/** A person's word gives way to nothing but another person's. */
export const PIN_PENALTY = 1_000_000

/** What a job is: everything that orders jobs goes by it, so that the same season gives the same plan whatever ids it is kept under. */
const identityOf = (job: ScheduleJob): string => job.identity ?? job.id

/**
 * @throws {RangeError} when jobs wait for each other in a circle, or name a garden that is not there
 */
export function prepare(problem: ScheduleProblem): Prepared {
  const shifts = [...problem.shifts].sort((a, b) =>
    a.day === b.day ? (a.id < b.id ? -1 : 1) : a.day < b.day ? -1 : 1,
  )
  const sorted: ScheduleProblem = {
    ...problem,
    shifts,
    jobs: [...problem.jobs].sort((a, b) =>
      identityOf(a) < identityOf(b) ? -1 : identityOf(a) > identityOf(b) ? 1 : 0,
    ),
  }
  const days = Int32Array.from(shifts, (s) => dayNumber(s.day))
  const gardenIndex = new Map(problem.gardens.map((g, i) => [g.id, i]))
  const rooms = shifts.map(shiftRoom)
  const partsOf = new Map<string, number[]>()
  const parts: Part[] = []
  for (const job of sorted.jobs) {
    if (job.doneOn) continue
    const garden = gardenIndex.get(job.gardenId)
    if (garden === undefined) throw new RangeError(`Job ${job.id}: there is no garden ${job.gardenId}`)
    const open = openShifts(job, garden, sorted, rooms)
    const sittings = sittingsOf(job, open)
    partsOf.set(
      job.id,
      sittings.map((_, index) => parts.length + index),
    )
    sittings.forEach((minutes, index) =>
      parts.push(partOf({ job, index, of: sittings.length, minutes, garden }, open, sorted, days)),
    )
  }
  link(sorted, parts, partsOf)
  const { components, componentOf } = group(parts)
  return {
    problem: sorted,
    parts,
    partsOf,
    days,
    rooms,
    mostHands: parts.reduce((most, p) => Math.max(most, p.hands), 1),
    travel: Int32Array.from(problem.gardens, (g) => g.travelMinutes),
    gardens: problem.gardens.length,
    components,
    componentOf,
  }
}

/** No part is shorter, were the longest day shorter still. */
const LEAST_PART_MINUTES = 15

interface OpenShift {
  index: number
  shift: Shift
  /** Minutes of the job that the shift has, were it alone there. */
  roomMin: number
}

/**
 * The minutes of each part of a job: as few as its days have room for and as even as whole minutes go. On a day that a person set
 * the first is no longer than that day has room for, however roomy the days after it.
 */
function sittingsOf({ minutes, pinnedTo }: ScheduleJob, open: readonly OpenShift[]): number[] {
  const longest = (days: readonly OpenShift[]) =>
    Math.max(LEAST_PART_MINUTES, Math.min(MOST_PART_MINUTES, Math.max(0, ...days.map((o) => o.roomMin))))
  const even = evenly(minutes, longest(open))
  if (!pinnedTo) return even
  const first = longest(open.filter((o) => o.shift.day === pinnedTo))
  return even[0]! <= first ? even : [first, ...evenly(minutes - first, longest(open))]
}

/** Minutes in parts of at most so many, the first of them the longer by one where they do not go even. */
function evenly(minutes: number, most: number): number[] {
  const of = Math.max(1, Math.ceil(minutes / most))
  return Array.from({ length: of }, (_, i) => Math.floor(minutes / of) + (i < minutes % of ? 1 : 0))
}

/** The days a job may stand on, with who can do it: of its window and, where a person set one, of that day and after. */
function openShifts(
  job: ScheduleJob,
  garden: number,
  { shifts, gardens }: ScheduleProblem,
  rooms: readonly ShiftRoom[],
): OpenShift[] {
  const { pinnedTo } = job
  const { earliest, latest } = job.window
  return shifts.flatMap((shift, index) => {
    const isOpen = pinnedTo ? shift.day >= pinnedTo : shift.day >= earliest && shift.day <= latest
    if (!isOpen || (shift.gardenIds && !shift.gardenIds.includes(job.gardenId))) return []
    const left = rooms[index]!.left(gardens[garden]!.travelMinutes)
    const roomMin = roomFor(left, skillOf(job), job.hands ?? 1)
    return roomMin > 0 ? [{ index, shift, roomMin }] : []
  })
}

const skillOf = (job: ScheduleJob): number => (job.skill ? skills.indexOf(job.skill) : -1)

function partOf(
  { job, index, of, minutes, garden }: Pick<Part, 'job' | 'index' | 'of' | 'minutes' | 'garden'>,
  open: readonly OpenShift[],
  { gardens, unsuitable }: ScheduleProblem,
  days: Int32Array,
): Part {
  const { bestFrom, bestTo } = job.window
  const [bf, bt] = [dayNumber(bestFrom), dayNumber(bestTo)]
  const rate = scheduleCosts.rate[job.operation] / of
  const chances = (gardens[garden]!.unsuitable ?? unsuitable)[job.weather]
  const kept = job.keptOn?.[index]
  const [earliest, latest] = daysOfPart(job, index)
  const found: [shift: number, cost: number][] = []
  for (const { index: i, shift } of open) {
    const day = days[i]!
    if (day < earliest || day > latest) continue
    const outside = Math.max(0, bf - day, day - bt)
    const weather = scheduleCosts.badWeather * (chances?.[shift.day] ?? 0) * (minutes / job.minutes)
    const moved = kept !== undefined && kept !== shift.day ? scheduleCosts.moved : 0
    found.push([i, Math.round(rate * outside + weather) + moved])
  }
  const whole = job.pinnedTo
    ? PIN_PENALTY
    : Math.round(scheduleCosts.unplaced[job.operation] * (job.worth ?? 1))
  return {
    job,
    index,
    of,
    minutes,
    garden,
    skill: skillOf(job),
    hands: job.hands ?? 1,
    shifts: Int32Array.from(found, ([s]) => s),
    costs: Int32Array.from(found, ([, c]) => c),
    penalty: index === 0 ? whole : 0,
    before: [],
    after: [],
    earliest,
    latest,
  }
}

/** A person's day is that of the first part, be it in the window or not; the others follow as soon as parts do. */
function daysOfPart({ window, pinnedTo }: ScheduleJob, index: number): [earliest: number, latest: number] {
  const latest = dayNumber(window.latest)
  if (!pinnedTo) return [dayNumber(window.earliest), latest]
  const pin = dayNumber(pinnedTo)
  return [pin, index === 0 ? pin : Math.max(latest, pin + index * MOST_DAYS_BETWEEN_PARTS)]
}

function link(problem: ScheduleProblem, parts: Part[], partsOf: ReadonlyMap<string, number[]>): void {
  const jobs = new Map(problem.jobs.map((j) => [j.id, j]))
  const arc = (from: number, to: number, least: number, most: number) => {
    parts[to]!.before.push({ part: from, least, most })
    parts[from]!.after.push({ part: to, least, most })
  }
  for (const [id, own] of partsOf) {
    own.slice(1).forEach((part, i) => arc(own[i]!, part, 0, MOST_DAYS_BETWEEN_PARTS))
    for (const first of jobs.get(id)!.after) {
      const job = jobs.get(first.id)
      const most = first.mostDays ?? Infinity
      if (job?.doneOn) {
        const done = dayNumber(job.doneOn)
        const part = parts[own[0]!]!
        part.earliest = Math.max(part.earliest, done + first.leastDays)
        part.latest = Math.min(part.latest, done + most)
      } else {
        const before = partsOf.get(first.id)
        if (before) arc(before.at(-1)!, own[0]!, first.leastDays, most)
      }
    }
  }
}

/** Parts joined by order, each group with what comes first first. */
function group(parts: Part[]): { components: number[][]; componentOf: Int32Array } {
  const order: number[] = []
  const waiting = parts.map((p) => p.before.length)
  const ready = parts.flatMap((p, i) => (p.before.length === 0 ? [i] : []))
  for (let i = ready.shift(); i !== undefined; i = ready.shift()) {
    order.push(i)
    for (const { part } of parts[i]!.after) if (--waiting[part]! === 0) ready.push(part)
  }
  if (order.length < parts.length) {
    const stuck = parts.filter((_, i) => waiting[i]! > 0).map((p) => p.job.id)
    throw new RangeError(`Jobs wait for each other: ${[...new Set(stuck)].join(', ')}`)
  }
  const componentOf = new Int32Array(parts.length).fill(-1)
  const components: number[][] = []
  for (const i of order) {
    if (componentOf[i]! >= 0) continue
    const reached = new Set([i])
    const stack = [i]
    for (let at = stack.pop(); at !== undefined; at = stack.pop())
      for (const { part } of [...parts[at]!.before, ...parts[at]!.after])
        if (!reached.has(part)) {
          reached.add(part)
          stack.push(part)
        }
    const own = order.filter((p) => reached.has(p))
    for (const p of own) componentOf[p] = components.length
    components.push(own)
  }
  return { components, componentOf }
}
