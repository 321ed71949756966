import { aspects, type Versions } from '@border/contract'
import type { Db } from '../database/connect.ts'

/** How often each aspect of a garden has changed. The database counts (`database/009_what_is_told.ts`); nothing else does. */
export async function versionsOf(db: Db, gardenId: string): Promise<Versions> {
  const row = await db('garden_versions')
    .where({ garden_id: gardenId })
    .first<Versions | undefined>(...aspects)
  if (!row) throw new Error(`No versions of garden ${gardenId}`)
  return row
}

/** The versions of all gardens of a practice, with the crew of each. */
export const versionsOfPractice = (
  db: Db,
  practiceId: string,
): Promise<(Versions & { gardenId: string; crewId: string })[]> =>
  db('garden_versions')
    .join('gardens', 'gardens.id', 'garden_id')
    .where({ practice_id: practiceId })
    .select(...aspects, 'garden_id as gardenId', 'crew_id as crewId')
