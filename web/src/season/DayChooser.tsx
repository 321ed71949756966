import { seasonEndpoints, type JobView } from '@border/contract'
import { dayMonthYear, type DayChoice, type WhyHere } from '@border/core'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import { useWhyHere } from './queries.ts'
import { DayStrip } from './DayStrip.tsx'

/** Why a job is on its day, what other days would cost or what is against them, and putting it on one of them. */
export function DayChooser({ job }: { job: JobView }) {
  const { view } = useGardenContext()
  return (
    <Answered of={[useWhyHere(view.garden.id, job.id)]}>{(why) => <DaysOf job={job} why={why} />}</Answered>
  )
}

function DaysOf({ job, why }: { job: JobView; why: WhyHere }) {
  const { view, isHead } = useGardenContext()
  const pin = useGardenWrite(
    seasonEndpoints.pin,
    { gardenId: view.garden.id, jobId: job.id },
    ({ day }) => (day ? `Pinned to ${dayMonthYear(day)}.` : 'Free to be moved again.'),
    () => ({ state: job.state, pinnedOn: job.pinnedOn }),
  )
  return (
    <div className="stack">
      {why.chosen && (
        <details className="why-here">
          <summary>Why on this day?</summary>
          <ul className="plain-list">
            {why.chosen.terms.map((t) => (
              <li key={t.says}>
                {t.says} <small>{t.cost === 0 ? '' : `${t.cost} points`}</small>
              </li>
            ))}
          </ul>
          {why.runnerUp && (
            <p>
              Next best is {shortDate(why.runnerUp.day)}: {difference(why.runnerUp.more)}. {why.runnerUp.says}
            </p>
          )}
          <p className="soft">
            Points count against a day: away from the best weeks, weather that does not suit, a visit of its
            own, having been moved. The plan as a whole has as few as could be found.
          </p>
        </details>
      )}
      {isHead && (
        <>
          <DayStrip
            key={job.plannedOn}
            days={why.days}
            window={job.window}
            plannedOn={job.plannedOn}
            label="Do it on"
            says={against}
            onChoose={(day) => pin.mutate({ day })}
          />
          {job.pinnedOn && (
            <Button size="small" onClick={() => pin.mutate({ day: null })}>
              Unpin
            </Button>
          )}
        </>
      )}
    </div>
  )
}

const difference = (more: number) =>
  more > 0
    ? `${more} points worse`
    : more === 0
      ? 'just as good'
      : `${-more} points better alone, but others would lose by it`

const against = (d: DayChoice): string =>
  d.isFree
    ? d.cost === 0
      ? 'nothing against it'
      : `${d.cost} points`
    : d.says.replace(/\.$/, '').toLowerCase()
