import type { JobView, MoveTarget, SeasonView, StoryEntry } from '@border/contract'
import {
  dayMonthYear,
  type CareJob,
  type IsoDate,
  type JobDraft,
  type LabourRecord,
  type Operation,
  type PastOperation,
  type Ring,
  type Step,
  type UnplacedJob,
  type Window,
} from '@border/core'
import type { Knex } from 'knex'
import { randomUUID } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import type { Db } from '../database/connect.ts'
import { Refusal } from '../errors.ts'

/** What a job asks for beside its window and its time. */
type Details = Pick<JobDraft, 'materials' | 'tools' | 'cautions' | 'steps'> &
  Partial<
    Pick<CareJob, 'forbids' | 'skill' | 'why' | 'missed' | 'school' | 'tableMinutes' | 'unsure' | 'placeIds'>
  > &
  /** Of a step of a scheme. */
  Partial<Pick<Step, 'stage' | 'spare'>>

/** What a step of a scheme plants, and where. */
export interface Sets {
  driftId: string
  botanical: string
  count: number
  /** Of these, how many were in hand when it was planned. */
  have: number
  x: number
  y: number
  outline: Ring | null
}

/** That a job was done: on which day, in how many minutes, with what, and how many lived through it. */
export interface JobDone {
  on: IsoDate
  /** Null where nobody knows how long it took. */
  minutes: number | null
  lived: number | null
  used: { name: string; amount: number; unit: string }[] | null
  note: string | null
}

/** A job with all that belongs to it: its window, its days, what it follows, what it is done to, and what was done. */
export interface Job {
  id: string
  /** One of these three: what decided it, the scheme that it carries out, or the rule's work that it is. */
  decisionId: string | null
  schemeId: string | null
  ruleKey: string | null
  ruleId: string | null
  /** Of a decided job or a step: which of its decision's or scheme's it is. */
  key: string
  kind: Operation
  title: string
  plantingId: string | null
  placeId: string | null
  target: MoveTarget | null
  sets: Sets | null
  window: Window
  minutes: number
  details: Details
  state: 'open' | 'done' | 'dropped'
  /** A day set by a person. */
  pinnedOn: IsoDate | null
  /** Its days in the plan; none where it has none. */
  sittings: { day: IsoDate; minutes: number }[]
  unplaced: Pick<UnplacedJob, 'reason' | 'shortMinutes'> | null
  nextChance: IsoDate | null
  /** Work of a rule that a person asked for. */
  asked: boolean
  leftOut: boolean
  revision: number
  plantings: { id: string; tag: string }[]
  after: { id: string; leastDays: number; mostDays: number | null }[]
  done: (JobDone & { by: string }) | null
}

interface JobRow extends Omit<Job, 'window' | 'unplaced'> {
  season: Window['season']
  why: Window['why']
  earliest: IsoDate
  bestFrom: IsoDate
  bestTo: IsoDate
  latest: IsoDate
  unplacedReason: UnplacedJob['reason'] | null
  shortMinutes: number | null
}

const toJob = ({
  season,
  why,
  earliest,
  bestFrom,
  bestTo,
  latest,
  unplacedReason,
  shortMinutes,
  ...job
}: JobRow): Job => ({
  ...job,
  window: { season, why, earliest, bestFrom, bestTo, latest },
  unplaced: unplacedReason && { reason: unplacedReason, shortMinutes: shortMinutes ?? 0 },
})

