// @vitest-environment happy-dom
import {
  containerEndpoints,
  gardenEndpoints,
  priceEndpoints,
  taxonEndpoints,
  type FillRequest,
} from '@border/contract'
import {
  library,
  poisonousTo,
  proposeFills,
  relayOf,
  type ProposalAsked,
  type RelayAsked,
} from '@border/core'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer } from '../test/server.ts'

const asked: ProposalAsked[] = []
let fails = false
// What the worker does, here and now.
vi.mock('../frame/workers.ts', () => ({
  workers: () => (_use: string, ask: (worker: object) => Promise<unknown>) =>
    fails
      ? Promise.reject(new Error('gone'))
      : ask({
          propose: (_: unknown, of: ProposalAsked) => {
            asked.push(of)
            return Promise.resolve(proposeFills(few, of))
          },
          relay: (_: unknown, of: RelayAsked) => Promise.resolve(relayOf(few, of)),
        }),
}))

/** Enough kinds for a filling of each season, and few enough to be quick. */
const few = library.filter((t) =>
  [
    'Salvia farinacea',
    'Cosmos bipinnatus',
    'Tagetes patula',
    'Lobelia erinus',
    'Diascia barberae',
    'Heuchera villosa',
    'Hedera helix',
    'Viola cornuta',
    'Skimmia japonica',
    'Polypodium vulgare',
    'Vinca minor',
    'Tulipa tarda',
  ].includes(t.botanical),
)
const garden = answerTo(gardenEndpoints.read)
const door = garden.features.find((f) => f.kind === 'container')!
const found = answerTo(containerEndpoints.read)
const [usual] = found.pots
const price = (item: string, each: number) => ({
  id: crypto.randomUUID(),
  supplier: 'Lane Nursery',
  item,
  packs: [{ name: 'tray of 6', holds: 6, price: 6 * each }],
  pricedOn: '2026-03-01',
})

let server: MockServer
beforeEach(async () => {
  asked.length = 0
  fails = false
  server = await MockServer.fresh()
  server.on(taxonEndpoints.list, () => library.map((t) => ({ ...t, own: null })))
  server.on(priceEndpoints.list, () => few.map((t) => price(t.botanical, 200)))
  // In the open, so that kinds of every season have their light.
  const sunny = { total: 6, morning: 2, midday: 2, afternoon: 2, heat: 2 }
  const light = {
    months: usual!.light.months.map(() => sunny),
    season: sunny,
    share: usual!.light.share.map(() => 0.8),
  }
  server.on(containerEndpoints.read, () => ({ ...found, coldestC: -5, pots: [{ ...usual!, light }] }))
})
const begin = async () => {
  openApp(`/g/${gardenId}/pots`)
  const panel = await screen.findByRole('region', { name: door.name })
  fireEvent.click(within(panel).getAllByRole('button', { name: /Fill it/ })[0]!)
  const form = await screen.findByRole('form', { name: `Fill ${door.name}` })
  fireEvent.click(within(form).getByText('for summer'))
  return form
}
const propose = (form: HTMLElement) =>
  fireEvent.click(within(form).getByRole('button', { name: 'Propose three' }))

