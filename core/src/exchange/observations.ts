import { z } from 'zod'
import type { IsoDate } from '../dates/index.ts'
import { isSign, type SignId } from '../diagnosis/index.ts'
import { bloomStages } from '../performance/index.ts'
import type { SeenInWords } from '../walk/index.ts'
import { recordedDay, tag, words } from '../written/index.ts'
import type { FileProblem, FileResult } from './problems.ts'
import { inFileOrder, number, optional, readTable, whole, writeTable, yesNo, type Located } from './table.ts'

const signList = optional(
  z
    .string()
    .transform((v) =>
      v
        .split(';')
        .map((s) => s.trim())
        .filter((s) => s !== ''),
    )
    .superRefine((list, context) => {
      for (const s of list)
        if (!isSign(s)) context.addIssue({ code: 'custom', message: `${s} is not a sign that is known here` })
    })
    .transform((list) => list as SignId[]),
)

/** One row of `observations.csv`: a look at a planting. Signs are separated by semicolons. */
const observationRow = z.object({
  id: optional(z.uuid('must be a UUID, or empty')),
  tag,
  date: recordedDay,
  rating: optional(whole(1, 5)),
  living: optional(whole(1, 10_000)),
  absent: yesNo,
  stage: optional(z.enum(bloomStages, `must be one of: ${bloomStages.join(', ')}`)),
  flush: optional(whole(1, 9)),
  height_m: optional(number(0.01, 60)),
  spread_m: optional(number(0.01, 60)),
  signs: signList,
  note: optional(words(2000)),
})
export type ObservationRow = Located<z.infer<typeof observationRow>>

type PlantingsByTag = ReadonlyMap<string, { plantedOn: IsoDate; plantedCount: number }>

/**
 * Reads looks at plantings. Tags are matched as written; a row says something; nothing lies ahead of today, or
 * before the planting.
 *
 * @param plantings of the garden, by tag
 */
export function readObservations(
  csv: string,
  plantings: PlantingsByTag,
  today: IsoDate,
  file = 'observations.csv',
): FileResult<ObservationRow[]> {
  const { rows, problems } = readTable(csv, observationRow, file)
  const ids = new Map<string, number>()
  for (const row of rows) problems.push(...faultsOf(row, plantings, today, ids, file))
  return problems.length > 0 ? { ok: false, problems: inFileOrder(problems) } : { ok: true, value: rows }
}

function faultsOf(
  row: ObservationRow,
  plantings: PlantingsByTag,
  today: IsoDate,
  ids: Map<string, number>,
  file: string,
): FileProblem[] {
  const problems: FileProblem[] = []
  const wrong = (column: string, message: string) => problems.push({ file, line: row.line, column, message })
  const planting = plantings.get(row.tag)
  if (!planting) wrong('tag', `no planting has the tag ${row.tag}`)
  else if (row.date < planting.plantedOn)
    wrong('date', `${row.date} lies before ${row.tag} was planted (${planting.plantedOn})`)
  if (planting && (row.living ?? 0) > planting.plantedCount)
    wrong('living', `more living than planted (${planting.plantedCount})`)
  if (row.date > today) wrong('date', `${row.date} is after today (${today})`)
  const { rating, living, absent, stage, height_m, spread_m, signs, note } = row
  const says = [rating, living, stage, height_m, spread_m, note].some((v) => v !== undefined)
  if (!says && !absent && !signs?.length) wrong('rating', 'the row says nothing of the planting')
  if (absent && (living !== undefined || stage !== undefined))
    wrong('absent', 'nothing shows, and yet it is counted or in bloom')
  if (row.id !== undefined) {
    const first = ids.get(row.id)
    if (first === undefined) ids.set(row.id, row.line)
    else wrong('id', `already used on line ${first}`)
  }
  return problems
}

/** A look as it is written to a file. */
export interface ObservationLine extends SeenInWords {
  id: string
  tag: string
  on: IsoDate
  by: string | null
}

/** Writes `observations.csv`; `by` is for the reader and is passed over when the file comes back. */
export function writeObservations(lines: readonly ObservationLine[]): string {
  const rows = lines.map((o) => ({
    id: o.id,
    tag: o.tag,
    date: o.on,
    rating: o.rating,
    living: o.living,
    absent: o.absent ? 'yes' : '',
    stage: o.stage,
    flush: o.flush,
    height_m: o.heightM,
    spread_m: o.spreadM,
    signs: o.signs.join(';'),
    note: o.note,
    by: o.by,
  }))
  const columns = [
    ...(Object.keys(observationRow.shape) as (keyof typeof observationRow.shape)[]),
    'by' as const,
  ]
  return writeTable(
    columns,
    rows.map((row) => columns.map((c) => row[c])),
  )
}
