import { z } from 'zod'
import { monthDay } from '../garden/index.ts'
import { words } from '../written/index.ts'
import {
  cautionKinds,
  contradictions,
  cutBacks,
  divideHows,
  habits,
  lifeForms,
  moveSeasons,
  prunings,
  troubles,
  wildlife,
  type Moisture,
  type Taxon,
} from '../plants/index.ts'

const metres = (most: number) => z.number('must be a number').positive('must be above 0').max(most)
const among = <const T extends readonly [string, ...string[]]>(values: T) =>
  z.enum(values, `must be one of: ${values.join(', ')}`)
const colourWords = 'must be a colour like #64844c'
const colour = z.string(colourWords).regex(/^#[0-9a-fA-F]{6}$/, colourWords)
const moisture = z
  .number('must be a number from 1, dry, to 5, wet')
  .int()
  .min(1)
  .max(5)
  .transform((m) => m as Moisture)
const twoDays = z.tuple([monthDay, monthDay])

/** Every trait of a taxon, each by itself. */
export const taxonShape = {
  botanical: words(160).refine((name) => name.length >= 2, 'is too short'),
  common: words(160),
  lifeForm: among(lifeForms),
  habit: among(habits),
  heightM: metres(60),
  spreadM: metres(60),
  spacingM: metres(60),
  lightMinHours: z.number('must be a number').min(0).max(24),
  lightMaxHours: z.number('must be a number').min(0).max(24),
  hotAfternoon: among(['suffers', 'bears', 'enjoys']),
  moistureMin: moisture,
  moistureMax: moisture,
  hardyToC: z.number('must be a number').min(-60).max(20),
  bloomFrom: monthDay.nullish(),
  bloomTo: monthDay.nullish(),
  firstFlushTo: monthDay.nullish(),
  bloomsBy: among(['warmth', 'day length', 'frost-free']),
  repeats: among(['no', 'when cut back', 'when deadheaded', 'by itself']),
  moveWhen: among(moveSeasons),
  moveEase: among(['easy', 'fair', 'poor']),
  divideYears: z.tuple([z.number().int().min(1).max(30), z.number().int().min(1).max(30)]).nullable(),
  divideHow: among(divideHows).nullable(),
  flowersOn: among(['old wood', 'new wood', 'both']).nullable(),
  pruning: among(prunings).nullable(),
  bearsHardCut: z.boolean('must be yes or no'),
  cutBack: among(cutBacks),
  cutToM: z.number('must be a number').min(0).max(10),
  standsWinter: z.boolean('must be yes or no'),
  halves: z.boolean('must be yes or no'),
  selfSeeds: among(['no', 'some', 'freely']),
  vigour: among(['slow', 'steady', 'strong', 'thug']),
  wind: among(['bears', 'staked', 'sheltered']),
  feed: among(['none', 'light', 'heavy']),
  mulchAtCrown: z.boolean('must be yes or no'),
  phMin: z.number('must be a number').min(3).max(10),
  phMax: z.number('must be a number').min(3).max(10),
  yearsToSize: z.number('must be a number').positive().max(100),
  annualSeason: among(['cool', 'warm']).nullable(),
  shows: twoDays.optional(),
  fades: twoDays.optional(),
  rests: twoDays.optional(),
  winter: among(['underground', 'bare', 'winter green']).optional(),
  troubles: z.array(among(troubles)),
  texture: among(['fine', 'medium', 'bold']),
  scented: z.boolean('must be yes or no'),
  wildlife: z.array(among(wildlife)),
  foliageColour: colour,
  flowerColour: colour.nullish(),
  cautions: z.array(among(cautionKinds)),
  synonyms: z.array(words(160)).max(30),
  sureness: among(['well known', 'usual', 'rough']),
} satisfies Record<keyof Taxon, z.ZodType>

/** A kind of plant, whole and without contradictions. */
export const taxonSchema = z.object(taxonShape).superRefine((t, context) => {
  for (const c of contradictions(t)) context.addIssue({ code: 'custom', path: [c.trait], message: c.message })
})
