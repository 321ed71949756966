import type { SuspicionDetail } from '@border/contract'
import { addDays, seasonYearOf, yearOf, type Assessment, type Cause, type IsoDate } from '@border/core'
import type { GardenReader } from '../reader.ts'
import { lockGarden } from '../store/gardens.ts'
import { recordRecheck } from '../store/light.ts'
import { assessGardenOn } from './assess.ts'
import type { ComputePool } from './compute.ts'
import { diagnoseGarden } from './diagnosis.ts'
import { lightAhead, lightEvidence } from './light.ts'

/** An explanation is worth raising from here on: three to one, the odds called positive by Kass and Raftery 1995. */
const BELIEVED = 0.75
/** Readings beyond those the plan itself accounts for. */
const LEAST_MORE = 2
/** A coming change is raised this many years before. */
const RAISED_YEARS = 2
/** A recorded change is raised for so long after it. */
const RECENT_DAYS = 400

type Found = { key: string; detail: SuspicionDetail }

/**
 * Re-checks a garden: readings against the plan, growth and planned changes against what plants like, recorded changes
 * against the same, and what plants show against all of them. What is found is written down once; see `recordRecheck`.
 */
export async function recheckGarden(reader: GardenReader, pool: ComputePool, nowMs: number): Promise<void> {
  const found = [
    ...(await fromReadings(reader, pool, nowMs)),
    ...(await fromYearsAhead(reader, pool)),
    ...(await fromChanges(reader, pool)),
    ...(await fromSigns(reader, pool)),
  ]
  await reader.db.transaction(async (trx) => {
    await lockGarden(trx, reader.garden.id)
    await recordRecheck(trx, reader.garden.id, reader.today, found)
  })
}

async function fromReadings(reader: GardenReader, pool: ComputePool, nowMs: number): Promise<Found[]> {
  const { explanations, used } = await lightEvidence(reader, pool, nowMs)
  const [first] = explanations
  if (!first || first.cause.what === 'as drawn' || first.posterior < BELIEVED) return []
  const drawn = explanations.find((e) => e.cause.what === 'as drawn')
  if (drawn && first.explains.length < drawn.explains.length + LEAST_MORE) return []
  const { cause, posterior, explains } = first
  return [
    {
      key: `unrecorded|${causeKey(cause)}`,
      detail: { kind: 'unrecorded', cause, posterior, explains: explains.length, used },
    },
  ]
}

/** The same suspicion at another size is the same suspicion; something new is told by where it stands. */
function causeKey(cause: Cause): string {
  if (cause.what === 'new') return `new|${(Math.round(cause.block.bearingDeg / 45) * 45 + 360) % 360}`
  return cause.what === 'as drawn' ? cause.what : `${cause.what}|${cause.obstructionId}`
}

async function fromYearsAhead(reader: GardenReader, pool: ComputePool): Promise<Found[]> {
  const { today } = reader
  const { coming } = await lightAhead(reader, pool, today)
  return coming
    .filter((c) => c.leaves && c.year <= yearOf(today) + RAISED_YEARS)
    .map((change) => ({
      key: `ahead|${change.plantingId}|${change.causes[0]?.obstructionId ?? ''}`,
      detail: { kind: 'ahead', change },
    }))
}

async function fromChanges(reader: GardenReader, pool: ComputePool): Promise<Found[]> {
  const { today } = reader
  const { assessments } = await assessGardenOn(reader, pool, today)
  const decided = new Set((await reader.decisions()).map((d) => d.plantingId))
  return assessments.flatMap((a): Found[] => {
    const cause = recentCause(a, today)
    if (!a.outside || !cause || decided.has(a.plantingId)) return []
    return [
      {
        key: `changed|${a.plantingId}|${cause.obstructionId}|${cause.date}`,
        detail: { kind: 'changed', plantingId: a.plantingId, before: a.before, now: a.now, cause },
      },
    ]
  })
}

/** A cause is suspected of a place once a season. */
async function fromSigns(reader: GardenReader, pool: ComputePool): Promise<Found[]> {
  const { suspected } = await diagnoseGarden(reader, pool)
  const season = seasonYearOf(reader.today, reader.garden.latitude < 0)
  return suspected.map((change) => ({
    key: `signs|${change.placeId}|${change.cause}|${season}`,
    detail: { kind: 'signs', change },
  }))
}

const recentCause = (a: Assessment, today: IsoDate) =>
  a.causes.find((c) => c.date !== undefined && c.date > addDays(today, -RECENT_DAYS))
