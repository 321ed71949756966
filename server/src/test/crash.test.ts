import { civilDate } from '@border/core'
import { spawn, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { Client, practiceWithGarden, takeAway, type TestPractice } from './practice.ts'

let practice: TestPractice
const children: ChildProcess[] = []

beforeAll(async () => {
  practice = await practiceWithGarden()
})
afterAll(async () => {
  for (const c of children) c.kill('SIGKILL')
  await practice.stop()
})

const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number }
      probe.close(() => resolve(port))
    })
  })

/** The server as a process of its own over the test's database. */
async function serverProcess(): Promise<{ child: ChildProcess; url: string }> {
  const port = await freePort()
  const secret = join(tmpdir(), `border-secret-${port}`)
  writeFileSync(secret, 'crash test')
  const child = spawn(process.execPath, ['--import', 'tsx', join(import.meta.dirname, '..', 'main.ts')], {
    env: {
      ...process.env,
      DATABASE_URL: practice.url,
      SESSION_SECRET_FILE: secret,
      PORT: String(port),
      LOG_LEVEL: 'error',
    },
    stdio: 'inherit',
  })
  children.push(child)
  const url = `http://127.0.0.1:${port}`
  for (let i = 0; i < 200; i++) {
    const up = await fetch(`${url}/api/health`).then(
      (r) => r.ok,
      () => false,
    )
    if (up) return { child, url }
    await new Promise((r) => setTimeout(r, 100))
  }
  throw new Error('The server process did not come up')
}

it('a server killed in the middle of a write leaves nothing half done, and the same request then works once', async () => {
  const today = civilDate(new Date(), 'Europe/London')
  const { child, url } = await serverProcess()
  const client = new Client(url)
  await client.signIn('head@example.invalid')
  const base = `/gardens/${practice.gardenId}`
  const { plantings } = (await client.get(base)).body
  const [planting] = plantings.filter((p: { tag: string }) => p.tag === 'W-04')
  const key = randomUUID()
  const move = { placeId: plantings.find((p: { tag: string }) => p.tag === 'W-07').placeId, x: 8, y: 22.8 }
  const decision = {
    plantingId: planting.id,
    on: today,
    choice: 'otherwise',
    action: 'move',
    reason: 'A test.',
    target: move,
  }
  const counts = async () => {
    const [decisions, jobs, writes] = await Promise.all(
      [practice.db('decisions'), practice.db('jobs').whereNotNull('decision_id'), practice.db('writes')].map(
        (rows) => rows.count('* as n').first(),
      ),
    )
    return [decisions, jobs, writes].map((r) => Number((r as { n: string }).n))
  }
  const before = await counts()

  // The jobs table is held, so the write stands still after its key and its decision, before its jobs.
  const hold = await practice.db.transaction()
  await hold.raw('lock table jobs in exclusive mode')
  const sent = client.post(`${base}/decisions`, decision, { key }).then(
    () => 'answered',
    () => 'lost',
  )
  const waiting = () =>
    practice.db.raw(`select 1 from pg_locks where not granted and relation = 'jobs'::regclass`)
  for (let i = 0; i < 300 && (await waiting()).rows.length === 0; i++)
    await new Promise((r) => setTimeout(r, 100))
  expect((await waiting()).rows).toHaveLength(1)
  child.kill('SIGKILL')
  expect(await sent).toBe('lost')
  await hold.rollback()
  for (let i = 0; i < 100 && (await waiting()).rows.length > 0; i++)
    await new Promise((r) => setTimeout(r, 50))
  expect(await counts()).toEqual(before)

  const again = new Client((await serverProcess()).url)
  await again.signIn('head@example.invalid')
  for (let i = 0; i < 2; i++)
    expect((await again.post(`${base}/decisions`, decision, { key })).status).toBe(200)
  expect(await counts()).toEqual([before[0]! + 1, before[1]! + 5, before[2]! + 1])
})

it('a server waits for a database that is away, and outlives one that goes away', async () => {
  let comeBack = await takeAway(practice.url)
  const beginning = serverProcess()
  await new Promise((r) => setTimeout(r, 4000))
  await comeBack()
  const { child, url } = await beginning
  for (let time = 0; time < 3; time++) {
    comeBack = await takeAway(practice.url)
    expect((await fetch(`${url}/api/health`)).status).toBe(503)
    await comeBack()
    await expect.poll(async () => (await fetch(`${url}/api/health`)).status, { timeout: 20_000 }).toBe(200)
  }
  expect(child.exitCode).toBeNull()
})
