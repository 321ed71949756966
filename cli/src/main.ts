import { loadDemo } from '@border/demo'
import { connect, migrate } from '@border/server'
import { ensureBuilt } from './build.ts'
import { checkCommand } from './check.ts'
import { stopCluster } from './cluster.ts'
import {
  DEMO_DATABASE,
  dropDatabase,
  ensureDatabase,
  PRACTICE_DATABASE,
  scratchDatabase,
} from './databases.ts'
import { lightCommand, optionsOf, sunCommand } from './files.ts'
import { importCommand } from './importFolder.ts'
import { BadInput, Misuse, say } from './say.ts'
import { alreadyServing, serveUntilStopped, stopServing } from './serve.ts'

const PORT = 5180

const usage = `Seasoned Border

  ./border demo         sets up, loads the demo and serves it on http://127.0.0.1:${PORT}
  ./border start        the same with your own practice, empty at first
  ./border stop         stops what demo and start started, and the database
  ./border reset-demo   puts the demo back as it was
  ./border scratch      serves a throw-away practice (--demo: a throw-away demo) until stopped; --port N
  ./border check        formats, lint, types, unit, integration and browser tests

  ./border import FOLDER [--into practice|demo] [--as EMAIL] [--dry-run] [--json]
                        a garden from plan.geojson, plantings.csv and weather.csv
  ./border light PLAN.geojson --points POINTS.csv --dates DAY[,DAY...] [--json]
                        hours of direct sun at points
  ./border sun --lat DEG --lon DEG --at INSTANT [--json]
                        where the sun stands

Formats: docs/formats.md. Exit codes: 0 done, 1 bad input, 2 misuse.`

/** Each subcommand: what it prints on standard output, or its exit code. */
const commands: Record<string, (args: string[]) => Promise<number | string> | number | string> = {
  demo: () => serve('demo', DEMO_DATABASE, true),
  start: () => serve('practice', PRACTICE_DATABASE, false),
  stop,
  'reset-demo': resetDemo,
  scratch,
  check: checkCommand,
  import: importCommand,
  light: lightCommand,
  sun: sunCommand,
}

async function prepare(url: string, withDemo: boolean): Promise<string[]> {
  const db = connect(url, 4)
  try {
    await migrate(db)
    return withDemo ? await loadDemo(db, say) : []
  } finally {
    await db.destroy()
  }
}

async function serve(name: string, database: string, withDemo: boolean): Promise<number> {
  const running = await alreadyServing(name)
  if (running) {
    process.stdout.write(`Already serving on http://127.0.0.1:${running}\n`)
    return 0
  }
  ensureBuilt()
  const url = await ensureDatabase(database)
  const people = await prepare(url, withDemo)
  return serveUntilStopped(name, url, PORT, (port) => {
    process.stdout.write(`\nSeasoned Border is on http://127.0.0.1:${port}\n`)
    if (people.length > 0) process.stdout.write(`Sign in with one click as ${people.join(', ')}.\n`)
    process.stdout.write('Ctrl-C stops it; ./border stop also stops the database.\n')
  })
}

async function stop(): Promise<number> {
  for (const name of ['demo', 'practice']) if (await stopServing(name)) say(`stopped the ${name} server`)
  if (stopCluster()) say('stopped the database')
  return 0
}

async function resetDemo(): Promise<number> {
  await dropDatabase(DEMO_DATABASE)
  await prepare(await ensureDatabase(DEMO_DATABASE), true)
  say('The demo is as it was at first.')
  return 0
}

async function scratch(args: string[]): Promise<number> {
  const { values } = optionsOf(args, { demo: { type: 'boolean' }, port: { type: 'string' } })
  const port = values.port === undefined ? PORT + 10 : Number(values.port)
  if (!Number.isInteger(port) || port < 1 || port > 65_535) throw new Misuse('--port takes a port number')
  ensureBuilt()
  const { url, drop } = await scratchDatabase()
  try {
    await prepare(url, values.demo ?? false)
    const ready = (at: number) => void process.stdout.write(`http://127.0.0.1:${at}\n`)
    return await serveUntilStopped(`scratch-${port}`, url, port, ready, { SIGN_IN_ATTEMPTS: '1000' })
  } finally {
    await drop()
  }
}

async function main(): Promise<number> {
  const [name, ...args] = process.argv.slice(2)
  if (name === undefined || name === 'help' || name === '--help') {
    process.stdout.write(`${usage}\n`)
    return 0
  }
  const command = commands[name]
  if (!command) throw new Misuse(`there is no command ${name}; ./border lists them`)
  const result = await command(args)
  if (typeof result === 'number') return result
  process.stdout.write(`${result}\n`)
  return 0
}

try {
  process.exitCode = await main()
} catch (error) {
  if (error instanceof BadInput) error.lines.forEach(say)
  else if (error instanceof Misuse) say(`border: ${error.message}`)
  else say(`border: ${error instanceof Error ? error.message : String(error)}`)
  process.exitCode = error instanceof Misuse ? 2 : 1
}
