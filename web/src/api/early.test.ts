// @vitest-environment happy-dom
import { gardenEndpoints, sessionEndpoints } from '@border/contract'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { answerTo, gardenId } from '../test/server.ts'
import { ask, ApiError } from './client.ts'
import { LAST_GARDEN } from '../frame/lastGarden.ts'
import { askEarly, forgetEarly } from './early.ts'

const addresses = {
  session: `/api${sessionEndpoints.read.path}`,
  gardens: `/api${gardenEndpoints.list.path}`,
  garden: `/api${gardenEndpoints.read.path}`,
  lastGarden: LAST_GARDEN,
}
const session = answerTo(sessionEndpoints.read)
const sent = { params: { gardenId } }

let asked: string[]
/** What answers, by the end of the address. */
let answers: (address: string) => unknown
beforeEach(() => {
  asked = []
  answers = (address) => (address === addresses.session ? session : [])
  vi.stubGlobal('fetch', async (address: string) => {
    asked.push(address)
    const answer = await answers(address)
    if (answer instanceof Error) throw answer
    return Response.json(answer)
  })
  history.replaceState(null, '', `/g/${gardenId}/light`)
})
afterEach(() => {
  forgetEarly()
  localStorage.clear()
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
})
const settled = () => new Promise((resolve) => setTimeout(resolve, 20))
/** As its text stands in the page: nothing around it is there. */
// oxlint-disable-next-line no-eval -- what is tried is text
const inThePage = () => (0, eval)(`(${askEarly})(${JSON.stringify(addresses)})`)

describe('what the page itself asks', () => {
  it('is who it is, then their gardens and the garden of the address on its day', async () => {
    history.replaceState(null, '', `/g/${gardenId}/light?on=2026-05-01`)
    inThePage()
    await settled()
    expect(asked).toEqual([addresses.session, addresses.gardens, `/api/gardens/${gardenId}?on=2026-05-01`])
  })

  it('is nothing of a garden while nobody is signed in', async () => {
    answers = () => ({ ...session, person: null })
    inThePage()
    await settled()
    expect(asked).toEqual([addresses.session])
  })

  it('is all asked at once where a garden was looked at before, at the start for that garden', async () => {
    localStorage.setItem(LAST_GARDEN, 'last-one')
    answers = () => new Promise(() => {})
    inThePage()
    expect(asked).toEqual([addresses.session, addresses.gardens, `/api/gardens/${gardenId}`])
    asked = []
    history.replaceState(null, '', '/')
    inThePage()
    expect(asked).toEqual([addresses.session, addresses.gardens, '/api/gardens/last-one'])
  })

  it('is answered once: the next time the server is asked', async () => {
    inThePage()
    await settled()
    const before = asked.length
    await ask(gardenEndpoints.read, sent)
    expect(asked).toHaveLength(before)
    await ask(gardenEndpoints.read, sent)
    expect(asked).toHaveLength(before + 1)
  })

  it('is asked before it is known who asks: nobody asks the rest beside it', async () => {
    inThePage()
    await ask(sessionEndpoints.read, {})
    await Promise.all([ask(gardenEndpoints.list, {}), ask(gardenEndpoints.read, sent)])
    expect(asked).toEqual([addresses.session, addresses.gardens, `/api/gardens/${gardenId}`])
  })

  it('and nobody took is not the answer to what is asked later, however late it was asked itself', async () => {
    let answer!: (session: unknown) => void
    const slow = new Promise((resolve) => (answer = resolve))
    answers = (address) => (address === addresses.session ? slow : [`answer ${asked.length}`])
    inThePage()
    forgetEarly()
    answer(session)
    await settled()
    const before = asked.length
    expect(await ask(gardenEndpoints.list, {})).toEqual([`answer ${before + 1}`])
  })

  it('that nobody answered is told like any other question, and can be asked again', async () => {
    answers = () => new TypeError('Failed to fetch')
    inThePage()
    await settled()
    await expect(ask(sessionEndpoints.read, {})).rejects.toThrow(ApiError)
    answers = () => session
    expect(await ask(sessionEndpoints.read, {})).toEqual(session)
  })
})
