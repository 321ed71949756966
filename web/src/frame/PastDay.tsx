import dayjs from 'dayjs'
import { useGardenContext } from './gardenContext.ts'
import { DayPicker } from '../units/DayPicker.tsx'

interface Props {
  label: string
  /** `2024-06-08`; undefined while none is said. */
  value: string | undefined
  onChange: (day: string | undefined) => void
}

/** A day up to the garden's own, typed or looked up. */
export function PastDay({ label, value, onChange }: Props) {
  const { today } = useGardenContext()
  return (
    <DayPicker
      aria-label={label}
      maxDate={dayjs(today)}
      value={value === undefined ? null : dayjs(value)}
      onChange={(day) => onChange(day?.format('YYYY-MM-DD'))}
    />
  )
}
