import {
  addDays,
  aftercareDays,
  aftercareWindow,
  dayMonthYear,
  maxDay,
  REPLAN_ROUNDS,
  tailDays,
  usually,
  weatherNeedOf,
  weatherNeeds,
  workingDays,
  type WorkingDay,
  type IsoDate,
  type PlacedJob,
  type PlanJob,
  type PlannedGarden,
  type PlanProblem,
  type SeasonPlan,
  type UnplacedJob,
} from '@border/core'
import type { Replanned, SeasonView } from '@border/contract'
import type { Piscina } from 'piscina'
import type { Db } from '../database/connect.ts'
import {
  listDone,
  listJobOrder,
  listJobRows,
  setPlanned,
  setWindow,
  type JobOrderRow,
  type JobRow,
} from '../store/jobs.ts'
import type { GardenAccess } from '../store/gardens.ts'
import { crewIdOf, findCrew, listCrewGardens, type CrewGarden } from '../store/crews.ts'
import { findUnsuitable } from '../store/weather.ts'
import { bringCareUpToDate } from './careWork.ts'
import { outlookOf, unsuitableAhead } from './outlook.ts'

const HORIZON_DAYS = 430

/** Jobs, days, people and weather of all gardens of a crew, as the planner sees them. */
export async function seasonProblem(db: Db, crewId: string, today: IsoDate): Promise<PlanProblem> {
  const days = workingDays(await findCrew(db, crewId), today, addDays(today, HORIZON_DAYS))
  const gardens: PlannedGarden[] = []
  const jobs: PlanJob[] = []
  for (const garden of await listCrewGardens(db, crewId)) {
    gardens.push(await plannedGarden(db, garden, days, today))
    jobs.push(...(await planJobsOf(db, garden.id, days, today)))
  }
  return {
    gardens,
    shifts: days.map(({ day, people }) => ({ id: day, day, people })),
    jobs,
    unsuitable: {},
  }
}

