import type { Progress, Schedule } from '@border/core'
import { addDays, gardenDay, gardenInstant } from '@border/core'
import type { Logger } from 'pino'
import { MessageChannel } from 'node:worker_threads'
import type { Db } from '../database/connect.ts'
import { Refusal } from '../errors.ts'
import { openGarden } from '../reader.ts'
import { listCheckedOn, listCrewGardens } from '../store/gardens.ts'
import { changeRun, claimRun, findRun, type Run } from '../store/runs.ts'
import { followService } from '../store/weather.ts'
import { WeatherSilent } from '../store/weatherService.ts'
import { behalfNow, onBehalfOf } from '../turns.ts'
import { bringCareUpToDate } from './care.ts'
import type { ComputeTasks } from './computeTasks.ts'
import { crewSeason, reschedule, takeSchedule, type CrewSeason } from './schedule.ts'
import { recheckGarden } from './suspect.ts'
import type { ComputePool } from './compute.ts'

/** What long work is done with. */
export interface Workshop {
  db: Db
  pool: ComputePool
  /** The real instant, milliseconds since 1970. */
  now: () => number
  log?: Logger | undefined
}

/** A garden that changes under its run so often is left to the next one. */
const MOST_TRIES = 8

/**
 * Brings the work of a crew's gardens, and the plan over all of them, up to date with what has changed.
 *
 * @returns what the plan moved
 */
async function followChanges(
  { db, pool, now }: Workshop,
  crewId: string,
): Promise<{ moved: Schedule['moved'] }> {
  for (let attempt = 0; attempt < MOST_TRIES; attempt++) {
    let isReady = true
    for (const g of await listCrewGardens(db, crewId))
      isReady &&= await bringCareUpToDate(db, pool, g, gardenDay(g.standsAt, g.timeZone, now()))
    const moved = isReady ? await reschedule(db, pool, crewId, now()) : undefined
    if (moved) return { moved }
  }
  throw new Error(`The gardens of crew ${crewId} change faster than their work can be planned`)
}

/** Works a whole season out, to be looked at before it is taken. */
async function scheduleWhole(shop: Workshop, run: Run): Promise<{ result: Schedule; basis: string }> {
  await followChanges(shop, run.crewId)
  const season = await crewSeason(shop.db, run.crewId, shop.now())
  if (!season) throw new Error('There is no garden to plan')
  return { result: await searchWithProgress(shop, run.id, season.problem), basis: season.basis }
}

async function searchWithProgress(
  { db, pool }: Workshop,
  runId: string,
  problem: ComputeTasks['scheduleTelling']['problem'],
): Promise<Schedule> {
  const { port1, port2 } = new MessageChannel()
  const stop = new AbortController()
  let told: Promise<unknown> = Promise.resolve()
  port1.on('message', ({ done, of }: Progress) => {
    told = told.then(async () => {
      // Dropped by a person: nobody waits for it any more.
      if (!(await changeRun(db, runId, ['running'], { progress: Math.min(0.99, done / of) }))) stop.abort()
    })
  })
  try {
    return await onBehalfOf({ ...behalfNow(), signal: stop.signal }, () =>
      pool.run('scheduleTelling', { problem, port: port2 }, [port2]),
    )
  } finally {
    port1.close()
    await told
  }
}

/** Goes through the gardens of a crew once a day: the weather brought on, the plan brought up to date, what has changed raised. */
async function goThrough(shop: Workshop, crewId: string): Promise<{ gardens: string[] }> {
  const { db, pool, now, log } = shop
  const gardens = (await listCrewGardens(db, crewId)).map((garden) => ({
    garden,
    today: gardenDay(garden.standsAt, garden.timeZone, now()),
  }))
  for (const { garden, today } of gardens)
    await followService(db, garden.stationId, addDays(today, -1)).catch((error: unknown) => {
      // Where the service does not answer, the night goes by the days there are; it is told of where it is asked.
      if (!(error instanceof WeatherSilent)) throw error
    })
  // People ask for the day's work before they ask what has changed.
  await followChanges(shop, crewId)
  for (const { garden, today } of gardens) {
    const nowMs = gardenInstant(garden.standsAt, garden.timeZone, now())
    await recheckGarden(openGarden(db, garden, today), pool, nowMs)
    log?.info({ gardenId: garden.id, today }, 're-checked')
  }
  return { gardens: gardens.map(({ garden }) => garden.id) }
}

/** Crews with a garden that was not gone through on its own today. */
export async function crewsNotGoneThrough(db: Db, nowMs: number): Promise<string[]> {
  const due = (await listCheckedOn(db)).filter(
    (g) => g.checkedOn !== gardenDay(g.standsAt, g.timeZone, nowMs),
  )
  return [...new Set(due.map((g) => g.crewId))]
}

/**
 * Works a run out, if it still waits and no other process has it.
 *
 * @returns whether this process did
 * @throws what went wrong; the run is then failed
 */
export async function workOut(shop: Workshop, runId: string): Promise<boolean> {
  const run = await claimRun(shop.db, runId)
  if (!run) return false
  const finish = (to: Parameters<typeof changeRun>[3]) =>
    changeRun(shop.db, run.id, ['running'], { progress: 1, ...to })
  try {
    // Whoever asked for it may go away: it is worked out all the same.
    await onBehalfOf({ garden: run.crewId, person: behalfNow().person }, async () => {
      if (run.kind === 'season') await finish({ state: 'ready', ...(await scheduleWhole(shop, run)) })
      else if (run.kind === 'night')
        await finish({ state: 'taken', result: await goThrough(shop, run.crewId) })
      else await finish({ state: 'taken', result: await followChanges(shop, run.crewId) })
    })
    return true
  } catch (error) {
    // Dropped by a person while it was worked out.
    if ((error as Error).name === 'AbortError') return true
    await changeRun(shop.db, run.id, ['running'], { state: 'failed', failure: 'It could not be worked out.' })
    throw error
  }
}

/**
 * Puts a plan that was looked at in place.
 *
 * @param season of the crew, read before its gardens are held: it asks the weather service
 */
export async function acceptSchedule(
  db: Db,
  season: CrewSeason | undefined,
  crewId: string,
  runId: string,
): Promise<void> {
  const run = (await findRun(db, runId)) as Run<'season'> | undefined
  if (run?.crewId !== crewId || run.kind !== 'season' || run.state !== 'ready' || !run.result)
    throw new Refusal(409, 'This plan is no longer there to be taken: work it out again.')
  if (season?.basis !== run.basis || !(await takeSchedule(db, season, run.result)))
    throw new Refusal(
      409,
      'Jobs or working days have changed since this plan was worked out: work it out again.',
    )
  await changeRun(db, runId, ['ready'], { state: 'taken' })
}
