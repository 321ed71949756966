import { remark } from '@border/core'
import { z } from 'zod'
import {
  gardenPath,
  crew,
  head,
  id,
  instant,
  isoDay,
  keeper,
  recordedDay,
  serverAheadMs,
  shortText,
} from './basics.ts'
import { reads, sendsFile, writes } from './endpoint.ts'

const standpointRequest = z.object({
  name: shortText,
  placeId: id.optional(),
  framing: remark(300).default(''),
})
export const standpoint = z.strictObject({
  id,
  name: z.string(),
  placeId: id.nullable(),
  framing: z.string(),
  /** The latest photo from it. */
  lastPhotoId: id.nullable(),
  lastTakenOn: isoDay.nullable(),
})
export type StandpointView = z.infer<typeof standpoint>

/** What is said of a photo, beside the picture. */
export const photoRequest = z
  .object({
    id,
    on: recordedDay,
    /** By the device's own clock. */
    at: instant,
    serverAheadMs: serverAheadMs.optional(),
    standpointId: id.optional(),
    plantingId: id.optional(),
    placeId: id.optional(),
    /** Where it was taken is stripped unless this is said. */
    keepPosition: z.boolean().default(false),
  })
  .refine(
    (p) => p.standpointId ?? p.plantingId ?? p.placeId,
    'belongs to a standpoint, a planting or a place',
  )
export type PhotoRequest = z.input<typeof photoRequest>
export const photo = z.strictObject({
  id,
  takenOn: isoDay,
  standpointId: id.nullable(),
  plantingId: id.nullable(),
  placeId: id.nullable(),
  width: z.number(),
  height: z.number(),
  by: z.string().nullable(),
})
export type PhotoView = z.infer<typeof photo>

const photosPath = `${gardenPath}/photos` as const

/** Photos, and where they are taken from year after year. */
export const photoEndpoints = {
  list: reads(photosPath, keeper, { answer: z.array(photo), restsOn: ['record'] }),
  add: writes(photosPath, crew, {
    body: photoRequest,
    takesFile: true,
    answer: z.strictObject({ added: z.boolean() }),
  }),
  picture: sendsFile(`${photosPath}/:photoId`, keeper, 'image/jpeg', {
    query: z.object({ size: z.enum(['small']).optional() }),
  }),
  withdraw: writes(`${photosPath}/:photoId/withdraw`, crew),
  listStandpoints: reads(`${gardenPath}/standpoints`, keeper, {
    answer: z.array(standpoint),
    restsOn: ['record'],
  }),
  addStandpoint: writes(`${gardenPath}/standpoints`, head, {
    body: standpointRequest,
    answer: z.strictObject({ id }),
  }),
}
