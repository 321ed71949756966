import { portIn } from '@border/server/listening'
import { ensureBuilt } from './build.ts'
import { stopCluster } from './cluster.ts'
import {
  DEMO_DATABASE,
  dropDatabase,
  keptName,
  ensureDatabase,
  PRACTICE_DATABASE,
  scratchDatabase,
} from './databases.ts'
import { optionsOf } from './files.ts'
import { prepare } from './prepare.ts'
import { Misuse, say } from './say.ts'
import { demoWeather, scratchServer } from './scratchServer.ts'
import { alreadyServing, serveUntilStopped, stopServing, whereToServe } from './serve.ts'

const USUAL_PORT = 5180

export const demoCommand = () => serve('demo', DEMO_DATABASE, true)
export const startCommand = () => serve('practice', PRACTICE_DATABASE, false)

async function serve(name: string, database: string, withDemo: boolean): Promise<number> {
  const running = await alreadyServing(name)
  if (running) {
    process.stdout.write(`Already serving on ${running}\n`)
    return 0
  }
  const at = await whereToServe(USUAL_PORT)
  ensureBuilt()
  const url = await ensureDatabase(database)
  const people = await prepare(url, withDemo)
  return serveUntilStopped(
    name,
    url,
    at,
    (address) => {
      process.stdout.write(`\nSeasoned Border is on ${address}\n`)
      if (people.length > 0) process.stdout.write(`Sign in with one click as ${people.join(', ')}.\n`)
      process.stdout.write('Ctrl-C stops it; ./border stop also stops the database.\n')
    },
    withDemo ? demoWeather : {},
  )
}

export async function stopCommand(): Promise<number> {
  for (const name of ['demo', 'practice']) if (await stopServing(name)) say(`stopped the ${name} server`)
  if (stopCluster()) say('stopped the database')
  return 0
}

export async function resetDemoCommand(): Promise<number> {
  // A server whose database is dropped under it would go on without its queue.
  const wasServed = await stopServing('demo')
  await dropDatabase(DEMO_DATABASE)
  await prepare(await ensureDatabase(DEMO_DATABASE), true)
  say('The demo is as it was at first.')
  if (wasServed) say('Its server was stopped for that: ./border demo starts it again.')
  return 0
}

export async function scratchCommand(args: string[]): Promise<number> {
  const { values } = optionsOf(args, {
    demo: { type: 'boolean' },
    port: { type: 'string' },
    keep: { type: 'string' },
    copy: { type: 'string' },
    drop: { type: 'string' },
  })
  if (values.port !== undefined && !portIn(values.port)) throw new Misuse('--port takes a port number')
  for (const option of ['keep', 'copy', 'drop'] as const)
    if (values[option] !== undefined && !/^[a-z0-9]{1,30}$/.test(values[option]))
      throw new Misuse(`--${option} takes a name of small letters and digits`)
  if (values.drop !== undefined) {
    await dropDatabase(keptName(values.drop))
    return 0
  }
  const at = await whereToServe(
    USUAL_PORT + 10,
    values.port ? { ...process.env, PORT: values.port } : process.env,
  )
  ensureBuilt()
  const { url, drop } = await scratchDatabase({
    kept: values.keep,
    copyOf: values.copy && keptName(values.copy),
  })
  try {
    await prepare(url, values.demo ?? false)
    const ready = (address: string) => void process.stdout.write(`${address}\n`)
    return await serveUntilStopped(`scratch-${at.port}`, url, at, ready, scratchServer(values.demo ?? false))
  } finally {
    if (values.keep === undefined) await drop()
  }
}
