import {
  containerRadiusM,
  driftRadiusM,
  isAlive,
  litPlaceOf,
  placeMoisture,
  sceneOf,
  surfaceHeightM,
  usualThen,
  type Assessment,
  type CareGarden,
  type GardenLight,
  type GardenModel,
  type Likelihood,
  type LitGarden,
  type Look,
  type PlacedJob,
  type PlanProblem,
  type Reading,
  type Scene,
  type SignedPlanting,
  type TargetPlace,
  type Trial,
  type Year,
} from '@border/core'
import type { FeatureRecord } from '@border/contract'
import { availableParallelism } from 'node:os'
import type { MessagePort } from 'node:worker_threads'
import { Piscina } from 'piscina'
import type { Db } from '../database/connect.ts'
import type { BloomTask, RecordTask } from './record.ts'
import { kept } from '../store/computed.ts'
import { listFeatures, type GardenAccess } from '../store/gardens.ts'
import { listReserved } from '../store/jobs.ts'
import { listPlantings } from '../store/plantings.ts'

/** What the threads are asked for: the function's name and what it is given. */
export interface ComputeTasks {
  light: { garden: Omit<GardenModel, 'reserved' | 'evidence'>; then: string; on: string }
  judge: { garden: GardenModel; light: GardenLight; on: string }
  ahead: { garden: LitGarden; on: string; years: number; ailing: string[] }
  scenarios: { garden: LitGarden; on: string; trials: Trial[][] }
  record: RecordTask
  bloom: BloomTask
  diagnose: { plantings: SignedPlanting[]; table: Likelihood[]; year: Year }
  plan: { problem: PlanProblem; rounds: number }
  why: { problem: PlanProblem; placed: PlacedJob[]; jobId: string }
  planTelling: { problem: PlanProblem; port: MessagePort }
  care: { garden: CareGarden; on: string; until: string }
  explain: { scene: Scene; readings: Reading[]; looks: Look[]; most: number; shown: number }
}

/** Threads for heavy computation. From source the worker is TypeScript; built, it lies beside the server. */
export function computePool(threads = Math.max(1, availableParallelism() - 1)): Piscina {
  const file = import.meta.url.endsWith('.ts') ? './computeWorkerFromSource.mjs' : './computeWorker.js'
  return new Piscina({
    filename: new URL(file, import.meta.url).href,
    maxThreads: threads,
    idleTimeout: 30_000,
    execArgv: [],
  })
}

/** Bump when the computation changes, so that stored results of the old one are not used. */
export const COMPUTATION = 9

interface Compared {
  today: string
  /** What is known of plantings beside their light; absent: their light alone is judged. */
  evidence?: GardenModel['evidence']
  then?: string | undefined
  signal?: AbortSignal | undefined
}

/**
 * The light of a garden on a day, off the event loop; a day ahead is compared with today. It takes seconds and is kept by
 * all it was worked out from.
 */
export async function lightOfGarden(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  on: string,
  { today, then: chosenThen, signal }: Compared,
): Promise<{ model: GardenModel; then: string; light: GardenLight }> {
  const model = await gardenModel(db, garden, on)
  const then = chosenThen ?? (on > today ? today : usualThen(model.scene.obstructions, on))
  const { reserved: _, ...lit } = model
  const task: ComputeTasks['light'] = { garden: lit, then, on }
  const light: GardenLight = await kept(db, ['light', COMPUTATION, task], () =>
    pool.run(task, { name: 'light', signal }),
  )
  return { model, then, light }
}

/** Every planting of a garden judged on a day: a moment's work once its light is known, made anew with every decision. */
export async function assessGardenOn(
  db: Db,
  pool: Piscina,
  garden: GardenAccess,
  on: string,
  compared: Compared,
): Promise<{ then: string; on: string; assessments: Assessment[] }> {
  const { model, then, light } = await lightOfGarden(db, pool, garden, on, compared)
  const toJudge: ComputeTasks['judge'] = { garden: { ...model, evidence: compared.evidence }, light, on }
  return { then, on, assessments: await pool.run(toJudge, { name: 'judge', signal: compared.signal }) }
}

/** The garden as the computation sees it on a day. */
export async function gardenModel(db: Db, garden: GardenAccess, on: string): Promise<GardenModel> {
  const features = await listFeatures(db, garden.id)
  const plantings = await listPlantings(db, garden.id, on)
  const reserved = await listReserved(db, garden.id)
  const places = features.filter((f) => isAlive(f, on)).flatMap((f) => targetPlace(f))
  const byId = new Map(features.map((f) => [f.id, f]))
  return {
    scene: sceneOf(garden, features),
    places,
    plantings: plantings.map((p) => ({
      id: p.id,
      taxon: p.taxon,
      placeId: p.placeId,
      x: p.x,
      y: p.y,
      z: surfaceOf(byId.get(p.placeId)),
      count: p.livingCount,
      radiusM: p.radiusM,
      plantedOn: p.inPlaceSince,
      moisture: placeMoisture(byId.get(p.placeId)),
    })),
    reserved: reserved.map((r) => {
      const p = plantings.find((x) => x.id === r.plantingId)
      return {
        plantingId: r.plantingId,
        placeId: r.target.placeId,
        x: r.target.x,
        y: r.target.y,
        radiusM: p ? (p.radiusM ?? driftRadiusM(p.livingCount, p.taxon.spacingM)) : 0.5,
      }
    }),
  }
}

function targetPlace(f: FeatureRecord): TargetPlace[] {
  const lit = litPlaceOf(f)
  if (!lit) return []
  return lit.kind === 'bed'
    ? [{ ...lit, name: f.name, moisture: placeMoisture(f) }]
    : [{ ...lit, name: f.name, radiusM: containerRadiusM(f) }]
}

const surfaceOf = (f: FeatureRecord | undefined): number => (f ? surfaceHeightM(f) : 0)
