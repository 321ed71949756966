import type { PlantingRecord, StoryEntry } from '@border/contract'
import type { PlantingSource, Taxon } from '@border/core'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

/** Taxa a practice may use, by lower-case botanical name. */
export async function listTaxa(db: Db, practiceId: string): Promise<{ id: string; taxon: Taxon }[]> {
  const rows = await db('taxa')
    .whereNull('practice_id')
    .orWhere({ practice_id: practiceId })
    .orderBy('botanical')
    .select<{ id: string; traits: Taxon }[]>('id', 'traits')
  return rows.map((r) => ({ id: r.id, taxon: r.traits }))
}

interface PlantingRow {
  id: string
  tag: string
  planted_on: string
  planted_count: number
  source: string
  role: string | null
  from_tag: string | null
  traits: Taxon
  place_id: string
  x: number
  y: number
  radius_m: number | null
  since: string
  living: number | null
}

const toPlanting = (r: PlantingRow): PlantingRecord => ({
  id: r.id,
  tag: r.tag,
  taxon: r.traits,
  plantedOn: r.planted_on,
  plantedCount: r.planted_count,
  livingCount: r.living ?? r.planted_count,
  source: r.source,
  role: r.role,
  fromTag: r.from_tag,
  placeId: r.place_id,
  x: r.x,
  y: r.y,
  radiusM: r.radius_m,
  inPlaceSince: r.since,
})

/** Plantings with where they stand and the living count last recorded: on a day, or as last known when `on` is null. */
async function selectPlantings(
  db: Db,
  gardenId: string,
  which: { on: string | null; plantingId: string | null },
): Promise<PlantingRecord[]> {
  const { rows } = await db.raw(
    `select p.id, p.tag, p.planted_on, p.planted_count, p.source, p.role, t.traits, parent.tag as from_tag,
            s.place_id, s.x, s.y, s.radius_m, s.from_date as since, c.living
     from plantings p
     join taxa t on t.id = p.taxon_id
     left join plantings parent on parent.id = p.parent_id
     join lateral (
       select * from planting_sites s
       where s.planting_id = p.id and s.withdrawn_at is null
         and (:on::date is null or (s.from_date <= :on::date and (s.to_date is null or :on::date < s.to_date)))
       order by s.from_date desc, s.to_date desc nulls first limit 1
     ) s on true
     left join lateral (
       select living from planting_events e
       where e.planting_id = p.id and e.withdrawn_at is null and e.living is not null and (:on::date is null or e.on_date <= :on::date)
       order by e.on_date desc, e.created_at desc limit 1
     ) c on true
     where p.garden_id = :gardenId and (:plantingId::uuid is null or p.id = :plantingId::uuid)
     order by p.tag`,
    { gardenId, ...which },
  )
  return (rows as PlantingRow[]).map(toPlanting)
}

/** Plantings that stand somewhere, alive, on a day. One whose last count was none is gone. */
export async function listPlantings(
  db: Db,
  gardenId: string,
  on: string,
  plantingId: string | null = null,
): Promise<PlantingRecord[]> {
  return (await selectPlantings(db, gardenId, { on, plantingId })).filter((p) => p.livingCount > 0)
}

/** A planting as last known, gone or not. */
export async function findPlanting(
  db: Db,
  gardenId: string,
  plantingId: string,
): Promise<PlantingRecord | undefined> {
  const [found] = await selectPlantings(db, gardenId, { on: null, plantingId })
  return found
}

/** Tags of the plantings that came from this one. */
export async function listOffspring(db: Db, plantingId: string): Promise<string[]> {
  const rows = await db('plantings')
    .where({ parent_id: plantingId })
    .orderBy('tag')
    .select<{ tag: string }[]>('tag')
  return rows.map((r) => r.tag)
}

export interface NewPlanting {
  gardenId: string
  taxonId: string
  tag: string
  plantedOn: string
  count: number
  living?: number | undefined
  source: PlantingSource
  parentId?: string | null
  role?: string | null
  placeId: string
  placeName: string
  x: number
  y: number
  radiusM?: number | null
  note?: string | undefined
  personId: string | null
}

