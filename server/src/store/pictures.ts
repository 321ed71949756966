import type { PictureView } from '@border/contract'
import type { Laying } from '@border/core'
import type { Db } from '../database/connect.ts'
import { Refusal } from '../errors.ts'

interface PictureRow {
  id: string
  name: string
  width: number
  height: number
  laying: PictureView['laying']
  strength: number
  is_shown: boolean
  by: string | null
}

const toPicture = ({ is_shown: isShown, strength, ...rest }: PictureRow): PictureView => ({
  ...rest,
  isShown,
  // Kept in single precision.
  strength: Math.round(strength * 1000) / 1000,
})

const standing = (db: Db, gardenId: string) =>
  db('plan_pictures')
    .leftJoin('people', 'people.id', 'person_id')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .orderBy('plan_pictures.created_at')
    .select<PictureRow[]>(
      'plan_pictures.id',
      'plan_pictures.name',
      'width',
      'height',
      'laying',
      'strength',
      'is_shown',
      'people.name as by',
    )

/** Pictures under a garden's plan, the first added lowest. */
export const listPictures = async (db: Db, gardenId: string): Promise<PictureView[]> =>
  (await standing(db, gardenId)).map(toPicture)

export async function findPlanPicture(
  db: Db,
  gardenId: string,
  id: string,
): Promise<PictureView | undefined> {
  const [row] = await standing(db, gardenId).where({ 'plan_pictures.id': id })
  return row && toPicture(row)
}

/** A picture's bytes, JPEG. */
export async function findPictureFile(db: Db, gardenId: string, id: string): Promise<Buffer | undefined> {
  const row = await db('plan_pictures')
    .where({ garden_id: gardenId, id, withdrawn_at: null })
    .first<{ picture: Buffer } | undefined>('picture')
  return row?.picture
}

export interface NewPlanPicture {
  id: string
  name: string
  width: number
  height: number
  picture: Buffer
  contentHash: string
}

/**
 * Keeps a picture once.
 *
 * @returns the id it is known by: of the one that was there, where it is the same
 * @throws {Refusal} where something else has its id
 */
export async function insertPicture(
  db: Db,
  { gardenId, personId }: { gardenId: string; personId: string },
  { contentHash, ...p }: NewPlanPicture,
): Promise<string> {
  await db('plan_pictures')
    .insert({ ...p, content_hash: contentHash, garden_id: gardenId, person_id: personId })
    .onConflict()
    .ignore()
  const kept = await db('plan_pictures')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .andWhere((q) => q.where({ id: p.id }).orWhere({ content_hash: contentHash }))
    .first<{ id: string } | undefined>('id')
  if (!kept) throw new Refusal(409, 'This was sent under an id that something else has. Nothing was saved.')
  return kept.id
}

/** What is said otherwise of a picture. */
export async function updatePicture(
  db: Db,
  gardenId: string,
  id: string,
  {
    isShown,
    laying,
    ...rest
  }: Partial<Pick<PictureView, 'name' | 'strength' | 'isShown'>> & {
    laying?: Laying | null | undefined
  },
): Promise<void> {
  const change = {
    ...rest,
    ...(isShown !== undefined && { is_shown: isShown }),
    ...(laying !== undefined && { laying: laying && JSON.stringify(laying) }),
  }
  if (Object.keys(change).length > 0)
    await db('plan_pictures').where({ garden_id: gardenId, id, withdrawn_at: null }).update(change)
}

/** @returns false where there is none under this id to be taken away, or brought back */
export async function withdrawPicture(
  db: Db,
  gardenId: string,
  id: string,
  withdrawn: boolean,
): Promise<boolean> {
  const changed = await db('plan_pictures')
    .where({ garden_id: gardenId, id })
    .andWhere((q) => (withdrawn ? q.whereNull('withdrawn_at') : q.whereNotNull('withdrawn_at')))
    .update({ withdrawn_at: withdrawn ? db.fn.now() : null })
  return changed > 0
}
