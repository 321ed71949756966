/**
 * What more server processes add, and how long walkers wait. Two hundred people walk twenty gardens; a second process should take
 * nearly as many of their looks again as the first, where it is processes that there are too few of; and one process, given all of
 * the machine, should answer them at the pace of walking while plans are worked out. Run with `npm run bench -w server`.
 */
import type { WalkView } from '@border/contract'
import { seededRandom } from '@border/core'
import { addMember, connect, insertPerson, insertPractice, migrate, type Db } from '@border/server'
import { quantile } from 'd3-array'
import { spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { ensureBuilt } from '../src/build.ts'
import { scratchDatabase } from '../src/databases.ts'
import { freeOnLoopback } from '../src/ports.ts'
import { scratchServer } from '../src/scratchServer.ts'
import { beginServing, type Serving } from '../src/serve.ts'
import { Client } from '../src/client.ts'
import { lookAtAll, saveMadeUp, TODAY } from './gardens.ts'

const GARDENS = 20
const PLANTINGS = 40
/** At each planting before: a few seasons' worth. */
const LOOKS = 20
const WALKERS = 200
/** Of a walker's questions one in so many reads the walk; the others note a look. */
const READ_EVERY = 10
/** What a server process may have of a core where they are compared. */
const SHARE = 0.35
/** So many of the walkers, who never pause, ask more than that can answer. */
const RESTLESS = 40
const SETTLING_S = 15
const MEASURED_S = 30
/** Looks a second that two hundred people note. */
const PACE = 43
const LEAST_RATIO = 1.7
const MOST_P95_MS = 146
const CLOCK_TICKS_A_SECOND = 100

const say = (text: string) => process.stdout.write(`${text}\n`)

interface Walker {
  personId: string
  gardenId: string
  plantingIds: readonly string[]
}

/** @returns the walkers, and who may have the days of any garden planned */
async function seed(db: Db): Promise<{ walkers: Walker[]; head: string }> {
  const practiceId = await insertPractice(db, 'Bench', TODAY)
  const person = (n: number) =>
    insertPerson(db, {
      practiceId,
      name: `Walker ${n}`,
      email: `walker-${n}@example.invalid`,
      passwordHash: null,
      isDemo: true,
      leads: n === 0,
    })
  const head = await person(0)
  const gardens = []
  for (let g = 0; g < GARDENS; g++) {
    const made = await saveMadeUp(db, { practiceId, personId: head }, `Garden ${g + 1}`, PLANTINGS)
    await lookAtAll(db, { gardenId: made.gardenId, personId: head }, made.plantingIds, LOOKS)
    gardens.push(made)
  }
  const walkers: Walker[] = []
  for (let n = 0; n < WALKERS; n++) {
    const made = gardens[n % GARDENS]!
    const personId = await person(1 + n)
    await addMember(db, made.gardenId, personId, 'crew')
    walkers.push({ personId, ...made })
  }
  await db.raw('analyze')
  return { walkers, head }
}

/** What was answered of one kind of question, milliseconds each. */
interface Answered {
  looks: number[]
  walks: number[]
}

/**
 * People at work at once, for a while.
 *
 * @param pauseMs between one's answer, or with a pace one's question, and the next question
 */
async function walk(
  clients: readonly { client: Client; walker: Walker }[],
  pauseMs: number,
): Promise<Answered> {
  const answered: Answered = { looks: [], walks: [] }
  const from = performance.now() + SETTLING_S * 1000
  const until = from + MEASURED_S * 1000
  await Promise.all(
    clients.map(async ({ client, walker: { gardenId, plantingIds } }, i) => {
      const random = seededRandom(i + 1)
      await wait(random() * Math.max(pauseMs, 500))
      for (let n = i; performance.now() < until; n++) {
        const began = performance.now()
        const isRead = n % READ_EVERY === 0
        if (isRead) await client.ask<WalkView>(`/gardens/${gardenId}/walk`)
        else {
          const at = new Date(`${TODAY}T09:00:00Z`)
          await client.ask(`/gardens/${gardenId}/walk-entries`, {
            entries: [
              {
                kind: 'planting',
                id: randomUUID(),
                plantingId: plantingIds[Math.floor(random() * plantingIds.length)],
                on: at.toISOString().slice(0, 10),
                at: at.toISOString(),
                rating: 1 + Math.floor(5 * random()),
              },
            ],
          })
        }
        const ended = performance.now()
        if (began >= from && ended <= until) (isRead ? answered.walks : answered.looks).push(ended - began)
        if (pauseMs > 0) await wait(Math.max(0, began + pauseMs * (0.5 + random()) - ended))
      }
    }),
  )
  return answered
}

/** Processor time that a process has had, seconds. */
function hadSeconds(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ')
  return (Number(fields[11]) + Number(fields[12])) / CLOCK_TICKS_A_SECOND
}

async function serving(url: string, processes: number): Promise<Serving[]> {
  const begun: Serving[] = []
  for (let i = 0; i < processes; i++) {
    const server = await beginServing(url, await freeOnLoopback(19_000 + 20 * i), {
      ...scratchServer(false),
      CHECK_ANSWERS: '0',
    })
    if (!(await server.answers)) throw new Error('A server of the bench did not answer')
    begun.push(server)
  }
  return begun
}

/** Each walker at one of the servers, by turns. */
const entered = (servers: readonly Serving[], walkers: readonly Walker[]) =>
  Promise.all(
    walkers.map(async (walker, i) => ({
      walker,
      client: await Client.enter(servers[i % servers.length]!.address, walker.personId),
    })),
  )

const row = (name: string, { looks, walks }: Answered, core: string) => {
  const ms = (times: number[], q: number) => `${(quantile(times, q) ?? NaN).toFixed(0)} ms`.padStart(9)
  say(
    [
      name.padEnd(34),
      (looks.length / MEASURED_S).toFixed(1).padStart(7),
      ms(looks, 0.5),
      ms(looks, 0.95),
      (walks.length / MEASURED_S).toFixed(1).padStart(7),
      ms(walks, 0.95),
      core.padStart(8),
    ].join(' '),
  )
}

/** As many as can be answered by processes that have a share of a core each. */
async function atOverload(url: string, walkers: readonly Walker[], processes: number): Promise<Answered> {
  const servers = await serving(url, processes)
  const clients = await entered(servers, walkers.slice(0, RESTLESS))
  const pids = servers.map((s) => s.pid)
  const throttle = spawn(
    process.execPath,
    ['--import', 'tsx', join(import.meta.dirname, 'throttle.ts'), String(SHARE), ...pids.map(String)],
    { stdio: 'inherit' },
  )
  const letGo = new Promise((resolve) => throttle.once('exit', resolve))
  try {
    const before = pids.map(hadSeconds)
    const began = performance.now()
    const answered = await walk(clients, 0)
    const seconds = (performance.now() - began) / 1000
    const had = pids.map((pid, i) => ((hadSeconds(pid) - before[i]!) / seconds).toFixed(2))
    row(`${processes} of ${SHARE} of a core, as fast as may be`, answered, had.join(' '))
    return answered
  } finally {
    throttle.kill('SIGTERM')
    await letGo
    for (const server of servers) await server.end('SIGTERM')
  }
}

/**
 * At the pace of people: among themselves, or while the seasons of one garden after another are planned.
 *
 * @param head who may have any garden's season planned; absent: nobody asks for it
 */
async function atPace(url: string, walkers: readonly Walker[], head?: string): Promise<Answered> {
  const [server] = await serving(url, 1)
  const { address, pid, end } = server!
  const clients = await entered([server!], walkers)
  const gardens = [...new Set(walkers.map((w) => w.gardenId))]
  let isOver = false
  let planned = 0
  const planning = async (planner: Client) => {
    for (let g = 0; !isOver; g = (g + 1) % gardens.length) {
      await planner.ask(`/gardens/${gardens[g]}/schedule-runs`, {})
      planned++
      await wait(1000)
    }
  }
  const planner = head && planning(await Client.enter(address, head))
  const before = hadSeconds(pid)
  const began = performance.now()
  const answered = await walk(clients, ((WALKERS * 1000) / PACE) * (1 - 1 / READ_EVERY))
  isOver = true
  await planner
  const had = (hadSeconds(pid) - before) / ((performance.now() - began) / 1000)
  row(`1 at the pace of walking, ${planned} plans asked`, answered, had.toFixed(2))
  await end('SIGTERM')
  return answered
}

ensureBuilt()
const { url, drop } = await scratchDatabase()
const db = connect(url, 4)
try {
  await migrate(db)
  const { walkers, head } = await seed(db)
  const kept = async () => Number((await db('computed').count('* as n').first())!.n)
  say('server processes                    looks/s    median       95 %  walks/s      95 %  of a core')
  const one = await atOverload(url, walkers, 1)
  const two = await atOverload(url, walkers, 2)
  const ratio = two.looks.length / one.looks.length
  say(`two carry ${ratio.toFixed(2)} times the looks of one; ${LEAST_RATIO} at least`)
  const before = await kept()
  const alone = quantile((await atPace(url, walkers)).looks, 0.95)!
  const paced = await atPace(url, walkers, head)
  const p95 = quantile(paced.looks, 0.95)!
  say(
    `a look is kept in ${p95.toFixed(0)} ms (95 %), in ${alone.toFixed(0)} where nothing is planned; ${MOST_P95_MS} at most`,
  )
  say(`rows kept for ${paced.walks.length} walks read: ${(await kept()) - before}`)
  if (ratio < LEAST_RATIO || p95 > MOST_P95_MS) process.exitCode = 1
} finally {
  await db.destroy()
  await drop()
}
