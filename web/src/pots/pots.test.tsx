// @vitest-environment happy-dom
import {
  containerEndpoints,
  gardenEndpoints,
  planEndpoints,
  taxonEndpoints,
  type ContainersView,
} from '@border/contract'
import { library } from '@border/core'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, Refuses } from '../test/server.ts'

const garden = answerTo(gardenEndpoints.read)
const door = garden.features.find((f) => f.kind === 'container')!
const found = answerTo(containerEndpoints.read)
const [usual] = found.pots
/** The pot by the door, told of otherwise. */
const withPot = (more: Partial<ContainersView['pots'][number]>): ContainersView => ({
  ...found,
  pots: [{ ...usual!, ...more }],
})

let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
  server.on(taxonEndpoints.list, () => library.map((t) => ({ ...t, own: null })))
})
const open = (search = '') => openApp(`/g/${gardenId}/pots${search}`)
const panel = () => screen.findByRole('region', { name: door.name })

describe('the pots of a garden', () => {
  it('are seen side by side, the one in hand with what it holds, weighs and drinks', async () => {
    open()
    const said = await panel()
    const inRow = screen.getByRole('button', { name: new RegExp(door.name) })
    expect(inRow.getAttribute('aria-pressed')).toBe('true')
    expect(within(said).getByText(/A tapered pot of terracotta/)).toBeTruthy()
    expect(within(said).getByText(/Nobody has said its depth/)).toBeTruthy()
    const water = within(said).getByRole('table', { name: 'Days between waterings by month' })
    expect(within(water).getAllByRole('columnheader')).toHaveLength(12)
    expect(within(said).getByText(/Frost bursts such a pot/)).toBeTruthy()
    expect(within(said).getByText('Summer')).toBeTruthy()
  })

  it('have what cannot stay so said first, where nobody can miss it', async () => {
    server.on(containerEndpoints.read, () => withPot({ faults: ['no feet', 'no holes', 'deck'] }))
    open()
    const alert = await screen.findByRole('alert')
    expect(
      within(alert)
        .getAllByRole('listitem')
        .map((li) => li.textContent?.slice(0, 12)),
    ).toEqual(['No hole: dri', 'Watered thro'])
    expect(alert.textContent).toMatch(/whoever may judge the structure/)
  })

  it('that a cold night is no weather for are named before all else, with what the forecast is worth', async () => {
    const [plant] = garden.plantings.filter((p) => p.placeId === door.id)
    const night = {
      day: '2026-09-20',
      minC: -1,
      pots: [{ id: door.id, botanicals: [plant!.taxon.botanical] }],
    }
    server.on(containerEndpoints.read, () => ({ ...found, isSimulated: true, coldNights: [night] }))
    open()
    const said = await screen.findByText(/^Before the night to 20 September \(−1 °C\) bring in or cover/)
    expect(said.textContent).toContain(`${door.name} (${plant!.taxon.common})`)
    expect(screen.getByText(/By a simulated forecast/)).toBeTruthy()
  })

  it('are none in a garden without them: the way to the plan is shown', async () => {
    server.on(gardenEndpoints.read, () => ({
      ...garden,
      features: garden.features.filter((f) => f !== door),
    }))
    server.on(containerEndpoints.read, () => ({ ...found, pots: [] }))
    open()
    expect(await screen.findByText(/There is no pot in this garden yet/)).toBeTruthy()
    const link = within(screen.getByText(/There is no pot/)).getByRole('link', { name: 'Plan' })
    expect(link.getAttribute('href')).toBe(`/g/${gardenId}/plan`)
  })
})

