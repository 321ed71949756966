// @vitest-environment happy-dom
import { act, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { announce, Announced } from './Announced.tsx'

const said = () => [...document.querySelectorAll('.notice')].map((n) => n.firstElementChild!.textContent)

let open: ReturnType<typeof render>
beforeEach(() => {
  vi.useFakeTimers({ shouldAdvanceTime: true })
  open = render(<Announced />)
})
afterEach(() => vi.useRealTimers())

describe('what is announced', () => {
  it('is read aloud politely, a failure at once, and goes by itself; a failure later', () => {
    act(() => announce.done('The bed is saved.'))
    act(() => announce.failed('The server cannot be reached.'))
    expect(document.querySelector('[aria-live="polite"]')!.textContent).toContain('The bed is saved.')
    expect(screen.getAllByRole('alert')).toHaveLength(1)
    expect(screen.getByRole('alert').textContent).toContain('The server cannot be reached.')
    act(() => void vi.advanceTimersByTime(5000))
    expect(said()).toEqual(['The server cannot be reached.'])
    act(() => void vi.advanceTimersByTime(5000))
    expect(said()).toEqual([])
  })

  it('stays where it has to be read, until it is put away by mouse or key', async () => {
    const user = userEvent.setup({ advanceTimers: vi.advanceTimersByTime })
    act(() => announce.untilRead(<b>2 proposals could not be taken so</b>))
    act(() => void vi.advanceTimersByTime(3_600_000))
    const close = within(screen.getByRole('alert')).getByRole('button', { name: 'Put this message away' })
    close.focus()
    await user.keyboard('{Enter}')
    expect(said()).toEqual([])
  })

  it('goes with the application that it was said of, though it came only then', () => {
    act(() => announce.failed('said to the last moment'))
    open.unmount()
    announce.done('said too late')
    open = render(<Announced />)
    expect(said()).toEqual([])
  })

  it('never covers the screen: the latest three stand, and each goes in its own time', () => {
    for (const words of ['one', 'two', 'three', 'four']) {
      act(() => announce.done(words))
      act(() => void vi.advanceTimersByTime(1000))
    }
    expect(said()).toEqual(['two', 'three', 'four'])
    act(() => void vi.advanceTimersByTime(1000))
    expect(said()).toEqual(['three', 'four'])
  })
})
