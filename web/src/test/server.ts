import {
  DEVICE_CLOCK,
  endpoints,
  gardenEndpoints,
  type AnswerOf,
  type Endpoint,
  type ErrorAnswer,
  type Role,
} from '@border/contract'
import { act, cleanup } from '@testing-library/react'
import { vi } from 'vitest'
import { z } from 'zod'
import { forgetKept } from '../offline/store.ts'
import written from './answers.json'

/** The garden that the answers are of, and the day that they were given on. */
export const { gardenId, plantingId, jobId } = written.params
export const today = written.today

const all = Object.entries(endpoints).flatMap(([area, list]) =>
  Object.entries<Endpoint>(list).map(([name, endpoint]) => ({ name: `${area}.${name}`, endpoint })),
)
const nameOf = new Map(all.map(({ name, endpoint }) => [endpoint, name]))

/** What was answered to an endpoint, as the server answers it. */
export function answerTo<E extends Endpoint>(endpoint: E): AnswerOf<E> {
  const name = nameOf.get(endpoint)!
  const answer = (written.answers as Record<string, unknown>)[name]
  const read = endpoint.answer.safeParse(answer)
  if (!read.success)
    throw new Error(
      `answers.json is not what ${name} says: write it anew with \`npm run answers -w cli\`. ${z.prettifyError(read.error)}`,
    )
  return structuredClone(answer) as AnswerOf<E>
}

export interface Asked {
  endpoint: Endpoint
  params: Record<string, string>
  query: URLSearchParams
  body: unknown
  key: string | null
  deviceClock: string | null
}

type Way = (asked: Asked) => unknown

let made = 0

/** A refusal or failure of the server. */
export class Refuses {
  constructor(
    readonly status: number,
    readonly error: string,
    readonly problems?: ErrorAnswer['problems'],
    readonly meanwhile?: ErrorAnswer['meanwhile'],
  ) {}
}

/**
 * A stand-in of the server: it answers what was written down, in other ways where a test says so, and remembers what it was asked.
 * What it is told to answer is held against the contract like the server's own answers.
 */
export class MockServer {
  private readonly nth = ++made
  readonly asked: Asked[] = []
  private readonly ways = new Map<Endpoint, Way>()
  /** Nobody answers. */
  isAway = false

  /** @returns a server that is asked from now on; the device remembers nothing of one before it */
  static async fresh(): Promise<MockServer> {
    cleanup()
    const server = new MockServer()
    localStorage.clear()
    await forgetKept().catch(() => {})
    return server
  }

  private constructor() {
    vi.stubGlobal('fetch', (address: string, init?: RequestInit) => this.answer(address, init))
  }

  /** @param way what it answers, a `Refuses`, or a promise of either; never, where that never comes */
  on<E extends Endpoint>(
    endpoint: E,
    way: (asked: Asked) => AnswerOf<E> | Refuses | Promise<AnswerOf<E> | Refuses>,
  ): this {
    this.ways.set(endpoint, way)
    return this
  }

  /** As it was written down again. */
  asWritten(endpoint: Endpoint): this {
    this.ways.delete(endpoint)
    return this
  }

  /** The garden as somebody of another role has it. */
  seenBy(role: Role): this {
    const view = answerTo(gardenEndpoints.read)
    return this.on(gardenEndpoints.read, () => ({ ...view, garden: { ...view.garden, role } }))
  }

  /** What was asked of an endpoint, in order. */
  askedOf = (endpoint: Endpoint): Asked[] => this.asked.filter((a) => a.endpoint === endpoint)

  /** What was asked since the last time, by name. */
  askedSince(before: number): string[] {
    return this.asked.slice(before).map((a) => nameOf.get(a.endpoint)!)
  }

  /** Until nothing more has been asked for a little while. */
  async settled(): Promise<void> {
    for (let before = -1; before !== this.asked.length;) {
      before = this.asked.length
      await act(() => new Promise((resolve) => setTimeout(resolve, 60)))
    }
  }

  private async answer(address: string, init: RequestInit = {}): Promise<Response> {
    await Promise.resolve()
    init.signal?.throwIfAborted()
    if (this.isAway) throw new TypeError('Failed to fetch')
    const { pathname, searchParams } = new URL(address, 'http://garden.invalid')
    const method = (init.method ?? 'GET').toLowerCase()
    const found = all.flatMap(({ endpoint }) => {
      const params = endpoint.method === method && paramsOf(endpoint.path, pathname)
      return params ? [{ endpoint, params }] : []
    })
    // What is written out is nearer than what is given.
    const [nearest] = found.sort((a, b) => Object.keys(a.params).length - Object.keys(b.params).length)
    if (!nearest) throw new Error(`Nothing answers ${method} ${pathname}`)
    const { endpoint, params } = nearest
    const said = init.body instanceof FormData ? init.body.get('said') : init.body
    const body: unknown = typeof said === 'string' ? JSON.parse(said) : undefined
    if (endpoint.takesFile && !(init.body instanceof FormData && init.body.get('file')))
      throw new Error(`${nameOf.get(endpoint)} was sent no file`)
    const sent = endpoint.body?.safeParse(body)
    if (sent && !sent.success)
      throw new Error(`${nameOf.get(endpoint)} does not take ${JSON.stringify(body)}`)
    const { seen } = (body ?? {}) as { seen?: unknown }
    if (endpoint.sees && seen !== undefined) endpoint.sees.parse(seen)
    const asked = {
      endpoint,
      params,
      query: searchParams,
      body,
      key: new Headers(init.headers).get('idempotency-key'),
      deviceClock: new Headers(init.headers).get(DEVICE_CLOCK),
    }
    this.asked.push(asked)
    const way =
      this.ways.get(endpoint) ??
      (endpoint.sends
        ? () => undefined
        : endpoint.method === 'get'
          ? () => answerTo(endpoint)
          : () => ({ ok: true }))
    const answer = await Promise.race([way(asked), gone(init.signal)])
    // Of a test that is over: nobody waits for it.
    if (this.nth !== made) return new Promise(() => {})
    if (this.isAway) throw new TypeError('Failed to fetch')
    if (answer instanceof Refuses)
      return Response.json(
        { error: answer.error, problems: answer.problems, meanwhile: answer.meanwhile },
        { status: answer.status },
      )
    endpoint.answer.parse(answer)
    if (endpoint.sends)
      return new Response('A file', {
        headers: {
          'content-type': endpoint.sends,
          'content-disposition': `attachment; filename="${nameOf.get(endpoint)}"`,
        },
      })
    return Response.json(answer)
  }
}

const gone = (signal: AbortSignal | null | undefined): Promise<never> =>
  new Promise((_, reject) =>
    signal?.addEventListener('abort', () => reject(new DOMException('Aborted', 'AbortError'))),
  )

function paramsOf(path: string, pathname: string): Record<string, string> | undefined {
  const wanted = `/api${path}`.split('/')
  const given = pathname.split('/')
  if (wanted.length !== given.length) return undefined
  const params: Record<string, string> = {}
  for (const [i, part] of wanted.entries())
    if (part.startsWith(':')) params[part.slice(1)] = decodeURIComponent(given[i]!)
    else if (part !== given[i]) return undefined
  return params
}
