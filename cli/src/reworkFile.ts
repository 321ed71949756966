import { browsers, colourSchemes, isIsoDate, layers, soilTextures, waysOut } from '@border/core'
import { z } from 'zod'

const name = z.string().min(1).max(200)
const day = z.string().refine(isIsoDate, 'must be a date like 2026-09-14')
const count = z.number().int().min(1).max(10_000)
const share = z.number().min(0).max(1)
const money = z.number().int().min(0).max(100_000_000)
const metres = z.number().positive().max(1000)

const point = z.tuple([z.number(), z.number()])

const pack = z.strictObject({ name, holds: count, price: money })

const destination = z.union([z.enum(waysOut), z.strictObject({ spot: name })])

/** The file that `border rework` reads: docs/formats.md. */
export const reworkFile = z.strictObject({
  version: z.literal(1),
  plan: name.optional(),
  plantings: name.optional(),
  weather: name.optional(),
  on: day.optional(),
  fit: z.array(name).max(100).optional(),
  relocation: z
    .strictObject({
      leaving: z.array(name).min(1).max(200),
      decided: z.record(name, destination).default({}),
    })
    .optional(),
  palette: z
    .strictObject({
      place: name,
      leaving: z.array(name).default([]),
      areaM2: z.number().positive().max(10_000).optional(),
      tallestM: metres.default(2),
      kinds: z.strictObject({ least: count, most: count }).default({ least: 5, most: 12 }),
      drifts: z.enum(['odd', 'blocks', 'matrix']).default('odd'),
      budget: money.optional(),
      evergreenShare: share.optional(),
      layerShares: z.partialRecord(z.enum(layers), share).optional(),
      noBareWeek: z.boolean().optional(),
      scented: z.number().int().min(0).max(50).optional(),
      wildlife: z.number().int().min(0).max(50).optional(),
      scheme: z.strictObject({ kind: z.enum(colourSchemes), hue: z.number().min(0).max(360) }).optional(),
      harmlessTo: z.array(z.enum(['people', 'cats', 'dogs', 'horses'])).optional(),
      leftBy: z.array(z.enum(browsers)).optional(),
      seasonal: z.boolean().optional(),
      locked: z.array(name).optional(),
      barred: z.array(name).optional(),
      prices: z.record(name, money).default({}),
      have: z.array(z.strictObject({ taxon: name, count })).default([]),
    })
    .optional(),
  layout: z
    .strictObject({
      place: name,
      drifts: z
        .array(
          z.union([
            z.strictObject({ taxon: name, count }),
            z.strictObject({ taxon: name, isMatrix: z.literal(true) }),
          ]),
        )
        .min(1)
        .max(60)
        .refine((d) => d.filter((o) => 'isMatrix' in o).length <= 1, 'one kind runs through a bed'),
      viewedFrom: z.array(z.number().min(0).max(360)).max(2).optional(),
      seed: z.number().int().min(0).default(1),
      baseLine: z.tuple([point, point]).optional(),
    })
    .optional(),
  division: z
    .array(
      z.strictObject({
        taxon: name,
        plants: count.default(1),
        shoots: count.optional(),
        acrossM: metres.optional(),
        years: z.number().min(0).max(200),
        inSeason: z.boolean().default(true),
      }),
    )
    .optional(),
  quantities: z
    .strictObject({
      plants: z
        .array(
          z.strictObject({
            name,
            count,
            spareShare: share.optional(),
            packs: z.array(pack).min(1),
          }),
        )
        .default([]),
      shopping: z
        .strictObject({
          needs: z.array(z.strictObject({ item: name, count, spareShare: share.optional() })).min(1),
          offers: z.array(
            z.strictObject({ supplier: name, item: name, packs: z.array(pack).min(1), pricedOn: day }),
          ),
        })
        .optional(),
      layers: z
        .array(
          z.strictObject({
            name,
            areaM2: z.number().positive(),
            depthM: metres,
            bags: z.array(pack).default([]),
          }),
        )
        .default([]),
      soil: z
        .strictObject({
          areaM2: z.number().positive(),
          ph: z.number().min(3).max(10),
          toPh: z.number().min(3).max(10),
          texture: z.enum(soilTextures).default('loam'),
          aluminium: z.boolean().default(false),
        })
        .optional(),
      drip: z
        .strictObject({
          areaM2: z.number().positive(),
          lineSpacingM: metres,
          emitterSpacingM: metres,
          emitterLitresPerHour: z.number().positive(),
          mm: z.number().positive(),
          tapLitresPerHour: z.number().positive().optional(),
        })
        .optional(),
    })
    .optional(),
  growth: z
    .array(
      z.strictObject({
        taxon: name,
        spacingM: metres.optional(),
        years: z.array(z.number().min(0).max(100)).default([1, 3, 5, 10]),
      }),
    )
    .optional(),
})
/** A file as it has been read. */
export type ReworkFile = z.infer<typeof reworkFile>
