// @vitest-environment happy-dom
import { gardenEndpoints, sessionEndpoints, type ImportPreview, type SessionInfo } from '@border/contract'
import { screen, waitFor } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, Refuses } from '../test/server.ts'

let server: MockServer
const known = (): SessionInfo => answerTo(sessionEndpoints.read)
const nobody = (): SessionInfo => ({ ...known(), person: null })
beforeEach(async () => {
  server = await MockServer.fresh()
})

describe('signing in', () => {
  it('asks for both, sends them, and opens the garden last looked at', async () => {
    server.on(sessionEndpoints.read, nobody).on(sessionEndpoints.signIn, known)
    localStorage.setItem('border.lastGarden', gardenId)
    const { user } = openApp('/')
    await user.click(await screen.findByRole('button', { name: 'Sign in' }))
    expect(await screen.findByText('Give your address')).toBeTruthy()
    expect(screen.getByText('Give your password')).toBeTruthy()
    expect(server.askedOf(sessionEndpoints.signIn)).toEqual([])
    await user.type(screen.getByLabelText('E-mail address'), 'nora@example.org')
    await user.type(screen.getByLabelText('Password'), 'twelve apple trees{Enter}')
    expect(await screen.findByRole('navigation', { name: 'Main' })).toBeTruthy()
    expect(server.askedOf(sessionEndpoints.signIn).map((a) => a.body)).toEqual([
      { email: 'nora@example.org', password: 'twelve apple trees' },
    ])
  })

  it('that is refused stays where it is, with what was typed, and says why', async () => {
    server
      .on(sessionEndpoints.read, nobody)
      .on(sessionEndpoints.signIn, () => new Refuses(401, 'This address and password do not go together.'))
    const { user } = openApp('/')
    await user.type(await screen.findByLabelText('E-mail address'), 'nora@example.org')
    await user.type(screen.getByLabelText('Password'), 'a guess of mine{Enter}')
    expect((await screen.findByRole('alert')).textContent).toContain('do not go together')
    expect((screen.getByLabelText('E-mail address') as HTMLInputElement).value).toBe('nora@example.org')
  })

  /** All but the password filled in, where nobody has an account. */
  async function firstAccountBegun() {
    server
      .on(sessionEndpoints.read, () => ({ ...nobody(), needsFirstAccount: true }))
      .on(sessionEndpoints.firstAccount, known)
    const { user } = openApp('/')
    await user.type(await screen.findByLabelText(/^Practice/), 'Field and Daughter')
    await user.type(screen.getByLabelText('Your name'), 'Nora Field')
    await user.type(screen.getByLabelText('E-mail address'), 'nora@example.org')
    return user
  }

  it('where nobody has an account begins with the first, whose password is long enough', async () => {
    const user = await firstAccountBegun()
    await user.type(screen.getByLabelText('Password'), 'short')
    await user.click(screen.getByRole('button', { name: 'Make the account' }))
    expect(await screen.findByText('At least 10 characters')).toBeTruthy()
    expect(server.askedOf(sessionEndpoints.firstAccount)).toEqual([])
    await user.type(screen.getByLabelText('Password'), ' but longer now')
    await user.click(screen.getByRole('button', { name: 'Make the account' }))
    await waitFor(() => expect(server.askedOf(sessionEndpoints.firstAccount)).toHaveLength(1))
  })

  it('takes a password as it was typed: a blank at its end is part of it', async () => {
    const user = await firstAccountBegun()
    await user.type(screen.getByLabelText('Password'), 'ten with  {Enter}')
    await waitFor(() =>
      expect(server.askedOf(sessionEndpoints.firstAccount).map((a) => a.body)).toMatchObject([
        { password: 'ten with  ' },
      ]),
    )
  })
})

