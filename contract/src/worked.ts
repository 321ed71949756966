import {
  actions,
  bloomStages,
  recordSources,
  brightnesses,
  featureGeometry,
  featureKinds,
  isSign,
  phases,
  colourWishes,
  datings,
  plantingSources,
  signCauses,
  siteCauses,
  taxonShape,
  treatments,
  weatherNeeds,
  type Assessment,
  type BloomGap,
  type BloomSeen,
  type BloomWeek,
  type Cause,
  type Climate,
  type ComingChange,
  type Decline,
  type Diagnosis,
  type Earliness,
  type Explanation,
  type Feature,
  type Filler,
  type ForecastDay,
  type KnownClimate,
  type LightCause,
  type LightEffect,
  type Likelihood,
  type OfferedRemedy,
  type Planting,
  type PlanFeature,
  type Rank,
  type RecordModel,
  type Schedule,
  type Schools,
  type SignId,
  type SoilCorrection,
  type SuccessorChoice,
  type Suitability,
  type SunHours,
  type Supposition,
  type SurvivalStep,
  type SuspectedChange,
  type Taxon,
  type TaxonRecord,
  type TellingLook,
  type TreatmentEffect,
  type TrialProposal,
  type Unseen,
  type Verdict,
  type WaterBalance,
  type WhyHere,
  type Window,
} from '@border/core'
import { z } from 'zod'

/**
 * What the core works out, as it crosses the wire. Each schema is held to the type that the core gives: a field that is missing,
 * or of another type, is told by the compiler, and what an answer holds beyond it by the tests.
 */

const text = z.string()
const n = z.number()
const day = z.string()
const say = { says: text }

export const sign = z
  .string()
  .refine(isSign, 'is not a sign that is known here')
  .transform((s) => s as SignId)

// Light

export const sunHours: z.ZodType<SunHours> = z.strictObject({
  total: n,
  morning: n,
  midday: n,
  afternoon: n,
  heat: n,
})
const changeKind = z.enum(['appeared', 'gone', 'limbed', 'thinned', 'lowered', 'measured', 'grown'])
export const lightCause: z.ZodType<LightCause> = z.strictObject({
  obstructionId: text,
  name: text,
  what: changeKind,
  date: day.optional(),
  hours: n,
  byPart: z.strictObject({ morning: n, midday: n, afternoon: n }),
})
export const supposition: z.ZodType<Supposition> = z.strictObject({
  obstructionId: text,
  gone: z.boolean().optional(),
  grownYears: n.optional(),
  heightM: n.optional(),
  crownRadiusM: n.optional(),
  clearStemM: n.optional(),
  thinnedBy: n.optional(),
  movedM: z.tuple([n, n]).readonly().optional(),
})
export const comingChange: z.ZodType<ComingChange> = z.strictObject({
  plantingId: text,
  year: n,
  leaves: z.boolean(),
  now: sunHours,
  then: sunHours,
  causes: z.array(lightCause),
})
export const lightEffect: z.ZodType<LightEffect> = z.strictObject({
  plantingId: text,
  now: sunHours,
  then: sunHours,
  outsideNow: z.boolean(),
  outsideThen: z.boolean(),
})
const point = z.tuple([n, n]).readonly()
const building = z.strictObject({
  kind: z.literal('building'),
  id: text,
  name: text,
  from: day.nullish(),
  to: day.nullish(),
  heightM: n,
  events: z.array(z.never()).readonly().optional(),
  growth: z.null().optional(),
  ring: z.array(point).readonly(),
  overhang: z.strictObject({ depthM: n, heightM: n }).nullish(),
})
export const cause: z.ZodType<Cause> = z.union([
  z.strictObject({ what: z.literal('as drawn') }),
  z.strictObject({
    what: z.enum(['gone', 'lowered', 'thinned', 'limbed', 'grown', 'raised']),
    obstructionId: text,
    supposition,
  }),
  z.strictObject({
    what: z.literal('new'),
    block: z.strictObject({ bearingDeg: n, distanceM: n, widthM: n, heightM: n }),
    building,
  }),
])
export const explanation: z.ZodType<Explanation> = z.strictObject({
  cause,
  posterior: n,
  logLikelihood: n,
  bic: n,
  explains: z.array(text),
})
export const tellingLook: z.ZodType<TellingLook> = z.strictObject({
  instantMs: n,
  x: n,
  y: n,
  z: n,
  ground: z.strictObject({ slopeDeg: n, aspectDeg: n }).nullish(),
  bits: n,
  expected: z.array(z.strictObject({ cause, seen: z.enum(brightnesses) })),
})

