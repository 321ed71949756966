import type { DiagnosisView } from '@border/contract'
import type { Condition } from '@border/core'
import { group } from 'd3-array'
import type { GardenReader } from '../reader.ts'
import { dividedOf } from '../store/jobs.ts'
import { signsLastSeen } from '../store/observations.ts'
import type { ComputePool } from './compute.ts'
import { diagnoseGarden } from './diagnosis.ts'
import { recordOfGarden } from './record.ts'

/** What is known of a garden's plantings beside their light: the season's signs, the record, their age. */
export async function conditionsOfGarden(
  reader: GardenReader,
  pool: ComputePool,
): Promise<Record<string, Condition>> {
  const [diagnosis, record] = await Promise.all([diagnoseGarden(reader, pool), recordOfGarden(reader, pool)])
  const divided = dividedOf(await reader.jobs())
  const seen = new Map(diagnosis.diagnoses.map((d) => [d.plantingId, d]))
  const lastSeen = group(
    await signsLastSeen(reader.db, reader.garden.id, diagnosis.since, reader.today),
    (s) => s.plantingId,
  )
  const passedOver = new Map(diagnosis.passedOver.map(({ plantingId, ...p }) => [plantingId, p]))
  // Falls are told of stays: what went on in an earlier place is not of this one.
  const standing = new Map(
    record.stays.flatMap((s) => (s.to === null ? [[s.id, s.plantingId] as const] : [])),
  )
  const declines = new Map(record.declines.map((d) => [standing.get(d.plantingId), d]))
  const taxa = new Map(record.taxa.map((t) => [t.taxon, t]))
  return Object.fromEntries(
    (await reader.plantings()).map((p): [string, Condition] => [
      p.id,
      {
        signs: seen.get(p.id)?.signs ?? [],
        signsOn: Object.fromEntries((lastSeen.get(p.id) ?? []).map(({ sign, on }) => [sign, on])),
        rating: seen.get(p.id)?.rating ?? null,
        passedOver: passedOver.get(p.id) ?? null,
        decline: declines.get(p.id) ?? null,
        living: p.livingCount / p.plantedCount,
        dividedOn: divided.get(p.id) ?? p.plantedOn,
        role: p.role,
        likely: likelyOf(seen.get(p.id)),
        poorHere: taxa.get(p.taxon.botanical)?.outliers.includes(p.placeId) ?? false,
        again: againOf[taxa.get(p.taxon.botanical)?.again ?? 'open'],
      },
    ]),
  )
}

/** What is believed most of a planting, where more is than that nothing is the matter. */
function likelyOf(d: DiagnosisView['diagnoses'][number] | undefined): Condition['likely'] {
  const [top] = d?.causes ?? []
  return d && top && top.share > d.nothing ? { cause: top.cause, share: top.share } : undefined
}

const againOf = { again: 'yes', 'not again': 'no', open: null } as const
