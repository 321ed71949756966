import type { z } from 'zod'
import type { BulkAnswer, bulkDecisionRequest, DecisionRequest, MoveTarget } from '@border/contract'
import {
  dayMonthYear,
  decidedJobs,
  distanceToSegment,
  isAlive,
  isPlace,
  groundOf,
  groundTaken,
  hasRoom,
  moveJobs,
  type Assessment,
  type DecidedWork,
} from '@border/core'
import type { FeatureRecord } from '@border/contract'
import type { Piscina } from 'piscina'
import type { Db } from '../database/connect.ts'
import { Refusal } from '../errors.ts'
import { listFeatures, type GardenAccess } from '../store/gardens.ts'
import { dropOpenJobs, insertDecision, insertJobs } from '../store/jobs.ts'
import { listPlantings } from '../store/plantings.ts'
import { findClimate } from '../store/weather.ts'
import { gardenModel } from './assess.ts'
import { caredGarden } from './careWork.ts'
import { planSeason } from './planSeason.ts'

/** A line this near either end of a move, in metres, is named at the job. */
const HAZARD_NEAR_M = 2

type Who = { personId: string; today: string }

/** Records what a person chose; a move makes its jobs and puts them on days. Run inside a transaction. */
export async function decide(
  trx: Db,
  pool: Piscina,
  who: Who,
  garden: GardenAccess,
  request: DecisionRequest,
  assessment: Assessment,
): Promise<{ decisionId: string }> {
  const decisionId = await keepDecision(trx, who, garden, request, assessment)
  await planSeason(trx, pool, garden, who.today)
  return { decisionId }
}

/**
 * The same word on many proposals: each is kept or refused by itself, and the season is planned once. Ground that one move
 * takes is no longer there for the next. Run inside a transaction.
 */
export async function decideMany(
  trx: Db,
  pool: Piscina,
  who: Who,
  garden: GardenAccess,
  { plantingIds, on, word }: z.infer<typeof bulkDecisionRequest>,
  assess: () => Promise<readonly Assessment[]>,
): Promise<BulkAnswer> {
  const answer: BulkAnswer = { kept: [], refused: [] }
  let assessments = await assess()
  for (const plantingId of new Set(plantingIds)) {
    const assessment = assessments.find((a) => a.plantingId === plantingId)
    if (!assessment) {
      answer.refused.push({ plantingId, why: notAssessed(on).message })
      continue
    }
    try {
      // What one refusal undoes is its own alone.
      await trx.transaction((own) => keepDecision(own, who, garden, { plantingId, on, ...word }, assessment))
      answer.kept.push(plantingId)
      if (word.choice === 'accept' && assessment.verdict.action === 'move') assessments = await assess()
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      answer.refused.push({ plantingId, why: error.message })
    }
  }
  await planSeason(trx, pool, garden, who.today)
  return answer
}

async function keepDecision(
  trx: Db,
  who: Who,
  garden: GardenAccess,
  request: DecisionRequest,
  assessment: Assessment,
): Promise<string> {
  const { verdict } = assessment
  const action =
    request.choice === 'accept'
      ? verdict.action
      : request.choice === 'otherwise'
        ? request.action
        : verdict.action
  const moves = request.choice !== 'wait' && action === 'move'
  const target = moves ? ('target' in request && request.target) || firstSpot(assessment) : null
  if (moves && !target) throw new Refusal(422, 'Say where it goes: no free spot was found for it.')
  if (target) await requireRoom(trx, garden, request.plantingId, who.today, target)
  if (request.choice === 'wait' && request.until <= who.today)
    throw new Refusal(422, 'The day to wait until must lie ahead.')
  const decisionId = await insertDecision(trx, {
    gardenId: garden.id,
    plantingId: request.plantingId,
    asOf: who.today,
    verdict,
    choice: request.choice,
    action,
    reason: ('reason' in request && request.reason) || null,
    waitUntil: request.choice === 'wait' ? request.until : null,
    target,
    personId: who.personId,
  })
  // A later word replaces what an earlier one set going.
  await dropOpenJobs(trx, request.plantingId)
  if (target) await makeJobs(trx, who.today, garden, request.plantingId, decisionId, target)
  else if (request.choice !== 'wait' && isWork(action))
    await makeWork(trx, who.today, garden, request.plantingId, decisionId, action)
  return decisionId
}

