import { seasonEndpoints, type JobView, type SeasonView } from '@border/contract'
import {
  addDays,
  counted,
  dayMonthYear,
  daysBetween,
  forbiddenWords,
  listed,
  minutesText,
  weekdayOf,
} from '@border/core'
import { Alert } from 'antd'
import { useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { materialText, shortDate, weekdayName } from '../frame/words.ts'
import { StepOf } from '../rework/OfScheme.tsx'
import { DayChooser } from './DayChooser.tsx'
import { placesText } from './dayWork.ts'
import { Recording } from './Recording.tsx'
import { useCalled } from '../frame/KindName.tsx'

interface Props {
  job: JobView
  season: SeasonView
  onChoose: (job: JobView) => void
}

/** One job: cautions first, when and why then, what it takes, and recording it done. */
export function JobPanel({ job, season, onChoose }: Props) {
  const called = useCalled()
  const { view, isCrew, isHead } = useGardenContext()
  const leaveOut = useGardenWrite(
    seasonEndpoints.leaveOut,
    { gardenId: view.garden.id, jobId: job.id },
    'Left out; it can be taken up again under “Left out” in the season.',
    () => ({ state: job.state, pinnedOn: job.pinnedOn }),
  )
  const nameOf = usePlaceName()
  const waitsFor = job.after.flatMap((id) => season.jobs.find((j) => j.id === id) ?? [])
  const blocking = waitsFor.filter((j) => j.state === 'open')
  return (
    <div className="stack job-panel">
      <div>
        <h2>{called(job.title)}</h2>
        <p className="soft">
          {placesText(job.placeIds, nameOf)}
          {!job.isPast && `${job.placeId ? ', ' : ''}about ${minutesText(job.minutes)}`}
        </p>
        <Plantings job={job} />
        {job.schemeId && <StepOf schemeId={job.schemeId} />}
      </div>
      {job.done && <Done job={job} done={job.done} />}
      {job.cautions.length > 0 && <Cautions cautions={job.cautions} />}
      {!job.isPast && <When job={job} />}
      {blocking.length > 0 && (
        <p>
          Waits for{' '}
          {blocking.map((b) => (
            <Button key={b.id} look="link" size="small" className="inline-link" onClick={() => onChoose(b)}>
              {b.title}
            </Button>
          ))}
        </p>
      )}
      {job.state === 'open' && isCrew && blocking.length === 0 && (
        <Recording job={job} label="Record it done" primary />
      )}
      {job.state === 'open' && isHead && (job.ruleId ?? job.schemeId) !== null && (
        <div>
          <Button
            size="small"
            loading={leaveOut.isPending}
            onClick={() => leaveOut.mutate({ leaveOut: true })}
          >
            Leave it out this once
          </Button>
        </div>
      )}
      <How job={job} />
    </div>
  )
}

/** What was recorded of it, and that it was a mistake. */
function Done({ job, done }: { job: JobView; done: NonNullable<JobView['done']> }) {
  const { view, isCrew } = useGardenContext()
  const takeBack = useGardenWrite(
    seasonEndpoints.takeBackDone,
    { gardenId: view.garden.id, jobId: job.id },
    job.isPast ? 'Taken back.' : 'Taken back; it is open again.',
  )
  return (
    <>
      <p>
        <b>Done {dayMonthYear(done.on)}</b> by {done.by}
        {done.minutes !== null && ` in ${minutesText(done.minutes)}`}
        {done.lived !== null && `, ${done.lived} alive`}.{' '}
        {done.used && `Used ${listed(done.used.map(materialText))}.`}
        {done.note && <span translate="no"> {done.note}</span>}
      </p>
      {isCrew && (
        <div>
          <Button size="small" loading={takeBack.isPending} onClick={() => takeBack.mutate({})}>
            Recorded by mistake: take it back
          </Button>
        </div>
      )}
    </>
  )
}

const Cautions = ({ cautions }: Pick<JobView, 'cautions'>) => (
  <Alert
    type="warning"
    title="Before you start"
    description={
      <ul className="plain-list">
        {cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
    }
  />
)

/** Its steps, what is taken along, and why it is done. */
function How({ job }: { job: JobView }) {
  const along = [...job.materials.map(materialText), ...job.tools]
  return (
    <>
      <section>
        <h3>Steps</h3>
        <ol className="plain-list">
          {job.steps.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ol>
        {job.forbids.length > 0 && (
          <p className="soft">Never {listed(job.forbids.map((f) => forbiddenWords[f]))}.</p>
        )}
      </section>
      {along.length > 0 && (
        <section>
          <h3>Take along</h3>
          <p>{along.join(', ')}</p>
        </section>
      )}
      {job.why && (
        <section>
          <h3>Why</h3>
          <p>{job.why}</p>
          {job.school && <p>{job.school}</p>}
          {job.missed && <p className="soft">If it is missed: {job.missed}</p>}
        </section>
      )}
    </>
  )
}

const SHOWN = 6

/** What it is done to, each with the way to its story. */
function Plantings({ job }: { job: JobView }) {
  const { search } = useLocation()
  const [all, setAll] = useState(false)
  const shown = all ? job.plantingIds.length : SHOWN
  if (job.plantingIds.length === 0) return null
  return (
    <p className="job-tags">
      {job.plantingIds.slice(0, shown).map((id, i) => (
        <Link key={id} to={{ pathname: `../plants/${id}`, search }}>
          {i === 0 && (job.plantingIds.length === 1 ? 'Tag ' : 'Tags ')}
          {job.tags[i]}
        </Link>
      ))}
      {job.plantingIds.length > shown && (
        <Button look="link" size="small" className="inline-link" onClick={() => setAll(true)}>
          and {job.plantingIds.length - shown} more
        </Button>
      )}
    </p>
  )
}

/** The window with the sentence behind each date, and the day it stands on. */
function When({ job }: { job: JobView }) {
  const { today } = useGardenContext()
  const w = job.window
  if (job.state !== 'open') return null
  const parts = job.parts.length
  return (
    <section className="job-when">
      <h3>
        {job.plannedOn
          ? `${weekdayName(weekdayOf(job.plannedOn))} ${dayMonthYear(job.plannedOn)}`
          : 'No day yet'}
        {job.pinnedOn && ', pinned'}
      </h3>
      {parts > 1 && (
        <p>
          In {counted(parts, 'sitting')}:{' '}
          {listed(job.parts.map((p) => `${shortDate(p.day)} (${minutesText(p.minutes)})`))}.
        </p>
      )}
      {job.unplaced && <p className="late">{job.unplaced}</p>}
      {job.unsure && <p className="unsure">{job.unsure}</p>}
      <p>
        Window {shortDate(w.earliest)} to {shortDate(w.latest)}
        {w.earliest > today
          ? `, opens in ${counted(daysBetween(today, w.earliest), 'day')}`
          : w.latest >= today && `, closes in ${counted(daysBetween(today, w.latest), 'day')}`}
        .{' '}
        {job.nextChance &&
          job.nextChance > addDays(w.latest, 1) &&
          `After that it is too late until ${dayMonthYear(job.nextChance)}.`}
      </p>
      <ul className="plain-list soft-list">
        <li>{w.why.earliest}</li>
        <li>{w.why.bestFrom}</li>
        <li>{w.why.bestTo}</li>
        <li>{w.why.latest}</li>
      </ul>
      <DayChooser key={job.id} job={job} />
    </section>
  )
}
