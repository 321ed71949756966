import type { Evidence } from '@border/core'
import type { Piscina } from 'piscina'
import type { Db } from '../database/connect.ts'
import type { GardenAccess } from '../store/gardens.ts'
import { listDivided } from '../store/jobs.ts'
import { listPlantings } from '../store/plantings.ts'
import { diagnoseGarden } from './diagnosis.ts'
import { recordOfGarden } from './record.ts'

/** What is known of a garden's plantings beside their light: the season's signs, the record, their age. */
export async function evidenceOfGarden(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  asked: { today: string; signal?: AbortSignal | undefined },
): Promise<Record<string, Evidence>> {
  const { diagnoses } = await diagnoseGarden(db, pool, garden, asked)
  const record = await recordOfGarden(db, pool, garden, asked)
  const divided = await listDivided(db, garden.id)
  const seen = new Map(diagnoses.map((d) => [d.plantingId, d]))
  // Falls are told of stays: what went on in an earlier place is not of this one.
  const standing = new Map(
    record.stays.flatMap((s) => (s.to === null ? [[s.id, s.plantingId] as const] : [])),
  )
  const declines = new Map(record.declines.map((d) => [standing.get(d.plantingId), d]))
  const kinds = new Map(record.taxa.map((t) => [t.taxon, t]))
  const plantings = await listPlantings(db, garden.id, asked.today)
  return Object.fromEntries(
    plantings.map((p): [string, Evidence] => [
      p.id,
      {
        signs: seen.get(p.id)?.signs ?? [],
        rating: seen.get(p.id)?.rating ?? null,
        decline: declines.get(p.id) ?? null,
        living: p.livingCount / p.plantedCount,
        dividedOn: divided.get(p.id) ?? p.plantedOn,
        role: p.role,
        again: againOf[kinds.get(p.taxon.botanical)?.again ?? 'open'],
      },
    ]),
  )
}

const againOf = { again: 'yes', 'not again': 'no', open: null } as const
