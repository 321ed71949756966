import type { DecisionRecord, JobRecord, MoveTarget, SeasonView, StoryEntry } from '@border/contract'
import type { CareJob, JobPlan, LabourRecord, Verdict, Window } from '@border/core'
import { group } from 'd3-array'
import { randomUUID } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
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
            jsonb_build_object('scores', d.verdict -> 'scores', 'terms', d.verdict -> 'terms') as weighed,
            (select count(*)::int from jobs j where j.decision_id = d.id and j.state <> 'dropped') as "jobCount"
     from decisions d join people p on p.id = d.person_id
     where d.garden_id = ? order by d.created_at desc`,
    [gardenId],
  )
  return rows
}

/** What a job asks for: of a move, or of a rule of care. */
export type StoredPlan = Pick<JobPlan, 'window' | 'materials' | 'tools' | 'cautions' | 'steps'> &
  Partial<Pick<CareJob, 'forbids' | 'skill' | 'why' | 'missed' | 'school' | 'tableMinutes'>>

/** A job as stored: its plan with the dates that count now. */
export interface JobRow {
  id: string
  decision_id: string | null
  planting_id: string | null
  place_id: string | null
  rule_id: string | null
  rule_key: string | null
  key: string
  kind: JobPlan['kind']
  title: string
  plan: StoredPlan
  target: MoveTarget | null
  minutes: number
  state: 'open' | 'done' | 'dropped'
  planned_on: string | null
  /** Its sittings; planned_on is the first. */
  parts: { day: string; minutes: number }[] | null
  next_chance: string | null
  unplaced: string | null
  pinned: boolean
  /** Work of a rule that a person asked for. */
  asked: boolean
  revision: number
}

const jobColumns: (keyof JobRow)[] = [
  'id',
  'decision_id',
  'planting_id',
  'place_id',
  'rule_id',
  'rule_key',
  'key',
  'kind',
  'title',
  'plan',
  'target',
  'minutes',
  'state',
  'planned_on',
  'parts',
  'next_chance',
  'unplaced',
  'pinned',
  'asked',
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
  owner: {
    gardenId: string
    plantingId: string
    decisionId: string
    placeId: string
    target: MoveTarget | null
  },
  plans: readonly JobPlan[],
): Promise<void> {
  const ids = new Map(plans.map((p) => [p.key, randomUUID()]))
  await db('jobs').insert(
    plans.map((p) => ({
      id: ids.get(p.key),
      garden_id: owner.gardenId,
      planting_id: owner.plantingId,
      decision_id: owner.decisionId,
      place_id: owner.placeId,
      key: p.key,
      kind: p.kind,
      title: p.title,
      plan: JSON.stringify(p),
      target: owner.target && JSON.stringify(owner.target),
      minutes: p.minutes,
      next_chance: p.nextChance,
      ...windowColumns(p.window),
    })),
  )
  await db('job_plantings').insert(
    plans.map((p) => ({ job_id: ids.get(p.key), planting_id: owner.plantingId, garden_id: owner.gardenId })),
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
  parts: JobRow['parts'],
  unplaced: string | null,
): Promise<void> {
  const plannedOn = parts?.[0]?.day ?? null
  const same = JSON.stringify(parts) === JSON.stringify(job.parts)
  if (job.planned_on === plannedOn && job.unplaced === unplaced && same) return
  await db('jobs')
    .where({ id: job.id })
    .update({
      planned_on: plannedOn,
      parts: parts && JSON.stringify(parts),
      unplaced,
      pinned: job.pinned && plannedOn === job.planned_on,
      revision: job.revision + 1,
    })
}

/** A day set by a person, or none; calendars follow it. */
export async function setPin(db: Db, id: string, day: string | null): Promise<void> {
  await db('jobs')
    .where({ id })
    .update({ planned_on: day, parts: null, pinned: day !== null, revision: db.raw('revision + 1') })
}

/** @returns the job as it now is: with its new window, and free to be given another day in it */
export async function setWindow(db: Db, job: JobRow, window: Window): Promise<JobRow> {
  const plan = { ...job.plan, window }
  const changed = { planned_on: null, parts: null, pinned: false, revision: job.revision + 1 }
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
  used: { name: string; amount: number; unit: string }[] | null
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
    used: done.used && JSON.stringify(done.used),
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
  used: { name: string; amount: number; unit: string }[] | null
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
      'used',
      'note',
      'people.name as by',
    )
}

export async function listJobPlantings(
  db: Db,
  gardenId: string,
): Promise<{ jobId: string; plantingId: string; tag: string }[]> {
  return db('job_plantings')
    .join('plantings', 'plantings.id', 'planting_id')
    .where('job_plantings.garden_id', gardenId)
    .orderBy(['job_id', 'tag'])
    .select('job_id as jobId', 'planting_id as plantingId', 'tag')
}

/** Jobs that are not dropped, with their order and what was really done. */
export async function listJobs(db: Db, gardenId: string): Promise<JobRecord[]> {
  const rows = await listJobRows(db, gardenId)
  const order = group(await listJobOrder(db, gardenId), (o) => o.afterId)
  const done = new Map((await listDone(db, gardenId)).map((d) => [d.jobId, d]))
  const plantings = group(await listJobPlantings(db, gardenId), (p) => p.jobId)
  return rows
    .filter((r) => r.state !== 'dropped')
    .map((r) => {
      const record = done.get(r.id)
      const own = plantings.get(r.id) ?? []
      return {
        id: r.id,
        kind: r.kind,
        title: r.title,
        plantingIds: own.map((p) => p.plantingId),
        tags: own.map((p) => p.tag),
        placeId: r.place_id,
        ruleId: r.rule_id,
        window: r.plan.window,
        minutes: r.minutes,
        materials: r.plan.materials,
        tools: [...r.plan.tools],
        cautions: r.plan.cautions,
        steps: [...r.plan.steps],
        why: r.plan.why ?? null,
        missed: r.plan.missed ?? null,
        school: r.plan.school ?? null,
        forbids: [...(r.plan.forbids ?? [])],
        after: (order.get(r.id) ?? []).map((o) => o.beforeId),
        state: r.state,
        plannedOn: r.planned_on,
        parts: r.parts ?? (r.planned_on ? [{ day: r.planned_on, minutes: r.minutes }] : []),
        nextChance: r.next_chance,
        unplaced: r.unplaced,
        pinned: r.pinned,
        done: record
          ? {
              on: record.on,
              minutes: record.minutes,
              lived: record.lived,
              used: record.used,
              note: record.note,
              by: record.by,
            }
          : null,
      }
    })
}

/** Jobs that the rules of care ask for, brought up to date: new ones are added, changed ones changed, idle ones go. */
export async function saveCareJobs(db: Db, gardenId: string, wanted: readonly CareJob[]): Promise<void> {
  const known = new Map(
    (await listJobRows(db, gardenId)).flatMap((r) => (r.rule_key ? [[r.rule_key, r] as const] : [])),
  )
  const keys = new Set(wanted.map((j) => j.key))
  const idle = [...known.values()].filter(
    (r) => r.state === 'open' && !r.pinned && !r.asked && !keys.has(r.rule_key!),
  )
  const recorded = db('job_records').select('job_id')
  const idleIds = idle.map((r) => r.id)
  await db('jobs').whereIn('id', idleIds).whereNotIn('id', recorded).delete()
  await db('jobs').whereIn('id', idleIds).update({ state: 'dropped', planned_on: null, parts: null })
  for (const job of wanted) await putCareJob(db, gardenId, known.get(job.key), job)
}

export const findJobByKey = (db: Db, gardenId: string, key: string): Promise<JobRow | undefined> =>
  db('jobs').where({ garden_id: gardenId, rule_key: key }).first<JobRow | undefined>(jobColumns)

/** Work of a rule that a person asked for. False where it is open or done already. */
export async function askCareJob(db: Db, gardenId: string, job: CareJob): Promise<boolean> {
  const row = await findJobByKey(db, gardenId, job.key)
  if (row && row.state !== 'dropped') return false
  if (row) await db('jobs').where({ id: row.id }).update({ state: 'open', left_out: false })
  await putCareJob(db, gardenId, row && { ...row, state: 'open' }, job)
  await db('jobs').where({ garden_id: gardenId, rule_key: job.key }).update({ asked: true })
  return true
}

async function putCareJob(db: Db, gardenId: string, row: JobRow | undefined, job: CareJob): Promise<void> {
  if (row && row.state !== 'open') return
  const { window, materials, tools, cautions, steps, forbids, skill, why, missed, school, tableMinutes } = job
  const plan = {
    window,
    materials,
    tools,
    cautions,
    steps,
    forbids,
    skill,
    why,
    missed,
    school,
    tableMinutes,
  }
  const columns = {
    title: job.title,
    plan: JSON.stringify(plan),
    minutes: job.minutes,
    next_chance: job.nextChance,
    ...windowColumns(window),
  }
  const id = row?.id ?? randomUUID()
  if (row) {
    if (sameJson(row.plan, plan) && row.title === job.title && row.minutes === job.minutes) return
    await db('jobs').where({ id }).update(columns)
    await db('job_plantings').where({ job_id: id }).delete()
  } else
    await db('jobs').insert({
      id,
      garden_id: gardenId,
      place_id: job.placeId,
      rule_id: job.ruleId,
      rule_key: job.key,
      key: 'care',
      kind: job.operation,
      ...columns,
    })
  if (job.plantingIds.length > 0)
    await db('job_plantings').insert(
      job.plantingIds.map((plantingId) => ({ job_id: id, planting_id: plantingId, garden_id: gardenId })),
    )
}

/** Equal as values, in whatever order their keys are kept. */
const sameJson = (a: unknown, b: unknown): boolean =>
  isDeepStrictEqual(JSON.parse(JSON.stringify(a)), JSON.parse(JSON.stringify(b)))

/** Leaves an open job out for once, or takes it up again. False where it is not in the state for it. */
export async function leaveOut(db: Db, id: string, out: boolean): Promise<boolean> {
  const changed = await db('jobs')
    .where(out ? { id, state: 'open' } : { id, state: 'dropped', left_out: true })
    .update(
      out
        ? { state: 'dropped', left_out: true, planned_on: null, parts: null, pinned: false, unplaced: null }
        : { state: 'open', left_out: false },
    )
  return changed > 0
}

/** Work left out for once whose window has not closed on a day. */
export const listLeftOut = (db: Db, gardenId: string, on: string): Promise<SeasonView['leftOut']> =>
  db('jobs')
    .where({ garden_id: gardenId, state: 'dropped', left_out: true })
    .where('latest', '>=', on)
    .orderBy(['latest', 'id'])
    .select('id', 'title', 'latest')

/** What a rule has asked for and was done: key without its last part, with each planting or the place. */
export async function listCareDone(db: Db, gardenId: string): Promise<string[]> {
  const { rows } = await db.raw<{ rows: { key: string; of: string }[] }>(
    `select regexp_replace(j.rule_key, '/[^/]*$', '') as key, coalesce(p.planting_id, j.place_id) as of
     from jobs j left join job_plantings p on p.job_id = j.id
     where j.garden_id = ? and j.rule_key is not null and j.state in ('done', 'dropped')`,
    [gardenId],
  )
  return rows.map((r) => `${r.key}/${r.of}`)
}

/** Minutes really taken for work that a rule's table has minutes for. */
export async function listLabour(db: Db, gardenId: string): Promise<LabourRecord[]> {
  return db('job_records')
    .join('jobs', 'jobs.id', 'job_id')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .whereRaw(`jsonb_exists(plan, 'tableMinutes')`)
    .select(
      'kind as operation',
      db.raw(`(plan ->> 'tableMinutes')::float as "tableMinutes"`),
      'job_records.minutes',
    )
}

/** The last day on which each planting was divided. */
export async function listDivided(db: Db, gardenId: string): Promise<Map<string, string>> {
  const rows: { plantingId: string; on: string }[] = await db('job_records')
    .join('jobs', 'jobs.id', 'job_records.job_id')
    .join('job_plantings', 'job_plantings.job_id', 'jobs.id')
    .where({ 'jobs.garden_id': gardenId, kind: 'divide', withdrawn_at: null })
    .groupBy('job_plantings.planting_id')
    .select('job_plantings.planting_id as plantingId', db.raw('max(done_on) as "on"'))
  return new Map(rows.map((r) => [r.plantingId, r.on]))
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
    .join('jobs', 'jobs.id', 'job_records.job_id')
    .join('job_plantings', 'job_plantings.job_id', 'jobs.id')
    .join('people', 'people.id', 'person_id')
    .where({ 'job_plantings.planting_id': plantingId, withdrawn_at: null })
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
