// @vitest-environment happy-dom
import {
  climateEndpoints,
  containerEndpoints,
  crewEndpoints,
  gardenEndpoints,
  type CrewView,
} from '@border/contract'
import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, Refuses } from '../test/server.ts'

let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
})
const crew = (): CrewView => answerTo(crewEndpoints.read)
const opened = async () => {
  const app = openApp(`/g/${gardenId}/set-up`)
  await screen.findByText(crew().people[0]!.name)
  return app
}

describe('the garden itself', () => {
  it('is put right in one field, and only what is a time zone is taken for one', async () => {
    const { user } = await opened()
    const zone = screen.getByLabelText('Time zone')
    await user.clear(zone)
    await user.type(zone, 'Europe/Atlantis')
    await user.click(screen.getAllByRole('button', { name: /^(Put it right|Save)/ })[0]!)
    expect(await screen.findByText('No such zone; like Europe/London')).toBeTruthy()
    expect(server.askedOf(gardenEndpoints.amend)).toEqual([])
    await user.clear(zone)
    await user.type(zone, 'Europe/Paris')
    await user.click(screen.getAllByRole('button', { name: /^(Put it right|Save)/ })[0]!)
    await screen.findByText('Put right; the light and the dates follow.')
    expect(server.askedOf(gardenEndpoints.amend)[0]!.body).toMatchObject({ timeZone: 'Europe/Paris' })
  })

  it('is taken out only by its whole name', async () => {
    const { name } = answerTo(gardenEndpoints.read).garden
    const { user } = await opened()
    await user.click(screen.getByRole('button', { name: 'Take this garden out' }))
    const dialog = within(await screen.findByRole('dialog'))
    const out = dialog.getByRole('button', { name: 'Take it out' }) as HTMLButtonElement
    await user.type(dialog.getByRole('textbox'), name.slice(0, -1))
    expect(out.disabled).toBe(true)
    await user.type(dialog.getByRole('textbox'), name.slice(-1))
    expect(out.disabled).toBe(false)
    await user.click(out)
    await waitFor(() =>
      expect(server.askedOf(gardenEndpoints.withdraw).map((a) => a.body)).toEqual([{ name }]),
    )
  })
})

describe('people', () => {
  it('are added with all that is asked for, and the form is empty again', async () => {
    const { user } = await opened()
    const form = within(screen.getByRole('button', { name: 'Add to this garden' }).closest('form')!)
    await user.type(form.getByLabelText('Name'), 'Tom Field')
    await user.type(form.getByLabelText('E-mail address'), 'tom at home')
    await user.type(form.getByLabelText('First password'), 'short')
    await user.click(form.getByRole('button', { name: 'Add to this garden' }))
    expect(await form.findByText('Give an address')).toBeTruthy()
    expect(await form.findByText('At least 10 characters')).toBeTruthy()
    await user.clear(form.getByLabelText('E-mail address'))
    await user.type(form.getByLabelText('E-mail address'), 'tom@example.org')
    await user.type(form.getByLabelText('First password'), ' but longer')
    await user.click(form.getByRole('button', { name: 'Add to this garden' }))
    await screen.findByText('Tom Field belongs to this garden now.')
    expect(server.askedOf(gardenEndpoints.addMember)[0]!.body).toEqual({
      name: 'Tom Field',
      email: 'tom@example.org',
      password: 'short but longer',
      role: 'crew',
    })
    await waitFor(() => expect((form.getByLabelText('Name') as HTMLInputElement).value).toBe(''))
  })

  it('that are refused keep what was typed', async () => {
    server.on(
      gardenEndpoints.addMember,
      () => new Refuses(409, 'You cannot change your own role in a garden.'),
    )
    const { user } = await opened()
    const form = within(screen.getByRole('button', { name: 'Add to this garden' }).closest('form')!)
    await user.type(form.getByLabelText('Name'), 'Nora Field')
    await user.type(form.getByLabelText('E-mail address'), 'nora@example.org')
    await user.type(form.getByLabelText('First password'), 'long enough it is')
    await user.click(form.getByRole('button', { name: 'Add to this garden' }))
    await screen.findByText('You cannot change your own role in a garden.')
    expect((form.getByLabelText('Name') as HTMLInputElement).value).toBe('Nora Field')
  })
})

