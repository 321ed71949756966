import type { Climate } from '../climate/index.ts'
import { seasonYearOf, type IsoDate } from '../dates/index.ts'
import type { Taxon } from '../plants/index.ts'
import { isFollowed, isFor, winterHere, type Subject } from './applies.ts'
import { bySchool } from './bySchool.ts'
import { gardenYear, type GardenYear } from './gardenYear.ts'
import type { CareRule, Operation, WinterHere } from './rule.ts'
import { ruleSentence } from './sentences.ts'
import { schoolOf, type Schools } from './schools.ts'
import { verbOf } from './verbs.ts'
import { windowsOf, type Window } from './windows.ts'

/** A rule as it bears on a kind at a place. */
export interface RuleHere {
  id: string
  operation: Operation
  /** What it is called in one word or two: `limb up`. */
  verb: string
  does: string
  sentence: string
  why: string
  missed: string
  forbids: CareRule['forbids']
  cautions: readonly string[]
  /** Comes round by itself; else when somebody asks for it. */
  yearly: boolean
  /** Steps that follow the garden's schools, and for each what the other would do. */
  steps: readonly string[]
  otherSchools: readonly string[]
  /** The school it belongs to, whether this garden follows it, and what the other would do. */
  school?: { question: string; follows: string; followed: boolean; other: string }
  windows: Window[]
  /** Where a window does not exist in the usual year of the place: why not. */
  none: string[]
}

/** Everything the rules say of a taxon in one climate and kind of place. */
export interface TaxonCare {
  winter: WinterHere
  rules: RuleHere[]
  /** What is never done to it, and why. */
  never: { operation: Operation; why: string }[]
}

/** Where and how a taxon is cared for. */
export interface CareContext {
  climate: Climate
  place: 'bed' | 'container'
  schools: Schools
  /** How late the present season runs; 0 where it is not known. */
  lateDays: number
  rules: readonly CareRule[]
}

/** The gardening years about a day: the one before, whose windows may still be open, its own and the next. */
export function yearsAbout(climate: Climate, on: IsoDate, lateDays: number): GardenYear[] {
  const season = seasonYearOf(on, climate.latitudeDeg < 0)
  return [season - 1, season, season + 1].map((s) => gardenYear(climate, s, s === season ? lateDays : 0))
}

/** Everything the rules say of a kind at a place: its coming windows with the reason for every date. */
export function taxonCare(taxon: Taxon, context: CareContext, on: IsoDate): TaxonCare {
  const years = yearsAbout(context.climate, on, context.lateDays)
  const subject: Subject = {
    taxon,
    place: context.place,
    climate: context.climate,
    // Rules that wait for a sign are explained too.
    signs: context.rules
      .flatMap((r) => r.applies.signs ?? [])
      .filter(() => taxon.flowersOn !== null || taxon.pruning !== null),
  }
  return {
    winter: winterHere(taxon, context.climate, context.place),
    rules: context.rules
      .filter((r) => isFor(r.applies, subject))
      .map((rule) => explained(rule, context, windowsOf(rule, years, taxon, on))),
    never: neverOf(taxon),
  }
}

/** A rule as it is here: its sentence, its school, its windows with their reasons or why there are none. */
export function explained(
  rule: CareRule,
  { schools }: Pick<CareContext, 'schools'>,
  found: { windows: Window[]; none: string[] },
): RuleHere {
  const school = rule.school && schoolOf(rule.school.id)
  const ways = bySchool({ ...rule, school: undefined }, schools)
  return {
    id: rule.id,
    operation: rule.operation,
    verb: verbOf(rule),
    does: rule.does,
    sentence: ruleSentence(rule),
    why: rule.why,
    missed: rule.missed,
    forbids: rule.forbids,
    cautions: rule.cautions ?? [],
    yearly: rule.yearly && !rule.off,
    steps: [...(rule.steps ?? []), ...ways.steps],
    otherSchools: ways.notes,
    ...(school && {
      school: {
        question: school.question,
        follows: school.choices.find((c) => c.id === rule.school!.choice)!.does,
        followed: isFollowed(rule, schools),
        other: school.choices
          .filter((c) => c.id !== rule.school!.choice)
          .map((c) => c.does)
          .join('; or '),
      },
    }),
    windows: found.windows,
    none: found.none,
  }
}

function neverOf(taxon: Taxon): TaxonCare['never'] {
  const never: TaxonCare['never'] = []
  if (taxon.moveWhen === 'never')
    never.push({
      operation: 'move',
      why: 'It resents moving: start a young plant or cutting in the new spot.',
    })
  if (!taxon.divideYears) never.push({ operation: 'divide', why: dividedWhy(taxon) })
  if (taxon.pruning === 'hardly')
    never.push({ operation: 'prune', why: 'It is best left alone: only dead and broken wood, at any time.' })
  if (taxon.pruning && !taxon.bearsHardCut)
    never.push({ operation: 'cut back', why: 'It does not break again from old wood: never cut it hard.' })
  if (taxon.cutBack === 'comb')
    never.push({ operation: 'cut back', why: 'Cut hard it may not recover: it is combed instead.' })
  return never
}

function dividedWhy(taxon: Taxon): string {
  if (taxon.pruning) return 'A woody plant with one root is not divided.'
  if (taxon.lifeForm === 'annual') return 'It lives one season.'
  return 'Its root is not divided: raise it from seed, cuttings or offsets.'
}
