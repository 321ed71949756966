// @vitest-environment happy-dom
import { ruleEndpoints, seasonEndpoints, type RuleView, type SeasonView } from '@border/contract'
import { act, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { walkDb } from '../offline/store.ts'
import { syncNow, syncState } from '../offline/sync.ts'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, jobId, MockServer, Refuses, today } from '../test/server.ts'

let server: MockServer
const season = (): SeasonView => answerTo(seasonEndpoints.read)
const job = season().jobs.find((j) => j.id === jobId)!

beforeEach(async () => {
  server = await MockServer.fresh()
  await (await walkDb()).clear('jobs')
})

const panel = async () => within(await screen.findByRole('complementary', { name: 'The chosen job' }))
async function opened() {
  const app = openApp(`/g/${gardenId}/season?job=${jobId}`)
  return { ...app, panel: await panel() }
}
describe('what moved', () => {
  it('is told with its year: jobs of the next season are moved too', async () => {
    const moved = [
      { jobId, title: 'Flush the pipes', from: '2027-09-16', to: '2027-09-07', says: 'Better weeks.' },
      { jobId, title: 'Weed', from: '2026-12-28', to: '2027-01-04', says: 'Rain.' },
      { jobId, title: 'Feed', from: '2026-10-01', to: null, says: 'Nobody works.' },
    ]
    const rescheduled = { id: jobId, at: '2026-09-15T10:00:00Z', moved }
    server.on(seasonEndpoints.read, () => ({ ...season(), rescheduled }))
    await opened()
    const told = within(await screen.findByRole('region', { name: 'What moved' })).getAllByRole('listitem')
    expect(told.map((li) => li.textContent)).toEqual([
      'Flush the pipes: 16 Sept 2027 to 7 Sept 2027. Better weeks.',
      'Weed: 28 Dec 2026 to 4 Jan 2027. Rain.',
      'Feed: 1 Oct 2026 to no day. Nobody works.',
    ])
  })
})

