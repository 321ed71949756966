import type { PhotoView, StandpointView } from '@border/contract'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

interface PhotoRow {
  id: string
  taken_on: string
  standpoint_id: string | null
  planting_id: string | null
  place_id: string | null
  width: number
  height: number
  by: string | null
}

const photoColumns = [
  'photos.id',
  'taken_on',
  'standpoint_id',
  'planting_id',
  'place_id',
  'width',
  'height',
  'people.name as by',
]

const toPhoto = (r: PhotoRow): PhotoView => ({
  id: r.id,
  takenOn: r.taken_on,
  standpointId: r.standpoint_id,
  plantingId: r.planting_id,
  placeId: r.place_id,
  width: r.width,
  height: r.height,
  by: r.by,
})

/** A photo with what it is of, and its two pictures. */
export interface NewPhoto {
  id: string
  takenOn: string
  takenAt: string
  /** What the device's clock said, where that was something else. */
  deviceAt: string | null
  standpointId?: string | undefined
  plantingId?: string | undefined
  placeId?: string | undefined
  width: number
  height: number
  picture: Buffer
  small: Buffer
  contentHash: string
  position: { latitude: number; longitude: number } | null
}

/** Stores a photo once: the same picture of the same subject is not stored again. @returns false when it was there */
export async function insertPhoto(
  db: Db,
  gardenId: string,
  personId: string | null,
  p: NewPhoto,
): Promise<boolean> {
  const added = await db('photos')
    .insert({
      id: p.id,
      garden_id: gardenId,
      standpoint_id: p.standpointId ?? null,
      planting_id: p.plantingId ?? null,
      place_id: p.placeId ?? null,
      taken_on: p.takenOn,
      taken_at: p.takenAt,
      device_at: p.deviceAt,
      width: p.width,
      height: p.height,
      picture: p.picture,
      small: p.small,
      content_hash: p.contentHash,
      latitude: p.position?.latitude ?? null,
      longitude: p.position?.longitude ?? null,
      person_id: personId,
    })
    .onConflict()
    .ignore()
    .returning('id')
  return added.length > 0
}

/** Photos of a garden, oldest first: of one planting, or all. */
export async function listPhotos(db: Db, gardenId: string, plantingId?: string): Promise<PhotoView[]> {
  const rows = await db('photos')
    .leftJoin('people', 'people.id', 'person_id')
    .where({ garden_id: gardenId, withdrawn_at: null, ...(plantingId ? { planting_id: plantingId } : {}) })
    .orderBy(['taken_on', 'photos.created_at'])
    .select<PhotoRow[]>(photoColumns)
  return rows.map(toPhoto)
}

/** A photo's bytes. */
export async function findPicture(
  db: Db,
  gardenId: string,
  id: string,
  size: 'picture' | 'small',
): Promise<Buffer | undefined> {
  const row = await db('photos').where({ garden_id: gardenId, id, withdrawn_at: null }).first(size)
  return row?.[size]
}

/**
 * Takes a photo out of sight.
 *
 * @returns false where there is none under this id
 */
export async function withdrawPhoto(db: Db, gardenId: string, id: string): Promise<boolean> {
  const changed = await db('photos')
    .where({ garden_id: gardenId, id, withdrawn_at: null })
    .update({ withdrawn_at: db.fn.now() })
  return changed > 0
}

/**
 * A place to photograph from again, with what the picture takes in.
 *
 * @returns its id
 */
export async function insertStandpoint(
  db: Db,
  gardenId: string,
  { name, placeId, framing }: { name: string; placeId?: string | undefined; framing: string },
): Promise<string> {
  const id = randomUUID()
  await db('standpoints').insert({ id, garden_id: gardenId, name, place_id: placeId ?? null, framing })
  return id
}

/** Standpoints with the latest photo from each up to a day. */
export async function listStandpoints(db: Db, gardenId: string, on: string): Promise<StandpointView[]> {
  const { rows } = await db.raw<{ rows: StandpointView[] }>(
    `select s.id, s.name, s.place_id as "placeId", s.framing, p.id as "lastPhotoId", p.taken_on as "lastTakenOn"
     from standpoints s
     left join lateral (
       select id, taken_on from photos p
       where p.standpoint_id = s.id and p.withdrawn_at is null and p.taken_on <= :on
       order by p.taken_on desc, p.created_at desc limit 1
     ) p on true
     where s.garden_id = :gardenId and s.withdrawn_at is null
     order by s.name`,
    { gardenId, on },
  )
  return rows
}
