// @vitest-environment happy-dom
import {
  climateEndpoints,
  containerEndpoints,
  crewEndpoints,
  gardenEndpoints,
  lightEndpoints,
  plantingEndpoints,
  recordEndpoints,
  reworkEndpoints,
  ruleEndpoints,
  seasonEndpoints,
  sessionEndpoints,
  taxonEndpoints,
  verdictEndpoints,
  walkEndpoints,
  type Endpoint,
} from '@border/contract'
import { act, screen, waitFor, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { syncNow } from '../offline/sync.ts'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, plantingId, Refuses } from '../test/server.ts'

/** Every screen in every state of its making: being asked for, refused, failed, away, and kept from before. */

interface Shown {
  title: RegExp | string
  path: string
  /** What it cannot be shown without. */
  needs: Endpoint
  /** Found only where its answer is there. */
  shows: () => HTMLElement | Promise<HTMLElement>
}

const taxon = answerTo(taxonEndpoints.list)[0]!.botanical
const reworkId = answerTo(reworkEndpoints.list)[0]!.id
const text = (words: RegExp) => () => screen.findAllByText(words).then((found) => found[0]!)

const screens: Shown[] = [
  {
    title: 'Now',
    path: 'now',
    needs: lightEndpoints.suspicions,
    shows: text(/^Nothing\. Readings of the light/),
  },
  { title: 'Walk', path: 'walk', needs: walkEndpoints.read, shows: text(/looked at/) },
  { title: 'Walk on paper', path: 'walk/sheet', needs: walkEndpoints.read, shows: text(/Walked on/) },
  { title: 'Type a sheet in', path: 'walk/grid', needs: walkEndpoints.read, shows: text(/typed in/) },
  { title: 'Record', path: 'record', needs: recordEndpoints.read, shows: text(/planting-season/) },
  {
    title: 'Record',
    path: 'record?tab=signs',
    needs: recordEndpoints.diagnosis,
    shows: text(/^In trouble$/),
  },
  {
    title: 'Record',
    path: 'record?tab=bloom',
    needs: recordEndpoints.bloom,
    shows: text(/In flower, by week/),
  },
  { title: 'Verdicts', path: 'verdicts', needs: verdictEndpoints.assessment, shows: text(/your decision/) },
  { title: 'Rework', path: 'rework', needs: reworkEndpoints.list, shows: text(/Decide a place anew/) },
  {
    title: 'Rework',
    path: `rework/${reworkId}`,
    needs: reworkEndpoints.list,
    shows: text(/^Stays or goes$/),
  },
  {
    title: 'Planting sheet',
    path: `rework/${reworkId}/sheet`,
    needs: reworkEndpoints.list,
    shows: text(/^Where each plant is set$/),
  },
  { title: 'Pots', path: 'pots', needs: containerEndpoints.read, shows: text(/^What grows in it$/) },
  { title: 'Season', path: 'season', needs: seasonEndpoints.read, shows: text(/open jobs?/) },
  { title: /2026/, path: 'season/day/2026-09-21', needs: seasonEndpoints.read, shows: text(/\d jobs?, /) },
  { title: 'Rules of care', path: 'rules', needs: ruleEndpoints.list, shows: text(/rules? in force/) },
  { title: 'Plants', path: 'plants', needs: gardenEndpoints.read, shows: text(/plantings?$/) },
  {
    title: taxon,
    path: `plants/taxon/${encodeURIComponent(taxon)}`,
    needs: recordEndpoints.read,
    shows: text(/All kinds/),
  },
  {
    title: 'A planting',
    path: `plants/${plantingId}`,
    needs: plantingEndpoints.story,
    shows: () => screen.findByRole('region', { name: 'Its story' }),
  },
  { title: 'Set-up', path: 'set-up', needs: crewEndpoints.read, shows: text(/Jobs are put on the days/) },
  {
    title: 'Set-up',
    path: 'set-up',
    needs: climateEndpoints.soil,
    shows: text(/the soil here is|the soil’s warmth is worked out/),
  },
]
/** Of which the screen itself is nothing: the frame says so in its place. */
const ofFrame = (s: Shown) => s.needs === gardenEndpoints.read
const addressOf = ({ path }: Shown) => `/g/${gardenId}/${path}`
/** Cautions of a job are alerts too; this is one of a screen that cannot be shown. */
const failure = () => document.querySelector('.state-failed')
const named = screens.map((s) => ({ ...s, name: `${s.path} for ${s.needs.path.split('/').at(-1)}` }))

