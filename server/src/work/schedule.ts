import {
  addDays,
  aftercareDays,
  aftercareWindow,
  maxDay,
  minDay,
  gardenDay,
  RESCHEDULE_ROUNDS,
  tailDays,
  usually,
  weatherNeedOf,
  weatherNeeds,
  workingDays,
  type Crew,
  type IsoDate,
  type MovedJob,
  type PlacedJob,
  type ScheduleJob,
  type ScheduledGarden,
  type ScheduleProblem,
  type Schedule,
  type WorkingDay,
} from '@border/core'
import type { SeasonView, Versions } from '@border/contract'
import type { Db } from '../database/connect.ts'
import { hashOf } from '../hashOf.ts'
import { keyOf } from '../derived.ts'
import { findCrew, lockCrew } from '../store/crews.ts'
import { listCrewGardens, type WorkGarden } from '../store/gardens.ts'
import { listJobs, saveScheduled, setWindow, type Job } from '../store/jobs.ts'
import { versionsOf } from '../store/versions.ts'
import { findUnsuitable } from '../store/weather.ts'
import { findWorkedOut, setWorkedOut } from '../store/workedOut.ts'
import { outlookOf, unsuitableAhead } from './outlook.ts'
import type { ComputePool } from './compute.ts'

/** Days ahead that work is planned for, and that working days are told of. */
export const HORIZON_DAYS = 430

/** A crew's work as it stands: its gardens with their jobs, and the state that a plan of it rests on. */
export interface CrewSeason {
  crewId: string
  today: IsoDate
  crew: Crew
  gardens: { garden: WorkGarden; jobs: Job[] }[]
  problem: ScheduleProblem
  /** What the plan is made from, in one name. */
  basis: string
}

/** Today for a crew: the earliest day of its gardens, so that nothing that can still be done is passed over. */
export const crewDay = (gardens: readonly WorkGarden[], nowMs: number): IsoDate =>
  minDay(...gardens.map((g) => gardenDay(g.standsAt, g.timeZone, nowMs)))

/** Jobs, days, people and weather of all gardens of a crew, as the planner sees them. */
export async function crewSeason(db: Db, crewId: string, nowMs: number): Promise<CrewSeason | undefined> {
  const found = await listCrewGardens(db, crewId)
  if (found.length === 0) return undefined
  const today = crewDay(found, nowMs)
  const versions = await versionsOfAll(db, found)
  const crew = await findCrew(db, crewId)
  const days = workingDays(crew, today, addDays(today, HORIZON_DAYS))
  const gardens: CrewSeason['gardens'] = []
  const planned: ScheduledGarden[] = []
  for (const garden of found) {
    gardens.push({ garden, jobs: await listJobs(db, garden.id) })
    planned.push(await scheduledGarden(db, garden, days, today))
  }
  const problem: ScheduleProblem = {
    gardens: planned,
    shifts: days.map(({ day, people }) => ({ id: day, day, people })),
    jobs: gardens.flatMap((g) => scheduleJobsOf(g.garden, g.jobs, days, today)),
    unsuitable: {},
  }
  return { crewId, today, crew, gardens, problem, basis: basisOf(found, versions, planned, today) }
}

async function versionsOfAll(db: Db, gardens: readonly WorkGarden[]): Promise<Versions[]> {
  const all: Versions[] = []
  for (const g of gardens) all.push(await versionsOf(db, g.id))
  return all
}

/** @param planned with the weather, which comes from outside and has no version */
const basisOf = (
  gardens: readonly WorkGarden[],
  versions: readonly Versions[],
  planned: readonly ScheduledGarden[],
  today: IsoDate,
): string =>
  hashOf([
    gardens.map((g, i) => keyOf('schedule', g.id, versions[i]!, [today])),
    planned.map((p) => p.unsuitable),
  ])

