import { DEVICE_CLOCK, type CrewView, type Role, type SessionInfo } from '@border/contract'
import { spawn } from 'node:child_process'
import { randomBytes, randomUUID } from 'node:crypto'
import { once } from 'node:events'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import pino from 'pino'
import request from 'supertest'
import { composeApp, type RunningApp } from '../app.ts'
import { connect, type Db } from '../database/connect.ts'
import { hashPassword } from '../routes/session.ts'
import { addMember } from '../store/gardens.ts'
import { insertPerson, insertPractice } from '../store/people.ts'
import { computeThreads } from '../work/compute.ts'
import { workOut } from '../work/runs.ts'

export const PASSWORD = 'twelve apple trees'
const example = join(import.meta.dirname, '..', '..', '..', 'examples', 'walled-court')
const exampleFile = (name: string) => readFileSync(join(example, name), 'utf8')
export const exampleFiles = {
  plan: exampleFile('plan.geojson'),
  plantings: exampleFile('plantings.csv'),
  weather: exampleFile('weather.csv'),
}

const DAYS_OF_WEATHER = 1500
const [weatherHead, ...weatherDays] = exampleFiles.weather.trim().split('\n')
/** With four years of its weather: for what must hold of a garden however long its record is, and is tried many times over. */
export const shortRecord = {
  ...exampleFiles,
  weather: [weatherHead, ...weatherDays.slice(-DAYS_OF_WEATHER)].join('\n'),
}

/** A database of its own, its schema and plant library as they are in force. */
async function freshDatabase(): Promise<{ url: string; drop: () => Promise<void> }> {
  const { BORDER_ADMIN_URL: adminUrl, BORDER_TEST_TEMPLATE: template } = process.env
  if (!adminUrl || !template)
    throw new Error('Integration tests run through vitest’s set-up, which starts the database')
  const name = `border_test_${randomBytes(6).toString('hex')}`
  const run = async (sql: string) => {
    const admin = connect(adminUrl, 1)
    await admin.raw(sql)
    await admin.destroy()
  }
  await run(`create database ${name} template ${template}`)
  const url = new URL(adminUrl)
  url.pathname = `/${name}`
  // Nothing here outlives the machine: nobody need wait for a disk.
  url.searchParams.set('options', '-c synchronous_commit=off')
  return { url: url.href, drop: () => run(`drop database ${name} with (force)`) }
}

/**
 * Takes a database away as a restart does: every connection is cut, and new ones are refused.
 *
 * @returns lets them in again
 */
export async function takeAway(url: string): Promise<() => Promise<void>> {
  const name = new URL(url).pathname.slice(1)
  const admin = connect(process.env.BORDER_ADMIN_URL!, 1)
  await admin.raw(`alter database ${name} allow_connections false`)
  await admin.raw('select pg_terminate_backend(pid) from pg_stat_activity where datname = ?', [name])
  return async () => {
    await admin.raw(`alter database ${name} allow_connections true`)
    await admin.destroy()
  }
}

/** Restarts PostgreSQL itself, as an update of the machine does: every connection to every database is cut. */
export async function restartPostgres(): Promise<void> {
  const [program, ...args] = JSON.parse(process.env.BORDER_RESTART_DATABASES!) as string[]
  const restarted = spawn(program!, args, { cwd: '/', stdio: 'ignore' })
  const [status] = (await once(restarted, 'exit')) as [number | null]
  if (status !== 0) throw new Error(`PostgreSQL did not restart: ${status}`)
}

export interface TestApp extends RunningApp {
  url: string
  stop: () => Promise<void>
}

/** Of all the applications of this process: threads that have computed before are quick. */
const threads = computeThreads()

/** @param now the instant that the application takes for now */
export async function testApp(now?: () => number): Promise<TestApp> {
  const { url, drop } = await freshDatabase()
  const running = composeApp({
    databaseUrl: url,
    sessionSecret: 'test',
    secureCookies: false,
    signInAttempts: { fromAddress: 8, atAccount: 5 },
    checksAnswers: true,
    threads,
    ...(now && { now }),
    ...(process.env.TEST_LOG && { log: pino(pino.destination(2)) }),
  })
  return {
    ...running,
    url,
    stop: async () => {
      await running.close()
      await drop()
    },
  }
}

