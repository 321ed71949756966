import type { Db } from '../database/connect.ts'

/** What a garden's care and its crew's plan were last worked out from. */
export interface WorkedOut {
  careBasis: string | null
  planBasis: string | null
}

export async function findWorkedOut(db: Db, gardenId: string): Promise<WorkedOut> {
  const row = await db('worked_out')
    .where({ garden_id: gardenId })
    .first<WorkedOut | undefined>('care_basis as careBasis', 'plan_basis as planBasis')
  return row ?? { careBasis: null, planBasis: null }
}

export async function setWorkedOut(db: Db, gardenId: string, to: Partial<WorkedOut>): Promise<void> {
  await db('worked_out')
    .where({ garden_id: gardenId })
    .update({
      ...(to.careBasis !== undefined && { care_basis: to.careBasis }),
      ...(to.planBasis !== undefined && { plan_basis: to.planBasis }),
    })
}
