import { DatePicker, type DatePickerProps } from 'antd'
import type { RangePickerProps } from 'antd/es/date-picker'
import dayjs from 'dayjs'
import updateLocale from 'dayjs/plugin/updateLocale'
import { dayFormatOf, ownWeekStart } from './ownUnits.ts'

dayjs.extend(updateLocale)

type OwnFormat = 'D MMM YYYY' | 'D MMMM' | 'D MMM YYYY, HH:mm'

/** A day picked or typed, as whoever picks it writes days and begins weeks. @param props.format as it would be with the day first */
export function DayPicker({
  format = 'D MMM YYYY',
  ...props
}: Omit<DatePickerProps<dayjs.Dayjs, false>, 'format' | 'multiple'> & { format?: OwnFormat }) {
  dayjs.updateLocale('en', { weekStart: ownWeekStart() })
  return <DatePicker {...props} format={dayFormatOf(format)} />
}

/** The first and the last day of a time, as above. */
export function DaysPicker(props: Omit<RangePickerProps, 'format'>) {
  dayjs.updateLocale('en', { weekStart: ownWeekStart() })
  return <DatePicker.RangePicker {...props} format={dayFormatOf('D MMM YYYY')} />
}