describe('a pot filled anew', () => {
  const begin = async () => {
    open()
    fireEvent.click(within(await panel()).getByRole('button', { name: /Fill it/ }))
    return screen.findByRole('form', { name: `Fill ${door.name}` })
  }

  it('is sent as it was said: what comes out, the mix that suits, what is new of it', async () => {
    const form = await begin()
    const [fuchsia] = garden.plantings.filter((p) => p.placeId === door.id)
    fireEvent.click(within(form).getByLabelText('to the bench'))
    fireEvent.change(within(form).getByLabelText('How it ended'), { target: { value: 'frost' } })
    fireEvent.change(within(form).getByLabelText('How much of it is new'), { target: { value: '1' } })
    fireEvent.change(within(form).getByLabelText('Called'), { target: { value: 'Bulbs' } })
    const [editId, fillId] = [crypto.randomUUID(), crypto.randomUUID()]
    server.on(containerEndpoints.fill, () => ({ editId, fillId, plantingIds: [] }))
    server.on(planEndpoints.undo, () => ({ editId: crypto.randomUUID() }))
    fireEvent.click(within(form).getByRole('button', { name: 'Keep it as filled' }))
    await waitFor(() => expect(server.askedOf(containerEndpoints.fill)).toHaveLength(1))
    expect(server.askedOf(containerEndpoints.fill)[0]!.body).toMatchObject({
      containerId: door.id,
      replaces: usual!.fills[0]!.id,
      name: 'Bulbs',
      season: 'winter',
      renewed: 1,
      endedBy: 'frost',
      out: [{ plantingId: fuchsia!.id, to: 'bench' }],
      in: [],
    })
    fireEvent.click(await screen.findByRole('button', { name: 'Take it back' }))
    await waitFor(() => expect(server.askedOf(planEndpoints.undo)[0]?.params.editId).toBe(editId))
  })

  it('tells what is put to a mix that stays in part, and litres that add up', async () => {
    const form = await begin()
    expect(within(form).getByText(/put to what stays: \d+ litres in all/)).toBeTruthy()
    fireEvent.change(within(form).getByLabelText('How much of it is new'), { target: { value: '0' } })
    expect(within(form).getByText(/What is in it stays/)).toBeTruthy()
  })

  it('is not sent of a day before the fill that stands, and a refusal leaves all that was said', async () => {
    const form = await begin()
    const day = within(form).getByLabelText('On')
    fireEvent.change(day, { target: { value: usual!.fills[0]!.filledOn } })
    expect(within(form).getByText(/say a later day/)).toBeTruthy()
    const keep: HTMLButtonElement = within(form).getByRole('button', { name: 'Keep it as filled' })
    expect(keep.disabled).toBe(true)
    fireEvent.change(day, { target: { value: '2026-09-10' } })
    server.on(
      containerEndpoints.fill,
      () => new Refuses(409, 'It has been filled by somebody else meanwhile.'),
    )
    fireEvent.change(within(form).getByLabelText('Note'), { target: { value: 'By the steps' } })
    fireEvent.click(within(form).getByRole('button', { name: 'Keep it as filled' }))
    expect(await screen.findByText(/filled by somebody else meanwhile/)).toBeTruthy()
    expect(within(form).getByLabelText<HTMLInputElement>('Note').value).toBe('By the steps')
  })
})

describe('watering', () => {
  const absence = answerTo(containerEndpoints.absence)

  it('is told by day and pot, with what there is to carry', async () => {
    server.on(
      containerEndpoints.read,
      () =>
      withPot({ ahead: [{ day: '2026-09-17', litres: 4 }, { day: '2026-09-19', litres: 3 }] }), // prettier-ignore
    )
    open('?show=water')
    const table = await screen.findByRole('table', { name: 'Litres by day' })
    const rows = within(table)
      .getAllByRole('row')
      .map((r) => [...r.children].map((c) => c.textContent))
    expect(rows[0]!.slice(1)).toEqual(['16 Sept', '17 Sept', '18 Sept', '19 Sept'])
    expect(rows[1]).toEqual([door.name, '', '4.0 l', '', '3.0 l'])
    expect(rows[2]).toEqual(['To carry', '', '4.0 l', '', '3.0 l'])
  })

  it('of the days ahead is not told without a forecast', async () => {
    server.on(containerEndpoints.read, () => withPot({ ahead: null }))
    open('?show=water')
    expect(await screen.findByText(/There is no forecast: feel the mix/)).toBeTruthy()
    expect(screen.queryByText(/none of them is due/)).toBeNull()
  })

  it('while nobody is there is planned for the days that are said, and not for days that make no sense', async () => {
    server.on(containerEndpoints.absence, () => ({
      ...absence,
      everyDays: 3,
      visits: ['2026-07-13', '2026-07-16'],
      litresEach: 12,
      litresAll: 22,
      tooThirsty: [],
      inShade: { tooThirsty: [], everyDays: 6, litresEach: 9, litresAll: 9, moved: [door.id] },
    }))
    open('?show=water&from=2026-07-10&to=2026-07-19')
    expect(await screen.findByText('Somebody comes every 3 days, 2 times.')).toBeTruthy()
    expect(screen.getByText(/would do with a visit every 6 days and 9\.0 l in all/)).toBeTruthy()
    expect(server.askedOf(containerEndpoints.absence)[0]!.query.toString()).toBe(
      'from=2026-07-10&to=2026-07-19',
    )
    fireEvent.change(screen.getByLabelText('back on'), { target: { value: '2026-07-01' } })
    expect(await screen.findByText(/must be one to 60 days/)).toBeTruthy()
  })
})