describe('the soil', () => {
  it('is measured with a figure, and what was measured can be taken back', async () => {
    const [reading] = answerTo(climateEndpoints.soil).readings
    const { user } = await opened()
    await user.click(await screen.findByRole('button', { name: 'Keep the reading' }))
    expect(await screen.findByText('What did it show?')).toBeTruthy()
    await user.type(screen.getByLabelText('Soil at 10 cm'), '11.5')
    await user.click(screen.getByRole('button', { name: 'Keep the reading' }))
    await screen.findByText('Kept; what waits for the soil follows it.')
    expect(server.askedOf(climateEndpoints.measureSoil)[0]!.body).toMatchObject({ celsius: 11.5 })
    await user.click(screen.getByRole('button', { name: 'Take back' }))
    await screen.findByText('Taken back.')
    expect(server.askedOf(climateEndpoints.withdrawSoil)[0]!.params.readingId).toBe(reading!.id)
  })
})

describe('what only the head gardener changes', () => {
  it('is shut to the crew', async () => {
    server.seenBy('crew')
    await opened()
    expect((screen.getByLabelText('Time zone') as HTMLInputElement).disabled).toBe(true)
    for (const name of ['Take this garden out', 'Add to this garden'])
      expect(screen.queryByRole('button', { name })).toBeNull()
    expect(server.askedOf(gardenEndpoints.listMembers)).toEqual([])
  })
})

describe('what the gardener knows of the climate', () => {
  const form = async () => within((await screen.findByLabelText('Hardiness zone')).closest('form')!)

  it('of a record is its frosts and zone, each beside what the record says', async () => {
    await opened()
    const fields = await form()
    expect(fields.getByText('without it: 30 March')).toBeTruthy()
    expect(fields.queryByLabelText('Rain and snow of a year')).toBeNull()
  })

  it('of weather that nobody measured is its months, rain, height and sea too; only what was said is kept', async () => {
    const view = answerTo(gardenEndpoints.read)
    const blend = answerTo(climateEndpoints.unfitted)!
    server
      .on(gardenEndpoints.read, () => ({ ...view, climate: { ...view.climate!, isSimulated: true } }))
      .on(climateEndpoints.unfitted, () => ({ ...blend, heightM: 123, hottestC: 21.6, coldestMonthC: -1.4 }))
    const { user } = await opened()
    const fields = await form()
    for (const without of ['22 °C', '−1 °C', '590 mm', '120 m', 'as the towns lie'])
      expect(fields.getByText(`without it: ${without}`)).toBeTruthy()
    await user.type(fields.getByLabelText('Hottest month, usual highest by day'), '25')
    await user.type(fields.getByLabelText('Distance to the sea'), '0')
    await user.click(fields.getByRole('button', { name: 'Keep it' }))
    await screen.findByText('Kept; dates follow it.')
    expect(server.askedOf(climateEndpoints.sayKnown).map((a) => a.body)).toEqual([
      expect.objectContaining({ hottestC: 25, seaKm: 0 }),
    ])
    const [sent] = server.askedOf(climateEndpoints.sayKnown)
    expect(
      Object.keys(sent!.body as object)
        .filter((k) => k !== 'seen')
        .sort(),
    ).toEqual(['hottestC', 'seaKm'])
  })
})

describe('the pots as a file', () => {
  const bringIn = async (csv: string) => {
    const { user } = await opened()
    const section = screen.getByRole('heading', { name: 'Pots as a file' }).closest('section')!
    const input = section.querySelector<HTMLInputElement>('input[type=file]')!
    await user.upload(input, new File([csv], 'containers.csv', { type: 'text/csv' }))
    return section
  }

  it('go out by a link, and say what came of them as they come in', async () => {
    server.on(containerEndpoints.bring, () => ({ added: 2, changed: 1, editId: crypto.randomUUID() }))
    const csv = 'name,x_m,y_m\nUrn,1,2\n'
    const section = await bringIn(csv)
    expect(within(section).getByRole('link', { name: 'containers.csv' }).getAttribute('href')).toContain(
      `/gardens/${gardenId}/containers.csv`,
    )
    expect(await screen.findByText(/2 pots new, 1 pot changed/)).toBeTruthy()
    expect(server.askedOf(containerEndpoints.bring)[0]!.body).toEqual({ csv })
  })

  it('with a fault are refused with its line and column', async () => {
    server.on(
      containerEndpoints.bring,
      () =>
        new Refuses(422, 'The file has a fault.', [
          {
            where: 'containers.csv',
            message: 'containers.csv, line 3, column x_m: where a new one stands is needed',
          },
        ]),
    )
    await bringIn('name\nUrn\n')
    expect(await screen.findByText(/line 3, column x_m/)).toBeTruthy()
  })
})
