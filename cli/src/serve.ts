import { spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { serverFile, weatherServiceFile, webRoot } from './build.ts'
import { freePort } from './cluster.ts'
import { inState } from './paths.ts'

const secretFile = inState('session-secret')

/** The built server as a child process. */
export function spawnServer(url: string, port: number, env: NodeJS.ProcessEnv = {}): ChildProcess {
  if (!existsSync(secretFile))
    writeFileSync(secretFile, randomBytes(32).toString('base64url'), { mode: 0o600 })
  return spawn(process.execPath, [serverFile], {
    env: {
      ...process.env,
      DATABASE_URL: url,
      SESSION_SECRET_FILE: secretFile,
      WEB_ROOT: webRoot,
      PORT: String(port),
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
      ...env,
    },
    stdio: ['ignore', 'ignore', 'inherit'],
  })
}

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
  const port = await freePort(wantedPort)
  const weatherPort = await freePort(wantedPort + WEATHER_PORT_AWAY)
  const weather = spawn(process.execPath, [weatherServiceFile], {
    env: { ...process.env, ...env, PORT: String(weatherPort) },
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  const child = spawnServer(url, port, { WEATHER_URL: `http://127.0.0.1:${weatherPort}`, ...env })
  const exited = new Promise<number>((resolve) => child.once('exit', (code) => resolve(code ?? 0)))
  writeFileSync(servingFile(name), JSON.stringify({ pid: child.pid!, port }))
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => child.kill('SIGTERM'))
  for (let i = 0; i < 300 && child.exitCode === null; i++) {
    if (await isHealthy(port)) {
      onReady(port)
      break
    }
    await new Promise((r) => setTimeout(r, 100))
  }
  const code = await exited
  weather.kill('SIGTERM')
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
