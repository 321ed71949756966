import type { z } from 'zod'

const types: Readonly<Record<string, string>> = {
  string: 'must be words',
  number: 'must be a number',
  int: 'must be a whole number',
  boolean: 'must be true or false',
  array: 'must be a list',
  tuple: 'must be a list',
  object: 'must be an object',
  record: 'must be an object',
  date: 'must be a date',
  null: 'must be null',
}

const formats: Readonly<Record<string, string>> = {
  uuid: 'must be a UUID',
  email: 'must be an e-mail address',
  datetime: 'must be an instant like 2026-09-14T09:30:00Z',
  regex: 'is not written as it must be',
}

/** The type of an issue that may carry what each kind of it does. */
type Issue = Parameters<z.core.$ZodErrorMap>[0]

/** `at most 12 characters`, `at least 3 of them` */
function sized(of: string, which: 'least' | 'most', size: number | bigint): string {
  const unit = of === 'string' ? ' characters' : of === 'array' || of === 'set' ? ' of them' : ''
  return `at ${which} ${size}${unit}`
}

/** Something read by a schema; what is wrong with it is said in words, the schema's own or else these. */
export const readAs = <S extends z.ZodType>(schema: S, value: unknown): z.ZodSafeParseResult<z.output<S>> =>
  schema.safeParse(value, { error: faultWords })

/** @returns undefined where Zod’s own message is as good as any */
function faultWords(issue: Issue): string | undefined {
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined ? 'is missing' : (types[issue.expected] ?? 'is of another kind')
    case 'invalid_value':
      return issue.input === undefined
        ? 'is missing'
        : `must be ${issue.values.length > 1 ? 'one of: ' : ''}${issue.values.map(String).join(', ')}`
    case 'too_big':
      return issue.origin !== 'string' && !issue.inclusive
        ? `must be below ${issue.maximum}`
        : `must be ${sized(issue.origin, 'most', issue.maximum)}`
    case 'too_small':
      return issue.origin !== 'string' && !issue.inclusive
        ? `must be above ${issue.minimum}`
        : `must be ${sized(issue.origin, 'least', issue.minimum)}`
    case 'not_multiple_of':
      return `must be a multiple of ${issue.divisor}`
    case 'invalid_format':
      return formats[issue.format] ?? 'is not written as it must be'
    case 'unrecognized_keys':
      return `holds what is not known here: ${issue.keys.join(', ')}`
    case 'invalid_union':
      return 'is none of what it may be'
    case 'invalid_key':
    case 'invalid_element':
      return 'holds something that does not belong there'
    default:
      return undefined
  }
}
