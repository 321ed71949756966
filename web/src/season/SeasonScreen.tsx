import { seasonEndpoints, type JobView, type SeasonView } from '@border/contract'
import { counted, minutesText } from '@border/core'
import { Modal } from 'antd'
import { useState } from 'react'
import { Link } from 'react-router'
import { useIsBehind } from '../api/answers.ts'
import { hrefOf } from '../api/client.ts'
import { useChosen, useParam } from '../frame/address.ts'
import { Button, ButtonLink } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { SimulatedNote } from '../frame/Simulated.tsx'
import { Answered, Empty } from '../frame/Answered.tsx'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { Segments } from '../frame/Segments.tsx'
import { useSeason } from './queries.ts'
import { PastWork } from './PastWork.tsx'
import { Agenda } from './Agenda.tsx'
import { JobPanel } from './JobPanel.tsx'
import './season.css'
import { ScheduleButton, ScheduleRun } from './ScheduleRun.tsx'
import { JobFilters, passes, useJobFilter } from './JobFilter.tsx'
import { WeekPlan } from './WeekPlan.tsx'
import { YearByPlace } from './YearByPlace.tsx'

const SPANS = [
  { value: 'year', label: 'The year' },
  { value: 'week', label: 'A week' },
] as const

/** Jobs with their windows, the working days they fall on, and one job in full. */
export function SeasonScreen() {
  const { view } = useGardenContext()
  return (
    <Answered of={[useSeason(view.garden.id)]} title="Season">
      {(season) => <Season data={season} />}
    </Answered>
  )
}

function Season({ data }: { data: SeasonView }) {
  const { view, isHead, isCrew } = useGardenContext()
  const [past, setPast] = useState(false)
  const isBehind = useIsBehind(view.garden.id)
  const ordered = [...data.jobs].sort(byDay)
  const [chosen, choose] = useChosenJob(ordered)
  const [filter, sieve] = useJobFilter()
  const [span, show] = useParam('span')
  const shows = (j: JobView) => passes(filter, j, data.workingDays)
  return (
    <>
      <ScreenHead title="Season" lead={<Lead jobs={data.jobs} isBehind={isBehind} />}>
        <Link to="../rules">Rules</Link>
        {isCrew && <Button onClick={() => setPast(true)}>Past work</Button>}
        {isHead && <ScheduleButton />}
        {data.jobs.length > 0 && (
          <ButtonLink
            href={hrefOf(seasonEndpoints.calendar, { params: { gardenId: view.garden.id } })}
            download
          >
            Calendar file
          </ButtonLink>
        )}
      </ScreenHead>
      {past && (
        <Modal open title="Past work" footer={null} onCancel={() => setPast(false)}>
          <PastWork onKept={() => setPast(false)} />
        </Modal>
      )}
      {chosen ? (
        <div className="screen-split season-split">
          <div className="season-body">
            <SimulatedNote />
            <Behind isBehind={isBehind} />
            <ScheduleRun season={data} />
            <div className="row season-shown">
              <Segments
                label="How the season is shown"
                value={span === 'week' ? 'week' : 'year'}
                options={SPANS}
                onChange={(v) => show(v === 'week' ? v : undefined)}
              />
              <JobFilters season={data} filter={filter} onFilter={sieve} />
            </div>
            {ordered.some((j) => j.state === 'open') &&
              !ordered.some((j) => j.state === 'open' && shows(j)) && (
                <p>No open job is of that kind, there, on those days.</p>
              )}
            {span === 'week' ? (
              <WeekPlan season={data} jobs={ordered.filter(shows)} chosenId={chosen.id} onChoose={choose} />
            ) : (
              <>
                <YearByPlace
                  jobs={ordered}
                  shows={shows}
                  days={data.workingDays}
                  chosenId={chosen.id}
                  onChoose={choose}
                />
                <Agenda season={data} shows={shows} chosenId={chosen.id} onChoose={choose} />
              </>
            )}
          </div>
          <aside aria-label="The chosen job" id="job">
            <JobPanel key={chosen.id} job={chosen} season={data} onChoose={choose} />
          </aside>
        </div>
      ) : (
        <Empty>
          <Behind isBehind={isBehind} />
          <ScheduleRun season={data} />
          <p>
            Plan the season, and the care that the <Link to="../rules">rules</Link> ask for appears here, each
            job in its window on a working day. Moves come from <Link to="../verdicts">Verdicts</Link>: agree
            to one, and its preparation, lifting and aftercare are here at once.
          </p>
        </Empty>
      )}
    </>
  )
}

/** The job of the address, or the first of the planting that it names; without either the first that is open. */
function useChosenJob(ordered: readonly JobView[]): [JobView | undefined, (job: JobView) => void] {
  const [jobId, choose] = useChosen('job', 'job')
  const [planting] = useParam('planting')
  const chosen =
    ordered.find((j) => j.id === jobId) ??
    ordered.find((j) => planting !== undefined && j.plantingIds.includes(planting) && j.state === 'open') ??
    ordered.find((j) => j.state === 'open') ??
    ordered[0]
  return [chosen, (job) => choose(job.id)]
}

/** How much work is open, and what has no day. */
function Lead({ jobs, isBehind }: { jobs: readonly JobView[]; isBehind: boolean }) {
  const open = jobs.filter((j) => j.state === 'open')
  if (open.length === 0) return isBehind ? '' : 'Nothing is planned.'
  const unplaced = open.filter((j) => !j.plannedOn)
  return (
    <>
      <b>{counted(open.length, 'open job')}</b>
      {`, ${minutesText(open.reduce((sum, j) => sum + j.minutes, 0))} of work. `}
      {unplaced.length > 0 && `${counted(unplaced.length, 'job')} could not be given a day.`}
    </>
  )
}

const dayOf = (j: JobView) => j.done?.on ?? j.plannedOn ?? j.window.bestFrom
const byDay = (a: JobView, b: JobView) =>
  dayOf(a) < dayOf(b) ? -1 : dayOf(a) > dayOf(b) ? 1 : a.title < b.title ? -1 : 1

/** Said while what is shown is not yet the work of the garden as it stands. */
function Behind({ isBehind }: { isBehind: boolean }) {
  return isBehind ? <p role="status">The work and its days are being brought up to date.</p> : null
}
