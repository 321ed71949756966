import { z } from 'zod'
import { gardenPath, head, id, instant, isoDay, keeper, point, recordedDay } from './basics.ts'
import { reads, writes } from './endpoint.ts'
import { feature as part } from './worked.ts'

export const featureEventRequest = z.discriminatedUnion('action', [
  z.object({ date: recordedDay, action: z.literal('limbed'), clearStemM: z.number().min(0).max(120) }),
  z.object({ date: recordedDay, action: z.literal('thinned'), fraction: z.number().min(0).max(1) }),
  z.object({ date: recordedDay, action: z.literal('lowered'), heightM: z.number().min(0).max(120) }),
  z.object({
    date: recordedDay,
    action: z.literal('measured'),
    heightM: z.number().min(0.1).max(120),
    crownRadiusM: z.number().min(0).max(40).optional(),
  }),
])
export type ObstructionEventRequest = z.infer<typeof featureEventRequest>

/** What may be supposed of an obstruction. */
export const obstructionChange = z.object({
  gone: z.boolean().optional(),
  grownYears: z.number().min(0).max(60).optional(),
  heightM: z.number().min(0).max(120).optional(),
  crownRadiusM: z.number().min(0).max(40).optional(),
  clearStemM: z.number().min(0).max(120).optional(),
  thinnedBy: z.number().min(0).max(0.99).optional(),
  movedM: z
    .tuple([z.number().min(-500).max(500), z.number().min(-500).max(500)])
    .readonly()
    .optional(),
})
/** What was tried of an obstruction, or is believed of it, made so from a day. */
export const obstructionChangeRequest = z.object({ date: recordedDay, change: obstructionChange })
export type ObstructionChangeRequest = z.infer<typeof obstructionChangeRequest>

const edits = `${gardenPath}/plan/edits` as const
const feature = `${gardenPath}/features/:featureId` as const

const affine = z.tuple([z.number(), z.number(), z.number(), z.number(), z.number(), z.number()]).readonly()

/**
 * The plan put otherwise, all of it or nothing. Without a day it is a correction: it was always so, and the past is worked out anew.
 * With one it happened in the garden on that day.
 */
const planEdit = z.object({
  /** Each as it is to be; checked whole where it is read. Null takes it off the plan, or ends it on the day. A new one brings its id. */
  parts: z
    .array(z.object({ id, feature: z.unknown() }))
    .min(1)
    .max(60),
  /** Places moved, turned or mirrored whole: what grows there goes along. */
  carried: z
    .array(z.object({ placeId: id, by: affine }))
    .max(60)
    .default([]),
  /** What grows in the one and lies inside the other grows in the other. */
  rehomed: z
    .array(z.object({ from: id, to: id }))
    .max(60)
    .default([]),
  /** Plantings put elsewhere one by one. */
  settled: z
    .array(z.object({ plantingId: id, placeId: id, ...point }))
    .max(2000)
    .default([]),
  /** Plantings that never were, with the place they were entered in. */
  withdrawn: z.array(id).max(2000).default([]),
  from: recordedDay.optional(),
})
export type PlanEdit = z.input<typeof planEdit>

export const edited = z.strictObject({
  /** Null where nothing was otherwise. */
  editId: id.nullable(),
})

const editView = z.strictObject({
  id,
  by: z.string(),
  at: instant,
  /** The day from which it is so in the garden; null for a correction. */
  from: isoDay.nullable(),
  says: z.array(z.string()),
  /** It took another back. */
  isUndoing: z.boolean(),
  isUndone: z.boolean(),
  /** Nothing it needs is unknown: it can be asked to be taken back. */
  canUndo: z.boolean(),
})
/** One change of the plan or of plantings, by whom and when. */
export type EditView = z.infer<typeof editView>

const hanging = z.strictObject({
  /** Plantings that stand there, by tag. */
  plantings: z.array(z.string()),
  /** Plantings that stood there once. */
  past: z.number(),
  looks: z.number(),
  photos: z.number(),
  jobs: z.number(),
})
/** What hangs on a part of the plan. */
export type Hanging = z.infer<typeof hanging>

const removed = z.strictObject({
  parts: z.array(z.strictObject({ id, kind: z.string(), name: z.string(), at: instant })),
  plantings: z.array(
    z.strictObject({ id, tag: z.string(), botanical: z.string(), place: z.string(), at: instant }),
  ),
})
/** What was taken out as entered by mistake, latest first. */
export type Removed = z.infer<typeof removed>

/** What stands in a garden, and what has happened to it. */
export const planEndpoints = {
  edit: writes(edits, head, { body: planEdit, answer: edited, sees: z.array(part) }),
  undo: writes(`${edits}/:editId/undo`, head, { answer: edited }),
  edits: reads(edits, keeper, { answer: z.array(editView), restsOn: ['plan', 'plantings', 'library'] }),
  hanging: reads(`${feature}/hanging`, keeper, {
    answer: hanging,
    restsOn: ['plan', 'plantings', 'record', 'jobs'],
  }),
  removed: reads(`${gardenPath}/plan/removed`, head, {
    answer: removed,
    restsOn: ['plan', 'plantings', 'library'],
  }),
  changeFeature: writes(`${feature}/change`, head, {
    body: obstructionChangeRequest,
    answer: edited,
    sees: part,
  }),
  /** `to` is the day it is gone; null when it stands after all. */
  endFeature: writes(`${feature}/end`, head, {
    body: z.object({ to: isoDay.nullable() }),
    answer: edited,
    sees: part,
  }),
  recordEvent: writes(`${feature}/events`, head, { body: featureEventRequest, answer: edited, sees: part }),
  takeBackEvent: writes(`${feature}/events/undo`, head, { answer: edited, sees: part }),
  restore: writes(`${feature}/restore`, head, { answer: edited }),
}
