import type { SeasonPlan } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

export type PlanRunState = 'queued' | 'running' | 'ready' | 'taken' | 'dropped' | 'failed'

export interface PlanRunRow {
  id: string
  /** Where it was asked for. */
  garden_id: string
  crew_id: string
  state: PlanRunState
  today: string
  progress: number
  basis: string | null
  result: SeasonPlan | null
  failure: string | null
}

const columns: (keyof PlanRunRow)[] = [
  'id',
  'garden_id',
  'crew_id',
  'state',
  'today',
  'progress',
  'basis',
  'result',
  'failure',
]

/** @returns the run that is under way already, or a new one */
export async function startPlanRun(
  db: Db,
  run: { gardenId: string; crewId: string; today: string; personId: string | null },
): Promise<{ id: string; isNew: boolean }> {
  const id = randomUUID()
  const made = await db('plan_runs')
    .insert({ id, garden_id: run.gardenId, crew_id: run.crewId, today: run.today, person_id: run.personId })
    .onConflict(db.raw(`(crew_id) where state in ('queued', 'running')`))
    .ignore()
    .returning('id')
  if (made.length > 0) return { id, isNew: true }
  const under = await db('plan_runs')
    .where({ crew_id: run.crewId })
    .whereIn('state', ['queued', 'running'])
    .first('id')
  return under ? { id: under.id, isNew: false } : startPlanRun(db, run)
}

export const findPlanRun = async (db: Db, id: string): Promise<PlanRunRow | undefined> =>
  db('plan_runs').where({ id }).first<PlanRunRow | undefined>(columns)

/** The latest run of a crew that somebody may still look at. */
export const latestPlanRun = async (db: Db, crewId: string): Promise<PlanRunRow | undefined> =>
  db('plan_runs')
    .where({ crew_id: crewId })
    .orderBy('created_at', 'desc')
    .first<PlanRunRow | undefined>(columns)

/** Changes a run that is still in one of the states it may be changed from; tells whether it was. */
export async function changePlanRun(
  db: Db,
  id: string,
  from: readonly PlanRunState[],
  to: Partial<Omit<PlanRunRow, 'id' | 'garden_id' | 'crew_id' | 'result'>> & { result?: SeasonPlan },
): Promise<boolean> {
  const { result, ...rest } = to
  const changed = await db('plan_runs')
    .where({ id })
    .whereIn('state', from)
    .update({ ...rest, ...(result && { result: JSON.stringify(result) }), changed_at: db.fn.now() })
  return changed > 0
}

/** Takes the run that has waited longest for this process. */
export async function claimPlanRun(db: Db): Promise<string | undefined> {
  const { rows } = await db.raw<{ rows: { id: string }[] }>(
    `update plan_runs set state = 'running', changed_at = clock_timestamp()
     where id = (select id from plan_runs where state = 'queued' order by created_at limit 1 for update skip locked)
     returning id`,
  )
  return rows[0]?.id
}
