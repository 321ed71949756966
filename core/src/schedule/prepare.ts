import { dayNumber } from '../dates/index.ts'
import { skills } from '../care/index.ts'
import {
  MOST_DAYS_BETWEEN_PARTS,
  MOST_PART_MINUTES,
  scheduleCosts,
  type ScheduleJob,
  type ScheduleProblem,
} from './problem.ts'

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
  /** Shifts it could be in, ascending, and what each costs by itself. */
  shifts: Int32Array
  costs: Int32Array
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
  /** Person-minutes of each shift. */
  capacity: Int32Array
  /** Of the people who have any skill of a set: by shift, then by set of skills as bits. */
  skilled: Int32Array
  /** Of the people who have any skill of a set, how many. */
  skilledPeople: Int32Array
  people: Int32Array
  /** By garden, minutes of each person. */
  travel: Int32Array
  gardens: number
  /** Groups of parts joined by order, in an order that puts what comes first first. */
  components: number[][]
  componentOf: Int32Array
}

/** A person's word gives way to nothing but another person's. */
const PIN_PENALTY = 1_000_000

const SKILLS = skills.length
/** How many sets of skills there are: each is a bit mask of the skills in it. */
export const SKILL_SETS = 1 << SKILLS

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
  const skilled = new Int32Array(shifts.length * SKILL_SETS)
  const skilledPeople = new Int32Array(shifts.length * SKILL_SETS)
  shifts.forEach((s, i) => {
    for (let set = 1; set < SKILL_SETS; set++) {
      const able = s.people.filter((p) => p.skills.some((k) => set & (1 << skills.indexOf(k))))
      skilled[i * SKILL_SETS + set] = able.reduce((sum, p) => sum + p.minutes, 0)
      skilledPeople[i * SKILL_SETS + set] = able.length
    }
  })
  const capacity = Int32Array.from(shifts, (s) => s.people.reduce((sum, p) => sum + p.minutes, 0))
  const people = Int32Array.from(shifts, (s) => s.people.length)
  const roomiestDay = problem.gardens.map((g) =>
    shifts.reduce((most, _, i) => Math.max(most, capacity[i]! - g.travelMinutes * people[i]!), 0),
  )
  const partsOf = new Map<string, number[]>()
  const parts: Part[] = []
  for (const job of sorted.jobs) {
    if (job.doneOn) continue
    const garden = gardenIndex.get(job.gardenId)
    if (garden === undefined) throw new RangeError(`Job ${job.id}: there is no garden ${job.gardenId}`)
    const roomiest = roomiestDay[garden]!
    const most = Math.max(15, Math.min(MOST_PART_MINUTES, roomiest))
    const of = Math.max(1, Math.ceil(job.minutes / most))
    const own: number[] = []
    for (let index = 0; index < of; index++) {
      own.push(parts.length)
      const minutes = Math.floor(job.minutes / of) + (index < job.minutes % of ? 1 : 0)
      parts.push(partOf(job, index, of, minutes, garden, sorted, days))
    }
    partsOf.set(job.id, own)
  }
  link(sorted, parts, partsOf)
  const { components, componentOf } = group(parts)
  return {
    problem: sorted,
    parts,
    partsOf,
    days,
    capacity,
    skilled,
    skilledPeople,
    people,
    travel: Int32Array.from(problem.gardens, (g) => g.travelMinutes),
    gardens: problem.gardens.length,
    components,
    componentOf,
  }
}

function partOf(
  job: ScheduleJob,
  index: number,
  of: number,
  minutes: number,
  garden: number,
  { gardens, shifts, unsuitable }: ScheduleProblem,
  days: Int32Array,
): Part {
  const { earliest, bestFrom, bestTo, latest } = job.window
  const [e, bf, bt, l] = [earliest, bestFrom, bestTo, latest].map(dayNumber) as [
    number,
    number,
    number,
    number,
  ]
  const skill = job.skill ? skills.indexOf(job.skill) : -1
  const rate = scheduleCosts.rate[job.operation] / of
  const chances = (gardens[garden]!.unsuitable ?? unsuitable)[job.weather]
  const kept = job.keptOn?.[index]
  const found: [shift: number, cost: number][] = []
  shifts.forEach((s, i) => {
    const day = days[i]!
    if (job.pinnedTo ? s.day !== job.pinnedTo : day < e || day > l) return
    if (s.gardenIds && !s.gardenIds.includes(job.gardenId)) return
    if (s.people.length < (job.hands ?? 1)) return
    if (skill >= 0 && !s.people.some((p) => p.skills.includes(skills[skill]!))) return
    const outside = Math.max(0, bf - day, day - bt)
    const weather = scheduleCosts.badWeather * (chances?.[s.day] ?? 0) * (minutes / job.minutes)
    const moved = kept !== undefined && kept !== s.day ? scheduleCosts.moved : 0
    found.push([i, Math.round(rate * outside + weather) + moved])
  })
  return {
    job,
    index,
    of,
    minutes,
    garden,
    skill,
    shifts: Int32Array.from(found, ([s]) => s),
    costs: Int32Array.from(found, ([, c]) => c),
    penalty: job.pinnedTo
      ? PIN_PENALTY
      : Math.round((scheduleCosts.unplaced[job.operation] * (job.worth ?? 1)) / of),
    before: [],
    after: [],
    earliest: e,
    latest: l,
  }
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