describe('fillings proposed for a pot', () => {
  it('are told with what they cost, go with the wish that they were for, and are asked for anew', async () => {
    const form = await begin()
    propose(form)
    await within(form).findAllByRole('img', { name: /^Proposed: / })
    expect(within(form).getAllByText(/to buy\./).length).toBeGreaterThan(0)
    fireEvent.click(within(form).getByLabelText('dogs'))
    // What was found for everybody says nothing of what is harmless to dogs.
    expect(within(form).queryByRole('img', { name: /^Proposed: / })).toBeNull()
    propose(form)
    await waitFor(() => expect(asked).toHaveLength(2))
    expect(asked[1]!.harmlessTo).toEqual(['dogs'])
    for (const p of proposeFills(few, asked[1]!))
      for (const q of p.potted) expect(poisonousTo(q.taxon)).not.toContain('dogs')
  })

  it('keep to a budget that is said by Enter, which keeps no fill', async () => {
    const form = await begin()
    const most = within(form).getByLabelText('At most, to buy')
    fireEvent.change(most, { target: { value: '12.5' } })
    // A key that nobody stopped would send the form.
    expect(fireEvent.keyDown(most, { key: 'Enter', keyCode: 13 })).toBe(false)
    propose(form)
    await waitFor(() => expect(asked).toHaveLength(1))
    expect(asked[0]!.budget).toBe(1250)
    expect(server.askedOf(containerEndpoints.fill)).toHaveLength(0)
  })

  it('that cannot be worked out say so, and can be asked for again', async () => {
    const form = await begin()
    fails = true
    propose(form)
    expect(await within(form).findByText('They could not be worked out. Ask again.')).toBeTruthy()
    fails = false
    propose(form)
    expect((await within(form).findAllByRole('img', { name: /^Proposed: / })).length).toBeGreaterThan(0)
    expect(within(form).queryByText(/could not be worked out/)).toBeNull()
  })

  it('for two years are told fill by fill: when each goes in, when it is over, what is saved and what it costs', async () => {
    const form = await begin()
    fireEvent.click(within(form).getByRole('button', { name: 'Propose two years' }))
    const legs = within(await within(form).findByRole('list', { name: 'Two years of fills' })).getAllByRole(
      'listitem',
    )
    expect(legs[0]!.textContent).toMatch(/^Summer, in from \d+ \w+ 20\d\d to /)
    for (const leg of legs) {
      expect(leg.textContent).toMatch(/Over between|stays on until/)
      expect(leg.textContent).toMatch(/\d+\.\d\d to buy/)
    }
    fireEvent.click(within(form).getByLabelText('cats'))
    expect(within(form).queryByRole('list', { name: 'Two years of fills' })).toBeNull()
  })
})

describe('what goes into a pot', () => {
  it('is told in the packs it is sold in; what is in hand is no purchase, and no more of it goes in than there is', async () => {
    const [bed, other, spring] = garden.plantings.filter((p) => p.placeId !== door.id)
    server.on(containerEndpoints.spare, () => ({
      plants: [
        {
          plantingId: bed!.id,
          tag: bed!.tag,
          botanical: bed!.taxon.botanical,
          count: 2,
          placeId: bed!.placeId,
          placeName: 'the Long Border',
          window: { from: '2026-09-01', to: '2026-10-31' },
        },
        // Moved in spring: it stays where it is until then.
        {
          plantingId: spring!.id,
          tag: spring!.tag,
          botanical: spring!.taxon.botanical,
          count: 4,
          placeId: spring!.placeId,
          placeName: 'the Short Border',
          window: { from: '2027-03-15', to: '2027-04-30' },
        },
      ],
      divided: [
        {
          plantingId: other!.id,
          botanical: other!.taxon.botanical,
          pieces: 3,
          window: { from: '2026-09-10', to: '2026-10-20' },
        },
        // Divided in spring: none of it is to be had now.
        {
          plantingId: bed!.id,
          botanical: 'Heuchera villosa',
          pieces: 3,
          window: { from: '2027-03-10', to: '2027-04-20' },
        },
      ],
    }))
    server.on(containerEndpoints.fill, () => ({
      editId: crypto.randomUUID(),
      fillId: crypto.randomUUID(),
      plantingIds: [],
    }))
    const form = await begin()
    propose(form)
    const [take] = await within(form).findAllByRole('button', { name: 'Take 3 kinds' })
    fireEvent.click(take!)
    expect(within(form).getAllByText(/as \d+ × tray of 6/).length).toBeGreaterThan(0)
    const inHand = (whence: string) => within(form).findByRole('button', { name: new RegExp(whence) })
    fireEvent.click(await inHand('out of the Long Border, where it does not stay$'))
    fireEvent.click(await inHand('from a division$'))
    expect(within(form).queryByRole('button', { name: /Heuchera|heuchera/ })).toBeNull()
    expect(within(form).queryByRole('button', { name: /Short Border/ })).toBeNull()
    const many = within(form).getByLabelText(`How many ${bed!.taxon.common}`)
    fireEvent.change(many, { target: { value: '7' } })
    expect(many).toHaveProperty('value', '2')
    fireEvent.click(within(form).getByRole('button', { name: 'Keep it as filled' }))
    await waitFor(() => expect(server.askedOf(containerEndpoints.fill)).toHaveLength(1))
    const { in: sent } = server.askedOf(containerEndpoints.fill)[0]!.body as FillRequest
    expect(sent!.slice(3)).toMatchObject([
      { taxonBotanical: bed!.taxon.botanical, count: 2, source: 'moved', liftedId: bed!.id },
      { taxonBotanical: other!.taxon.botanical, source: 'division' },
    ])
    expect(sent!.slice(0, 3).every((p) => p.source === 'bought')).toBe(true)
  })
})
