import type {
  BulkAnswer,
  verdictEndpoints,
  BodyOf,
  DecisionRequest,
  FeatureView,
  MoveTarget,
} from '@border/contract'
import {
  dayMonthYear,
  decidedJobs,
  distanceToSegment,
  groundRadiusM,
  groundTaken,
  groundTakenBy,
  hasRoom,
  isRemedyWork,
  moveJobs,
  remedyJobs,
  type Assessment,
  type DecidedWork,
  type JobDraft,
  type JudgedGarden,
} from '@border/core'
import type { Db } from '../database/connect.ts'
import { Refusal } from '../errors.ts'
import { featuresOn, type GardenReader } from '../reader.ts'
import { insertDecision } from '../store/decisions.ts'
import { dropDecidedJobs, insertJobs } from '../store/jobs.ts'
import { assessGardenOn, judge, judgedGarden } from './assess.ts'
import { lightOfGarden } from './gardenLight.ts'
import { caredGarden } from './care.ts'
import type { ComputePool } from './compute.ts'
import { yearOfGarden } from './diagnosis.ts'

/** A line this near either end of a move, in metres, is named at the job. */
const HAZARD_NEAR_M = 2

/** A word on a planting with all that follows from it, worked out and not yet written down. */
export interface DraftedDecision {
  plantingId: string
  decision: Omit<Parameters<typeof insertDecision>[1], 'gardenId' | 'personId'>
  /** Where the jobs are done, and the jobs. */
  placeId: string
  jobs: readonly JobDraft[]
}

/**
 * Works out what a person's word on a planting comes to, as the garden stands. It writes nothing: what it returns is kept by
 * `keepDecisions` while the garden still stands so.
 *
 * @throws {Refusal} where the word cannot be kept
 */
export async function draftDecision(
  reader: GardenReader,
  pool: ComputePool,
  request: DecisionRequest,
): Promise<DraftedDecision> {
  const { assessments } = await assessGardenOn(reader, pool, request.on)
  const assessment = assessments.find((a) => a.plantingId === request.plantingId)
  if (!assessment) throw notAssessed(request.on)
  const garden = await judgedGarden(reader, pool, reader.today)
  return draft(reader, garden, request, assessment)
}

/** One word on many proposals: what it comes to for each, and why some refuse it. */
export type DraftedMany = { drafts: DraftedDecision[]; refused: BulkAnswer['refused'] }

/**
 * The same word on many proposals: each is drafted or refused by itself. Ground that one move takes is no longer there for the
 * next.
 */
export async function draftMany(
  reader: GardenReader,
  pool: ComputePool,
  { plantingIds, on, word }: BodyOf<typeof verdictEndpoints.decideMany>,
): Promise<DraftedMany> {
  let { assessments } = await assessGardenOn(reader, pool, on)
  const { light } = await lightOfGarden(reader, pool, on)
  let garden = await judgedGarden(reader, pool, reader.today)
  const answer: DraftedMany = { drafts: [], refused: [] }
  for (const plantingId of new Set(plantingIds)) {
    const assessment = assessments.find((a) => a.plantingId === plantingId)
    if (!assessment) {
      answer.refused.push({ plantingId, why: notAssessed(on).message })
      continue
    }
    try {
      const made = await draft(reader, garden, { plantingId, on, ...word }, assessment)
      answer.drafts.push(made)
      const { target } = made.decision
      const planting = garden.plantings.find((p) => p.id === plantingId)
      if (!target || !planting) continue
      const moved = { ...planting, ...target, outline: null, radiusM: groundRadiusM(planting) }
      garden = { ...garden, reserved: [...garden.reserved, groundTakenBy(moved)] }
      assessments = await judge(pool, garden, light, on)
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      answer.refused.push({ plantingId, why: error.message })
    }
  }
  return answer
}

/** Writes a drafted decision down. Run inside a transaction that holds the garden, as it stood when it was drafted. */
export async function keepDecision(
  trx: Db,
  owner: { gardenId: string; personId: string },
  { plantingId, decision, placeId, jobs }: DraftedDecision,
): Promise<string> {
  const decisionId = await insertDecision(trx, { ...owner, ...decision })
  // A later word replaces what an earlier one set going.
  await dropDecidedJobs(trx, plantingId)
  if (jobs.length > 0)
    await insertJobs(
      trx,
      { gardenId: owner.gardenId, decisionId },
      jobs.map((job) => ({
        ...job,
        plantingId,
        plantingIds: [plantingId],
        placeId,
        target: decision.target,
      })),
    )
  return decisionId
}

async function draft(
  reader: GardenReader,
  garden: JudgedGarden,
  request: DecisionRequest,
  { verdict }: Assessment,
): Promise<DraftedDecision> {
  const { today } = reader
  const planting = garden.plantings.find((p) => p.id === request.plantingId)
  if (!planting) throw new Refusal(409, 'This planting no longer stands in the garden.')
  const action = request.choice === 'otherwise' ? request.action : verdict.action
  const moves = request.choice !== 'wait' && action === 'move'
  const target = moves ? ('target' in request && request.target) || firstSpot(verdict) : null
  if (moves && !target) throw new Refusal(422, 'Say where it goes: no free spot was found for it.')
  if (target) requireRoom(garden, planting.id, target)
  if (request.choice === 'wait' && request.until <= today)
    throw new Refusal(422, 'The day to wait until must lie ahead.')
  const jobs = target
    ? await jobsOfMove(reader, garden, planting, target)
    : request.choice !== 'wait'
      ? await jobsInPlace(reader, garden, planting, { action, verdict })
      : []
  return {
    plantingId: planting.id,
    decision: {
      plantingId: planting.id,
      asOf: today,
      verdict,
      choice: request.choice,
      action,
      reason: ('reason' in request && request.reason) || null,
      waitUntil: request.choice === 'wait' ? request.until : null,
      target,
    },
    placeId: target?.placeId ?? planting.placeId,
    jobs,
  }
}

