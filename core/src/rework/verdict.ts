import { dayMonthYear, monthYear, quarterHours } from '../words/index.ts'
import { daysBetween, type IsoDate } from '../dates/index.ts'
import { lightClass, type LightCause, type SunHours } from '../light/index.ts'
import type { Taxon } from '../plants/index.ts'
import { FIT_TOLERANCE_HOURS, fitOf, lightFit } from './fit.ts'
import type { SpotOption } from './spots.ts'

export const actions = ['keep', 'watch', 'move'] as const
export type Action = (typeof actions)[number]

/** One reason: what it says and how many points it gives an action. */
export interface Term {
  action: Action
  points: number
  says: string
}

/** What is proposed for a planting and why: every score is the sum of its terms. */
export interface Verdict {
  action: Action
  scores: Record<Action, number>
  terms: Term[]
  runnerUp: Action
  /** What would change the answer, in a sentence. */
  wouldChange: string
  spots: SpotOption[]
}

export interface VerdictInput {
  taxon: Taxon
  plantedOn: IsoDate
  on: IsoDate
  hoursNow: SunHours
  hoursBefore: SunHours
  moisture?: number | null
  causes: readonly LightCause[]
  spots: readonly SpotOption[]
}

/**
 * Points. Chosen by this product so that half an hour outside the range is noise, an hour or so is watched for a season
 * and two hours or a scorching afternoon outweigh the work and the lost season of a move. They are shown with every
 * verdict.
 */
const points = {
  keepBase: 40,
  keepInRange: 20,
  keepPerMisfitHour: -22,
  watchBase: 25,
  watchPerMisfitHour: 12,
  watchPerHourBeyond: -22,
  watchYoung: 12,
  moveBase: -10,
  movePerMisfitHour: 22,
  moveGain: 30,
  moveNowhere: -200,
  moveEase: { easy: 5, fair: -5, poor: -25 },
  moveNever: -200,
  moveYoung: -10,
} as const

/** Beyond this misfit, in hours, watching another season only loses it. */
const WATCH_UNTIL_HOURS = 1.5
/** Perennials are judged from their third season on. */
const YOUNG_DAYS = 2 * 365

export function verdictFor(input: VerdictInput): Verdict {
  const terms = [...keepTerms(input), ...watchTerms(input), ...moveTerms(input)]
  const scores = { keep: 0, watch: 0, move: 0 }
  for (const t of terms) scores[t.action] += t.points
  for (const a of actions) scores[a] = Math.round(scores[a])
  const ranked = [...actions].sort((a, b) => scores[b] - scores[a])
  const [action, runnerUp] = [ranked[0]!, ranked[1]!]
  return {
    action,
    scores,
    terms: terms.filter((t) => Math.round(t.points) !== 0),
    runnerUp,
    wouldChange: wouldChange(input, action),
    spots: [...input.spots],
  }
}

const misfitOf = (input: VerdictInput) => lightFit(input.taxon, input.hoursNow).misfitHours

/** `2½ h to 5 h`, or `6 h or more` where no sun is too much. */
export const lightRange = (taxon: Taxon): string =>
  taxon.lightMaxHours >= 24
    ? `${quarterHours(taxon.lightMinHours)} or more`
    : `${quarterHours(taxon.lightMinHours)} to ${quarterHours(taxon.lightMaxHours)}`

/** How the light stands, in one clause: used by several terms. */
function lightClause({ taxon, hoursNow }: VerdictInput): string {
  const fit = lightFit(taxon, hoursNow)
  const range = lightRange(taxon)
  const has = `It has ${quarterHours(hoursNow.total)} (${lightClass(hoursNow.total)})`
  if (fit.hoursOutside === 0 && !fit.scorched) return `${has}, within the ${range} it likes.`
  const outside =
    fit.hoursOutside === 0
      ? `within the ${range} it likes`
      : `${quarterHours(Math.abs(fit.hoursOutside))} ${fit.hoursOutside > 0 ? 'over' : 'under'} the ${range} it likes`
  return fit.scorched
    ? `${has}, ${outside}, ${quarterHours(hoursNow.heat)} of it in the heat from two to five, which it suffers from.`
    : `${has}, ${outside}.`
}

function keepTerms(input: VerdictInput): Term[] {
  const misfit = misfitOf(input)
  const terms: Term[] = [
    { action: 'keep', points: points.keepBase, says: 'Leaving a settled plant alone costs nothing.' },
  ]
  if (misfit <= FIT_TOLERANCE_HOURS)
    terms.push({ action: 'keep', points: points.keepInRange, says: lightClause(input) })
  else terms.push({ action: 'keep', points: points.keepPerMisfitHour * misfit, says: lightClause(input) })
  return terms
}

