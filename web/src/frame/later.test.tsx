// @vitest-environment happy-dom
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import { later } from './later.tsx'

describe('a part that comes later', () => {
  it('leaves what stands beside it as it was: what somebody is at keeps the focus', async () => {
    let arrive!: (part: React.ComponentType<{ of: string }>) => void
    const Part = later<{ of: string }>(
      () => new Promise((resolve) => (arrive = resolve)),
      ({ of }) => <p>waiting for {of}</p>,
    )
    const Bench = () => {
      const [shown, setShown] = useState(false)
      return (
        <>
          <input aria-label="Height" onChange={() => setShown(true)} />
          {shown && <Part of="the alder" />}
        </>
      )
    }
    render(<Bench />)
    const input = screen.getByLabelText<HTMLInputElement>('Height')
    input.focus()
    fireEvent.change(input, { target: { value: '6.5' } })
    expect(screen.getByText('waiting for the alder')).toBeTruthy()
    expect(document.activeElement).toBe(input)
    expect(input.closest('[style*="display: none"]')).toBeNull()
    await act(async () => arrive(({ of }) => <p>{of} is here</p>))
    expect(await screen.findByText('the alder is here')).toBeTruthy()
    expect(document.activeElement).toBe(input)
  })
})