let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
})

describe('a screen', () => {
  it.each(named)('shows $name', async (s) => {
    openApp(addressOf(s))
    expect(await s.shows()).toBeTruthy()
    expect(failure()).toBeNull()
  })

  it.each(named.filter((s) => !ofFrame(s)))(
    'waits for $name under its own head, with the way to all others open',
    async (s) => {
      server.on(s.needs, () => new Promise(() => {}))
      openApp(addressOf(s))
      const main = await screen.findByRole('navigation', { name: 'Main' })
      expect(within(main).getAllByRole('link').length).toBeGreaterThan(8)
      await screen.findByRole('heading', { level: 1, name: s.title })
      await waitFor(() => expect(screen.getAllByRole('status').length).toBeGreaterThan(0))
      expect(failure()).toBeNull()
    },
  )

  it.each(named)('says in the server’s own words why $name is refused, and asks once', async (s) => {
    server.on(s.needs, () => new Refuses(404, 'This garden was not found.'))
    openApp(addressOf(s))
    const alert = await screen.findByRole('alert')
    expect(alert.textContent).toContain('This garden was not found.')
    expect(within(alert).queryByRole('button')).toBeNull()
    expect(server.askedOf(s.needs)).toHaveLength(1)
  })

  it.each(named)('says that $name has failed, and shows it when it is tried again', async (s) => {
    server.on(s.needs, () => new Refuses(500, 'Something went wrong on our side.'))
    const { user } = openApp(addressOf(s))
    const alert = await screen.findByRole('alert')
    expect(alert.textContent).toContain('Something went wrong on our side.')
    server.asWritten(s.needs)
    await user.click(within(alert).getByRole('button', { name: 'Try again' }))
    expect(await s.shows()).toBeTruthy()
    expect(failure()).toBeNull()
  })

  it.each(named.filter((s) => s.needs !== recordEndpoints.bloom))(
    'shows $name as it was read last while nobody answers, says so, and goes on by itself',
    async (s) => {
      const first = openApp(addressOf(s))
      await s.shows()
      await waitFor(() => expect(server.askedOf(gardenEndpoints.now).length).toBeGreaterThan(0))
      first.unmount()
      server.isAway = true
      openApp(addressOf(s))
      expect(await s.shows()).toBeTruthy()
      expect(await screen.findByText(/^The record cannot be reached\. What you see was read /)).toBeTruthy()
      expect(failure()).toBeNull()
      server.isAway = false
      const before = server.asked.length
      await syncNow()
      await waitFor(() => expect(screen.queryByText(/What you see was read/)).toBeNull())
      await waitFor(() => expect(server.asked.slice(before).map((a) => a.endpoint)).toContain(s.needs))
    },
  )
})

describe('while the records are away', () => {
  const away = () => new Refuses(503, 'The records cannot be reached just now.')
  const pages = [
    { name: 'the sign-in', path: '/', needs: sessionEndpoints.read, shows: text(/^Seasoned Border$/) },
    { name: 'a screen', path: `/g/${gardenId}/walk`, needs: walkEndpoints.read, shows: text(/looked at/) },
  ]

  it.each(pages)('$name says so, does not flicker, and goes on by itself', async ({ path, needs, shows }) => {
    // The wait between two questions is not waited for here.
    const timers = vi.spyOn(globalThis, 'setInterval')
    const later = () =>
      act(async () => timers.mock.calls.forEach(([tick, ms]) => ms === 4_000 && (tick as () => void)()))
    server.on(needs, away)
    openApp(path)
    await waitFor(() => expect(failure()).not.toBeNull())
    const said = failure()!
    expect(said.textContent).toContain('The records cannot be reached just now.')
    expect(said.textContent).toContain('goes on by itself')
    const flickered = vi.fn()
    const watched = new MutationObserver(() => {
      if (!said.isConnected) flickered()
    })
    watched.observe(document.body, { childList: true, subtree: true })
    const asked = server.askedOf(needs).length
    await later()
    await server.settled()
    expect(server.askedOf(needs).length).toBeGreaterThan(asked)
    expect(flickered).not.toHaveBeenCalled()
    watched.disconnect()
    server.asWritten(needs)
    await later()
    await server.settled()
    expect(failure()).toBeNull()
    timers.mockRestore()
    expect(await shows()).toBeTruthy()
  })
})

