import {
  componentNames,
  daysBetween,
  fillEnds,
  fillSeasons,
  MOST_AWAY_DAYS,
  plantingSources,
  potRoles,
  remark,
  tag,
  type AbsencePlan,
  type PotFault,
  type PotJudgement,
  type PotLight,
} from '@border/core'
import { z } from 'zod'
import {
  botanicalName,
  gardenPath,
  head,
  id,
  isoDay,
  keeper,
  note,
  recordedDay,
  shortText,
} from './basics.ts'
import { reads, writes } from './endpoint.ts'
import { sunHours } from './worked.ts'

const n = z.number()
const componentName = z.enum(componentNames)
const season = z.enum(fillSeasons)

/** A container filled anew, or refreshed: what comes out, what mix it has, and what goes in. All of it or nothing. */
const fillRequest = z.object({
  containerId: id,
  /** The fill that whoever asks has seen in it; null where it had none. */
  replaces: id.nullable(),
  on: recordedDay,
  name: shortText,
  season,
  mix: z
    .array(z.object({ name: componentName, parts: z.number().positive().max(100) }))
    .min(1)
    .max(componentNames.length)
    .refine((parts) => new Set(parts.map((p) => p.name)).size === parts.length, 'names a part twice'),
  /** Of the mix so much is new. */
  renewed: z.number().min(0).max(1),
  /** How the fill before it ended, and how it went. */
  endedBy: z.enum(fillEnds).nullish(),
  endedNote: remark(2000).optional(),
  /** What comes out; what is not named stays. */
  out: z
    .array(z.object({ plantingId: id, to: z.enum(['bench', 'compost']) }))
    .max(60)
    .default([]),
  in: z
    .array(
      z.object({
        /** The next free one where nobody says any. */
        tag: tag.optional(),
        taxonBotanical: botanicalName,
        count: z.number().int().min(1).max(200),
        source: z.enum(plantingSources),
        role: z.enum(potRoles).nullish(),
        /** Off the bench. */
        benchId: id.optional(),
      }),
    )
    .max(30)
    .default([]),
  note: remark(2000).optional(),
})
export type FillRequest = z.input<typeof fillRequest>

const fillView = z.strictObject({
  id,
  name: z.string(),
  season,
  filledOn: isoDay,
  /** Null while it stands. */
  emptiedOn: isoDay.nullable(),
  mix: z.array(z.strictObject({ name: componentName, parts: n })),
  renewed: n,
  endedBy: z.enum(fillEnds).nullable(),
  endedNote: note.nullable(),
  note: note.nullable(),
  /** What grew in it, and from when until when it stood there; null where it still does. */
  plants: z.array(
    z.strictObject({
      plantingId: id,
      tag: z.string(),
      botanical: z.string(),
      count: n,
      role: z.string().nullable(),
      from: isoDay,
      until: isoDay.nullable(),
    }),
  ),
})
/** A fill of a container, and what grew in it. */
export type FillView = z.infer<typeof fillView>

