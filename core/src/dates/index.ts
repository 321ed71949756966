import { offsetMs } from './zoneClock.ts'

/**
 * Calendar days without clocks. A day is an ISO 8601 date string (`2026-09-14`); arithmetic goes
 * through the day number, whole days since 1970-01-01. Nothing here knows a time zone.
 */
export type IsoDate = string

const MS_PER_DAY = 86_400_000
const MS_PER_HOUR = 3_600_000

/**
 * Whole days since 1970-01-01, by the rules of the Gregorian calendar.
 * @throws {RangeError} when `day` is not a real calendar date
 */
export function dayNumber(day: IsoDate): number {
  return dayOfYear(day) - 1 + daysBeforeYear(yearOf(day)) - DAYS_BEFORE_1970
}

/** Whether a text is a day of the Gregorian calendar, YYYY-MM-DD. */
export const isIsoDate = (text: string): boolean => dayOfYearIn(text) !== undefined

/** Days of a common year before each month. */
const DAYS_BEFORE_MONTH = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334, 365]

const isLeap = (year: number) => year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0)

function daysBeforeYear(year: number): number {
  const last = year - 1
  return 365 * year + Math.floor(last / 4) - Math.floor(last / 100) + Math.floor(last / 400)
}

const DAYS_BEFORE_1970 = daysBeforeYear(1970)

/** The date of a day number; the inverse of `dayNumber`. */
export function fromDayNumber(n: number): IsoDate {
  const isHeld = Number.isInteger(n) && n >= 0 && n < DAYS_HELD
  return isHeld ? (daysHeld[n] ??= utcDate(n * MS_PER_DAY)) : utcDate(n * MS_PER_DAY)
}

/** Days are written the thousand times over: those of gardens, until 2106, are written once. */
const DAYS_HELD = 50_000
const daysHeld: IsoDate[] = []

/** The date so many days later; sooner where negative. */
export function addDays(day: IsoDate, days: number): IsoDate {
  return fromDayNumber(dayNumber(day) + days)
}

/** Days from `a` to `b`; negative when `b` is earlier. */
export function daysBetween(a: IsoDate, b: IsoDate): number {
  return dayNumber(b) - dayNumber(a)
}

/** The calendar year of a date. */
export function yearOf(day: IsoDate): number {
  return Number(day.slice(0, 4))
}

/** Calendar month, 1 to 12. */
export function monthOf(day: IsoDate): number {
  return Number(day.slice(5, 7))
}

/** A date from its year, month 1 to 12 and day of the month. */
export function isoDate(year: number, month: number, day: number): IsoDate {
  return utcDate(Date.UTC(year, month - 1, day))
}

/**
 * Day of the year, 1 to 366.
 * @throws {RangeError} when `day` is not a real calendar date
 */
export function dayOfYear(day: IsoDate): number {
  const found = dayOfYearIn(day)
  if (found === undefined) throw new RangeError(`Not a calendar date: ${day}`)
  return found
}

/** Records of weather are read by the ten thousand days: no clock is asked and no text taken apart for it. */
function dayOfYearIn(text: string): number | undefined {
  if (text.length !== 10 || text[4] !== '-' || text[7] !== '-') return undefined
  const year = digits(text, 0, 4)
  const month = digits(text, 5, 7)
  const day = digits(text, 8, 10)
  if (year === undefined || month === undefined || day === undefined || month < 1 || month > 12)
    return undefined
  const isLeapYear = isLeap(year)
  const before = DAYS_BEFORE_MONTH[month - 1]!
  const length = DAYS_BEFORE_MONTH[month]! - before + (month === 2 && isLeapYear ? 1 : 0)
  return day < 1 || day > length ? undefined : before + day + (month > 2 && isLeapYear ? 1 : 0)
}

function digits(text: string, from: number, to: number): number | undefined {
  let n = 0
  for (let i = from; i < to; i++) {
    const digit = text.charCodeAt(i) - ZERO
    if (digit < 0 || digit > 9) return undefined
    n = 10 * n + digit
  }
  return n
}
const ZERO = '0'.charCodeAt(0)

/** The day of `year` with this day-of-year number; 366 in a common year is 1 January of the next. */
export function fromDayOfYear(year: number, doy: number): IsoDate {
  return addDays(isoDate(year, 1, 1), Math.round(doy) - 1)
}

/** 0 is Sunday, 6 Saturday. 1970-01-01 was a Thursday. */
export function weekdayOf(day: IsoDate): number {
  return (((dayNumber(day) + 4) % 7) + 7) % 7
}

