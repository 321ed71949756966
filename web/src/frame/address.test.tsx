// @vitest-environment happy-dom
import { act, render, screen } from '@testing-library/react'
import { createMemoryRouter } from 'react-router'
import { expect, it, vi } from 'vitest'
import { Application } from '../Application.tsx'
import { openClient } from '../test/openApp.tsx'
import { searchWith, useChosen, useParam, withParam, withPlanting } from './address.ts'

it('an address says one thing otherwise and the rest as before', () => {
  const before = new URLSearchParams('on=2026-05-01&job=a')
  expect(`${withParam(before, 'job', 'b')}`).toBe('on=2026-05-01&job=b')
  expect(`${withParam(before, 'job', undefined)}`).toBe('on=2026-05-01')
  expect(`${before}`).toBe('on=2026-05-01&job=a')
  expect(searchWith('?on=2026-05-01&job=a', { job: undefined, place: 'p' })).toBe('?on=2026-05-01&place=p')
  expect(searchWith('?job=a', { job: undefined })).toBe('')
  expect(withPlanting('?on=2026-05-01', 'p 1')).toBe('?on=2026-05-01&planting=p+1')
})

it('what is chosen is in the address, and the way back leads past it', async () => {
  let said: { chosen: string | undefined; on: string | undefined } | undefined
  let choose: (id: string) => void
  let setOn: (day: string | undefined) => void
  function Screen() {
    const [chosen, chooseIt] = useChosen('planting', 'verdict')
    const [on, set] = useParam('on')
    said = { chosen, on }
    choose = chooseIt
    setOn = set
    return null
  }
  const routes = ['/', '/verdicts'].map((path) => ({ path, Component: path === '/' ? () => null : Screen }))
  const router = createMemoryRouter(routes, { initialEntries: ['/', '/verdicts?on=2026-05-01'] })
  render(<Application client={openClient()} router={router} />)
  expect(said).toEqual({ chosen: undefined, on: '2026-05-01' })
  await act(async () => choose('p1'))
  await act(async () => choose('p2'))
  expect(said).toEqual({ chosen: 'p2', on: '2026-05-01' })
  await act(async () => setOn(undefined))
  expect(said).toEqual({ chosen: 'p2', on: undefined })
  await act(async () => router.navigate(-1))
  expect(router.state.location.pathname).toBe('/')
})

it('what is chosen is shown before anything else can be pressed, not when the screen finds the time', async () => {
  vi.stubGlobal('IS_REACT_ACT_ENVIRONMENT', false)
  function Screen() {
    const [chosen, choose] = useChosen('planting', 'verdict')
    return (
      <>
        <button onClick={() => choose('p2')}>the second</button>
        <output>{chosen}</output>
      </>
    )
  }
  const router = createMemoryRouter([{ path: '/', Component: Screen }], { initialEntries: ['/?planting=p1'] })
  render(<Application client={openClient()} router={router} />)
  const shown = await screen.findByText('p1')
  screen.getByRole('button').click()
  // Whatever follows the press by itself; the next event of a person comes after.
  for (let i = 0; i < 50; i++) await Promise.resolve()
  expect(shown.textContent).toBe('p2')
  vi.unstubAllGlobals()
})
