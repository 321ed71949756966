// @vitest-environment happy-dom
import { gardenEndpoints } from '@border/contract'
import { sceneOf, supposed, type Obstruction, type Supposition } from '@border/core'
import { fireEvent, render, screen } from '@testing-library/react'
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router'
import { expect, it, vi } from 'vitest'
import { answerTo } from '../test/server.ts'
import { SuppositionForm } from './SuppositionForm.tsx'

type Tree = Extract<Obstruction, { kind: 'tree' }>

const on = '2026-06-21'
const view = answerTo(gardenEndpoints.read)
const tree = sceneOf(view.garden, view.features).obstructions.find((o): o is Tree => o.kind === 'tree')!

/** The form of what is tried of a tree, and what it was last told. */
function tried(supposition?: Supposition) {
  const onSuppose = vi.fn<(s: Supposition | undefined) => void>()
  const form = <SuppositionForm obstruction={tree} supposition={supposition} onSuppose={onSuppose} />
  const router = createMemoryRouter([
    { path: '/', element: <Outlet context={{ on }} />, children: [{ index: true, element: form }] },
  ])
  render(<RouterProvider router={router} />)
  const slider = (name: string) => screen.findByRole('slider', { name: `Try: ${name}` })
  /** One step more, by the key for it. */
  const more = async (name: string) => {
    fireEvent.keyDown(await slider(name), { key: 'ArrowRight', keyCode: 39 })
    return onSuppose.mock.lastCall![0]!
  }
  return { slider, more }
}

it('a crown is tried by how wide it is, which a screen reader is told too', async () => {
  const { slider, more } = tried()
  const standsM = (supposed(tree, { obstructionId: tree.id }, on) as Tree).crownRadiusM
  const across = Number((await slider('Crown across')).getAttribute('aria-valuenow'))
  expect(across).toBeCloseTo(2 * standsM, 0)
  const wider = await more('Crown across')
  expect(wider.crownRadiusM).toBeGreaterThan(standsM)
  expect(wider.crownRadiusM).toBeLessThan(standsM + 0.15)
})

it('sizes set by hand give way to years of growth, and nothing else does', async () => {
  const { more } = tried({ obstructionId: tree.id, heightM: 2, crownRadiusM: 1, thinnedBy: 0.2 })
  expect(await more('Years on')).toEqual({
    obstructionId: tree.id,
    thinnedBy: 0.2,
    grownYears: 1,
  })
})
