// @vitest-environment happy-dom
import { gardenEndpoints, sessionEndpoints } from '@border/contract'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { openClient } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, Refuses } from '../test/server.ts'
import { askFirst } from './session.ts'

let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
})
const at = { pathname: `/g/${gardenId}/light`, search: '' }
const known = (client: ReturnType<typeof openClient>) =>
  client
    .getQueryCache()
    .getAll()
    .filter((q) => q.state.data !== undefined)
    .map((q) => q.queryKey.at(-1))
const whole = ['session', '/api/gardens', `/api/gardens/${gardenId}`]
const times = () =>
  [sessionEndpoints.read, gardenEndpoints.list, gardenEndpoints.read].map((e) => server.askedOf(e).length)

describe('what the first screen cannot be shown without', () => {
  it('is asked once each, and is there for whatever shows it', async () => {
    const client = openClient()
    await askFirst(client, at)
    expect(known(client)).toEqual(whole)
    expect(times()).toEqual([1, 1, 1])
  })

  it('is what the device keeps where nobody answers', async () => {
    await askFirst(openClient(), at)
    server.isAway = true
    const later = openClient()
    await askFirst(later, at)
    expect(known(later)).toEqual(whole)
    // It goes on asking, until it has given up.
    await vi.waitFor(() => expect(later.isFetching()).toBe(0))
    expect(later.getQueryData(['session'])).toMatchObject({ person: answerTo(sessionEndpoints.read).person })
  })

  it('is nothing of a garden where nobody is signed in', async () => {
    server.on(sessionEndpoints.read, () => ({ ...answerTo(sessionEndpoints.read), person: null }))
    const client = openClient()
    await askFirst(client, at)
    expect(known(client)).toEqual(['session'])
    expect(times()).toEqual([1, 0, 0])
  })

  it('that is refused is asked once, and left to the screen to say', async () => {
    server.on(gardenEndpoints.read, () => new Refuses(404, 'This garden was not found.'))
    const client = openClient()
    await askFirst(client, at)
    expect(known(client)).toEqual(whole.slice(0, 2))
    expect(times()).toEqual([1, 1, 1])
  })
})
