// @vitest-environment happy-dom
import { crewEndpoints, gardenEndpoints, type CrewView, type Meanwhile } from '@border/contract'
import { act, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { followGarden } from '../api/answers.ts'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, Refuses } from '../test/server.ts'

let server: MockServer
const crew = (): CrewView => answerTo(crewEndpoints.read)
const person = crew().people[0]!
/** As somebody else has made it. */
const theirs = { ...person, minutesByWeekday: [0, 60, 0, 0, 0, 0, 0] }
const meanwhile: Meanwhile = {
  by: 'Tobin Reeve',
  at: '2026-09-14T09:20:00.000Z',
  says: ['Works Monday 60 minutes.'],
  stands: theirs,
}

beforeEach(async () => {
  server = await MockServer.fresh()
  server.on(crewEndpoints.savePerson, ({ body }) => {
    const { seen } = body as { seen: unknown }
    return JSON.stringify(seen) === JSON.stringify(theirs)
      ? { ok: true as const }
      : new Refuses(409, 'Tobin Reeve has changed this.', undefined, meanwhile)
  })
})

/** Opens somebody's form, and keeps it with another name. */
async function changeName() {
  const app = openApp(`/g/${gardenId}/set-up`)
  const { user } = app
  await user.click(await screen.findByRole('button', { name: `Change ${person.name}` }))
  const form = within(screen.getByRole('button', { name: 'Cancel' }).closest('form')!)
  await user.clear(form.getByLabelText('Name'))
  await user.type(form.getByLabelText('Name'), 'Robin')
  return { ...app, keep: () => user.click(form.getByRole('button', { name: 'Keep' })) }
}
const sent = () =>
  server.askedOf(crewEndpoints.savePerson).map((a) => a.body as { name: string; seen: unknown })

describe('what somebody else has changed meanwhile', () => {
  it('is shown with who and what, and left standing: nothing is sent again, and it is read anew', async () => {
    const { user, keep } = await changeName()
    await keep()
    const dialog = within(await screen.findByRole('dialog'))
    expect(
      dialog.getByText(/^Since you looked at it Tobin Reeve has changed this \(14 Sept 2026/),
    ).toBeTruthy()
    expect(dialog.getByText('Works Monday 60 minutes.')).toBeTruthy()
    const before = server.askedOf(gardenEndpoints.versions).length
    await user.click(dialog.getByRole('button', { name: 'Leave it as it stands' }))
    await screen.findByText('Left as it stands.')
    expect(screen.queryByRole('dialog')).toBeNull()
    expect(sent().map((b) => b.seen)).toEqual([person])
    expect(server.askedOf(gardenEndpoints.versions).length).toBeGreaterThan(before)
    // What was typed is still there.
    expect(screen.getByDisplayValue('Robin')).toBeTruthy()
  })

  it('is left standing by the Escape key', async () => {
    const { keep } = await changeName()
    await keep()
    const dialog = await screen.findByRole('dialog')
    act(() => void dialog.dispatchEvent(new Event('cancel', { cancelable: true })))
    await screen.findByText('Left as it stands.')
    expect(sent()).toHaveLength(1)
  })

  it('is changed all the same, from how it stands now, and the form closes as ever', async () => {
    const { user, keep } = await changeName()
    await keep()
    await user.click(await screen.findByRole('button', { name: 'Make my change all the same' }))
    await screen.findByText('Robin is kept; the season is planned anew.')
    expect(sent().map((b) => [b.name, b.seen])).toEqual([
      ['Robin', person],
      ['Robin', theirs],
    ])
    await waitFor(() => expect(screen.queryByDisplayValue('Robin')).toBeNull())
  })

  it('is noticed though it was read anew beside a form that was begun before', async () => {
    const { keep, client } = await changeName()
    server.on(crewEndpoints.read, () => ({ ...crew(), people: [theirs] }))
    const { versions, isBehind } = answerTo(gardenEndpoints.versions)
    server.on(gardenEndpoints.versions, () => ({ versions: { ...versions, crew: '999999' }, isBehind }))
    await act(() => followGarden(client, gardenId))
    await keep()
    await screen.findByRole('dialog')
    expect(sent().map((b) => b.seen)).toEqual([person])
  })
})
