import {
  addDays,
  aftercareDays,
  aftercareWindow,
  dayMonthYear,
  maxDay,
  REPLAN_ROUNDS,
  skills,
  tailDays,
  usually,
  weatherNeedOf,
  weatherNeeds,
  workingDays,
  type IsoDate,
  type PlacedJob,
  type PlanJob,
  type PlanProblem,
  type SeasonPlan,
  type UnplacedJob,
} from '@border/core'
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
import { findUnsuitable } from '../store/weather.ts'
import { findWorkingPattern } from '../store/workingTime.ts'
import { outlookOf, unsuitableAhead } from './outlook.ts'

const HORIZON_DAYS = 430

export type PlannedFor = Pick<GardenAccess, 'id' | 'stationId' | 'latitude' | 'longitude'>

/** Jobs, days, people and weather of a garden as the planner sees them. */
export async function seasonProblem(db: Db, garden: PlannedFor, today: IsoDate): Promise<PlanProblem> {
  const rows = (await listJobRows(db, garden.id)).filter((r) => r.state !== 'dropped')
  const order = await listJobOrder(db, garden.id)
  const done = new Map((await listDone(db, garden.id)).map((d) => [d.jobId, d.on]))
  const days = workingDays(await findWorkingPattern(db, garden.id), today, addDays(today, HORIZON_DAYS))
  const usual = await findUnsuitable(db, garden.stationId)
  // By the forecast as far as it reaches, by what is usual beyond.
  const ahead = unsuitableAhead(await outlookOf(db, garden, today))
  const awaited = new Set(order.map((o) => o.beforeId))
  const known = { rows, order, done, days: new Set(days.map((d) => d.day)) }
  return {
    gardens: [{ id: garden.id, travelMinutes: 0 }],
    shifts: days.map((d) => ({
      id: d.day,
      day: d.day,
      people: [{ id: 'crew', minutes: d.minutes, skills: [...skills] }],
    })),
    // What is done matters only to what follows it.
    jobs: rows
      .filter((r) => r.state === 'open' || awaited.has(r.id))
      .map((r) => planJob(r, known, garden.id, today)),
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
 * Puts every open job of a garden on a day, off the event loop, moving as little as may be of the plan that stands. Run
 * inside a transaction that holds the garden.
 */
export async function planSeason(trx: Db, pool: Piscina, garden: PlannedFor, today: IsoDate): Promise<void> {
  const problem = await seasonProblem(trx, garden, today)
  const plan: SeasonPlan = await pool.run({ problem, rounds: REPLAN_ROUNDS }, { name: 'plan' })
  await takePlan(trx, garden.id, plan, today)
}

/** Writes a plan down: days, sittings, and why what has none has none. */
export async function takePlan(
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
      return `No working day falls in its window: add one in Set-up.${next}`
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
