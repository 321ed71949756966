import { z } from 'zod'
import { gardenPath, head, id, isoDay, recordedDay } from './basics.ts'
import { writes } from './endpoint.ts'
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

const features = `${gardenPath}/features` as const
const feature = `${features}/:featureId` as const
/** The feature is checked whole where it is read. */
const drawn = z.object({ feature: z.unknown() })

/** What stands in a garden, and what has happened to it. */
export const planEndpoints = {
  addFeature: writes(features, head, { body: drawn, answer: z.strictObject({ featureId: id }) }),
  amendFeature: writes(`${feature}/amend`, head, { body: drawn, sees: part }),
  changeFeature: writes(`${feature}/change`, head, { body: obstructionChangeRequest, sees: part }),
  /** `to` is the day it is gone; null when it stands after all. */
  endFeature: writes(`${feature}/end`, head, { body: z.object({ to: isoDay.nullable() }), sees: part }),
  recordEvent: writes(`${feature}/events`, head, { body: featureEventRequest, sees: part }),
  takeBackEvent: writes(`${feature}/events/undo`, head, { sees: part }),
  withdrawFeature: writes(`${feature}/withdraw`, head, { sees: part }),
  restoreFeature: writes(`${feature}/restore`, head),
}
