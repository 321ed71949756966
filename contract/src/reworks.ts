import {
  browsers,
  colourSchemes,
  layers,
  papers,
  potShapes,
  MOST_LEAVING,
  soilTextures,
  stepStages,
  summers,
  waysOut,
  type GroundRuns,
  type PotLook,
  type Station,
  type Suiting,
  type WishName,
  type Year,
} from '@border/core'
import { z } from 'zod'
import { whatIsKnown } from './aspects.ts'
import { botanicalName, gardenPath, head, id, instant, isoDay, keeper, point, shortText } from './basics.ts'
import { asks, done, reads, sendsFile, writes } from './endpoint.ts'
import { feature, jobWindow, sunHours, taxon } from './worked.ts'

const count = z.number().int().min(1).max(5000)
const share = z.number().min(0).max(1)
/** Minor unit of whatever currency the practice reckons in. */
const money = z.number().int().min(0).max(100_000_000)
const bearing = z.number().min(0).max(360)
const planPoint = z.tuple([point.x, point.y]).readonly()
const harmed = ['people', 'cats', 'dogs', 'horses'] as const
const sources = ['bench', 'division', 'place', 'library'] as const

/** Where something that leaves goes: a spot by where it lies, or a way out. */
const destination = z.discriminatedUnion('to', [
  z.strictObject({ to: z.literal('spot'), placeId: id, ...point }),
  ...waysOut.map((way) => z.strictObject({ to: z.literal(way) })),
])
export type SaidDestination = z.infer<typeof destination>

/** One of the clumps that are divided, as it was measured or counted. */
const measured = {
  shoots: z.number().int().min(1).max(1000).optional(),
  acrossM: z.number().min(0.02).max(5).optional(),
}

const leaving = z.strictObject({
  plantingId: id,
  /** What is divided stays, and gives pieces. */
  how: z.enum(['leaves', 'divides']),
  /** Null where the least cost in all is to decide. */
  to: destination.nullable(),
  /** What it is worth to keep: 1 as usual. */
  worth: z.number().min(0.1).max(10).default(1),
  ...measured,
  /** What becomes of pieces that nothing here takes; the bench where nobody says. */
  surplus: z.enum(['bench', 'give away']).optional(),
})

const wishes = z.strictObject({
  tallestM: z.number().min(0.05).max(30),
  kinds: z
    .strictObject({ least: z.number().int().min(1).max(60), most: z.number().int().min(1).max(60) })
    .refine((k) => k.least <= k.most, 'the least is more than the most'),
  drifts: z.enum(['odd', 'blocks', 'matrix']),
  budget: money.optional(),
  evergreenShare: share.optional(),
  layerShares: z.partialRecord(z.enum(layers), share).optional(),
  noBareWeek: z.boolean().optional(),
  scented: z.number().int().min(0).max(60).optional(),
  wildlife: z.number().int().min(0).max(60).optional(),
  scheme: z.strictObject({ kind: z.enum(colourSchemes), hue: bearing }).optional(),
  harmlessTo: z.array(z.enum(harmed)).max(4).optional(),
  leftBy: z.array(z.enum(browsers)).max(browsers.length).optional(),
  seasonal: z.boolean().optional(),
  locked: z.array(botanicalName).max(60).optional(),
  barred: z.array(botanicalName).max(400).optional(),
})
export type SaidWishes = z.infer<typeof wishes>

const MOST_RUNS = 4000
const cell = z.number().int().min(-40_000).max(40_000)
const runs: z.ZodType<GroundRuns> = z
  .array(z.tuple([cell, cell, cell]).readonly())
  .max(MOST_RUNS)
  .readonly()
  .refine((r) => r.every(([, from, to]) => from <= to && to - from < MOST_RUNS), 'ends before it begins')

const drift = z.strictObject({
  id,
  botanical: botanicalName,
  count,
  from: z.enum(sources),
  /** Cells of the plan that it has; null while it is not laid out. */
  ground: runs.nullable(),
  isDrawn: z.boolean(),
  /** It runs through the place: its ground is what the others leave. */
  isMatrix: z.literal(true).optional(),
})
export type SaidDrift = z.infer<typeof drift>
const between = z.strictObject({ id, botanical: botanicalName, count, from: z.enum(sources) })

const MOST_DRIFTS = 120

