import PgBoss from 'pg-boss'
import type { Logger } from 'pino'
import type { Db } from './database/connect.ts'
import type { Enqueue } from './follow.ts'
import { forgetOldWrites } from './once.ts'
import { forgetOldResults } from './store/computed.ts'
import { queueRun, tidyRuns } from './store/runs.ts'
import { ComputePool, computeThreads } from './work/compute.ts'
import { crewsNotGoneThrough, workOut, type Workshop } from './work/runs.ts'

const RUNS = 'runs'
const CLOCK = 'clock'
/** Each hour: a garden is gone through in the first hour of its own day, wherever it lies. */
const HOURLY = '5 * * * *'
/** A run that has not been heard of for so long has lost its process. */
const LOST_AFTER_MINUTES = 5
const RUNS_KEPT_DAYS = 30

/**
 * The queue of long work, in the database: any number of processes share it, and each run is worked out by one of them. Its own
 * clock asks for what comes by itself.
 */
export interface Queue {
  enqueue: Enqueue
  /** Begins to take runs up. @returns stops it, letting work under way finish */
  serve: (db: Db, now: () => number) => Promise<() => Promise<void>>
}

export async function openQueue(databaseUrl: string, log: Logger): Promise<Queue> {
  const boss = new PgBoss({ connectionString: databaseUrl, schema: 'queue', max: 3 })
  boss.on('error', (err) => log.error({ err }, 'the queue'))
  await boss.start()
  await boss.createQueue(RUNS, { name: RUNS, retryLimit: 2 })
  await boss.createQueue(CLOCK, { name: CLOCK, policy: 'singleton' })
  const enqueue: Enqueue = async (trx, runId, afterSeconds) => {
    await boss.send(RUNS, { runId }, { startAfter: afterSeconds, singletonKey: runId, db: within(trx) })
  }
  return {
    enqueue,
    serve: async (db, now) => {
      // A thread of its own, behind all others: nobody who asks for something waits for long work.
      const threads = computeThreads(1, true)
      const shop: Workshop = { db, pool: new ComputePool(threads), now, log }
      await boss.work<{ runId: string }>(RUNS, { pollingIntervalSeconds: 0.5 }, async (jobs) => {
        for (const { data } of jobs) await workOut(shop, data.runId)
      })
      await boss.work(CLOCK, async () => {
        await forgetOldWrites(db)
        await forgetOldResults(db)
        const again = await tidyRuns(db, LOST_AFTER_MINUTES, RUNS_KEPT_DAYS)
        for (const crewId of await crewsNotGoneThrough(db, now()))
          again.push(await queueRun(db, { kind: 'night', crewId }))
        for (const runId of again) await enqueue(db, runId, 0)
      })
      await boss.schedule(CLOCK, HOURLY)
      await boss.send(CLOCK, {})
      return async () => {
        await boss.stop({ graceful: true, timeout: 4000 })
        await threads.destroy()
      }
    },
  }
}

/** The driver's connection under a transaction of ours: the queue's placeholders are numbered, and go to it as they are. */
interface Connection {
  query: (text: string, values: unknown[]) => Promise<{ rows: unknown[] }>
}

const within = (trx: Db) => ({
  executeSql: async (text: string, values: unknown[]) => {
    const client = trx.client as {
      acquireConnection: () => Promise<Connection>
      releaseConnection: (connection: Connection) => Promise<void>
    }
    const connection = await client.acquireConnection()
    try {
      return await connection.query(text, values)
    } finally {
      await client.releaseConnection(connection)
    }
  },
})
