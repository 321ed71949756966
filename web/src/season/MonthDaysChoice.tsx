import { weekdays, type MonthDays } from '@border/core'
import { Checkbox, Select } from 'antd'

const NTHS = ['1st', '2nd', '3rd', '4th', '5th'].map((label, i) => ({ value: i + 1, label }))

/** Where nobody has chosen yet. */
export const USUAL_MONTH_DAYS = { weekday: 6, nths: [1, 3] }

/** Which weekdays of each month: the last of those chosen stays. */
export const MonthDaysChoice = ({
  value = USUAL_MONTH_DAYS,
  onChange = () => {},
}: {
  value?: MonthDays
  onChange?: (value: { weekday: number; nths: number[] }) => void
}) => (
  <span className="month-days">
    <Checkbox.Group
      aria-label="Which of the month"
      options={NTHS}
      value={[...value.nths]}
      onChange={(nths) => nths.length > 0 && onChange({ ...value, nths: nths.toSorted((a, b) => a - b) })}
    />
    <Select
      aria-label="Weekday"
      size="small"
      value={value.weekday}
      options={weekdays.map((label, i) => ({ value: i, label }))}
      onChange={(weekday) => onChange({ weekday, nths: [...value.nths] })}
      style={{ width: 120 }}
    />
  </span>
)