async function scheduledGarden(
  db: Db,
  garden: WorkGarden,
  days: readonly WorkingDay[],
  today: IsoDate,
): Promise<ScheduledGarden> {
  const usual = await findUnsuitable(db, garden)
  // By the forecast as far as it reaches, by what is usual beyond.
  const ahead = unsuitableAhead(await outlookOf(db, garden, today))
  return {
    id: garden.id,
    travelMinutes: garden.travelMinutes,
    unsuitable: Object.fromEntries(
      weatherNeeds
        .filter((need) => need !== 'none' && usual[need])
        .map((need) => [
          need,
          Object.fromEntries(
            days.map((d) => [d.day, ahead.get(d.day)?.[need] ?? usually(usual[need]!, d.day)]),
          ),
        ]),
    ),
  }
}

/** The jobs of a garden that are still to be done, and of those done what others wait for. */
function scheduleJobsOf(
  garden: WorkGarden,
  all: readonly Job[],
  days: readonly WorkingDay[],
  today: IsoDate,
): ScheduleJob[] {
  const jobs = new Map(all.filter((j) => j.state !== 'dropped').map((j) => [j.id, j]))
  const awaited = new Set([...jobs.values()].flatMap((j) => j.after.map((o) => o.id)))
  const worked = new Set(days.map((d) => d.day))
  // What opens only beyond the last day that is planned has no day yet.
  const horizon = addDays(today, HORIZON_DAYS)
  return [...jobs.values()]
    .filter((j) => (j.state === 'open' ? j.window.earliest <= horizon : awaited.has(j.id)))
    .map((j) => {
      const window = j.kind === 'aftercare' ? lookWindow(j, jobs) : j.window
      const earliest = maxDay(window.earliest, today)
      return {
        id: j.id,
        identity: identityOf(garden, j),
        gardenId: garden.id,
        operation: j.kind,
        minutes: j.minutes,
        window: {
          earliest,
          bestFrom: maxDay(window.bestFrom, earliest),
          bestTo: maxDay(window.bestTo, earliest),
          latest: window.latest,
        },
        weather: weatherNeedOf(j.kind, j.details.forbids),
        skill: j.details.skill ?? null,
        after: j.after,
        // A day set by a person that is no longer worked frees the job.
        pinnedTo: j.pinnedOn && worked.has(j.pinnedOn) ? j.pinnedOn : null,
        ...(j.sittings.length > 0 && { keptOn: j.sittings.map((s) => s.day) }),
        doneOn: j.done?.on ?? null,
        nextChance: j.nextChance,
      }
    })
}

/** What a job is, by garden, rule, season, turn and tags: the same in every copy of a garden. */
const identityOf = ({ name }: WorkGarden, j: Job): string =>
  [
    name,
    j.ruleId ?? j.kind,
    j.ruleKey?.split('/').slice(1, -1).join('/') ?? j.key,
    j.title,
    j.plantings.map((p) => p.tag).join(' '),
  ].join('|')

/** A look may be on any day that its move may bring with it; the order says how long after. */
function lookWindow(look: Job, jobs: ReadonlyMap<string, Job>): Job['window'] {
  const move = jobs.get(look.after[0]?.id ?? '')
  const days = aftercareDays(look.key)
  if (!move || move.done || days === undefined) return look.window
  const earliest = addDays(move.window.earliest, days - 2)
  const latest = addDays(move.window.latest, days + tailDays(days))
  return { ...look.window, earliest, bestFrom: earliest, bestTo: latest, latest }
}

/**
 * Puts every open job of a crew's gardens on a day, where what that is made from has changed, moving as little as may be of the
 * plan that stands: worked out on a thread without holding anything, and written down in a moment if nothing has moved
 * meanwhile.
 *
 * @returns what it moved; undefined where something has moved meanwhile, and it is to be tried again
 */
export async function reschedule(
  db: Db,
  pool: ComputePool,
  crewId: string,
  nowMs: number,
): Promise<MovedJob[] | undefined> {
  const season = await crewSeason(db, crewId, nowMs)
  if (!season) return []
  const [first] = season.gardens
  if ((await findWorkedOut(db, first!.garden.id)).scheduleBasis === season.basis) return []
  const plan = await pool.run('schedule', { problem: season.problem, rounds: RESCHEDULE_ROUNDS })
  return (await takeSchedule(db, season, plan)) ? plan.moved : undefined
}