function watchTerms(input: VerdictInput): Term[] {
  const misfit = misfitOf(input)
  const terms: Term[] = [{ action: 'watch', points: points.watchBase, says: 'A season’s watching is cheap.' }]
  if (misfit <= FIT_TOLERANCE_HOURS)
    return [{ action: 'watch', points: points.watchBase, says: 'Nothing in its light asks for watching.' }]
  terms.push({
    action: 'watch',
    points: points.watchPerMisfitHour * Math.min(misfit, WATCH_UNTIL_HOURS),
    says: 'The light has left its range by enough to look for scorch, leaning or fewer flowers.',
  })
  if (misfit > WATCH_UNTIL_HOURS)
    terms.push({
      action: 'watch',
      points: points.watchPerHourBeyond * (misfit - WATCH_UNTIL_HOURS),
      says: `The misfit is beyond ${quarterHours(WATCH_UNTIL_HOURS)}: waiting loses another season.`,
    })
  if (isYoung(input))
    terms.push({
      action: 'watch',
      points: points.watchYoung,
      says: `Planted ${dayMonthYear(input.plantedOn)}: not yet three seasons in place, too soon to judge.`,
    })
  return terms
}

function moveTerms(input: VerdictInput): Term[] {
  const { taxon, spots } = input
  const misfit = misfitOf(input)
  const terms: Term[] = [
    { action: 'move', points: points.moveBase, says: 'A move costs labour and most of a season’s growth.' },
    { action: 'move', points: points.movePerMisfitHour * misfit, says: lightClause(input) },
  ]
  if (misfit > FIT_TOLERANCE_HOURS) terms.push(...causeTerms(input))
  if (taxon.moveWhen === 'never')
    terms.push({
      action: 'move',
      points: points.moveNever,
      says: 'It resents moving; a young plant started elsewhere does better.',
    })
  else {
    const ease = {
      easy: 'It moves easily.',
      fair: 'It takes a move fairly well.',
      poor: 'It is slow to settle after a move.',
    }
    terms.push({ action: 'move', points: points.moveEase[taxon.moveEase], says: ease[taxon.moveEase] })
  }
  const best = spots[0]
  if (best) {
    const gain = best.fit.score - fitOf(taxon, { hours: input.hoursNow, moisture: input.moisture }).score
    terms.push({
      action: 'move',
      points: points.moveGain * gain,
      says: `${best.placeName} has room for it: ${best.fit.reason}.`,
    })
  } else
    terms.push({
      action: 'move',
      points: points.moveNowhere,
      says: 'No free spot in this garden would suit it better.',
    })
  if (isYoung(input))
    terms.push({
      action: 'move',
      points: points.moveYoung,
      says: 'It has not settled from its last planting.',
    })
  return terms
}

/** The recorded change behind the misfit: it carries the reason, the points are in the misfit itself. */
function causeTerms(input: VerdictInput): Term[] {
  const towards = Math.sign(input.hoursNow.total - input.hoursBefore.total)
  const cause = input.causes.find((c) => Math.sign(c.hours) === towards)
  if (!cause) return []
  return [{ action: 'move', points: 1, says: causeSentence(cause) }]
}

/** `Storehouse went in February 2025` */
export function causeClause(cause: LightCause): string {
  const when = cause.date ? ` in ${monthYear(cause.date)}` : ''
  const what: Record<LightCause['what'], string> = {
    appeared: `${cause.name} went up${when}`,
    gone: `${cause.name} went${when}`,
    limbed: `${cause.name} was limbed up${when}`,
    thinned: `${cause.name} was thinned${when}`,
    lowered: `${cause.name} was lowered${when}`,
    measured: `${cause.name} was measured anew${when}`,
    grown: `${cause.name} has grown`,
  }
  return what[cause.what]
}

/** `Storehouse went in February 2025: 2¾ h more sun a day.` */
export function causeSentence(cause: LightCause): string {
  return `${causeClause(cause)}: ${quarterHours(Math.abs(cause.hours))} ${cause.hours > 0 ? 'more' : 'less'} sun a day.`
}

const isYoung = (input: VerdictInput) => daysBetween(input.plantedOn, input.on) < YOUNG_DAYS

function wouldChange(input: VerdictInput, action: Action): string {
  const { taxon } = input
  const fit = lightFit(taxon, input.hoursNow)
  const limit = fit.hoursOutside > 0 ? taxon.lightMaxHours : taxon.lightMinHours
  if (action === 'move')
    return fit.hoursOutside === 0
      ? 'Shade from two to five would make it fit where it is.'
      : `Back ${fit.hoursOutside > 0 ? 'under' : 'over'} ${quarterHours(limit)} it could stay: ${
          fit.hoursOutside > 0 ? 'new shade' : 'thinning or limbing what shades it'
        } would do that.`
  if (fit.misfitHours <= FIT_TOLERANCE_HOURS) return 'A change of an hour or more in its light.'
  if (taxon.moveWhen === 'never') return 'A young plant or cutting to start in a better spot.'
  if (input.spots.length === 0) return 'A free spot with the light it likes would make it a move.'
  return 'Another half hour out of its range, or signs of distress, would make it a move.'
}
