import { addDays, maxDay, placeJobs, workingDays, type Unplaced } from '@border/core'
import type { Db } from '../database/connect.ts'
import { listDone, listJobOrder, listJobRows, setPlanned } from '../store/jobs.ts'
import { findWorkingPattern } from '../store/workingTime.ts'

const HORIZON_DAYS = 550

/** Puts every open job of a garden on a day. A job that has a day keeps it while it still can. */
export async function planSeason(trx: Db, gardenId: string, today: string): Promise<void> {
  const rows = (await listJobRows(trx, gardenId)).filter((r) => r.state !== 'dropped')
  const order = await listJobOrder(trx, gardenId)
  const done = new Map((await listDone(trx, gardenId)).map((d) => [d.jobId, d.on]))
  const pattern = await findWorkingPattern(trx, gardenId)
  const jobs = rows.map((r) => ({
    id: r.id,
    minutes: r.minutes,
    window: { ...r.plan.window, earliest: maxDay(r.plan.window.earliest, today) },
    after: order
      .filter((o) => o.afterId === r.id)
      .map((o) => ({ id: o.beforeId, leastDays: o.leastDays, mostDays: o.mostDays })),
    pinnedTo: r.planned_on,
    doneOn: done.get(r.id) ?? null,
  }))
  const plan = placeJobs(jobs, workingDays(pattern, today, addDays(today, HORIZON_DAYS)))
  const placed = new Map(plan.placed.map((p) => [p.id, p.day]))
  const unplaced = new Map(plan.unplaced.map((u) => [u.id, u]))
  for (const r of rows) {
    if (r.state !== 'open') continue
    const why = unplaced.get(r.id)
    await setPlanned(trx, r, placed.get(r.id) ?? null, why ? unplacedWords(why) : null)
  }
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
