import {
  actions,
  bloomStages,
  brightnesses,
  forbiddenStates,
  isIsoDate,
  monthDay,
  isSign,
  signCauses,
  skills,
  treatments,
  isTimeZone,
  lifeForms,
  operations,
  ownAnchors,
  areaM2,
  plantingSources,
  selfCrossing,
  schoolIds,
  schoolOf,
  type Unseen,
  type Assessment,
  type BloomGap,
  type BloomSeen,
  type BloomStage,
  type BloomWeek,
  type Brightness,
  type Cause,
  type Climate,
  type ComingChange,
  type Decline,
  type Diagnosis,
  type Earliness,
  type Explanation,
  type Feature,
  type FileProblem,
  type ForbiddenState,
  type ForecastDay,
  type Filler,
  type KnownClimate,
  type LightCause,
  type Likelihood,
  type Phase,
  type Planting,
  type Operation,
  type PlanFeature,
  type RecordModel,
  type RuleAdjustment,
  type Schedule,
  type Schools,
  type SeenInWords,
  type SignId,
  type Skill,
  type SoilCorrection,
  type Rank,
  type Suitability,
  type SunHours,
  type SuccessorChoice,
  type SurvivalStep,
  type SuspectedChange,
  type Taxon,
  type TaxonRecord,
  type TellingLook,
  type Supposition,
  type TreatmentEffect,
  type LightEffect,
  type TrialProposal,
  type Verdict,
  type WaterBalance,
  type WeatherNeed,
  type Window,
} from '@border/core'
import { z } from 'zod'

/** What crosses the wire. Requests are schemas; answers are types the server must satisfy. */

export const isoDay = z.string().refine(isIsoDate, 'must be a date like 2026-09-14')
const id = z.uuid()
const shortText = z.string().trim().min(1).max(120)
const longText = z.string().trim().max(2000)

/** `head` decides and changes, `crew` records work, `keeper` reads. */
export const roles = ['head', 'crew', 'keeper'] as const
export type Role = (typeof roles)[number]
export const roleWords: Record<Role, string> = { head: 'head gardener', crew: 'crew', keeper: 'keeper' }

// People and sessions

export const signInRequest = z.object({ email: z.email().max(200), password: z.string().min(1).max(200) })
export const demoSignInRequest = z.object({ personId: id })
export const firstAccountRequest = z.object({
  practiceName: shortText,
  name: shortText,
  email: z.email().max(200),
  password: z.string().min(10, 'must be at least 10 characters').max(200),
})
export const personRequest = z.object({
  name: shortText,
  email: z.email().max(200),
  password: z.string().min(10, 'must be at least 10 characters').max(200),
  role: z.enum(roles),
})
export interface MemberView {
  id: string
  name: string
  email: string
  role: Role
}
export const clockRequest = z.object({ useRealToday: z.boolean() })

export interface SessionInfo {
  csrfToken: string
  /** Nobody has an account yet: the first one is asked for. */
  needsFirstAccount: boolean
  demoPeople: { id: string; name: string; role: Role }[]
  person: { id: string; name: string; practiceName: string; leads: boolean } | null
  /** The server's clock, UTC: a device whose own is wrong goes by this. */
  now: string
  demoDate: string | null
  usesRealToday: boolean
}

// Gardens

export interface GardenSummary {
  id: string
  name: string
  latitude: number
  longitude: number
  timeZone: string
  northDeg: number
  role: Role
}

export type FeatureView = Feature
export type PlantingView = Planting

/** A garden as it stands on a day. */
export interface GardenView {
  garden: GardenSummary
  features: FeatureView[]
  plantings: PlantingView[]
  climate: Climate | null
  climateSource: string | null
  /** What the gardener knows of it. */
  knownClimate: KnownClimate | null
  /** The garden's choices where good gardeners differ; a school that is absent follows its usual one. */
  schools: Schools
}

export const gardenRequest = z.object({
  name: shortText,
  latitude: z.number().min(-90).max(90),
  longitude: z.number().min(-180).max(180),
  timeZone: shortText.refine(isTimeZone, 'must be an IANA time zone like Europe/London'),
  northDeg: z.number().min(-360).max(360).default(0),
})

