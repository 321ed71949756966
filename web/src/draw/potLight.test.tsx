// @vitest-environment happy-dom
import { gardenEndpoints } from '@border/contract'
import { fireEvent, screen, waitFor, within } from '@testing-library/react'
import { beforeEach, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer } from '../test/server.ts'

const garden = answerTo(gardenEndpoints.read)
const door = garden.features.find((f) => f.kind === 'container')!

let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
})

it('the light of a pot follows it as it is put elsewhere: none between high walls, more in the open', async () => {
  const wall = (name: string, y: number) => ({
    ...garden.features.find((f) => f.kind === 'bed')!,
    id: crypto.randomUUID(),
    kind: 'wall' as const,
    name,
    geometry: {
      type: 'LineString' as const,
      coordinates: [
        [-300, y],
        [300, y],
      ] as [number, number][],
    },
    properties: { kind: 'wall', name, heightM: 60, transmission: 0, thicknessM: 0.3 },
  })
  // Two walls a metre apart and sixty high let in no sun that is not overhead.
  server.on(gardenEndpoints.read, () => ({
    ...garden,
    features: [door, wall('South wall', 199.5), wall('North wall', 200.5)],
    plantings: [],
  }))
  openApp(`/g/${gardenId}/plan`)
  fireEvent.click(await screen.findByRole('button', { name: new RegExp(door.name) }))
  const form = await screen.findByRole('region', { name: `Put ${door.name} right` })
  const light = async () => (await screen.findByText(/^There: /)).textContent!
  const hours = async () => Number(/([\d.]+) h of sun/.exec(await light())?.[1] ?? 0)
  expect(await hours()).toBeGreaterThan(5)
  fireEvent.change(within(form).getByLabelText('Metres north'), { target: { value: '200' } })
  await waitFor(async () => expect(await light()).toBe('There: no sun.'))
})
