// @vitest-environment happy-dom
import { gardenEndpoints, seasonEndpoints, sessionEndpoints, walkEndpoints } from '@border/contract'
import type { Naming } from '@border/core'
import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, Refuses } from '../test/server.ts'

let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
})
const { plantings } = answerTo(gardenEndpoints.read)
const { botanical, common } = plantings[0]!.taxon
const session = answerTo(sessionEndpoints.read)
const prefers = (names: Naming) => {
  const info = {
    ...session,
    person: { ...session.person!, preferences: { ...session.person!.preferences, names } },
  }
  server.on(sessionEndpoints.read, () => info)
  return info
}

describe('plants are called', () => {
  it.each<[Naming, string]>([
    ['common first', `${common} ${botanical}`],
    ['botanical first', `${botanical} ${common}`],
    ['common', common],
    ['botanical', botanical],
  ])('on a walk by %s', async (names, said) => {
    prefers(names)
    openApp(`/g/${gardenId}/walk`)
    const { tag } = answerTo(walkEndpoints.read)
      .places.flatMap((p) => p.plantings)
      .find((p) => p.botanical === botanical)!
    expect(await screen.findByRole('button', { name: `${said} ${tag}` })).toBeTruthy()
  })

  it.each<[Naming, string]>([
    ['common', common],
    ['botanical', botanical],
  ])('in what there is to do by %s', async (names, said) => {
    prefers(names)
    const season = answerTo(seasonEndpoints.read)
    const job = season.jobs.find((j) => j.state === 'open')!
    server.on(seasonEndpoints.read, () => ({
      ...season,
      jobs: [{ ...job, title: `Divide ${botanical} in the court` }],
    }))
    openApp(`/g/${gardenId}/season?job=${job.id}`)
    expect(await screen.findByRole('heading', { name: `Divide ${said} in the court` })).toBeTruthy()
  })

  it('as is chosen under Set-up, at once; what is refused is said and nothing changes', async () => {
    const info = prefers('botanical first')
    const { user } = openApp(`/g/${gardenId}/set-up`)
    const choose = (await screen.findByLabelText('Names of plants')) as HTMLSelectElement
    server.on(sessionEndpoints.prefer, () => new Refuses(503, 'The server rests.'))
    await user.selectOptions(choose, 'common')
    await screen.findByText('The server rests.')
    expect(choose.value).toBe('botanical first')
    server.on(sessionEndpoints.prefer, () => ({
      ...info,
      person: { ...info.person, preferences: { ...info.person.preferences, names: 'common' as const } },
    }))
    await user.selectOptions(choose, 'common')
    await waitFor(() => expect(choose.value).toBe('common'))
    expect(server.askedOf(sessionEndpoints.prefer).at(-1)!.body).toEqual({ names: 'common' })
    expect(within(document.body).queryByText(botanical)).toBeNull()
  })
})
