import type { ObservationView, PlaceLookView, StoryEntry, walkEntry } from '@border/contract'
import { seenWords, type BloomStage, type IsoDate, type Seen, type SignId } from '@border/core'
import type { z } from 'zod'
import type { Db } from '../database/connect.ts'

/** With what the device's clock said, where that was not the true time. */
type Entry = z.output<typeof walkEntry> & { deviceAt?: string | null }
type PlantingEntry = Extract<Entry, { kind: 'planting' }>
type PlaceEntry = Extract<Entry, { kind: 'place' }>

/** Who noted it; null where a file did not say. */
export interface Noted {
  gardenId: string
  personId: string | null
}

/** Adds an observation unless it is there already. @returns false when it was */
export async function insertObservation(db: Db, by: Noted, e: PlantingEntry): Promise<boolean> {
  const added = await db('observations')
    .insert(observationRow(by, e))
    .onConflict('id')
    .ignore()
    .returning('id')
  if (added.length > 0 && e.replacesId) await withdrawLook(db, 'observations', by.gardenId, by, e.replacesId)
  return added.length > 0
}

/** Keeps looks at plantings, in one transaction with whatever else is written in it. */
export async function insertObservations(
  db: Db,
  by: Noted,
  entries: readonly PlantingEntry[],
): Promise<void> {
  await db.batchInsert(
    'observations',
    entries.map((e) => observationRow(by, e)),
    1000,
  )
}

const observationRow = (by: Noted, e: PlantingEntry) => ({
  id: e.id,
  garden_id: by.gardenId,
  planting_id: e.plantingId,
  on_date: e.on,
  seen_at: e.at,
  device_at: e.deviceAt ?? null,
  rating: e.rating ?? null,
  living: e.living ?? null,
  absent: e.absent,
  stage: e.stage ?? null,
  flush: e.flush ?? null,
  height_m: e.heightM ?? null,
  spread_m: e.spreadM ?? null,
  signs: e.signs,
  note: e.note ?? null,
  person_id: by.personId,
  replaces_id: e.replacesId ?? null,
})

/**
 * Keeps a look at a place; one that it replaces is taken back.
 *
 * @returns false where this look, by its id, is on record
 */
export async function insertPlaceLook(db: Db, by: Noted, e: PlaceEntry): Promise<boolean> {
  const row = {
    id: e.id,
    garden_id: by.gardenId,
    place_id: e.placeId,
    on_date: e.on,
    seen_at: e.at,
    device_at: e.deviceAt ?? null,
    weeds: e.weeds ?? null,
    mulch: e.mulch ?? null,
    soil: e.soil ?? null,
    edges_lost: e.edgesLost ?? null,
    water_misses: e.waterMisses ?? null,
    holes_m: e.holesM,
    good_together: e.goodTogether ?? null,
    missing: e.missing ?? null,
    note: e.note ?? null,
    person_id: by.personId,
    replaces_id: e.replacesId ?? null,
  }
  const added = await db('place_looks').insert(row).onConflict('id').ignore().returning('id')
  if (added.length > 0 && e.replacesId) await withdrawLook(db, 'place_looks', by.gardenId, by, e.replacesId)
  return added.length > 0
}

/** Whose looks are meant: one person's, or anyone's. */
export type Whose = { personId: string | null } | 'anyone'

/** Takes a look back. @returns false where there is none of theirs */
export const withdrawLook = async (
  db: Db,
  table: LookTable,
  gardenId: string,
  whose: Whose,
  id: string,
): Promise<boolean> =>
  (await db(table)
    .where({
      id,
      garden_id: gardenId,
      withdrawn_at: null,
      ...(whose !== 'anyone' && { person_id: whose.personId }),
    })
    .update({ withdrawn_at: db.fn.now() })) > 0

/** Which of some ids are in the record already, withdrawn or not. */
export async function knownEntries(db: Db, gardenId: string, ids: readonly string[]): Promise<Set<string>> {
  const of = (table: LookTable) => knownLooks(db, table, gardenId, ids)
  return new Set([...(await of('observations')), ...(await of('place_looks'))])
}

type LookTable = 'observations' | 'place_looks'

/** Of these ids those of looks of one kind in a garden. */
export async function knownLooks(
  db: Db,
  table: LookTable,
  gardenId: string,
  ids: readonly string[],
): Promise<Set<string>> {
  const rows = await db(table)
    .where({ garden_id: gardenId })
    .whereIn('id', [...ids])
    .select<{ id: string }[]>('id')
  return new Set(rows.map((r) => r.id))
}

interface ObservationRow {
  id: string
  planting_id: string
  on_date: IsoDate
  rating: number | null
  living: number | null
  absent: boolean
  stage: BloomStage | null
  flush: number | null
  height_m: number | null
  spread_m: number | null
  signs: SignId[]
  note: string | null
  by: string | null
}

const observationColumns = `o.id, o.planting_id, o.on_date, o.rating, o.living, o.absent, o.stage, o.flush, o.height_m,
  o.spread_m, o.signs, o.note, p.name as by`

const toObservation = (r: ObservationRow): ObservationView => ({
  id: r.id,
  plantingId: r.planting_id,
  on: r.on_date,
  rating: r.rating,
  living: r.living,
  absent: r.absent,
  stage: r.stage,
  flush: r.flush,
  heightM: r.height_m,
  spreadM: r.spread_m,
  signs: r.signs,
  note: r.note,
  by: r.by,
})

