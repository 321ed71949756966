import {
  componentNames,
  drainTestFault,
  felts,
  fillEnds,
  fillSeasons,
  isIsoDate,
  potRoles,
  schoolIds,
} from '@border/core'
import { z } from 'zod'

const name = z.string().min(1).max(200)
const day = z.string().refine(isIsoDate, 'must be a date like 2026-09-14')

/** Parts by volume. */
const mix = z
  .array(z.strictObject({ name: z.enum(componentNames), parts: z.number().positive().max(100) }))
  .min(1)

const fill = {
  mix: mix.optional(),
  season: z.enum(fillSeasons).optional(),
  /** What it was filled with before and now, the earliest first. */
  history: z
    .array(
      z.strictObject({
        filledOn: day,
        mix,
        renewed: z.number().min(0).max(1).default(1),
        endedBy: z.enum(fillEnds).optional(),
      }),
    )
    .max(200)
    .default([]),
  /** What was done and found at it. */
  checks: z
    .array(
      z.discriminatedUnion('kind', [
        z.strictObject({ day, kind: z.literal('watered') }),
        z.strictObject({ day, kind: z.literal('felt'), felt: z.enum(felts) }),
        z.strictObject({ day, kind: z.literal('weighed'), lighterKg: z.number().min(0).max(5000) }),
        z
          .strictObject({
            day,
            kind: z.literal('drained'),
            sampleLitres: z.number().min(0.1).max(1000),
            filledLitres: z.number().min(0.01).max(1000),
            drainedLitres: z.number().min(0).max(1000),
          })
          .check(({ value, issues }) => {
            const fault = drainTestFault(value)
            if (fault) issues.push({ code: 'custom', input: value, path: [fault.of], message: fault.says })
          }),
      ]),
    )
    .max(1000)
    .default([]),
}

/** The file that `border pots` reads: docs/formats.md. */
export const potsFile = z.strictObject({
  version: z.literal(1),
  plan: name.optional(),
  plantings: name.optional(),
  weather: name.optional(),
  on: day.optional(),
  latitude: z.number().min(-90).max(90).optional(),
  longitude: z.number().min(-180).max(180).optional(),
  /** The schools that are followed; the usual ones where nothing is said. */
  schools: z.partialRecord(z.enum(schoolIds), z.string()).default({}),
  /** By the name of a container of the plan. */
  fills: z.record(name, z.strictObject(fill)).default({}),
  /** Containers that are on no plan, in the open where nothing else is said. */
  pots: z
    .array(
      z.strictObject({
        name,
        ...fill,
        /** What the plan would say of it: read as that is. */
        container: z.record(z.string(), z.unknown()),
        plants: z
          .array(
            z.strictObject({
              taxon: name,
              count: z.number().int().min(1).max(200),
              role: z.enum(potRoles).optional(),
              plantedOn: day.optional(),
            }),
          )
          .default([]),
      }),
    )
    .max(500)
    .default([]),
  absence: z.strictObject({ from: day, to: day }).optional(),
})
export type PotsFile = z.infer<typeof potsFile>
