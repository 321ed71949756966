import { knownLimits, monthDay } from '@border/core'
import { z } from 'zod'
import { gardenPath, crew, fileText, head, id, isoDay, keeper, recordedDay } from './basics.ts'
import { reads, writes } from './endpoint.ts'
import { knownClimate, soilCorrection, suitedDay } from './worked.ts'

const soilReading = z.strictObject({ id, day: isoDay, celsius: z.number(), placeId: id.nullable() })
export type SoilReadingView = z.infer<typeof soilReading>

/** The facts of a climate by its record alone, to hold what is known against; null where there is no record. */
const unfitted = z
  .strictObject({
    /** Days of the year, 1 to 366. */
    lastFrost: z.number().nullable(),
    firstFrost: z.number().nullable(),
    coldestC: z.number(),
    hottestC: z.number(),
    coldestMonthC: z.number(),
    rainMm: z.number(),
    /** Of the place that made-up weather is made for, metres above the sea; null for a record. */
    heightM: z.number().nullable(),
  })
  .nullable()
export type UnfittedClimate = z.infer<typeof unfitted>

/** A garden's soil thermometer and what it says against the air. */
const soilView = z.strictObject({ readings: z.array(soilReading), correction: soilCorrection })
export type SoilView = z.infer<typeof soilView>

/** How the coming days suit each kind of work. */
const outlook = z.strictObject({
  available: z.boolean(),
  /** Made up, not forecast from what was measured. */
  isSimulated: z.boolean(),
  /** Why there is no forecast. */
  why: z.string().nullable(),
  days: z.array(suitedDay),
})
export type OutlookView = z.infer<typeof outlook>

const known = (what: keyof typeof knownLimits) => {
  const [least, most] = knownLimits[what]
  return z.number().min(least).max(most).optional()
}

/** What a gardener knows of a climate. */
const knownRequest = z
  .object({
    lastFrost: monthDay.optional(),
    firstFrost: monthDay.optional(),
    coldestC: known('coldestC'),
    hottestC: known('hottestC'),
    coldestMonthC: known('coldestMonthC'),
    rainMm: known('rainMm'),
    heightM: known('heightM'),
    seaKm: known('seaKm'),
  })
  .refine((k) => k.hottestC === undefined || k.coldestMonthC === undefined || k.coldestMonthC <= k.hottestC, {
    path: ['coldestMonthC'],
    error: 'the coldest month cannot be warmer than the hottest',
  })

/** What a garden's year is like: its weather record, what is known of it, its soil thermometers, the days to come. */
export const climateEndpoints = {
  bringWeather: writes(`${gardenPath}/weather`, head, { body: z.object({ weather: fileText }) }),
  askWeatherService: writes(`${gardenPath}/weather-service`, head, {
    answer: z.strictObject({ isSimulated: z.boolean() }),
  }),
  /** What a gardener knows of the climate; nothing at all takes back what was said. */
  sayKnown: writes(`${gardenPath}/known-climate`, head, {
    body: knownRequest,
    sees: z.strictObject({ known: knownClimate.nullable() }),
  }),
  /** What the record says without what the gardener knows. */
  unfitted: reads(`${gardenPath}/climate-record`, keeper, { answer: unfitted, restsOn: ['climate'] }),
  soil: reads(`${gardenPath}/soil`, keeper, { answer: soilView, restsOn: ['climate'] }),
  measureSoil: writes(`${gardenPath}/soil`, crew, {
    body: z.object({ day: recordedDay, celsius: z.number().min(-40).max(60), placeId: id.optional() }),
  }),
  bringSoil: writes(`${gardenPath}/soil-file`, head, {
    body: z.object({ csv: fileText }),
    answer: z.strictObject({ added: z.number(), known: z.number() }),
  }),
  withdrawSoil: writes(`${gardenPath}/soil/:readingId/withdraw`, crew),
  outlook: reads(`${gardenPath}/outlook`, keeper, { answer: outlook, restsOn: ['climate'] }),
}