export async function insertPlantings(
  db: Db,
  plantings: readonly (NewPlanting & { id: string })[],
): Promise<void> {
  const row = (p: NewPlanting & { id: string }) => ({
    id: p.id,
    garden_id: p.gardenId,
    taxon_id: p.taxonId,
    tag: p.tag,
    planted_on: p.plantedOn,
    planted_count: p.count,
    source: p.source,
    parent_id: p.parentId ?? null,
    role: p.role ?? null,
  })
  // One statement: a planting may come from another of the same file, whatever their order.
  await db('plantings').insert(plantings.map(row))
  await db('planting_sites').insert(
    plantings.map((p) => ({
      id: randomUUID(),
      planting_id: p.id,
      garden_id: p.gardenId,
      place_id: p.placeId,
      x: p.x,
      y: p.y,
      radius_m: p.radiusM ?? null,
      from_date: p.plantedOn,
    })),
  )
  await db('planting_events').insert(
    plantings.flatMap((p) => {
      const event = { planting_id: p.id, person_id: p.personId, living: null as number | null }
      const planted = {
        ...event,
        id: randomUUID(),
        on_date: p.plantedOn,
        kind: 'planted',
        living: p.count,
        says: plantedWords(p),
      }
      const notes = p.note
        ? [{ ...event, id: randomUUID(), on_date: p.plantedOn, kind: 'note', says: p.note }]
        : []
      const counted =
        p.living !== undefined && p.living !== p.count
          ? [
              {
                ...event,
                id: randomUUID(),
                on_date: p.plantedOn,
                kind: 'counted',
                living: p.living,
                says: `${p.living} of ${p.count} living when the record came in.`,
              },
            ]
          : []
      return [planted, ...notes, ...counted]
    }),
  )
}

function plantedWords(p: NewPlanting): string {
  const how = {
    bought: 'bought',
    division: 'from divisions',
    cutting: 'from cuttings',
    seed: 'from seed',
    'self-sown': 'self-sown',
    moved: 'moved in',
  }
  return `${p.count} planted in ${p.placeName}, ${how[p.source]}.`
}

export interface NewEvent {
  plantingId: string
  on: string
  kind: 'observed' | 'counted' | 'moved' | 'note'
  living?: number | null
  says: string
  personId: string | null
  jobId?: string | null
}

export async function insertEvents(db: Db, events: readonly NewEvent[]): Promise<void> {
  const rows = events.map((e) => ({
    id: randomUUID(),
    planting_id: e.plantingId,
    on_date: e.on,
    kind: e.kind,
    living: e.living ?? null,
    says: e.says,
    person_id: e.personId,
    job_id: e.jobId ?? null,
  }))
  await db.batchInsert('planting_events', rows, 500)
}

/** Closes the present site on a day and opens another. */
export async function moveSite(
  db: Db,
  move: {
    plantingId: string
    gardenId: string
    placeId: string
    x: number
    y: number
    on: string
    radiusM: number | null
    jobId: string | null
  },
): Promise<void> {
  await presentSite(db, move.plantingId).update({ to_date: move.on })
  await db('planting_sites').insert({
    id: randomUUID(),
    planting_id: move.plantingId,
    garden_id: move.gardenId,
    place_id: move.placeId,
    x: move.x,
    y: move.y,
    radius_m: move.radiusM,
    from_date: move.on,
    job_id: move.jobId,
  })
}

const presentSite = (db: Db, plantingId: string) =>
  db('planting_sites').where({ planting_id: plantingId, to_date: null, withdrawn_at: null })

/**
 * Puts a planting back to where it stood before a move, as if it had not been recorded.
 * @returns false when it has moved on since
 */
export async function withdrawMove(db: Db, plantingId: string, jobId: string): Promise<boolean> {
  const site = await presentSite(db, plantingId).first<{
    id: string
    job_id: string | null
    from_date: string
  }>()
  if (site?.job_id !== jobId) return false
  await db('planting_sites').where({ id: site.id }).update({ withdrawn_at: db.fn.now() })
  const before = await db('planting_sites')
    .where({ planting_id: plantingId, to_date: site.from_date, withdrawn_at: null })
    .orderBy('from_date', 'desc')
    .first('id')
  await db('planting_sites').where({ id: before.id }).update({ to_date: null })
  return true
}

export async function withdrawEventsOf(db: Db, jobId: string): Promise<void> {
  await db('planting_events').where({ job_id: jobId }).update({ withdrawn_at: db.fn.now() })
}

/** What happened to a planting itself, oldest first. */
export async function listEvents(db: Db, plantingId: string): Promise<StoryEntry[]> {
  return db('planting_events')
    .leftJoin('people', 'people.id', 'person_id')
    .where({ planting_id: plantingId, withdrawn_at: null })
    .orderBy(['on_date', 'planting_events.created_at'])
    .select<StoryEntry[]>(
      'on_date as on',
      'kind',
      'says',
      'people.name as by',
      'planting_events.created_at as recordedAt',
    )
}
