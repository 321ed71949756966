// @vitest-environment happy-dom
import {
  aspects,
  benchEndpoints,
  climateEndpoints,
  gardenEndpoints,
  lightEndpoints,
  recordEndpoints,
  seasonEndpoints,
  sessionEndpoints,
  verdictEndpoints,
  walkEndpoints,
  wateringEndpoints,
  type Aspect,
  type Endpoint,
  type VersionsView,
} from '@border/contract'
import { act, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it, onTestFinished, vi } from 'vitest'
import { keptAnswers } from '../offline/store.ts'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, plantingId, Refuses } from '../test/server.ts'

/** What is told of a garden follows what changes in it, and only that is asked for again. */

let server: MockServer
let versions: Record<Aspect, string>
let isBehind: boolean
const raise = (...changed: Aspect[]) => {
  for (const a of changed) versions = { ...versions, [a]: String(Number(versions[a]) + 1) }
}

beforeEach(async () => {
  server = await MockServer.fresh()
  versions = answerTo(gardenEndpoints.versions).versions
  isBehind = false
  server.on(gardenEndpoints.versions, (): VersionsView => ({ versions, isBehind }))
})

/** All that a screen asks for beside what every screen does. */
const wants = {
  now: [
    climateEndpoints.outlook,
    wateringEndpoints.read,
    seasonEndpoints.read,
    recordEndpoints.read,
    benchEndpoints.list,
    lightEndpoints.suspicions,
  ],
  verdicts: [verdictEndpoints.assessment, verdictEndpoints.successions],
  season: [seasonEndpoints.read, seasonEndpoints.latestSchedule, seasonEndpoints.why],
  walk: [walkEndpoints.read],
  record: [recordEndpoints.read],
} satisfies Record<string, Endpoint[]>

/** Opens a screen and waits until it has asked for all it wants. */
async function opened(name: keyof typeof wants, search = '') {
  const app = openApp(`/g/${gardenId}/${name}${search}`)
  for (const e of [gardenEndpoints.versions, gardenEndpoints.now, ...wants[name]])
    await waitFor(() => expect(server.askedOf(e).length).toBeGreaterThan(0))
  await server.settled()
  return app
}

/** The person comes back to the page. */
async function lookAgain(): Promise<void> {
  await act(async () => {
    document.dispatchEvent(new Event('visibilitychange', { bubbles: true }))
    await Promise.resolve()
  })
  await server.settled()
}

describe('after a write', () => {
  it('what it has changed is asked for again, and nothing else', async () => {
    const { user } = await opened('now')
    const before = server.asked.length
    server.on(benchEndpoints.gone, () => {
      raise('bench')
      server.on(benchEndpoints.list, () => [])
      return { ok: true } as const
    })
    await user.click(await screen.findByRole('button', { name: 'Given away' }))
    await screen.findByText('Nothing waits for a place.')
    await server.settled()
    expect(server.askedSince(before)).toEqual(['bench.gone', 'gardens.versions', 'bench.list'])
  })

  it('of which nobody can say what it changed, all of the garden is asked for again', async () => {
    const { user } = await opened('now')
    const before = server.asked.length
    server.on(benchEndpoints.gone, () => {
      server.on(gardenEndpoints.versions, () => new Refuses(500, 'Something went wrong on our side.'))
      return { ok: true } as const
    })
    await user.click(await screen.findByRole('button', { name: 'Given away' }))
    await waitFor(() =>
      expect(server.askedSince(before)).toEqual(
        expect.arrayContaining([
          'bench.list',
          'gardens.read',
          'gardens.now',
          'seasons.read',
          'watering.read',
        ]),
      ),
    )
  })

  it('that is refused nothing is asked for, and the refusal is shown in its words', async () => {
    const { user } = await opened('now')
    const before = server.asked.length
    server.on(benchEndpoints.gone, () => new Refuses(422, 'That day lies ahead.'))
    await user.click(await screen.findByRole('button', { name: 'Given away' }))
    await screen.findByText('That day lies ahead.')
    await server.settled()
    expect(server.askedSince(before)).toEqual(['bench.gone'])
  })

  it('whose answer is lost the same key is sent again', async () => {
    const { user } = await opened('now')
    let lost = 0
    server.on(benchEndpoints.gone, () => {
      if (lost++ === 0) throw new TypeError('the answer is lost')
      return { ok: true } as const
    })
    await user.click(await screen.findByRole('button', { name: 'Given away' }))
    await screen.findByText('Off the bench: given away.')
    const keys = server.askedOf(benchEndpoints.gone).map((a) => a.key)
    expect([keys.length, new Set(keys).size]).toEqual([2, 1])
  })
})

