import { seasonEndpoints, type ScheduleRunView, type SeasonView } from '@border/contract'
import { counted, dayMonthYear } from '@border/core'
import { Progress } from 'antd'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import { useScheduleRun } from './queries.ts'

/** Asking for the season's plan. */
export function ScheduleButton() {
  const { view } = useGardenContext()
  const { data } = useScheduleRun(view.garden.id)
  const start = useGardenWrite(
    seasonEndpoints.schedule,
    { gardenId: view.garden.id },
    'The season is being planned.',
  )
  const underWay = data?.run?.state === 'queued' || data?.run?.state === 'running'
  return (
    <Button look="primary" loading={start.isPending} disabled={underWay} onClick={() => start.mutate({})}>
      Plan the season
    </Button>
  )
}

/** A plan that is being worked out, or lies ready to be looked at before it is taken. */
export function ScheduleRun({ season }: { season: SeasonView }) {
  const { view, isHead } = useGardenContext()
  const { data } = useScheduleRun(view.garden.id)
  const answer = useGardenWrite(
    seasonEndpoints.takeSchedule,
    { gardenId: view.garden.id, runId: data?.run?.id ?? '' },
    ({ take }) => (take ? 'The season is planned so.' : 'Left as it was.'),
  )
  const run = data?.run
  if (!isHead || !run) return null
  if (run.state === 'failed') return <p role="alert">{run.failure} Plan the season again.</p>
  if (run.state === 'queued' || run.state === 'running')
    return <UnderWay run={run} onStop={() => answer.mutate({ take: false })} />
  if (run.state !== 'ready' || !run.result) return null
  return (
    <section className="plan-run" aria-label="The plan proposed">
      <div className="spread">
        <h2>The plan proposed</h2>
        <span className="row">
          <Button look="primary" loading={answer.isPending} onClick={() => answer.mutate({ take: true })}>
            Take this plan
          </Button>
          <Button onClick={() => answer.mutate({ take: false })}>Keep the plan as it was</Button>
        </span>
      </div>
      <Summary plan={run.result} season={season} />
      {run.movedElsewhere > 0 && (
        <p>{counted(run.movedElsewhere, 'job')} of the crew’s other gardens would move too.</p>
      )}
    </section>
  )
}

function UnderWay({ run, onStop }: { run: ScheduleRunView; onStop: () => void }) {
  return (
    <section className="plan-run" aria-label="Planning">
      <div className="row">
        <Progress
          percent={Math.round(100 * run.progress)}
          style={{ width: 220 }}
          aria-label="Planning the season"
        />
        <Button size="small" onClick={onStop}>
          Stop
        </Button>
      </div>
      <small>Care is brought up to date and every job tried on every day it could be on.</small>
    </section>
  )
}

const MOST_LISTED = 8

function Summary({ plan, season }: { plan: NonNullable<ScheduleRunView['result']>; season: SeasonView }) {
  const titleOf = (id: string) => season.jobs.find((j) => j.id === id)?.title ?? 'A new job'
  const now = new Map(season.jobs.map((j) => [j.id, j.plannedOn]))
  const fresh = plan.placed.filter((p) => !now.get(p.id)).length
  const visits = new Set(plan.placed.flatMap((p) => p.parts.map((x) => x.day))).size
  return (
    <>
      <p>
        {counted(plan.placed.length, 'job')} on {counted(visits, 'day')},{' '}
        {plan.placed.filter((p) => p.inBest).length} in their best weeks.{' '}
        {fresh > 0 && `${counted(fresh, 'job')} had no day before. `}
        {plan.unplaced.length > 0 && `${counted(plan.unplaced.length, 'job')} cannot be fitted in.`}
      </p>
      {plan.moved.length > 0 && (
        <>
          <h3>What moves, and why</h3>
          <ul className="plain-list">
            {plan.moved.slice(0, MOST_LISTED).map((m) => (
              <li key={m.id}>
                {titleOf(m.id)}: {shortDate(m.from)} to {m.to ? shortDate(m.to) : 'no day'}.{' '}
                <small>{m.says}</small>
              </li>
            ))}
          </ul>
          {plan.moved.length > MOST_LISTED && <small>and {plan.moved.length - MOST_LISTED} more.</small>}
        </>
      )}
      {plan.unplaced.length > 0 && (
        <>
          <h3>What cannot be fitted in</h3>
          <ul className="plain-list">
            {plan.unplaced.slice(0, MOST_LISTED).map((u) => (
              <li key={u.id}>
                {titleOf(u.id)}
                {u.shortMinutes > 0 && `: ${u.shortMinutes} minutes short`}
                {u.nextChance && `; next chance from ${dayMonthYear(u.nextChance)}`}
              </li>
            ))}
          </ul>
          {plan.unplaced.length > MOST_LISTED && (
            <small>and {plan.unplaced.length - MOST_LISTED} more.</small>
          )}
        </>
      )}
    </>
  )
}