describe('a part of a screen that is nothing until it has something to say', () => {
  const parts = [
    { path: 'now', needs: recordEndpoints.read, beside: /^Nothing\. Readings of the light/ },
    { path: 'plants', needs: verdictEndpoints.assessment, beside: /plantings?$/ },
    { path: 'light', needs: lightEndpoints.suspicions, beside: /Outside/, opens: 'Readings' },
  ]
  it.each(parts)(
    'says on $path why it has failed, beside what is there',
    async ({ path, needs, beside, opens }) => {
      server.on(needs, () => new Refuses(500, 'Something went wrong on our side.'))
      const { user } = openApp(`/g/${gardenId}/${path}`)
      expect((await screen.findAllByText(beside)).length).toBeGreaterThan(0)
      if (opens) await user.click(screen.getByText(opens))
      const alert = await screen.findByRole('alert')
      expect(alert.textContent).toContain('Something went wrong on our side.')
      server.asWritten(needs)
      await user.click(within(alert).getByRole('button', { name: 'Try again' }))
      await waitFor(() => expect(failure()).toBeNull())
      expect(screen.getAllByText(beside).length).toBeGreaterThan(0)
    },
  )

  it.each(parts)('waits on $path without a word', async ({ path, needs, beside, opens }) => {
    server.on(needs, () => new Promise(() => {}))
    const { user } = openApp(`/g/${gardenId}/${path}`)
    expect((await screen.findAllByText(beside)).length).toBeGreaterThan(0)
    if (opens) {
      await user.click(screen.getByText(opens))
      await waitFor(() => expect(document.querySelector('.waiting')).toBeNull())
    }
    expect(failure()).toBeNull()
  })
})

describe('a browser that keeps nothing for us', () => {
  afterEach(() => {
    vi.unstubAllGlobals()
    vi.resetModules()
  })

  it('shows what the server answers all the same', async () => {
    vi.resetModules()
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new DOMException(
          'A mutation operation was attempted on a database that did not allow mutations.',
        )
      },
    })
    const anew = await import('../test/server.ts')
    await anew.MockServer.fresh()
    const { openApp: open } = await import('../test/openApp.tsx')
    open(`/g/${gardenId}/season`)
    expect(await screen.findByText(/open jobs?/)).toBeTruthy()
    expect(failure()).toBeNull()
  })
})

describe('where nothing was ever kept and nobody answers', () => {
  it('says so, loses nothing, and can be tried again', async () => {
    server.isAway = true
    const { user } = openApp(`/g/${gardenId}/season`)
    const alert = await screen.findByRole('alert')
    expect(alert.textContent).toContain('The server cannot be reached. Nothing was lost')
    server.isAway = false
    await user.click(within(alert).getByRole('button', { name: 'Try again' }))
    await screen.findByRole('heading', { level: 1, name: 'Season' })
  })

  it('asks who it is first: a refused session leads to signing in', async () => {
    server.on(sessionEndpoints.read, () => ({
      ...answerTo(sessionEndpoints.read),
      person: null,
      demoPeople: [{ id: plantingId, name: 'Nora Field', role: 'head' as const }],
    }))
    openApp(`/g/${gardenId}/season`)
    expect(await screen.findByRole('button', { name: /Nora Field/ })).toBeTruthy()
    expect(server.askedOf(gardenEndpoints.read)).toEqual([])
  })
})
