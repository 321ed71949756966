import type { Taxon } from '../plants/index.ts'
import type { FileResult } from './problems.ts'
import { readAs } from './readAs.ts'
import { inFileOrder, readCells, writeTable } from './table.ts'
import { taxonSchema, taxonShape } from './taxonSchema.ts'

/** How a trait stands in cells: one cell, or one for each end of a pair. */
interface Codec {
  columns: readonly string[]
  write: (value: unknown) => string[]
  read: (cells: readonly string[]) => unknown
}

const snake = (trait: string) => trait.replace(/[A-Z]/g, (c) => `_${c.toLowerCase()}`)
const typed = (cell: string): unknown => (cell !== '' && Number.isFinite(Number(cell)) ? Number(cell) : cell)
const isWord = new Set<keyof Taxon>(['botanical', 'common'])
const mayBeNull = new Set<keyof Taxon>([
  'bloomFrom',
  'bloomTo',
  'firstFlushTo',
  'divideHow',
  'flowersOn',
  'pruning',
  'annualSeason',
  'flowerColour',
])
const lists = new Set<keyof Taxon>(['troubles', 'wildlife', 'cautions', 'synonyms'])
const yesNo = new Set<keyof Taxon>(['bearsHardCut', 'standsWinter', 'halves', 'mulchAtCrown', 'scented'])
const pairs: Partial<Record<keyof Taxon, readonly [string, string]>> = {
  divideYears: ['divide_years_least', 'divide_years_most'],
  shows: ['shows_from', 'shows_latest'],
  fades: ['fades_from', 'fades_gone'],
  rests: ['rests_from', 'rests_to'],
}

function codecOf(trait: keyof Taxon): Codec {
  const pair = pairs[trait]
  const one = (write: (v: unknown) => string, read: (cell: string) => unknown): Codec => ({
    columns: [snake(trait)],
    write: (v) => [write(v)],
    read: ([cell = '']) => read(cell),
  })
  if (pair)
    return {
      columns: pair,
      write: (v) => (Array.isArray(v) ? v.map(String) : ['', '']),
      read: ([a = '', b = '']) =>
        a === '' && b === '' ? (trait === 'divideYears' ? null : undefined) : [typed(a), typed(b)],
    }
  if (lists.has(trait))
    return one(
      (v) => (v as string[]).join(';'),
      (cell) =>
        cell
          .split(';')
          .map((s) => s.trim())
          .filter((s) => s !== ''),
    )
  if (yesNo.has(trait))
    return one(
      (v) => (v ? 'yes' : 'no'),
      (cell) => ({ yes: true, no: false })[cell.toLowerCase()],
    )
  const read = (cell: string) => {
    if (cell === '') return mayBeNull.has(trait) ? null : undefined
    return isWord.has(trait) ? cell : typed(cell)
  }
  return one((v) => (v == null ? '' : String(v)), read)
}

const codecs = Object.keys(taxonShape).map((trait) => ({
  trait: trait as keyof Taxon,
  ...codecOf(trait as keyof Taxon),
}))

/** Taxa as `taxa.csv`: one row each, a column for each trait, lists parted by semicolons. */
export function writeTaxa(taxa: readonly Taxon[]): string {
  const fields = codecs.flatMap((c) => c.columns)
  const data = taxa.map((t) => codecs.flatMap((c) => c.write(t[c.trait])))
  return writeTable(fields, data)
}

/** Reads kinds; a file with any fault is refused whole, each fault with its line and column. */
export function readTaxa(csv: string, file = 'taxa.csv'): FileResult<Taxon[]> {
  const { columns, rows, problems } = readCells(csv, file)
  const at = new Map(columns.map((column, i) => [column, i]))
  for (const { columns: wanted } of codecs)
    for (const column of wanted)
      if (!at.has(column)) problems.push({ file, line: 1, column, message: 'this column is missing' })
  if (problems.length > 0) return { ok: false, problems: inFileOrder(problems) }
  if (rows.length === 0) return { ok: false, problems: [{ file, line: 1, message: 'holds no rows' }] }
  const taxa: Taxon[] = []
  const seen = new Map<string, number>()
  for (const { line, cells } of rows) {
    const entries = codecs.flatMap(({ trait, columns: from, read }) => {
      const value = read(from.map((c) => cells[at.get(c)!]?.trim() ?? ''))
      return value === undefined ? [] : [[trait, value] as const]
    })
    const read = readAs(taxonSchema, Object.fromEntries(entries))
    if (!read.success) {
      for (const issue of read.error.issues)
        problems.push({ file, line, column: columnOf(issue.path), message: issue.message })
      continue
    }
    const name = read.data.botanical.toLowerCase()
    const first = seen.get(name)
    if (first !== undefined)
      problems.push({ file, line, column: 'botanical', message: `already on line ${first}` })
    seen.set(name, line)
    taxa.push(read.data)
  }
  return problems.length > 0 ? { ok: false, problems: inFileOrder(problems) } : { ok: true, value: taxa }
}

function columnOf([trait, end]: readonly PropertyKey[]): string {
  const codec = codecs.find((c) => c.trait === trait)
  return codec?.columns[codec.columns.length > 1 && typeof end === 'number' ? end : 0] ?? String(trait)
}
