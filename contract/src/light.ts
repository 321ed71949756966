import { brightnesses, words, fileText as textOfFile } from '@border/core'
import { z } from 'zod'
import {
  crew,
  gardenPath,
  head,
  id,
  instant,
  isoDay,
  keeper,
  onDay,
  shortText,
  spot,
  timeZone,
  recordedDay,
} from './basics.ts'
import { asks, done, reads, writes } from './endpoint.ts'
import { obstructionChange } from './plan.ts'
import {
  cause,
  comingChange,
  explanation,
  lightCause,
  lightEffect,
  sunHours,
  supposition,
  suspectedChange,
  tellingLook,
} from './worked.ts'

/** A what-if with what it would do; `id` is null for the garden as it stands. */
const whatIf = z.strictObject({
  id: id.nullable(),
  name: z.string(),
  suppositions: z.array(supposition),
  /** Plantings outside the light they like. */
  outside: z.number(),
  leaving: z.number(),
  returning: z.number(),
  /** Mean hours of sun over all beds on the mean day of the growing season. */
  meanHours: z.number(),
})
export type WhatIfView = z.infer<typeof whatIf>

const aheadView = z.strictObject({
  on: isoDay,
  /** How many years were looked at. */
  years: z.number(),
  coming: z.array(comingChange),
  /** Ailing trees and hedges, with what their going would do. */
  waiting: z.array(z.strictObject({ obstructionId: id, health: z.string(), effects: z.array(lightEffect) })),
})
export type AheadView = z.infer<typeof aheadView>

const readingRequest = z.object({ at: instant, ...spot, seen: z.enum(brightnesses) })
export type ReadingRequest = z.infer<typeof readingRequest>
const lightLogRequest = z.object({
  name: shortText,
  ...spot,
  /** The file, `time,lux`. */
  csv: textOfFile(8_000_000),
  /** Zone of times without an offset; the garden's unless given. */
  timeZone: timeZone.optional(),
})
export type LightLogRequest = z.infer<typeof lightLogRequest>

const reading = z.strictObject({
  id,
  at: instant,
  x: z.number(),
  y: z.number(),
  placeId: id.nullable(),
  seen: z.enum(brightnesses),
  by: z.string(),
})
export type ReadingView = z.infer<typeof reading>
const lightLog = z.strictObject({
  id,
  name: z.string(),
  x: z.number(),
  y: z.number(),
  placeId: id.nullable(),
  firstAt: instant,
  lastAt: instant,
  sampleCount: z.number(),
  /** Steps of twenty minutes that told something, and of all the ones set aside. */
  readingCount: z.number(),
  steps: z.number(),
  cloudy: z.number(),
  undecided: z.number(),
})
export type LightLogView = z.infer<typeof lightLog>
/** Readings of a garden, what explains them and where to look next. */
const lightEvidence = z.strictObject({
  since: isoDay,
  readings: z.array(reading),
  logs: z.array(lightLog),
  explanations: z.array(explanation),
  used: z.number(),
  unusable: z.array(z.string()),
  telling: z.array(tellingLook),
  /** The day of the coming months on which looking would tell clearly more than now, and how many times as much; null where now nothing. */
  later: z
    .strictObject({ day: isoDay, looks: z.array(tellingLook), times: z.number().nullable() })
    .nullable(),
})
export type LightEvidenceView = z.infer<typeof lightEvidence>

const suspicionDetail = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('unrecorded'),
    cause,
    posterior: z.number(),
    explains: z.number(),
    used: z.number(),
  }),
  z.strictObject({ kind: z.literal('ahead'), change: comingChange }),
  z.strictObject({
    kind: z.literal('changed'),
    plantingId: id,
    before: sunHours,
    now: sunHours,
    cause: lightCause,
  }),
  z.strictObject({ kind: z.literal('signs'), change: suspectedChange }),
])
export type SuspicionDetail = z.infer<typeof suspicionDetail>
/** Something that seems to have changed, or is about to. */
const suspicion = z.strictObject({ id, detail: suspicionDetail, firstSeen: isoDay, lastSeen: isoDay })
export type SuspicionView = z.infer<typeof suspicion>
const suspicionsView = z.strictObject({
  /** The day the garden was last re-checked; null when it never was. */
  checkedOn: isoDay.nullable(),
  suspicions: z.array(suspicion),
})
export type SuspicionsView = z.infer<typeof suspicionsView>

const logId = z.strictObject({ logId: id })

/** What light there is, what it may become, and what readings say of it. */
export const lightEndpoints = {
  ahead: reads(`${gardenPath}/ahead`, keeper, {
    query: onDay,
    answer: aheadView,
    restsOn: ['plan', 'plantings', 'library'],
  }),
  whatIfs: reads(`${gardenPath}/what-ifs`, keeper, {
    query: onDay,
    answer: z.array(whatIf),
    restsOn: ['plan', 'plantings', 'library', 'suppositions'],
  }),
  keepWhatIf: writes(`${gardenPath}/what-ifs`, head, {
    body: z.object({
      name: words(80),
      suppositions: z
        .array(obstructionChange.extend({ obstructionId: id }))
        .min(1)
        .max(50),
    }),
    answer: z.strictObject({ whatIfId: id }),
  }),
  withdrawWhatIf: writes(`${gardenPath}/what-ifs/:whatIfId/withdraw`, head),
  evidence: reads(`${gardenPath}/light-evidence`, keeper, {
    answer: lightEvidence,
    restsOn: ['plan', 'readings'],
  }),
  takeReading: writes(`${gardenPath}/light-readings`, crew, {
    body: readingRequest,
    answer: z.strictObject({ readingId: id }),
  }),
  withdrawReading: writes(`${gardenPath}/light-readings/:readingId/withdraw`, crew),
  bringLog: writes(`${gardenPath}/light-logs`, crew, { body: lightLogRequest, answer: logId }),
  withdrawLog: writes(`${gardenPath}/light-logs/:logId/withdraw`, crew),
  /** A simulated logger stands at a point for some days and sends what it saw. */
  simulateLog: writes(`${gardenPath}/light-logs/simulated`, crew, {
    body: z.object({ ...spot, name: shortText }),
    answer: logId,
  }),
  suspicions: reads(`${gardenPath}/suspicions`, keeper, { answer: suspicionsView, restsOn: ['suspicions'] }),
  recheck: asks(`${gardenPath}/recheck`, crew, { answer: done }),
  /** Confirming one puts its change on the plan with its day. */
  decideSuspicion: writes(`${gardenPath}/suspicions/:suspicionId`, head, {
    body: z.discriminatedUnion('state', [
      z.object({ state: z.literal('dismissed') }),
      z.object({ state: z.literal('confirmed'), date: recordedDay.optional() }),
    ]),
  }),
}
