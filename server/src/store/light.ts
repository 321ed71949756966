import type { LightLogRequest, ReadingView, ReadingRequest, SuspicionDetail } from '@border/contract'
import type { Brightness, LuxSample, Supposition } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'
import { hashOf } from '../hashOf.ts'

// What-ifs

/** Suppositions kept under a name. */
export interface WhatIf {
  id: string
  name: string
  suppositions: Supposition[]
}

/** What-ifs that are kept, in the order of their making. */
export async function listWhatIfs(db: Db, gardenId: string): Promise<WhatIf[]> {
  return db('what_ifs')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .orderBy('created_at')
    .select<WhatIf[]>('id', 'name', 'suppositions')
}

/**
 * Keeps suppositions under a name.
 *
 * @returns its id
 */
export async function insertWhatIf(
  db: Db,
  gardenId: string,
  personId: string,
  { name, suppositions }: { name: string; suppositions: readonly object[] },
): Promise<string> {
  const id = randomUUID()
  await db('what_ifs').insert({
    id,
    garden_id: gardenId,
    person_id: personId,
    name,
    suppositions: JSON.stringify(suppositions),
  })
  return id
}

// Readings

interface ReadingRow {
  id: string
  at: Date
  x: number
  y: number
  place_id: string | null
  seen: Brightness
  by: string
}

/** @param since the first day that counts; later readings first */
export async function listReadings(db: Db, gardenId: string, since: string): Promise<ReadingView[]> {
  const rows = await db('light_readings')
    .join('people', 'people.id', 'person_id')
    .where({ garden_id: gardenId, 'light_readings.withdrawn_at': null })
    .where('at', '>=', since)
    .orderBy('at', 'desc')
    .select<ReadingRow[]>('light_readings.id', 'at', 'x', 'y', 'place_id', 'seen', 'people.name as by')
  return rows.map(({ place_id, at, ...row }) => ({ ...row, at: at.toISOString(), placeId: place_id }))
}

/**
 * Keeps one look at the light of a point.
 *
 * @returns its id
 */
export async function insertReading(
  db: Db,
  gardenId: string,
  personId: string,
  reading: ReadingRequest,
): Promise<string> {
  const id = randomUUID()
  const { at, x, y, placeId, seen } = reading
  await db('light_readings').insert({
    id,
    garden_id: gardenId,
    person_id: personId,
    at,
    x,
    y,
    place_id: placeId ?? null,
    seen,
  })
  return id
}

// Logs

/** A light logger’s record: where it lay, plan metres, and what it saw. */
export interface LogRow {
  id: string
  name: string
  x: number
  y: number
  place_id: string | null
  samples: [instantMs: number, lux: number][]
  first_at: Date
  last_at: Date
}

/** Records that end on a day or later. */
export async function listLogs(db: Db, gardenId: string, since: string): Promise<LogRow[]> {
  return db('light_logs')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .where('last_at', '>=', since)
    .orderBy('first_at')
    .select<LogRow[]>('id', 'name', 'x', 'y', 'place_id', 'samples', 'first_at', 'last_at')
}

/**
 * Keeps a light logger’s record; the database refuses the same one twice, by a hash of its place and samples.
 *
 * @returns its id
 */
export async function insertLog(
  db: Db,
  gardenId: string,
  personId: string,
  { name, x, y, placeId }: Pick<LightLogRequest, 'name' | 'x' | 'y' | 'placeId'>,
  samples: readonly LuxSample[],
): Promise<string> {
  const id = randomUUID()
  const pairs = samples.map((s) => [s.instantMs, s.lux])
  const hash = hashOf([x, y, pairs])
  await db('light_logs').insert({
    id,
    garden_id: gardenId,
    person_id: personId,
    name,
    x,
    y,
    place_id: placeId ?? null,
    samples: JSON.stringify(pairs),
    first_at: new Date(samples[0]!.instantMs),
    last_at: new Date(samples.at(-1)!.instantMs),
    content_hash: hash,
  })
  return id
}

/** Takes back a reading, a log or a what-if of a garden: kept, and no longer counted. */
export async function withdraw(
  db: Db,
  table: 'light_readings' | 'light_logs' | 'what_ifs',
  gardenId: string,
  id: string,
): Promise<boolean> {
  const standing = db(table).where({ garden_id: gardenId, id, withdrawn_at: null })
  return (await standing.update({ withdrawn_at: db.fn.now() })) > 0
}

// Suspicions

/** A change that readings or signs speak for and nobody has drawn. */
export interface SuspicionRow {
  id: string
  key: string
  detail: SuspicionDetail
  state: 'open' | 'dismissed' | 'confirmed' | 'passed'
  first_seen: string
  last_seen: string
}

const suspicionColumns = ['id', 'key', 'detail', 'state', 'first_seen', 'last_seen'] as const

/** Suspicions that wait for a word. */
export const listOpenSuspicions = async (db: Db, gardenId: string): Promise<SuspicionRow[]> =>
  db('suspicions')
    .where({ garden_id: gardenId, state: 'open' })
    .orderBy(['first_seen', 'created_at'])
    .select<SuspicionRow[]>(...suspicionColumns)

/** One suspicion, whatever was said of it. */
export const findSuspicion = async (
  db: Db,
  gardenId: string,
  id: string,
): Promise<SuspicionRow | undefined> =>
  db('suspicions')
    .where({ garden_id: gardenId, id })
    .first<SuspicionRow | undefined>(...suspicionColumns)

/** A person’s word on a suspicion. */
export async function decideSuspicion(
  db: Db,
  id: string,
  personId: string,
  state: 'dismissed' | 'confirmed',
): Promise<void> {
  await db('suspicions').where({ id }).update({ state, decided_by: personId, decided_at: db.fn.now() })
}

/**
 * Writes down what a re-check found: new suspicions open, those found again stay as they are, open ones no longer found
 * have passed. What a person decided stands whatever is found.
 */
export async function recordRecheck(
  db: Db,
  gardenId: string,
  on: string,
  found: readonly { key: string; detail: SuspicionDetail }[],
): Promise<void> {
  for (const { key, detail } of found)
    await db.raw(
      `insert into suspicions (id, garden_id, key, kind, detail, state, first_seen, last_seen)
       values (:id, :gardenId, :key, :kind, :detail, 'open', :on, :on)
       on conflict (garden_id, key) do update
         set last_seen = excluded.last_seen,
             detail = excluded.detail,
             state = case suspicions.state when 'passed' then 'open' else suspicions.state end`,
      { id: randomUUID(), gardenId, key, kind: detail.kind, detail: JSON.stringify(detail), on },
    )
  await db('suspicions')
    .where({ garden_id: gardenId, state: 'open' })
    .whereNotIn(
      'key',
      found.map((f) => f.key),
    )
    .update({ state: 'passed' })
  await db('rechecks')
    .insert({ garden_id: gardenId, on_date: on })
    .onConflict('garden_id')
    .merge({ on_date: on, ran_at: db.fn.now() })
}

/** The day on which readings were last held against the plan; null where they never were. */
export async function lastRecheck(db: Db, gardenId: string): Promise<string | null> {
  const row = await db('rechecks')
    .where({ garden_id: gardenId })
    .first<{ on_date: string } | undefined>('on_date')
  return row?.on_date ?? null
}