// Climate

const dateQuantiles = z.strictObject({ p10: n, p50: n, p90: n })
const byDayOfYear = z.array(n).length(366)
export const climate: z.ZodType<Climate> = z.strictObject({
  latitudeDeg: n,
  firstYear: n,
  lastYear: n,
  years: n,
  lastFrost: dateQuantiles.optional(),
  firstFrost: dateQuantiles.optional(),
  soilC: byDayOfYear,
  minC: byDayOfYear,
  maxC: byDayOfYear,
  frostRisk: byDayOfYear,
  meanAnnualMinimumC: n,
  isSimulated: z.boolean(),
  known: z.strictObject({ frost: z.boolean(), winter: z.boolean() }),
})
export const knownClimate: z.ZodType<KnownClimate> = z.strictObject({
  lastFrost: text.optional(),
  firstFrost: text.optional(),
  coldestC: n.optional(),
  hottestC: n.optional(),
  coldestMonthC: n.optional(),
  rainMm: n.optional(),
  heightM: n.optional(),
  seaKm: n.optional(),
})
export const soilCorrection: z.ZodType<SoilCorrection> = z.strictObject({ offsetC: n, days: n, errorC: n })
export const earliness: z.ZodType<Earliness> = z.strictObject({
  lateDays: n,
  gathered: n,
  usual: n,
  seasons: n,
})
const forecastShape = {
  day,
  minC: n,
  maxC: n,
  rainMm: n,
  windMs: n.optional(),
  cloud: n.optional(),
  rainChance: n,
  spreadC: n,
}
export const suitability: z.ZodType<Suitability> = z.strictObject({
  level: z.enum(['good', 'poor', 'no']),
  ...say,
})
const needs = z.enum(weatherNeeds).exclude(['none'])
export const suitedDay = z.strictObject({
  ...(forecastShape satisfies Record<keyof ForecastDay, z.ZodType>),
  soilC: n,
  suits: z.record(needs, suitability),
})
export const waterBalanceShape = {
  depletionMm: n,
  readilyMm: n,
  dueOn: day.nullable(),
  litres: n,
  ...say,
} satisfies Record<keyof WaterBalance, z.ZodType>

// The plan and the plants on it

const featureShape = {
  kind: z.enum(featureKinds),
  name: text,
  from: day.nullable(),
  to: day.nullable(),
  geometry: featureGeometry,
  properties: z.record(text, z.unknown()),
}
export const planFeature: z.ZodType<PlanFeature> = z.strictObject(featureShape)
export const feature: z.ZodType<Feature> = z.strictObject({ id: text, ...featureShape })
export const taxon: z.ZodType<Taxon> = z.strictObject(taxonShape)
export const planting: z.ZodType<Planting> = z.strictObject({
  id: text,
  tag: text,
  taxon,
  plantedOn: day,
  plantedKnown: z.enum(datings),
  plantedCount: n,
  livingCount: n,
  source: z.enum(plantingSources),
  role: text.nullable(),
  colourWish: z.enum(colourWishes).nullable(),
  fromTag: text.nullable(),
  placeId: text,
  x: n,
  y: n,
  radiusM: n.nullable(),
  outline: z.array(point).readonly().nullable(),
  inPlaceSince: day,
})
export const schools = z.record(text, text) as z.ZodType<Schools>

// Verdicts

