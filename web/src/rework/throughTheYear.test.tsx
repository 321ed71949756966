// @vitest-environment happy-dom
import { gardenEndpoints, reworkEndpoints, taxonEndpoints } from '@border/contract'
import { library } from '@border/core'
import { screen, within } from '@testing-library/react'
import { expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer } from '../test/server.ts'

const [rework] = answerTo(reworkEndpoints.list)
const [scheme] = rework!.schemes
const view = answerTo(gardenEndpoints.read)
const drift = (botanical: string, count: number) => ({
  id: crypto.randomUUID(),
  botanical,
  count,
  from: 'library' as const,
  ground: null,
  isDrawn: false,
})

it('the year of a place stands beside the year that a scheme would give it, with its gaps and what cutting adds', async () => {
  const server = await MockServer.fresh()
  const said = { ...scheme!.said, leaving: [], between: [], drifts: [drift('Helenium autumnale', 500)] }
  server
    .on(reworkEndpoints.list, () => [{ ...rework!, schemes: [{ ...scheme!, said }] }])
    // Nothing stands in the place yet.
    .on(gardenEndpoints.read, () => ({
      ...view,
      plantings: view.plantings.filter((p) => p.placeId !== rework!.placeId),
    }))
    .on(taxonEndpoints.list, () => library.map((t) => ({ ...t, own: null })))
  openApp(`/g/${gardenId}/rework/${rework!.id}?as=year`)
  const now = within(await screen.findByRole('region', { name: 'Now' }))
  now.getByText('Nothing flowers in any week of the year.')
  const then = within(screen.getByRole('region', { name: 'With the scheme' }))
  then.getByText(/^Without flowers worth the name for \d+ weeks: 1 Jan to \d+ \w+ and \d+ \w+ to 31 Dec\.$/)
  expect(then.getAllByText(/sneezeweed \d+ %/).length).toBeGreaterThan(5)
  const added = within(screen.getByRole('region', { name: 'What cutting adds' }))
  added.getByText(/^Half of the sneezeweed cut by half in early summer flowers on from/)
})
