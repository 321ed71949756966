import {
  areaM2,
  day,
  fileText as textOfFile,
  isTimeZone,
  limits,
  outlineFault,
  planMetre,
  recordedDay,
  remark,
  words,
  type FileProblem,
  type Ring,
} from '@border/core'
import { z } from 'zod'

export const head = { garden: 'head' } as const
export const crew = { garden: 'crew' } as const
export const keeper = { garden: 'keeper' } as const

/** Of anything that a calendar holds; what somebody sees or does is of a `recordedDay`. */
export const isoDay = day
export { recordedDay }
/** However its letters are written, as the database writes them. */
export const id = z.uuid().toLowerCase()
export const shortText = words(120)
export const longText = remark(2000)
export const shortNote = words(500)
/** Something told of a planting or a place, as long as it takes. */
export const note = words(2000)
export const fileText = textOfFile(4_000_000)
export const botanicalName = words(160)
export const timeZone = shortText.refine(isTimeZone, 'must be an IANA time zone like Europe/London')
/** How far a device took the server's clock to be ahead of its own, milliseconds, as it told the day that something was of. */
export const serverAheadMs = z.number().int().min(-1e12).max(1e12)

/** An instant of something seen or done, UTC. */
export const instant = z.iso.datetime().refine((at) => recordedDay.safeParse(at.slice(0, 10)).success, {
  error: `must lie between the years ${limits.earliestRecordYear} and ${limits.latestYear}`,
})
/** A point of the plan. */
export const point = { x: planMetre, y: planMetre }
/** A point of the plan, in a place where it is known which. */
export const spot = { ...point, placeId: id.optional() }
export const ring: z.ZodType<Ring, Ring> = z
  .array(z.tuple([planMetre, planMetre]).readonly())
  .min(3)
  .max(200)
  .readonly()
  .refine((r) => areaM2(r) > 0, 'the outline has no area')
  .superRefine((r, context) => {
    const fault = outlineFault(r)
    if (fault) context.addIssue({ code: 'custom', message: fault })
  })

/** The path of a garden, which everything in it is asked below. */
export const gardenPath = '/gardens/:gardenId'

export const onDay = z.object({ on: isoDay.optional() })

export const fileProblem: z.ZodType<FileProblem> = z.strictObject({
  file: z.string(),
  line: z.number().optional(),
  column: z.union([z.number(), z.string()]).optional(),
  feature: z.number().optional(),
  featureName: z.string().optional(),
  property: z.string().optional(),
  message: z.string(),
})

/** What every refusal looks like. */
export interface ErrorAnswer {
  error: string
  problems?: { where: string; message: string }[]
  /** Somebody else has changed it since it was seen. */
  meanwhile?: Meanwhile
}

/** What has become, since it was seen, of something that a change was meant for. */
export interface Meanwhile {
  /** Who changed it last, and when (an instant); null where that is not known. */
  by: string | null
  at: string | null
  /** What is otherwise now, in sentences. */
  says: string[]
  /** As it stands: sent as `seen`, it is changed all the same. */
  stands: unknown
}