/**
 * Writes a plan down, if the season still stands as it was planned.
 *
 * @returns false where it does not
 */
export async function takeSchedule(
  db: Db,
  season: CrewSeason,
  plan: Pick<Schedule, 'placed' | 'unplaced'>,
): Promise<boolean> {
  return db.transaction(async (trx) => {
    await lockCrew(trx, season.crewId)
    const gardens = season.gardens.map((g) => g.garden)
    const basisNow = async () =>
      basisOf(gardens, await versionsOfAll(trx, gardens), season.problem.gardens, season.today)
    if ((await basisNow()) !== season.basis) return false
    const placed = new Map(plan.placed.map((p) => [p.id, p]))
    const unplaced = new Map(plan.unplaced.map((u) => [u.id, u]))
    for (const { garden, jobs } of season.gardens) {
      const open = jobs.filter((j) => j.state === 'open')
      for (const look of open) await followMove(trx, look, placed.get(look.after[0]?.id ?? '')?.parts[0]?.day)
      await saveScheduled(
        trx,
        garden.id,
        open,
        open.flatMap((j) => {
          const why = unplaced.get(j.id)
          const at = placed.get(j.id)
          if (!at && !why) return []
          return [
            {
              id: j.id,
              sittings: at ? at.parts.map(({ day, minutes }) => ({ day, minutes })) : [],
              unplaced: why ? { reason: why.reason, shortMinutes: why.shortMinutes } : null,
            },
          ]
        }),
      )
    }
    // Looks whose windows followed their moves are part of the plan, not a reason to plan again.
    await setWorkedOut(trx, gardens[0]!.id, { scheduleBasis: await basisNow() })
    return true
  })
}

/** A look's window moved with its move's planned day. A move that is done has set it already. */
async function followMove(trx: Db, look: Job, planned: IsoDate | undefined): Promise<void> {
  const days = aftercareDays(look.key)
  if (look.kind !== 'aftercare' || !planned || days === undefined) return
  const window = aftercareWindow(planned, days)
  if (window.earliest === look.window.earliest) return
  await setWindow(trx, look.id, window)
  Object.assign(look, { sittings: [], unplaced: null })
}

/** Days on which a garden's crew works, and what of each its other gardens and the way take. */
export async function workingDaysOf(
  db: Db,
  { id: gardenId, crewId }: { id: string; crewId: string },
  from: IsoDate,
  to: IsoDate,
): Promise<SeasonView['workingDays']> {
  const days = workingDays(await findCrew(db, crewId), from, to)
  const people = new Map(days.map((d) => [d.day, d.people.length]))
  const taken = new Map<IsoDate, number>()
  const take = (day: IsoDate, minutes: number) => taken.set(day, (taken.get(day) ?? 0) + minutes)
  for (const garden of await listCrewGardens(db, crewId)) {
    const sittings = await db('job_sittings')
      .where({ garden_id: garden.id })
      .select<{ day: IsoDate; minutes: number }[]>('day', 'minutes')
    if (garden.id !== gardenId) for (const s of sittings) take(s.day, s.minutes)
    for (const day of new Set(sittings.map((s) => s.day)))
      take(day, garden.travelMinutes * (people.get(day) ?? 0))
  }
  return days.map((d) => ({
    day: d.day,
    minutes: d.minutes,
    elsewhere: taken.get(d.day) ?? 0,
    people: d.people.map((p) => p.name),
  }))
}

/** The days that jobs have now, as a plan: what "why here" is asked of. */
export const placedNow = (problem: ScheduleProblem): PlacedJob[] =>
  problem.jobs.flatMap((j): PlacedJob[] =>
    j.keptOn && !j.doneOn
      ? [
          {
            id: j.id,
            parts: j.keptOn.map((day) => ({ day, shiftId: day, minutes: 0 })),
            inBest: j.keptOn.every((d) => d >= j.window.bestFrom && d <= j.window.bestTo),
          },
        ]
      : [],
  )