describe('a job', () => {
  it('shows its window with the reason for each of its days', async () => {
    const { panel } = await opened()
    for (const why of Object.values(job.window.why).filter((w) => w !== ''))
      expect(
        panel.getAllByText((_, e) => e?.textContent.includes(why.slice(0, 40)) ?? false).length,
      ).toBeGreaterThan(0)
  })

  it('that was done is recorded with its time, once, and the season asks what follows', async () => {
    const { user, panel } = await opened()
    await user.click(panel.getByRole('button', { name: /record|done/i }))
    const minutes = await screen.findByLabelText('Minutes')
    await user.clear(minutes)
    await user.click(screen.getByRole('button', { name: 'Record' }))
    expect(await screen.findByText('How long?')).toBeTruthy()
    expect(server.askedOf(seasonEndpoints.recordDone)).toEqual([])
    await user.type(minutes, '25')
    await user.click(screen.getByRole('button', { name: 'Record' }))
    await waitFor(() => expect(server.askedOf(seasonEndpoints.recordDone)).toHaveLength(1))
    const [asked] = server.askedOf(seasonEndpoints.recordDone)
    expect(asked!.params.jobId).toBe(jobId)
    expect(asked!.body).toMatchObject({ on: today, minutes: 25 })
    expect(asked!.key).toBeTruthy()
  })

  it('done where there is no connection waits on the device, says so, and goes by itself', async () => {
    const { user, panel } = await opened()
    server.isAway = true
    await user.click(panel.getByRole('button', { name: /record|done/i }))
    await user.click(await screen.findByRole('button', { name: 'Record' }))
    expect(
      await screen.findByText(/No connection: it waits on this device and goes by itself\./),
    ).toBeTruthy()
    await waitFor(() => expect(syncState().sending).toBe(false))
    server.isAway = false
    await act(() => syncNow(true))
    await waitFor(() => expect(server.askedOf(seasonEndpoints.recordDone)).toHaveLength(1))
    await waitFor(() => expect(screen.queryByText(/it waits on this device/)).toBeNull())
  })

  it('that the record refuses says why, and can be put right or thrown away', async () => {
    server.on(seasonEndpoints.recordDone, () => new Refuses(409, 'It was recorded already.'))
    const { user, panel } = await opened()
    await user.click(panel.getByRole('button', { name: /record|done/i }))
    await user.click(await screen.findByRole('button', { name: 'Record' }))
    const said = await screen.findByText(/It was recorded already\./)
    expect(said.textContent).toMatch(/^Not kept/)
    await user.click(screen.getByRole('button', { name: 'Put it right' }))
    expect(await screen.findByLabelText('Minutes')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Not yet' }))
    await user.click(screen.getByRole('button', { name: 'Throw it away' }))
    await waitFor(() => expect(screen.queryByText(/It was recorded already\./)).toBeNull())
  })

  it('is only read by who only reads the garden', async () => {
    server.seenBy('keeper')
    const { panel } = await opened()
    expect(panel.queryByRole('button', { name: /record|done|leave/i })).toBeNull()
    expect(screen.queryByRole('button', { name: 'Plan the season' })).toBeNull()
  })
})

describe('a rule', () => {
  const rules = (): RuleView[] => answerTo(ruleEndpoints.list)
  const first = rules().find((r) => r.touches.length > 0)!

  it('is switched off for this garden alone', async () => {
    const { user } = openApp(`/g/${gardenId}/rules`)
    await user.click(await screen.findByRole('switch', { name: `${first.does} (${first.id})` }))
    await screen.findByText('Kept; the season’s jobs follow it.')
    const [asked] = server.askedOf(ruleEndpoints.change)
    const seen = { isOn: first.isOn, adjusted: first.adjusted }
    expect([asked!.params, asked!.body]).toEqual([
      { gardenId, rule: first.id },
      { isOn: false, seen },
    ])
  })

  it('that comes round does so on weekdays of the month where one wants that', async () => {
    const again = { ...first, everyDays: 35 }
    server.on(ruleEndpoints.list, () => [again])
    const { user } = openApp(`/g/${gardenId}/rules`)
    await user.click(await screen.findByText('Adjust'))
    expect((screen.getByLabelText('Days between') as HTMLInputElement).value).toBe(String(again.everyDays))
    await user.click(screen.getByRole('radio', { name: 'On weekdays of the month' }))
    await user.click(screen.getByRole('checkbox', { name: '2nd' }))
    await user.click(screen.getByRole('checkbox', { name: '1st' }))
    await user.click(screen.getByRole('button', { name: 'Keep' }))
    await waitFor(() => expect(server.askedOf(ruleEndpoints.change)).toHaveLength(1))
    expect(server.askedOf(ruleEndpoints.change)[0]!.body).toMatchObject({
      adjusted: { monthDays: { weekday: 6, nths: [2, 3] } },
    })
  })

  it('that is done once a season has nothing to come round on', async () => {
    const once = { ...first, everyDays: null }
    server.on(ruleEndpoints.list, () => [once])
    const { user } = openApp(`/g/${gardenId}/rules`)
    await user.click(await screen.findByText('Adjust'))
    expect(screen.getByLabelText(/Days later/)).toBeTruthy()
    expect(screen.queryByText('On weekdays of the month')).toBeNull()
  })

  it('is found by the plant that it touches', async () => {
    const { user } = openApp(`/g/${gardenId}/rules`)
    const [touched] = first.touches
    await user.type(await screen.findByLabelText('Find a rule or a plant'), touched!.label)
    const shown = await waitFor(() => {
      const found = screen.getAllByRole('switch')
      expect(found.length).toBeLessThan(rules().length)
      return found
    })
    const touching = rules().filter((r) => r.touches.some((t) => t.label.includes(touched!.label)))
    expect(shown).toHaveLength(touching.length)
    await user.type(screen.getByLabelText('Find a rule or a plant'), ' of no garden')
    expect(await screen.findByText('No rule speaks of that.')).toBeTruthy()
  })

  it('is only read by who only reads the garden', async () => {
    server.seenBy('keeper')
    openApp(`/g/${gardenId}/rules`)
    for (const s of await screen.findAllByRole('switch')) expect((s as HTMLButtonElement).disabled).toBe(true)
    expect(screen.queryByText('Adjust')).toBeNull()
  })
})
