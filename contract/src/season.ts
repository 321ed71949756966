import { forbiddenStates, operations, pastOperations, remark, stepStages, words } from '@border/core'
import { z } from 'zod'
import {
  gardenPath,
  crew,
  head,
  id,
  instant,
  isoDay,
  keeper,
  longText,
  recordedDay,
  serverAheadMs,
} from './basics.ts'
import { done, reads, sendsFile, writes } from './endpoint.ts'
import { jobWindow, placedHere, waterBalanceShape, whyHere } from './worked.ts'

const material = z.strictObject({ name: z.string(), amount: z.number(), unit: z.string() })
const job = z.strictObject({
  id,
  kind: z.enum(operations),
  title: z.string(),
  /** Plantings it is done to; none where it is done to a place. */
  plantingIds: z.array(id),
  tags: z.array(z.string()),
  /** Where it begins, and all places that it is done in, in walking order. */
  placeId: id.nullable(),
  placeIds: z.array(id),
  /** The rule of care that asks for it; null where a decision does. */
  ruleId: z.string().nullable(),
  /** The scheme that it carries out, and which part of its work it is. */
  schemeId: id.nullable(),
  stage: z.enum(stepStages).nullable(),
  /** What it plants. */
  sets: z.strictObject({ driftId: id, botanical: z.string(), count: z.number() }).nullable(),
  /** Pieces that a division is likely to give for elsewhere. */
  spare: z.number().nullable(),
  window: jobWindow,
  minutes: z.number(),
  materials: z.array(material),
  tools: z.array(z.string()),
  cautions: z.array(z.string()),
  steps: z.array(z.string()),
  why: z.string().nullable(),
  /** What happens when it is missed. */
  missed: z.string().nullable(),
  /** The school it follows and what the other would do. */
  school: z.string().nullable(),
  /** Why its dates cannot be relied on; null where they can. */
  unsure: z.string().nullable(),
  forbids: z.array(z.enum(forbiddenStates)),
  after: z.array(id),
  state: z.enum(['open', 'done', 'dropped']),
  plannedOn: isoDay.nullable(),
  /** Its sittings. */
  parts: z.array(z.strictObject({ day: isoDay, minutes: z.number() })),
  nextChance: isoDay.nullable(),
  /** Why it has no day, in a sentence. */
  unplaced: z.string().nullable(),
  /** The day somebody has put it on. */
  pinnedOn: isoDay.nullable(),
  /** Nothing asked for it: it was written down after it was done. */
  isPast: z.boolean(),
  done: z
    .strictObject({
      on: isoDay,
      /** Null where nobody knows how long it took. */
      minutes: z.number().nullable(),
      lived: z.number().nullable(),
      used: z.array(material).nullable(),
      note: z.string().nullable(),
      by: z.string(),
    })
    .nullable(),
})
export type JobView = z.infer<typeof job>

/** Jobs of a garden that a new plan put on another day, or on none. */
const rescheduled = z.strictObject({
  id,
  at: instant,
  moved: z.array(
    z.strictObject({
      jobId: id,
      title: z.string(),
      from: isoDay,
      to: isoDay.nullable(),
      says: z.string(),
    }),
  ),
})
export type Rescheduled = z.infer<typeof rescheduled>

const seasonView = z.strictObject({
  jobs: z.array(job),
  /** Work of rules left out for once, whose window has not closed. */
  leftOut: z.array(z.strictObject({ id, title: z.string(), latest: isoDay })),
  /** Person-minutes of the garden's crew; `elsewhere` are in its other gardens or on the way. */
  workingDays: z.array(
    z.strictObject({
      day: isoDay,
      minutes: z.number(),
      elsewhere: z.number(),
      people: z.array(z.string()),
    }),
  ),
  /** What the latest plan that moved anything moved here; null where none did. */
  rescheduled: rescheduled.nullable(),
})
export type SeasonView = z.infer<typeof seasonView>

export const jobDoneRequest = z.object({
  on: recordedDay,
  /** When it was said, by the device's own clock. */
  at: instant.optional(),
  serverAheadMs: serverAheadMs.optional(),
  minutes: z.number().int().min(1).max(10_000),
  /** Plants that lived through it, or were planted; asked for where plants are handled. */
  lived: z.number().int().min(0).max(10_000).optional(),
  /** Pieces left over at a division, put on the bench. */
  leftOver: z
    .array(z.object({ plantingId: id, count: z.number().int().min(1).max(10_000) }))
    .max(200)
    .optional(),
  /** Materials as they were really used. */
  used: z
    .array(
      z.object({
        name: words(200),
        amount: z.number().min(0).max(100_000),
        unit: remark(20),
      }),
    )
    .max(20)
    .optional(),
  note: longText.optional(),
})
export type JobDone = z.infer<typeof jobDoneRequest>