/** A browser of one person: cookie, token, keys. */
export class Client {
  readonly agent
  token = ''
  constructor(app: RunningApp['app'] | string) {
    this.agent = request.agent(app)
  }

  async open(): Promise<SessionInfo> {
    const { body } = await this.agent.get('/api/session')
    this.token = body.csrfToken
    return body
  }

  async signIn(email: string, password = PASSWORD) {
    await this.open()
    const answer = await this.post('/session/sign-in', { email, password })
    if (answer.status === 200) this.token = answer.body.csrfToken
    return answer
  }

  get(path: string) {
    return this.agent.get(`/api${path}`)
  }

  post(
    path: string,
    body: object = {},
    {
      key = randomUUID(),
      token = this.token,
      deviceClock,
      file,
    }: { key?: string | null; token?: string; deviceClock?: string; file?: Buffer | undefined } = {},
  ) {
    const sent = this.agent.post(`/api${path}`).set('x-csrf-token', token)
    if (key) void sent.set('idempotency-key', key)
    if (deviceClock) void sent.set(DEVICE_CLOCK, deviceClock)
    return file ? sent.field('said', JSON.stringify(body)).attach('file', file, 'photo') : sent.send(body)
  }
}

export async function member(
  db: Db,
  practiceId: string,
  name: string,
  leads = false,
): Promise<{ id: string; email: string }> {
  const email = `${name}@example.invalid`
  const id = await insertPerson(db, {
    practiceId,
    name,
    email,
    passwordHash: await hashPassword(PASSWORD),
    leads,
  })
  return { id, email }
}

export interface TestPractice extends TestApp {
  head: Client
  gardenId: string
  practiceId: string
  join: (name: string, role: Role | null, practiceId?: string) => Promise<Client>
  /** Gives the one person of the garden's crew another week. */
  work: (minutesByWeekday: readonly number[]) => Promise<void>
}

/** Works out the season’s plan that waits, as the queue would. @returns whether one waited and this call had it */
export async function workOutWaiting({ db, shop }: RunningApp): Promise<boolean> {
  const waiting = await db('runs')
    .where({ kind: 'season', state: 'queued' })
    .orderBy('created_at')
    .first('id')
  return waiting ? workOut(shop, waiting.id) : false
}

/** A practice with the example garden, its head gardener signed in. */
export async function practiceWithGarden(
  files: { plan: string; plantings?: string; weather?: string } = exampleFiles,
  now?: () => number,
): Promise<TestPractice> {
  const app = await testApp(now)
  const practiceId = await insertPractice(app.db, 'Test practice')
  const { email } = await member(app.db, practiceId, 'head', true)
  const head = new Client(app.app)
  await head.signIn(email)
  const { body } = await head.post('/imports', files)
  if (!body.gardenId) throw new Error(`The garden could not be imported: ${JSON.stringify(body)}`)
  const join = async (name: string, role: Role | null, practice = practiceId) => {
    const person = await member(app.db, practice, name)
    if (role) await addMember(app.db, body.gardenId, person.id, role)
    const client = new Client(app.app)
    const answer = await client.signIn(person.email)
    if (answer.status !== 200) throw new Error(`${name} could not sign in: ${answer.body.error}`)
    return client
  }
  const work = async (minutesByWeekday: readonly number[]) => {
    const crew: CrewView = (await head.get(`/gardens/${body.gardenId}/crew`)).body
    const answer = await head.post(`/gardens/${body.gardenId}/crew/people`, {
      ...crew.people[0],
      minutesByWeekday,
    })
    if (answer.status !== 200) throw new Error(answer.body.error)
  }
  return { ...app, head, gardenId: body.gardenId, practiceId, join, work }
}
