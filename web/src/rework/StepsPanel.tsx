import {
  reworkEndpoints,
  type JobView,
  type ReworkView,
  type SchemeView,
  type StepsView,
} from '@border/contract'
import { capitalised, counted, dayMonthYear, minutesText, stepStages, type StepStage } from '@border/core'
import { max, min, sum } from 'd3-array'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { searchWith } from '../frame/address.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import { useSeason } from '../season/queries.ts'
import { Recording } from '../season/Recording.tsx'
import { useSteps } from './queries.ts'
import { Held } from './Held.tsx'
import { progressWords } from './reworkWords.ts'
import { WindowBar, WindowScale } from './WindowBar.tsx'
import '../season/season.css'
import './rework.css'

interface Props {
  rework: ReworkView
  scheme: SchemeView
  /** Its last change is on the way: what follows from it is not known yet. */
  isKeeping: boolean
  onChoose: (driftId: string | undefined) => void
}

/** What carrying a scheme out comes to, step by step; and, once it is accepted, how far it has come. */
export const StepsPanel = (props: Props) =>
  props.scheme.accepted ? <UnderWay {...props} /> : <Ahead {...props} />

const stageWords: Record<StepStage, string> = {
  'make room': 'Make room',
  'make ready': 'Make the ground ready',
  plant: 'Set out and plant',
  'look after': 'Look after it',
}

function Ahead({ rework, scheme, isKeeping, onChoose }: Props) {
  const { view, isHead } = useGardenContext()
  const { id: gardenId } = view.garden
  const steps = useSteps(gardenId, rework.id, scheme)
  const accept = useGardenWrite(
    reworkEndpoints.acceptScheme,
    { gardenId, reworkId: rework.id, schemeId: scheme.id },
    'It is in the season now, step by step.',
  )
  const other = rework.schemes.find((s) => s.accepted && s.id !== scheme.id)
  return (
    <Answered of={[steps]} waiting="Windows are worked out…">
      {(found) =>
        found.ok ? (
          <div className="stack">
            <Told found={found} />
            {isHead && !other && found.steps.length > 0 && (
              <div>
                <Button
                  look="primary"
                  loading={accept.isPending}
                  disabled={isKeeping}
                  onClick={() => accept.mutate({ revisionId: scheme.revisionId })}
                >
                  Carry it out
                </Button>
                <p className="soft">
                  Each step becomes a job of the season, put on a day with the rest of the work. The scheme is
                  fixed from then on; called off, what is not done yet is dropped and what is done stays done.
                </p>
              </div>
            )}
            {other && (
              <p className="soft">
                {other.said.name} of this place is {progressWords(other)}. Call it off first to carry out this
                one.
              </p>
            )}
            <StageLists
              rows={found.steps.map((s) => ({
                ...s,
                id: s.key,
                note: minutesText(s.minutes),
                onChoose: s.driftId ? () => onChoose(s.driftId!) : undefined,
              }))}
            />
          </div>
        ) : (
          <>
            <p>It cannot be carried out so:</p>
            <ul className="plain-list late">
              {found.problems.map((p) => (
                <li key={p}>{p}</li>
              ))}
            </ul>
          </>
        )
      }
    </Answered>
  )
}

/** When it is planted and why then, and what it comes to. */
function Told({ found: { steps, turns } }: { found: Extract<StepsView, { ok: true }> }) {
  if (steps.length === 0)
    return <p className="soft">Nothing leaves and nothing comes in: there is nothing to do.</p>
  const from = min(steps, (s) => s.window.earliest)!
  const until = max(steps, (s) => s.window.latest)!
  return (
    <>
      <p>
        <b>
          {counted(steps.length, 'step')}, {minutesText(sum(steps, (s) => s.minutes))} of work
        </b>
        , {dayMonthYear(from)} to {dayMonthYear(until)}.
      </p>
      {turns.map((t) => (
        <p key={t.says}>{t.says}</p>
      ))}
    </>
  )
}

