import type { Db } from '../database/connect.ts'

/**
 * What a garden's derived views are made from. The database counts each up with every change of what says it
 * (`database/007_foundation.ts`); nothing else does.
 */
export const aspects = [
  'plan',
  'plantings',
  'climate',
  'rules',
  'record',
  'library',
  'decisions',
  'readings',
  'jobs',
  'crew',
] as const
export type Aspect = (typeof aspects)[number]

/** A count for each aspect. */
export type Versions = Readonly<Record<Aspect, string>>

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

/** The aspects in which two states of a garden differ. */
export const changedAspects = (before: Versions | undefined, after: Versions): Aspect[] =>
  aspects.filter((a) => before?.[a] !== after[a])
