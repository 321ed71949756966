import { execFileSync, spawnSync } from 'node:child_process'
import { createHash, randomBytes } from 'node:crypto'
import { chownSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { userInfo } from 'node:os'
import { dirname, join } from 'node:path'
import { lock } from 'proper-lockfile'
import { inState, projectRoot, stateFolder } from './paths.ts'
import { freeOnLoopback } from './ports.ts'
import { say } from './say.ts'

/**
 * The project's own PostgreSQL cluster: loopback only, no Unix socket, its own port, its password in a file only the
 * owner reads. As root it runs as the user `postgres`, in a folder that user may enter.
 */
interface ClusterState {
  dataFolder: string
  port: number
}

const FIRST_PORT = 54_329
const SUPERUSER = 'border'
const stateFile = inState('cluster.json')
const passwordFile = inState('database-password')
const isRoot = userInfo().uid === 0

/** Connection string for a database in the project's cluster, which is started if it is not running. */
export async function databaseUrl(database: string): Promise<string> {
  const given = process.env.DATABASE_URL
  if (given) {
    const url = new URL(given)
    url.pathname = `/${database}`
    return url.href
  }
  const port = await startCluster()
  return `postgres://${SUPERUSER}:${readFileSync(passwordFile, 'utf8').trim()}@127.0.0.1:${port}/${database}`
}

async function startCluster(): Promise<number> {
  // One start at a time; others wait for it and then find it running.
  const release = await lock(stateFolder, {
    retries: { retries: 120, minTimeout: 250, maxTimeout: 1000 },
    stale: 30_000,
  })
  try {
    const state = readState() ?? (await initialise())
    if (isReady(state.port) && ownsPort(state)) return state.port
    clearStalePid(state.dataFolder)
    state.port = (await freeOnLoopback(state.port)).port
    writeFileSync(stateFile, JSON.stringify(state))
    const settings = `-p ${state.port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''`
    const log = join(dirname(state.dataFolder), 'postgres.log')
    const started = asOwner([
      'pg_ctl',
      '-D',
      state.dataFolder,
      '-w',
      '-t',
      '60',
      '-l',
      log,
      '-o',
      settings,
      'start',
    ])
    for (let i = 0; i < 100 && !isReady(state.port); i++) await new Promise((r) => setTimeout(r, 100))
    if (!isReady(state.port)) throw new Error(`PostgreSQL did not start; see ${log}\n${started}`)
    return state.port
  } finally {
    await release()
  }
}

/** The command that restarts the running cluster, as its owner would, not waiting for whoever is connected. */
export function restartCommand(): string[] {
  return ownersCommand(['pg_ctl', '-D', readState()!.dataFolder, '-m', 'fast', '-w', 'restart'])
}

export function stopCluster(): boolean {
  const state = readState()
  if (!state || !isReady(state.port)) return false
  asOwner(['pg_ctl', '-D', state.dataFolder, '-m', 'fast', '-w', 'stop'])
  return true
}

function readState(): ClusterState | undefined {
  if (!existsSync(stateFile)) return undefined
  const state = JSON.parse(readFileSync(stateFile, 'utf8')) as ClusterState
  return existsSync(join(state.dataFolder, 'PG_VERSION')) ? state : undefined
}

async function initialise(): Promise<ClusterState> {
  say('making the database cluster (once)')
  const home = clusterHome()
  const dataFolder = join(home, 'data')
  rmSync(dataFolder, { recursive: true, force: true })
  mkdirSync(dataFolder, { recursive: true, mode: 0o700 })
  const password = randomBytes(24).toString('base64url')
  const forInitdb = join(home, 'password')
  writeFileSync(passwordFile, password, { mode: 0o600 })
  writeFileSync(forInitdb, password, { mode: 0o600 })
  if (isRoot) for (const path of [home, dataFolder, forInitdb]) chownSync(path, ...postgresIds())
  asOwner([
    'initdb',
    '-D',
    dataFolder,
    '-U',
    SUPERUSER,
    '-A',
    'scram-sha-256',
    `--pwfile=${forInitdb}`,
    '-E',
    'UTF8',
    '--locale=C.UTF-8',
  ])
  rmSync(forInitdb)
  const state = { dataFolder, port: FIRST_PORT }
  writeFileSync(stateFile, JSON.stringify(state))
  return state
}

function clusterHome(): string {
  const own = inState('postgres')
  if (!isRoot || mayEnter(stateFolder)) {
    mkdirSync(own, { recursive: true })
    return own
  }
  const name = `seasoned-border-${createHash('sha256').update(projectRoot).digest('hex').slice(0, 8)}`
  const apart = join('/var/lib/postgresql', name)
  mkdirSync(apart, { recursive: true })
  return apart
}

const mayEnter = (folder: string) => spawnSync('setpriv', [...asPostgres, 'test', '-x', folder]).status === 0

const asPostgres = ['--reuid=postgres', '--regid=postgres', '--clear-groups', '--']

function postgresIds(): [number, number] {
  const id = (flag: string) => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }))
  return [id('-u'), id('-g')]
}