function UnderWay({ rework, scheme }: Props) {
  const { view, isHead } = useGardenContext()
  const { id: gardenId } = view.garden
  const callOff = useGardenWrite(
    reworkEndpoints.callOffScheme,
    { gardenId, reworkId: rework.id, schemeId: scheme.id },
    'Called off. What is done stays done.',
  )
  return (
    <Answered of={[useSeason(gardenId)]}>
      {({ jobs }) => {
        const own = inOrder(jobs.filter((j) => j.schemeId === scheme.id))
        const isBlocked = (job: JobView) =>
          job.after.some((id) => own.some((j) => j.id === id && j.state === 'open'))
        const next = own.find((j) => j.state === 'open' && !isBlocked(j))
        return (
          <div className="stack">
            <p>
              <b>{capitalised(progressWords(scheme))}.</b>
              {scheme.accepted!.by && ` Accepted by ${scheme.accepted!.by}.`}
            </p>
            {next && <Next job={next} />}
            <WithoutDay jobs={own} />
            <Held jobs={own} />
            <StageLists
              rows={own.map((j) => ({
                ...j,
                stage: j.stage ?? 'make room',
                note: j.done
                  ? `✓ ${shortDate(j.done.on)}${j.sets && j.done.lived !== null && j.done.lived !== j.sets.count ? `, ${j.done.lived} of ${j.sets.count}` : ''}`
                  : j.plannedOn
                    ? shortDate(j.plannedOn)
                    : minutesText(j.minutes),
                isDone: j.state === 'done',
                jobId: j.id,
              }))}
            />
            {isHead && scheme.steps.open > 0 && (
              <div>
                <Button
                  size="small"
                  look="text"
                  danger
                  loading={callOff.isPending}
                  onClick={() => callOff.mutate({})}
                >
                  Call it off
                </Button>
              </div>
            )}
          </div>
        )
      }}
    </Answered>
  )
}

/** What has no day in the season, with the first reason: what only waits for that follows it. */
function WithoutDay({ jobs }: { jobs: readonly JobView[] }) {
  const without = jobs.filter((j) => j.state === 'open' && j.unplaced)
  const ids = new Set(without.map((j) => j.id))
  const first = without.find((j) => !j.after.some((id) => ids.has(id)))
  if (!first) return null
  return (
    <p className="late" role="status">
      {without.length === 1 ? 'One step has' : `${counted(without.length, 'step')} have`} no day in the
      season. {first.title}: {first.unplaced} Make time for it before anything is lifted.
    </p>
  )
}

/** What can be done next, and recorded here. */
function Next({ job }: { job: JobView }) {
  const { isCrew } = useGardenContext()
  return (
    <section className="rework-next">
      <h3>Next: {job.title}</h3>
      <p className="soft">
        {job.plannedOn ? `Planned for ${dayMonthYear(job.plannedOn)}; its window` : 'Its window'} is{' '}
        {shortDate(job.window.earliest)} to {shortDate(job.window.latest)}.
      </p>
      {isCrew && <Recording key={job.id} job={job} label="Record it done" />}
    </section>
  )
}

/** Jobs in an order in which each comes after what it waits for, what is done first. */
function inOrder(jobs: readonly JobView[]): JobView[] {
  const placed: JobView[] = []
  const has = new Set<string>()
  const own = new Set(jobs.map((j) => j.id))
  let left = jobs.toSorted((a, b) => (a.window.earliest < b.window.earliest ? -1 : 1))
  while (left.length > 0) {
    const ready = left.filter((j) => j.after.every((id) => has.has(id) || !own.has(id)))
    const taken = ready.length > 0 ? ready : left
    taken.forEach((j) => has.add(j.id))
    placed.push(...taken)
    left = left.filter((j) => !has.has(j.id))
  }
  return placed
}

interface Row {
  id: string
  stage: StepStage
  title: string
  window: JobView['window']
  note: string
  isDone?: boolean
  jobId?: string
  onChoose?: (() => void) | undefined
}

/** Steps by the part of the work they belong to, each with its window on one scale of time. */
function StageLists({ rows }: { rows: readonly Row[] }) {
  const { today } = useGardenContext()
  const { search } = useLocation()
  if (rows.length === 0) return null
  const from = min([today, ...rows.map((r) => r.window.earliest)])!
  const until = max(rows, (r) => r.window.latest)!
  return (
    <>
      <WindowScale from={from} until={until} />
      {stepStages.map((stage) => {
        const own = rows.filter((r) => r.stage === stage)
        return (
          own.length > 0 && (
            <section key={stage} aria-label={stageWords[stage]}>
              <h3>{stageWords[stage]}</h3>
              <ul className="step-list">
                {own.map((r) => (
                  <li key={r.id} className={r.isDone ? 'step done' : 'step'}>
                    {r.jobId ? (
                      <Link
                        to={{
                          pathname: '../season',
                          search: searchWith(search, {
                            job: r.jobId,
                            scheme: undefined,
                            part: undefined,
                            as: undefined,
                          }),
                        }}
                      >
                        {r.title}
                      </Link>
                    ) : r.onChoose ? (
                      <Button look="link" size="small" className="inline-link" onClick={r.onChoose}>
                        {r.title}
                      </Button>
                    ) : (
                      <span>{r.title}</span>
                    )}
                    <small translate="no">{r.note}</small>
                    <WindowBar window={r.window} from={from} until={until} isDone={r.isDone === true} />
                  </li>
                ))}
              </ul>
            </section>
          )
        )
      })}
    </>
  )
}
