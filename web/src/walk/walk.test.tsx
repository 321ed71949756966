// @vitest-environment happy-dom
import {
  gardenEndpoints,
  sessionEndpoints,
  walkEndpoints,
  type ObservationEntry,
  type WalkAnswer,
  type WalkView,
} from '@border/contract'
import { dayMonthYear, gardenDay, ratingWords } from '@border/core'
import { act, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { walkDb } from '../offline/store.ts'
import { syncNow } from '../offline/sync.ts'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, Refuses, today, type Asked } from '../test/server.ts'

let server: MockServer
const walk = (): WalkView => answerTo(walkEndpoints.read)
const [first] = walk().places.filter((p) => p.plantings.length > 0)
const [one, two] = first!.plantings
const entriesOf = (asked: Asked) => (asked.body as { entries: ObservationEntry[] }).entries
const takes = (asked: Asked): WalkAnswer => ({ kept: entriesOf(asked).map((e) => e.id), refused: [] })
const sent = () => server.askedOf(walkEndpoints.note).flatMap(entriesOf)

beforeEach(async () => {
  server = await MockServer.fresh()
  server.on(walkEndpoints.note, takes)
  for (const store of ['entries', 'photos', 'jobs'] as const) await (await walkDb()).clear(store)
})

async function opened() {
  const app = openApp(`/g/${gardenId}/walk`)
  await screen.findByRole('heading', { level: 2, name: first!.name })
  return app
}
const send = () => act(() => syncNow(true))
const counted = (n: number) => screen.findByText(new RegExp(`^${n} of \\d+ looked at$`))

describe('a device whose clock is wrong', () => {
  const withClock = (offMs: number) =>
    server.on(sessionEndpoints.read, () => ({
      ...answerTo(sessionEndpoints.read),
      now: new Date(Date.now() + offMs).toISOString(),
    }))
  const words = () => screen.queryByText(/The clock of this device/)?.textContent

  it.each([
    [-3 * 86_400_000, /is 3 days ahead\./],
    [2 * 3_600_000 + 5_000, /is 2 hours behind\./],
    [-7 * 60_000, /is 7 minutes ahead\./],
  ])('by %i ms is told so before the walk begins, and sends what it went by', async (offMs, says) => {
    withClock(offMs)
    const { user } = await opened()
    const day = gardenDay(null, answerTo(gardenEndpoints.read).garden.timeZone, Date.now() + offMs)
    expect(words()).toMatch(says)
    expect(words()).toContain(`dated ${dayMonthYear(day)} all the same`)
    await user.keyboard('4')
    await counted(1)
    await send()
    const [entry] = sent()
    expect(entry!.on).toBe(day)
    expect(Math.abs(entry!.serverAheadMs! - offMs)).toBeLessThan(10_000)
    const [{ deviceClock }] = server.askedOf(walkEndpoints.note) as [Asked]
    expect(Math.abs(Date.parse(deviceClock!) - Date.now())).toBeLessThan(10_000)
  })

  it('by a minute is not', async () => {
    withClock(60_000)
    await opened()
    expect(words()).toBeUndefined()
  })
})

