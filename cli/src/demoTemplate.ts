import type { GardenSummary, VersionsView } from '@border/contract'
import { setTimeout as wait } from 'node:timers/promises'
import { Client } from './client.ts'
import { scratchDatabase } from './databases.ts'
import { firstPortOf, freeOnLoopback } from './ports.ts'
import { prepareApart } from './prepareApart.ts'
import { scratchServer } from './scratchServer.ts'
import { beginServing } from './serve.ts'

/** In the environment: the database that holds the demo as it is at first, for who copies it. */
export const DEMO_TEMPLATE = 'BORDER_DEMO_TEMPLATE'

const WORKED_OUT_MS = 180_000
/** What the flows look at first of a garden. */
const LOOKED_AT = ['assessment', 'record', 'diagnosis', 'walk']

/**
 * Loads the demo into a database of its own, works its jobs and days out and looks at its gardens once: a copy of it is there in a
 * third of a second. Of what was built.
 *
 * @returns its name, and how it goes again
 */
export async function makeDemoTemplate(): Promise<{ name: string; drop: () => Promise<void> }> {
  const { name, url, drop } = await scratchDatabase()
  try {
    await prepareApart(url, true)
    const serving = await beginServing(
      url,
      await freeOnLoopback(firstPortOf(process.pid)),
      scratchServer(true),
    )
    try {
      if (!(await serving.answers)) throw new Error('The server of the demo did not answer')
      await lookAtGardens(serving.address)
    } finally {
      await serving.end('SIGTERM')
    }
  } catch (error) {
    await drop()
    throw error
  }
  return { name, drop }
}

/** Enters as the first of the demo’s people and looks at each garden, once its work is worked out. */
async function lookAtGardens(address: string): Promise<void> {
  const client = await Client.enter(address)
  const until = Date.now() + WORKED_OUT_MS
  for (const { id, name } of await client.ask<GardenSummary[]>('/gardens')) {
    while ((await client.ask<VersionsView>(`/gardens/${id}/versions`)).isBehind) {
      if (Date.now() > until) throw new Error(`The work of ${name} was not worked out in time`)
      await wait(200)
    }
    for (const view of LOOKED_AT) await client.ask(`/gardens/${id}/${view}`)
  }
}
