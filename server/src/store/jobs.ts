import type { DecisionRecord, JobRecord, MoveTarget, StoryEntry } from '@border/contract'
import type { JobPlan, Verdict, Window } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

export interface NewDecision {
  gardenId: string
  plantingId: string
  asOf: string
  verdict: Verdict
  choice: DecisionRecord['choice']
  action: string
  reason: string | null
  waitUntil: string | null
  target: MoveTarget | null
  personId: string
  decidedAt?: string
}

export async function insertDecision(db: Db, d: NewDecision): Promise<string> {
  const id = randomUUID()
  await db('decisions').insert({
    id,
    garden_id: d.gardenId,
    planting_id: d.plantingId,
    as_of: d.asOf,
    verdict: JSON.stringify(d.verdict),
    choice: d.choice,
    action: d.action,
    reason: d.reason,
    wait_until: d.waitUntil,
    target: d.target && JSON.stringify(d.target),
    person_id: d.personId,
  })
  return id
}

/** Every decision of a garden, newest first. */
export async function listDecisions(db: Db, gardenId: string): Promise<DecisionRecord[]> {
  const { rows } = await db.raw(
    `select d.id, d.planting_id as "plantingId", d.verdict ->> 'action' as proposed, d.choice, d.action, d.reason,
            d.wait_until as "waitUntil", d.as_of as "decidedOn", p.name as "decidedBy",
            (select count(*)::int from jobs j where j.decision_id = d.id and j.state <> 'dropped') as "jobCount"
     from decisions d join people p on p.id = d.person_id
     where d.garden_id = ? order by d.created_at desc`,
    [gardenId],
  )
  return rows
}

/** A job as stored: its plan with the dates that count now. */
export interface JobRow {
  id: string
  decision_id: string
  planting_id: string
  key: string
  kind: JobPlan['kind']
  title: string
  plan: JobPlan
  target: MoveTarget | null
  minutes: number
  state: 'open' | 'done' | 'dropped'
  planned_on: string | null
  unplaced: string | null
  pinned: boolean
  revision: number
}

const jobColumns: (keyof JobRow)[] = [
  'id',
  'decision_id',
  'planting_id',
  'key',
  'kind',
  'title',
  'plan',
  'target',
  'minutes',
  'state',
  'planned_on',
  'unplaced',
  'pinned',
  'revision',
]

const windowColumns = (w: Window) => ({
  earliest: w.earliest,
  best_from: w.bestFrom,
  best_to: w.bestTo,
  latest: w.latest,
})

export async function insertJobs(
  db: Db,
  owner: { gardenId: string; plantingId: string; decisionId: string; target: MoveTarget },
  plans: readonly JobPlan[],
): Promise<void> {
  const ids = new Map(plans.map((p) => [p.key, randomUUID()]))
  await db('jobs').insert(
    plans.map((p) => ({
      id: ids.get(p.key),
      garden_id: owner.gardenId,
      planting_id: owner.plantingId,
      decision_id: owner.decisionId,
      key: p.key,
      kind: p.kind,
      title: p.title,
      plan: JSON.stringify(p),
      target: JSON.stringify(owner.target),
      minutes: p.minutes,
      ...windowColumns(p.window),
    })),
  )
  const order = plans.flatMap((p) =>
    p.after.map((a) => ({
      before_id: ids.get(a.key),
      after_id: ids.get(p.key),
      least_days: a.leastDays,
      most_days: a.mostDays ?? null,
    })),
  )
  if (order.length > 0) await db('job_order').insert(order)
}

export async function listJobRows(db: Db, gardenId: string): Promise<JobRow[]> {
  return db('jobs').where({ garden_id: gardenId }).orderBy(['latest', 'id']).select<JobRow[]>(jobColumns)
}

export async function findJobRow(db: Db, gardenId: string, id: string): Promise<JobRow | undefined> {
  return db('jobs').where({ garden_id: gardenId, id }).forUpdate().first<JobRow | undefined>(jobColumns)
}

export interface JobOrderRow {
  beforeId: string
  afterId: string
  leastDays: number
  mostDays: number | null
}

export async function listJobOrder(db: Db, gardenId: string): Promise<JobOrderRow[]> {
  return db('job_order')
    .join('jobs', 'jobs.id', 'after_id')
    .where({ garden_id: gardenId })
    .select<JobOrderRow[]>(
      'before_id as beforeId',
      'after_id as afterId',
      'least_days as leastDays',
      'most_days as mostDays',
    )
}

/**
 * A new place in the plan. The revision rises only when something changed, so that calendars follow it;
 * a day set by a person that could not be kept is no longer called theirs.
 */
export async function setPlanned(
  db: Db,
  job: JobRow,
  plannedOn: string | null,
  unplaced: string | null,
): Promise<void> {
  if (job.planned_on === plannedOn && job.unplaced === unplaced) return
  await db('jobs')
    .where({ id: job.id })
    .update({
      planned_on: plannedOn,
      unplaced,
      pinned: job.pinned && plannedOn === job.planned_on,
      revision: job.revision + 1,
    })
}

/** A day set by a person, or none; calendars follow it. */
export async function setPin(db: Db, id: string, day: string | null): Promise<void> {
  await db('jobs')
    .where({ id })
    .update({ planned_on: day, pinned: day !== null, revision: db.raw('revision + 1') })
}

/** @returns the job as it now is: with its new window, and free to be given another day in it */
export async function setWindow(db: Db, job: JobRow, window: Window): Promise<JobRow> {
  const plan = { ...job.plan, window }
  const changed = { planned_on: null, pinned: false, revision: job.revision + 1 }
  await db('jobs')
    .where({ id: job.id })
    .update({ ...windowColumns(window), plan: JSON.stringify(plan), ...changed })
  return { ...job, plan, ...changed }
}

