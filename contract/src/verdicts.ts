import { actions } from '@border/core'
import { z } from 'zod'
import { whatIsKnown } from './aspects.ts'
import {
  gardenPath,
  botanicalName,
  head,
  id,
  isoDay,
  keeper,
  longText,
  point,
  recordedDay,
  note,
} from './basics.ts'
import { reads, writes } from './endpoint.ts'
import { assessment, successorChoice, term } from './worked.ts'

const moveTarget = z.object({ placeId: id, ...point })
export type MoveTarget = z.infer<typeof moveTarget>

/** What the person chose. Kept for ever; a later decision stands beside it. */
export const decisionRequest = z.discriminatedUnion('choice', [
  z.object({ plantingId: id, on: recordedDay, choice: z.literal('accept'), target: moveTarget.optional() }),
  z.object({
    plantingId: id,
    on: recordedDay,
    choice: z.literal('otherwise'),
    action: z.enum(actions),
    reason: note.refine((why) => why.length >= 3, 'say why'),
    target: moveTarget.optional(),
  }),
  z.object({
    plantingId: id,
    on: recordedDay,
    choice: z.literal('wait'),
    until: recordedDay,
    reason: longText.optional(),
  }),
])
export type DecisionRequest = z.infer<typeof decisionRequest>

const decision = z.strictObject({
  id,
  plantingId: id,
  proposed: z.string(),
  choice: z.enum(['accept', 'otherwise', 'wait']),
  action: z.string(),
  reason: z.string().nullable(),
  waitUntil: isoDay.nullable(),
  decidedOn: isoDay,
  decidedBy: z.string(),
  jobCount: z.number(),
  /** The verdict as it was then weighed. */
  weighed: z.strictObject({ terms: z.array(term), scores: z.partialRecord(z.enum(actions), z.number()) }),
})
export type DecisionView = z.infer<typeof decision>

const assessmentView = z.strictObject({
  on: isoDay,
  then: isoDay,
  assessments: z.array(assessment),
  decisions: z.array(decision),
})
export type AssessmentView = z.infer<typeof assessmentView>

/** The latest word on each planting that a word is said on; null where there was none. */
const wordsSeen = z.array(z.strictObject({ plantingId: id, decisionId: id.nullable() })).max(200)

const bulkAnswer = z.strictObject({
  kept: z.array(id),
  refused: z.array(z.strictObject({ plantingId: id, why: z.string() })),
})
export type BulkAnswer = z.infer<typeof bulkAnswer>

export const successorRequest = z.discriminatedUnion('state', [
  z.object({ state: z.literal('planned'), botanical: botanicalName }),
  z.object({ state: z.literal('dismissed') }),
  /** What was said is taken back. */
  z.object({ state: z.literal('open') }),
])
/** A failing tree or shrub of consequence, and what could be planted now to stand when it goes. */
const succession = z.strictObject({
  subjectId: id,
  name: z.string(),
  placeId: id.nullable(),
  says: z.string(),
  choices: z.array(successorChoice),
  word: z
    .strictObject({
      state: z.enum(['planned', 'dismissed']),
      botanical: z.string().nullable(),
      jobId: id.nullable(),
    })
    .nullable(),
})
export type SuccessionView = z.infer<typeof succession>

/** How every planting is weighed, and what people decide. */
export const verdictEndpoints = {
  assessment: reads(`${gardenPath}/assessment`, keeper, {
    query: z.object({ on: isoDay.optional(), then: isoDay.optional() }),
    answer: assessmentView,
    restsOn: [...whatIsKnown, 'decisions', 'jobs', 'prices'],
  }),
  decide: writes(`${gardenPath}/decisions`, head, {
    body: decisionRequest,
    sees: wordsSeen,
    answer: z.strictObject({ decisionId: id }),
  }),
  /** The same word on many proposals at once. */
  decideMany: writes(`${gardenPath}/decisions/many`, head, {
    body: z.object({
      plantingIds: z.array(id).min(1).max(200),
      on: recordedDay,
      word: z.discriminatedUnion('choice', [
        z.object({ choice: z.literal('accept') }),
        z.object({ choice: z.literal('wait'), until: recordedDay }),
      ]),
    }),
    sees: wordsSeen,
    answer: bulkAnswer,
  }),
  successions: reads(`${gardenPath}/successions`, keeper, {
    answer: z.array(succession),
    restsOn: [...whatIsKnown, 'decisions', 'jobs'],
  }),
  saySuccessor: writes(`${gardenPath}/successions/:subjectId`, head, {
    body: successorRequest,
    sees: z.strictObject({ word: succession.shape.word }),
  }),
}