describe('what others change', () => {
  it('is seen when the page is looked at again, with the badges that hang on it', async () => {
    await opened('verdicts')
    const { openVerdicts, ...now } = answerTo(gardenEndpoints.now)
    server.on(gardenEndpoints.now, () => ({ ...now, openVerdicts: openVerdicts + 40 }))
    const before = server.asked.length
    raise('decisions')
    await lookAgain()
    const link = within(screen.getByRole('navigation', { name: 'Main' })).getByRole('link', {
      name: /^Verdicts/,
    })
    await waitFor(() => expect(link.textContent).toBe(`Verdicts ${openVerdicts + 40}`))
    expect(server.askedSince(before).sort()).toEqual(
      ['gardens.versions', 'gardens.now', 'verdicts.assessment', 'verdicts.successions'].sort(),
    )
  })

  it('is not asked for where nothing has changed', async () => {
    await opened('season')
    const before = server.asked.length
    await lookAgain()
    expect(server.askedSince(before)).toEqual(['gardens.versions'])
  })

  it('is never read anew under the hands of whoever walks, and is there at the next walk', async () => {
    const { router } = await opened('walk')
    const before = server.asked.length
    raise('record', 'plantings')
    await lookAgain()
    await waitFor(() => expect(server.askedSince(before)).toContain('gardens.read'))
    expect(server.askedSince(before)).not.toContain('walks.read')
    await act(() => router.navigate(`/g/${gardenId}/season`))
    await act(() => router.navigate(`/g/${gardenId}/walk`))
    await waitFor(() => expect(server.askedSince(before)).toContain('walks.read'))
  })

  it('while a first answer is on its way, that answer is not taken for the new one', async () => {
    const { user } = await opened('season')
    let answer: (() => void) | undefined
    const stays = answerTo(recordEndpoints.read)
    server.on(
      recordEndpoints.read,
      () => new Promise((resolve) => (answer = () => resolve({ ...stays, stays: [] }))),
    )
    await user.click(
      within(screen.getByRole('navigation', { name: 'Main' })).getByRole('link', { name: 'Record' }),
    )
    await waitFor(() => expect(answer).toBeDefined())
    raise('record')
    server.asWritten(recordEndpoints.read)
    await lookAgain()
    act(() => answer!())
    await waitFor(() => expect(server.askedOf(recordEndpoints.read)).toHaveLength(2))
    await server.settled()
    expect(server.askedOf(recordEndpoints.read)).toHaveLength(2)
    expect(await screen.findByText(/planting-season/)).toBeTruthy()
  })
})

describe('work that is being brought up to date', () => {
  it('says so until it is, and then shows the new days', async () => {
    isBehind = true
    await opened('season')
    await screen.findByText('The work and its days are being brought up to date.')
    const before = server.asked.length
    isBehind = false
    raise('days')
    await waitFor(() => expect(screen.queryByText(/being brought up to date/)).toBeNull())
    await waitFor(() =>
      expect(server.askedSince(before)).toEqual(expect.arrayContaining(['gardens.versions', 'seasons.read'])),
    )
    expect(server.askedSince(before)).not.toContain('gardens.read')
  })
})

describe('what a device keeps', () => {
  const kept = async () => (await keptAnswers.entries!()).map(([key]) => key)

  it('is what was asked for as of today: a day looked back at is not', async () => {
    await opened('verdicts')
    await waitFor(async () => expect((await kept()).join()).toContain('/assessment'))
    await opened('verdicts', '?on=2025-06-01')
    await server.settled()
    expect((await kept()).join()).not.toContain('2025-06-01')
  })

  it('is one person’s: another who comes in finds none of it', async () => {
    await opened('record')
    await waitFor(async () => expect((await kept()).join()).toContain('/record'))
    const session = answerTo(sessionEndpoints.read)
    const other = { id: plantingId, name: 'Nora Field' }
    const nobody = { ...session, person: null, demoPeople: [{ ...other, role: 'head' as const }] }
    server.on(sessionEndpoints.read, () => nobody)
    document.body.innerHTML = ''
    const { user } = openApp(`/g/${gardenId}/record`)
    const enter = await screen.findByRole('button', { name: /Nora Field/ })
    server.on(sessionEndpoints.enterDemo, () => ({
      ...session,
      person: { ...session.person!, ...other },
    }))
    // From here on nothing but what is kept could be shown.
    server.on(recordEndpoints.read, () => new Promise(() => {}))
    await user.click(enter)
    await screen.findByText('Nora Field')
    await server.settled()
    expect((await kept()).join()).not.toContain('/record')
    expect(screen.queryByText(/planting-season/)).toBeNull()
  })
})

describe('an answer that nobody waits for any more', () => {
  /** Has the device look for what it keeps until it is let go. */
  function slowDevice() {
    const getItem = keptAnswers.getItem
    let letGo = () => {}
    const gate = new Promise<void>((resolve) => (letGo = resolve))
    const looksFor = vi.spyOn(keptAnswers, 'getItem').mockImplementation(async (key) => {
      if (key.includes('/record')) await gate
      return getItem(key)
    })
    onTestFinished(() => looksFor.mockRestore())
    return { letGo, isLookedFor: () => looksFor.mock.calls.some(([key]) => key.includes('/record')) }
  }

  it.each([
    { where: 'the screen', leaves: (app: ReturnType<typeof openApp>) => app.router.navigate('../walk') },
    { where: 'the application', leaves: (app: ReturnType<typeof openApp>) => app.unmount() },
  ])('is not asked for where $where is left before the device has looked', async ({ leaves }) => {
    const device = slowDevice()
    const app = openApp(`/g/${gardenId}/record`)
    await waitFor(() => expect(device.isLookedFor()).toBe(true))
    await act(async () => leaves(app))
    device.letGo()
    await server.settled()
    expect(server.askedOf(recordEndpoints.read)).toEqual([])
  })

  it('is not asked for anew where all that was known is forgotten as the device has found it', async () => {
    const { unmount } = await opened('record')
    await waitFor(async () => expect((await keptAnswers.entries!()).join()).toContain('/record'))
    unmount()
    const asked = server.askedOf(recordEndpoints.read).length
    const device = slowDevice()
    const app = openApp(`/g/${gardenId}/record`)
    await waitFor(() => expect(device.isLookedFor()).toBe(true))
    const [query] = app.client
      .getQueryCache()
      .findAll({ predicate: (q) => q.queryKey.join().endsWith('/record') })
    device.letGo()
    expect(await query!.promise).toBeTruthy()
    app.unmount()
    app.client.clear()
    await server.settled()
    expect(server.askedOf(recordEndpoints.read)).toHaveLength(asked)
  })
})

describe('a garden’s versions', () => {
  it('are of every aspect that an answer may rest on', () => {
    expect(Object.keys(versions).sort()).toEqual([...aspects].sort())
  })
})
