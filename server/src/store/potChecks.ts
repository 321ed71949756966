import type { CheckRequest, CheckView } from '@border/contract'
import { randomUUID } from 'node:crypto'
import type { Db } from '../database/connect.ts'

type Check = CheckView & { containerId: string }

/** What was done and found at the containers of a garden since a day, and tests of their mixes ever; latest first. */
export const listPotChecks = (db: Db, gardenId: string, since: string): Promise<Check[]> =>
  db('pot_checks as c')
    .leftJoin('people as p', 'p.id', 'c.person_id')
    .where({ 'c.garden_id': gardenId, 'c.withdrawn_at': null })
    // What a test says of a mix holds for as long as the mix does.
    .where((found) => void found.where('c.on_date', '>=', since).orWhere('c.kind', 'drained'))
    .orderBy([
      { column: 'c.on_date', order: 'desc' },
      { column: 'c.created_at', order: 'desc' },
    ])
    .select<Check[]>(
      'c.id',
      'c.container_id as containerId',
      'c.on_date as on',
      'c.kind',
      'c.felt',
      'c.lighter_kg as lighterKg',
      'c.rain_mm as rainMm',
      'c.stars',
      'c.sample_l as sampleLitres',
      'c.filled_l as filledLitres',
      'c.drained_l as drainedLitres',
      'c.note',
      'p.name as by',
    )

/** Keeps what was done or found. @returns its id */
export async function insertPotCheck(
  db: Db,
  owner: { gardenId: string; personId: string },
  said: CheckRequest,
): Promise<string> {
  const id = randomUUID()
  await db('pot_checks').insert({
    id,
    garden_id: owner.gardenId,
    person_id: owner.personId,
    container_id: said.containerId,
    on_date: said.on,
    kind: said.kind,
    felt: said.kind === 'felt' ? said.felt : null,
    lighter_kg: said.kind === 'weighed' ? said.lighterKg : null,
    rain_mm: said.kind === 'rained' ? said.rainMm : null,
    stars: said.kind === 'rated' ? said.stars : null,
    sample_l: said.kind === 'drained' ? said.sampleLitres : null,
    filled_l: said.kind === 'drained' ? said.filledLitres : null,
    drained_l: said.kind === 'drained' ? said.drainedLitres : null,
    note: said.note || null,
  })
  return id
}

/** Takes back what was noted by mistake. @returns false where there is no such thing */
export const withdrawPotCheck = async (db: Db, gardenId: string, id: string): Promise<boolean> =>
  (await db('pot_checks')
    .where({ id, garden_id: gardenId, withdrawn_at: null })
    .update({ withdrawn_at: db.fn.now() })) > 0
