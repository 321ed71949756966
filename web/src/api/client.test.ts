import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import {
  crewEndpoints,
  gardenEndpoints,
  lightEndpoints,
  photoEndpoints,
  verdictEndpoints,
} from '@border/contract'
import { ApiError, ask, changeSession, hrefOf, write } from './client.ts'

type Call = { path: string; headers: Record<string, string>; body: unknown }
let calls: Call[] = []
let answers: (() => Response | Promise<Response>)[] = []
const json = (status: number, body: unknown) => () => new Response(JSON.stringify(body), { status })
const made = { body: { name: 'x', latitude: 51, longitude: 0, timeZone: 'Europe/London' } }
const lost = () => Promise.reject(new TypeError('network'))

beforeEach(() => {
  calls = []
  vi.stubGlobal('fetch', (path: string, init: Omit<Call, 'path'>) => {
    calls.push({ path, headers: init.headers, body: init.body })
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
    expect(await write(gardenEndpoints.create, made)).toEqual({ gardenId: 'g' })
    expect(calls).toHaveLength(3)
    expect(new Set(calls.map((c) => c.headers['idempotency-key'])).size).toBe(1)
  })

  it('with a file is a form of what is said and the file, and the browser says what parts it', async () => {
    answers = [lost, json(200, { added: true })]
    const params = { gardenId: 'g' }
    const body = { id: 'p', on: '2026-09-14', at: '2026-09-14T09:00:00Z', placeId: 'b' }
    await write(photoEndpoints.add, { params, body, file: new Blob(['picture']) })
    for (const call of calls) {
      const form = call.body as FormData
      expect(JSON.parse(form.get('said') as string)).toEqual(body)
      expect(await (form.get('file') as File).text()).toBe('picture')
      expect(Object.keys(call.headers)).not.toContain('content-type')
    }
    expect(calls).toHaveLength(2)
  })

  it('that is refused is not sent again, and the refusal keeps its words and places', async () => {
    answers = [
      json(422, { error: 'Nothing was saved.', problems: [{ where: 'a', message: 'a: is missing' }] }),
    ]
    const refusal = await write(gardenEndpoints.create, made).catch((e: ApiError) => e)
    expect(refusal).toMatchObject({ status: 422, message: 'Nothing was saved.', problems: [{ where: 'a' }] })
    expect(calls).toHaveLength(1)
  })

  it('gives up after three tries, saying that nothing was lost', async () => {
    answers = [lost, lost, lost]
    await expect(write(gardenEndpoints.create, made)).rejects.toThrow('Nothing was lost')
  })

  it('of another kind has another key', async () => {
    answers = [json(200, {}), json(200, {})]
    await write(gardenEndpoints.create, made)
    await write(gardenEndpoints.create, made)
    expect(calls[0]!.headers['idempotency-key']).not.toBe(calls[1]!.headers['idempotency-key'])
  })
})

it('what was seen goes beside the body where it was said, and is nothing else of a body that has one', async () => {
  const bodies: unknown[] = []
  vi.stubGlobal('fetch', (_: string, init: { body: string }) => {
    bodies.push(JSON.parse(init.body))
    return json(200, {})()
  })
  const params = { gardenId: 'g' }
  const day = { day: '2026-09-21', minutes: 0 }
  await write(crewEndpoints.setDay, { params, body: day, seen: { minutes: null } })
  await write(crewEndpoints.setDay, { params, body: day })
  const reading = { at: '2026-09-13T11:00:00Z', x: 1, y: 2, seen: 'dappled' as const }
  await write(lightEndpoints.takeReading, { params, body: reading })
  expect(bodies).toEqual([{ ...day, seen: { minutes: null } }, day, reading])
})

it('the token of the session last answered goes with every change and with no read', async () => {
  answers = [json(200, { csrfToken: 'one' }), json(200, {}), json(200, [])]
  await changeSession({ name: 'enterDemo', body: { personId: 'p' } })
  await write(gardenEndpoints.create, made)
  await ask(gardenEndpoints.list, {})
  expect(calls.map((c) => c.headers['x-csrf-token'])).toEqual(['', 'one', undefined])
})

describe('an address', () => {
  const gardenId = '3f2504e0-4f89-41d3-9a0c-0305e82c3301'
  it('has the given parts of its path, and of its query what is given', () => {
    expect(hrefOf(gardenEndpoints.list, {})).toBe('/api/gardens')
    expect(
      hrefOf(verdictEndpoints.assessment, {
        params: { gardenId },
        query: { on: '2026-09-14', then: undefined },
      }),
    ).toBe(`/api/gardens/${gardenId}/assessment?on=2026-09-14`)
    expect(
      hrefOf(photoEndpoints.picture, { params: { gardenId, photoId: 'a/b' }, query: { size: 'small' } }),
    ).toBe(`/api/gardens/${gardenId}/photos/a%2Fb?size=small`)
  })

  it('is none without a part it needs', () => {
    const params = { gardenId } as { gardenId: string; personId: string }
    expect(() => hrefOf(crewEndpoints.leave, { params })).toThrow('needs its personId')
  })
})
