import {
  forbiddenStates,
  lifeForms,
  operations,
  ownAnchors,
  schoolIds,
  schoolOf,
  skills,
  words,
} from '@border/core'
import { z } from 'zod'
import { whatIsKnown } from './aspects.ts'
import { gardenPath, botanicalName, head, id, isoDay, keeper, shortText } from './basics.ts'
import { reads, writes } from './endpoint.ts'

const ownAnchor = z.object({
  at: z.enum(ownAnchors),
  /** Degrees Celsius, of anchors that wait for a temperature. */
  c: z.number().min(-30).max(40).optional(),
  days: z.number().int().min(-200).max(200).default(0),
})
export type OwnAnchor = z.infer<typeof ownAnchor>
const amountPer = z.number().min(0).max(1000)
/** Said of work, as a sentence or the head of one. */
const sentence = (most: number) =>
  words(most).refine((text) => text.length >= 3, 'must be at least 3 characters')

/** Days of every month by their weekday: 0 Sunday to 6 Saturday, and which of the month. */
const monthDays = z.object({
  weekday: z.number().int().min(0).max(6),
  nths: z
    .array(z.number().int().min(1).max(5))
    .min(1)
    .max(5)
    .refine((n) => new Set(n).size === n.length, 'each of them once'),
})

/** A rule of a garden's own. */
const ownRuleRequest = z
  .object({
    /** Absent: a new rule. */
    id: z
      .string()
      .regex(/^own-[0-9a-f-]{36}$/)
      .optional(),
    operation: z.enum(operations),
    does: sentence(200),
    on: z.discriminatedUnion('what', [
      z.object({ what: z.literal('places'), place: z.enum(['bed', 'container']) }),
      z.object({
        what: z.literal('plants'),
        place: z.enum(['bed', 'container']).optional(),
        taxa: z.array(botanicalName).max(100),
        lifeForms: z.array(z.enum(lifeForms)).max(lifeForms.length),
      }),
    ]),
    opens: ownAnchor,
    bestFrom: ownAnchor,
    bestTo: ownAnchor,
    closes: ownAnchor,
    everyDays: z.number().int().min(3).max(120).optional(),
    monthDays: monthDays.optional(),
    byTurns: z.array(shortText).max(6).optional(),
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
    cautions: z.array(words(300)).max(10),
    forbids: z.array(z.enum(forbiddenStates)).max(forbiddenStates.length),
    skill: z.enum(skills).nullable(),
    why: sentence(300),
    missed: sentence(300),
  })
  .refine(
    (r) => r.on.what === 'places' || r.on.taxa.length + r.on.lifeForms.length > 0,
    'say which plants it is for: taxa, or forms of life',
  )
export type OwnRuleRequest = z.infer<typeof ownRuleRequest>
/** Work of a rule that a person asks for, on one planting or place. */

const adjusted = z.object({
  shiftDays: z.number().int().min(-60).max(60).optional(),
  everyDays: z.number().int().min(3).max(120).optional(),
  monthDays: monthDays.optional(),
  everySeasons: z.number().int().min(1).max(20).optional(),
  labour: z.number().min(0.1).max(10).optional(),
})

/** A rule of care as a garden has it. */
const rule = z.strictObject({
  id: z.string(),
  operation: z.enum(operations),
  does: z.string(),
  sentence: z.string(),
  why: z.string(),
  missed: z.string(),
  isOn: z.boolean(),
  isOwn: z.boolean(),
  yearly: z.boolean(),
  adjusted: adjusted.nullable(),
  /** Days after which it comes round while its window is open, as shipped; null where it is done once. */
  everyDays: z.number().nullable(),
  school: z
    .strictObject({ question: z.string(), follows: z.string(), followed: z.boolean(), other: z.string() })
    .nullable(),
  /** Of schools that change how it is done: what this garden does and what the other would. */
  otherSchools: z.array(z.string()),
  /** Plantings it now touches, or places where it is for places. */
  touches: z.array(z.strictObject({ id, label: z.string() })),
  /** Its coming window here, for the first of them; null where it has none, and why. */
  next: z
    .strictObject({
      earliest: isoDay,
      bestFrom: isoDay,
      bestTo: isoDay,
      latest: isoDay,
      for: z.string().nullable(),
      unsure: z.string().nullable(),
    })
    .nullable(),
  none: z.string().nullable(),
  /** An own rule, to be changed. */
  own: ownRuleRequest.nullable(),
})
export type RuleView = z.infer<typeof rule>

const rulesPath = `${gardenPath}/rules` as const
const one = `${rulesPath}/:rule` as const

/** The rules of care as a garden has them, its own among them, and the schools it follows. */
export const ruleEndpoints = {
  list: reads(rulesPath, keeper, {
    answer: z.array(rule),
    restsOn: [...whatIsKnown, 'rules', 'jobs'],
  }),
  saveOwn: writes(rulesPath, head, {
    body: ownRuleRequest,
    sees: ownRuleRequest,
    answer: z.strictObject({ id: z.string() }),
  }),
  change: writes(one, head, {
    body: z.object({ isOn: z.boolean().optional(), adjusted: adjusted.nullable().optional() }),
    sees: rule.pick({ isOn: true, adjusted: true }),
  }),
  removeOwn: writes(`${one}/remove`, head, { sees: ownRuleRequest }),
  /** Work of a rule that a person asks for, on one planting or place. */
  askJob: writes(`${one}/jobs`, head, {
    body: z.object({ subjectId: id }),
    answer: z.strictObject({ title: z.string() }),
  }),
  followSchool: writes(`${gardenPath}/schools`, head, {
    body: z
      .object({ school: z.enum(schoolIds), choice: z.string() })
      .refine(
        ({ school, choice }) => schoolOf(school).choices.some((c) => c.id === choice),
        'is no choice of this school',
      ),
    sees: z.strictObject({ choice: z.string() }),
  }),
}
