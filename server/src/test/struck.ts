import { addDays, civilDate, seededRandom } from '@border/core'
import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import { Client, restartPostgres, takeAway, type TestPractice } from './practice.ts'
import type { ServerProcess } from './serverProcess.ts'

/** What came of writes under which the server was killed, or its database went away. */
export interface Struck {
  strikes: number
  acknowledged: number
  /** Acknowledged, and not in the record. */
  lost: number
  /** In the record more than once. */
  doubled: number
  refused: number
  longestWaitMs: number
  /** How often the server ended by itself. */
  ended: number
}

/** How many of each; all fall in an order of their own. */
interface Strikes {
  /** The server is killed. */
  kills: number
  /** Its database cuts every connection and takes no new one for a moment. */
  restarts: number
  /** PostgreSQL itself is restarted, with every database of the cluster. */
  wholeRestarts?: number
  seed: number
}

const WRITERS = 4
/** After a strike everything goes on within so long, on a busy machine. */
const FLOWS_WITHIN_MS = 60_000

/**
 * Writers go on noting things while the server is struck, each sending again under the same key what had no answer.
 *
 * @returns what became of what they wrote
 */
export async function underStrikes(
  practice: TestPractice,
  server: ServerProcess,
  { kills, restarts, wholeRestarts = 0, seed }: Strikes,
): Promise<Struck> {
  const dice = seededRandom(seed)
  const plantings: string[] = await practice.db('plantings').pluck('id')
  const found: Struck = {
    strikes: kills + restarts + wholeRestarts,
    acknowledged: 0,
    lost: 0,
    doubled: 0,
    refused: 0,
    longestWaitMs: 0,
    ended: 0,
  }
  const acknowledged: string[] = []
  const on = addDays(civilDate(new Date(), 'Europe/London'), -2)
  let isOver = false
  const writer = async (client: Client, nth: number) => {
    while (!isOver) {
      const note = `${seed} ${nth} ${randomUUID()}`
      const path = `/gardens/${practice.gardenId}/plantings/${plantings[nth % plantings.length]}/notes`
      const key = randomUUID()
      const begun = performance.now()
      for (;;) {
        const status = await client.post(path, { on, note }, { key }).then(
          (answer) => answer.status,
          () => 0,
        )
        if (status === 200) acknowledged.push(note)
        else if (status === 0 || status >= 500) {
          await wait(50)
          continue
        } else found.refused++
        break
      }
      found.longestWaitMs = Math.max(found.longestWaitMs, performance.now() - begun)
    }
  }
  const clients = Array.from({ length: WRITERS }, () => new Client(server.url))
  for (const client of clients) await client.signIn('head@example.invalid')
  const writers = clients.map(writer)
  let [killsLeft, wholeLeft] = [kills, wholeRestarts]
  /** Strikes fall on traffic: something is acknowledged between two. */
  const flows = async () => {
    const had = acknowledged.length
    for (const until = Date.now() + FLOWS_WITHIN_MS; acknowledged.length < had + WRITERS; await wait(20))
      if (Date.now() > until) throw new Error(`Nothing was acknowledged for ${FLOWS_WITHIN_MS / 1000} s`)
  }
  for (let left = found.strikes; left > 0; left--) {
    await flows()
    await wait(300 * dice())
    const die = dice() * left
    if (die < killsLeft) {
      killsLeft--
      server.kill()
      await server.begin()
    } else {
      if (die < killsLeft + wholeLeft) {
        wholeLeft--
        await restartPostgres()
      } else {
        const comeBack = await takeAway(practice.url)
        await wait(50 + 300 * dice())
        await comeBack()
      }
      if (server.hasEnded) {
        found.ended++
        await server.begin()
      }
    }
  }
  await flows()
  isOver = true
  await Promise.all(writers)
  const inRecord = new Map<string, number>()
  for (const note of (await practice.db('planting_events').where({ kind: 'note' }).pluck('note')) as string[])
    inRecord.set(note, (inRecord.get(note) ?? 0) + 1)
  found.acknowledged = acknowledged.length
  found.lost = acknowledged.filter((note) => !inRecord.has(note)).length
  found.doubled = [...inRecord.values()].filter((times) => times > 1).length
  return { ...found, longestWaitMs: Math.round(found.longestWaitMs) }
}

/** As a table, a column each. */
export const tableOf = (found: Struck): string => {
  const cells = Object.entries(found).map(([name, value]) => [name, String(value)] as const)
  const widths = cells.map((c) => Math.max(...c.map((text) => text.length)))
  const row = (of: 0 | 1) => cells.map((c, i) => c[of].padStart(widths[i]!)).join('  ')
  return `${row(0)}\n${row(1)}\n`
}
