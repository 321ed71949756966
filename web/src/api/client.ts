import {
  addressOf,
  DEVICE_CLOCK,
  sessionEndpoints,
  type AnswerOf,
  type BodyOf,
  type Endpoint,
  type ErrorAnswer,
  type Meanwhile,
  type ParamsOf,
  type QueryOf,
  type SeenOf,
  type SessionInfo,
} from '@border/contract'
import { takeEarly } from './early.ts'

/** A refusal or failure in words a person can act on. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly problems: NonNullable<ErrorAnswer['problems']> = [],
    /** What has become of the thing since it was seen, where that is why. */
    readonly meanwhile: Meanwhile | undefined = undefined,
  ) {
    super(message)
  }
}

/** The server has answered, and its answer is no: asking again changes nothing. */
export const isRefusal = (error: unknown): boolean =>
  error instanceof ApiError && error.status >= 400 && error.status < 500 && error.status !== 429

/** Nobody answered, or only what stands before the server did. */
export const nobodyAnswered = (error: unknown): boolean =>
  error instanceof ApiError && (error.status === 0 || error.status >= 502)

let csrfToken = ''

const postHeaders = (body: string | FormData) => ({
  // Of a form the browser says what parts it.
  ...(typeof body === 'string' && { 'content-type': 'application/json' }),
  'x-csrf-token': csrfToken,
  // Days are told by the server's clock: it must know how far this one is off.
  [DEVICE_CLOCK]: new Date().toISOString(),
})

/** What is sent along with an endpoint: the given parts of its path, its query, its body, and what was seen of what it changes. */
export type Sent<E extends Endpoint> = (unknown extends ParamsOf<E['path']>
  ? { params?: undefined }
  : { params: ParamsOf<E['path']> }) &
  WithBody<E> &
  (E extends { takesFile: true } ? { file: Blob } : { file?: undefined }) & {
    query?: QueryOf<E>
    seen?: SeenOf<E>
  }

type WithBody<E extends Endpoint> = BodyOf<E> extends undefined ? { body?: undefined } : { body: BodyOf<E> }

/** The address of an endpoint, for a link or a picture too. */
export function hrefOf<E extends Endpoint>(endpoint: E, { params, query }: Omit<Sent<E>, 'body'>): string {
  const search = new URLSearchParams(
    Object.entries(query ?? {}).flatMap(([name, value]) =>
      value === undefined ? [] : [[name, String(value)] as [string, string]],
    ),
  ).toString()
  return `/api${addressOf(endpoint.path, params ?? {})}${search && `?${search}`}`
}

/** What was seen goes beside the body, where it was said; with a file both are parts of a form. */
function bodyOf<E extends Endpoint>({ body, seen, file }: Sent<E>): string | FormData {
  const said = JSON.stringify({ ...(body as object | undefined), ...(seen !== undefined && { seen }) })
  if (!file) return said
  const form = new FormData()
  form.append('said', said)
  form.append('file', file)
  return form
}

/** @throws {ApiError} where it is refused, or nobody answers */
async function respond<E extends Endpoint>(
  endpoint: E,
  sent: Sent<E>,
  { key, signal }: { key?: string; signal?: AbortSignal } = {},
): Promise<Response> {
  const isPost = endpoint.method === 'post'
  let response: Response
  try {
    const address = hrefOf(endpoint, sent)
    const early = isPost ? undefined : takeEarly(address)
    const body = isPost ? bodyOf(sent) : undefined
    response = await (early ??
      fetch(address, {
        method: endpoint.method.toUpperCase(),
        signal,
        headers: {
          ...(body !== undefined && postHeaders(body)),
          ...(key ? { 'idempotency-key': key } : {}),
        },
        body,
      }))
  } catch (error) {
    if (signal?.aborted) throw error
    throw new ApiError(0, 'The server cannot be reached. Nothing was lost; try again in a moment.')
  }
  if (response.ok) return response
  const answer = (await response.json().catch(() => undefined)) as ErrorAnswer | undefined
  throw new ApiError(
    response.status,
    answer?.error ?? `The server answered ${response.status}.`,
    answer?.problems,
    answer?.meanwhile,
  )
}

/** The server answers what the contract says: its tests hold every answer to it. */
const send = async <E extends Endpoint>(
  endpoint: E,
  sent: Sent<E>,
  how?: Parameters<typeof respond>[2],
): Promise<AnswerOf<E>> => (await (await respond(endpoint, sent, how)).json()) as AnswerOf<E>

/** A file that an endpoint sends, under the name that the server gives it. */
export async function askFile<E extends Endpoint>(
  endpoint: E,
  sent: Sent<E>,
): Promise<{ file: Blob; name: string }> {
  const response = await respond(endpoint, sent)
  const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1]
  return { file: await response.blob(), name: name ?? 'file' }
}

/**
 * What is asked without changing anything.
 *
 * @param signal given up when nobody waits for the answer any more
 */
export const ask = <E extends Endpoint>(
  endpoint: E,
  sent: Sent<E>,
  signal?: AbortSignal,
): Promise<AnswerOf<E>> => send(endpoint, sent, { signal })

const RETRIES = 2
const RETRY_MS = 600

/**
 * A write with a key of its own: when the answer is lost it is sent again under the same key, and done once.
 *
 * @param key of something that has a key already
 */
export async function write<E extends Endpoint>(
  endpoint: E,
  sent: Sent<E>,
  key: string = crypto.randomUUID(),
): Promise<AnswerOf<E>> {
  for (let attempt = 0; ; attempt++)
    try {
      return await send(endpoint, sent, { key })
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
  return keepToken(await ask(sessionEndpoints.read, {}))
}

/** A change of the session itself, which answers with it: signing in and out, and the clock. */
export type SessionChange = {
  [Name in Exclude<keyof typeof sessionEndpoints, 'read'>]: { name: Name } & WithBody<
    (typeof sessionEndpoints)[Name]
  >
}[Exclude<keyof typeof sessionEndpoints, 'read'>]

export async function changeSession({ name, body }: SessionChange): Promise<Session> {
  const endpoint: Endpoint = sessionEndpoints[name]
  const answer = await ask(endpoint, { body } as Sent<Endpoint>)
  return name === 'signOut' ? openSession() : keepToken(answer as SessionInfo)
}

function keepToken(session: SessionInfo): Session {
  csrfToken = session.csrfToken
  return { ...session, clockAheadMs: Date.parse(session.now) - Date.now() }
}
