import type { JobView, SeasonView } from '@border/contract'
import { addDays, isIsoDate, minutesText, weekdayOf, type IsoDate } from '@border/core'
import { sum } from 'd3-array'
import { useParam } from '../frame/address.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { ownWeekStart } from '../units/ownUnits.ts'
import { shortDayMonth, weekdayName } from '../frame/words.ts'
import { JobLine } from './JobLine.tsx'

/** The Monday of a day's week. */
export const weekFrom = (day: IsoDate, start: 0 | 1): IsoDate =>
  addDays(day, -((weekdayOf(day) - start + 7) % 7))

const DAYS = [0, 1, 2, 3, 4, 5, 6] as const

/** One week of work, day by day, each by the places that one goes to. */
export function WeekPlan({
  season,
  jobs,
  chosenId,
  onChoose,
}: {
  season: SeasonView
  /** Those that are shown. */
  jobs: readonly JobView[]
  chosenId: string
  onChoose: (job: JobView) => void
}) {
  const { today } = useGardenContext()
  const nameOf = usePlaceName()
  const [said, say] = useParam('week')
  const start = ownWeekStart()
  const from = weekFrom(said && isIsoDate(said) ? said : today, start)
  const go = (weeks: number) => {
    const to = addDays(from, 7 * weeks)
    say(to === weekFrom(today, start) ? undefined : to)
  }
  const open = jobs.filter((j) => j.state === 'open')
  return (
    <section aria-label="The week">
      <div className="row">
        <Button size="small" aria-label="The week before" onClick={() => go(-1)}>
          ‹
        </Button>
        <h2>
          {shortDayMonth(from)} to {shortDayMonth(addDays(from, 6))}
        </h2>
        <Button size="small" aria-label="The week after" onClick={() => go(1)}>
          ›
        </Button>
        {said && (
          <Button size="small" look="text" onClick={() => say(undefined)}>
            This week
          </Button>
        )}
      </div>
      <ul className="week-days">
        {DAYS.map((i) => {
          const day = addDays(from, i)
          const at = season.workingDays.find((d) => d.day === day)
          const here = open.filter((j) => j.parts.some((p) => p.day === day))
          const minutesOf = (j: JobView) =>
            sum(
              j.parts.filter((p) => p.day === day),
              (p) => p.minutes,
            )
          return (
            <li key={day} className={day === today ? 'week-day today' : 'week-day'}>
              <h3>
                {weekdayName(weekdayOf(day))} {shortDayMonth(day)}
              </h3>
              <small className="soft">{loadWords(sum(here, minutesOf), at)}</small>
              {here
                .toSorted((a, b) => (nameOf(a.placeId, '') < nameOf(b.placeId, '') ? -1 : 1))
                .map((j) => (
                  <JobLine
                    key={j.id}
                    job={j}
                    chosenId={chosenId}
                    onChoose={onChoose}
                    extra={`${nameOf(j.placeId, 'several places')}, ${minutesText(minutesOf(j))}`}
                  />
                ))}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

/** `2 h 10 min of 7 h, Marla Quill`; a day without work says so. */
function loadWords(minutes: number, at: SeasonView['workingDays'][number] | undefined): string {
  if (!at) return minutes > 0 ? `${minutesText(minutes)}, on no working day` : 'no working day'
  if (minutes === 0) return `nothing planned; ${at.people.join(', ')}`
  return `${minutesText(minutes)} of ${minutesText(at.minutes)}; ${at.people.join(', ')}`
}
