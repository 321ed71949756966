import { z } from 'zod'
import { isIsoDate } from '../dates/index.ts'
import { limits } from './limits.ts'

export { limits } from './limits.ts'

/** Control characters but for the breaks of a text, and halves of characters: no keyboard makes them, no database keeps them. */
const UNREADABLE = new RegExp(
  String.raw`[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\ud800-\udfff\ufffe\uffff]`,
  'u',
)
const VISIBLE = /[^\p{Z}\p{C}\p{Default_Ignorable_Code_Point}\u2800]/u
/** What nobody sees in a line: all but letters, marks, digits, signs and the plain space. */
const HIDDEN = /(?! )[\p{Z}\p{C}\p{Default_Ignorable_Code_Point}\u2800]/u

const unreadableWords = 'holds a character that cannot be written'
export const isReadable = (text: string): boolean => !UNREADABLE.test(text)

/** Text of at most so many characters, ends trimmed; none at all is text. */
export const remark = (most: number) =>
  z
    .string()
    .trim()
    .max(most, `must be at most ${most} characters`)
    .refine(isReadable, unreadableWords)
    .refine((text) => text === '' || VISIBLE.test(text), 'holds nothing that can be seen')

/** Text with something to be seen in it, of at most so many characters, ends trimmed. */
export const words = (most: number) =>
  z
    .string('is missing')
    .trim()
    .min(1, 'is missing')
    .max(most, `must be at most ${most} characters`)
    .refine(isReadable, unreadableWords)
    .refine((text) => VISIBLE.test(text), 'holds nothing that can be seen')

/** What is written on a label: two that look the same are the same. */
export const tag = words(40).refine((text) => !HIDDEN.test(text), 'holds a character that cannot be seen')

/** Tags with the same key are one, however they are written. */
export const tagKey = (written: string): string => written.normalize('NFKC').toLowerCase()

/** The text of a file, as it is sent. */
export const fileText = (most: number) =>
  z.string().min(1, 'is empty').max(most).refine(isReadable, unreadableWords)

const yearIn = (day: string) => Number(day.slice(0, 4))

/** A day of a calendar that a garden can need. */
export const day = z
  .string()
  .trim()
  .refine(isIsoDate, { error: 'must be a date like 2026-09-14', abort: true })
  .refine(
    (text) => yearIn(text) >= limits.earliestYear && yearIn(text) <= limits.latestYear,
    `must lie between the years ${limits.earliestYear} and ${limits.latestYear}`,
  )

/** The day of something that a person saw, did or will do. */
export const recordedDay = day.refine(
  (text) => yearIn(text) >= limits.earliestRecordYear,
  `must not lie before ${limits.earliestRecordYear}`,
)

/** A place on the plan, metres either way from the garden's position. */
export const planMetre = z
  .number()
  .min(-limits.reachM, `lies more than ${limits.reachM / 1000} km from the garden`)
  .max(limits.reachM, `lies more than ${limits.reachM / 1000} km from the garden`)

/**
 * The first thing in a JSON value that no record can hold: text that cannot be written, or nesting deeper than is taken.
 *
 * @returns where it lies and what it is; undefined for a value without one
 */
export function unkeepable(value: unknown): { path: (string | number)[]; message: string } | undefined {
  const waiting: { value: unknown; path: (string | number)[] }[] = [{ value, path: [] }]
  for (let at = waiting.pop(); at; at = waiting.pop()) {
    if (typeof at.value === 'string' && !isReadable(at.value))
      return { path: at.path, message: unreadableWords }
    if (typeof at.value !== 'object' || at.value === null) continue
    if (at.path.length >= limits.nesting)
      return { path: at.path.slice(0, 3), message: `is nested deeper than ${limits.nesting} levels` }
    for (const [key, inner] of Object.entries(at.value)) {
      const path = [...at.path, Array.isArray(at.value) ? Number(key) : key]
      if (!isReadable(key)) return { path: at.path, message: `has a name in it that ${unreadableWords}` }
      waiting.push({ value: inner, path })
    }
  }
  return undefined
}
