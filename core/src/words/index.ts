import { dayNumber, yearOf, type IsoDate } from '../dates/index.ts'

const months = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]

/** `14 September` */
export function dayMonth(day: IsoDate): string {
  dayNumber(day)
  return `${Number(day.slice(8))} ${months[Number(day.slice(5, 7)) - 1]}`
}

/** `14 September 2026` */
export const dayMonthYear = (day: IsoDate): string => `${dayMonth(day)} ${yearOf(day)}`

/** `February 2025` */
export const monthYear = (day: IsoDate): string => `${months[Number(day.slice(5, 7)) - 1]} ${yearOf(day)}`

/** `July` */
export const monthName = (day: IsoDate): string => months[Number(day.slice(5, 7)) - 1]!

/** `45 cm`, of metres. */
export const centimetres = (metres: number): string => `${Math.round(100 * metres)} cm`

/** `−5.7 °C`, with a true minus. */
export const celsius = (value: number): string => `${String(value).replace('-', '−')} °C`

/** How long work takes: `3 h 20 min`, `45 min`. */
export function minutesText(minutes: number): string {
  const hours = Math.floor(minutes / 60)
  const rest = minutes % 60
  if (hours === 0) return `${rest} min`
  return rest === 0 ? `${hours} h` : `${hours} h ${rest} min`
}

/**
 * Hours to the nearest quarter, which is as fine as ten-minute samples bear: `2¾ h`, `0 h`, `−1½ h`.
 */
export function quarterHours(hours: number): string {
  const quarters = Math.round(Math.abs(hours) * 4)
  const whole = Math.floor(quarters / 4)
  const part = ['', '¼', '½', '¾'][quarters % 4]!
  const sign = hours < 0 && quarters > 0 ? '−' : ''
  return `${sign}${whole === 0 && part ? '' : whole}${part} h`
}

/** Metres as one would pace them: `3 m`, `2.5 m`. */
export const metres = (m: number): string => `${String(Math.round(10 * m) / 10).replace('-', '−')} m`

/** `a`, `a and b`, `a, b and c` */
export function listed(words: readonly string[]): string {
  if (words.length <= 1) return words.join('')
  return `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`
}

/** `early April`, `mid May`, `late June` */
export function partOfMonth(day: IsoDate): string {
  const d = Number(day.slice(8))
  const part = d <= 10 ? 'early' : d <= 20 ? 'mid' : 'late'
  return `${part} ${months[Number(day.slice(5, 7)) - 1]}`
}

/** `1 place`, `3 places` */
export const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`

/** One decimal with a true minus: `−0.4`, `3.0` */
export const tenths = (value: number): string => value.toFixed(1).replace('-', '−')

/** `52.1° N`, `1.3° W`: as written down, or to so many decimals. */
export const latitudeWords = (degrees: number, decimals?: number): string =>
  `${degreesOf(degrees, decimals)} ${degrees < 0 ? 'S' : 'N'}`
export const longitudeWords = (degrees: number, decimals?: number): string =>
  `${degreesOf(degrees, decimals)} ${degrees < 0 ? 'W' : 'E'}`
const degreesOf = (degrees: number, decimals?: number) =>
  `${decimals === undefined ? Math.abs(degrees) : Math.abs(degrees).toFixed(decimals)}°`

/** Money of whatever currency, from its minor unit: `1,240.50`. */
export const moneyWords = (minor: number): string =>
  (minor / 100).toLocaleString('en-GB', { minimumFractionDigits: 2, maximumFractionDigits: 2 })

/** With its first letter a capital. */
export const capitalised = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

export { compareTags } from './tags.ts'
export { nextTag, nextTags } from './nextTag.ts'