const edges = ['earliest', 'bestFrom', 'bestTo', 'latest'] as const
export const jobWindow: z.ZodType<Window> = z.strictObject({
  season: z.enum(['spring', 'summer', 'autumn', 'winter', 'dormant season', 'any time']),
  earliest: day,
  bestFrom: day,
  bestTo: day,
  latest: day,
  why: z.record(z.enum(edges), text),
})
const action = z.enum(actions)
const fit = z.strictObject({
  score: n,
  limiting: z.enum(['light', 'afternoon', 'moisture', 'wind', 'none']),
  reason: text,
})
export const term = z.strictObject({ action, points: n, ...say })
const remedy: z.ZodType<OfferedRemedy> = z.strictObject({
  id: text,
  action,
  points: n,
  signs: z.array(sign),
  ...say,
  does: text,
  steps: z.array(text),
  waiting: text,
  window: jobWindow.nullable(),
  subject: text.nullable(),
})
export const verdict: z.ZodType<Verdict> = z.strictObject({
  action,
  scores: z.partialRecord(action, n),
  terms: z.array(term),
  remedies: z.array(remedy),
  runnerUp: action,
  ruledOut: z.array(z.strictObject({ action, why: text, isOpen: z.boolean() })),
  notes: z.array(text),
  wouldChange: text,
  spots: z.array(z.strictObject({ placeId: text, placeName: text, x: n, y: n, hours: sunHours, fit })),
})
const lightFit = z.strictObject({ hoursOutside: n, scorched: z.boolean(), misfitHours: n })
export const assessment: z.ZodType<Assessment> = z.strictObject({
  plantingId: text,
  before: sunHours,
  now: sunHours,
  fitBefore: lightFit,
  fit: lightFit,
  outside: z.boolean(),
  causes: z.array(lightCause),
  verdict,
})
export const successorChoice: z.ZodType<SuccessorChoice> = z.strictObject({
  botanical: text,
  common: text,
  heightM: n,
  yearsToSize: n,
  fit: n,
  reason: text,
})

// Season

export const placedHere: z.ZodType<Pick<Schedule, 'placed' | 'unplaced' | 'moved'>> = z.strictObject({
  placed: z.array(
    z.strictObject({
      id: text,
      parts: z.array(z.strictObject({ day, shiftId: text, minutes: n })),
      inBest: z.boolean(),
    }),
  ),
  unplaced: z.array(
    z.strictObject({
      id: text,
      reason: z.enum([
        'no-working-day',
        'no-skill',
        'days-full',
        'waits-for-unplaced',
        'order-leaves-no-day',
        'costs-more',
      ]),
      shortMinutes: n,
      cost: n,
      nextChance: day.nullable(),
    }),
  ),
  moved: z.array(z.strictObject({ id: text, from: day, to: day.nullable(), ...say })),
})
export const whyHere: z.ZodType<WhyHere> = z.strictObject({
  id: text,
  chosen: z.strictObject({ day, terms: z.array(z.strictObject({ ...say, cost: n })), cost: n }).nullable(),
  runnerUp: z.strictObject({ day, more: n, ...say }).nullable(),
  days: z.array(z.strictObject({ day, shiftId: text, isFree: z.boolean(), cost: n.optional(), ...say })),
})

// The record