export async function setState(db: Db, id: string, state: JobRow['state']): Promise<void> {
  await db('jobs').where({ id }).update({ state })
}

export interface JobDone {
  jobId: string
  on: string
  minutes: number
  lived: number | null
  note: string | null
  personId: string
}

export async function insertJobRecord(db: Db, done: JobDone): Promise<void> {
  await db('job_records').insert({
    id: randomUUID(),
    job_id: done.jobId,
    done_on: done.on,
    minutes: done.minutes,
    lived: done.lived,
    note: done.note,
    person_id: done.personId,
  })
}

export async function withdrawJobRecord(db: Db, jobId: string): Promise<void> {
  await db('job_records').where({ job_id: jobId, withdrawn_at: null }).update({ withdrawn_at: db.fn.now() })
}

type DoneRow = {
  jobId: string
  on: string
  minutes: number
  lived: number | null
  note: string | null
  by: string
}

export async function listDone(db: Db, gardenId: string): Promise<DoneRow[]> {
  return db('job_records')
    .join('jobs', 'jobs.id', 'job_id')
    .join('people', 'people.id', 'person_id')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .select<DoneRow[]>(
      'job_id as jobId',
      'done_on as on',
      'job_records.minutes',
      'lived',
      'note',
      'people.name as by',
    )
}

/** Jobs that are not dropped, with their order and what was really done. */
export async function listJobs(db: Db, gardenId: string): Promise<JobRecord[]> {
  const [rows, order, done, tags] = [
    await listJobRows(db, gardenId),
    await listJobOrder(db, gardenId),
    await listDone(db, gardenId),
    await db('plantings').where({ garden_id: gardenId }).select<{ id: string; tag: string }[]>('id', 'tag'),
  ]
  return rows
    .filter((r) => r.state !== 'dropped')
    .map((r) => {
      const record = done.find((d) => d.jobId === r.id)
      return {
        id: r.id,
        kind: r.kind,
        title: r.title,
        plantingId: r.planting_id,
        plantingTag: tags.find((t) => t.id === r.planting_id)?.tag ?? '',
        window: r.plan.window,
        minutes: r.minutes,
        materials: r.plan.materials,
        tools: r.plan.tools,
        cautions: r.plan.cautions,
        steps: r.plan.steps,
        after: order.filter((o) => o.afterId === r.id).map((o) => o.beforeId),
        state: r.state,
        plannedOn: r.planned_on,
        unplaced: r.unplaced,
        pinned: r.pinned,
        done: record
          ? { on: record.on, minutes: record.minutes, lived: record.lived, note: record.note, by: record.by }
          : null,
      }
    })
}

/** Ground promised to moves that are decided and not yet done. */
export async function listReserved(
  db: Db,
  gardenId: string,
): Promise<{ plantingId: string; target: MoveTarget }[]> {
  return db('jobs')
    .where({ garden_id: gardenId, kind: 'move', state: 'open' })
    .whereNotNull('target')
    .select<{ plantingId: string; target: MoveTarget }[]>('planting_id as plantingId', 'target')
}

export async function dropOpenJobs(db: Db, plantingId: string): Promise<void> {
  await db('jobs')
    .where({ planting_id: plantingId, state: 'open' })
    .update({ state: 'dropped', planned_on: null })
}

/** Decisions and finished jobs of a planting, as lines of its story; a move tells itself as an event. */
export async function listPlantingDeeds(db: Db, plantingId: string): Promise<StoryEntry[]> {
  const decisions = await db('decisions')
    .join('people', 'people.id', 'person_id')
    .where({ planting_id: plantingId })
    .select<(DecisionWords & Recorded)[]>(
      'as_of as on',
      db.raw(`verdict ->> 'action' as proposed`),
      'choice',
      'action',
      'reason',
      'wait_until as waitUntil',
      'people.name as by',
      'decisions.created_at as recordedAt',
    )
  const jobs = await db('job_records')
    .join('jobs', 'jobs.id', 'job_id')
    .join('people', 'people.id', 'person_id')
    .where({ planting_id: plantingId, withdrawn_at: null })
    .whereNot({ kind: 'move' })
    .select<({ title: string; minutes: number; note: string | null } & Recorded)[]>(
      'done_on as on',
      'title',
      'job_records.minutes',
      'note',
      'people.name as by',
      'job_records.created_at as recordedAt',
    )
  return [
    ...decisions.map(({ on, by, recordedAt, ...d }): StoryEntry => {
      return { on, kind: 'decided', says: decisionWords(d), by, recordedAt }
    }),
    ...jobs.map(({ on, by, recordedAt, ...j }): StoryEntry => {
      return {
        on,
        kind: 'job',
        says: `${j.title}: done in ${j.minutes} min.${j.note ? ` ${j.note}` : ''}`,
        by,
        recordedAt,
      }
    }),
  ]
}

type Recorded = Pick<StoryEntry, 'on' | 'by' | 'recordedAt'>
type DecisionWords = Pick<DecisionRecord, 'proposed' | 'choice' | 'action' | 'reason' | 'waitUntil'>

function decisionWords(d: DecisionWords): string {
  const reason = d.reason ? ` ${d.reason}` : ''
  if (d.choice === 'accept') return `Proposed and accepted: ${d.proposed}.`
  if (d.choice === 'wait') return `Proposed ${d.proposed}; left until ${d.waitUntil}.${reason}`
  return `Proposed ${d.proposed}; decided ${d.action} instead.${reason}`
}
