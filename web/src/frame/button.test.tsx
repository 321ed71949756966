// @vitest-environment happy-dom
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it, vi } from 'vitest'
import { Button, ButtonLink } from './Button.tsx'

describe('a button', () => {
  it('sends a form only where it says so', async () => {
    const sent = vi.fn((e: React.FormEvent) => e.preventDefault())
    render(
      <form onSubmit={sent}>
        <Button>Add a line</Button>
        <Button type="submit">Save</Button>
      </form>,
    )
    const user = userEvent.setup()
    await user.click(screen.getByRole('button', { name: 'Add a line' }))
    expect(sent).not.toHaveBeenCalled()
    await user.click(screen.getByRole('button', { name: 'Save' }))
    expect(sent).toHaveBeenCalledOnce()
  })

  it('under way does nothing more, by mouse or key, sends no form, says so, and keeps the focus', async () => {
    const pressed = vi.fn()
    const sent = vi.fn((e: React.FormEvent) => e.preventDefault())
    const Bench = () => {
      const [busy, setBusy] = useState(false)
      return (
        <form onSubmit={sent}>
          <Button
            type="submit"
            loading={busy}
            onClick={() => {
              pressed()
              setBusy(true)
            }}
          >
            Save
          </Button>
        </form>
      )
    }
    render(<Bench />)
    const user = userEvent.setup()
    const button = screen.getByRole('button', { name: 'Save' })
    await user.click(button)
    await user.click(button)
    await user.keyboard('{Enter} ')
    expect(pressed).toHaveBeenCalledOnce()
    expect(sent).toHaveBeenCalledOnce()
    expect(button.getAttribute('aria-busy')).toBe('true')
    expect(button.getAttribute('aria-disabled')).toBe('true')
    expect(document.activeElement).toBe(button)
  })

  it('that leads somewhere is a link', () => {
    render(<ButtonLink href="/somewhere">Go there</ButtonLink>)
    expect(screen.getByRole('link', { name: 'Go there' }).getAttribute('href')).toBe('/somewhere')
  })
})
