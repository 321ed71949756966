import { dayMonth, daysBetween, yearOf, type IsoDate } from '@border/core'
import './weekSlider.css'

/** Weeks of a year count from 0. */
export const LAST_WEEK = 51

/** The week of the year that a day lies in, from 0; what is over at its end belongs to the last. */
export const weekOf = (day: IsoDate): number =>
  Math.min(LAST_WEEK, Math.floor(daysBetween(`${yearOf(day)}-01-01`, day) / 7))

/** The week of the year, by a slider. @param on the day that stands for it */
export const WeekSlider = ({
  week,
  on,
  onWeek,
}: {
  week: number
  on: IsoDate
  onWeek: (week: string) => void
}) => (
  <label className="week-slider">
    <input
      type="range"
      min={0}
      max={LAST_WEEK}
      value={week}
      aria-label="Week of the year"
      aria-valuetext={`week of ${dayMonth(on)}`}
      onChange={(e) => onWeek(e.target.value)}
    />
    <b>{dayMonth(on)}</b>
  </label>
)
