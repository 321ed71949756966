import type { JobView } from '@border/contract'
import { addDays, capitalised, counted, listed, middleOf, minutesText, waterPoint } from '@border/core'
import { group, sum } from 'd3-array'
import { Link, useLocation } from 'react-router'
import { useParam } from '../frame/address.ts'
import { Answered } from '../frame/Answered.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Segments } from '../frame/Segments.tsx'
import { materialText, shortDate, shortDayMonth } from '../frame/words.ts'
import { materialsOf } from '../season/dayWork.ts'
import { useSeason } from '../season/queries.ts'
import { Recording } from '../season/Recording.tsx'
import type { RowPot } from './usePotRow.ts'
import { useCalled } from '../frame/KindName.tsx'

/** Weeks ahead that a round is looked at over. */
const SPANS = [
  { value: '1', label: 'this week' },
  { value: '4', label: 'four weeks' },
  { value: '12', label: 'the quarter' },
] as const

/** What there is to do at the containers, task by task, each in the order one walks past them, with what to carry. */
export function PotRound({ pots }: { pots: readonly RowPot[] }) {
  const { view } = useGardenContext()
  return (
    <Answered of={[useSeason(view.garden.id)]}>
      {(season) => <Round pots={pots} jobs={season.jobs} />}
    </Answered>
  )
}

function Round({ pots, jobs }: { pots: readonly RowPot[]; jobs: readonly JobView[] }) {
  const { today } = useGardenContext()
  const called = useCalled()
  const [said, say] = useParam('span')
  const span = SPANS.find((s) => s.value === said)?.value ?? '4'
  const until = addDays(today, 7 * Number(span))
  const ids = new Set(pots.map((p) => p.id))
  const open = jobs
    .filter((j) => j.state === 'open' && j.placeIds.some((id) => ids.has(id)))
    .sort((a, b) => (dayOf(a) < dayOf(b) ? -1 : 1))
  const due = open.filter((j) => dayOf(j) <= until)
  const next = open[due.length]
  const water = useWaterBy(pots)
  const tasks = [...group(due, (j) => j.kind)]
  const materials = materialsOf(due.map((job) => ({ job, minutes: job.minutes })))
  return (
    <div className="screen-body stack pot-round">
      <div>
        <Segments
          label="How far ahead"
          value={span}
          options={SPANS}
          onChange={(v) => say(v === '4' ? undefined : v)}
        />
      </div>
      {due.length === 0 ? (
        <p>
          Nothing is due at the pots until {shortDayMonth(until)}.
          {next && ` The next is “${called(next.title)}”, from ${shortDate(dayOf(next))}.`}
        </p>
      ) : (
        <p>
          {capitalised(counted(due.length, 'job'))} until {shortDayMonth(until)},{' '}
          {minutesText(sum(due, (j) => j.minutes))} in all.
          {materials.length > 0 && ` To carry: ${listed(materials.map(materialText))}.`} {water}
        </p>
      )}
      {tasks.map(([kind, of]) => (
        <section key={kind}>
          <h2>{capitalised(kind)}</h2>
          <ul className="plain-list">
            {of.map((job) => (
              <Task key={job.id} job={job} pots={pots} />
            ))}
          </ul>
        </section>
      ))}
    </div>
  )
}

/** Where water is fetched for the pots, and how far it is carried. */
function useWaterBy(pots: readonly RowPot[]): string {
  const { standing } = useGardenContext()
  const ids = new Set(pots.map((p) => p.id))
  const by = waterPoint(
    standing,
    standing.filter((f) => ids.has(f.id)).map((f) => middleOf(f.geometry)),
  )
  if (!by) return 'No water is on the plan: draw where the tap or the butt is.'
  const [near, far] = [Math.round(by.nearestM), Math.round(by.farthestM)]
  return `Water from ${by.name}, ${near === far ? near : `${near} to ${far}`} m away.`
}

/** The day a job is planned for; without one the first of its window. */
const dayOf = (j: JobView): string => j.plannedOn ?? j.window.earliest

function Task({ job, pots }: { job: JobView; pots: readonly RowPot[] }) {
  const called = useCalled()
  const { isCrew } = useGardenContext()
  const { search } = useLocation()
  const names = job.placeIds.flatMap((id) => pots.find((p) => p.id === id)?.name ?? [])
  return (
    <li className="spread">
      <div>
        <Link to={{ pathname: '../season', search: withJob(search, job.id) }}>{called(job.title)}</Link>{' '}
        <span className="soft">
          {job.plannedOn ? shortDayMonth(job.plannedOn) : `from ${shortDayMonth(job.window.earliest)}`},{' '}
          {minutesText(job.minutes)}
          {job.materials.length > 0 && `; ${listed(job.materials.map(materialText))}`}
        </span>
        {names.length > 1 && <small className="soft pot-walk">{names.join(' → ')}</small>}
        {job.cautions.length > 0 && <small className="pot-walk">{job.cautions.join(' ')}</small>}
      </div>
      {isCrew && <Recording job={job} label="Done" />}
    </li>
  )
}

const withJob = (search: string, id: string): string => {
  const params = new URLSearchParams(search)
  params.delete('show')
  params.delete('span')
  params.set('job', id)
  return `?${params}`
}
