// @vitest-environment happy-dom
import {
  gardenEndpoints,
  priceEndpoints,
  reworkEndpoints,
  taxonEndpoints,
  type PaletteAnswerView,
  type PaletteView,
  type RelocatedView,
  type SaidScheme,
  type TrayView,
} from '@border/contract'
import { library } from '@border/core'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { saved } from '../test/saved.ts'
import { answerTo, gardenId, MockServer, Refuses } from '../test/server.ts'

const view = answerTo(gardenEndpoints.read)
const [written] = answerTo(reworkEndpoints.list)
const rework = written!
const [scheme] = rework.schemes
const here = view.plantings.filter((p) => p.placeId === rework.placeId)
const leaving = here.find((p) => p.id === scheme!.said.leaving[0]!.plantingId)!
const [tall, low] = ['Helenium autumnale', 'Nepeta × faassenii'].map((n) =>
  library.find((t) => t.botanical === n)!,
)
const empty: TrayView = { weeks: [], areaM2: 8, flowering: [], candidates: [] }
const palette = (more: Partial<PaletteView> = {}): PaletteView => ({
  items: [
    {
      candidate: { taxon: tall!, from: 'library', fit: 1, price: 420 },
      count: 9,
      drifts: 3,
      areaM2: 1.6,
    },
  ],
  flowering: [[tall!.botanical], []],
  price: 3780,
  unpriced: [],
  evergreenShare: 0,
  lack: 30,
  gap: 0.003,
  ...more,
})

/** So many of a kind that come in, not laid out yet. */
const drift = (botanical: string, count: number): SaidScheme['drifts'][number] => ({
  id: crypto.randomUUID(),
  botanical,
  count,
  from: 'library',
  ground: null,
  isDrawn: false,
})

/** What the server holds of the scheme, step by step, as it would. */
let steps: { revisionId: string; said: SaidScheme }[]
let at: number
let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
  steps = [{ revisionId: scheme!.revisionId, said: scheme!.said }]
  at = 0
  let versions = 0
  server
    .on(reworkEndpoints.list, () => [
      {
        ...rework,
        schemes: [{ ...scheme!, ...steps[at]!, hasBefore: at > 0, hasAfter: at + 1 < steps.length }],
      },
    ])
    .on(gardenEndpoints.versions, () => {
      const now = answerTo(gardenEndpoints.versions)
      return { ...now, versions: { ...now.versions, reworks: `${++versions}` } }
    })
    .on(reworkEndpoints.keepScheme, ({ body }) => {
      const { said } = body as { said: SaidScheme }
      steps = [...steps.slice(0, at + 1), { revisionId: crypto.randomUUID(), said }]
      at++
      return { revisionId: steps[at]!.revisionId }
    })
    .on(reworkEndpoints.stepScheme, ({ body }) => {
      at += (body as { to: string }).to === 'before' ? -1 : 1
      return { revisionId: steps[at]!.revisionId }
    })
    .on(reworkEndpoints.relocate, (): RelocatedView => ({
      ok: true,
      cost: 40,
      gap: 0,
      went: [{ plantingId: leaving.id, destination: { to: 'bench' }, cost: 40, suiting: null }],
    }))
    .on(reworkEndpoints.tray, () => empty)
    .on(reworkEndpoints.inHand, () => [])
    .on(taxonEndpoints.list, () => library.map((t) => ({ ...t, own: null })))
})

const open = (part: string) => openApp(`/g/${gardenId}/rework/${rework.id}?part=${part}`)
const kept = () =>
  server.askedOf(reworkEndpoints.keepScheme).map((a) => a.body as { said: SaidScheme; seen: unknown })

