import type { SeenInWords } from '@border/core'
import { z } from 'zod'
import { whatIsKnown } from './aspects.ts'
import {
  gardenPath,
  crew,
  id,
  instant,
  isoDay,
  shortNote,
  recordedDay,
  note,
  serverAheadMs,
} from './basics.ts'
import { reads, writes } from './endpoint.ts'
import { standpoint } from './photos.ts'
import { bloomStage, earliness, sign, unseen, usualPhase } from './worked.ts'

const noted = {
  /** Made on the device: the same entry sent twice is kept once. */
  id,
  on: recordedDay,
  /** By the device's own clock. */
  at: instant,
  serverAheadMs: serverAheadMs.optional(),
  /** An earlier entry of the same device that this one puts right. */
  replacesId: id.optional(),
  /** What it puts right instead where that one never came into the record, latest first. */
  orReplaces: z.array(id).max(50).optional(),
  note: note.optional(),
}
const sizeM = z.number().positive().max(60)
const observationEntry = z
  .object({
    kind: z.literal('planting'),
    ...noted,
    plantingId: id,
    rating: z.number().int().min(1).max(5).optional(),
    living: z.number().int().min(1).max(10_000).optional(),
    absent: z.boolean().default(false),
    stage: bloomStage.optional(),
    flush: z.number().int().min(1).max(9).optional(),
    heightM: sizeM.optional(),
    spreadM: sizeM.optional(),
    signs: z.array(sign).max(30).default([]),
  })
  .refine(
    (o) =>
      o.rating !== undefined ||
      o.living !== undefined ||
      o.absent ||
      o.stage !== undefined ||
      o.heightM !== undefined ||
      o.spreadM !== undefined ||
      o.signs.length > 0 ||
      o.note !== undefined,
    'says nothing: give a rating, a count, a stage, a size, a sign or a note',
  )
  .refine(
    (o) => !o.absent || (o.living === undefined && o.stage === undefined),
    'says that nothing shows, and counts it all the same',
  )
export type ObservationEntry = z.input<typeof observationEntry>

const weeds = z.enum(['none', 'some', 'many'])
const mulch = z.enum(['good', 'thin', 'none'])
const soil = z.enum(['dry', 'moist', 'wet'])
const placeEntry = z.object({
  kind: z.literal('place'),
  ...noted,
  placeId: id,
  weeds: weeds.optional(),
  mulch: mulch.optional(),
  soil: soil.optional(),
  edgesLost: z.boolean().optional(),
  waterMisses: z.boolean().optional(),
  /** Widths of bare holes, metres. */
  holesM: z.array(z.number().positive().max(30)).max(20).default([]),
  goodTogether: shortNote.optional(),
  missing: shortNote.optional(),
})
export type PlaceEntry = z.input<typeof placeEntry>

export const walkEntry = z.discriminatedUnion('kind', [observationEntry, placeEntry])
export type WalkEntry = z.input<typeof walkEntry>

const walkAnswer = z.strictObject({
  /** Ids now in the record, sent before or not. */
  kept: z.array(z.string()),
  refused: z.array(z.strictObject({ id: z.string(), why: z.string() })),
})
export type WalkAnswer = z.infer<typeof walkAnswer>

const seen = {
  rating: z.number().nullable(),
  living: z.number().nullable(),
  absent: z.boolean(),
  stage: bloomStage.nullable(),
  flush: z.number().nullable(),
  heightM: z.number().nullable(),
  spreadM: z.number().nullable(),
  note: z.string().nullable(),
} satisfies Record<Exclude<keyof SeenInWords, 'signs'>, z.ZodType>
const observation = z.strictObject({
  id,
  plantingId: id,
  on: isoDay,
  ...seen,
  signs: z.array(sign),
  by: z.string().nullable(),
})
export type ObservationView = z.infer<typeof observation>
const placeLook = z.strictObject({
  id,
  placeId: id,
  on: isoDay,
  weeds: weeds.nullable(),
  mulch: mulch.nullable(),
  soil: soil.nullable(),
  edgesLost: z.boolean().nullable(),
  waterMisses: z.boolean().nullable(),
  holesM: z.array(z.number()),
  goodTogether: z.string().nullable(),
  missing: z.string().nullable(),
  note: z.string().nullable(),
  by: z.string().nullable(),
})
export type PlaceLookView = z.infer<typeof placeLook>

/** A planting as a walk meets it. */
const walkPlanting = z.strictObject({
  id,
  tag: z.string(),
  botanical: z.string(),
  common: z.string(),
  plantedCount: z.number(),
  livingCount: z.number(),
  /** What it usually does this week, in words. */
  usual: z.string(),
  phase: usualPhase,
  resting: z.boolean(),
  settling: z.boolean(),
  usualStage: bloomStage,
  last: observation.nullable(),
  /** Signs it can have, likeliest first. */
  likely: z.array(sign),
  unseen: unseen.nullable(),
})
export type WalkPlanting = z.infer<typeof walkPlanting>
const walkPlace = z.strictObject({
  id,
  name: z.string(),
  kind: z.enum(['bed', 'container']),
  plantings: z.array(walkPlanting),
  last: placeLook.nullable(),
  standpoints: z.array(standpoint),
})
export type WalkPlace = z.infer<typeof walkPlace>
/** All that a walk needs, to be taken along where there is no connection. */
const walkView = z.strictObject({
  on: isoDay,
  earliness: earliness.nullable(),
  places: z.array(walkPlace),
})
export type WalkView = z.infer<typeof walkView>

/** Walking a garden and noting what is seen. */
export const walkEndpoints = {
  read: reads(`${gardenPath}/walk`, crew, { answer: walkView, restsOn: whatIsKnown }),
  /** Each entry is judged by itself, so that one that cannot be kept does not hold up the rest. */
  note: writes(`${gardenPath}/walk-entries`, crew, {
    body: z.object({ entries: z.array(z.unknown()).min(1).max(200) }),
    answer: walkAnswer,
  }),
  withdrawLook: writes(`${gardenPath}/observations/:observationId/withdraw`, crew),
}
