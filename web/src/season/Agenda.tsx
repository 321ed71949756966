import {
  crewEndpoints,
  seasonEndpoints,
  type BodyOf,
  type JobView,
  type Rescheduled,
  type SeasonView,
} from '@border/contract'
import { addDays, counted, dayMonthYear, minutesText, weekdayOf } from '@border/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { momentText, shortDate, shortDayMonth, weekdayName } from '../frame/words.ts'
import { JobLine } from './JobLine.tsx'

/** A day this near can be seen to be lost. */
const LOSABLE_DAYS = 10

interface AgendaProps {
  season: SeasonView
  /** Of its jobs those that are shown. */
  shows: (job: JobView) => boolean
  chosenId: string
  onChoose: (job: JobView) => void
}

/** The working days that have work, each with its load. */
export function Agenda({ season, shows, chosenId, onChoose }: AgendaProps) {
  const open = season.jobs.filter((j) => j.state === 'open')
  const shown = open.filter(shows)
  const days = [...new Set(shown.flatMap((j) => j.parts.map((p) => p.day)))].sort()
  const working = new Map(season.workingDays.map((d) => [d.day, d]))
  const done = season.jobs
    .filter((j) => j.done && shows(j))
    .sort((a, b) => (a.done!.on < b.done!.on ? 1 : -1))
  const unplaced = shown.filter((j) => !j.plannedOn)
  return (
    <div className="agenda">
      {unplaced.length > 0 && (
        <section>
          <h2>Without a day</h2>
          {unplaced.map((j) => (
            <JobLine key={j.id} job={j} chosenId={chosenId} onChoose={onChoose} extra={j.unplaced ?? ''} />
          ))}
        </section>
      )}
      {season.rescheduled && <Moved rescheduled={season.rescheduled} />}
      {days.map((day) => (
        <AgendaDay
          key={day}
          day={day}
          {...{ open, shows }}
          at={working.get(day)}
          chosenId={chosenId}
          onChoose={onChoose}
        />
      ))}
      {season.leftOut.length > 0 && <LeftOut jobs={season.leftOut} />}
      {done.length > 0 && (
        <section>
          <h2>Done</h2>
          {done.map((j) => (
            <JobLine
              key={j.id}
              job={j}
              chosenId={chosenId}
              onChoose={onChoose}
              extra={`${shortDate(j.done!.on)}${j.done!.minutes === null ? '' : `, ${minutesText(j.done!.minutes)}`}`}
            />
          ))}
        </section>
      )}
    </div>
  )
}

/** A day’s work, against the time there is. */
function AgendaDay({
  day,
  open,
  shows,
  at,
  chosenId,
  onChoose,
}: {
  day: string
  open: readonly JobView[]
  at: SeasonView['workingDays'][number] | undefined
} & Pick<AgendaProps, 'shows' | 'chosenId' | 'onChoose'>) {
  const { view, isHead, today } = useGardenContext()
  const lose = useGardenWrite(
    crewEndpoints.setDay,
    { gardenId: view.garden.id },
    ({ day }) => `${dayMonthYear(day)} is a day without work now; Set-up takes it back.`,
    // Whatever was said of the day: rain does not ask.
    () => undefined,
  )
  const sittings = open.flatMap((j) =>
    j.parts.filter((p) => p.day === day).map((p) => ({ job: j, minutes: p.minutes })),
  )
  const used = sittings.reduce((sum, s) => sum + s.minutes, 0)
  const elsewhere = at?.elsewhere ?? 0
  const room = at?.minutes ?? 0
  return (
    <section>
      <div className="spread">
        <h2>
          {weekdayName(weekdayOf(day))} {dayMonthYear(day)}
        </h2>
        <small className="agenda-load">
          {isHead && day <= addDays(today, LOSABLE_DAYS) && (
            <Button size="small" loading={lose.isPending} onClick={() => lose.mutate({ day, minutes: 0 })}>
              Lost to rain
            </Button>
          )}
          <Link to={`../season/day/${day}`}>Job sheet</Link>
          <span className="agenda-bar" aria-hidden>
            <i
              style={{ width: `${Math.min(100, ((used + elsewhere) / Math.max(1, room)) * 100)}%` }}
              className={used + elsewhere > room ? 'over' : ''}
            />
          </span>
          {minutesText(used)}
          {elsewhere > 0 && ` and ${minutesText(elsewhere)} elsewhere or on the way`} of {minutesText(room)}
        </small>
      </div>
      {sittings
        .filter((s) => shows(s.job))
        .map((s) => (
          <JobLine
            key={s.job.id}
            job={s.job}
            chosenId={chosenId}
            onChoose={onChoose}
            extra={minutesText(s.minutes)}
          />
        ))}
    </section>
  )
}

/** Jobs that somebody left out this once. */
function LeftOut({ jobs }: { jobs: SeasonView['leftOut'] }) {
  const { view, isHead } = useGardenContext()
  const takeUp = useGardenWrite(
    seasonEndpoints.leaveOut,
    ({ id }: { id: string } & BodyOf<typeof seasonEndpoints.leaveOut>) => ({
      gardenId: view.garden.id,
      jobId: id,
    }),
    'It is open again.',
    () => ({ state: 'dropped', pinnedOn: null }),
  )
  return (
    <section>
      <h2>Left out</h2>
      <ul className="plain-list">
        {jobs.map((j) => (
          <li key={j.id} className="spread">
            <span>
              {j.title}, until {shortDayMonth(j.latest)}
            </span>
            {isHead && (
              <Button size="small" onClick={() => takeUp.mutate({ id: j.id, leaveOut: false })}>
                Take it up again
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Which plan a person has seen the moves of, on this device. */
const SEEN_PLAN = 'border.seen-plan'

/** What the last change of plan moved, and why: kept with the plan until it is seen. */
function Moved({ rescheduled: { id, at, moved } }: { rescheduled: Rescheduled }) {
  const [seen, setSeen] = useState(() => localStorage.getItem(SEEN_PLAN))
  if (seen === id) return null
  const see = () => {
    localStorage.setItem(SEEN_PLAN, id)
    setSeen(id)
  }
  return (
    <section aria-label="What moved">
      <div className="spread">
        <h2>{counted(moved.length, 'job')} moved, and why</h2>
        <Button size="small" onClick={see}>
          Seen
        </Button>
      </div>
      <p className="soft">When the plan was last brought up to date, {momentText(at)}.</p>
      <ul className="plain-list">
        {moved.map((m) => (
          <li key={m.jobId}>
            {m.title}: {shortDate(m.from)} to {m.to ? shortDate(m.to) : 'no day'}. <small>{m.says}</small>
          </li>
        ))}
      </ul>
    </section>
  )
}
