import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ApiError, changeSession, get, write } from './client.ts'

type Call = { path: string; headers: Record<string, string> }
let calls: Call[] = []
let answers: (() => Response | Promise<Response>)[] = []
const json = (status: number, body: unknown) => () => new Response(JSON.stringify(body), { status })
const lost = () => Promise.reject(new TypeError('network'))

beforeEach(() => {
  calls = []
  vi.stubGlobal('fetch', (path: string, init: { headers: Record<string, string> }) => {
    calls.push({ path, headers: init.headers })
    return answers.shift()!()
  })
  vi.useFakeTimers({ shouldAdvanceTime: true, advanceTimeDelta: 500 })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('a write', () => {
  it('whose answer is lost is sent again under the same key', async () => {
    answers = [lost, json(503, {}), json(200, { gardenId: 'g' })]
    expect(await write('/gardens', { name: 'x' })).toEqual({ gardenId: 'g' })
    expect(calls).toHaveLength(3)
    expect(new Set(calls.map((c) => c.headers['idempotency-key'])).size).toBe(1)
  })

  it('that is refused is not sent again, and the refusal keeps its words and places', async () => {
    answers = [
      json(422, { error: 'Nothing was saved.', problems: [{ where: 'a', message: 'a: is missing' }] }),
    ]
    const refusal = await write('/gardens').catch((e: ApiError) => e)
    expect(refusal).toMatchObject({ status: 422, message: 'Nothing was saved.', problems: [{ where: 'a' }] })
    expect(calls).toHaveLength(1)
  })

  it('gives up after three tries, saying that nothing was lost', async () => {
    answers = [lost, lost, lost]
    await expect(write('/gardens')).rejects.toThrow('Nothing was lost')
  })

  it('of another kind has another key', async () => {
    answers = [json(200, {}), json(200, {})]
    await write('/a')
    await write('/b')
    expect(calls[0]!.headers['idempotency-key']).not.toBe(calls[1]!.headers['idempotency-key'])
  })
})

it('the token of the session last answered goes with every change and with no read', async () => {
  answers = [json(200, { csrfToken: 'one' }), json(200, {}), json(200, [])]
  await changeSession('/session/demo', {})
  await write('/gardens')
  await get('/gardens')
  expect(calls.map((c) => c.headers['x-csrf-token'])).toEqual(['', 'one', undefined])
})
