import { addDays } from '@border/core'
import PgBoss from 'pg-boss'
import type { Logger } from 'pino'
import type { Db } from '../database/connect.ts'
import { findGardenForWork, listGardensNotChecked, lockGarden } from '../store/gardens.ts'
import { nowOf, todayOf } from '../store/people.ts'
import { followService } from '../store/weather.ts'
import { computePool } from './assess.ts'
import { careAndPlan } from './planSeason.ts'
import { recheckGarden } from './suspect.ts'

const ALL = 'recheck-all'
const ONE = 'recheck'
/** Each night, Universal Time; a garden already looked at on its own today is passed over. */
const NIGHTLY = '20 2 * * *'

/**
 * Re-checks every garden each night, and on start those that the last night missed. The queue is in the database, so that
 * any number of processes share the work and each garden is looked at once.
 *
 * @returns stops it, letting work under way finish
 */
export async function startNightly(databaseUrl: string, db: Db, log: Logger): Promise<() => Promise<void>> {
  // A thread of its own: nobody who asks for something waits behind the night's work.
  const pool = computePool(1)
  const boss = new PgBoss({ connectionString: databaseUrl, schema: 'queue', max: 3 })
  boss.on('error', (err) => log.error({ err }, 'the queue of nightly work'))
  await boss.start()
  await boss.createQueue(ALL, { name: ALL, policy: 'singleton' })
  await boss.createQueue(ONE, { name: ONE, retryLimit: 2 })
  await boss.work(ALL, async () => {
    for (const gardenId of await listGardensNotChecked(db))
      await boss.send(ONE, { gardenId }, { singletonKey: gardenId, singletonSeconds: 600 })
  })
  await boss.work<{ gardenId: string }>(ONE, async (jobs) => {
    for (const { data } of jobs) {
      const found = await findGardenForWork(db, data.gardenId)
      if (!found) continue
      const { garden, clock } = found
      const today = todayOf(clock, garden.timeZone)
      // Where the service does not answer, the night goes by the days there are.
      await followService(db, garden.stationId, addDays(today, -1)).catch((err: unknown) =>
        log.warn({ err, gardenId: garden.id }, 'the weather service'),
      )
      await recheckGarden(db, pool, garden, { today, nowMs: nowOf(clock, garden.timeZone) })
      await db.transaction(async (trx) => {
        await lockGarden(trx, garden.id)
        await careAndPlan(trx, pool, garden, today)
      })
      log.info({ gardenId: garden.id, today }, 're-checked')
    }
  })
  await boss.schedule(ALL, NIGHTLY)
  await boss.send(ALL, {})
  return async () => {
    await boss.stop({ graceful: true, timeout: 4000 })
    await pool.destroy()
  }
}