const MOST_STONES = 300
const ph = z.number().min(3).max(10)
const reaction = z.strictObject({
  now: ph,
  to: ph,
  texture: z.enum(soilTextures),
  by: z.enum(['sulphur', 'aluminium sulphate']),
})
const drip = z.strictObject({
  lineSpacingM: z.number().min(0.1).max(5),
  emitterSpacingM: z.number().min(0.1).max(5),
  emitterLitresPerHour: z.number().min(0.1).max(50),
  /** Water that is wanted at a time. */
  mm: z.number().min(1).max(100),
  tapLitresPerHour: z.number().min(10).max(10_000).nullable(),
})

/** Everything that somebody has said of a scheme: what follows from it is worked out anew. */
export const saidScheme = z.strictObject({
  name: shortText,
  leaving: z.array(leaving).max(400),
  wishes,
  drifts: z.array(drift).max(MOST_DRIFTS),
  /** Bulbs that come up between the drifts. */
  between: z.array(between).max(40),
  /** What fills the ground that is open until its plants have grown; absent where nobody has said. */
  filler: botanicalName.optional(),
  /** Null where the plan tells. */
  viewedFrom: z.array(bearing).min(1).max(2).nullable(),
  seenFromM: z.number().min(0.5).max(200).nullable(),
  /** A line to measure from, by its two ends. */
  baseLine: z.tuple([planPoint, planPoint]).readonly().nullable(),
  compostM: z.number().min(0).max(0.5),
  mulchM: z.number().min(0).max(0.5),
  spareShare: share,
  /** Of an hour's work; null where work is not paid for. */
  hourPrice: money.nullable(),
  /** What moves the soil to another reaction, from what a test has shown. */
  reaction: reaction.optional(),
  /** As the label of a feed says it. */
  feed: z
    .strictObject({ gramsPerM2: z.number().min(1).max(1000), lifeDays: z.number().int().min(0).max(720) })
    .optional(),
  drip: drip.optional(),
  stones: z.array(planPoint).min(1).max(MOST_STONES).optional(),
})
export type SaidScheme = z.infer<typeof saidScheme>

const scheme = z.strictObject({
  id,
  said: saidScheme,
  revisionId: id,
  /** Steps that can be taken back, and forward again. */
  hasBefore: z.boolean(),
  hasAfter: z.boolean(),
  by: z.string().nullable(),
  at: instant,
  /** That it is carried out, by whose word; null while it is not. */
  accepted: z.strictObject({ at: instant, by: z.string().nullable() }).nullable(),
  /** Steps of carrying it out. */
  steps: z.strictObject({ done: z.number(), open: z.number() }),
  /** What was planted by it. */
  plantedIds: z.array(id),
  /** A link by which whoever has it may look at it, up to a day; null where none works. */
  link: z.strictObject({ since: instant, until: isoDay }).nullable(),
})
export type SchemeView = z.infer<typeof scheme>

const rework = z.strictObject({
  id,
  placeId: id,
  by: z.string().nullable(),
  at: instant,
  schemes: z.array(scheme),
})
export type ReworkView = z.infer<typeof rework>

const step = z.strictObject({
  key: z.string(),
  stage: z.enum(stepStages),
  title: z.string(),
  placeId: id,
  plantingId: id.nullable(),
  /** The drift that it plants. */
  driftId: id.nullable(),
  window: jobWindow,
  minutes: z.number(),
  /** Keys of the steps that come before it. */
  after: z.array(z.string()),
})
export type StepView = z.infer<typeof step>

const stepsView = z.discriminatedUnion('ok', [
  z.strictObject({
    ok: z.literal(true),
    /** In an order in which they can be done. */
    steps: z.array(step),
    /** When it is planted, and why then. */
    turns: z.array(z.strictObject({ from: isoDay, until: isoDay, driftIds: z.array(id), says: z.string() })),
  }),
  /** What keeps it from being carried out. */
  z.strictObject({ ok: z.literal(false), problems: z.array(z.string()) }),
])
export type StepsView = z.infer<typeof stepsView>

const newScheme = z.object({ id, said: saidScheme })

/** A scheme as whoever changes it saw it. */
const schemeSeen = z.strictObject({ revisionId: id })
/** What is said of it now. */
const schemeNow = { answer: schemeSeen }