describe('a garden from files', () => {
  const file = (name: string, text: string) => new File([text], name)
  const garden = answerTo(gardenEndpoints.read)
  const preview = (): ImportPreview => ({
    gardenName: 'Walled court',
    latitude: 52,
    longitude: 1,
    northDeg: 0,
    today: '2026-09-15',
    counts: { bed: 2 },
    features: garden.features.map(({ kind, name, from, to, geometry, properties }) => ({
      kind,
      name,
      from,
      to,
      geometry,
      properties,
    })),
    plantings: [],
    weatherDays: 0,
  })
  const choose = async (...files: File[]) => {
    const app = openApp('/gardens/new')
    await app.user.upload(await screen.findByLabelText('Garden files'), files)
    return app
  }

  it('is shown before it is saved, and saved once', async () => {
    server
      .on(gardenEndpoints.previewImport, () => ({ ok: true as const, preview: preview() }))
      .on(gardenEndpoints.import, () => ({ gardenId, climate: 'Simulated weather.' }))
    const { user } = await choose(
      file('plan.geojson', '{}'),
      file('plantings.csv', 'tag'),
      file('my-weather.csv', 'day'),
    )
    expect(await screen.findByText(/2 beds; 0 plantings; no weather record/)).toBeTruthy()
    expect(server.askedOf(gardenEndpoints.previewImport)[0]!.body).toEqual({
      plan: '{}',
      plantings: 'tag',
      weather: 'day',
    })
    expect(server.askedOf(gardenEndpoints.import)).toEqual([])
    await user.click(screen.getByRole('button', { name: 'Save this garden' }))
    expect(await screen.findByRole('heading', { level: 1, name: 'Light' })).toBeTruthy()
    expect(server.askedOf(gardenEndpoints.import)).toHaveLength(1)
  })

  it('with faults names each by file and place, and cannot be saved', async () => {
    server.on(gardenEndpoints.previewImport, () => ({
      ok: false as const,
      problems: [
        {
          file: 'plantings.csv',
          line: 3,
          column: 'taxon',
          message: 'Astrantia minor is not in the plant library',
        },
        {
          file: 'plan.geojson',
          feature: 2,
          featureName: 'Old workshop',
          property: 'heightM',
          message: 'is missing',
        },
      ],
    }))
    await choose(file('plan.geojson', '{}'))
    const alert = await screen.findByRole('alert')
    expect(alert.textContent).toContain('2 things to put right')
    expect(alert.textContent).toContain('plantings.csv, line 3, column taxon: Astrantia minor')
    expect(alert.textContent).toContain('plan.geojson, feature 2 “Old workshop”, heightM: is missing')
    expect(screen.queryByRole('button', { name: 'Save this garden' })).toBeNull()
  })

  it('without a plan says that it needs one; chosen again, the same file is read again', async () => {
    const { user } = await choose(file('plantings.csv', 'tag'))
    expect((await screen.findByRole('alert')).textContent).toContain('Choose the plan, plan.geojson')
    server.on(gardenEndpoints.previewImport, () => new Refuses(413, 'This is larger than is taken at once.'))
    for (const nth of [1, 2]) {
      await user.upload(screen.getByLabelText('Garden files'), file('plan.geojson', '{}'))
      await waitFor(() => expect(server.askedOf(gardenEndpoints.previewImport)).toHaveLength(nth))
      expect((await screen.findByRole('alert')).textContent).toContain('larger than is taken')
    }
  })
})

describe('a garden begun by hand', () => {
  const opened = async () => {
    const app = openApp('/gardens/new')
    await app.user.click(await screen.findByRole('tab', { name: 'By hand' }))
    return app
  }

  it('is put where a town lies, found by the beginning of its name', async () => {
    const { user } = await opened()
    await user.type(screen.getByLabelText('Name of the garden'), 'Harbour Steps')
    await user.type(screen.getByLabelText('The nearest town, or coordinates'), 'portl')
    await user.click(await screen.findByText('Portland, ME, United States'))
    await user.click(screen.getByRole('button', { name: 'Start the plan' }))
    await waitFor(() =>
      expect(server.askedOf(gardenEndpoints.create).map((a) => a.body)).toEqual([
        {
          name: 'Harbour Steps',
          latitude: 43.66,
          longitude: -70.26,
          timeZone: 'America/New_York',
          northDeg: 0,
        },
      ]),
    )
  })

  it('says so where no town is called that, and where nobody answers', async () => {
    server.on(gardenEndpoints.findTowns, () => [])
    const { user } = await opened()
    await user.type(screen.getByLabelText('The nearest town, or coordinates'), 'xq')
    expect(await screen.findByText('No town begins with “xq”.')).toBeTruthy()
    server.on(gardenEndpoints.findTowns, () => new Refuses(500, 'Towns cannot be read just now.'))
    await user.type(screen.getByLabelText('The nearest town, or coordinates'), 'z')
    expect(await screen.findByText(/Towns cannot be read/)).toBeTruthy()
  })
})