/** What is said of a garden, put right. */
export const gardenAmendment = z.object({
  name: shortText.optional(),
  latitude: z.number().min(-90).max(90).optional(),
  longitude: z.number().min(-180).max(180).optional(),
  timeZone: shortText.refine(isTimeZone, 'must be an IANA time zone like Europe/London').optional(),
  northDeg: z.number().min(-360).max(360).optional(),
})
export type GardenAmendment = z.infer<typeof gardenAmendment>
/** A garden is taken out by its name. */
export const withdrawGardenRequest = z.object({ name: z.string().max(200) })
export interface WithdrawnGarden {
  id: string
  name: string
  /** On its own calendar. */
  withdrawnOn: string
}
/** A garden that was saved, with where its climate is from. */
export interface SavedGarden {
  gardenId: string
  climate: string
}

const fileText = z.string().max(4_000_000)
export const importRequest = z.object({
  plan: fileText,
  plantings: fileText.optional(),
  weather: fileText.optional(),
})
export type ImportRequest = z.infer<typeof importRequest>

export interface ImportPreview {
  gardenName: string
  latitude: number
  longitude: number
  northDeg: number
  /** The day the plan is shown at. */
  today: string
  counts: Record<string, number>
  features: PlanFeature[]
  /** `x` and `y` are absent for plants in pots, which stand where the pot stands. */
  plantings: {
    tag: string
    place: string
    taxon: Taxon
    count: number
    plantedOn: string
    x?: number
    y?: number
  }[]
  weatherDays: number
}
export type ImportPreviewResult =
  { ok: true; preview: ImportPreview } | { ok: false; problems: FileProblem[] }

export const featureRequest = z.object({ feature: z.unknown() })
/** `to` is the day it is gone; null when it stands after all. */
export const endFeatureRequest = z.object({ to: isoDay.nullable() })
export const soilReadingRequest = z.object({
  day: isoDay,
  celsius: z.number().min(-40).max(60),
  placeId: id.optional(),
})
export const soilFileRequest = z.object({ csv: fileText })
export interface SoilReadingView {
  id: string
  day: string
  celsius: number
  placeId: string | null
}
/** A garden's soil thermometer and what it says against the air. */
export interface SoilView {
  readings: SoilReadingView[]
  correction: SoilCorrection
}
export const weatherRequest = z.object({ weather: fileText })
/** What a gardener knows of the climate; nothing at all takes back what was said. */
export const knownClimateRequest = z.object({
  lastFrost: monthDay.optional(),
  firstFrost: monthDay.optional(),
  coldestC: z.number().min(-60).max(30).optional(),
})
export const schoolRequest = z
  .object({ school: z.enum(schoolIds), choice: z.string() })
  .refine(
    ({ school, choice }) => schoolOf(school).choices.some((c) => c.id === choice),
    'is no choice of this school',
  )
export const featureEventRequest = z.discriminatedUnion('action', [
  z.object({ date: isoDay, action: z.literal('limbed'), clearStemM: z.number().min(0).max(120) }),
  z.object({ date: isoDay, action: z.literal('thinned'), fraction: z.number().min(0).max(1) }),
  z.object({ date: isoDay, action: z.literal('lowered'), heightM: z.number().min(0).max(120) }),
  z.object({
    date: isoDay,
    action: z.literal('measured'),
    heightM: z.number().min(0.1).max(120),
    crownRadiusM: z.number().min(0).max(40).optional(),
  }),
])

export type ObstructionEventRequest = z.infer<typeof featureEventRequest>