const station: z.ZodType<Station> = z.strictObject({
  ...point,
  hours: sunHours,
  moisture: z.number().nullable().optional(),
  wind: z.enum(['sheltered', 'open', 'exposed']).optional(),
  summer: z.enum(summers).optional(),
  rootsOf: z.string().optional(),
  eavesOf: z.string().optional(),
  suspected: z.enum(['drier', 'wetter']).optional(),
  edgeM: z.number(),
  wallM: z.number().optional(),
  eaves: z.strictObject({ name: z.string(), heightM: z.number() }).optional(),
  windows: z
    .array(z.strictObject({ of: z.string(), sillM: z.number(), awayM: z.number() }))
    .readonly()
    .optional(),
  buried: z.strictObject({ name: z.string(), awayM: z.number() }).optional(),
})

/** A bed as its drifts are laid out in it. */
const ground = z.strictObject({
  placeId: id,
  cellM: z.number(),
  stationM2: z.number(),
  stations: z.array(station),
})
export type GroundView = z.infer<typeof ground>

const suiting: z.ZodType<Suiting> = z.strictObject({
  score: z.number(),
  limiting: z.string(),
  reason: z.string(),
}) as unknown as z.ZodType<Suiting>

const suited = z.strictObject({
  placeId: id,
  /** How far apart its cells are, metres; those of a pot have none. */
  cellM: z.number(),
  /** By cell: where it lies, how the kind would do there, 0 to 1, and which of the reasons limits it there. */
  cells: z.array(z.tuple([z.number(), z.number(), z.number(), z.number()])),
  reasons: z.array(z.string()),
  best: z.strictObject({ ...point, suiting }),
  /** Share of its ground where it would do well. */
  goodShare: z.number(),
})
export type SuitedView = z.infer<typeof suited>

const asked = z.object({
  leaving: z
    .array(leaving.pick({ plantingId: true, to: true, worth: true }))
    .min(1)
    .max(MOST_LEAVING),
})
const went = z.strictObject({
  plantingId: id,
  destination,
  cost: z.number(),
  /** How it would do there; null of a way out. */
  suiting: suiting.nullable(),
})
const relocated = z.discriminatedUnion('ok', [
  z.strictObject({
    ok: z.literal(true),
    cost: z.number(),
    gap: z.number(),
    went: z.array(went),
  }),
  z.strictObject({
    ok: z.literal(false),
    says: z.string(),
    /** What is decided, and cannot be with the rest of what is. */
    noRoom: z.array(id),
  }),
])
export type RelocatedView = z.infer<typeof relocated>

const prices = z.strictObject({
  /** What each way out would cost more than the best there is; null where it cannot be. */
  ways: z.record(z.enum(waysOut), z.number().nullable()),
  /** The best spot of every place that would take it, and what it would cost more. */
  spots: z.array(z.strictObject({ placeId: id, ...point, more: z.number(), suiting })),
})
export type WaysView = z.infer<typeof prices>

const dividing = z
  .array(z.strictObject({ plantingId: id, ...measured }))
  .max(400)
  .default([])
/** What a choice of kinds is asked of. */
const choice = z.object({
  leavingIds: z.array(id).max(400),
  dividing,
  wishes,
  areaM2: z.number().min(0.25).max(10_000).optional(),
})
const candidate = z.strictObject({
  taxon,
  from: z.enum(sources),
  fit: z.number(),
  price: z.number().nullable(),
  most: z.number().optional(),
})
const item = z.strictObject({
  candidate,
  count: z.number(),
  drifts: z.number(),
  areaM2: z.number(),
  isMatrix: z.boolean().optional(),
})
const palette = z.strictObject({
  items: z.array(item),
  flowering: z.array(z.array(z.string())),
  price: z.number(),
  unpriced: z.array(z.string()),
  evergreenShare: z.number(),
  lack: z.number(),
  gap: z.number(),
})
export type PaletteView = z.infer<typeof palette>
const wishName = z.string() as unknown as z.ZodType<WishName>
const paletteAnswer = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('palette'), palette, weeks: z.array(isoDay), areaM2: z.number() }),
  /** No more differ so much from those that there are. */
  z.strictObject({ is: z.literal('no more') }),
  z.strictObject({ is: z.literal('not worked out'), says: z.string() }),
  z.strictObject({
    is: z.literal('conflict'),
    weeks: z.array(isoDay),
    wishes: z.array(wishName),
    giveUp: z.array(z.strictObject({ wish: wishName, palette })),
  }),
])
export type PaletteAnswerView = z.infer<typeof paletteAnswer>