/** The latest look at each of some plantings, up to a day. */
export async function lastObservations(
  db: Db,
  plantingIds: readonly string[],
  on: IsoDate,
): Promise<Map<string, ObservationView>> {
  const { rows } = await db.raw<{ rows: ObservationRow[] }>(
    `select ${observationColumns}
     from unnest(:ids::uuid[]) as wanted(id)
     join lateral (
       select * from observations o
       where o.planting_id = wanted.id and o.withdrawn_at is null and o.on_date <= :on
       order by o.on_date desc, o.created_at desc limit 1
     ) o on true
     left join people p on p.id = o.person_id`,
    { ids: [...plantingIds], on },
  )
  return new Map(rows.map((r) => [r.planting_id, toObservation(r)]))
}

/** Looks of a garden in `[from, to]`, oldest first. */
export async function listObservations(
  db: Db,
  gardenId: string,
  from: IsoDate,
  to: IsoDate,
): Promise<ObservationView[]> {
  const { rows } = await db.raw<{ rows: ObservationRow[] }>(
    `select ${observationColumns}
     from observations o
     left join people p on p.id = o.person_id
     where o.garden_id = :gardenId and o.withdrawn_at is null and o.on_date between :from and :to
     order by o.on_date, o.created_at`,
    { gardenId, from, to },
  )
  return rows.map(toObservation)
}

/** The growing seasons that looks at a garden's plantings are of, as `seasonYearOf` names them. */
export async function seasonsLooked(db: Db, gardenId: string, south: boolean): Promise<number[]> {
  const months = south ? 6 : 0
  const { rows } = await db.raw<{ rows: { season: number }[] }>(
    `select distinct extract(year from on_date + make_interval(months => :months))::int as season
     from observations where garden_id = :gardenId and withdrawn_at is null`,
    { gardenId, months },
  )
  return rows.map((r) => r.season)
}

/** When each sign was last seen on each planting within `[from, to]`. */
export async function signsLastSeen(
  db: Db,
  gardenId: string,
  from: IsoDate,
  to: IsoDate,
): Promise<{ plantingId: string; sign: string; on: IsoDate }[]> {
  const { rows } = await db.raw<{ rows: { plantingId: string; sign: string; on: IsoDate }[] }>(
    `select planting_id as "plantingId", sign, max(on_date) as "on"
     from observations, unnest(signs) as sign
     where garden_id = :gardenId and withdrawn_at is null and on_date between :from and :to
     group by planting_id, sign`,
    { gardenId, from, to },
  )
  return rows
}

/** What the record's computation reads of every look at a garden. */
export async function listSeen(db: Db, gardenId: string): Promise<Seen[]> {
  // As one value: taken apart row by row, a hundred thousand looks would keep everybody waiting for a second.
  const { rows } = await db.raw<{ rows: { seen: SeenRow[] | null }[] }>(
    `select json_agg(json_build_array(planting_id, on_date, rating, living, stage, flush, absent, signs)
                     order by on_date, created_at) as seen
     from observations where garden_id = ? and withdrawn_at is null`,
    [gardenId],
  )
  return (rows[0]!.seen ?? []).map(([plantingId, on, rating, living, stage, flush, absent, signs]) => ({
    plantingId,
    on,
    rating,
    living,
    stage,
    flush,
    absent,
    signs,
  }))
}

type SeenRow = [
  Seen['plantingId'],
  Seen['on'],
  Seen['rating'],
  Seen['living'],
  Seen['stage'],
  Seen['flush'],
  Seen['absent'],
  Seen['signs'],
]

interface PlaceLookRow {
  id: string
  place_id: string
  on_date: IsoDate
  weeds: PlaceLookView['weeds']
  mulch: PlaceLookView['mulch']
  soil: PlaceLookView['soil']
  edges_lost: boolean | null
  water_misses: boolean | null
  holes_m: number[]
  good_together: string | null
  missing: string | null
  note: string | null
  by: string | null
}

/** The latest look at each place of a garden, up to a day. */
export async function lastPlaceLooks(
  db: Db,
  gardenId: string,
  on: IsoDate,
): Promise<Map<string, PlaceLookView>> {
  const { rows } = await db.raw<{ rows: PlaceLookRow[] }>(
    `select distinct on (l.place_id) l.*, p.name as by
     from place_looks l
     left join people p on p.id = l.person_id
     where l.garden_id = :gardenId and l.withdrawn_at is null and l.on_date <= :on
     order by l.place_id, l.on_date desc, l.created_at desc`,
    { gardenId, on },
  )
  return new Map(
    rows.map((r) => [
      r.place_id,
      {
        id: r.id,
        placeId: r.place_id,
        on: r.on_date,
        weeds: r.weeds,
        mulch: r.mulch,
        soil: r.soil,
        edgesLost: r.edges_lost,
        waterMisses: r.water_misses,
        holesM: r.holes_m,
        goodTogether: r.good_together,
        missing: r.missing,
        note: r.note,
        by: r.by,
      },
    ]),
  )
}

/**
 * The looks at a planting as lines of its story, oldest first.
 *
 * @param theirs the looks that whoever asks may take back
 */
export async function listObservedStory(db: Db, plantingId: string, theirs: Whose): Promise<StoryEntry[]> {
  const { rows } = await db.raw<{
    rows: (ObservationRow & { created_at: Date; planted_count: number; person_id: string | null })[]
  }>(
    `select ${observationColumns}, o.created_at, o.person_id, pl.planted_count
     from observations o
     join plantings pl on pl.id = o.planting_id
     left join people p on p.id = o.person_id
     where o.planting_id = :plantingId and o.withdrawn_at is null
     order by o.on_date, o.created_at`,
    { plantingId },
  )
  return rows.map((r) => ({
    on: r.on_date,
    kind: 'observed',
    says: seenWords(toObservation(r), r.planted_count),
    by: r.by,
    recordedAt: r.created_at.toISOString(),
    ...((theirs === 'anyone' || r.person_id === theirs.personId) && { lookId: r.id }),
  }))
}
