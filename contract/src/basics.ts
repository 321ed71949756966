import { areaM2, isIsoDate, isTimeZone, outlineFault, type FileProblem, type Ring } from '@border/core'
import { z } from 'zod'

export const head = { garden: 'head' } as const
export const crew = { garden: 'crew' } as const
export const keeper = { garden: 'keeper' } as const

export const isoDay = z.string().refine(isIsoDate, 'must be a date like 2026-09-14')
export const id = z.uuid()
export const shortText = z.string().trim().min(1).max(120)
export const longText = z.string().trim().max(2000)
export const shortNote = z.string().trim().min(1).max(500)
export const fileText = z.string().max(4_000_000)
export const botanicalName = z.string().trim().min(1).max(160)
export const timeZone = shortText.refine(isTimeZone, 'must be an IANA time zone like Europe/London')
/** An instant, UTC. */
export const instant = z.iso.datetime()
/** Plan metres. */
const coordinate = z.number().min(-100_000).max(100_000)
/** A point of the plan, in a place where it is known which. */
export const spot = { x: coordinate, y: coordinate, placeId: id.optional() }
export const ring: z.ZodType<Ring> = z
  .array(z.tuple([z.number(), z.number()]).readonly())
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
}
