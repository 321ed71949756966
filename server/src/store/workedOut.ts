import type { Db } from '../database/connect.ts'

/** What a garden's care and its crew's plan were last worked out from. */
export interface WorkedOut {
  careBasis: string | null
  scheduleBasis: string | null
}

/** What the work of a garden was last made from. */
export async function findWorkedOut(db: Db, gardenId: string): Promise<WorkedOut> {
  const row = await db('worked_out')
    .where({ garden_id: gardenId })
    .first<WorkedOut | undefined>('care_basis as careBasis', 'schedule_basis as scheduleBasis')
  return row ?? { careBasis: null, scheduleBasis: null }
}

/** Notes what the work of a garden was made from. */
export async function setWorkedOut(db: Db, gardenId: string, to: Partial<WorkedOut>): Promise<void> {
  await db('worked_out')
    .where({ garden_id: gardenId })
    .update({
      ...(to.careBasis !== undefined && { care_basis: to.careBasis }),
      ...(to.scheduleBasis !== undefined && { schedule_basis: to.scheduleBasis }),
    })
}