/** Jobs of a garden, soonest to close first, what is dropped among them. One query, whatever their number. */
async function selectJobs(db: Db, gardenId: string, jobId: string | null): Promise<Job[]> {
  const { rows } = await db.raw<{ rows: JobRow[] }>(
    // What hangs on jobs is gathered once: a planner that does not know its tables yet would gather it again for every job.
    `with s as materialized (
       select job_id, json_agg(json_build_object('day', day, 'minutes', minutes) order by nth) as sittings
       from job_sittings where garden_id = :gardenId group by job_id
     ), p as materialized (
       select job_id, json_agg(json_build_object('id', planting_id, 'tag', tag) order by tag) as plantings
       from job_plantings jp join plantings on plantings.id = planting_id where jp.garden_id = :gardenId group by job_id
     ), o as materialized (
       select after_id, json_agg(json_build_object('id', before_id, 'leastDays', least_days, 'mostDays', most_days)
                                 order by least_days, before_id) as after
       from job_order where garden_id = :gardenId group by after_id
     ), r as materialized (
       select job_id, json_build_object('on', done_on, 'minutes', minutes, 'lived', lived, 'used', used, 'note', note,
                                        'by', people.name) as done
       from job_records join people on people.id = person_id where garden_id = :gardenId and withdrawn_at is null
     )
     select j.id, j.decision_id as "decisionId", j.scheme_id as "schemeId", j.rule_key as "ruleKey", j.rule_id as "ruleId", j.key, j.kind, j.title,
            j.planting_id as "plantingId", j.place_id as "placeId", j.target, j.sets, j.season, j.why, j.earliest,
            j.best_from as "bestFrom", j.best_to as "bestTo", j.latest, j.minutes, j.details, j.state,
            j.pinned_on as "pinnedOn", j.unplaced_reason as "unplacedReason", j.short_minutes as "shortMinutes",
            j.next_chance as "nextChance", j.asked, j.left_out as "leftOut", j.revision,
            coalesce(s.sittings, '[]') as sittings, coalesce(p.plantings, '[]') as plantings,
            coalesce(o.after, '[]') as after, r.done
     from jobs j
     left join s on s.job_id = j.id
     left join p on p.job_id = j.id
     left join o on o.after_id = j.id
     left join r on r.job_id = j.id
     where j.garden_id = :gardenId and (:jobId::uuid is null or j.id = :jobId::uuid)
     order by j.latest, j.title, j.id`,
    { gardenId, jobId },
  )
  return rows.map(toJob)
}

/** Every job of a garden that is still on record. */
export const listJobs = (db: Db, gardenId: string): Promise<Job[]> => selectJobs(db, gardenId, null)

/** One job; undefined where the garden has none under this id. */
export const findJob = async (db: Db, gardenId: string, id: string): Promise<Job | undefined> =>
  (await selectJobs(db, gardenId, id))[0]

/** The job of a rule for one season and place, by the key that makes it one. */
export const findJobByKey = async (db: Db, gardenId: string, ruleKey: string): Promise<Job | undefined> => {
  const row = await db('jobs')
    .where({ garden_id: gardenId, rule_key: ruleKey })
    .first<{ id: string } | undefined>('id')
  return row && findJob(db, gardenId, row.id)
}

/** A job as it is shown; why it has no day is said as of a day. */
export const jobView = (job: Job, today: IsoDate): JobView => ({
  id: job.id,
  kind: job.kind,
  title: job.title,
  plantingIds: job.plantings.map((p) => p.id),
  tags: job.plantings.map((p) => p.tag),
  placeId: job.placeId,
  placeIds: placesOfJob(job),
  ruleId: job.ruleId,
  schemeId: job.schemeId,
  stage: job.details.stage ?? null,
  sets: job.sets && { driftId: job.sets.driftId, botanical: job.sets.botanical, count: job.sets.count },
  spare: job.details.spare ?? null,
  window: job.window,
  minutes: job.minutes,
  materials: job.details.materials,
  tools: [...job.details.tools],
  cautions: job.details.cautions,
  steps: [...job.details.steps],
  why: job.details.why ?? null,
  missed: job.details.missed ?? null,
  school: job.details.school ?? null,
  unsure: job.details.unsure ?? null,
  forbids: [...(job.details.forbids ?? [])],
  after: job.after.map((o) => o.id),
  state: job.state,
  plannedOn: job.sittings[0]?.day ?? null,
  parts: job.sittings,
  nextChance: job.nextChance,
  unplaced: job.unplaced && unplacedWords(job, job.unplaced, today),
  pinnedOn: job.pinnedOn,
  isPast: isPast(job),
  done: job.done,
})

