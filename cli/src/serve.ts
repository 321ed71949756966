import { addressOf, listeningOf, type Listening } from '@border/server/listening'
import { spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { setTimeout as wait } from 'node:timers/promises'
import { serverFile, weatherServiceFile, webRoot } from './build.ts'
import { keepUp } from './keepUp.ts'
import { inState } from './paths.ts'
import { freeOnLoopback, isFree } from './ports.ts'

const secretFile = inState('session-secret')

/** A server and the weather service beside it. */
export interface Serving {
  address: string
  pid: number
  /** Whether it answers requests; false where it ended first, or was ended after half a minute of silence. */
  answers: Promise<boolean>
  /** Its exit code, once it has ended. */
  ended: Promise<number>
  /** @returns when nothing of it is left; killed, nothing is finished and nobody is told, as in a power cut */
  end: (signal: 'SIGTERM' | 'SIGKILL') => Promise<void>
}

/** A server is asked so often whether it answers: by count and not by the clock, for a machine may sleep meanwhile. */
const TRIES = 600
const BETWEEN_MS = 50

/**
 * Where to serve: where HOST and PORT of the environment say, or on loopback at the usual port or the next that is free.
 *
 * @throws {Error} where PORT is taken, or is none
 */
export async function whereToServe(usualPort: number, env = process.env): Promise<Listening> {
  const at = listeningOf(env, usualPort)
  if (!env.PORT) return { ...(await freeOnLoopback(at.port)), host: at.host }
  if (!(await isFree(at))) throw new Error(`Something else is served on ${at.host}:${at.port} already.`)
  return at
}

/** The stand-in weather service listens so far from the server. */
const WEATHER_PORT_AWAY = 300
const weatherFor = (port: number) =>
  freeOnLoopback(port + 2 * WEATHER_PORT_AWAY < 65_535 ? port + WEATHER_PORT_AWAY : port - WEATHER_PORT_AWAY)

/** Begins the stand-in weather service, near a port. */
export async function beginWeather(
  near: number,
  env: NodeJS.ProcessEnv = {},
): Promise<{ address: string; end: (signal: NodeJS.Signals) => void }> {
  const at = await weatherFor(near)
  const service = started(weatherServiceFile, at, env)
  return { address: addressOf(at), end: (signal) => void service.kill(signal) }
}

/** Begins to serve a database with what was built; with a weather service beside it unless WEATHER_URL names one. */
export async function beginServing(
  url: string,
  at: Listening,
  env: NodeJS.ProcessEnv = {},
): Promise<Serving> {
  const { WEATHER_URL, SESSION_SECRET_FILE } = process.env
  const standIn = WEATHER_URL ? undefined : await beginWeather(at.port, env)
  if (!SESSION_SECRET_FILE && !existsSync(secretFile))
    writeFileSync(secretFile, randomBytes(32).toString('base64url'), { mode: 0o600 })
  const server = started(serverFile, at, {
    DATABASE_URL: url,
    SESSION_SECRET_FILE: SESSION_SECRET_FILE ?? secretFile,
    WEB_ROOT: webRoot,
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
    WEATHER_URL: standIn?.address ?? WEATHER_URL,
    ...env,
  })
  const ended = exited(server).then((code) => {
    standIn?.end('SIGTERM')
    return code
  })
  const end: Serving['end'] = async (signal) => {
    server.kill(signal)
    standIn?.end(signal)
    await ended
  }
  const address = addressOf(at)
  return { address, pid: server.pid!, answers: answers(server, address, end), ended, end }
}

async function answers(server: ChildProcess, address: string, end: Serving['end']): Promise<boolean> {
  for (let tried = 0; server.exitCode === null && server.signalCode === null; tried++) {
    if (await isHealthy(address)) return true
    if (tried >= TRIES) await end('SIGKILL')
    else await wait(BETWEEN_MS)
  }
  return false
}

const started = (file: string, { host, port }: Listening, env: NodeJS.ProcessEnv): ChildProcess =>
  spawn(process.execPath, [file], {
    env: { ...process.env, ...env, HOST: host, PORT: String(port) },
    stdio: ['ignore', 'ignore', 'inherit'],
  })

/** One that a signal ended has no code of its own. */
const exited = (child: ChildProcess): Promise<number> =>
  new Promise((resolve) => child.once('exit', (code, signal) => resolve(code ?? (signal ? 1 : 0))))

export async function isHealthy(address: string): Promise<boolean> {
  try {
    return (await fetch(`${address}/api/health`)).ok
  } catch {
    return false
  }
}

interface ServingState {
  pid: number
  address: string
}

const servingFile = (name: string) => inState(`serving-${name}.json`)

/** The address of a server of this name that is up already, if there is one. */
export async function alreadyServing(name: string): Promise<string | undefined> {
  const state = readServing(name)
  return state && (await isHealthy(state.address)) ? state.address : undefined
}

function readServing(name: string): ServingState | undefined {
  const file = servingFile(name)
  return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as ServingState) : undefined
}

/**
 * Serves until stopped; a server that ends by itself meanwhile is begun again.
 *
 * @param onReady is told the address once requests are answered for the first time
 * @returns its exit code
 */
export async function serveUntilStopped(
  name: string,
  url: string,
  at: Listening,
  onReady: (address: string) => void,
  env: NodeJS.ProcessEnv = {},
): Promise<number> {
  const file = servingFile(name)
  const stopped = new AbortController()
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => stopped.abort())
  const begin = async () => {
    const serving = await beginServing(url, at, env)
    const { pid, address } = serving
    writeFileSync(file, JSON.stringify({ pid, address }))
    return serving
  }
  try {
    return await keepUp(begin, {
      onReady: () => onReady(addressOf(at)),
      signal: stopped.signal,
      // Somebody stopped it while it was down: nothing answered that could be told to end.
      isWanted: () => existsSync(file),
    })
  } finally {
    rmSync(file, { force: true })
  }
}

/** @returns whether there was one to stop */
export async function stopServing(name: string): Promise<boolean> {
  const state = readServing(name)
  rmSync(servingFile(name), { force: true })
  if (!state || !(await isHealthy(state.address))) return false
  process.kill(state.pid, 'SIGTERM')
  return true
}