/** One of PostgreSQL's programs, with what it is given, as the user who owns the cluster runs it. */
function ownersCommand([program, ...args]: string[]): string[] {
  const command = [join(binFolder(), program!), ...args]
  return isRoot ? ['setpriv', ...asPostgres, ...command] : command
}

function asOwner(command: string[]): string {
  const [program] = command
  const [run, ...all] = ownersCommand(command)
  // pg_ctl's child keeps inherited pipes open, so output goes to a file handle of its own: none.
  const result = spawnSync(run!, all, {
    encoding: 'utf8',
    cwd: '/',
    stdio: ['ignore', program === 'pg_ctl' ? 'ignore' : 'pipe', program === 'pg_ctl' ? 'ignore' : 'pipe'],
  })
  if (result.status !== 0 && program !== 'pg_ctl')
    throw new Error(`${program} failed: ${result.stderr || result.error?.message || `exit ${result.status}`}`)
  return result.stdout ?? ''
}

let foundBin: string | undefined
function binFolder(): string {
  if (foundBin) return foundBin
  const debian = '/usr/lib/postgresql'
  const versions = existsSync(debian)
    ? readdirSync(debian).filter((v) => Number(v) >= 15 && existsSync(join(debian, v, 'bin', 'initdb')))
    : []
  const newest = versions.sort((a, b) => Number(b) - Number(a))[0]
  if (newest) return (foundBin = join(debian, newest, 'bin'))
  const onPath = spawnSync('sh', ['-c', 'command -v initdb'], { encoding: 'utf8' }).stdout.trim()
  if (!onPath)
    throw new Error(
      'PostgreSQL 15 or later is needed. Run: sudo apt-get update && sudo apt-get install -y postgresql',
    )
  return (foundBin = dirname(onPath))
}

const isReady = (port: number) =>
  spawnSync(join(binFolder(), 'pg_isready'), ['-h', '127.0.0.1', '-p', String(port), '-q']).status === 0

/** Whether the server on the port is this cluster's: it runs, and its pid file names the port on its fourth line. */
const ownsPort = ({ dataFolder, port }: ClusterState) =>
  isServing(dataFolder) && pidFile(dataFolder)?.[3] === String(port)

/** After a crash of the machine the pid file may name a process that is something else by now, another cluster's too. */
function clearStalePid(dataFolder: string): void {
  if (!isServing(dataFolder)) rmSync(join(dataFolder, PID_FILE), { force: true })
}

const PID_FILE = 'postmaster.pid'

function pidFile(dataFolder: string): string[] | undefined {
  const file = join(dataFolder, PID_FILE)
  return existsSync(file) ? readFileSync(file, 'utf8').split('\n') : undefined
}

/** Whether the process that the pid file names is the server of these data: it was begun with their folder. */
export function isServing(dataFolder: string): boolean {
  const pid = pidFile(dataFolder)?.[0]
  const begunWith = `/proc/${pid}/cmdline`
  return existsSync(begunWith) && readFileSync(begunWith, 'utf8').split('\0').includes(dataFolder)
}