/** The ground may have been taken or promised since the page was read. */
async function requireRoom(
  trx: Db,
  garden: GardenAccess,
  plantingId: string,
  today: string,
  target: MoveTarget,
): Promise<void> {
  const model = await gardenModel(trx, garden, today)
  const place = model.places.find((p) => p.id === target.placeId)
  const planting = model.plantings.find((p) => p.id === plantingId)
  if (!place) throw new Refusal(422, 'The place to move to was not found in this garden.')
  if (!planting) throw notAssessed(today)
  const others = groundTaken(model).filter((o) => o.plantingId !== plantingId)
  if (!hasRoom(place, target, groundOf(planting).radiusM, others))
    throw new Refusal(
      409,
      `There is no room for it at that spot in ${place.name}: the ground is taken or promised. Choose another.`,
    )
}

function firstSpot(assessment: Assessment): MoveTarget | null {
  const best = assessment.verdict.spots[0]
  return best ? { placeId: best.placeId, x: best.x, y: best.y } : null
}

async function makeJobs(
  trx: Db,
  today: string,
  garden: GardenAccess,
  plantingId: string,
  decisionId: string,
  target: MoveTarget,
): Promise<void> {
  const [planting] = await listPlantings(trx, garden.id, today, plantingId)
  if (!planting) throw new Refusal(409, 'This planting no longer stands in the garden.')
  const features = await listFeatures(trx, garden.id)
  const to = features.find((f) => f.id === target.placeId && isAlive(f, today))
  if (!to || !isPlace(to)) throw new Refusal(422, 'The place to move to was not found in this garden.')
  const { climate } = await findClimate(trx, garden)
  if (!climate) throw noClimate()
  const planned = moveJobs(
    {
      taxon: planting.taxon,
      count: planting.livingCount,
      fromPlace: features.find((f) => f.id === planting.placeId)?.name ?? 'its place',
      toPlace: to.name,
      hazards: hazardsNear(features, today, [planting, target]),
      toContainer: to.kind === 'container',
      schools: garden.schools,
    },
    climate,
    today,
  )
  if (!planned.ok)
    throw new Refusal(
      422,
      planned.reason === 'resents-moving'
        ? `${planting.taxon.botanical} resents moving: start a young plant or cutting in the new spot instead.`
        : `${planted(planting.taxon.botanical)} ${planned.why}`,
    )
  const owner = { gardenId: garden.id, plantingId, decisionId, placeId: target.placeId, target }
  await insertJobs(trx, owner, planned.jobs)
}

const work: readonly string[] = ['cut back', 'divide', 'replace', 'remove'] satisfies DecidedWork[]
const isWork = (action: string): action is DecidedWork => work.includes(action)

/** Work that is decided for a planting where it stands. */
async function makeWork(
  trx: Db,
  today: string,
  garden: GardenAccess,
  plantingId: string,
  decisionId: string,
  action: DecidedWork,
): Promise<void> {
  const [planting] = await listPlantings(trx, garden.id, today, plantingId)
  if (!planting) throw new Refusal(409, 'This planting no longer stands in the garden.')
  const place = (await listFeatures(trx, garden.id)).find((f) => f.id === planting.placeId)
  const cared = await caredGarden(trx, garden, today)
  if (!cared) throw noClimate()
  const planned = decidedJobs(
    action,
    {
      taxon: planting.taxon,
      count: planting.livingCount,
      place: place?.name ?? 'its place',
      placeKind: place?.kind === 'container' ? 'container' : 'bed',
      lateDays: cared.lateDays,
      schools: garden.schools,
      rules: cared.rules,
    },
    cared.climate,
    today,
  )
  if (!planned.ok) throw new Refusal(422, `${planting.taxon.botanical}: ${planned.why}`)
  await insertJobs(
    trx,
    { gardenId: garden.id, plantingId, decisionId, placeId: planting.placeId, target: null },
    planned.jobs,
  )
}

const noClimate = () =>
  new Refusal(
    422,
    'This garden has no climate record yet, so no window can be worked out. Add one in Set-up.',
  )

const planted = (name: string) => `${name} cannot be given a window here.`

function hazardsNear(
  features: readonly FeatureRecord[],
  today: string,
  spots: readonly { x: number; y: number }[],
): string[] {
  return features
    .filter(
      (f) => f.kind === 'hazard' && isAlive(f, today) && spots.some((s) => distanceTo(f, s) <= HAZARD_NEAR_M),
    )
    .map((f) => f.name)
}

function distanceTo(f: FeatureRecord, p: { x: number; y: number }): number {
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

export const notAssessed = (on: string) =>
  new Refusal(409, `This planting does not stand in the garden on ${dayMonthYear(on)}.`)