/** What one has of a kind that could come in. */
const inHand = z.strictObject({ botanical: z.string(), from: z.enum(sources), count: z.number() })
export type InHandView = z.infer<typeof inHand>

const tray = z.strictObject({
  weeks: z.array(isoDay),
  areaM2: z.number(),
  /** By week: the kinds in flower, of what stays and what is chosen. */
  flowering: z.array(z.array(z.string())),
  candidates: z.array(
    z.strictObject({
      candidate,
      count: z.number(),
      gain: z.number(),
      fillsWeeks: z.array(z.number()).readonly(),
      brings: z
        .array(z.enum(['evergreen', 'front', 'middle', 'back', 'fine', 'bold', 'leaf colour']))
        .readonly(),
    }),
  ),
})
export type TrayView = z.infer<typeof tray>

const paper = z.enum(papers).default('A4')
/** When a scheme is looked at: a day, in the year of growth since it was planted. */
const schemeMoment = z.object({
  on: isoDay.optional(),
  years: z.coerce.number().int().min(1).max(30).default(3),
})

/** The usual year of a garden. */
const year: z.ZodType<Year> = z.strictObject({
  lateDays: z.number(),
  south: z.boolean(),
  shift: z.strictObject({ daysLater: z.array(z.number()), usualDayOf: z.array(z.number()) }).optional(),
})

/** So many of a kind, under the letter or number that stands for it on the plan. */
const marked = z.strictObject({
  mark: z.string(),
  count: z.number(),
  botanical: z.string(),
  common: z.string().nullable(),
})
/** A plant of a picture. */
const lookedAtPlant = z.strictObject({
  id: z.string(),
  groupId: z.string(),
  botanical: z.string(),
  ...point,
  ageYears: z.number(),
  surfaceM: z.number().optional(),
})
/** What a container looks like. */
const potLook = z.strictObject({
  shape: z.enum(potShapes),
  acrossM: z.number(),
  footM: z.number(),
  highM: z.number(),
  material: z.string().optional(),
}) satisfies z.ZodType<PotLook>
/** A scheme as a client sees it. */
const look = z.strictObject({
  garden: z.string(),
  place: z.string(),
  scheme: z.string(),
  /** The garden's own day, and the last on which it may be looked at. */
  today: isoDay,
  until: isoDay,
  /** What it is drawn from as it is seen from the path: its sides, from how far, every plant, and what stands behind. */
  seenFrom: z.array(bearing),
  awayM: z.number(),
  outline: z.array(planPoint),
  plants: z.array(lookedAtPlant),
  /** The annuals that fill what is open, in each year of growth that can be looked at. */
  fillers: z.array(z.strictObject({ years: z.number(), plants: z.array(lookedAtPlant) })),
  taxa: z.array(taxon),
  behind: z.array(feature),
  /** What there is behind it in other places of the garden. */
  beyond: z.strictObject({
    beds: z.array(z.array(planPoint)),
    pots: z.array(
      z.strictObject({
        id: z.string(),
        ...point,
        rimHeightM: z.number(),
        look: potLook,
      }),
    ),
    plants: z.array(lookedAtPlant),
  }),
  year,
  comes: z.array(marked),
  stays: z.array(marked),
})
export type LookView = z.infer<typeof look>

const reworks = `${gardenPath}/reworks` as const
const one = `${reworks}/:reworkId` as const
const oneScheme = `${one}/schemes/:schemeId` as const
const place = `${gardenPath}/features/:featureId` as const

