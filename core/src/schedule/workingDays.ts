import { addDays, weekdayOf, type IsoDate } from '../dates/index.ts'

export interface WorkingDay {
  day: IsoDate
  minutes: number
}

/** A garden's usual week, and the days that differ from it. */
export interface WorkingPattern {
  /** Minutes of work by weekday, 0 Sunday to 6 Saturday. */
  minutesByWeekday: readonly number[]
  /** Days with other minutes; 0 is a day off. */
  exceptions: Readonly<Record<IsoDate, number>>
}

/** The days with any work in them, from `from` to `to`, both included. */
export function workingDays(pattern: WorkingPattern, from: IsoDate, to: IsoDate): WorkingDay[] {
  const days: WorkingDay[] = []
  for (let day = from; day <= to; day = addDays(day, 1)) {
    const minutes = pattern.exceptions[day] ?? pattern.minutesByWeekday[weekdayOf(day)] ?? 0
    if (minutes > 0) days.push({ day, minutes })
  }
  return days
}