export const unseen: z.ZodType<Unseen> = z.union([
  z.strictObject({ state: z.literal('resting'), ...say }),
  z.strictObject({ state: z.literal('presumed lost'), until: day, ...say }),
  z.strictObject({ state: z.literal('due'), ...say }),
])
export const bloomStage = z.enum(bloomStages)
const expected = z.strictObject({ score: n, se: n })
const keyed = <K extends z.ZodType>(key: K) => ({ key, estimate: n, se: n, records: n })
const sources = z.array(z.enum([...recordSources, 'chance']))
export const recordModel: z.ZodType<Omit<RecordModel, 'plantings'>> = z.strictObject({
  mean: n,
  meanSe: n,
  shares: z.array(z.strictObject({ sources: sources.readonly(), share: n.optional(), low: n, high: n })),
  untold: z.array(
    z.strictObject({ sources: sources.readonly(), why: z.enum(['single', 'confounded', 'wide']) }),
  ),
  untied: z.array(z.array(text)),
  taxa: z.array(z.strictObject({ ...keyed(text), expected: expected.optional() })),
  places: z.array(z.strictObject(keyed(text))),
  years: z.array(z.strictObject(keyed(n))),
  lights: z.array(
    z.strictObject(
      keyed(z.strictObject({ taxon: text, light: z.enum(['full sun', 'part sun', 'part shade', 'shade']) })),
    ),
  ),
  records: n,
  iterations: n,
}) as z.ZodType<Omit<RecordModel, 'plantings'>>
export const decline: z.ZodType<Decline> = z.strictObject({
  plantingId: text,
  perSeason: n,
  seasons: n,
  from: n,
  to: n,
  p: n,
})
export const survivalStep: z.ZodType<SurvivalStep> = z.strictObject({
  years: n,
  atRisk: n,
  died: n,
  share: n,
  se: n,
})
export const taxonRecord: z.ZodType<TaxonRecord> = z.strictObject({
  taxon: text,
  expected: expected.optional(),
  spots: z.array(
    z.strictObject({ placeId: text, score: n, seasons: n, walks: n, plantingIds: z.array(text) }),
  ),
  seasons: n,
  walks: n,
  outliers: z.array(text),
  reading: z.enum(['plant', 'spot', 'good', 'mixed', 'unsure']),
  says: text,
  surer: text,
  again: z.enum(['again', 'not again', 'open']),
  againSays: text,
}) as z.ZodType<TaxonRecord>
export const rank: z.ZodType<Rank> = z.strictObject({
  plantingId: text,
  taxon: text,
  seasons: n,
  score: n,
  se: n,
})
export const trialProposal: z.ZodType<TrialProposal> = z.strictObject({
  outcome: z.enum(['expand', 'retry elsewhere', 'strike off', 'go on']),
  count: n.optional(),
  ...say,
})
export const bloomSeen = z.strictObject({
  plantingId: text,
  season: n,
  first: day,
  last: day,
  notBefore: day.nullable(),
  notAfter: day.nullable(),
  flushes: n,
  expected: z.strictObject({ from: day, to: day }).optional(),
  lateDays: n.optional(),
}) as z.ZodType<BloomSeen>
export const bloomWeek: z.ZodType<BloomWeek> = z.strictObject({
  from: day,
  cover: n,
  count: n,
  seen: z.boolean(),
})
const filler: z.ZodType<Filler> = z.strictObject({ taxon: text, weeks: n, fit: n, reason: text })
export const filledGap: z.ZodType<BloomGap & { fillers: Filler[] }> = z.strictObject({
  from: day,
  to: day,
  weeks: n,
  fillers: z.array(filler),
})
export const treatmentEffect = z.strictObject({
  taxon: text,
  what: z.enum(treatments),
  season: n,
  treated: z.array(text),
  fellows: z.array(text),
  laterDays: n.optional(),
  longerDays: n,
  moreFlushes: n,
  ...say,
}) as z.ZodType<TreatmentEffect>

// Diagnosis

export const signCause = z.enum(signCauses)
export const usualPhase = z.enum(phases)
export const diagnosisShape = {
  plantingId: text,
  nothing: n,
  causes: z.array(
    z.strictObject({
      cause: signCause,
      share: n,
      odds: z.enum(['most likely', 'likely', 'possible', 'unlikely']),
      speaksFor: z.array(z.strictObject({ sign, own: z.boolean(), near: n, why: text })),
      against: z.array(sign),
      check: text,
    }),
  ),
  failing: z.boolean(),
  usual: z.strictObject({ phase: usualPhase, resting: z.boolean(), telling: n, lateDays: n }),
  settling: z.boolean(),
} satisfies Record<keyof Diagnosis, z.ZodType>
export const suspectedChange: z.ZodType<SuspectedChange> = z.strictObject({
  placeId: text,
  cause: z.enum(siteCauses),
  share: n,
  plantingIds: z.array(text),
  signs: z.array(sign),
  check: text,
})
export const likelihoodShape = {
  sign,
  cause: signCause,
  share: n,
  why: text,
} satisfies Record<keyof Likelihood, z.ZodType>