describe('a walk', () => {
  it('rates by one key a planting and goes on to the next', async () => {
    const { user } = await opened()
    await user.keyboard('4')
    await counted(1)
    await user.keyboard('2')
    await counted(2)
    await send()
    expect(sent().map((e) => [e.plantingId, e.rating, e.on])).toEqual([
      [one!.id, 4, today],
      [two!.id, 2, today],
    ])
  })

  it('leaves one word standing, the last, however often a mind was changed', async () => {
    const { user } = await opened()
    const card = within(document.getElementById(`walk-${one!.id}`)!)
    for (const word of [ratingWords[0]!, ratingWords[4]!, ratingWords[2]!])
      await user.click(card.getByRole('button', { name: new RegExp(word, 'i') }))
    await send()
    await send()
    // A pass of its own may have come between two touches: what it sent is then put right by what came after.
    const replaced = new Set(sent().map((e) => e.replacesId))
    const standing = sent().filter((e) => !replaced.has(e.id))
    expect(standing.map((e) => [e.plantingId, e.rating])).toEqual([[one!.id, 3]])
  })

  it('notes that nothing shows, which leaves no rating and no bloom', async () => {
    const { user } = await opened()
    await user.keyboard('5')
    await user.click(
      within(document.getElementById(`walk-${one!.id}`)!).getByRole('button', { name: 'nothing shows' }),
    )
    await send()
    const entry = sent().at(-1)
    expect([entry!.absent, entry!.rating, entry!.stage]).toEqual([true, undefined, undefined])
  })

  it('goes on without a connection, says how much waits, and sends it when there is one', async () => {
    const { user } = await opened()
    server.isAway = true
    await user.keyboard('3')
    await user.keyboard('3')
    await send()
    expect(await screen.findByText('No connection. 2 looks waiting on this device.')).toBeTruthy()
    expect(sent()).toEqual([])
    server.isAway = false
    await send()
    expect(await screen.findByText('All is in the record.')).toBeTruthy()
    expect(sent()).toHaveLength(2)
  })

  it('is there again when the page is opened anew, as far as it had come', async () => {
    const { user, unmount } = await opened()
    await user.keyboard('4')
    await counted(1)
    unmount()
    await opened()
    await counted(1)
  })

  it('shows at the planting, and at its end, what the record would not keep and why', async () => {
    const why = 'W-01 Hosta sieboldiana: 9 living of 4 planted.'
    server.on(walkEndpoints.note, (asked) => ({
      kept: [],
      refused: entriesOf(asked).map((e) => ({ id: e.id, why })),
    }))
    const { user } = await opened()
    await user.keyboard('4')
    await send()
    expect((await screen.findByText(`Not kept: ${why}`)).getAttribute('role')).toBe('alert')
    await user.click(screen.getByRole('button', { name: 'End the walk' }))
    const refused = within(await screen.findByRole('alert'))
    expect(refused.getByText(why, { exact: false })).toBeTruthy()
    await user.click(refused.getByRole('button', { name: 'Throw it away' }))
    await waitFor(() => expect(screen.queryByText(why, { exact: false })).toBeNull())
  })

  it('put right after it was refused is told of no longer, and is sent as it is now', async () => {
    let refuses = true
    server.on(walkEndpoints.note, (asked) =>
      refuses
        ? { kept: [], refused: entriesOf(asked).map((e) => ({ id: e.id, why: 'Too many.' })) }
        : takes(asked),
    )
    const { user } = await opened()
    await user.keyboard('4')
    await send()
    await screen.findByText('Not kept: Too many.')
    refuses = false
    const card = within(document.getElementById(`walk-${one!.id}`)!)
    await user.click(card.getByRole('button', { name: new RegExp(ratingWords[1]!, 'i') }))
    await send()
    await waitFor(() => expect(screen.queryByText(/Too many/)).toBeNull())
    expect(sent().at(-1)).toMatchObject({ plantingId: one!.id, rating: 2 })
  })

  it('that the record takes nothing of just now waits, says so, and goes by itself', async () => {
    server.on(walkEndpoints.note, () => new Refuses(503, 'The records cannot be reached just now.'))
    const { user } = await opened()
    await user.keyboard('4')
    await send()
    const words = 'The record does not take 1 look just now; what waits goes by itself.'
    await waitFor(() => expect(screen.getByText(words)).toBeTruthy())
    server.on(walkEndpoints.note, takes)
    await send()
    expect(await screen.findByText('All is in the record.')).toBeTruthy()
  })

  it('refused whole, as by a garden that one no longer works in, is sent again as it was', async () => {
    const why = 'Only a crew member of this garden may do this.'
    server.on(walkEndpoints.note, () => new Refuses(403, why))
    const { user } = await opened()
    await user.keyboard('4')
    await send()
    await screen.findByText(`Not kept: ${why}`)
    await user.click(screen.getByRole('button', { name: 'End the walk' }))
    const refused = within(await screen.findByRole('alert'))
    expect(screen.getByText(/1 was not kept; the rest is in the record/)).toBeTruthy()
    expect(refused.getByText(/^Look of \d+ \w+ \d{4}\.$/)).toBeTruthy()
    server.on(walkEndpoints.note, takes)
    await user.click(refused.getByRole('button', { name: 'Send it again' }))
    expect(await screen.findByText(/All of it is in the record/)).toBeTruthy()
    expect(sent().at(-1)).toMatchObject({ plantingId: one!.id, rating: 4 })
  })

  it('is noted by the crew and the head gardener; who only reads is told so', async () => {
    server.seenBy('keeper')
    openApp(`/g/${gardenId}/walk`)
    expect(
      await screen.findByText('Walks are noted by the crew and the head gardener of this garden.'),
    ).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'End the walk' })).toBeNull()
  })
})

describe('a sheet typed in', () => {
  it('keeps each cell as it is left, for the day of the sheet', async () => {
    const { user } = openApp(`/g/${gardenId}/walk/grid`)
    const [rating] = await screen.findAllByLabelText(/rating/i)
    await user.type(rating!, '3')
    await user.tab()
    expect(await screen.findByText('1 planting typed in')).toBeTruthy()
    await send()
    expect(sent().map((e) => [e.rating, e.on])).toEqual([[3, today]])
  })
})
