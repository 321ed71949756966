// @vitest-environment happy-dom
import { render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import { Choose } from './Choose.tsx'
import { Segments } from './Segments.tsx'

const beds = [
  { value: 'north', label: 'North bed' },
  { value: 'court', label: 'Court border' },
] as const
type Bed = (typeof beds)[number]['value']

describe('one of a few', () => {
  it('is named, tells what is chosen, and is chosen with keys alone', async () => {
    const user = userEvent.setup()
    const Bench = () => {
      const [bed, setBed] = useState<Bed>('north')
      return <Choose label="Bed" value={bed} options={beds} onChange={setBed} />
    }
    render(<Bench />)
    const choose = screen.getByRole<HTMLSelectElement>('combobox', { name: 'Bed' })
    expect(choose.selectedOptions[0]!.textContent).toBe('North bed')
    await user.tab()
    expect(document.activeElement).toBe(choose)
    await user.selectOptions(choose, 'Court border')
    expect(choose.value).toBe('court')
  })
})

describe('segments', () => {
  it('are radio buttons of one group, apart from any other on the screen; what is shut stays shut', async () => {
    const user = userEvent.setup()
    const told: string[] = []
    const Bench = ({ label }: { label: string }) => {
      const [view, setView] = useState('then')
      return (
        <Segments
          label={label}
          value={view}
          options={['then', { value: 'difference', label: 'Difference', disabled: true }, 'now']}
          onChange={(to) => {
            told.push(`${label} ${to}`)
            setView(to)
          }}
        />
      )
    }
    render(
      <>
        <Bench label="View" />
        <Bench label="Other" />
      </>,
    )
    expect(screen.getAllByRole('radiogroup')).toHaveLength(2)
    await user.click(
      within(screen.getByRole('radiogroup', { name: 'View' })).getByRole('radio', { name: 'now' }),
    )
    expect(told).toEqual(['View now'])
    const checked = screen.getAllByRole<HTMLInputElement>('radio').filter((r) => r.checked)
    expect(checked.map((r) => r.value)).toEqual(['now', 'then'])
    await user.click(screen.getAllByText('Difference')[0]!)
    expect(told).toHaveLength(1)
  })
})