describe('what stays and goes', () => {
  it('is said row by row, kept on what was seen, taken back and said again', async () => {
    const { user } = open('leaves')
    const row = within(await screen.findByRole('radiogroup', { name: `What becomes of ${leaving.tag}` }))
    await screen.findByText(/^It waits on the bench/)
    await user.click(row.getByRole('radio', { name: 'Stays' }))
    await waitFor(() => expect(kept()).toHaveLength(1))
    expect(kept()[0]).toMatchObject({ said: { leaving: [] }, seen: { revisionId: scheme!.revisionId } })
    await screen.findByText(/^Nothing leaves/)
    await user.click(await screen.findByRole('button', { name: 'Undo' }))
    await screen.findByText(/^1 planting leaves/)
    await waitFor(() =>
      expect((screen.getByRole('button', { name: 'Redo' }) as HTMLButtonElement).disabled).toBe(false),
    )
    await user.click(screen.getByRole('button', { name: 'Redo' }))
    await screen.findByText(/^Nothing leaves/)
  })

  it('is worked out with a way to stop, and asked again where it was stopped or failed', async () => {
    let answer: (of: RelocatedView | Refuses) => void = () => {}
    server.on(reworkEndpoints.relocate, () => new Promise<RelocatedView | Refuses>((done) => (answer = done)))
    const { user } = open('leaves')
    await screen.findByRole('progressbar', { name: 'Where things go is being worked out' })
    await user.click(screen.getByRole('button', { name: 'Stop' }))
    await screen.findByText(/^Where things go is not worked out/)
    expect(screen.queryByRole('progressbar')).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Work it out' }))
    await screen.findByRole('progressbar')
    answer(new Refuses(503, 'Too much is asked at once. Try again in a moment.'))
    await screen.findByText(/Too much is asked at once/)
    server.on(reworkEndpoints.relocate, (): RelocatedView => ({
      ok: true,
      cost: 40,
      gap: 0,
      went: [{ plantingId: leaving.id, destination: { to: 'bench' }, cost: 40, suiting: null }],
    }))
    await user.click(screen.getByRole('button', { name: 'Work it out' }))
    await screen.findByText(/^It waits on the bench/)
  })

  it('has its price in every other way, and what is chosen is decided', async () => {
    server.on(reworkEndpoints.ways, () => ({
      ways: { stay: 20, bench: 0, 'give away': 15, gone: null },
      spots: [],
    }))
    const { user } = open('leaves')
    await user.click(await screen.findByRole('button', { name: 'Send it elsewhere…' }))
    const list = within(await screen.findByRole('list', { name: `Where ${leaving.tag} could go` }))
    expect(list.getAllByRole('listitem').map((l) => l.textContent)).toEqual([
      'It stays for now + 20 points',
      'It waits on the bench as good',
      'It is given away + 15 points',
    ])
    await user.click(list.getByRole('button', { name: 'It is given away' }))
    await waitFor(() => expect(kept()[0]?.said.leaving[0]?.to).toEqual({ to: 'give away' }))
  })

  it('for which there is no room names what it is, unless it is being carried out', async () => {
    server.on(reworkEndpoints.relocate, (): RelocatedView => ({
      ok: false,
      says: 'There is not room for all that is decided.',
      noRoom: [leaving.id],
    }))
    const { unmount } = open('leaves')
    const alert = await screen.findByText(/not room for all/)
    expect(alert.textContent).toContain(
      `It is about ${leaving.taxon.common} ${leaving.tag}: decide it otherwise.`,
    )
    unmount()
    const accepted = { at: '2026-09-10T08:00:00Z', by: 'Ada' }
    server.on(reworkEndpoints.list, () => [{ ...rework, schemes: [{ ...scheme!, accepted }] }])
    open('leaves')
    await screen.findByRole('list', { name: 'What stands here' })
    expect(screen.queryByText(/not room for all/)).toBeNull()
  })

  it('that cannot be kept is said, and what was kept stands', async () => {
    server.on(reworkEndpoints.keepScheme, () => new Refuses(409, 'Others are changing this garden just now.'))
    const { user } = open('leaves')
    const row = within(await screen.findByRole('radiogroup', { name: `What becomes of ${leaving.tag}` }))
    await user.click(row.getByRole('radio', { name: 'Stays' }))
    await screen.findByText('Others are changing this garden just now.')
    await screen.findByText(/^1 planting leaves/)
  })
})

describe('an answer that was asked before the last step', () => {
  it('does not take the step back on the screen, and the next step goes on from it', async () => {
    const { user, client } = open('leaves')
    const row = within(await screen.findByRole('radiogroup', { name: `What becomes of ${leaving.tag}` }))
    await screen.findByText(/^It waits on the bench/)
    await user.click(row.getByRole('radio', { name: 'Stays' }))
    await screen.findByText(/^Nothing leaves/)
    await server.settled()
    // As it stood before, told late.
    at = 0
    await client.invalidateQueries()
    await server.settled()
    expect(screen.getByText(/^Nothing leaves/)).toBeTruthy()
    at = 1
    await user.click(row.getByRole('radio', { name: 'Leaves' }))
    await waitFor(() => expect(kept()).toHaveLength(2))
    expect(kept()[1]!.seen).toEqual({ revisionId: steps[1]!.revisionId })
  })
})

