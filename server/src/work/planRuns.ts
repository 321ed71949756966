import type { PlanProblem, Progress, SeasonPlan } from '@border/core'
import { createHash } from 'node:crypto'
import type { Piscina } from 'piscina'
import type { Logger } from 'pino'
import { MessageChannel } from 'node:worker_threads'
import type { Db } from '../database/connect.ts'
import { Refusal } from '../errors.ts'
import { computePool, type ComputeTasks } from './assess.ts'
import { crewIdOf, listCrewGardens } from '../store/crews.ts'
import { findGardenForWork, lockGarden } from '../store/gardens.ts'
import { changePlanRun, claimPlanRun, findPlanRun, startPlanRun } from '../store/planRuns.ts'
import { bringCareUpToDate } from './careWork.ts'
import { seasonProblem, takePlan } from './planSeason.ts'

/** A run that has not been heard of for so long has lost its process. */
const LOST_AFTER_MINUTES = 5

/** Asks for a season's plan to be worked out in the background. */
export async function requestPlan(
  trx: Db,
  run: { gardenId: string; today: string; personId: string | null },
): Promise<{ runId: string }> {
  const crewId = await crewIdOf(trx, run.gardenId)
  await trx('plan_runs')
    .where({ crew_id: crewId })
    .whereIn('state', ['queued', 'running'])
    .whereRaw(`changed_at < now() - interval '${LOST_AFTER_MINUTES} minutes'`)
    .update({ state: 'failed', failure: 'It was interrupted.' })
  const { id } = await startPlanRun(trx, { ...run, crewId })
  return { runId: id }
}

/** Works out the plan that has waited longest, if one waits; any number of processes may ask at once. */
export async function workOutNext(db: Db, pool: Piscina): Promise<boolean> {
  const runId = await claimPlanRun(db)
  if (!runId) return false
  await workOut(db, pool, runId)
  return true
}

const LOOK_EVERY_MS = 700

/**
 * Works out plans as they are asked for, until stopped. The table of runs is the queue: each is claimed by one process.
 *
 * @returns stops, letting work under way finish
 */
export function servePlanRuns(db: Db, log: Logger): () => Promise<void> {
  // A thread of its own: nobody who asks for something waits behind a plan.
  const pool = computePool(1)
  let stopped = false
  let wake = () => {}
  const loop = (async () => {
    while (!stopped) {
      const worked = await workOutNext(db, pool).catch((err: unknown) => {
        log.error({ err }, 'a season’s plan')
        return false
      })
      if (!worked && !stopped)
        await new Promise<void>((resolve) => {
          const timer = setTimeout(resolve, LOOK_EVERY_MS)
          wake = () => {
            clearTimeout(timer)
            resolve()
          }
        })
    }
  })()
  return async () => {
    stopped = true
    wake()
    await loop
    await pool.destroy()
  }
}

/** Works a claimed run out: care brought up to date, the whole season searched, the result kept to be looked at. */
async function workOut(db: Db, pool: Piscina, runId: string): Promise<void> {
  try {
    const run = (await findPlanRun(db, runId))!
    const problem = await db.transaction(async (trx) => {
      await lockGarden(trx, run.garden_id)
      const crewId = await crewIdOf(trx, run.garden_id)
      for (const { id } of await listCrewGardens(trx, crewId))
        await bringCareUpToDate(trx, pool, (await findGardenForWork(trx, id))!.garden, run.today)
      return seasonProblem(trx, crewId, run.today)
    })
    const result = await searchWithProgress(db, pool, runId, problem)
    await changePlanRun(db, runId, ['running'], {
      state: 'ready',
      progress: 1,
      result,
      basis: hashOf(problem),
    })
  } catch (error) {
    if ((error as Error).name === 'AbortError') return
    await changePlanRun(db, runId, ['running'], { state: 'failed', failure: 'It could not be worked out.' })
    throw error
  }
}

async function searchWithProgress(
  db: Db,
  pool: Piscina,
  runId: string,
  problem: PlanProblem,
): Promise<SeasonPlan> {
  const { port1, port2 } = new MessageChannel()
  const stop = new AbortController()
  let told: Promise<unknown> = Promise.resolve()
  port1.on('message', ({ done, of }: Progress) => {
    told = told.then(async () => {
      // Dropped by a person: nobody waits for it any more.
      if (!(await changePlanRun(db, runId, ['running'], { progress: Math.min(0.99, done / of) })))
        stop.abort()
    })
  })
  try {
    const task: ComputeTasks['planTelling'] = { problem, port: port2 }
    return await pool.run(task, { name: 'planTelling', transferList: [port2], signal: stop.signal })
  } finally {
    port1.close()
    await told
  }
}

/** Puts a plan that was looked at in place. Run inside a transaction that holds the garden. */
export async function acceptPlan(trx: Db, garden: { id: string }, runId: string): Promise<void> {
  const run = await findPlanRun(trx, runId)
  const crewId = await crewIdOf(trx, garden.id)
  if (run?.crew_id !== crewId || run.state !== 'ready' || !run.result)
    throw new Refusal(409, 'This plan is no longer there to be taken: work it out again.')
  const problem = await seasonProblem(trx, crewId, run.today)
  if (hashOf(problem) !== run.basis)
    throw new Refusal(
      409,
      'Jobs or working days have changed since this plan was worked out: work it out again.',
    )
  await takePlan(trx, problem, run.result, run.today)
  await changePlanRun(trx, runId, ['ready'], { state: 'taken' })
}

const hashOf = (problem: PlanProblem): string =>
  createHash('sha256').update(JSON.stringify(problem)).digest('hex')
