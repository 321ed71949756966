/** What is wrong with a file and where. Lines, columns, features and rows count from 1. */
export interface FileProblem {
  file: string
  line?: number
  column?: number | string
  /** Feature of a plan, from 1, with its name when it has one. */
  feature?: number
  featureName?: string
  property?: string
  message: string
}

/** What a file says, or everything that is wrong with it; never a part. */
export type FileResult<T> = { ok: true; value: T } | { ok: false; problems: FileProblem[] }

/** `plan.geojson, feature 3 “Long border”, heightM: must be a number` */
export function problemText(p: FileProblem): string {
  const where = [p.file]
  if (p.line !== undefined) where.push(`line ${p.line}`)
  if (p.column !== undefined)
    where.push(typeof p.column === 'number' ? `character ${p.column}` : `column ${p.column}`)
  if (p.feature !== undefined) where.push(`feature ${p.feature}${p.featureName ? ` “${p.featureName}”` : ''}`)
  if (p.property !== undefined) where.push(p.property)
  return `${where.join(', ')}: ${p.message}`
}

/** Line and character (from 1) of an offset into a text. */
export function lineAndColumn(text: string, offset: number): { line: number; column: number } {
  const before = text.slice(0, offset)
  const line = before.split('\n').length
  return { line, column: offset - before.lastIndexOf('\n') }
}