/** Past work, done to some plantings of a place or, without any, to the place. */
export const pastWorkRequest = z.object({
  id,
  on: recordedDay,
  operation: z.enum(pastOperations),
  placeId: id,
  plantingIds: z.array(id).max(500).default([]),
  minutes: z.number().int().min(1).max(10_000).nullish(),
  note: longText.optional(),
})

const runStates = ['queued', 'running', 'ready', 'taken', 'dropped', 'failed'] as const
export type RunState = (typeof runStates)[number]
/** A season's plan being worked out, or waiting to be looked at. */
const scheduleRun = z.strictObject({
  id,
  state: z.enum(runStates),
  /** 0 to 1. */
  progress: z.number(),
  failure: z.string().nullable(),
  /** What it does in this garden. */
  result: placedHere.nullable(),
  /** Jobs of the crew's other gardens that it moves. */
  movedElsewhere: z.number(),
})
export type ScheduleRunView = z.infer<typeof scheduleRun>

/** What people have said of a job. */
const jobSeen = job.pick({ state: true, pinnedOn: true })

const oneJob = `${gardenPath}/jobs/:jobId` as const
const withAlarms = z.object({ alarms: z.string().optional() })

/** The work of a season: what there is to do, when, and what was done. */
export const seasonEndpoints = {
  read: reads(`${gardenPath}/season`, keeper, {
    answer: seasonView,
    restsOn: ['plantings', 'jobs', 'days', 'crew'],
  }),
  calendar: sendsFile(`${gardenPath}/calendar.ics`, keeper, 'text/calendar', { query: withAlarms }),
  /** Whoever has the secret in the address may read the jobs of its garden, and nothing else. */
  linkedCalendar: sendsFile('/calendar/:token', 'anyone', 'text/calendar', { query: withAlarms }),
  calendarLink: reads(`${gardenPath}/calendar-link`, head, {
    answer: z.strictObject({ since: instant.nullable() }),
    restsOn: ['links'],
  }),
  /** A link by which a calendar program reads the jobs: made anew, or withdrawn. Asked again it only says that it is done. */
  setCalendarLink: writes(`${gardenPath}/calendar-link`, head, {
    body: z.object({ on: z.boolean() }),
    answer: z.union([z.strictObject({ path: z.string().nullable() }), done]),
    writes: 'secret',
  }),
  recordDone: writes(`${oneJob}/done`, crew, { body: jobDoneRequest }),
  recordPast: writes(`${gardenPath}/past-work`, crew, { body: pastWorkRequest }),
  takeBackDone: writes(`${oneJob}/take-back`, crew),
  leaveOut: writes(`${oneJob}/leave-out`, head, { body: z.object({ leaveOut: z.boolean() }), sees: jobSeen }),
  pin: writes(`${oneJob}/pin`, head, { body: z.object({ day: recordedDay.nullable() }), sees: jobSeen }),
  why: reads(`${oneJob}/why`, keeper, { answer: whyHere, restsOn: ['climate', 'jobs', 'days', 'crew'] }),
  schedule: writes(`${gardenPath}/schedule-runs`, head, { answer: z.strictObject({ runId: id }) }),
  latestSchedule: reads(`${gardenPath}/schedule-runs/latest`, keeper, {
    answer: z.strictObject({ run: scheduleRun.nullable() }),
    restsOn: ['jobs', 'runs'],
  }),
  takeSchedule: writes(`${gardenPath}/schedule-runs/:runId`, head, { body: z.object({ take: z.boolean() }) }),
}

const wateringView = z.strictObject({
  /** Why nothing can be told; null where it can. */
  unknown: z.string().nullable(),
  /** Told from weather that was made up. */
  isSimulated: z.boolean(),
  /** What is not rooted in, soonest due first; `dueOn` null: not within the days known ahead. */
  plants: z.array(
    z.strictObject({
      plantingId: id,
      tag: z.string(),
      botanical: z.string(),
      placeId: id,
      ...waterBalanceShape,
    }),
  ),
})
export type WateringView = z.infer<typeof wateringView>

/** Watering of what is not rooted in. */
export const wateringEndpoints = {
  read: reads(`${gardenPath}/watering`, keeper, {
    answer: wateringView,
    restsOn: ['plan', 'plantings', 'climate', 'library', 'jobs', 'waterings'],
  }),
  give: writes(`${gardenPath}/waterings`, crew, {
    body: z.object({
      on: recordedDay,
      given: z
        .array(z.object({ plantingId: id, litres: z.number().positive().max(10_000) }))
        .min(1)
        .max(500),
    }),
  }),
}
