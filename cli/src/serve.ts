import { spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { serverFile, weatherServiceFile, webRoot } from './build.ts'
import { freePort } from './cluster.ts'
import { inState } from './paths.ts'

const secretFile = inState('session-secret')

/** A server and the weather service beside it. */
export interface Serving {
  port: number
  pid: number
  /** Whether it answers requests; false where it ended first, or was ended after half a minute of silence. */
  answers: Promise<boolean>
  /** Its exit code, once it has ended. */
  ended: Promise<number>
  /** @returns when nothing of it is left; killed, nothing is finished and nobody is told, as in a power cut */
  end: (signal: 'SIGTERM' | 'SIGKILL') => Promise<void>
}

const WAITED_MS = 30_000

/**
 * Begins to serve a database with what was built.
 *
 * @param wantedPort or the next that is free
 */
export async function beginServing(
  url: string,
  wantedPort: number,
  env: NodeJS.ProcessEnv = {},
): Promise<Serving> {
  const port = await freePort(wantedPort)
  const weatherPort = await freePort(wantedPort + WEATHER_PORT_AWAY)
  if (!existsSync(secretFile))
    writeFileSync(secretFile, randomBytes(32).toString('base64url'), { mode: 0o600 })
  const weather = started(weatherServiceFile, { ...env, PORT: String(weatherPort) })
  const server = started(serverFile, {
    DATABASE_URL: url,
    SESSION_SECRET_FILE: secretFile,
    WEB_ROOT: webRoot,
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
    WEATHER_URL: `http://127.0.0.1:${weatherPort}`,
    ...env,
    PORT: String(port),
  })
  const ended = exited(server).then((code) => {
    weather.kill('SIGTERM')
    return code
  })
  const end: Serving['end'] = async (signal) => {
    server.kill(signal)
    weather.kill(signal)
    await ended
  }
  return { port, pid: server.pid!, answers: answers(server, port, end), ended, end }
}

async function answers(server: ChildProcess, port: number, end: Serving['end']): Promise<boolean> {
  const until = Date.now() + WAITED_MS
  while (server.exitCode === null && server.signalCode === null) {
    if (await isHealthy(port)) return true
    if (Date.now() > until) await end('SIGKILL')
    else await new Promise((r) => setTimeout(r, 50))
  }
  return false
}

const started = (file: string, env: NodeJS.ProcessEnv): ChildProcess =>
  spawn(process.execPath, [file], { env: { ...process.env, ...env }, stdio: ['ignore', 'ignore', 'inherit'] })

const exited = (child: ChildProcess): Promise<number> =>
  new Promise((resolve) => child.once('exit', (code) => resolve(code ?? 0)))

export async function isHealthy(port: number): Promise<boolean> {
  try {
    return (await fetch(`http://127.0.0.1:${port}/api/health`)).ok
  } catch {
    return false
  }
}

interface ServingState {
  pid: number
  port: number
}

const servingFile = (name: string) => inState(`serving-${name}.json`)

/** A server of this name that is up already, if there is one. */
export async function alreadyServing(name: string): Promise<number | undefined> {
  const state = readServing(name)
  return state && (await isHealthy(state.port)) ? state.port : undefined
}

function readServing(name: string): ServingState | undefined {
  const file = servingFile(name)
  return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as ServingState) : undefined
}

/** The stand-in weather service listens so far above the server. */
const WEATHER_PORT_AWAY = 300

/** Serves until stopped. `onReady` is told the port once requests are answered. */
export async function serveUntilStopped(
  name: string,
  url: string,
  wantedPort: number,
  onReady: (port: number) => void,
  env: NodeJS.ProcessEnv = {},
): Promise<number> {
  const { port, pid, answers, ended, end } = await beginServing(url, wantedPort, env)
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void end('SIGTERM'))
  writeFileSync(servingFile(name), JSON.stringify({ pid, port }))
  if (await answers) onReady(port)
  const code = await ended
  rmSync(servingFile(name), { force: true })
  return code
}

/** @returns whether there was one to stop */
export async function stopServing(name: string): Promise<boolean> {
  const state = readServing(name)
  rmSync(servingFile(name), { force: true })
  if (!state || !(await isHealthy(state.port))) return false
  process.kill(state.pid, 'SIGTERM')
  return true
}
