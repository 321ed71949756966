import { addDays, daysBetween, maxDay, minDay, weekdayOf, type IsoDate } from '../dates/index.ts'
import { dayMonth, listed } from '../words/index.ts'
import type { CareRule, MonthDays } from './rule.ts'
import type { Window } from './windows.ts'

/** One turn of a rule, with the number it has in its season. */
export interface Turn {
  turn: number
  /** Its place among the turns of its window, from 0. */
  nth: number
  window: Window
}

/** Days that the window of a turn is open for after its first, at least. */
const LEAST_TURN_WIDTH = 6
/** Work of a weekday may be done a day or two later. */
const WEEKDAY_DAYS = 2

/** One window, or one for each turn while it is open. */
export function turnsOf(rule: Pick<CareRule, 'everyDays' | 'monthDays'>, window: Window): Turn[] {
  if (rule.monthDays) return byMonthDays(rule.monthDays, window)
  return rule.everyDays ? everyDays(rule.everyDays, window) : [{ turn: 0, nth: 0, window }]
}

function everyDays(every: number, window: Window): Turn[] {
  const turns: Turn[] = []
  // Two turns lie at least half the time apart; but whoever comes once a week always has a day.
  const width = Math.max(LEAST_TURN_WIDTH, Math.floor(every / 2))
  const early = Math.floor(width / 3)
  for (let turn = 0; ; turn++) {
    const due = addDays(window.bestFrom, turn * every)
    if (due > window.bestTo) return turns
    const earliest = maxDay(window.earliest, addDays(due, turn === 0 ? 0 : -early))
    const latest = minDay(window.latest, addDays(due, width - early))
    const bestTo = minDay(latest, addDays(due, Math.ceil(width / 3)))
    turns.push({
      turn,
      nth: turn,
      window: turnWindow(
        window,
        { earliest, due, bestTo, latest },
        {
          earliest:
            turn === 0
              ? window.why.earliest
              : `Not before ${dayMonth(earliest)}: it comes round every ${every} days.`,
          bestFrom: `Best from ${dayMonth(due)}: ${turn === 0 ? 'the first turn' : `${every} days after the last turn`}.`,
        },
      ),
    })
  }
}

const nthWords = ['first', 'second', 'third', 'fourth', 'fifth']
/** By their number in a date: 0 is Sunday. */
export const weekdays = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']

/** `the first and third Saturday of the month` */
export const monthDaysWords = ({ weekday, nths }: MonthDays): string =>
  `the ${listed(nths.toSorted((a, b) => a - b).map((n) => nthWords[n - 1]!))} ${weekdays[weekday]!} of the month`

/** Which of its weekday in its month a day is, from 1. */
export const nthOfMonth = (day: IsoDate): number => Math.ceil(Number(day.slice(8)) / 7)

function byMonthDays(days: MonthDays, window: Window): Turn[] {
  const due: IsoDate[] = []
  for (let day = window.bestFrom; day <= window.bestTo; day = addDays(day, 1))
    if (weekdayOf(day) === days.weekday && days.nths.includes(nthOfMonth(day))) due.push(day)
  const when = `it is done on ${monthDaysWords(days)}`
  return due.map((day, nth): Turn => {
    const next = due[nth + 1]
    const width = next ? Math.max(WEEKDAY_DAYS, Math.floor(daysBetween(day, next) / 2)) : LEAST_TURN_WIDTH
    const latest = minDay(window.latest, addDays(day, width))
    return {
      // The same day of the month has the same number, whichever of them are chosen, and none that a turn by days has.
      turn: 100 * Number(day.slice(5, 7)) + nthOfMonth(day),
      nth,
      window: turnWindow(
        window,
        { earliest: day, due: day, bestTo: minDay(latest, addDays(day, WEEKDAY_DAYS)), latest },
        {
          earliest: `Not before ${dayMonth(day)}: ${when}.`,
          bestFrom: `Best from ${dayMonth(day)}: ${when}.`,
        },
      ),
    }
  })
}

function turnWindow(
  { season }: Window,
  { earliest, due, bestTo, latest }: { earliest: IsoDate; due: IsoDate; bestTo: IsoDate; latest: IsoDate },
  why: Pick<Window['why'], 'earliest' | 'bestFrom'>,
): Window {
  return {
    season,
    earliest,
    bestFrom: maxDay(earliest, due),
    bestTo: maxDay(due, bestTo),
    latest: maxDay(latest, bestTo),
    why: {
      ...why,
      bestTo: `Best until ${dayMonth(bestTo)}: before it runs into the next turn.`,
      latest: `Not after ${dayMonth(latest)}: the next turn takes its place.`,
    },
  }
}
