import { expect, request } from '@playwright/test'
import { ensureBuilt } from '../cli/src/build.ts'
import { dropKept, FIRST_PORT, Practice, TEMPLATE } from './practice.ts'

/** Makes the demo that the flows copy: loaded, its work worked out, its figures kept. Gone again after the last flow. */
export default async function makeTemplate(): Promise<() => Promise<void>> {
  ensureBuilt()
  await dropKept(TEMPLATE)
  const practice = await Practice.begin({ demo: true, kept: TEMPLATE, port: FIRST_PORT })
  const server = await request.newContext({ baseURL: practice.url })
  const read = async (path: string) => {
    const answer = await server.get(`/api${path}`)
    expect(answer.ok(), path).toBe(true)
    return answer.json()
  }
  const { csrfToken, demoPeople } = await read('/session')
  const entered = await server.post('/api/session/demo', {
    data: { personId: demoPeople[0].id },
    headers: { 'x-csrf-token': csrfToken },
  })
  expect(entered.ok()).toBe(true)
  for (const { id } of await read('/gardens')) {
    await expect
      .poll(async () => (await read(`/gardens/${id}/versions`)).isBehind, { timeout: 120_000 })
      .toBe(false)
    for (const view of ['assessment', 'record', 'diagnosis', 'walk']) await read(`/gardens/${id}/${view}`)
  }
  await server.dispose()
  await practice.end()
  return () => dropKept(TEMPLATE)
}