const PAST = 'past/'
/** Written down after it was done, where nothing had asked for it. */
export const isPast = ({ ruleKey }: Pick<Job, 'ruleKey'>): boolean => ruleKey?.startsWith(PAST) ?? false

/** Past work, as a job that is done: once under its id. @throws {Refusal} where something else has that */
export async function insertPastJob(
  db: Db,
  of: { gardenId: string; personId: string },
  past: {
    id: string
    operation: PastOperation
    title: string
    placeId: string
    plantingIds: readonly string[]
    done: JobDone & { deviceAt: string | null }
  },
): Promise<void> {
  const { on, minutes } = past.done
  const why = `It was done on ${dayMonthYear(on)}.`
  const window: Window = {
    season: 'any time',
    earliest: on,
    bestFrom: on,
    bestTo: on,
    latest: on,
    why: { earliest: why, bestFrom: why, bestTo: why, latest: why },
  }
  const details: Details = { materials: [], tools: [], cautions: [], steps: [] }
  const added = await db('jobs')
    .insert({
      id: past.id,
      garden_id: of.gardenId,
      place_id: past.placeId,
      rule_key: `${PAST}${past.id}`,
      key: 'care',
      kind: past.operation,
      title: past.title,
      details: JSON.stringify(details),
      // Of a job that is done, what it took is told by its record.
      minutes: minutes ?? 1,
      state: 'done',
      ...windowColumns(window),
    })
    .onConflict('id')
    .ignore()
    .returning('id')
  if (added.length === 0) {
    const known = await db('jobs').where({ id: past.id, garden_id: of.gardenId }).first('id')
    if (known) return
    throw new Refusal(409, 'This was sent under an id that something else has. Nothing was saved.')
  }
  await insertJobPlantings(db, of.gardenId, [{ id: past.id, plantingIds: past.plantingIds }])
  await insertJobRecord(db, { jobId: past.id, ...of }, past.done)
}

function unplacedWords(
  { window: { latest }, nextChance }: Job,
  { reason, shortMinutes }: NonNullable<Job['unplaced']>,
  today: IsoDate,
): string {
  const next = nextChance ? ` Its next chance is from ${dayMonthYear(nextChance)}.` : ''
  if (latest < today) return `Too late since ${dayMonthYear(latest)}.${next}`
  switch (reason) {
    case 'no-working-day':
      return `Nobody works on any day of its window: see the crew in Set-up.${next}`
    case 'no-skill':
      return `Nobody with the skill for it has time in its window.${next}`
    case 'days-full':
      return `The working days in its window are full: ${shortMinutes} minutes short on the emptiest.${next}`
    case 'waits-for-unplaced':
      return 'It waits for a job that has no day yet.'
    case 'order-leaves-no-day':
      return `What comes before it leaves no day inside its window.${next}`
    case 'costs-more':
      return `Fitting it in would cost more than it is worth: it would push out or spoil other work.${next}`
  }
}

const windowColumns = (w: Window) => ({
  season: w.season,
  why: JSON.stringify(w.why),
  earliest: w.earliest,
  best_from: w.bestFrom,
  best_to: w.bestTo,
  latest: w.latest,
})

/** A job that a decision or a scheme makes: what it is done to, where, and what it does. */
export type DraftedJob = JobDraft &
  Pick<Job, 'placeId' | 'plantingId' | 'target'> & { plantingIds: readonly string[] } & Partial<
    Pick<Job, 'sets'> & Pick<Step, 'stage' | 'spare'>
  >