describe('kinds', () => {
  it('are proposed one palette after another, each apart from those before, and taken', async () => {
    server.on(reworkEndpoints.palette, ({ body }): PaletteAnswerView => {
      const { apart } = body as { apart: string[][] }
      return apart.length < 2
        ? {
            is: 'palette',
            palette: palette({ lack: 30 + apart.length }),
            weeks: ['2027-04-05', '2027-04-12'],
            areaM2: 8,
          }
        : { is: 'no more' }
    })
    const { user } = open('kinds')
    await user.click(await screen.findByRole('button', { name: 'Propose three palettes' }))
    await screen.findByText('No more differ from these in three kinds.')
    expect(screen.getAllByRole('img', { name: '1 week without a flower.' }).length).toBeGreaterThanOrEqual(2)
    const first = within(screen.getByRole('region', { name: 'Palette A' }))
    expect(first.getByText(/0\.3 % of what a bare place lacks/)).toBeTruthy()
    await user.click(first.getByRole('button', { name: 'Take this' }))
    await waitFor(() => expect(kept()[0]?.said.drifts.map((d) => d.count)).toEqual([3, 3, 3]))
    expect(screen.queryByRole('region', { name: 'Palette A' })).toBeNull()
  })

  it('that cannot meet all wishes say which contradict each other, and what is least to give up', async () => {
    server.on(reworkEndpoints.palette, (): PaletteAnswerView => ({
      is: 'conflict',
      weeks: ['2027-04-05', '2027-04-12'],
      wishes: ['budget', 'ground filled'],
      giveUp: [{ wish: 'budget', palette: palette() }],
    }))
    const { user } = open('kinds')
    await user.click(await screen.findByRole('button', { name: 'Propose three palettes' }))
    await screen.findByText(/cannot all be met together: the money and the ground filled/)
    expect(screen.getByRole('region', { name: 'Without the money' })).toBeTruthy()
  })

  it('are stopped at any time with what there is, and a failure is told', async () => {
    let asked = 0
    server.on(reworkEndpoints.palette, (): Promise<PaletteAnswerView> =>
      asked++ === 0
        ? Promise.resolve({ is: 'palette', palette: palette(), weeks: [], areaM2: 8 })
        : new Promise(() => {}),
    )
    const { user } = open('kinds')
    await user.click(await screen.findByRole('button', { name: 'Propose three palettes' }))
    await screen.findByRole('region', { name: 'Palette A' })
    await user.click(screen.getByRole('button', { name: 'Stop' }))
    expect(screen.getByRole('region', { name: 'Palette A' })).toBeTruthy()
    server.on(reworkEndpoints.palette, () => new Refuses(409, 'What stays here leaves no ground to plant.'))
    await user.click(screen.getByRole('button', { name: 'Propose three palettes' }))
    await screen.findByText('What stays here leaves no ground to plant.')
  })

  it('are taken from the tray in a usual number, or never', async () => {
    server.on(reworkEndpoints.tray, (): TrayView => ({
      ...empty,
      candidates: [
        {
          candidate: { taxon: low!, from: 'bench', fit: 0.8, price: 0, most: 12 },
          count: 5,
          gain: 12,
          fillsWeeks: [1, 2],
          brings: ['front'],
        },
      ],
    }))
    const { user } = open('kinds')
    const tray = within(await screen.findByRole('list', { name: 'Kinds that would do well here' }))
    expect(
      tray.getByText(/12 off the bench · suits it to 80 in a hundred · 2 bare weeks filled · something low/),
    ).toBeTruthy()
    await user.click(tray.getByRole('button', { name: `Take 5 ${low!.common}` }))
    await waitFor(() =>
      expect(kept()[0]?.said.drifts).toMatchObject([{ botanical: low!.botanical, count: 5, from: 'bench' }]),
    )
    await user.click(tray.getByRole('button', { name: `Keep ${low!.common} out` }))
    await waitFor(() => expect(kept()[1]?.said.wishes.barred).toEqual([low!.botanical]))
  })

  it('that have left the library since are named and stay in the scheme', async () => {
    steps = [
      {
        revisionId: scheme!.revisionId,
        said: {
          ...scheme!.said,
          drifts: [
            {
              id: crypto.randomUUID(),
              botanical: 'Hosta deleta',
              count: 3,
              from: 'library',
              ground: null,
              isDrawn: false,
            },
          ],
        },
      },
    ]
    open('kinds')
    await screen.findByText(
      /no longer in the plant library is not drawn|that are no longer in the plant library/,
    )
    expect(screen.getByText(/Hosta deleta/)).toBeTruthy()
  })
})

