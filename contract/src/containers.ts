import {
  checkKinds,
  drainTestFault,
  componentNames,
  daysBetween,
  felts,
  fillEnds,
  fillSeasons,
  MOST_AWAY_DAYS,
  plantingSources,
  potRoles,
  potVerdicts,
  remark,
  tag,
  type AbsencePlan,
  type PotFault,
  type PotJudgement,
  type PotLight,
  type PotSpot,
} from '@border/core'
import { z } from 'zod'
import {
  botanicalName,
  fileText,
  gardenPath,
  crew,
  head,
  id,
  isoDay,
  keeper,
  note,
  recordedDay,
  shortText,
} from './basics.ts'
import { whatIsKnown, type Aspect } from './aspects.ts'
import { reads, sendsFile, writes } from './endpoint.ts'
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
      z
        .object({
          /** The next free one where nobody says any. */
          tag: tag.optional(),
          taxonBotanical: botanicalName,
          count: z.number().int().min(1).max(200),
          source: z.enum(plantingSources),
          role: z.enum(potRoles).nullish(),
          /** Off the bench. */
          benchId: id.optional(),
          /** Lifted for it elsewhere in the garden, all of the planting: what is over waits on the bench. */
          liftedId: id.optional(),
        })
        .refine((p) => !(p.benchId && p.liftedId), 'comes off the bench or is lifted for it, not both'),
    )
    .max(30)
    .default([]),
  note: remark(2000).optional(),
})
export type FillRequest = z.input<typeof fillRequest>

/** Plants of a planting. */
const someOfKind = { plantingId: id, tag: z.string(), botanical: z.string(), count: n }

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
      ...someOfKind,
      role: z.string().nullable(),
      from: isoDay,
      until: isoDay.nullable(),
    }),
  ),
})
/** A fill of a container, and what grew in it. */
export type FillView = z.infer<typeof fillView>

const span = z.strictObject({ from: isoDay, to: isoDay })
const traits = z.strictObject({ air: n, water: n, available: n, kgPerLitre: n })
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
    traits,
    state: z
      .strictObject({ traits, sunk: n, old: n, topUpOn: isoDay.nullable(), wholeOn: isoDay.nullable() })
      .nullable(),
    testedOn: isoDay.nullable(),
    dryLitres: n,
    gravelLitres: n,
    linerSaves: n,
  }),
  feeding: z
    .strictObject({
      slow: z
        .strictObject({ grams: n, lifeDays: n, mixedInOn: isoDay, spentFrom: isoDay, spentTo: isoDay })
        .nullable(),
      liquid: z.array(z.strictObject({ on: isoDay, what: z.string() })),
      millilitres: n,
      litres: n,
      lastOn: isoDay.nullable(),
      nitrate: span.nullable(),
    })
    .nullable(),
  factor: z.strictObject({ factor: n, p10: n, p90: n, from: n }).nullable(),
  roots: z.array(z.strictObject({ botanical: z.string(), fillOn: isoDay.nullable() })),
  wintering: z.array(
    z.strictObject({
      botanical: z.string(),
      in: span,
      hardenFrom: isoDay,
      out: span,
      aboveC: n,
      light: z.enum(['bright', 'dark']),
      everyDays: n,
    }),
  ),
  verdicts: z.array(
    z.strictObject({ verdict: z.enum(potVerdicts), because: z.array(z.string()), weight: n }),
  ),
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

const checkView = z.strictObject({
  id,
  on: isoDay,
  kind: z.enum(checkKinds),
  felt: z.enum(felts).nullable(),
  lighterKg: n.nullable(),
  rainMm: n.nullable(),
  stars: n.nullable(),
  /** Of a drain test. */
  sampleLitres: n.nullable(),
  filledLitres: n.nullable(),
  drainedLitres: n.nullable(),
  note: note.nullable(),
  by: z.string().nullable(),
})
/** What somebody did or found at a container. */
export type CheckView = z.infer<typeof checkView>

const saidOfCheck = { containerId: id, on: recordedDay, note: remark(2000).optional() }
const checkRequest = z.discriminatedUnion('kind', [
  z.object({ ...saidOfCheck, kind: z.literal('watered') }),
  z.object({ ...saidOfCheck, kind: z.literal('felt'), felt: z.enum(felts) }),
  z.object({ ...saidOfCheck, kind: z.literal('weighed'), lighterKg: n.min(0).max(5000) }),
  z.object({ ...saidOfCheck, kind: z.literal('rained'), rainMm: n.min(0).max(1000) }),
  z.object({ ...saidOfCheck, kind: z.literal('rated'), stars: n.int().min(1).max(5) }),
  z
    .object({
      ...saidOfCheck,
      kind: z.literal('drained'),
      sampleLitres: n.min(0.1).max(1000),
      filledLitres: n.min(0.01).max(1000),
      drainedLitres: n.min(0).max(1000),
    })
    .check(({ value, issues }) => {
      const fault = drainTestFault(value)
      if (fault) issues.push({ code: 'custom', input: value, path: [fault.of], message: fault.says })
    }),
])
export type CheckRequest = z.input<typeof checkRequest>

