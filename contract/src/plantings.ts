import { colourWishes, datings, plantingSources, remark, tag } from '@border/core'
import { z } from 'zod'
import {
  gardenPath,
  botanicalName,
  crew,
  head,
  id,
  instant,
  isoDay,
  keeper,
  ring,
  recordedDay,
  point,
  note,
} from './basics.ts'
import { reads, writes } from './endpoint.ts'
import { photo } from './photos.ts'
import { edited } from './plan.ts'
import { planting } from './worked.ts'

const plantingRequest = z.object({
  tag,
  taxonBotanical: botanicalName,
  placeId: id,
  count: z.number().int().min(1).max(10_000),
  /** Where the day is not known, one to reckon with, and how well it is known. */
  plantedOn: isoDay,
  plantedKnown: z.enum(datings).default('day'),
  source: z.enum(plantingSources),
  ...point,
  radiusM: z.number().min(0.02).max(50).nullish(),
  /** The drift as it is drawn, corners in plan metres. */
  outline: ring.nullish(),
  role: remark(120).nullish(),
  note: note.optional(),
  /** Planted off the bench: it is there no longer. */
  benchId: id.optional(),
})
export type PlantingRequest = z.input<typeof plantingRequest>
/** Most plantings of one write: more than anybody types at once. */
const MOST = 500
/** A planting put right: what is said otherwise of it, and of where it stands. */
const plantingAmendment = plantingRequest
  .omit({ benchId: true, note: true, plantedKnown: true })
  .partial()
  .extend({
    plantingId: id,
    plantedKnown: z.enum(datings).optional(),
    colourWish: z.enum(colourWishes).nullish(),
  })
export type PlantingAmendment = z.input<typeof plantingAmendment>

const storyEntry = z.strictObject({
  on: isoDay,
  kind: z.enum([
    'planted',
    'observed',
    'decided',
    'job',
    'moved',
    'counted',
    'note',
    'lost',
    'trial',
    'treated',
  ]),
  says: z.string(),
  by: z.string().nullable(),
  /** When it was written down: puts what happened on one day in order. */
  recordedAt: instant,
  /** The look it tells of, where whoever asks may take it back. */
  lookId: id.optional(),
})
/** One thing that happened to a planting. */
export type StoryEntry = z.infer<typeof storyEntry>

/** A planting as last known and all that happened to it, oldest first. */
const plantingStory = z.strictObject({
  planting,
  photos: z.array(photo),
  /** Tags of plantings that came from it. */
  offspring: z.array(z.string()),
  story: z.array(storyEntry),
})
export type PlantingStory = z.infer<typeof plantingStory>

/** What can be put right of a planting. */
const seen = z.strictObject({
  id,
  tag: z.string(),
  botanical: z.string(),
  placeId: id,
  x: z.number(),
  y: z.number(),
  plantedCount: z.number(),
  plantedOn: isoDay,
  plantedKnown: z.enum(datings),
  source: z.enum(plantingSources),
  role: z.string().nullable(),
  colourWish: z.enum(colourWishes).nullable(),
})
export type PlantingSeen = z.infer<typeof seen>

const plantingsPath = `${gardenPath}/plantings` as const
const one = `${plantingsPath}/:plantingId` as const

/** Plantings: put in, put right, and told. */
export const plantingEndpoints = {
  add: writes(plantingsPath, head, {
    body: z.object({ plantings: z.array(plantingRequest).min(1).max(MOST) }),
    answer: z.strictObject({ editId: id.nullable(), plantingIds: z.array(id) }),
  }),
  amend: writes(`${plantingsPath}/amend`, head, {
    body: z.object({ plantings: z.array(plantingAmendment).min(1).max(MOST) }),
    answer: edited,
    sees: z.array(seen),
  }),
  withdraw: writes(`${plantingsPath}/withdraw`, head, {
    body: z.object({ plantingIds: z.array(id).min(1).max(MOST) }),
    answer: edited,
    sees: z.array(seen),
  }),
  restore: writes(`${one}/restore`, head, { answer: edited }),
  story: reads(one, keeper, {
    answer: plantingStory,
    restsOn: ['plan', 'plantings', 'record', 'library', 'decisions', 'jobs'],
  }),
  note: writes(`${one}/notes`, crew, {
    body: z.object({ on: recordedDay, note }),
  }),
}

const onBench = z.strictObject({
  id,
  botanical: z.string(),
  count: z.number(),
  since: isoDay,
  /** Tag of the planting it is a division of. */
  fromTag: z.string().nullable(),
  note: z.string().nullable(),
})
export type BenchView = z.infer<typeof onBench>

/** Plants that wait for a place. */
export const benchEndpoints = {
  list: reads(`${gardenPath}/bench`, keeper, { answer: z.array(onBench), restsOn: ['bench'] }),
  put: writes(`${gardenPath}/bench`, crew, {
    body: z.object({
      taxonBotanical: botanicalName,
      count: z.number().int().min(1).max(10_000),
      since: recordedDay,
      note: remark(200).optional(),
    }),
  }),
  gone: writes(`${gardenPath}/bench/:benchId/gone`, crew, {
    body: z.object({ on: recordedDay, gone: z.enum(['given away', 'thrown away']) }),
  }),
}
