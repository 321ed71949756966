import dayjs from 'dayjs'
import { DayPicker } from '../units/DayPicker.tsx'

interface Props {
  then: string | undefined
  canClear: boolean
  onThen: (day: string | undefined) => void
  onClose: () => void
}

/** A calendar that stands open until a day is chosen or it is left. */
export const ThenCalendar = ({ then, canClear, onThen, onClose }: Props) => (
  <DayPicker
    aria-label="Compare with"
    className="light-then"
    value={then ? dayjs(then) : null}
    allowClear={canClear}
    defaultOpen
    autoFocus
    // The key that takes a day presses nothing that has the focus after it.
    onKeyDown={(e) => {
      if (e.key === 'Enter') e.preventDefault()
    }}
    onOpenChange={(isOpen) => {
      if (!isOpen) onClose()
    }}
    onChange={(day) => {
      onThen(day?.format('YYYY-MM-DD'))
      onClose()
    }}
  />
)
