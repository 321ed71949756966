// @vitest-environment happy-dom
import { sessionEndpoints, USUAL_PREFERENCES, type Preferences } from '@border/contract'
import { fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer } from '../test/server.ts'
import { DayPicker } from './DayPicker.tsx'
import { setOwnUnits } from './ownUnits.ts'
import { QuantityInput } from './QuantityInput.tsx'

const american: Preferences = {
  ...USUAL_PREFERENCES,
  length: 'feet and inches',
  temperature: 'Fahrenheit',
  volume: 'US gallons',
  weight: 'pounds',
  dates: 'month first',
  weekStart: 'Sunday',
}
afterEach(() => setOwnUnits(USUAL_PREFERENCES))

describe('what is shown', () => {
  const depth = 0.45
  const Bed = () => (
    <>
      <p>
        {depth} m deep, <b>3 to 4 kg</b>
        {depth > 1 && ' and more'} on 3 May
      </p>
      <p translate="no">My 3 m rule of 3 May</p>
      <img alt="A pot 40 cm wide" />
    </>
  )

  it('is as it was said, until somebody wants it otherwise', () => {
    const { container, unmount } = render(<Bed />)
    expect(container.textContent).toBe('0.45 m deep, 3 to 4 kg on 3 MayMy 3 m rule of 3 May')
    unmount()
    setOwnUnits(american)
    const other = render(<Bed />).container
    // A number and its unit that stand apart are one; what a person wrote stays theirs.
    expect(other.textContent).toBe(`1'6" deep, 6.6 to 8.8 lb on May 3My 3 m rule of 3 May`)
    expect(screen.getByAltText('A pot 16 in wide')).toBeTruthy()
  })

  it('keeps what is typed where text beside it comes and goes', () => {
    setOwnUnits(american)
    const Asks = ({ also }: { also: boolean }) => (
      <label>
        {also && '3 m '}2 m <input />
      </label>
    )
    const { rerender } = render(<Asks also={false} />)
    const field = screen.getByRole('textbox')
    fireEvent.change(field, { target: { value: 'typed' } })
    rerender(<Asks also />)
    expect(screen.getByRole('textbox')).toBe(field)
  })
})

describe('what is typed', () => {
  function Field({ suffix, start }: { suffix: string; start?: number }) {
    const [value, set] = useState<number | null>(start ?? null)
    return (
      <>
        <QuantityInput aria-label="Size" suffix={suffix} value={value} onChange={set} />
        <output>{value === null ? 'none' : value.toFixed(4)}</output>
      </>
    )
  }
  const field = () => screen.getByLabelText('Size') as HTMLInputElement
  const said = () => screen.getByRole('status').textContent
  const type = (text: string) => {
    fireEvent.change(field(), { target: { value: text } })
    fireEvent.blur(field())
  }

  it('in feet and inches is kept in metres, and stands there as feet and inches', () => {
    setOwnUnits(american)
    render(<Field suffix="m" start={1.83} />)
    expect(field().value).toBe("6'")
    fireEvent.focus(field())
    fireEvent.blur(field())
    // Looked at and left, it is what it was.
    expect(said()).toBe('1.8300')
    type(`4'6"`)
    expect([said(), field().value]).toEqual(['1.3716', `4'6"`])
    type('1.4 m')
    expect([said(), field().value]).toEqual(['1.4000', `4'7"`])
  })

  it('in metres takes feet and inches too, and what is no length is not kept', () => {
    render(<Field suffix="m" start={2} />)
    type('54 in')
    expect([said(), field().value]).toEqual(['1.3716', '1.3716'])
    type('as long as it is')
    expect(said()).toBe('1.3716')
    type('')
    expect(said()).toBe('none')
  })

  it('by what is no unit of anybody’s is a number as ever', () => {
    setOwnUnits(american)
    render(<Field suffix="%" start={20} />)
    expect(field().value).toBe('20')
    type('35')
    expect(said()).toBe('35.0000')
  })

  it('is a day in one’s own order', () => {
    setOwnUnits(american)
    render(<DayPicker aria-label="Day" />)
    const day = screen.getByLabelText('Day') as HTMLInputElement
    fireEvent.mouseDown(day)
    fireEvent.change(day, { target: { value: 'May 3, 2026' } })
    fireEvent.keyDown(day, { key: 'Enter', code: 'Enter', keyCode: 13 })
    expect(day.value).toBe('May 3, 2026')
    expect(document.querySelector('.ant-picker-content th')?.textContent).toBe('Su')
  })
})

describe('what somebody measures in', () => {
  it('is chosen in Set-up, and the whole screen follows at once', async () => {
    const server = await MockServer.fresh()
    const session = answerTo(sessionEndpoints.read)
    const person = session.person!
    server.on(sessionEndpoints.prefer, () => ({
      ...session,
      person: { ...person, preferences: { ...person.preferences, length: 'feet and inches' as const } },
    }))
    const { user } = openApp(`/g/${gardenId}/set-up`)
    await screen.findByText(/So a bed is 3.40 by 1.20 m/)
    await user.selectOptions(screen.getByLabelText('Lengths'), 'feet and inches')
    await screen.findByText(/So a bed is 11'2" by 3'11", a can holds 9 l/)
    expect(server.askedOf(sessionEndpoints.prefer).at(-1)!.body).toEqual({ length: 'feet and inches' })
  })
})