describe('what it takes', () => {
  it('rests on prices that are kept with their day', async () => {
    steps = [
      {
        revisionId: scheme!.revisionId,
        said: {
          ...scheme!.said,
          drifts: [drift(tall!.botanical, 9)],
        },
      },
    ]
    server.on(priceEndpoints.list, () => [])
    const { user } = open('reckoning')
    await screen.findByText(/No price is known yet/)
    await user.click(screen.getByText('Prices'))
    await user.type(screen.getByLabelText('Supplier'), 'Lane Nursery')
    const price = screen.getByLabelText('Price of one')
    await user.clear(price)
    await user.type(price, '4.5')
    await user.tab()
    await user.click(screen.getByRole('button', { name: 'Keep the price' }))
    await waitFor(() => expect(server.askedOf(priceEndpoints.say)).toHaveLength(1))
    expect(server.askedOf(priceEndpoints.say)[0]!.body).toMatchObject({
      supplier: 'Lane Nursery',
      packs: [{ name: '9 cm pot', holds: 1, price: 450 }],
    })
  })

  it('is only looked at by who keeps the garden', async () => {
    server.seenBy('keeper')
    open('reckoning')
    await screen.findByText(/of work\./)
    expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull()
    expect(screen.queryByText('An hour’s work costs')).toBeNull()
  })
})

describe('soil, feed and water', () => {
  it('are reckoned before anything is said, part of the scheme once it is, and left out again', async () => {
    const { user } = open('reckoning')
    const part = async (name: string) => {
      await user.click(await screen.findByText(name))
      return within(screen.getByText(name).closest('details')!)
    }
    const soil = await part('Lime or sulphur')
    const ph = soil.getByLabelText('pH by a test')
    await user.clear(ph)
    await user.type(ph, '5.5')
    await user.tab()
    await waitFor(() => expect(kept().at(-1)?.said.reaction).toMatchObject({ now: 5.5, to: 6.5 }))
    await soil.findByText(/kg of ground limestone in all/)
    expect(screen.getByText(/kg Ground limestone/)).toBeTruthy()
    // Without a test nothing is dosed.
    await user.clear(ph)
    await user.tab()
    await waitFor(() => expect(kept().at(-1)?.said).not.toHaveProperty('reaction'))
    const drip = await part('Drip line')
    expect(drip.getByText('Not part of the scheme yet.')).toBeTruthy()
    const lines = drip.getByLabelText('From line to line, metres')
    await user.clear(lines)
    await user.type(lines, '0.5')
    await user.tab()
    await waitFor(() => expect(kept().at(-1)?.said.drip).toMatchObject({ lineSpacingM: 0.5 }))
    await user.click(await drip.findByRole('button', { name: 'Leave it out of the scheme' }))
    await waitFor(() => expect(kept().at(-1)?.said).not.toHaveProperty('drip'))
  })
})

describe('stepping stones', () => {
  it('are laid where they bring all within reach, kept with the scheme, and taken up again', async () => {
    const { user } = open('layout')
    const box = await screen.findByLabelText('Stepping stones')
    const far = answerTo(reworkEndpoints.ground).stations.filter((s) => s.edgeM > 0.8)
    await user.click(box)
    if (far.length === 0) {
      await screen.findByText(/no stone is needed/)
      return
    }
    await waitFor(() => expect(kept().at(-1)?.said.stones?.length).toBeGreaterThan(0))
    const stones = kept().at(-1)!.said.stones!
    for (const f of far)
      expect(Math.min(...stones.map(([x, y]) => Math.hypot(x - f.x, y - f.y)))).toBeLessThanOrEqual(
        0.8 + 1e-9,
      )
    await user.click(screen.getByLabelText('Stepping stones'))
    await waitFor(() => expect(kept().at(-1)?.said).not.toHaveProperty('stones'))
  })
})

