// @vitest-environment happy-dom
import { reworkEndpoints } from '@border/contract'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { saved } from '../test/saved.ts'
import { answerTo, gardenId, MockServer, Refuses } from '../test/server.ts'

const look = answerTo(reworkEndpoints.look)
const [rework] = answerTo(reworkEndpoints.list)
const [scheme] = rework!.schemes
let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
})

describe('a client’s look', () => {
  it('needs no account, and shows what comes and what stays beside the drawings', async () => {
    server.on(reworkEndpoints.look, () => ({
      ...look,
      comes: [{ mark: 'A', count: 7, botanical: 'Nepeta × faassenii', common: 'garden catmint' }],
      stays: [],
    }))
    openApp('/look/a-secret')
    await screen.findByRole('heading', { level: 1, name: `${look.place}: ${look.scheme}` })
    const planted = within(screen.getByRole('table', { name: 'What is planted' })).getAllByRole('row')
    expect(planted.map((r) => r.textContent)).toEqual(['A7garden catmint, Nepeta × faassenii'])
    expect(screen.getByText('Nothing of what stands there now stays.')).toBeTruthy()
    expect(screen.queryByRole('navigation', { name: 'Main' })).toBeNull()
    expect(screen.getByAltText(/^The plan of/).getAttribute('src')).toBe('/api/looks/a-secret/plan.svg')
  })

  it('goes along with the week and the year in hand', async () => {
    const { user } = openApp('/look/a-secret')
    fireEvent.change(await screen.findByLabelText('Week of the year'), { target: { value: '22' } })
    await user.selectOptions(screen.getByLabelText('Year of growth'), '5')
    expect(screen.getByText('7 June').tagName).toBe('B')
    const [file] = await saved(() => user.click(screen.getByRole('button', { name: 'PDF to print' })))
    expect(file!.name).toBe('reworks.lookPdf')
    const { on, years } = Object.fromEntries(server.askedOf(reworkEndpoints.lookPdf)[0]!.query)
    expect([on!.slice(5), years]).toEqual(['06-07', '5'])
  })

  it('says so where the link does not work', async () => {
    server.on(reworkEndpoints.look, () => new Refuses(404, 'This link does not work, or no longer.'))
    openApp('/look/nothing')
    await screen.findByText('This link does not work, or no longer.')
  })
})

describe('the link that a client is given', () => {
  const sheet = `/g/${gardenId}/rework/${rework!.id}/sheet`

  it('is made up to a day and shown once; one that works is told, and withdrawn', async () => {
    let link: { since: string; until: string } | null = null
    server.on(reworkEndpoints.list, () => [{ ...rework!, schemes: [{ ...scheme!, link }] }])
    server.on(reworkEndpoints.setSchemeLink, ({ body }) => {
      const { until } = body as { until: string | null }
      link = until === null ? null : { since: '2026-09-15T09:00:00.000Z', until }
      return { token: until && 'a-new-secret' }
    })
    const { user } = openApp(sheet)
    await user.click(await screen.findByRole('button', { name: 'Make a link' }))
    const shown = (await screen.findByLabelText('The client’s link')) as HTMLInputElement
    expect(shown.value).toMatch(/\/look\/a-new-secret$/)
    const [made] = server.askedOf(reworkEndpoints.setSchemeLink)
    expect((made!.body as { until: string }).until > '2026-09-15').toBe(true)
  })

  it('is made by nobody but a head gardener', async () => {
    server.seenBy('keeper')
    openApp(sheet)
    await screen.findByRole('button', { name: 'PDF to print' })
    expect(screen.queryByRole('button', { name: /Make a .*link/ })).toBeNull()
  })

  it('that works is said with its days, and can be withdrawn', async () => {
    const link = { since: '2026-09-15T09:00:00.000Z', until: '2026-11-14' }
    server.on(reworkEndpoints.list, () => [{ ...rework!, schemes: [{ ...scheme!, link }] }])
    server.on(reworkEndpoints.setSchemeLink, () => ({ token: null }))
    const { user } = openApp(sheet)
    await screen.findByText(/A link works until 14 November 2026/)
    await user.click(screen.getByRole('button', { name: 'Withdraw it' }))
    await waitFor(() =>
      expect(server.askedOf(reworkEndpoints.setSchemeLink).map((a) => a.body)).toEqual([{ until: null }]),
    )
  })
})
