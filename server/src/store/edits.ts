import { randomUUID } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import { asSent } from '../asSent.ts'
import type { Db } from '../database/connect.ts'
import { notFound, Refusal } from '../errors.ts'

/** Tables whose rows are put right, each with the columns that an edit may change. */
const edited = {
  features: ['kind', 'name', 'geometry', 'properties', 'from_date', 'to_date'],
  plantings: [
    'taxon_id',
    'tag',
    'planted_on',
    'planted_known',
    'planted_count',
    'source',
    'role',
    'colour_wish',
  ],
  planting_sites: ['place_id', 'x', 'y', 'radius_m', 'outline', 'from_date', 'to_date'],
  planting_events: ['on_date', 'living'],
  // What happened to a part of the plan: of which one is never put otherwise, and tells what it is called by.
  feature_events: ['feature_id', 'on_date', 'action', 'value', 'crown_radius_m'],
  bench: ['count', 'gone', 'gone_on', 'planting_id'],
  // Of a fill: what it is told by is never put otherwise.
  fills: ['container_id', 'name', 'emptied_on', 'ended_by', 'ended_note'],
} as const
export type EditedTable = keyof typeof edited

/** A row as an edit knows it: its columns, and whether it has been withdrawn. */
export type EditedRow = Record<string, unknown> & { withdrawn: boolean }

/** One row that an edit has changed. */
export interface EditEntry {
  table: EditedTable
  id: string
  /** Null where it was not there. */
  was: EditedRow | null
  /** Null where it is not known any more: what was put right before edits were kept. */
  now: EditedRow | null
}

/** An edit as it is kept. */
export interface Edit {
  id: string
  /** The day from which it is so in the garden; null where it always was. */
  from: string | null
  undoes: string | null
  entries: EditEntry[]
  by: string
  at: Date
  /** Whether it has been taken back. */
  isUndone: boolean
}

const JSON_COLUMNS: ReadonlySet<string> = new Set(['geometry', 'properties', 'outline', 'mix'])

const asKept = (column: string, value: unknown): unknown =>
  JSON_COLUMNS.has(column) && value !== null && value !== undefined ? JSON.stringify(value) : value

async function rowNow(
  db: Db,
  gardenId: string,
  table: EditedTable,
  id: string,
): Promise<EditedRow | undefined> {
  const row = await db(table)
    .where({ garden_id: gardenId, id })
    .first<Record<string, unknown> | undefined>(...edited[table], 'withdrawn_at')
  if (!row) return undefined
  const { withdrawn_at, ...columns } = row
  return { ...columns, withdrawn: withdrawn_at !== null }
}

/** Writes columns of a row, and whether it is withdrawn. */
async function write(db: Db, table: EditedTable, id: string, change: Partial<EditedRow>): Promise<void> {
  const { withdrawn, ...columns } = change
  await db(table)
    .where({ id })
    .update({
      ...Object.fromEntries(Object.entries(columns).map(([name, value]) => [name, asKept(name, value)])),
      ...(withdrawn === undefined ? {} : { withdrawn_at: withdrawn ? db.fn.now() : null }),
    })
}

/** An edit that is being made: what it changes is noted as it is changed. */
export interface OpenEdit {
  /** Changes columns of a row, or withdraws it or brings it back. */
  change: (table: EditedTable, id: string, change: Partial<EditedRow>) => Promise<void>
  /** Puts in a row with all its columns, those that no edit changes among them. */
  insert: (table: EditedTable, row: Record<string, unknown> & { id: string }) => Promise<void>
  /**
   * Keeps the edit; one that has changed nothing is none.
   *
   * @returns its id
   */
  save: () => Promise<string | null>
}

interface Editing {
  gardenId: string
  personId: string
  from?: string | null | undefined
  undoes?: string
}

/** Begins an edit. */
export function openEdit(db: Db, { gardenId, personId, from, undoes }: Editing): OpenEdit {
  const entries = new Map<string, EditEntry>()
  return {
    change: async (table, id, change) => {
      const now = await rowNow(db, gardenId, table, id)
      if (!now) throw notFound('What was to be put right')
      const after = { ...now, ...change } as EditedRow
      if (isDeepStrictEqual(asSent(now), asSent(after))) return
      await write(db, table, id, change)
      const before = entries.get(`${table} ${id}`)
      entries.set(`${table} ${id}`, { table, id, was: before ? before.was : now, now: after })
    },
    insert: async (table, row) => {
      await db(table).insert(
        Object.fromEntries(Object.entries(row).map(([name, value]) => [name, asKept(name, value)])),
      )
      const now = await rowNow(db, gardenId, table, row.id)
      entries.set(`${table} ${row.id}`, { table, id: row.id, was: null, now: now! })
    },
    save: async () => {
      if (entries.size === 0) return null
      const id = randomUUID()
      await db('edits').insert({
        id,
        garden_id: gardenId,
        person_id: personId,
        from_date: from ?? null,
        undoes: undoes ?? null,
        entries: JSON.stringify([...entries.values()]),
      })
      return id
    },
  }
}