const spotOfPot = z.strictObject({ x: n, y: n, hours: sunHours, missesH: n }) satisfies z.ZodType<PotSpot>
const spotsView = z.strictObject({
  /** Where it stands now. */
  here: spotOfPot,
  /** Best first; none where none is better than where it stands. */
  better: z.array(spotOfPot),
  /** The other containers, by how well what grows in them would suit where this one stands, best first. */
  forHere: z.array(z.strictObject({ id, missesH: n, missesNowH: n })),
})
/** The best spots for a container, and the best containers for its spot. */
export type SpotsView = z.infer<typeof spotsView>

const lineView = z.strictObject({
  seasons: z.array(n),
  /** What lasts and would live in the beds, with the place that has room and suits it best. */
  out: z.array(
    z.strictObject({ plantingId: id, botanical: z.string(), potId: id, placeId: id, placeName: z.string() }),
  ),
  plants: z.array(
    z.strictObject({
      plantingId: id,
      botanical: z.string(),
      potId: id,
      /** Its roots fill what it stands in from that day on. */
      fillOn: isoDay.nullable(),
      /** Where it is best given to the ground; null where nowhere in the beds has room and suits it. */
      ground: z.strictObject({ placeId: id, placeName: z.string() }).nullable(),
      steps: z.array(
        z.strictObject({
          season: n,
          /** Null: in the ground. */
          potId: id.nullable(),
          isMoved: z.boolean(),
          isPruned: z.boolean(),
          isBound: z.boolean(),
          /** Of a spring in which it is potted on or its roots are pruned: the best days for it. */
          window: span.nullable(),
        }),
      ),
    }),
  ),
})
/** Woody plants along the line of containers, season by season. */
export type LineView = z.infer<typeof lineView>

const spareView = z.strictObject({
  /** Plantings that look for other ground, by scheme or verdict, and may be lifted. */
  plants: z.array(
    z.strictObject({
      ...someOfKind,
      placeId: id,
      placeName: z.string(),
      /** When they may next be lifted; null where no climate is known to tell it by. */
      window: span.nullable(),
    }),
  ),
  /** Plantings that are to be divided, the pieces over that this would give, and when. */
  divided: z.array(z.strictObject({ plantingId: id, botanical: z.string(), pieces: n, window: span })),
})
/** What the rest of a garden has for a container. */
export type SpareView = z.infer<typeof spareView>

const potView = z.strictObject({
  id,
  ...judgement,
  light: z.strictObject(light),
  /** Latest first; the first stands where it has not been emptied. */
  fills: z.array(fillView),
  /** What was done and found at it in the last year, latest first. */
  checks: z.array(checkView),
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

/** What containers are judged by. */
export const potsRestOn = [...whatIsKnown, 'fills', 'jobs', 'rules'] as const satisfies Aspect[]

/** Containers: what they hold, weigh and drink, and how they are filled. */
export const containerEndpoints = {
  read: reads(path, keeper, {
    answer: containersView,
    restsOn: [...potsRestOn],
  }),
  absence: reads(`${path}/absence`, keeper, {
    query: absenceAsked,
    answer: absenceView,
    restsOn: [...potsRestOn],
  }),
  spots: reads(`${path}/:containerId/spots`, keeper, {
    answer: spotsView,
    restsOn: ['plan', 'plantings', 'library'],
  }),
  line: reads(`${path}/line`, keeper, {
    answer: lineView,
    restsOn: [...potsRestOn, 'decisions'],
  }),
  spare: reads(`${path}/spare`, keeper, {
    answer: spareView,
    restsOn: [...potsRestOn, 'decisions', 'reworks', 'prices'],
  }),
  check: writes(`${path}/checks`, crew, { body: checkRequest, answer: z.strictObject({ id }) }),
  withdrawCheck: writes(`${path}/checks/:checkId/withdraw`, crew),
  /** The containers that stand, out to a file and in from one; nothing of their fills. */
  csv: sendsFile(`${gardenPath}/containers.csv`, keeper, 'text/csv'),
  bring: writes(`${gardenPath}/containers-file`, head, {
    body: z.object({ csv: fileText }),
    answer: z.strictObject({ added: n, changed: n, editId: id.nullable() }),
  }),
  fill: writes(`${path}/fills`, head, {
    body: fillRequest,
    answer: z.strictObject({ editId: id, fillId: id, plantingIds: z.array(id) }),
  }),
}
