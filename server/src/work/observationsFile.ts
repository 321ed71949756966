import { writeObservations, type FileResult, type IsoDate, type ObservationRow } from '@border/core'
import type { Db } from '../database/connect.ts'
import { hashOf } from '../hashOf.ts'
import type { GardenAccess } from '../store/gardens.ts'
import { insertObservations, knownEntries, listObservations } from '../store/observations.ts'
import type { ReadFile } from './fileTasks.ts'

const FIRST_DAY = '1900-01-01'
const LAST_DAY = '2200-12-31'

/** The looks at a garden's plantings as `observations.csv`. */
export async function exportObservations(
  db: Db,
  garden: GardenAccess,
  from = FIRST_DAY,
  to = LAST_DAY,
): Promise<string> {
  const tags = new Map((await tagsOf(db, garden.id)).map((p) => [p.id, p.tag]))
  const looks = await listObservations(db, garden.id, from, to)
  return writeObservations(
    looks.flatMap((o) => {
      const tag = tags.get(o.plantingId)
      return tag === undefined ? [] : [{ ...o, tag }]
    }),
  )
}

/** Looks that a file tells of, and the plantings that they are at, by tag. */
interface LooksRead {
  rows: ObservationRow[]
  plantings: ReadonlyMap<string, { id: string }>
}

/** Reads the looks of a file against the plantings as they stand. */
export async function readLooks(
  db: Db,
  garden: GardenAccess,
  today: string,
  csv: string,
  read: ReadFile,
): Promise<FileResult<LooksRead>> {
  const plantings = new Map((await tagsOf(db, garden.id)).map((p) => [p.tag, p]))
  const found = await read('observationsFile', { text: csv, plantings, today })
  return found.ok ? { ok: true, value: { rows: found.value, plantings } } : found
}

/**
 * Adds the looks of a file. A row with an id that is in the record already is passed over; a row without one is given an id by what
 * it says, so that the same file twice adds nothing.
 */
export async function keepLooks(
  db: Db,
  garden: GardenAccess,
  personId: string,
  { rows: found, plantings }: LooksRead,
): Promise<{ added: number; known: number }> {
  const rows = found.map(({ line: _, ...row }) => ({
    ...row,
    id: row.id ?? idOfContent(garden.id, row),
  }))
  const once = [...new Map(rows.map((r) => [r.id, r])).values()]
  const known = await knownEntries(
    db,
    garden.id,
    once.map((r) => r.id),
  )
  const fresh = once.filter((r) => !known.has(r.id))
  await insertObservations(
    db,
    { gardenId: garden.id, personId },
    fresh.map((r) => ({
      kind: 'planting',
      id: r.id,
      plantingId: plantings.get(r.tag)!.id,
      on: r.date,
      // A file knows the day; noon stands for the hour.
      at: `${r.date}T12:00:00Z`,
      rating: r.rating,
      living: r.living,
      absent: r.absent ?? false,
      stage: r.stage,
      flush: r.flush,
      heightM: r.height_m,
      spreadM: r.spread_m,
      signs: r.signs ?? [],
      note: r.note,
    })),
  )
  return { added: fresh.length, known: rows.length - fresh.length }
}

const tagsOf = (db: Db, gardenId: string) =>
  db('plantings')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .select<{ id: string; tag: string; plantedOn: IsoDate; plantedCount: number }[]>(
      'id',
      'tag',
      'planted_on as plantedOn',
      'planted_count as plantedCount',
    )

/** A UUID made from what a row says, of the version kept for such uses. */
function idOfContent(gardenId: string, row: object): string {
  const hex = hashOf([gardenId, row])
  const variant = ((parseInt(hex[16]!, 16) & 3) | 8).toString(16)
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-${variant}${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}