const change = z.object({
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
export const obstructionChangeRequest = z.object({ date: isoDay, change })
export type ObstructionChangeRequest = z.infer<typeof obstructionChangeRequest>

/** What-ifs under a name. */
export const whatIfRequest = z.object({
  name: z.string().trim().min(1).max(80),
  suppositions: z
    .array(change.extend({ obstructionId: id }))
    .min(1)
    .max(50),
})
/** A what-if with what it would do; `id` is null for the garden as it stands. */
export interface WhatIfView {
  id: string | null
  name: string
  suppositions: Supposition[]
  /** Plantings outside the light they like. */
  outside: number
  leaving: number
  returning: number
  /** Mean hours of sun over all beds on the mean day of the growing season. */
  meanHours: number
}

export interface AheadView {
  on: string
  /** How many years were looked at. */
  years: number
  coming: ComingChange[]
  /** Ailing trees and hedges, with what their going would do. */
  waiting: { obstructionId: string; health: string; effects: LightEffect[] }[]
}

const ring = z
  .array(z.tuple([z.number(), z.number()]).readonly())
  .min(3)
  .max(200)
  .readonly()
  .refine((r) => areaM2(r) > 0, 'the outline has no area')
  .refine((r) => selfCrossing(r) === undefined, 'the outline crosses itself')
export const plantingRequest = z.object({
  tag: z.string().trim().min(1).max(40),
  taxonBotanical: z.string().trim().min(1).max(160),
  placeId: id,
  count: z.number().int().min(1).max(10_000),
  plantedOn: isoDay,
  source: z.enum(plantingSources),
  x: z.number(),
  y: z.number(),
  radiusM: z.number().min(0.02).max(50).optional(),
  /** The drift as it is drawn, corners in plan metres. */
  outline: ring.optional(),
  /** Planted off the bench: it is there no longer. */
  benchId: id.optional(),
})

/** A planting put right: all that is said of it, and of where it stands. */
export const plantingAmendment = plantingRequest
  .omit({ benchId: true })
  .extend({ role: z.string().trim().max(120).nullish() })
export type PlantingAmendment = z.infer<typeof plantingAmendment>

// The bench: plants that wait for a place

export const benchRequest = z.object({
  taxonBotanical: z.string().trim().min(1).max(160),
  count: z.number().int().min(1).max(10_000),
  since: isoDay,
  note: z.string().trim().max(200).optional(),
})
export const benchGoneRequest = z.object({ on: isoDay, gone: z.enum(['given away', 'thrown away']) })
export interface BenchView {
  id: string
  botanical: string
  count: number
  since: string
  /** Tag of the planting it is a division of. */
  fromTag: string | null
  note: string | null
}

// The plant library

/** A kind as a practice knows it: the library's, its own version of one, or one of its own. */
export type KnownTaxon = Taxon & { own: 'new' | 'changed' | null }
/** The kind is checked whole where it is read. */
export const ownTaxonRequest = z.object({
  taxon: z.unknown(),
  /** The name it had until now. */
  was: z.string().trim().min(1).max(160).optional(),
})
export const taxaFileRequest = z.object({ csv: fileText })
export const removeTaxonRequest = z.object({ botanical: z.string().trim().min(1).max(160) })

// Light and verdicts

export interface AssessmentView {
  on: string
  then: string
  assessments: Assessment[]
  decisions: DecisionView[]
}

/** The same word on many proposals at once. */
export const bulkDecisionRequest = z.object({
  plantingIds: z.array(id).min(1).max(200),
  on: isoDay,
  word: z.discriminatedUnion('choice', [
    z.object({ choice: z.literal('accept') }),
    z.object({ choice: z.literal('wait'), until: isoDay }),
  ]),
})
export interface BulkAnswer {
  kept: string[]
  refused: { plantingId: string; why: string }[]
}

export const successorRequest = z.discriminatedUnion('state', [
  z.object({ state: z.literal('planned'), botanical: z.string().trim().min(1).max(160) }),
  z.object({ state: z.literal('dismissed') }),
  /** What was said is taken back. */
  z.object({ state: z.literal('open') }),
])
/** A failing tree or shrub of consequence, and what could be planted now to stand when it goes. */
export interface SuccessionView {
  subjectId: string
  name: string
  placeId: string | null
  says: string
  choices: SuccessorChoice[]
  word: { state: 'planned' | 'dismissed'; botanical: string | null; jobId: string | null } | null
}

// Readings and what they say

const coordinate = z.number().min(-100_000).max(100_000)
export const readingRequest = z.object({
  /** UTC instant. */
  at: z.iso.datetime(),
  x: coordinate,
  y: coordinate,
  placeId: id.optional(),
  seen: z.enum(brightnesses),
})
export type ReadingRequest = z.infer<typeof readingRequest>

export const lightLogRequest = z.object({
  name: shortText,
  x: coordinate,
  y: coordinate,
  placeId: id.optional(),
  /** The file, `time,lux`. */
  csv: z.string().min(1).max(8_000_000),
  /** Zone of times without an offset; the garden's unless given. */
  timeZone: shortText.refine(isTimeZone, 'must be an IANA time zone like Europe/London').optional(),
})
export type LightLogRequest = z.infer<typeof lightLogRequest>

export interface ReadingView {
  id: string
  at: string
  x: number
  y: number
  placeId: string | null
  seen: Brightness
  by: string
}

export interface LightLogView {
  id: string
  name: string
  x: number
  y: number
  placeId: string | null
  firstAt: string
  lastAt: string
  sampleCount: number
  /** Steps of twenty minutes that told something, and of all the ones set aside. */
  readingCount: number
  steps: number
  cloudy: number
  undecided: number
}

/** Readings of a garden, what explains them and where to look next. */
export interface LightEvidenceView {
  since: string
  readings: ReadingView[]
  logs: LightLogView[]
  explanations: Explanation[]
  used: number
  unusable: string[]
  telling: TellingLook[]
}

export type SuspicionDetail =
  | { kind: 'unrecorded'; cause: Cause; posterior: number; explains: number; used: number }
  | { kind: 'ahead'; change: ComingChange }
  | { kind: 'changed'; plantingId: string; before: SunHours; now: SunHours; cause: LightCause }
  | { kind: 'signs'; change: SuspectedChange }

/** Something that seems to have changed, or is about to. */
export interface SuspicionView {
  id: string
  detail: SuspicionDetail
  firstSeen: string
  lastSeen: string
}
export interface SuspicionsView {
  /** The day the garden was last re-checked; null when it never was. */
  checkedOn: string | null
  suspicions: SuspicionView[]
}
/** Confirming one puts its change on the plan with its day. */
export const suspicionRequest = z.discriminatedUnion('state', [
  z.object({ state: z.literal('dismissed') }),
  z.object({ state: z.literal('confirmed'), date: isoDay.optional() }),
])
/** A simulated logger stands at a point for some days and sends what it saw. */
export const simulatedLogRequest = z.object({
  x: coordinate,
  y: coordinate,
  placeId: id.optional(),
  name: shortText,
})

const target = z.object({ placeId: id, x: z.number(), y: z.number() })
export type MoveTarget = z.infer<typeof target>

/** What the person chose. Kept for ever; a later decision stands beside it. */
export const decisionRequest = z.discriminatedUnion('choice', [
  z.object({ plantingId: id, on: isoDay, choice: z.literal('accept'), target: target.optional() }),
  z.object({
    plantingId: id,
    on: isoDay,
    choice: z.literal('otherwise'),
    action: z.enum(actions),
    reason: z.string().trim().min(3, 'say why').max(2000),
    target: target.optional(),
  }),
  z.object({
    plantingId: id,
    on: isoDay,
    choice: z.literal('wait'),
    until: isoDay,
    reason: longText.optional(),
  }),
])
export type DecisionRequest = z.infer<typeof decisionRequest>

export interface DecisionView {
  id: string
  plantingId: string
  proposed: string
  choice: 'accept' | 'otherwise' | 'wait'
  action: string
  reason: string | null
  waitUntil: string | null
  decidedOn: string
  decidedBy: string
  jobCount: number
  /** The verdict as it was then weighed. */
  weighed: Pick<Verdict, 'terms'> & { scores: Partial<Verdict['scores']> }
}

// Jobs

export interface JobView {
  id: string
  kind: Operation
  title: string
  /** Plantings it is done to; none where it is done to a place. */
  plantingIds: string[]
  tags: string[]
  placeId: string | null
  /** The rule of care that asks for it; null where a decision does. */
  ruleId: string | null
  window: Window
  minutes: number
  materials: { name: string; amount: number; unit: string }[]
  tools: string[]
  cautions: string[]
  steps: string[]
  why: string | null
  /** What happens when it is missed. */
  missed: string | null
  /** The school it follows and what the other would do. */
  school: string | null
  /** Why its dates cannot be relied on; null where they can. */
  unsure: string | null
  forbids: ForbiddenState[]
  after: string[]
  state: 'open' | 'done' | 'dropped'
  plannedOn: string | null
  /** Its sittings. */
  parts: { day: string; minutes: number }[]
  nextChance: string | null
  /** Why it has no day, in a sentence. */
  unplaced: string | null
  pinned: boolean
  done: {
    on: string
    minutes: number
    lived: number | null
    used: { name: string; amount: number; unit: string }[] | null
    note: string | null
    by: string
  } | null
}

export interface SeasonView {
  jobs: JobView[]
  /** Work of rules left out for once, whose window has not closed. */
  leftOut: { id: string; title: string; latest: string }[]
  /** Person-minutes of the garden's crew; `elsewhere` are in its other gardens or on the way. */
  workingDays: { day: string; minutes: number; elsewhere: number; people: string[] }[]
  /** What the latest plan that moved anything moved here; null where none did. */
  rescheduled: Rescheduled | null
  /** The work shown is not yet that of the garden as it stands: never worked out, or being brought up to date. */
  isBehind: boolean
}

const materialUsed = z.object({
  name: z.string().min(1).max(200),
  amount: z.number().min(0).max(100_000),
  unit: z.string().max(20),
})
export const jobDoneRequest = z.object({
  on: isoDay,
  minutes: z.number().int().min(1).max(10_000),
  /** Plants that lived through it; asked for where plants are handled. */
  lived: z.number().int().min(0).max(10_000).optional(),
  /** Pieces left over at a division, put on the bench. */
  leftOver: z
    .array(z.object({ plantingId: id, count: z.number().int().min(1).max(10_000) }))
    .max(200)
    .optional(),
  /** Materials as they were really used. */
  used: z.array(materialUsed).max(20).optional(),
  note: longText.optional(),
})
export type JobDone = z.infer<typeof jobDoneRequest>
export const jobPinRequest = z.object({ day: isoDay.nullable() })
export type RunState = 'queued' | 'running' | 'ready' | 'taken' | 'dropped' | 'failed'
/** A season's plan being worked out, or waiting to be looked at. */
export interface ScheduleRunView {
  id: string
  state: RunState
  /** 0 to 1. */
  progress: number
  failure: string | null
  /** What it does in this garden. */
  result: Pick<Schedule, 'placed' | 'unplaced' | 'moved'> | null
  /** Jobs of the crew's other gardens that it moves. */
  movedElsewhere: number
}
export const scheduleRunRequest = z.object({ take: z.boolean() })

/** A link by which a calendar program reads the jobs: made anew, or withdrawn. */
export const calendarLinkRequest = z.object({ on: z.boolean() })

/** How the coming days suit each kind of work. */
export interface OutlookView {
  available: boolean
  /** Made up, not forecast from what was measured. */
  isSimulated: boolean
  /** Why there is no forecast. */
  why: string | null
  days: (ForecastDay & { soilC: number; suits: Record<Exclude<WeatherNeed, 'none'>, Suitability> })[]
}

/** A rule of care as a garden has it. */
export interface RuleView {
  id: string
  operation: Operation
  does: string
  sentence: string
  why: string
  missed: string
  isOn: boolean
  isOwn: boolean
  yearly: boolean
  adjusted: RuleAdjustment | null
  school: { question: string; follows: string; followed: boolean; other: string } | null
  /** Of schools that change how it is done: what this garden does and what the other would. */
  otherSchools: string[]
  /** Plantings it now touches, or places where it is for places. */
  touches: { id: string; label: string }[]
  /** Its coming window here, for the first of them; null where it has none, and why. */
  next: {
    earliest: string
    bestFrom: string
    bestTo: string
    latest: string
    for: string | null
    unsure: string | null
  } | null
  none: string | null
  /** An own rule, to be changed. */
  own: OwnRuleRequest | null
}
const ownAnchor = z.object({
  at: z.enum(ownAnchors),
  /** Degrees Celsius, of anchors that wait for a temperature. */
  c: z.number().min(-30).max(40).optional(),
  days: z.number().int().min(-200).max(200).default(0),
})
export type OwnAnchor = z.infer<typeof ownAnchor>
const amountPer = z.number().min(0).max(1000)
/** A rule of a garden's own. */
export const ownRuleRequest = z
  .object({
    /** Absent: a new rule. */
    id: z
      .string()
      .regex(/^own-[0-9a-f-]{36}$/)
      .optional(),
    operation: z.enum(operations),
    does: z.string().trim().min(3).max(200),
    on: z.discriminatedUnion('what', [
      z.object({ what: z.literal('places'), place: z.enum(['bed', 'container']) }),
      z.object({
        what: z.literal('plants'),
        place: z.enum(['bed', 'container']).optional(),
        taxa: z.array(z.string().trim().min(1).max(160)).max(100),
        lifeForms: z.array(z.enum(lifeForms)).max(lifeForms.length),
      }),
    ]),
    opens: ownAnchor,
    bestFrom: ownAnchor,
    bestTo: ownAnchor,
    closes: ownAnchor,
    everyDays: z.number().int().min(3).max(120).optional(),
    everySeasons: z.number().int().min(1).max(20).optional(),
    labour: z.object({ setUp: amountPer, perPlant: amountPer, perM2: amountPer }),
    materials: z
      .array(
        z.object({
          name: shortText,
          unit: z.enum(['l', 'kg', 'pieces', 'm']),
          perPlant: amountPer.optional(),
          perM2: amountPer.optional(),
        }),
      )
      .max(10),
    tools: z.array(shortText).max(20),
    cautions: z.array(z.string().trim().min(1).max(300)).max(10),
    forbids: z.array(z.enum(forbiddenStates)).max(forbiddenStates.length),
    skill: z.enum(skills).nullable(),
    why: z.string().trim().min(3).max(300),
    missed: z.string().trim().min(3).max(300),
  })
  .refine(
    (r) => r.on.what === 'places' || r.on.taxa.length + r.on.lifeForms.length > 0,
    'say which plants it is for: taxa, or forms of life',
  )
export type OwnRuleRequest = z.infer<typeof ownRuleRequest>
/** Work of a rule that a person asks for, on one planting or place. */
export const askedJobRequest = z.object({ subjectId: id })
export const leaveOutRequest = z.object({ leaveOut: z.boolean() })

export const ruleRequest = z.object({
  isOn: z.boolean().optional(),
  adjusted: z
    .object({
      shiftDays: z.number().int().min(-60).max(60).optional(),
      everyDays: z.number().int().min(3).max(120).optional(),
      everySeasons: z.number().int().min(1).max(20).optional(),
      labour: z.number().min(0.1).max(10).optional(),
    })
    .nullable()
    .optional(),
})

// Watering of what is not rooted in

export const wateringRequest = z.object({
  on: isoDay,
  given: z
    .array(z.object({ plantingId: id, litres: z.number().positive().max(10_000) }))
    .min(1)
    .max(500),
})
export interface WateringView {
  /** Why nothing can be told; null where it can. */
  unknown: string | null
  /** Told from weather that was made up. */
  isSimulated: boolean
  /** What is not rooted in, soonest due first; `dueOn` null: not within the days known ahead. */
  plants: ({ plantingId: string; tag: string; botanical: string; placeId: string } & WaterBalance)[]
}

// Crews: who works in a garden, and in which others

const dayMinutes = z.number().int().min(0).max(1440)
export const crewPersonRequest = z.object({
  /** Absent: someone new. */
  id: id.optional(),
  name: shortText,
  skills: z.array(z.enum(skills)).max(skills.length),
  /** 0 Sunday to 6 Saturday. */
  minutesByWeekday: z.array(dayMinutes).length(7),
})
export type CrewPersonRequest = z.infer<typeof crewPersonRequest>
export const absenceRequest = z
  .object({
    /** Null: the whole crew. */
    personId: id.nullable(),
    from: isoDay,
    to: isoDay,
    reason: z.string().trim().max(120).optional(),
  })
  .refine((a) => a.to >= a.from, 'the last day must not lie before the first')
/** Null: as in any week again. */
export const crewDayRequest = z.object({ day: isoDay, minutes: dayMinutes.nullable() })
export const crewRequest = z.object({ name: shortText, travelMinutes: z.number().int().min(0).max(600) })
/** The crew of another garden that this one is to share; null: one of its own. */
export const shareCrewRequest = z.object({ withGardenId: id.nullable() })

/** Jobs of a garden that a new plan put on another day, or on none. */
export interface Rescheduled {
  id: string
  /** When, UTC. */
  at: string
  moved: { jobId: string; title: string; from: string; to: string | null; says: string }[]
}

export interface CrewView {
  id: string
  name: string
  /** Gardens it looks after that the person asking belongs to, this one among them. */
  gardens: { id: string; name: string; travelMinutes: number }[]
  /** How many more there are. */
  others: number
  people: { id: string; name: string; skills: Skill[]; minutesByWeekday: number[] }[]
  absences: { id: string; personId: string | null; from: string; to: string; reason: string | null }[]
  days: { day: string; minutes: number }[]
}

// History

/** One thing that happened to a planting. */
export interface StoryEntry {
  on: string
  kind:
    'planted' | 'observed' | 'decided' | 'job' | 'moved' | 'counted' | 'note' | 'lost' | 'trial' | 'treated'
  says: string
  by: string | null
  /** When it was written down, UTC: puts what happened on one day in order. */
  recordedAt: string
  /** The look it tells of, where whoever asks may take it back. */
  lookId?: string
}

/** A planting as last known and all that happened to it, oldest first. */
export interface PlantingStory {
  planting: PlantingView
  photos: PhotoView[]
  /** Tags of plantings that came from it. */
  offspring: string[]
  story: StoryEntry[]
}

export const noteRequest = z.object({ on: isoDay, note: z.string().trim().min(1).max(2000) })

// The walk

const sign = z.string().refine(isSign, 'is not a sign that is known here')
const noted = {
  /** Made on the device: the same entry sent twice is kept once. */
  id,
  on: isoDay,
  /** UTC instant. */
  at: z.iso.datetime(),
  /** An earlier entry of the same device that this one puts right. */
  replacesId: id.optional(),
  note: z.string().trim().min(1).max(2000).optional(),
}
const sizeM = z.number().positive().max(60)
export const observationEntry = z
  .object({
    kind: z.literal('planting'),
    ...noted,
    plantingId: id,
    rating: z.number().int().min(1).max(5).optional(),
    living: z.number().int().min(1).max(10_000).optional(),
    absent: z.boolean().default(false),
    stage: z.enum(bloomStages).optional(),
    flush: z.number().int().min(1).max(9).optional(),
    heightM: sizeM.optional(),
    spreadM: sizeM.optional(),
    signs: z.array(sign).max(30).default([]),
  })
  .refine(
    (o) =>
      o.rating !== undefined ||
      o.living !== undefined ||
      o.absent ||
      o.stage !== undefined ||
      o.heightM !== undefined ||
      o.spreadM !== undefined ||
      o.signs.length > 0 ||
      o.note !== undefined,
    'says nothing: give a rating, a count, a stage, a size, a sign or a note',
  )
  .refine(
    (o) => !o.absent || (o.living === undefined && o.stage === undefined),
    'says that nothing shows, and counts it all the same',
  )
export type ObservationEntry = z.input<typeof observationEntry>

const shortNote = z.string().trim().min(1).max(500)
export const placeEntry = z.object({
  kind: z.literal('place'),
  ...noted,
  placeId: id,
  weeds: z.enum(['none', 'some', 'many']).optional(),
  mulch: z.enum(['good', 'thin', 'none']).optional(),
  soil: z.enum(['dry', 'moist', 'wet']).optional(),
  edgesLost: z.boolean().optional(),
  waterMisses: z.boolean().optional(),
  /** Widths of bare holes, metres. */
  holesM: z.array(z.number().positive().max(30)).max(20).default([]),
  goodTogether: shortNote.optional(),
  missing: shortNote.optional(),
})
export type PlaceEntry = z.input<typeof placeEntry>

export const walkEntry = z.discriminatedUnion('kind', [observationEntry, placeEntry])
export type WalkEntry = z.input<typeof walkEntry>
/** Each entry is judged by itself, so that one that cannot be kept does not hold up the rest. */
export const walkRequest = z.object({ entries: z.array(z.unknown()).min(1).max(200) })
export interface WalkAnswer {
  /** Ids now in the record, sent before or not. */
  kept: string[]
  refused: { id: string; why: string }[]
}

export interface ObservationView extends SeenInWords {
  id: string
  plantingId: string
  on: string
  signs: SignId[]
  by: string | null
}
export interface PlaceLookView {
  id: string
  placeId: string
  on: string
  weeds: 'none' | 'some' | 'many' | null
  mulch: 'good' | 'thin' | 'none' | null
  soil: 'dry' | 'moist' | 'wet' | null
  edgesLost: boolean | null
  waterMisses: boolean | null
  holesM: number[]
  goodTogether: string | null
  missing: string | null
  note: string | null
  by: string | null
}

/** A planting as a walk meets it. */
export interface WalkPlanting {
  id: string
  tag: string
  botanical: string
  common: string
  plantedCount: number
  livingCount: number
  /** What it usually does this week, in words. */
  usual: string
  phase: Phase
  resting: boolean
  settling: boolean
  usualStage: BloomStage
  last: ObservationView | null
  /** Signs it can have, likeliest first. */
  likely: SignId[]
  unseen: Unseen | null
}
export interface WalkPlace {
  id: string
  name: string
  kind: 'bed' | 'container'
  plantings: WalkPlanting[]
  last: PlaceLookView | null
  standpoints: StandpointView[]
}
/** All that a walk needs, to be taken along where there is no connection. */
export interface WalkView {
  on: string
  earliness: Earliness | null
  places: WalkPlace[]
}

// Photos

export const standpointRequest = z.object({
  name: shortText,
  placeId: id.optional(),
  framing: z.string().trim().max(300).default(''),
})
export interface StandpointView {
  id: string
  name: string
  placeId: string | null
  framing: string
  /** The latest photo from it. */
  lastPhotoId: string | null
  lastTakenOn: string | null
}
export const photoRequest = z
  .object({
    id,
    on: isoDay,
    at: z.iso.datetime(),
    /** A picture file, base 64. */
    data: z.string().min(1).max(12_000_000),
    standpointId: id.optional(),
    plantingId: id.optional(),
    placeId: id.optional(),
    /** Where it was taken is stripped unless this is said. */
    keepPosition: z.boolean().default(false),
  })
  .refine(
    (p) => p.standpointId ?? p.plantingId ?? p.placeId,
    'belongs to a standpoint, a planting or a place',
  )
export type PhotoRequest = z.input<typeof photoRequest>
export interface PhotoView {
  id: string
  takenOn: string
  standpointId: string | null
  plantingId: string | null
  placeId: string | null
  width: number
  height: number
  by: string | null
}

// The record

/** A planting in one place: a move begins another stay. */
export interface Stay {
  id: string
  plantingId: string
  tag: string
  botanical: string
  placeId: string
  from: string
  to: string | null
  plantedCount: number
  livingCount: number
}
/** A season of a stay: as seen, adjusted for stage and age, walks behind it, and what it must be read with. */
export type SeasonFigures = readonly [
  season: number,
  score: number,
  adjusted: number,
  walks: number,
  mark: 'settling' | 'resting' | '',
]
export interface RecordView {
  on: string
  seasons: number[]
  /** Each with its seasons, in order. */
  stays: (Stay & { scores: SeasonFigures[] })[]
  model: Omit<RecordModel, 'plantings'> | null
  declines: Decline[]
  survival: { taxon: string; plants: number; steps: SurvivalStep[] }[]
  taxa: TaxonRecord[]
  best: { placeId: string; ranks: Rank[] }[]
  unseen: { plantingId: string; unseen: Unseen }[]
  trials: { plantingId: string; since: string; proposal: TrialProposal; outcomes: TrialOutcomeView[] }[]
}

export const trialOutcomes = ['trial', 'expand', 'retry elsewhere', 'strike off', 'go on'] as const
export type TrialOutcome = (typeof trialOutcomes)[number]
export const trialRequest = z
  .object({
    on: isoDay,
    outcome: z.enum(trialOutcomes),
    driftCount: z.number().int().min(1).max(1000).optional(),
    reason: longText.optional(),
  })
  .refine(
    (t) => (t.outcome === 'expand') === (t.driftCount !== undefined),
    'a drift needs its number of plants',
  )
export interface TrialOutcomeView {
  on: string
  outcome: TrialOutcome
  driftCount: number | null
  reason: string | null
  by: string
}
export const strikeOffRequest = z.object({ on: isoDay, note: longText.optional() })

/** What is done to a planting for the sake of its bloom. */
export const treatmentRequest = z.object({ on: isoDay, what: z.enum(treatments) })

export interface BloomView {
  season: number
  /** Cuts and deadheading of any season against the like left alone. */
  effects: TreatmentEffect[]
  window: { from: string; to: string }
  blooms: BloomSeen[]
  places: {
    placeId: string
    weeks: BloomWeek[]
    gaps: (BloomGap & { fillers: Filler[] })[]
  }[]
}

// Diagnosis

export interface DiagnosisView {
  on: string
  /** First day of the looks it was read from. */
  since: string
  diagnoses: (Diagnosis & {
    signs: SignId[]
    rating: number | null
    seenOn: string
    lightCause: LightCause | null
  })[]
  suspected: SuspectedChange[]
  /** The last rating of a planting where it does not count: made at its rest, or too long ago. */
  passedOver: { plantingId: string; rating: number; on: string; why: 'at rest' | 'old' }[]
}
export const signShareRequest = z.object({
  sign,
  cause: z.enum(signCauses),
  /** Null goes back to the shipped share. */
  share: z.number().min(0).max(1).nullable(),
  why: shortNote.optional(),
})
export interface LikelihoodView {
  rows: (Likelihood & { shipped: number | null; changedBy: string | null })[]
}

// Observations as a file

export const observationsFileRequest = z.object({ csv: fileText })

/** What every refusal looks like. */
export interface ErrorAnswer {
  error: string
  problems?: { where: string; message: string }[]
}
