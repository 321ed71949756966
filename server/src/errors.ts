import { problemText, type FileProblem } from '@border/core'
import type { ErrorAnswer, Meanwhile } from '@border/contract'
import { ZodError } from 'zod'

/** A refusal a person can act on: what happened, with the status the wire uses for it. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problems: ErrorAnswer['problems'] = undefined,
    /** Seconds after which it is worth asking again, where it may be otherwise then. */
    readonly againS: number | undefined = undefined,
    /** What has become of the thing meanwhile, where that is why. */
    readonly meanwhile: Meanwhile | undefined = undefined,
  ) {
    super(message)
  }
}

/** Seconds after which it is worth asking again, of what passes by itself. */
export const AGAIN_S = 2

/** Of what is scarce somebody asks too much at once. */
export const tooMuch = (message: string) => new Refusal(429, message, undefined, AGAIN_S)

export const notFound = (what: string) => new Refusal(404, `${what} was not found in your gardens.`)

export function fileRefusal(problems: readonly FileProblem[]): Refusal {
  return new Refusal(
    422,
    `Nothing was saved. ${problems.length === 1 ? 'One thing is' : `${problems.length} things are`} wrong with the files.`,
    problems.map((p) => ({ where: p.file, message: problemText(p) })),
  )
}

export function zodRefusal(error: ZodError): Refusal {
  return new Refusal(
    422,
    'Nothing was saved: some of what was sent is not right.',
    error.issues.map((i) => ({
      where: i.path.join('.'),
      message: `${i.path.join('.') || 'request'}: ${i.message}`,
    })),
  )
}

const constraintWords: Record<string, string> = {
  features_on_the_plan: 'This lies too far from the garden.',
  features_corners: 'This has more corners than are taken.',
  beds_across: 'This bed is larger than any that is taken.',
  features_in_time: 'This is of a year that no garden knows.',
  plantings_in_time: 'This was planted in a year that no garden knows.',
  tags_are_seen: 'The tag holds a character that cannot be seen.',
  sites_on_the_plan: 'This lies too far from the garden.',
  absences_end: 'An absence ends within three years; someone who is away for good leaves the crew.',
  nothing_before_planting: 'This lies before the day it was planted.',
  features_place_name: 'Another place in this garden has this name.',
  plantings_tag: 'Another planting in this garden has this tag.',
  gardens_name: 'Your practice already has a garden of this name.',
  what_ifs_name: 'Another what-if of this garden has this name.',
  standpoints_name: 'Another standpoint of this garden has this name.',
  light_logs_once: 'This very file has been read already.',
  living_within_planted:
    'More are said to live than were planted. Correct how many were planted, or the count.',
  planting_sites_one_at_a_time: 'A planting cannot stand in two places at once.',
  jobs_done_are_recorded: 'A job is done exactly where it is recorded as done.',
  job_order_goes_on: 'These jobs would wait for each other in a circle.',
  jobs_closed_have_no_day: 'Only an open job has a day.',
  people_email: 'Someone of your practice already has an account with this address.',
}

/** Lost or refused connections, of the network and of PostgreSQL: going down, starting, shut to new ones, full. */
const awayCodes = [
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  '57P01',
  '57P02',
  '57P03',
  '53300',
  '55000',
]
const awayWords =
  /Connection (terminated|ended) unexpectedly|is not queryable$|Timeout acquiring a connection|timeout exceeded when trying to connect/

/** The database cannot be reached just now; undefined for anything else. */
export function awayRefusal(error: unknown): Refusal | undefined {
  const { code, message } = (error ?? {}) as { code?: unknown; message?: string }
  // What a browser's kind of error calls its code is a number.
  const isAway = awayCodes.includes(String(code)) || /^08/.test(String(code)) || awayWords.test(message ?? '')
  return isAway
    ? new Refusal(
        503,
        'The records cannot be reached just now. Try again in a moment; nothing is done twice.',
        undefined,
        AGAIN_S,
      )
    : undefined
}

/** A value that no column holds, whatever the rules let through: text that cannot be written, a number too large, a day that is none. */
export function unkeptRefusal(error: unknown): Refusal | undefined {
  const { code, severity } = error as { code?: unknown; severity?: unknown }
  // Only the database says how severe an error is.
  return severity !== undefined && /^22/.test(String(code))
    ? new Refusal(422, 'Something in what was sent cannot be kept as it is. Nothing was saved.')
    : undefined
}

/** Unique, check, exclusion. */
const brokenConstraint = ['23505', '23514', '23P01']
const NAMES_NOTHING = '23503'

const kindOfRule = (constraint: string): string | undefined =>
  constraint.endsWith('_in_time')
    ? 'This is of a day that no garden knows.'
    : constraint.endsWith('_say_something')
      ? 'What is said holds nothing that can be seen.'
      : undefined

/** A constraint of the database put into words; undefined for anything else. */
export function constraintRefusal(error: unknown): Refusal | undefined {
  const { code, constraint } = error as { code?: string; constraint?: string }
  if (code === NAMES_NOTHING) return notFound('Something that this names')
  if (!code || !brokenConstraint.includes(code)) return undefined
  return new Refusal(
    409,
    (constraint && (constraintWords[constraint] ?? kindOfRule(constraint))) ||
      'This conflicts with what is already recorded. Nothing was saved.',
  )
}