describe('a scheme from the path', () => {
  it('stands at a week and a year that are chosen, from where somebody stands, beside its plan', async () => {
    const { user } = open('layout')
    await user.click(await screen.findByRole('radio', { name: 'From the path' }))
    expect(screen.queryByRole('application')).toBeNull()
    const week = screen.getByRole('slider', { name: 'Week of the year' })
    fireEvent.change(week, { target: { value: '29' } })
    await waitFor(() => expect(week.getAttribute('aria-valuetext')).toBe('week of 26 July'))
    await user.selectOptions(screen.getByLabelText('Year of growth'), '1')
    const away = screen.getByLabelText('From how far it is looked at, metres')
    await user.clear(away)
    await user.type(away, '6')
    await user.tab()
    await waitFor(() => expect(Number((away as HTMLInputElement).value)).toBe(6))
    expect((screen.getByLabelText('Year of growth') as HTMLSelectElement).value).toBe('1')
    // What is said of it is of that week.
    await waitFor(() => expect(screen.getByText(/Hidden in July:|Nothing that stands in July/)).toBeTruthy())
    await user.click(screen.getByRole('radio', { name: 'Both' }))
    expect(screen.getByRole('slider', { name: 'Week of the year' })).toBeTruthy()
  })
})

describe('two schemes of a place', () => {
  it('stand side by side at the same moment, each with its plan and what is hidden of it; one alone stands beside none', async () => {
    const other = { ...scheme!, id: crypto.randomUUID(), said: { ...scheme!.said, name: 'Another way' } }
    const { unmount } = open('layout')
    await screen.findByRole('radio', { name: 'Both' })
    expect(screen.queryByRole('radio', { name: 'Side by side' })).toBeNull()
    unmount()
    server.on(reworkEndpoints.list, () => [{ ...rework, schemes: [scheme!, other] }])
    const { user } = open('layout')
    await user.click(await screen.findByRole('radio', { name: 'Side by side' }))
    const both = [scheme!.said.name, 'Another way'].map((name) =>
      within(screen.getByRole('region', { name: new RegExp(`^${name}`) })),
    )
    fireEvent.change(screen.getByRole('slider', { name: 'Week of the year' }), { target: { value: '29' } })
    for (const one of both) {
      await one.findByText(/Hidden in July:|Nothing that stands in July/)
      one.getByRole('application')
      one.getByText(/\d+ plants? of \d+ kinds?|0 plants of 0 kinds/)
    }
    expect(screen.getAllByRole('slider', { name: 'Week of the year' })).toHaveLength(1)
  })
})

describe('what is open until the plants have grown', () => {
  it('is filled with a kind that is chosen among those that suit the place, told year by year, and left open again', async () => {
    steps = [
      {
        revisionId: scheme!.revisionId,
        said: {
          ...scheme!.said,
          drifts: [drift('Buddleja davidii', 3)],
        },
      },
    ]
    const { user } = open('layout')
    await user.click(await screen.findByText('As it grows'))
    const choice = await screen.findByLabelText('Annual that fills what is open')
    await waitFor(() => expect(within(choice).getAllByRole('option').length).toBeGreaterThan(1))
    const names = within(choice)
      .getAllByRole('option')
      .map((o) => o.textContent)
    expect(names[0]).toBe('nothing yet')
    const kinds = names.slice(1).map((name) => library.find((t) => t.common === name)!)
    for (const kind of kinds) expect([kind.botanical, kind.heightM <= 0.6]).toEqual([kind.botanical, true])
    const [kind] = kinds
    const first = () => screen.getByText('Year 1').closest('li')!.textContent
    expect(first()).toMatch(/\d+ annuals would fill what is open/)
    await user.selectOptions(choice, kind!.common)
    await waitFor(() => expect(kept().at(-1)?.said.filler).toBe(kind!.botanical))
    await waitFor(() => expect(first()).toContain(` ${kind!.common} fill what is open`))
    await user.selectOptions(screen.getByLabelText('Annual that fills what is open'), 'nothing yet')
    await waitFor(() => expect(kept().at(-1)?.said).not.toHaveProperty('filler'))
  })
})

describe('a division', () => {
  it('shows its arithmetic, takes a count of shoots, and says where its pieces go', async () => {
    const divided = here.find((p) => p.taxon.divideHow && p.id !== leaving.id)!
    steps = [
      {
        revisionId: scheme!.revisionId,
        said: { ...scheme!.said, leaving: [{ plantingId: divided.id, how: 'divides', to: null, worth: 1 }] },
      },
    ]
    const { user } = open('leaves')
    const shoots = await screen.findByLabelText(`Shoots of one clump of ${divided.tag}`)
    expect(screen.getByText(/Reckoned from its age|no second piece yet/)).toBeTruthy()
    await user.type(shoots, '40')
    await user.tab()
    await waitFor(() => expect(kept().at(-1)?.said.leaving[0]).toMatchObject({ shoots: 40 }))
    await screen.findByText(/40 shoots.*wait on the bench\.$/)
    await user.selectOptions(
      screen.getByLabelText(`What becomes of pieces of ${divided.tag} that are over`),
      'give away',
    )
    await screen.findByText(/are given away\.$/)
  })
})

