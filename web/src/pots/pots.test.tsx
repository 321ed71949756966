// @vitest-environment happy-dom
import {
  containerEndpoints,
  gardenEndpoints,
  planEndpoints,
  ruleEndpoints,
  seasonEndpoints,
  taxonEndpoints,
  type ContainersView,
  type LineView,
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

describe('what is proposed for a pot', () => {
  it('is said with its reason, and made a job where it is one', async () => {
    const spent = {
      traits: usual!.mix.traits,
      sunk: 0.3,
      old: 1,
      topUpOn: '2026-01-01',
      wholeOn: '2026-05-01',
    }
    server.on(containerEndpoints.read, () =>
      withPot({
        mix: { ...usual!.mix, state: spent },
        verdicts: [
          { verdict: 'refresh', because: ['Its mix has 5 % of air left.'], weight: 0.7 },
          { verdict: 'keep as it is', because: [], weight: 0.1 },
        ],
      }),
    )
    server.on(ruleEndpoints.askJob, () => ({ title: 'Refresh the mix of the pot' }))
    open()
    const said = await screen.findByRole('region', { name: 'What is proposed' })
    expect(said.textContent).toContain('Refresh its mix')
    expect(said.textContent).toContain('5 % of air left')
    expect(said.textContent).not.toContain('Keep it as it is')
    fireEvent.click(within(said).getByRole('button', { name: 'Make it a job' }))
    await waitFor(() => expect(server.askedOf(ruleEndpoints.askJob)).toHaveLength(1))
    const [asked] = server.askedOf(ruleEndpoints.askJob)
    // All of it is due by now: not its top third.
    expect(asked!.params.rule).toBe('refresh-mix-whole')
    expect(asked!.body).toEqual({ subjectId: door.id })
    expect(await screen.findByText(/In the season now: Refresh the mix of the pot/)).toBeTruthy()
  })

  it('leads to filling it anew where it is to be swapped', async () => {
    server.on(containerEndpoints.read, () =>
      withPot({ verdicts: [{ verdict: 'swap now', because: ['It is over.'], weight: 0.9 }] }),
    )
    open()
    const said = await screen.findByRole('region', { name: 'What is proposed' })
    fireEvent.click(within(said).getByRole('button', { name: 'Fill it anew' }))
    expect(await screen.findByRole('form', { name: `Fill ${door.name}` })).toBeTruthy()
  })
})

describe('what is found at a pot', () => {
  it('is noted as it is felt or weighed, told of, and taken back', async () => {
    server.on(containerEndpoints.check, () => ({ id: crypto.randomUUID() }))
    server.on(containerEndpoints.withdrawCheck, () => ({ ok: true as const }))
    open()
    const said = await panel()
    fireEvent.click(within(said).getByRole('button', { name: 'moist' }))
    fireEvent.change(within(said).getByLabelText(/Lighter than watered by/), { target: { value: '3.5' } })
    fireEvent.click(within(said).getByRole('button', { name: 'Weighed' }))
    await waitFor(() => expect(server.askedOf(containerEndpoints.check)).toHaveLength(2))
    expect(server.askedOf(containerEndpoints.check).map((a) => a.body)).toEqual([
      { containerId: door.id, on: '2026-09-15', kind: 'felt', felt: 'moist' },
      { containerId: door.id, on: '2026-09-15', kind: 'weighed', lighterKg: 3.5 },
    ])
    const noted = within(said)
      .getByText(/dry a finger deep/)
      .closest('li')!
    fireEvent.click(within(noted).getByRole('button', { name: 'by mistake' }))
    await waitFor(() => expect(server.askedOf(containerEndpoints.withdrawCheck)).toHaveLength(1))
    expect(server.askedOf(containerEndpoints.withdrawCheck)[0]!.params.checkId).toBe(usual!.checks[0]!.id)
  })
})

describe('a mix that is tested', () => {
  it('is told what was measured before it is noted, and what cannot have been is said', async () => {
    server.on(containerEndpoints.check, () => ({ id: crypto.randomUUID() }))
    open()
    const form = within(await panel()).getByRole('form', { name: 'Test of the mix', hidden: true })
    const type = (label: RegExp, value: string) =>
      fireEvent.change(within(form).getByLabelText(label), { target: { value } })
    type(/the empty pot holds/, '4')
    type(/the dry mix took/, '4.5')
    type(/ran out/, '1')
    expect(within(form).getByRole('alert', { hidden: true }).textContent).toMatch(/grains take room/)
    type(/the dry mix took/, '0.8')
    expect(within(form).getByRole('alert', { hidden: true }).textContent).toMatch(/some of it stays/)
    fireEvent.submit(form)
    type(/the dry mix took/, '3')
    expect(within(form).getByText('That is 25 % air and 50 % water once drained.')).toBeTruthy()
    fireEvent.submit(form)
    await waitFor(() => expect(server.askedOf(containerEndpoints.check)).toHaveLength(1))
    expect(server.askedOf(containerEndpoints.check)[0]!.body).toEqual({
      containerId: door.id,
      on: '2026-09-15',
      kind: 'drained',
      sampleLitres: 4,
      filledLitres: 3,
      drainedLitres: 1,
    })
  })
})

describe('where a pot would do best', () => {
  const hours = usual!.light.season
  it('is looked for once it is asked, and says so where nowhere is better', async () => {
    const here = { x: 4, y: 4, hours: { ...hours, total: 0.5 }, missesH: 1.2 }
    server.on(containerEndpoints.spots, () => ({ here, better: [], forHere: [] }))
    open()
    const said = await panel()
    expect(server.askedOf(containerEndpoints.spots)).toHaveLength(0)
    fireEvent.click(within(said).getByRole('button', { name: 'Look through the garden' }))
    expect(
      await screen.findByText(/^Where it stands it has 0\.5 h of sun.* h less than its plants want\.$/),
    ).toBeTruthy()
    expect(screen.getByText('No open spot of the garden suits them better.')).toBeTruthy()
  })

  it('is told with the way to the plan, and which others would do better here', async () => {
    server.on(containerEndpoints.spots, () => ({
      here: { x: 4, y: 4, hours, missesH: 1.2 },
      better: [{ x: 9, y: 4, hours, missesH: 0 }],
      forHere: [
        { id: garden.plantings[0]!.placeId, missesH: 0, missesNowH: 2 },
        { id: door.id, missesH: 3, missesNowH: 0 },
      ],
    }))
    open()
    fireEvent.click(within(await panel()).getByRole('button', { name: 'Look through the garden' }))
    expect((await screen.findByRole('link', { name: 'Move it on the plan' })).getAttribute('href')).toContain(
      '/plan',
    )
    const other = garden.features.find((f) => f.id === garden.plantings[0]!.placeId)!
    expect(screen.getByText(/lacks it where it stands/).textContent).toMatch(
      new RegExp(`: ${other.name}\\.$`),
    )
  })
})

describe('the line of pots', () => {
  const step = (season: number, more: Partial<LineView['plants'][number]['steps'][number]> = {}) => ({
    season,
    potId: door.id,
    isMoved: false,
    isPruned: false,
    isBound: false,
    window: null,
    ...more,
  })
  it('says of each season who stays, who is cramped, who goes on, and to which ground at last', async () => {
    const border = garden.plantings[0]!.placeId
    server.on(containerEndpoints.line, () => ({
      seasons: [2027, 2028],
      out: [
        {
          plantingId: garden.plantings[0]!.id,
          botanical: 'Heuchera villosa',
          potId: door.id,
          placeId: border,
          placeName: 'Court border',
        },
      ],
      plants: [
        {
          plantingId: garden.plantings[0]!.id,
          botanical: 'Laurus nobilis',
          potId: door.id,
          fillOn: '2024-05-01',
          ground: { placeId: garden.plantings[0]!.placeId, placeName: 'Court border' },
          steps: [
            step(2027, { isBound: true, isPruned: true, window: { from: '2027-03-10', to: '2027-04-03' } }),
            step(2028, { potId: null, isMoved: true }),
          ],
        },
      ],
    }))
    open('?show=years')
    const table = await screen.findByRole('table', { name: 'Pots by season' })
    const [, row] = within(table).getAllByRole('row')
    expect([...row!.children].map((c) => c.textContent)).toEqual([
      'bayIts roots have filled it since May 2024.',
      `${door.name}roots pruned 10 March to 3 April`,
      'to the ground, Court border',
    ])
    expect(screen.getByText(/best in Court border, which has room/).textContent).toContain(door.name)
  })

  it('has nothing to say where no shrub stands in a pot', async () => {
    server.on(containerEndpoints.line, () => ({ seasons: [2027], out: [], plants: [] }))
    open('?show=years')
    expect(await screen.findByText(/No shrub or tree stands in a pot here/)).toBeTruthy()
  })
})

describe('the round of the pots', () => {
  const season = answerTo(seasonEndpoints.read)
  const [job] = season.jobs.filter((j) => j.state === 'open')
  const [bed] = garden.features.filter((f) => f.kind === 'bed')
  const due = {
    ...job!,
    title: 'Refresh the mix of the door pot',
    kind: 'refresh mix' as const,
    placeId: door.id,
    placeIds: [door.id, bed!.id],
    plannedOn: '2026-09-20',
    parts: [{ day: '2026-09-20', minutes: 60 }],
    minutes: 60,
    materials: [{ name: 'potting mix', amount: 36, unit: 'l' }],
  }

  it('is told task by task with what to carry; what is elsewhere or later is left out', async () => {
    server.on(seasonEndpoints.read, () => ({
      ...season,
      jobs: [
        due,
        { ...due, id: crypto.randomUUID(), title: 'Later', plannedOn: '2027-03-01' },
        { ...due, id: crypto.randomUUID(), title: 'Elsewhere', placeId: bed!.id, placeIds: [bed!.id] },
      ],
    }))
    open('?show=work')
    expect(
      await screen.findByText(/^1 job until 13 Oct, 1 h in all\. To carry: 36 l potting mix\./),
    ).toBeTruthy()
    expect(screen.getByRole('link', { name: due.title }).getAttribute('href')).toContain(`job=${due.id}`)
    expect(screen.getByText(/No water is on the plan: draw where the tap/)).toBeTruthy()
    expect(screen.queryByText('Later')).toBeNull()
    expect(screen.queryByText('Elsewhere')).toBeNull()
  })

  it('says so where nothing is due, and what comes next', async () => {
    const later = { ...due, title: 'Pot the bay on', plannedOn: '2027-03-01' }
    server.on(seasonEndpoints.read, () => ({ ...season, jobs: [later] }))
    open('?show=work')
    expect((await screen.findByText(/Nothing is due at the pots until/)).textContent).toContain(
      'The next is “Pot the bay on”, from 1 March 2027.',
    )
  })
})
