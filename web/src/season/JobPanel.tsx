import type { JobRecord, SeasonView } from '@border/contract'
import { dayMonthYear, daysBetween, weekdayOf } from '@border/core'
import { Alert, Button, Select } from 'antd'
import { useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/queries.ts'
import { useGardenContext } from '../frame/GardenFrame.tsx'
import { minutesText, shortDate, weekdayName } from '../frame/words.ts'
import { DoneForm } from './DoneForm.tsx'

interface Props {
  job: JobRecord
  season: SeasonView
  onChoose: (job: JobRecord) => void
}

/** One job: cautions first, when and why then, what it takes, and recording it done. */
export function JobPanel({ job, season, onChoose }: Props) {
  const { view, isCrew, isHead } = useGardenContext()
  const { search } = useLocation()
  const [recording, setRecording] = useState(false)
  const takeBack = useGardenWrite<object>(
    view.garden.id,
    () => `/jobs/${job.id}/take-back`,
    'Taken back; it is open again.',
  )
  const waitsFor = job.after.flatMap((id) => season.jobs.find((j) => j.id === id) ?? [])
  const blocking = waitsFor.filter((j) => j.state === 'open')
  return (
    <div className="stack job-panel">
      <div>
        <h2>{job.title}</h2>
        <p className="soft">
          <Link to={{ pathname: `../plants/${job.plantingId}`, search }}>Tag {job.plantingTag}</Link>, about{' '}
          {minutesText(job.minutes)}
        </p>
      </div>
      {job.done && (
        <>
          <p>
            <b>Done {dayMonthYear(job.done.on)}</b> by {job.done.by} in {minutesText(job.done.minutes)}
            {job.done.lived !== null && `, ${job.done.lived} alive`}.{job.done.note && ` ${job.done.note}`}
          </p>
          {isCrew && (
            <div>
              <Button size="small" loading={takeBack.isPending} onClick={() => takeBack.mutate({})}>
                Recorded by mistake: take it back
              </Button>
            </div>
          )}
        </>
      )}
      {job.cautions.length > 0 && (
        <Alert
          type="warning"
          title="Before you start"
          description={
            <ul className="plain-list">
              {job.cautions.map((c) => (
                <li key={c}>{c}</li>
              ))}
            </ul>
          }
        />
      )}
      <When job={job} season={season} canPin={isHead} gardenId={view.garden.id} />
      {blocking.length > 0 && (
        <p>
          Waits for{' '}
          {blocking.map((b) => (
            <Button key={b.id} type="link" size="small" className="inline-link" onClick={() => onChoose(b)}>
              {b.title}
            </Button>
          ))}
        </p>
      )}
      {job.state === 'open' && isCrew && blocking.length === 0 && (
        <>
          {recording ? (
            <DoneForm job={job} onClose={() => setRecording(false)} />
          ) : (
            <Button type="primary" onClick={() => setRecording(true)}>
              Record it done
            </Button>
          )}
        </>
      )}
      <section>
        <h3>Steps</h3>
        <ol className="plain-list">
          {job.steps.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ol>
      </section>
      {(job.materials.length > 0 || job.tools.length > 0) && (
        <section>
          <h3>Take along</h3>
          <p>{[...job.materials.map((m) => `${m.amount} ${m.unit} ${m.name}`), ...job.tools].join(', ')}</p>
        </section>
      )}
    </div>
  )
}

/** The window with the sentence behind each date, and the day it stands on. */
function When({
  job,
  season,
  canPin,
  gardenId,
}: {
  job: JobRecord
  season: SeasonView
  canPin: boolean
  gardenId: string
}) {
  const { today } = useGardenContext()
  const pin = useGardenWrite<{ day: string | null }>(
    gardenId,
    () => `/jobs/${job.id}/pin`,
    ({ day }) => (day ? `Pinned to ${dayMonthYear(day)}.` : 'Free to be moved again.'),
  )
  const w = job.window
  const choices = season.workingDays.filter((d) => d.day >= w.earliest && d.day <= w.latest)
  if (job.state !== 'open') return null
  return (
    <section className="job-when">
      <h3>
        {job.plannedOn
          ? `${weekdayName(weekdayOf(job.plannedOn))} ${dayMonthYear(job.plannedOn)}`
          : 'No day yet'}
      </h3>
      {job.unplaced && <p className="late">{job.unplaced}</p>}
      <p>
        Window {shortDate(w.earliest)} to {shortDate(w.latest)}
        {w.earliest > today
          ? `, opens in ${daysBetween(today, w.earliest)} days`
          : w.latest >= today && `, closes in ${daysBetween(today, w.latest)} days`}
        .
      </p>
      <ul className="plain-list soft-list">
        <li>{w.why.earliest}</li>
        <li>{w.why.bestFrom}</li>
        <li>{w.why.bestTo}</li>
        <li>{w.why.latest}</li>
      </ul>
      {canPin && (
        <div className="row">
          <Select
            // A refused day must not go on standing in the field.
            key={`${pin.submittedAt} ${pin.status}`}
            aria-label="Do it on"
            placeholder="Do it on…"
            value={job.pinned ? job.plannedOn : undefined}
            loading={pin.isPending}
            onChange={(day) => pin.mutate({ day })}
            options={choices.map((d) => ({
              value: d.day,
              label: `${weekdayName(weekdayOf(d.day))} ${shortDate(d.day)}${d.day >= w.bestFrom && d.day <= w.bestTo ? ', best' : ''}`,
            }))}
            style={{ minWidth: 190 }}
          />
          {job.pinned && (
            <Button size="small" onClick={() => pin.mutate({ day: null })}>
              Unpin
            </Button>
          )}
        </div>
      )}
    </section>
  )
}
