import { civilDate } from '@border/core'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { Client, practiceWithGarden, takeAway, type TestPractice } from './practice.ts'
import { ServerProcess } from './serverProcess.ts'
import { tableOf, underStrikes } from './struck.ts'

let practice: TestPractice
const servers: ServerProcess[] = []

beforeAll(async () => {
  practice = await practiceWithGarden()
})
afterAll(async () => {
  for (const server of servers) server.kill()
  await practice.stop()
})

/** The server as a process of its own over the test's database. */
async function serverProcess(): Promise<ServerProcess> {
  const server = await ServerProcess.at(practice.url)
  servers.push(server)
  return server
}

it('a server killed in the middle of a write leaves nothing half done, and the same request then works once', async () => {
  const today = civilDate(new Date(), 'Europe/London')
  const server = await (await serverProcess()).begin()
  const client = new Client(server.url)
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
  server.kill()
  expect(await sent).toBe('lost')
  await hold.rollback()
  for (let i = 0; i < 100 && (await waiting()).rows.length > 0; i++)
    await new Promise((r) => setTimeout(r, 50))
  expect(await counts()).toEqual(before)

  const again = new Client((await server.begin()).url)
  await again.signIn('head@example.invalid')
  for (let i = 0; i < 2; i++)
    expect((await again.post(`${base}/decisions`, decision, { key })).status).toBe(200)
  expect(await counts()).toEqual([before[0]! + 1, before[1]! + 5, before[2]! + 1])
})

it('a server that begins waits for a database that is away', async () => {
  const comeBack = await takeAway(practice.url)
  const server = await serverProcess()
  const beginning = server.begin()
  await new Promise((r) => setTimeout(r, 4000))
  expect(server.hasEnded).toBe(false)
  await comeBack()
  await beginning
  server.kill()
})

/** `npm run faults -w server` strikes more often. */
const KILLS = Number(process.env.FAULTS_KILLS ?? 1)
const RESTARTS = Number(process.env.FAULTS_RESTARTS ?? 3)
/** Of PostgreSQL itself, which every test beside this one would feel. */
const WHOLE = Number(process.env.FAULTS_WHOLE_RESTARTS ?? 0)
const SEED = Number(process.env.FAULTS_SEED ?? 1)

/** A kill takes as long as a server takes to begin, on a busy machine. */
const WITHIN_MS = 120_000 + 15_000 * (KILLS + RESTARTS + WHOLE)

it(
  'struck again and again, what was acknowledged is there once, and a database that goes away ends nothing',
  async () => {
    const server = await (await serverProcess()).begin()
    const found = await underStrikes(practice, server, {
      kills: KILLS,
      restarts: RESTARTS,
      wholeRestarts: WHOLE,
      seed: SEED,
    })
    if (process.env.FAULTS_KILLS) process.stdout.write(tableOf(found))
    expect(found).toMatchObject({
      strikes: KILLS + RESTARTS + WHOLE,
      lost: 0,
      doubled: 0,
      refused: 0,
      ended: 0,
    })
    expect(found.acknowledged).toBeGreaterThan(20)
  },
  WITHIN_MS,
)
