import {
  addDays,
  aftercareDays,
  aftercareWindow,
  maxDay,
  placeJobs,
  workingDays,
  type IsoDate,
  type SchedulableJob,
  type Unplaced,
  type WorkingDay,
} from '@border/core'
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
import { findWorkingPattern } from '../store/workingTime.ts'

const HORIZON_DAYS = 550

/**
 * Puts every open job of a garden on a day. A job that has a day keeps it while it still can. Looks after a move follow
 * the day the move is planned for, so they are placed second, in the time that the work itself leaves.
 */
export async function planSeason(trx: Db, gardenId: string, today: IsoDate): Promise<void> {
  const rows = (await listJobRows(trx, gardenId)).filter((r) => r.state !== 'dropped')
  const order = await listJobOrder(trx, gardenId)
  const done = new Map((await listDone(trx, gardenId)).map((d) => [d.jobId, d.on]))
  const days = workingDays(await findWorkingPattern(trx, gardenId), today, addDays(today, HORIZON_DAYS))
  const schedulable = (r: JobRow): SchedulableJob => ({
    id: r.id,
    minutes: r.minutes,
    window: { ...r.plan.window, earliest: maxDay(r.plan.window.earliest, today) },
    after: order.filter((o) => o.afterId === r.id).map((o) => ({ ...o, id: o.beforeId })),
    pinnedTo: r.pinned ? r.planned_on : null,
    keptOn: r.planned_on,
    doneOn: done.get(r.id) ?? null,
  })
  const work = rows.filter((r) => r.kind !== 'aftercare').map(schedulable)
  const workPlan = placeJobs(work, days)
  const dayOf = new Map(workPlan.placed.map((p) => [p.id, p.day]))
  const looks: JobRow[] = []
  for (const r of rows.filter((r) => r.kind === 'aftercare'))
    looks.push(await followMove(trx, r, order, dayOf))

  const settled = work
    .map((j) => ({ ...j, doneOn: j.doneOn ?? dayOf.get(j.id) ?? null }))
    .filter((j) => j.doneOn)
  const lookPlan = placeJobs([...settled, ...looks.map(schedulable)], timeLeft(days, work, dayOf))
  const placed = new Map([...workPlan.placed, ...lookPlan.placed].map((p) => [p.id, p.day]))
  const unplaced = new Map([...workPlan.unplaced, ...lookPlan.unplaced].map((u) => [u.id, u]))
  for (const r of [...rows.filter((r) => r.kind !== 'aftercare'), ...looks]) {
    if (r.state !== 'open') continue
    const why = unplaced.get(r.id)
    await setPlanned(trx, r, placed.get(r.id) ?? null, why ? unplacedWords(why) : null)
  }
}

/** A look's window moved with its move's planned day; the look as it now is. A move that is done has set it already. */
async function followMove(
  trx: Db,
  look: JobRow,
  order: readonly JobOrderRow[],
  dayOf: ReadonlyMap<string, IsoDate>,
): Promise<JobRow> {
  const moveId = order.find((o) => o.afterId === look.id)?.beforeId
  const planned = moveId && dayOf.get(moveId)
  if (look.state !== 'open' || !planned) return look
  const window = aftercareWindow(planned, aftercareDays[look.key]!)
  if (window.earliest === look.plan.window.earliest) return look
  return setWindow(trx, look, window)
}

function timeLeft(
  days: readonly WorkingDay[],
  work: readonly SchedulableJob[],
  dayOf: ReadonlyMap<string, IsoDate>,
): WorkingDay[] {
  const minutes = new Map(work.map((j) => [j.id, j.minutes]))
  const used = new Map<IsoDate, number>()
  for (const [id, day] of dayOf) used.set(day, (used.get(day) ?? 0) + (minutes.get(id) ?? 0))
  return days.map((d) => ({ ...d, minutes: d.minutes - (used.get(d.day) ?? 0) }))
}

function unplacedWords(u: Unplaced): string {
  switch (u.reason) {
    case 'no-working-day':
      return 'No working day falls in its window: add one in Set-up.'
    case 'days-full':
      return `The working days in its window are full: ${u.shortMinutes} minutes short on the emptiest.`
    case 'waits-for-unplaced':
      return 'It waits for a job that has no day yet.'
    case 'order-leaves-no-day':
      return 'What comes before it leaves no day inside its window.'
  }
}