async function plannedGarden(
  db: Db,
  garden: CrewGarden,
  days: readonly WorkingDay[],
  today: IsoDate,
): Promise<PlannedGarden> {
  const usual = await findUnsuitable(db, garden.stationId)
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

async function planJobsOf(
  db: Db,
  gardenId: string,
  days: readonly WorkingDay[],
  today: IsoDate,
): Promise<PlanJob[]> {
  const rows = (await listJobRows(db, gardenId)).filter((r) => r.state !== 'dropped')
  const order = await listJobOrder(db, gardenId)
  const done = new Map((await listDone(db, gardenId)).map((d) => [d.jobId, d.on]))
  const awaited = new Set(order.map((o) => o.beforeId))
  const known = { rows, order, done, days: new Set(days.map((d) => d.day)) }
  // What is done matters only to what follows it.
  return rows
    .filter((r) => r.state === 'open' || awaited.has(r.id))
    .map((r) => planJob(r, known, gardenId, today))
}

function planJob(
  r: JobRow,
  {
    rows,
    order,
    done,
    days,
  }: {
    rows: readonly JobRow[]
    order: readonly JobOrderRow[]
    done: ReadonlyMap<string, IsoDate>
    days: ReadonlySet<IsoDate>
  },
  gardenId: string,
  today: IsoDate,
): PlanJob {
  const window = r.kind === 'aftercare' ? lookWindow(r, rows, order, done) : r.plan.window
  const earliest = maxDay(window.earliest, today)
  return {
    id: r.id,
    gardenId,
    operation: r.kind,
    minutes: r.minutes,
    window: {
      earliest,
      bestFrom: maxDay(window.bestFrom, earliest),
      bestTo: maxDay(window.bestTo, earliest),
      latest: window.latest,
    },
    weather: weatherNeedOf(r.kind, r.plan.forbids),
    skill: r.plan.skill ?? null,
    after: order
      .filter((o) => o.afterId === r.id)
      .map((o) => ({ id: o.beforeId, leastDays: o.leastDays, mostDays: o.mostDays })),
    // A day set by a person that is no longer worked frees the job.
    pinnedTo: r.pinned && days.has(r.planned_on ?? '') ? r.planned_on : null,
    ...(r.planned_on && { keptOn: r.parts?.map((p) => p.day) ?? [r.planned_on] }),
    doneOn: done.get(r.id) ?? null,
    nextChance: r.next_chance,
  }
}

/** A look may be on any day that its move may bring with it; the order says how long after. */
function lookWindow(
  look: JobRow,
  rows: readonly JobRow[],
  order: readonly JobOrderRow[],
  done: ReadonlyMap<string, IsoDate>,
): JobRow['plan']['window'] {
  const moveId = order.find((o) => o.afterId === look.id)?.beforeId
  const move = rows.find((r) => r.id === moveId)
  const days = aftercareDays[look.key]
  if (!move || done.has(move.id) || days === undefined) return look.plan.window
  const earliest = addDays(move.plan.window.earliest, days - 2)
  const latest = addDays(move.plan.window.latest, days + tailDays(days))
  return { ...look.plan.window, earliest, bestFrom: earliest, bestTo: latest, latest }
}

/**
 * Puts every open job of a garden, and of the others that its crew looks after, on a day, off the event loop, moving as
 * little as may be of the plan that stands. Run inside a transaction that holds the garden.
 */
export async function planSeason(
  trx: Db,
  pool: Piscina,
  garden: Pick<GardenAccess, 'id'>,
  today: IsoDate,
): Promise<SeasonPlan> {
  const problem = await seasonProblem(trx, await crewIdOf(trx, garden.id), today)
  const plan: SeasonPlan = await pool.run({ problem, rounds: REPLAN_ROUNDS }, { name: 'plan' })
  await takePlan(trx, problem, plan, today)
  return plan
}

/** Brings the work of the rules up to date, then plans. Run inside a transaction that holds the garden. */
export async function careAndPlan(
  trx: Db,
  pool: Piscina,
  garden: GardenAccess,
  today: IsoDate,
): Promise<void> {
  await bringCareUpToDate(trx, pool, garden, today)
  await planSeason(trx, pool, garden, today)
}

/** What a plan moved in one garden. */
export async function replanned(
  db: Db,
  gardenId: string,
  { moved }: Pick<SeasonPlan, 'moved'>,
): Promise<Replanned> {
  const titles = new Map((await listJobRows(db, gardenId)).map((r) => [r.id, r.title]))
  return {
    moved: moved.flatMap(({ id, from, to, says }) => {
      const title = titles.get(id)
      return title === undefined ? [] : [{ jobId: id, title, from, to, says }]
    }),
  }
}

/** Writes a plan down: days, sittings, and why what has none has none. */
export async function takePlan(
  trx: Db,
  { gardens }: Pick<PlanProblem, 'gardens'>,
  plan: Pick<SeasonPlan, 'placed' | 'unplaced'>,
  today: IsoDate,
): Promise<void> {
  for (const { id } of gardens) await takePlanOf(trx, id, plan, today)
}

async function takePlanOf(
  trx: Db,
  gardenId: string,
  plan: Pick<SeasonPlan, 'placed' | 'unplaced'>,
  today: IsoDate,
): Promise<void> {
  const rows = (await listJobRows(trx, gardenId)).filter((r) => r.state === 'open')
  const order = await listJobOrder(trx, gardenId)
  const placed = new Map(plan.placed.map((p) => [p.id, p]))
  const unplaced = new Map(plan.unplaced.map((u) => [u.id, u]))
  for (const r of rows) {
    const at = placed.get(r.id)
    const why = unplaced.get(r.id)
    if (!at && !why) continue
    const look = await followMove(trx, r, order, placed.get(moveOf(r, order) ?? '')?.parts[0]?.day)
    await setPlanned(
      trx,
      look,
      at ? at.parts.map(({ day, minutes }) => ({ day, minutes })) : null,
      why ? unplacedWords(why, r, today) : null,
    )
  }
}

const moveOf = (r: JobRow, order: readonly JobOrderRow[]) =>
  r.kind === 'aftercare' ? order.find((o) => o.afterId === r.id)?.beforeId : undefined

/** A look's window moved with its move's planned day; the job as it now is. A move that is done has set it already. */
async function followMove(
  trx: Db,
  look: JobRow,
  order: readonly JobOrderRow[],
  planned: IsoDate | undefined,
): Promise<JobRow> {
  if (!planned || moveOf(look, order) === undefined) return look
  const window = aftercareWindow(planned, aftercareDays[look.key]!)
  return window.earliest === look.plan.window.earliest ? look : setWindow(trx, look, window)
}

function unplacedWords(u: UnplacedJob, job: JobRow, today: IsoDate): string {
  const next = u.nextChance ? ` Its next chance is from ${dayMonthYear(u.nextChance)}.` : ''
  const { latest } = job.plan.window
  if (latest < today) return `Too late since ${dayMonthYear(latest)}.${next}`
  switch (u.reason) {
    case 'no-working-day':
      return `Nobody works on any day of its window: see the crew in Set-up.${next}`
    case 'no-skill':
      return `Nobody with the skill for it has time in its window.${next}`
    case 'days-full':
      return `The working days in its window are full: ${u.shortMinutes} minutes short on the emptiest.${next}`
    case 'waits-for-unplaced':
      return 'It waits for a job that has no day yet.'
    case 'order-leaves-no-day':
      return `What comes before it leaves no day inside its window.${next}`
    case 'costs-more':
      return `Fitting it in would cost more than it is worth: it would push out or spoil other work.${next}`
  }
}

/** Days on which a garden's crew works, and what of each its other gardens and the way take. */
export async function workingDaysOf(
  db: Db,
  gardenId: string,
  from: IsoDate,
  to: IsoDate,
): Promise<SeasonView['workingDays']> {
  const crewId = await crewIdOf(db, gardenId)
  const days = workingDays(await findCrew(db, crewId), from, to)
  const people = new Map(days.map((d) => [d.day, d.people.length]))
  const taken = new Map<IsoDate, number>()
  const take = (day: IsoDate, minutes: number) => taken.set(day, (taken.get(day) ?? 0) + minutes)
  for (const garden of await listCrewGardens(db, crewId)) {
    const sittings = (await listJobRows(db, garden.id)).flatMap((r) =>
      r.state === 'open' ? (r.parts ?? []) : [],
    )
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
export const placedNow = (problem: PlanProblem): PlacedJob[] =>
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
