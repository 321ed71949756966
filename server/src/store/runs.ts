import type { RunState } from '@border/contract'
import type { MovedJob, Schedule } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

/** Kinds of long work, each with what it leaves behind. */
export interface RunResults {
  /** The work of the rules and the plan brought up to date after a change: what it moved, over all gardens of the crew. */
  follow: { moved: MovedJob[] }
  /** A whole season's plan, to be looked at. */
  season: Schedule
  /** Gardens gone through once a day. */
  night: { gardens: string[] }
}
/** What can be worked out in the background. */
export type RunKind = keyof RunResults

/** Work in the background: how far it is, and what came of it. */
export interface Run<K extends RunKind = RunKind> {
  id: string
  kind: K
  crewId: string
  /** Where it was asked for. */
  gardenId: string | null
  state: RunState
  progress: number
  basis: string | null
  result: RunResults[K] | null
  failure: string | null
  changedAt: Date
}

const columns = [
  'id',
  'kind',
  'crew_id as crewId',
  'garden_id as gardenId',
  'state',
  'progress',
  'basis',
  'result',
  'failure',
  'changed_at as changedAt',
]

/** Asks for work of a kind for a crew. @returns the run that waits already, or a new one */
export async function queueRun(
  db: Db,
  run: { kind: RunKind; crewId: string; gardenId?: string | null; personId?: string | null },
): Promise<string> {
  const { rows } = await db.raw<{ rows: { id: string }[] }>(
    `insert into runs (id, kind, crew_id, garden_id, person_id) values (:id, :kind, :crewId, :gardenId, :personId)
     on conflict (crew_id, kind) where state = 'queued' do update set changed_at = clock_timestamp()
     returning id`,
    { id: randomUUID(), gardenId: null, personId: null, ...run },
  )
  return rows[0]!.id
}

/** A run by id. */
export const findRun = (db: Db, id: string): Promise<Run | undefined> =>
  db('runs').where({ id }).first<Run | undefined>(columns)

/** The latest run of a kind for a crew. */
export const latestRun = <K extends RunKind>(db: Db, crewId: string, kind: K): Promise<Run<K> | undefined> =>
  db('runs').where({ crew_id: crewId, kind }).orderBy('created_at', 'desc').first<Run<K> | undefined>(columns)

/** The latest run for a crew that moved anything. */
export const latestMoved = (db: Db, crewId: string): Promise<Run<'follow'> | undefined> =>
  db('runs')
    .where({ crew_id: crewId, kind: 'follow', state: 'taken' })
    .whereRaw(`jsonb_array_length(result -> 'moved') > 0`)
    .orderBy('created_at', 'desc')
    .first<Run<'follow'> | undefined>(columns)

/** Whether work of a kind waits or is under way for a crew. */
export const isUnderWay = async (db: Db, crewId: string, kind: RunKind): Promise<boolean> =>
  (await db('runs').where({ crew_id: crewId, kind }).whereIn('state', ['queued', 'running']).first('id')) !==
  undefined

/** Takes a run that waits for this process. @returns undefined when another has it */
export async function claimRun(db: Db, id: string): Promise<Run | undefined> {
  const [run] = await db('runs')
    .where({ id, state: 'queued' })
    .update({ state: 'running', changed_at: db.fn.now() })
    .returning<Run[]>(columns)
  return run
}

/** Changes a run that is still in one of the states it may be changed from; tells whether it was. */
export async function changeRun<K extends RunKind>(
  db: Db,
  id: string,
  from: readonly RunState[],
  to: Partial<Pick<Run<K>, 'state' | 'progress' | 'basis' | 'failure'>> & { result?: RunResults[K] },
): Promise<boolean> {
  const { result, ...rest } = to
  const changed = await db('runs')
    .where({ id })
    .whereIn('state', from)
    .update({ ...rest, ...(result && { result: JSON.stringify(result) }), changed_at: db.fn.now() })
  return changed > 0
}

/** Runs whose process was lost wait again, and what has long been looked at is forgotten. */
export async function tidyRuns(db: Db, lostAfterMinutes: number, keptDays: number): Promise<string[]> {
  const lost = await db('runs')
    .where({ state: 'running' })
    .whereRaw(`changed_at < now() - ? * interval '1 minute'`, [lostAfterMinutes])
    .update({ state: 'failed', failure: 'It was interrupted.' })
    .returning<Pick<Run, 'id' | 'kind' | 'crewId'>[]>(['id', 'kind', 'crew_id as crewId'])
  await db('runs')
    .whereNotIn('state', ['queued', 'running'])
    .whereRaw(`changed_at < now() - ? * interval '1 day'`, [keptDays])
    .delete()
  const again: string[] = []
  for (const { kind, crewId } of lost) again.push(await queueRun(db, { kind, crewId }))
  return again
}