describe('the planting sheet', () => {
  it('is measured from the side that somebody has said, and that is kept with the scheme', async () => {
    const { user } = openApp(`/g/${gardenId}/rework/${rework.id}/sheet`)
    const side = (await screen.findByLabelText('Measured from')) as HTMLSelectElement
    expect(side.value).toBe('0')
    await user.selectOptions(side, '2')
    await waitFor(() => expect(kept().at(-1)?.said.baseLine).toHaveLength(2))
    await waitFor(() => expect(side.value).toBe('2'))
  })
})

describe('a scheme on paper', () => {
  it('is asked for on the sheet that is chosen, with or without prices, as it is looked at, and kept under its name', async () => {
    const { user } = openApp(`/g/${gardenId}/rework/${rework.id}/sheet?week=26&growth=5`)
    await user.selectOptions(await screen.findByLabelText('Sheet'), 'Letter')
    await user.selectOptions(screen.getByLabelText('What it costs'), 'no')
    const [file] = await saved(() => user.click(screen.getByRole('button', { name: 'PDF to print' })))
    expect(file!.name).toBe('reworks.schemePdf')
    expect(await file!.file.text()).toBe('A file')
    const [asked] = server.askedOf(reworkEndpoints.schemePdf)
    const query = Object.fromEntries(asked!.query)
    expect(query).toMatchObject({ paper: 'Letter', prices: 'no', years: '5' })
    expect(query.on).toMatch(/-07-0\d$/)
    expect(asked!.params).toMatchObject({ reworkId: rework.id, schemeId: scheme!.id })
  })

  it('says why where it cannot be made, and can be asked for again', async () => {
    server.on(reworkEndpoints.schemePlan, () => new Refuses(409, 'This place is too small to be laid out.'))
    const { user } = openApp(`/g/${gardenId}/rework/${rework.id}/sheet`)
    await user.click(await screen.findByRole('button', { name: 'Plan as SVG' }))
    await screen.findByText('This place is too small to be laid out.')
    server.asWritten(reworkEndpoints.schemePlan)
    const [file] = await saved(() => user.click(screen.getByRole('button', { name: 'Plan as SVG' })))
    expect(file!.name).toBe('reworks.schemePlan')
  })
})

describe('the name of a scheme', () => {
  it('is said when it is left, and never nothing', async () => {
    const { user } = open('leaves')
    const name = await screen.findByLabelText('What the scheme is called')
    await user.clear(name)
    await user.tab()
    expect(kept()).toHaveLength(0)
    await user.clear(name)
    await user.type(name, 'Loud and late{Enter}')
    await waitFor(() => expect(kept().at(-1)?.said.name).toBe('Loud and late'))
  })
})

describe('wishes', () => {
  it('are asked where they are said, and not at all where they are taken back', async () => {
    const { user } = open('kinds')
    await user.click(await screen.findByText('What you wish of it'))
    const wished = () => kept().at(-1)?.said.wishes
    await user.click(screen.getByLabelText('dogs'))
    await waitFor(() => expect(wished()).toMatchObject({ harmlessTo: ['dogs'] }))
    await user.click(screen.getByLabelText('cats'))
    await waitFor(() => expect(wished()).toMatchObject({ harmlessTo: ['dogs', 'cats'] }))
    await user.click(screen.getByLabelText('No week of the season without a flower'))
    await waitFor(() => expect(wished()).toMatchObject({ noBareWeek: true }))
    const low = screen.getByLabelText('Low plants, per cent of the ground')
    await user.type(low, '30')
    await user.tab()
    await waitFor(() => expect(wished()).toMatchObject({ layerShares: { front: 0.3 } }))
    await user.clear(low)
    await user.tab()
    await waitFor(() => expect(wished()).not.toHaveProperty('layerShares'))
    for (const named of ['dogs', 'cats', 'No week of the season without a flower'])
      await user.click(screen.getByLabelText(named))
    await waitFor(() => expect(wished()).toEqual(scheme!.said.wishes))
  })
})