/** The ground may have been taken or promised since the page was read. */
function requireRoom(garden: JudgedGarden, plantingId: string, target: MoveTarget): void {
  const place = garden.places.find((p) => p.id === target.placeId)
  const planting = garden.plantings.find((p) => p.id === plantingId)!
  if (!place) throw new Refusal(422, 'The place to move to was not found in this garden.')
  const others = groundTaken(garden).filter((o) => o.plantingId !== plantingId)
  if (!hasRoom(place, target, groundRadiusM(planting), others))
    throw new Refusal(
      409,
      `There is no room for it at that spot in ${place.name}: the ground is taken or promised. Choose another.`,
    )
}

function firstSpot({ spots }: Assessment['verdict']): MoveTarget | null {
  const [best] = spots
  return best ? { placeId: best.placeId, x: best.x, y: best.y } : null
}

type Moved = JudgedGarden['plantings'][number]

async function jobsOfMove(
  reader: GardenReader,
  { places }: JudgedGarden,
  planting: Moved,
  target: MoveTarget,
): Promise<JobDraft[]> {
  const { climate } = await reader.climate()
  if (!climate) throw noClimate()
  const to = places.find((p) => p.id === target.placeId)!
  const planned = moveJobs(
    {
      taxon: planting.taxon,
      count: planting.livingCount,
      fromPlace: places.find((p) => p.id === planting.placeId)?.name ?? 'its place',
      toPlace: to.name,
      hazards: hazardsNear(await featuresOn(reader), [planting, target]),
      toContainer: to.kind === 'container',
      schools: reader.garden.schools,
    },
    climate,
    reader.today,
  )
  if (planned.ok) return planned.jobs
  throw new Refusal(
    422,
    planned.reason === 'resents-moving'
      ? `${planting.taxon.botanical} resents moving: start a young plant or cutting in the new spot instead.`
      : `${planting.taxon.botanical} cannot be given a window here. ${planned.why}`,
  )
}

const work: readonly string[] = ['cut back', 'divide', 'replace', 'remove'] satisfies DecidedWork[]
const isWork = (action: string): action is DecidedWork => work.includes(action)

/** Work that is decided for a planting where it stands: as its remedy says, or as the rules of care do. */
async function jobsInPlace(
  reader: GardenReader,
  { places }: JudgedGarden,
  planting: Moved,
  { action, verdict }: { action: string; verdict: Assessment['verdict'] },
): Promise<JobDraft[]> {
  const place = places.find((p) => p.id === planting.placeId)
  const { taxon, livingCount: count } = planting
  const at = { taxon, count, place: place?.name ?? 'its place' }
  const remedy = verdict.remedies.find((r) => r.action === action && isRemedyWork(r.id))
  if (remedy) {
    const { year } = await yearOfGarden(reader)
    const { climate } = await reader.climate()
    return accepted(planting, remedyJobs(remedy, { ...at, year }, climate, reader.today))
  }
  if (!isWork(action)) return []
  const cared = await caredGarden(reader)
  if (!cared) throw noClimate()
  const request = {
    ...at,
    placeKind: place?.kind ?? ('bed' as const),
    lateDays: cared.lateDays,
    schools: reader.garden.schools,
    rules: cared.rules,
  }
  return accepted(planting, decidedJobs(action, request, cared.climate, reader.today))
}

function accepted(
  { taxon }: Moved,
  planned: { ok: true; jobs: JobDraft[] } | { ok: false; why: string },
): JobDraft[] {
  if (!planned.ok) throw new Refusal(422, `${taxon.botanical}: ${planned.why}`)
  return planned.jobs
}

const noClimate = () =>
  new Refusal(
    422,
    'This garden has no climate record yet, so no window can be worked out. Add one in Set-up.',
  )

export const hazardsNear = (
  standing: readonly FeatureView[],
  spots: readonly { x: number; y: number }[],
): string[] =>
  standing
    .filter((f) => f.kind === 'hazard' && spots.some((s) => distanceTo(f, s) <= HAZARD_NEAR_M))
    .map((f) => f.name)

function distanceTo(f: FeatureView, p: { x: number; y: number }): number {
  const g = f.geometry
  if (g.type === 'Point') return Math.hypot(g.coordinates[0] - p.x, g.coordinates[1] - p.y)
  const line = g.type === 'LineString' ? g.coordinates : g.coordinates[0]!
  let best = Infinity
  for (let i = 0; i + 1 < line.length; i++) {
    const [a, b] = [line[i]!, line[i + 1]!]
    best = Math.min(best, distanceToSegment(p.x, p.y, [a[0], a[1]], [b[0], b[1]]))
  }
  return best
}

const notAssessed = (on: string) =>
  new Refusal(409, `This planting does not stand in the garden on ${dayMonthYear(on)}.`)