/** A place decided anew: what leaves it, what comes in, where it stands. */
export const reworkEndpoints = {
  list: reads(reworks, keeper, {
    answer: z.array(rework),
    restsOn: ['reworks', 'jobs', 'plantings', 'links'],
  }),
  begin: writes(reworks, head, {
    body: z.object({ id, placeId: id, schemes: z.array(newScheme).min(1).max(6) }),
  }),
  withdraw: writes(`${one}/withdraw`, head),
  restore: writes(`${one}/restore`, head),
  addScheme: writes(`${one}/schemes`, head, { body: newScheme }),
  keepScheme: writes(`${oneScheme}/keep`, head, {
    body: z.object({ said: saidScheme }),
    sees: schemeSeen,
    ...schemeNow,
  }),
  stepScheme: writes(`${oneScheme}/step`, head, {
    body: z.object({ to: z.enum(['before', 'after']) }),
    ...schemeNow,
  }),
  withdrawScheme: writes(`${oneScheme}/withdraw`, head),
  restoreScheme: writes(`${oneScheme}/restore`, head),
  /** What carrying a scheme out comes to, and when; of what was last said of it. */
  steps: asks(`${oneScheme}/steps`, keeper, { body: z.object({ revisionId: id }), answer: stepsView }),
  /** The steps of what was last said of it become jobs of the season; until it is called off nothing of it is changed. */
  acceptScheme: writes(`${oneScheme}/accept`, head, { body: z.object({ revisionId: id }) }),
  /** What of it is not done yet is not done; what is done stays done. */
  callOffScheme: writes(`${oneScheme}/call-off`, head),
  /** On paper: plan with key, as it is seen, where each plant is set and, with prices, what is bought. */
  schemePdf: sendsFile(`${oneScheme}/paper.pdf`, keeper, 'application/pdf', {
    query: schemeMoment.extend({ paper, prices: z.enum(['yes', 'no']).default('yes') }),
  }),
  schemePlan: sendsFile(`${oneScheme}/plan.svg`, keeper, 'image/svg+xml', { query: z.object({ paper }) }),
  schemeView: sendsFile(`${oneScheme}/view.svg`, keeper, 'image/svg+xml', {
    query: schemeMoment.extend({ side: z.coerce.number().int().min(0).max(1).default(0) }),
  }),
  /** A link by which a client may look at it up to a day: made anew, or withdrawn. Asked again it only says that it is done. */
  setSchemeLink: writes(`${oneScheme}/link`, head, {
    body: z.object({ until: isoDay.nullable() }),
    answer: z.union([z.strictObject({ token: z.string().nullable() }), done]),
    writes: 'secret',
  }),
  /** Whoever has the secret in the address may look at its scheme, without prices, and at nothing else. */
  look: reads('/looks/:token', 'anyone', { answer: look, restsOn: [] }),
  lookPlan: sendsFile('/looks/:token/plan.svg', 'anyone', 'image/svg+xml'),
  lookPdf: sendsFile('/looks/:token/paper.pdf', 'anyone', 'application/pdf', {
    query: schemeMoment.extend({ paper }),
  }),
  ground: reads(`${place}/ground`, keeper, { answer: ground, restsOn: whatIsKnown }),
  /** Where a kind would do well, the best place first. */
  fit: reads(`${gardenPath}/fit`, keeper, {
    query: z.object({ botanical: botanicalName }),
    answer: z.array(suited),
    restsOn: whatIsKnown,
  }),
  relocate: asks(`${gardenPath}/relocation`, keeper, { body: asked, answer: relocated }),
  ways: asks(`${gardenPath}/relocation/ways`, keeper, {
    body: asked.extend({ plantingId: id }),
    answer: prices,
  }),
  /** What one has of kinds that could come in: off the bench, out of other places, and of what is divided. */
  inHand: asks(`${place}/in-hand`, keeper, { body: z.object({ dividing }), answer: z.array(inHand) }),
  tray: asks(`${place}/tray`, keeper, {
    body: choice.extend({ chosen: z.array(z.object({ botanical: botanicalName, count })).max(160) }),
    answer: tray,
  }),
  /** One palette more, apart from those found before. */
  palette: asks(`${place}/palette`, keeper, {
    body: choice.extend({ apart: z.array(z.array(botanicalName).max(60)).max(6) }),
    answer: paletteAnswer,
  }),
}

const pack = z.strictObject({ name: shortText, holds: count, price: money })
const offer = z.strictObject({
  id,
  supplier: shortText,
  /** A kind by its botanical name, or a material. */
  item: shortText,
  packs: z.array(pack).min(1).max(12),
  pricedOn: isoDay,
})
export type OfferView = z.infer<typeof offer>

/** What suppliers ask, with the day they were asked: of a practice, for all its gardens. */
export const priceEndpoints = {
  list: reads('/prices', 'signed in', { answer: z.array(offer), restsOn: ['prices'] }),
  /** What was said of the same thing of the same supplier is told no more. */
  say: writes('/prices', 'leads practice', { body: offer }),
  withdraw: writes('/prices/withdraw', 'leads practice', { body: z.object({ id }) }),
}