/** True when `day` lies in the lifeline `[from, to)`; a missing end is open. */
export function isAlive(life: { from?: IsoDate | null; to?: IsoDate | null }, day: IsoDate): boolean {
  return (life.from == null || life.from <= day) && (life.to == null || day < life.to)
}

/** The earliest; at least one must be given. */
export const minDay = (...days: IsoDate[]): IsoDate => days.reduce((a, b) => (a < b ? a : b))
/** The latest; at least one must be given. */
export const maxDay = (...days: IsoDate[]): IsoDate => days.reduce((a, b) => (a > b ? a : b))

/** The date at an instant in Universal Time. */
export const utcDate = (instantMs: number): IsoDate => new Date(instantMs).toISOString().slice(0, 10)

/** `2026-11-30T09:41`: what calendar and clock show at an instant in an IANA zone. */
export const localMinute = (instantMs: number, timeZone: string): string =>
  new Date(instantMs + offsetMs(instantMs, timeZone)).toISOString().slice(0, 16)

/** `09:41`: what the clock shows at an instant in an IANA zone. */
export const clockTime = (instantMs: number, timeZone: string): string =>
  localMinute(instantMs, timeZone).slice(11)

/** The civil date at an instant in an IANA zone. */
export const civilDate = (instant: Date, timeZone: string): IsoDate =>
  utcDate(instant.getTime() + offsetMs(instant.getTime(), timeZone))

/**
 * The instants at which clocks of a zone show a local time: none in the hour that spring skips, two in the one that autumn
 * repeats.
 *
 * @param local `YYYY-MM-DDTHH:MM`, with or without seconds
 * @returns UTC, milliseconds since 1970, ascending
 */
export function instantsOf(local: string, timeZone: string): number[] {
  const asUtc = Date.parse(`${local}Z`)
  // Offsets of all zones lie within a day, and change at most once in two.
  const offsets = [asUtc - MS_PER_DAY, asUtc + MS_PER_DAY].map((ms) => offsetMs(ms, timeZone))
  return [...new Set(offsets.map((offset) => asUtc - offset))]
    .filter((ms) => ms + offsetMs(ms, timeZone) === asUtc)
    .sort((a, b) => a - b)
}

/** The year a growing season is called by: in the south the season from July is called by the year it ends in. */
export const seasonYearOf = (on: IsoDate, south: boolean): number =>
  south && on.slice(5) >= '07-01' ? yearOf(on) + 1 : yearOf(on)

/** The midwinter that opens a growing season: 1 January in the north, 1 July in the south. */
export const seasonStart = (seasonYear: number, south: boolean): IsoDate =>
  south ? isoDate(seasonYear - 1, 7, 1) : isoDate(seasonYear, 1, 1)

/**
 * What today is told by: the fixed day that a made-up practice stands at, or null for the real day. Everything that asks
 * what day it is in a garden asks `gardenDay`.
 */
export type StandsAt = IsoDate | null

/** Today in a garden: the day on its own calendar, wherever the person, their device and the server are. */
export const gardenDay = (standsAt: StandsAt, timeZone: string, nowMs: number): IsoDate =>
  standsAt ?? civilDate(new Date(nowMs), timeZone)

/**
 * The instant a garden stands at, UTC in milliseconds: now, or the time of day that it really is on the fixed day. A time that
 * clocks skip that day stands for the hour after.
 */
export function gardenInstant(standsAt: StandsAt, timeZone: string, nowMs: number): number {
  if (standsAt === null) return nowMs
  const clockMs = nowMs + offsetMs(nowMs, timeZone)
  const at = (ms: number) =>
    instantsOf(`${standsAt}${new Date(ms).toISOString().slice(10, 19)}`, timeZone).at(-1)
  return at(clockMs) ?? at(clockMs + MS_PER_HOUR)!
}

/** Milliseconds until the next day begins in a zone. */
export function untilNextDay(timeZone: string, nowMs: number): number {
  const next = addDays(civilDate(new Date(nowMs), timeZone), 1)
  // Where clocks skip midnight the day begins an hour later.
  const [midnight] = instantsOf(`${next}T00:00`, timeZone)
  return (midnight ?? instantsOf(`${next}T01:00`, timeZone)[0]!) - nowMs
}

/** Whether this runtime knows an IANA zone of that name. */
export function isTimeZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone })
    return true
  } catch {
    return false
  }
}
