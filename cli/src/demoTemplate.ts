import type { GardenSummary, SessionInfo, VersionsView } from '@border/contract'
import { setTimeout as wait } from 'node:timers/promises'
import { ensureBuilt } from './build.ts'
import { scratchDatabase } from './databases.ts'
import { freeOnLoopback } from './ports.ts'
import { prepareApart } from './prepareApart.ts'
import { scratchServer } from './scratchServer.ts'
import { beginServing } from './serve.ts'

/** In the environment: the database that holds the demo as it is at first, for who copies it. */
export const DEMO_TEMPLATE = 'BORDER_DEMO_TEMPLATE'

const FIRST_PORT = 20_000
const WORKED_OUT_MS = 180_000
/** What the flows look at first of a garden. */
const LOOKED_AT = ['assessment', 'record', 'diagnosis', 'walk']

/**
 * Loads the demo into a database of its own, works its jobs and days out and looks at its gardens once: a copy of it is there in the
 * third of a second.
 *
 * @returns its name, and how it goes again
 */
export async function makeDemoTemplate(): Promise<{ name: string; drop: () => Promise<void> }> {
  ensureBuilt()
  const { name, url, drop } = await scratchDatabase()
  try {
    await prepareApart(url, true)
    const serving = await beginServing(url, await freeOnLoopback(FIRST_PORT), scratchServer(true))
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
  let cookie = ''
  const ask = async <T>(path: string, init: RequestInit = {}): Promise<T> => {
    const answer = await fetch(`${address}/api${path}`, { ...init, headers: { ...init.headers, cookie } })
    if (!answer.ok) throw new Error(`The demo’s server answered ${answer.status} to ${path}`)
    cookie = answer.headers.getSetCookie()[0]?.split(';')[0] ?? cookie
    return (await answer.json()) as T
  }
  const { csrfToken, demoPeople } = await ask<SessionInfo>('/session')
  await ask('/session/demo', {
    method: 'POST',
    body: JSON.stringify({ personId: demoPeople[0]!.id }),
    headers: { 'x-csrf-token': csrfToken, 'content-type': 'application/json' },
  })
  const until = Date.now() + WORKED_OUT_MS
  for (const { id, name } of await ask<GardenSummary[]>('/gardens')) {
    while ((await ask<VersionsView>(`/gardens/${id}/versions`)).isBehind) {
      if (Date.now() > until) throw new Error(`The work of ${name} was not worked out in time`)
      await wait(200)
    }
    for (const view of LOOKED_AT) await ask(`/gardens/${id}/${view}`)
  }
}