/** The jobs that a decision or a scheme makes, with their order. */
export async function insertJobs(
  db: Db,
  owner: { gardenId: string } & ({ decisionId: string } | { schemeId: string }),
  drafts: readonly DraftedJob[],
): Promise<void> {
  const ids = new Map(drafts.map((d) => [d.key, randomUUID()]))
  await db('jobs').insert(
    drafts.map(
      ({
        key,
        kind,
        title,
        window,
        minutes,
        after: _,
        nextChance,
        placeId,
        plantingId,
        plantingIds: _of,
        target,
        sets,
        ...details
      }) => ({
        id: ids.get(key),
        garden_id: owner.gardenId,
        planting_id: plantingId,
        ...('decisionId' in owner ? { decision_id: owner.decisionId } : { scheme_id: owner.schemeId }),
        place_id: placeId,
        key,
        kind,
        title,
        details: JSON.stringify(details),
        target: target && JSON.stringify(target),
        sets: sets ? JSON.stringify(sets) : null,
        minutes,
        next_chance: nextChance,
        ...windowColumns(window),
      }),
    ),
  )
  await insertJobPlantings(
    db,
    owner.gardenId,
    drafts.map((d) => ({ id: ids.get(d.key)!, plantingIds: d.plantingIds })),
  )
  const order = drafts.flatMap((d) =>
    d.after.map((a) => ({
      garden_id: owner.gardenId,
      before_id: ids.get(a.key),
      after_id: ids.get(d.key),
      least_days: a.leastDays,
      most_days: a.mostDays ?? null,
    })),
  )
  if (order.length > 0) await db('job_order').insert(order)
}

// Days of jobs

/** Takes jobs off their days. The one way to do it: whatever closes a job, or moves its window, goes through here. */
async function takeOffDays(db: Db, ids: readonly string[]): Promise<void> {
  if (ids.length === 0) return
  await db('job_sittings')
    .whereIn('job_id', [...ids])
    .delete()
  await db('jobs')
    .whereIn('id', [...ids])
    .update({ pinned_on: null, unplaced_reason: null, short_minutes: null, revision: db.raw('revision + 1') })
}

/** What a plan made of a job. */
export interface Planned {
  id: string
  sittings: Job['sittings']
  unplaced: Job['unplaced']
}

/**
 * Writes down what a plan made of open jobs, all in a few statements. The revision rises only where something changed, so that
 * calendars follow it; a day set by a person that could not be kept is no longer called theirs.
 *
 * @param jobs as they stood
 */
export async function saveScheduled(
  db: Db,
  gardenId: string,
  jobs: readonly Job[],
  planned: readonly Planned[],
): Promise<void> {
  const now = new Map(jobs.map((j) => [j.id, j]))
  const changed = planned.filter((p) => {
    const job = now.get(p.id)
    return (
      job && !(isDeepStrictEqual(job.sittings, p.sittings) && isDeepStrictEqual(job.unplaced, p.unplaced))
    )
  })
  if (changed.length === 0) return
  await db('job_sittings')
    .whereIn(
      'job_id',
      changed.map((p) => p.id),
    )
    .delete()
  const sittings = changed.flatMap((p) =>
    p.sittings.map((s, nth) => ({ job_id: p.id, garden_id: gardenId, nth, day: s.day, minutes: s.minutes })),
  )
  if (sittings.length > 0) await db('job_sittings').insert(sittings)
  await db.raw(
    `update jobs j set unplaced_reason = p.reason, short_minutes = p.short, revision = revision + 1,
            pinned_on = case when p.day = j.pinned_on then j.pinned_on end
     from unnest(:ids::uuid[], :reasons::text[], :short::int[], :days::date[]) as p(id, reason, short, day)
     where j.id = p.id`,
    {
      ids: changed.map((p) => p.id),
      reasons: changed.map((p) => p.unplaced?.reason ?? null),
      short: changed.map((p) => p.unplaced?.shortMinutes ?? null),
      days: changed.map((p) => p.sittings[0]?.day ?? null),
    },
  )
}

/** A day set by a person, or none; calendars follow it. */
export async function setPin(db: Db, id: string, day: IsoDate | null): Promise<void> {
  await db('jobs')
    .where({ id })
    .update({ pinned_on: day, revision: db.raw('revision + 1') })
}

