import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

/** Water given to a planting on a day, litres. */
export interface Watering {
  plantingId: string
  day: string
  litres: number
}

/** Water given in a garden since a day. */
export const listWaterings = (db: Db, gardenId: string, since: string): Promise<Watering[]> =>
  db('waterings')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .where('day', '>=', since)
    .orderBy(['day', 'id'])
    .select<Watering[]>('planting_id as plantingId', 'day', 'litres')

/** Keeps water given. */
export async function insertWaterings(
  db: Db,
  owner: { gardenId: string; personId: string },
  given: readonly Watering[],
): Promise<void> {
  await db('waterings').insert(
    given.map((w) => ({
      id: randomUUID(),
      garden_id: owner.gardenId,
      person_id: owner.personId,
      planting_id: w.plantingId,
      day: w.day,
      litres: w.litres,
    })),
  )
}
