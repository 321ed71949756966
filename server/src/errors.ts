import { problemText, type FileProblem } from '@border/core'
import type { ErrorAnswer } from '@border/contract'
import { ZodError } from 'zod'

/** A refusal a person can act on: what happened, with the status the wire uses for it. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problems: ErrorAnswer['problems'] = undefined,
  ) {
    super(message)
  }
}

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
  features_place_name: 'Another place in this garden has this name.',
  plantings_garden_id_tag_key: 'Another planting in this garden has this tag.',
  gardens_practice_id_name_key: 'Your practice already has a garden of this name.',
  scenarios_name: 'Another what-if of this garden has this name.',
  standpoints_name: 'Another standpoint of this garden has this name.',
  light_logs_once: 'This very file has been read already.',
  people_email: 'Someone already has an account with this address.',
}

/** A constraint of the database put into words; undefined for anything else. */
export function constraintRefusal(error: unknown): Refusal | undefined {
  const { code, constraint } = error as { code?: string; constraint?: string }
  if (code !== '23505' && code !== '23514' && code !== '23503') return undefined
  return new Refusal(
    409,
    (constraint && constraintWords[constraint]) ||
      'This conflicts with what is already recorded. Nothing was saved.',
  )
}
