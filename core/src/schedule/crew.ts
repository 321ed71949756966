import type { Skill } from '../care/index.ts'
import { addDays, weekdayOf, type IsoDate } from '../dates/index.ts'

/** Somebody who works: what they can do and when. */
export interface CrewPerson {
  id: string
  name: string
  skills: readonly Skill[]
  /** Minutes of work by weekday, 0 Sunday to 6 Saturday. */
  minutesByWeekday: readonly number[]
}

/** Days away, both ends included: holidays, illness, work elsewhere. */
export interface CrewAbsence {
  /** Null: the whole crew. */
  personId: string | null
  from: IsoDate
  to: IsoDate
}

/** People who work together, in one garden or in several. */
export interface Crew {
  people: readonly CrewPerson[]
  absences: readonly CrewAbsence[]
  /** Days on which everyone who is not away works other minutes than by the week; 0 is a day lost. */
  days: Readonly<Record<IsoDate, number>>
}

/** A day with who is at work on it. */
export interface WorkingDay {
  day: IsoDate
  /** Person-minutes. */
  minutes: number
  people: { id: string; name: string; minutes: number; skills: readonly Skill[] }[]
}

/** The days on which anyone of a crew works, from `from` to `to`, both included. */
export function workingDays(crew: Crew, from: IsoDate, to: IsoDate): WorkingDay[] {
  const days: WorkingDay[] = []
  for (let day = from; day <= to; day = addDays(day, 1)) {
    const away = new Set(crew.absences.filter((a) => a.from <= day && day <= a.to).map((a) => a.personId))
    if (away.has(null)) continue
    const people = crew.people.flatMap(({ id, name, skills, minutesByWeekday }) => {
      const minutes = away.has(id) ? 0 : (crew.days[day] ?? minutesByWeekday[weekdayOf(day)] ?? 0)
      return minutes > 0 ? [{ id, name, minutes, skills }] : []
    })
    if (people.length > 0) days.push({ day, minutes: people.reduce((sum, p) => sum + p.minutes, 0), people })
  }
  return days
}
