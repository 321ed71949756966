import Papa from 'papaparse'
import { z } from 'zod'
import { isIsoDate } from '../dates/index.ts'
import type { FileProblem } from './problems.ts'

export type Located<T> = T & { line: number }

const blank = (v: unknown) => (typeof v === 'string' && v.trim() === '' ? undefined : v)
export const optional = <T extends z.ZodType>(type: T) => z.preprocess(blank, type.optional())
export const number = (least: number, most: number) =>
  z.preprocess(
    (v) => (typeof v === 'string' && v.trim() !== '' && Number.isFinite(Number(v)) ? Number(v) : blank(v)),
    z.number('must be a number').min(least, `must be at least ${least}`).max(most, `must be at most ${most}`),
  )
export const whole = (least: number, most: number) =>
  number(least, most).refine((n) => Number.isInteger(n), 'must be a whole number')
export const day = z.string().trim().refine(isIsoDate, 'must be a date like 2026-09-14')
/** A cell with words in it. */
export const text = (most: number) =>
  z.string().trim().min(1, 'is missing').max(most, `must be at most ${most} characters`)

export const inFileOrder = (problems: FileProblem[]) => problems.sort((a, b) => (a.line ?? 0) - (b.line ?? 0))

/** Rows of a CSV with a header, each checked against a schema; columns the schema does not know are passed over. */
export function readTable<S extends z.ZodObject>(
  csv: string,
  schema: S,
  file: string,
): { rows: Located<z.infer<S>>[]; problems: FileProblem[] } {
  const parsed = Papa.parse<string[]>(csv.replace(/^\uFEFF/, ''), { skipEmptyLines: false })
  const [header, ...body] = parsed.data
  const columns = (header ?? []).map((c) => c.trim())
  const problems: FileProblem[] = parsed.errors
    .filter((e) => e.type === 'Quotes')
    .map((e) => ({ file, line: (e.row ?? 0) + 1, message: e.message }))
  for (const column of Object.keys(schema.shape))
    if (!columns.includes(column) && !schema.shape[column]!.safeParse(undefined).success)
      problems.push({ file, line: 1, column, message: 'this column is missing' })
  if (problems.length > 0) return { rows: [], problems }
  const rows: Located<z.infer<S>>[] = []
  let line = 1 + breaksIn(header ?? [])
  for (const cells of body) {
    line++
    const at = line
    line += breaksIn(cells)
    if (cells.every((c) => c.trim() === '')) continue
    if (cells.length > columns.length) {
      problems.push({ file, line: at, message: `has ${cells.length} values for ${columns.length} columns` })
      continue
    }
    const read = schema.safeParse(Object.fromEntries(columns.map((c, i) => [c, cells[i] ?? ''])))
    if (read.success) rows.push({ ...read.data, line: at })
    else
      for (const issue of read.error.issues)
        problems.push({ file, line: at, column: String(issue.path[0] ?? ''), message: issue.message })
  }
  if (rows.length === 0 && problems.length === 0) problems.push({ file, line: 1, message: 'holds no rows' })
  return { rows, problems }
}

const breaksIn = (cells: readonly string[]) => cells.reduce((n, c) => n + c.split('\n').length - 1, 0)
