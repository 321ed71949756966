import {
  addDays,
  daysBetween,
  monthName,
  monthOf,
  yearOf,
  isoDate,
  type IsoDate,
  type Window,
} from '@border/core'
import { shortDate } from '../frame/words.ts'

const share = (day: IsoDate, from: IsoDate, until: IsoDate): number =>
  (100 * daysBetween(from, day)) / Math.max(1, daysBetween(from, until))

/** First days of months from one day to another, of which no more are named than can be read. */
function monthsBetween(from: IsoDate, until: IsoDate, most: number): { day: IsoDate; name: string }[] {
  const days: IsoDate[] = []
  for (let y = yearOf(from), m = monthOf(from) + 1; ; m++) {
    if (m > 12) {
      m = 1
      y++
    }
    const day = isoDate(y, m, 1)
    if (day > until) break
    days.push(day)
  }
  const every = Math.ceil(days.length / most)
  return days.flatMap((day, i) => {
    const name = monthName(day).slice(0, 3)
    return i % every === 0 ? [{ day, name: monthOf(day) <= every ? `${name} ${yearOf(day)}` : name }] : []
  })
}

/** So many months are named side by side. */
const MOST_NAMED = 7

/** The months above bars of windows. */
export const WindowScale = ({ from, until }: { from: IsoDate; until: IsoDate }) => (
  <div className="window-scale" aria-hidden>
    {monthsBetween(from, until, MOST_NAMED).map(({ day, name }) => (
      <span key={day} style={{ left: `${share(day, from, until)}%` }}>
        {name}
      </span>
    ))}
  </div>
)

/** A window on a scale of time: open as a light bar, at its best as a dark one. */
export function WindowBar({
  window: w,
  from,
  until,
  isDone,
}: {
  window: Window
  from: IsoDate
  until: IsoDate
  isDone: boolean
}) {
  const at = (a: IsoDate, b: IsoDate) => {
    const left = share(a, from, until)
    return { left: `${left}%`, width: `${Math.max(0.6, share(addDays(b, 1), from, until) - left)}%` }
  }
  const says = `${shortDate(w.earliest)} to ${shortDate(w.latest)}, best ${shortDate(w.bestFrom)} to ${shortDate(w.bestTo)}`
  return (
    <span className={isDone ? 'window-bar done' : 'window-bar'} role="img" aria-label={says} title={says}>
      <i style={at(w.earliest, w.latest)} />
      <b style={at(w.bestFrom, w.bestTo)} />
    </span>
  )
}
