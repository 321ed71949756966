import { treatments } from '@border/core'
import { z } from 'zod'
import { whatIsKnown } from './aspects.ts'
import {
  gardenPath,
  crew,
  fileText,
  head,
  id,
  isoDay,
  keeper,
  longText,
  shortNote,
  recordedDay,
} from './basics.ts'
import { reads, sendsFile, writes } from './endpoint.ts'
import {
  bloomSeen,
  bloomWeek,
  decline,
  diagnosisShape,
  filledGap,
  likelihoodShape,
  lightCause,
  rank,
  recordModel,
  sign,
  signCause,
  survivalStep,
  suspectedChange,
  taxonRecord,
  treatmentEffect,
  trialProposal,
  unseen,
} from './worked.ts'

/** A planting in one place: a move begins another stay. */
const stayShape = {
  id: z.string(),
  plantingId: id,
  tag: z.string(),
  botanical: z.string(),
  placeId: id,
  from: isoDay,
  to: isoDay.nullable(),
  plantedCount: z.number(),
  livingCount: z.number(),
}
export type Stay = z.infer<z.ZodObject<typeof stayShape>>

/** A season of a stay: the year, its score as seen, adjusted for stage and age, walks behind it, what it must be read with. */
const seasonFigures = z
  .tuple([z.number(), z.number(), z.number(), z.number(), z.enum(['settling', 'resting', ''])])
  .readonly()
export type SeasonFigures = z.infer<typeof seasonFigures>

const trialOutcomes = ['trial', 'expand', 'retry elsewhere', 'strike off', 'go on'] as const
export type TrialOutcome = (typeof trialOutcomes)[number]
const trialRequest = z
  .object({
    on: recordedDay,
    outcome: z.enum(trialOutcomes),
    driftCount: z.number().int().min(1).max(1000).optional(),
    reason: longText.optional(),
  })
  .refine(
    (t) => (t.outcome === 'expand') === (t.driftCount !== undefined),
    'a drift needs its number of plants',
  )
const trialOutcome = z.strictObject({
  on: isoDay,
  outcome: z.enum(trialOutcomes),
  driftCount: z.number().nullable(),
  reason: z.string().nullable(),
  by: z.string(),
})
export type TrialOutcomeView = z.infer<typeof trialOutcome>

const recordView = z.strictObject({
  on: isoDay,
  seasons: z.array(z.number()),
  /** Each with its seasons, in order. */
  stays: z.array(z.strictObject({ ...stayShape, scores: z.array(seasonFigures) })),
  model: recordModel.nullable(),
  declines: z.array(decline),
  survival: z.array(z.strictObject({ taxon: z.string(), plants: z.number(), steps: z.array(survivalStep) })),
  taxa: z.array(taxonRecord),
  best: z.array(z.strictObject({ placeId: id, ranks: z.array(rank) })),
  unseen: z.array(z.strictObject({ plantingId: id, unseen })),
  trials: z.array(
    z.strictObject({
      plantingId: id,
      since: isoDay,
      proposal: trialProposal,
      outcomes: z.array(trialOutcome),
    }),
  ),
})
export type RecordView = z.infer<typeof recordView>

const bloomView = z.strictObject({
  season: z.number(),
  /** Cuts and deadheading of any season against the like left alone. */
  effects: z.array(treatmentEffect),
  window: z.strictObject({ from: isoDay, to: isoDay }),
  blooms: z.array(bloomSeen),
  places: z.array(z.strictObject({ placeId: id, weeks: z.array(bloomWeek), gaps: z.array(filledGap) })),
})
export type BloomView = z.infer<typeof bloomView>

const diagnosisView = z.strictObject({
  on: isoDay,
  /** First day of the looks it was read from. */
  since: isoDay,
  diagnoses: z.array(
    z.strictObject({
      ...diagnosisShape,
      signs: z.array(sign),
      rating: z.number().nullable(),
      seenOn: isoDay,
      lightCause: lightCause.nullable(),
    }),
  ),
  suspected: z.array(suspectedChange),
  /** The last rating of a planting where it does not count: made at its rest, or too long ago. */
  passedOver: z.array(
    z.strictObject({ plantingId: id, rating: z.number(), on: isoDay, why: z.enum(['at rest', 'old']) }),
  ),
})
export type DiagnosisView = z.infer<typeof diagnosisView>

const likelihoodView = z.strictObject({
  rows: z.array(
    z.strictObject({
      ...likelihoodShape,
      shipped: z.number().nullable(),
      changedBy: z.string().nullable(),
    }),
  ),
})
export type LikelihoodView = z.infer<typeof likelihoodView>

const planting = `${gardenPath}/plantings/:plantingId` as const
const strikeOff = z.object({ on: recordedDay, note: longText.optional() })

/** How plants have done, and what that says. */
export const recordEndpoints = {
  read: reads(`${gardenPath}/record`, keeper, { answer: recordView, restsOn: whatIsKnown }),
  bloom: reads(`${gardenPath}/bloom`, keeper, {
    query: z.object({
      season: z.coerce
        .number('must be a year like 2026')
        .int('must be a year like 2026')
        .min(1900, 'must be a year like 2026')
        .max(2200, 'must be a year like 2026')
        .optional(),
    }),
    answer: bloomView,
    restsOn: whatIsKnown,
  }),
  diagnosis: reads(`${gardenPath}/diagnosis`, keeper, { answer: diagnosisView, restsOn: whatIsKnown }),
  likelihoods: reads(`${gardenPath}/likelihoods`, keeper, { answer: likelihoodView, restsOn: ['library'] }),
  setShare: writes(`${gardenPath}/likelihoods`, head, {
    body: z.object({
      sign,
      cause: signCause,
      /** Null goes back to the shipped share. */
      share: z.number().min(0).max(1).nullable(),
      why: shortNote.optional(),
    }),
    sees: z.strictObject({ share: z.number() }),
  }),
  strikeOff: writes(`${planting}/strike-off`, crew, { body: strikeOff }),
  found: writes(`${planting}/found`, crew, { body: strikeOff }),
  judgeTrial: writes(`${planting}/trial`, head, {
    body: trialRequest,
    /** The latest word on it. */
    sees: z.strictObject({ outcome: trialOutcome.nullable() }),
  }),
  /** What is done to a planting for the sake of its bloom. */
  treat: writes(`${planting}/treatments`, crew, {
    body: z.object({ on: recordedDay, what: z.enum(treatments) }),
  }),
  csv: sendsFile(`${gardenPath}/observations.csv`, keeper, 'text/csv', {
    query: z.object({ from: isoDay.optional(), to: isoDay.optional() }),
  }),
  bring: writes(`${gardenPath}/observations-file`, head, {
    body: z.object({ csv: fileText }),
    answer: z.strictObject({ added: z.number(), known: z.number() }),
  }),
}
