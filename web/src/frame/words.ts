import { dayMonth, yearOf, type IsoDate } from '@border/core'

/** `14 Sept 2026`, for narrow places. */
export function shortDate(day: IsoDate): string {
  return `${shortDayMonth(day)} ${yearOf(day)}`
}

export function shortDayMonth(day: IsoDate): string {
  const [d, month] = dayMonth(day).split(' ')
  return `${d} ${month!.length > 5 ? month!.slice(0, month === 'September' ? 4 : 3) : month}`
}

const weekdays = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat']
export const weekdayName = (n: number): string => weekdays[n]!

/** A length in metres, short ones in centimetres. */
export const lengthText = (metres: number): string =>
  metres < 0.995 ? `${Math.round(metres * 100)}\u00a0cm` : metresText(metres)

/** `3.40 m`, as a tape is read. */
export const metresText = (metres: number): string => `${metres.toFixed(2)}\u00a0m`

/** `Feb 2025` */
export const shortMonthYear = (day: IsoDate): string => shortDate(day).split(' ').slice(1).join(' ')

/** `14 Sept 2026, 09:20`, on this device's clock. */
export function momentText(iso: string): string {
  const at = new Date(iso)
  const two = (n: number) => String(n).padStart(2, '0')
  const day = `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`
  return `${shortDate(day)}, ${two(at.getHours())}:${two(at.getMinutes())}`
}

/** `2 l leaf mould`. */
export const materialText = ({
  amount,
  unit,
  name,
}: {
  amount: number
  unit: string
  name: string
}): string => `${amount} ${unit} ${name}`