/** Another window: the job is free to be given another day in it. */
export async function setWindow(db: Db, id: string, window: Window): Promise<void> {
  await takeOffDays(db, [id])
  await db('jobs').where({ id }).update(windowColumns(window))
}

/** Closes open jobs. */
export async function closeJobs(
  db: Db,
  ids: readonly string[],
  state: 'done' | 'dropped',
  { leftOut = false } = {},
): Promise<void> {
  if (ids.length === 0) return
  await takeOffDays(db, ids)
  await db('jobs')
    .whereIn('id', [...ids])
    .update({ state, left_out: leftOut })
}

/** A job is open again, whether it was done or left out. */
export async function reopenJob(db: Db, id: string): Promise<void> {
  await db('jobs').where({ id }).update({ state: 'open', left_out: false })
}

/** Drops what an earlier word on a planting set going, be it a decision or a scheme. */
export const dropDecidedJobs = (db: Db, plantingId: string): Promise<boolean> =>
  dropOpen(db, (of) => of.where({ planting_id: plantingId, rule_key: null }))

/** Drops what is still to be done of a scheme. @returns whether anything was */
export const dropJobsOfScheme = (db: Db, schemeId: string): Promise<boolean> =>
  dropOpen(db, (of) => of.where({ scheme_id: schemeId }))

async function dropOpen(db: Db, which: (of: Knex.QueryBuilder) => Knex.QueryBuilder): Promise<boolean> {
  const open = (await which(db('jobs').where({ state: 'open' })).select('id')) as { id: string }[]
  await closeJobs(
    db,
    open.map((j) => j.id),
    'dropped',
  )
  return open.length > 0
}

// What was done

/** Keeps that a job was done; the database takes one record for each. */
export async function insertJobRecord(
  db: Db,
  of: { jobId: string; gardenId: string; personId: string },
  done: JobDone & { deviceAt: string | null },
): Promise<void> {
  await db('job_records').insert({
    id: randomUUID(),
    job_id: of.jobId,
    garden_id: of.gardenId,
    done_on: done.on,
    minutes: done.minutes,
    lived: done.lived,
    used: done.used && JSON.stringify(done.used),
    note: done.note,
    device_at: done.deviceAt,
    person_id: of.personId,
  })
}

/** Takes back that a job was done. */
export async function withdrawJobRecord(db: Db, jobId: string): Promise<void> {
  await db('job_records').where({ job_id: jobId, withdrawn_at: null }).update({ withdrawn_at: db.fn.now() })
}

// Work that the rules of care ask for

/**
 * Jobs that the rules of care ask for, brought up to date: new ones are added, changed ones changed, idle ones go. What a person
 * pinned or asked for stays while what it is done to is there.
 *
 * @param known the garden's jobs as they stand
 * @param isGone whether what a job is done to is no longer there
 */
export async function saveCareJobs(
  db: Db,
  gardenId: string,
  known: readonly Job[],
  wanted: readonly CareJob[],
  isGone: (job: Job) => boolean,
): Promise<void> {
  const ofRules = new Map(known.flatMap((j) => (j.ruleKey ? [[j.ruleKey, j] as const] : [])))
  const keys = new Set(wanted.map((j) => j.key))
  const idle = [...ofRules.values()].filter(
    (j) =>
      j.state === 'open' &&
      !keys.has(j.ruleKey!) &&
      (isGone(j) || (j.pinnedOn === null && !j.asked && j.ruleId !== null)),
  )
  // What was never more than worked out is forgotten; what somebody recorded, asked for or took back is kept.
  const recorded = new Set(
    (
      await db('job_records')
        .whereIn(
          'job_id',
          idle.map((j) => j.id),
        )
        .select<{ id: string }[]>('job_id as id')
    ).map((r) => r.id),
  )
  const forgotten = idle.filter((j) => !recorded.has(j.id) && !j.asked && j.ruleId !== null).map((j) => j.id)
  if (forgotten.length > 0) await db('jobs').whereIn('id', forgotten).delete()
  await closeJobs(
    db,
    idle.map((j) => j.id).filter((id) => !forgotten.includes(id)),
    'dropped',
  )
  await closeJobs(
    db,
    known.filter((j) => j.state === 'open' && j.ruleKey === null && isGone(j)).map((j) => j.id),
    'dropped',
  )
  await insertCareJobs(
    db,
    gardenId,
    wanted.filter((w) => !ofRules.has(w.key)),
  )
  for (const w of wanted) {
    const job = ofRules.get(w.key)
    if (job?.state === 'open') await changeCareJob(db, gardenId, job, w)
  }
}

