// @vitest-environment happy-dom
import { gardenEndpoints, plantingEndpoints, type GardenView, type PlantingStory } from '@border/contract'
import { library, type ColourWish } from '@border/core'
import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, plantingId, Refuses } from '../test/server.ts'

let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
})

/** The page of one planting as another kind, in soil of a test. */
async function opened(botanical: string, colourWish: ColourWish | null, soil: object) {
  const taxon = library.find((t) => t.botanical === botanical)!
  const story: PlantingStory = answerTo(plantingEndpoints.story)
  const planting = { ...story.planting, taxon, colourWish }
  const view: GardenView = answerTo(gardenEndpoints.read)
  server
    .on(plantingEndpoints.story, () => ({ ...story, planting }))
    .on(gardenEndpoints.read, () => ({
      ...view,
      plantings: view.plantings.map((p) => (p.id === planting.id ? planting : p)),
      features: view.features.map((f) =>
        f.id === planting.placeId ? { ...f, properties: { ...f.properties, ...soil } } : f,
      ),
    }))
  const app = openApp(`/g/${gardenId}/plants/${plantingId}`)
  await screen.findByText('The planting')
  return app
}

describe('a wish for the colour of flowers', () => {
  it.each([
    ['blue', { ph: 5.2 }, /At pH 5.2 it flowers blue/],
    ['blue', { ph: 6.4 }, /Sulphur and aluminium get it there/],
    ['blue', { ph: 7.6 }, /Blue cannot be had here at pH 7.6/],
    ['pink', { ph: 5.2 }, /Lime gets it there/],
  ] as const)('%s in %j says how it stands', async (wish, soil, says) => {
    await opened('Hydrangea macrophylla', wish, soil)
    const term = await screen.findByText(`Flowers wished ${wish}`)
    expect(term.nextElementSibling!.textContent).toMatch(says)
  })

  it('is said when the planting is put right, and only of flowers that follow the soil', async () => {
    const { user } = await opened('Hydrangea macrophylla', null, { ph: 6.4 })
    await user.click(screen.getByRole('button', { name: /put it right/i }))
    const form = within(await screen.findByRole('dialog'))
    await user.click(form.getByLabelText('Flowers wished'))
    await user.click(await screen.findByTitle('blue'))
    server.on(plantingEndpoints.amend, () => new Refuses(422, 'The planting date lies ahead.'))
    await user.click(form.getByRole('button', { name: 'Put it right' }))
    await waitFor(() => expect(server.askedOf(plantingEndpoints.amend)).toHaveLength(1))
    expect(server.askedOf(plantingEndpoints.amend)[0]!.body).toMatchObject({
      plantings: [{ colourWish: 'blue' }],
    })
    // What the server will not keep is said, and what was filled in stays.
    expect(await screen.findByText(/The planting date lies ahead/)).toBeTruthy()
    expect(form.getByTitle('blue')).toBeTruthy()
  })

  it('is not asked of flowers that do not', async () => {
    const { user } = await opened('Hydrangea paniculata', null, {})
    await user.click(screen.getByRole('button', { name: /put it right/i }))
    const form = within(await screen.findByRole('dialog'))
    expect(form.queryByLabelText('Flowers wished')).toBeNull()
  })
})

describe('a planting of a day nobody knows', () => {
  it.each([
    ['unknown', 'Nobody knows when'],
    ['before', 'Before 2015'],
    ['year', 'In 2015'],
  ] as const)('known as %s is told under “%s”, and with no day', async (plantedKnown, title) => {
    const story: PlantingStory = answerTo(plantingEndpoints.story)
    const plantedOn = '2015-01-01'
    const entries: PlantingStory['story'] = [
      {
        on: plantedOn,
        kind: 'planted',
        says: '3 planted.',
        by: null,
        recordedAt: '2026-01-01T00:00:00.000Z',
      },
      { on: '2015-06-08', kind: 'observed', says: 'Good.', by: null, recordedAt: '2026-01-01T00:00:00.000Z' },
    ]
    server.on(plantingEndpoints.story, () => ({
      ...story,
      planting: { ...story.planting, plantedOn, plantedKnown },
      story: entries,
    }))
    openApp(`/g/${gardenId}/plants/${plantingId}`)
    const told = within(await screen.findByRole('region', { name: 'Its story' }))
    const chapter = within(told.getByRole('heading', { name: title }).closest('li')!)
    expect(chapter.getByText('3 planted.').closest('li')!.textContent).toBe('planted3 planted. ')
    expect(told.getByText('Good.').closest('li')!.textContent).toMatch(/^8 Jun/)
  })
})
