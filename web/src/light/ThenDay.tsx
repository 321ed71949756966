import { DatePicker } from 'antd'
import dayjs from 'dayjs'

interface Props {
  then: string | undefined
  /** Whether it was chosen here, and can be left to the assessment again. */
  canClear: boolean
  onThen: (day: string | undefined) => void
}

/** The day that is compared with. */
export const ThenDay = ({ then, canClear, onThen }: Props) => (
  <DatePicker
    aria-label="Compare with"
    className="light-then"
    value={then ? dayjs(then) : null}
    format="D MMM YYYY"
    allowClear={canClear}
    onChange={(day) => onThen(day?.format('YYYY-MM-DD'))}
  />
)