const mixPart = z.strictObject({ name: z.string(), parts: n })
const judgement = {
  assumed: z.array(z.enum(['size', 'depth', 'foot', 'wall', 'material'])).readonly(),
  brimfulLitres: n,
  mixLitres: n,
  surfaceM2: n,
  mix: z.strictObject({
    isSaid: z.boolean(),
    parts: z.array(mixPart),
    bought: z.array(z.strictObject({ name: z.string(), litres: n, bags: n, bagLitres: n })),
    traits: z.strictObject({ air: n, water: n, available: n, kgPerLitre: n }),
  }),
  weight: z.strictObject({ empty: n, dry: n, wet: n, footprintM2: n, wetPerM2: n }),
  liftedBy: n.nullable(),
  tipsAtMs: n.nullable(),
  faults: z.array(
    z.enum([
      'no holes',
      'frost bursts it',
      'frost may crack it',
      'no feet',
      'saucer in winter',
      'tips',
      'deck',
      'overhead',
    ] satisfies PotFault[]),
  ),
  remarks: z.array(
    z.strictObject({
      kind: z.enum([
        'light',
        'water',
        'vigour',
        'hardiness',
        'leaned on',
        'proportion',
        'crowded',
        'open',
        'lime',
      ]),
      botanicals: z.array(z.string()).readonly(),
      isGrave: z.boolean(),
      says: z.string(),
    }),
  ),
  water: z
    .array(
      z.strictObject({
        month: n,
        days: z.strictObject({ p10: n, p50: n, p90: n }).nullable(),
        litres: n,
      }),
    )
    .nullable(),
  ahead: z.array(z.strictObject({ day: isoDay, litres: n })).nullable(),
  swap: z.strictObject({
    over: z
      .strictObject({
        from: isoDay,
        to: isoDay,
        botanical: z.string(),
        because: z.enum(['frost', 'its season']),
      })
      .nullable(),
    next: z.strictObject({ season, from: isoDay, to: isoDay }).nullable(),
  }),
} satisfies Record<keyof Omit<PotJudgement, 'id'>, z.ZodType>

const light = {
  months: z.array(sunHours),
  season: sunHours,
  share: z.array(n),
  eaves: z.string().optional(),
} satisfies Record<keyof PotLight, z.ZodType>

const potView = z.strictObject({
  id,
  ...judgement,
  light: z.strictObject(light),
  /** Latest first; the first stands where it has not been emptied. */
  fills: z.array(fillView),
})
/** A container: what was worked out of it, its light, and its fills. */
export type PotView = z.infer<typeof potView>

const containersView = z.strictObject({
  /** Told from weather that was made up. */
  isSimulated: z.boolean(),
  /** Mean of the years' lowest temperatures, degrees Celsius; null where no climate is known. */
  coldestC: n.nullable(),
  /** Nights of the forecast that something should not be out in. */
  coldNights: z.array(
    z.strictObject({
      day: isoDay,
      minC: n,
      pots: z.array(z.strictObject({ id, botanicals: z.array(z.string()) })),
    }),
  ),
  pots: z.array(potView),
})
export type ContainersView = z.infer<typeof containersView>

const litres = { litresEach: n, litresAll: n }
const absenceView = z.strictObject({
  isSimulated: z.boolean(),
  years: n,
  tooThirsty: z.array(id),
  everyDays: n,
  visits: z.array(isoDay),
  ...litres,
  inShade: z.strictObject({ tooThirsty: z.array(id), everyDays: n, ...litres, moved: z.array(id) }),
  pots: z.array(z.strictObject({ id, everyDays: n.nullable(), litresADay: n, drippers: n, dripMinutes: n })),
}) satisfies z.ZodType<AbsencePlan & { isSimulated: boolean }>
/** How the containers come through an absence. */
export type AbsenceView = z.infer<typeof absenceView>

const absenceAsked = z.object({ from: isoDay, to: isoDay }).refine(({ from, to }) => {
  const days = daysBetween(from, to)
  return days >= 1 && days <= MOST_AWAY_DAYS
}, `the day of coming back must be one to ${MOST_AWAY_DAYS} days after that of leaving`)

const path = `${gardenPath}/containers` as const

/** Containers: what they hold, weigh and drink, and how they are filled. */
export const containerEndpoints = {
  read: reads(path, keeper, {
    answer: containersView,
    restsOn: ['plan', 'plantings', 'climate', 'library', 'fills'],
  }),
  absence: reads(`${path}/absence`, keeper, {
    query: absenceAsked,
    answer: absenceView,
    restsOn: ['plan', 'plantings', 'climate', 'library', 'fills'],
  }),
  fill: writes(`${path}/fills`, head, {
    body: fillRequest,
    answer: z.strictObject({ editId: id, fillId: id, plantingIds: z.array(id) }),
  }),
}
