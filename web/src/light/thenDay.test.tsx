// @vitest-environment happy-dom
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, it, vi } from 'vitest'
import { ThenDay } from './ThenDay.tsx'

const onThen = vi.fn<(day: string | undefined) => void>()
const shown = (then?: string) => render(<ThenDay then={then} canClear onThen={onThen} />)

it('the day that is compared with is said, chosen from a calendar, and leaves the focus where it was', async () => {
  const { rerender } = shown('2025-02-16')
  const user = userEvent.setup({ delay: null })
  await user.click(screen.getByRole('button', { name: 'Since 16 Feb 2025: compare with another day' }))
  const day = await screen.findByLabelText<HTMLInputElement>('Compare with')
  expect(document.activeElement).toBe(day)
  await user.clear(day)
  await user.type(day, '1 Mar 2025{Enter}')
  expect(onThen).toHaveBeenLastCalledWith('2025-03-01')
  rerender(<ThenDay then="2025-03-01" canClear onThen={onThen} />)
  const said = await screen.findByRole('button', { name: /^Since 1 March 2025/ })
  expect(document.activeElement).toBe(said)
})

it('a calendar that is left chooses nothing', async () => {
  onThen.mockClear()
  shown()
  const user = userEvent.setup({ delay: null })
  await user.click(screen.getByRole('button', { name: 'Compare with…' }))
  await screen.findByLabelText('Compare with')
  await user.keyboard('{Escape}')
  const said = await screen.findByRole('button', { name: 'Compare with…' })
  expect(document.activeElement).toBe(said)
  expect(onThen).not.toHaveBeenCalled()
})