function careColumns(job: CareJob) {
  const { window, title, minutes, nextChance, materials, tools, cautions, steps } = job
  const { forbids, skill, why, missed, school, tableMinutes, unsure, placeIds } = job
  const details: Details = {
    materials,
    tools: [...tools],
    cautions,
    steps: [...steps],
    forbids,
    skill,
    why,
    missed,
    school,
    tableMinutes,
    unsure,
    // Of a round alone: the first is its own column.
    ...(placeIds.length > 1 && { placeIds }),
  }
  return {
    details,
    columns: {
      title,
      details: JSON.stringify(details),
      minutes,
      next_chance: nextChance,
      ...windowColumns(window),
    },
  }
}

async function insertCareJobs(
  db: Db,
  gardenId: string,
  jobs: readonly CareJob[],
  { asked = false } = {},
): Promise<void> {
  if (jobs.length === 0) return
  const made = jobs.map((job) => ({ id: randomUUID(), job }))
  await db.batchInsert(
    'jobs',
    made.map(({ id, job }) => ({
      id,
      garden_id: gardenId,
      place_id: job.placeId,
      rule_id: job.ruleId,
      rule_key: job.key,
      key: 'care',
      kind: job.operation,
      asked,
      ...careColumns(job).columns,
    })),
    500,
  )
  await insertJobPlantings(
    db,
    gardenId,
    made.map(({ id, job }) => ({ id, plantingIds: job.plantingIds })),
  )
}

export async function insertJobPlantings(
  db: Db,
  gardenId: string,
  jobs: readonly { id: string; plantingIds: readonly string[] }[],
): Promise<void> {
  const rows = jobs.flatMap(({ id, plantingIds }) =>
    plantingIds.map((plantingId) => ({ job_id: id, planting_id: plantingId, garden_id: gardenId })),
  )
  if (rows.length > 0) await db.batchInsert('job_plantings', rows, 500)
}

async function changeCareJob(db: Db, gardenId: string, job: Job, wanted: CareJob): Promise<void> {
  const { details, columns } = careColumns(wanted)
  const same =
    sameJson(job.details, details) &&
    sameJson(job.window, wanted.window) &&
    job.title === wanted.title &&
    job.minutes === wanted.minutes &&
    job.nextChance === wanted.nextChance
  if (!same) await db('jobs').where({ id: job.id }).update(columns)
  const before = job.plantings.map((p) => p.id).sort()
  if (isDeepStrictEqual(before, [...wanted.plantingIds].sort())) return
  await db('job_plantings').where({ job_id: job.id }).delete()
  await insertJobPlantings(db, gardenId, [{ id: job.id, plantingIds: wanted.plantingIds }])
}

/** Equal as values, in whatever order their keys are kept. */
const sameJson = (a: unknown, b: unknown): boolean =>
  isDeepStrictEqual(JSON.parse(JSON.stringify(a)), JSON.parse(JSON.stringify(b)))

