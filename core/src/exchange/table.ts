import Papa from 'papaparse'
import { z } from 'zod'
import type { FileProblem } from './problems.ts'
import { readAs } from './readAs.ts'

/** A row with the line of the file that it stands on, from 1. */
export type Located<T> = T & { line: number }

const blank = (v: unknown) => (typeof v === 'string' && v.trim() === '' ? undefined : v)
/** A field that may be blank. */
export const optional = <T extends z.ZodType>(type: T) => z.preprocess(blank, type.optional())
/** A number from `least` to `most`, both allowed. */
export const number = (least: number, most: number) =>
  z.preprocess(
    (v) => (typeof v === 'string' && v.trim() !== '' && Number.isFinite(Number(v)) ? Number(v) : blank(v)),
    z.number('must be a number').min(least, `must be at least ${least}`).max(most, `must be at most ${most}`),
  )
/** A whole number from `least` to `most`, both allowed. */
export const whole = (least: number, most: number) =>
  number(least, most).refine((n) => Number.isInteger(n), 'must be a whole number')

/** Yes or no, in whatever letters; may be blank. */
export const yesNo = optional(
  z
    .string()
    .trim()
    .toLowerCase()
    .refine((v) => v === 'yes' || v === 'no', 'must be yes or no')
    .transform((v) => v === 'yes'),
)

/** As somebody goes through the file, in place. */
export const inFileOrder = (problems: FileProblem[]) => problems.sort((a, b) => (a.line ?? 0) - (b.line ?? 0))

/** What a spreadsheet takes for the beginning of a formula, after the marks that say it is none. */
const FORMULA = /^'*[=+\-@\t\r\n＝＋－＠]/
const isPlainNumber = (cell: string) => /^[+-]?\d+(\.\d+)?$/.test(cell)

/** A cell that no spreadsheet takes for a formula: what looks like one is marked with an apostrophe, and read again without it. */
const marked = (cell: string) => (FORMULA.test(cell) && !isPlainNumber(cell) ? `'${cell}` : cell)
const unmarked = (cell: string) => (cell.startsWith("'") && FORMULA.test(cell) ? cell.slice(1) : cell)

type Cell = string | number | null | undefined

/**
 * A CSV with a header, as `readCells` reads it; blank where there is nothing.
 *
 * @param newline between rows, and after the last
 */
export function writeTable(
  columns: readonly string[],
  rows: readonly (readonly Cell[])[],
  newline: '\r\n' | '\n' = '\r\n',
): string {
  const data = [columns, ...rows].map((row) => row.map((cell) => (cell == null ? '' : marked(String(cell)))))
  return `${Papa.unparse(data, { newline })}${newline}`
}

const delimiters = [',', ';', '\t'] as const

/**
 * Cells of a CSV below its header, each row with the line that it begins on; rows with nothing in them are passed over. What parts
 * the columns is told by the header alone, for cells may hold anything.
 */
export function readCells(
  csv: string,
  file: string,
): { columns: string[]; rows: { line: number; cells: string[] }[]; problems: FileProblem[] } {
  const text = csv.replace(/^\uFEFF/, '')
  const head = /^[^\r\n]*/.exec(text)![0]
  const parts = (by: string) => head.split(by).length
  const delimiter = delimiters.reduce((best, d) => (parts(d) > parts(best) ? d : best))
  const { data, errors } = Papa.parse<string[]>(text, { delimiter, skipEmptyLines: false })
  const rows: { line: number; cells: string[] }[] = []
  let line = 1
  for (const cells of data) {
    rows.push({ line, cells: cells.map(unmarked) })
    line += 1 + breaksIn(cells)
  }
  const problems = errors
    .filter((e) => e.type === 'Quotes')
    .map((e) => ({ file, line: rows[e.row ?? 0]?.line ?? 1, message: e.message }))
  const [header, ...body] = rows
  const columns = (header?.cells ?? []).map((c) => c.trim())
  const filled = body.filter(({ cells }) => cells.some((c) => c.trim() !== ''))
  for (const { line: at, cells } of filled)
    if (cells.length > columns.length)
      problems.push({ file, line: at, message: `has ${cells.length} values for ${columns.length} columns` })
  return { columns, rows: filled.filter(({ cells }) => cells.length <= columns.length), problems }
}

/** Rows of a CSV with a header, each checked against a schema; columns the schema does not know are passed over. */
export function readTable<S extends z.ZodObject>(
  csv: string,
  schema: S,
  file: string,
): { rows: Located<z.infer<S>>[]; problems: FileProblem[] } {
  const { columns, rows: found, problems } = readCells(csv, file)
  const missing = Object.keys(schema.shape).filter(
    (column) => !columns.includes(column) && !schema.shape[column]!.safeParse(undefined).success,
  )
  if (missing.length > 0)
    return {
      rows: [],
      problems: missing.map((column) => ({ file, line: 1, column, message: 'this column is missing' })),
    }
  const rows: Located<z.infer<S>>[] = []
  for (const { line, cells } of found) {
    const read = readAs(schema, Object.fromEntries(columns.map((c, i) => [c, cells[i] ?? ''])))
    if (read.success) rows.push({ ...read.data, line })
    else
      for (const issue of read.error.issues)
        problems.push({ file, line, column: String(issue.path[0] ?? ''), message: issue.message })
  }
  if (rows.length === 0 && problems.length === 0) problems.push({ file, line: 1, message: 'holds no rows' })
  return { rows, problems }
}

const breaksIn = (cells: readonly string[]) => cells.reduce((n, c) => n + c.split('\n').length - 1, 0)
