// @vitest-environment happy-dom
import { gardenEndpoints, taxonEndpoints, type KnownTaxon } from '@border/contract'
import { library } from '@border/core'
import { screen, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer } from '../test/server.ts'

let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
})

const known = (botanical: string): KnownTaxon => ({
  ...library.find((t) => t.botanical === botanical)!,
  own: null,
})
/** The page of a kind, in a garden at a place. */
async function opened(botanical: string, at?: { latitude: number; longitude: number }) {
  const view = answerTo(gardenEndpoints.read)
  server
    .on(taxonEndpoints.list, () => [known(botanical)])
    .on(gardenEndpoints.read, () => ({ ...view, garden: { ...view.garden, ...at } }))
  openApp(`/g/${gardenId}/plants/taxon/${encodeURIComponent(botanical)}`)
  return within(await screen.findByLabelText('About this kind'))
}

describe('the page of a kind', () => {
  it('says whom it poisons, and nothing where nobody lists it', async () => {
    const about = await opened('Hemerocallis Hybrid group')
    expect(about.getByText('cats, if eaten')).toBeTruthy()
    expect(about.queryByText('Runs wild in')).toBeNull()
  })

  it('says where it runs wild, and whether the garden lies there', async () => {
    const here = await opened('Miscanthus sinensis', { latitude: 40.7, longitude: -74 })
    expect(here.getByText(/eastern North America and New Zealand; this garden lies there/)).toBeTruthy()
  })

  it('and elsewhere no more than where', async () => {
    const about = await opened('Miscanthus sinensis', { latitude: 52, longitude: 1 })
    expect(about.getByText('eastern North America and New Zealand')).toBeTruthy()
  })

  it('says how it roots, what it is taken for and how to tell, and where gardeners differ', async () => {
    const about = await opened('Laurus nobilis')
    expect(about.getByText(/^woody: lifted at rest/)).toBeTruthy()
    const taken = about.getByText('Taken for').nextElementSibling!
    expect(taken.textContent).toMatch(/Prunus laurocerasus: bay smells of the kitchen/)
    expect(about.queryByText('Where gardeners differ')).toBeNull()
    expect(about.getByText('These figures are').nextElementSibling!.textContent).toMatch(/usual|known|rough/)
  })

  it('parts the work of each year from what is done when it is wanted, each soonest first', async () => {
    await opened('Rosa Bush group')
    const care = within((await screen.findByText('Its care here')).closest('section')!)
    const wanted = care.getByText('When it is wanted')
    const place = (text: string) =>
      care.getByText(text).compareDocumentPosition(wanted) & Node.DOCUMENT_POSITION_FOLLOWING
        ? 'yearly'
        : 'wanted'
    expect(place('Cut to 30 to 45 cm, each stem just above a bud that looks outward')).toBe('yearly')
    expect(place('Take the side buds off and leave the one at the tip')).toBe('wanted')
    expect(place('Take pencil-thick lengths of ripe wood; of ten, about seven root')).toBe('wanted')
  })
})