/** Work of a rule that a person asked for. False where it is open or done already. */
export async function askCareJob(db: Db, gardenId: string, job: CareJob): Promise<boolean> {
  const known = await findJobByKey(db, gardenId, job.key)
  if (known && known.state !== 'dropped') return false
  if (!known) await insertCareJobs(db, gardenId, [job], { asked: true })
  else {
    await db('jobs').where({ id: known.id }).update({ state: 'open', left_out: false, asked: true })
    await changeCareJob(db, gardenId, known, job)
  }
  return true
}

/** Work left out for once whose window has not closed on a day. */
export const leftOutOf = (jobs: readonly Job[], on: IsoDate): SeasonView['leftOut'] =>
  jobs
    .filter((j) => j.leftOut && j.window.latest >= on)
    .map((j) => ({ id: j.id, title: j.title, latest: j.window.latest }))

/** What a rule has asked for and was done or dropped: key without its last part, with each planting or the place. */
export const careDoneOf = (jobs: readonly Job[]): Set<string> =>
  new Set(
    jobs
      .filter((j) => j.ruleKey !== null && j.state !== 'open')
      .flatMap((j) => {
        const stem = j.ruleKey!.replace(/\/[^/]*$/, '')
        return doneTo(j).map((id) => `${stem}/${id}`)
      }),
  )

/** The places that work is done in, in walking order. */
export const placesOfJob = ({ details, placeId }: Pick<Job, 'details' | 'placeId'>): string[] =>
  details.placeIds ?? (placeId === null ? [] : [placeId])

/** The plantings that work is done to, by id; without any the places. */
const doneTo = (job: Job): string[] =>
  job.plantings.length > 0 ? job.plantings.map((p) => p.id) : placesOfJob(job)

/** When the work of each rule was last done, by rule, season and the planting or place. */
export function careDoneOn(jobs: readonly Job[]): Map<string, IsoDate> {
  const last = new Map<string, IsoDate>()
  for (const job of jobs) {
    if (job.ruleKey === null || !job.done) continue
    const [rule, season] = job.ruleKey.split('/')
    for (const id of doneTo(job)) {
      const key = `${rule}/${season}/${id}`
      if (job.done.on > (last.get(key) ?? '')) last.set(key, job.done.on)
    }
  }
  return last
}

/** Minutes really taken for work that a rule's table has minutes for. */
export const labourOf = (jobs: readonly Job[]): LabourRecord[] =>
  jobs.flatMap((j) =>
    j.done && j.done.minutes !== null && j.details.tableMinutes !== undefined
      ? [{ operation: j.kind, tableMinutes: j.details.tableMinutes, minutes: j.done.minutes }]
      : [],
  )

/** The last day on which each planting was divided. */
export function dividedOf(jobs: readonly Job[]): Map<string, IsoDate> {
  const divided = new Map<string, IsoDate>()
  for (const j of jobs)
    if (j.kind === 'divide' && j.done)
      for (const { id } of j.plantings) if (j.done.on > (divided.get(id) ?? '')) divided.set(id, j.done.on)
  return divided
}

/** Finished jobs of a planting, as lines of its story; a move tells itself as an event. */
export async function listJobStory(db: Db, plantingId: string): Promise<StoryEntry[]> {
  const rows = await db('job_records')
    .join('jobs', 'jobs.id', 'job_records.job_id')
    .join('job_plantings', 'job_plantings.job_id', 'jobs.id')
    .join('people', 'people.id', 'person_id')
    .where({ 'job_plantings.planting_id': plantingId, withdrawn_at: null })
    .whereNot({ kind: 'move' })
    .select<
      ({ title: string; minutes: number | null; note: string | null } & Pick<
        StoryEntry,
        'on' | 'by' | 'recordedAt'
      >)[]
    >(
      'done_on as on',
      'title',
      'job_records.minutes',
      'note',
      'people.name as by',
      'job_records.created_at as recordedAt',
    )
  return rows.map(({ title, minutes, note, ...row }) => ({
    ...row,
    kind: 'job',
    says: `${title}: done${minutes === null ? '' : ` in ${minutes} min`}.${note ? ` ${note}` : ''}`,
  }))
}