const editColumns = [
  'edits.id',
  'from_date as from',
  'undoes',
  'entries',
  'people.name as by',
  'edits.created_at as at',
]

const editsOf = (db: Db, gardenId: string) =>
  db('edits')
    .join('people', 'people.id', 'person_id')
    .where({ garden_id: gardenId })
    .select(
      ...editColumns,
      db.raw('exists (select 1 from edits later where later.undoes = edits.id) as "isUndone"'),
    )

/** The latest edits of a garden, newest first. */
export const listEdits = (db: Db, gardenId: string, most: number): Promise<Edit[]> =>
  editsOf(db, gardenId).orderBy('edits.created_at', 'desc').limit(most)

/** What the rows that edits changed are called by. */
export async function editNames(db: Db, gardenId: string, features: readonly { id: string; name: string }[]) {
  const tags = await db('plantings')
    .where({ garden_id: gardenId })
    .select<{ id: string; tag: string }[]>('id', 'tag')
  const taxa = await db('taxa')
    .whereIn('id', db('plantings').where({ garden_id: gardenId }).select('taxon_id'))
    .select<{ id: string; botanical: string }[]>('id', 'botanical')
  const [places, planted, kinds] = [
    new Map(features.map((f) => [f.id, f.name])),
    new Map(tags.map((t) => [t.id, t.tag])),
    new Map(taxa.map((t) => [t.id, t.botanical])),
  ]
  return {
    tagOf: (id: string) => planted.get(id) ?? 'a planting',
    partOf: (id: string) => places.get(id) ?? 'A part that is off the plan',
    placeOf: (id: string) => places.get(id) ?? 'a place that is off the plan',
    taxonOf: (id: string) => kinds.get(id) ?? 'another kind',
  }
}

/**
 * Takes an edit back: every row it changed is as it was. What takes back is an edit of its own, and can be taken back.
 *
 * @returns the id of that
 * @throws {Refusal} where something of it has been changed since
 */
export async function undoEdit(
  db: Db,
  { gardenId, personId }: { gardenId: string; personId: string },
  editId: string,
): Promise<string> {
  const edit = (await editsOf(db, gardenId).where('edits.id', editId).first()) as Edit | undefined
  if (!edit) throw notFound('This change')
  if (edit.isUndone) throw new Refusal(409, 'This change has been taken back already.')
  const undoing = openEdit(db, { gardenId, personId, from: edit.from, undoes: editId })
  const entries = plantingsFirst(edit.entries)
  for (const { table, id, was, now } of entries) {
    const current = await rowNow(db, gardenId, table, id)
    if (!now || !current || !isDeepStrictEqual(asSent(current), asSent(now)))
      throw new Refusal(
        409,
        `${nameIn(now ?? was)} has been changed since: this cannot be taken back before that is.`,
      )
  }
  await parkTags(
    undoing,
    entries.filter((e) => e.table === 'plantings' && e.was && e.was.tag !== e.now!.tag).map((e) => e.id),
  )
  for (const { table, id, was } of entries) await undoing.change(table, id, was ?? { withdrawn: true })
  return (await undoing.save())!
}

/** Of plantings whose tags change places each has, for a moment, one that no other has. */
export async function parkTags(edit: OpenEdit, plantingIds: readonly string[]): Promise<void> {
  if (plantingIds.length < 2) return
  for (const id of plantingIds) await edit.change('plantings', id, { tag: id })
}

/** Nothing of a planting lies before the day it was planted, not for a moment: that day goes first. */
const plantingsFirst = (entries: readonly EditEntry[]): EditEntry[] =>
  [...entries].reverse().sort((a, b) => Number(b.table === 'plantings') - Number(a.table === 'plantings'))

const nameIn = (row: EditedRow | null): string => String(row?.name ?? row?.tag ?? 'What it changed')
