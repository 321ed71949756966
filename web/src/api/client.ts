import type { ErrorAnswer, SessionInfo } from '@border/contract'

/** A refusal or failure in words a person can act on. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problems: NonNullable<ErrorAnswer['problems']> = [],
  ) {
    super(message)
  }
}

/** Nobody answered, or only what stands before the server did. */
export const nobodyAnswered = (error: unknown): boolean =>
  error instanceof ApiError && (error.status === 0 || error.status >= 502)

let csrfToken = ''

interface Sent {
  method: 'GET' | 'POST'
  body?: unknown
  key?: string
  signal?: AbortSignal
}

async function send<T>(path: string, { method, body, key, signal }: Sent): Promise<T> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      signal,
      headers: {
        ...(method === 'POST' ? { 'content-type': 'application/json', 'x-csrf-token': csrfToken } : {}),
        ...(key ? { 'idempotency-key': key } : {}),
      },
      body: method === 'POST' ? JSON.stringify(body ?? {}) : undefined,
    })
  } catch (error) {
    if (signal?.aborted) throw error
    throw new ApiError(0, 'The server cannot be reached. Nothing was lost; try again in a moment.')
  }
  if (response.ok) return (await response.json()) as T
  const answer = (await response.json().catch(() => undefined)) as ErrorAnswer | undefined
  throw new ApiError(
    response.status,
    answer?.error ?? `The server answered ${response.status}.`,
    answer?.problems,
  )
}

/** @param signal given up when nobody waits for the answer any more */
export const get = <T>(path: string, signal?: AbortSignal): Promise<T> =>
  send<T>(path, { method: 'GET', signal })

/** What is asked without changing anything, though it travels as a POST. */
export const ask = <T>(path: string, body: unknown): Promise<T> => send<T>(path, { method: 'POST', body })

const RETRIES = 2
const RETRY_MS = 600

/**
 * A write with a key of its own: when the answer is lost it is sent again under the same key, and done once.
 *
 * @param key of something that has a key already
 */
export async function write<T>(path: string, body?: unknown, key: string = crypto.randomUUID()): Promise<T> {
  for (let attempt = 0; ; attempt++)
    try {
      return await send<T>(path, { method: 'POST', body, key })
    } catch (error) {
      if (!nobodyAnswered(error) || attempt >= RETRIES) throw error
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS * (attempt + 1)))
    }
}

/** A session as this device holds it. */
export interface Session extends SessionInfo {
  /** How far the server's clock was ahead of this device's when it answered. */
  clockAheadMs: number
}

export async function openSession(): Promise<Session> {
  return keepToken(await get<SessionInfo>('/session'))
}

/** Signing in and out, and the clock: changes of the session itself, which answer with it. */
export async function changeSession(path: string, body?: unknown): Promise<Session> {
  const answer = await ask<SessionInfo | { ok: true }>(path, body)
  return 'csrfToken' in answer ? keepToken(answer) : openSession()
}

function keepToken(session: SessionInfo): Session {
  csrfToken = session.csrfToken
  return { ...session, clockAheadMs: Date.parse(session.now) - Date.now() }
}
