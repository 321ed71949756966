import type { SeasonView } from '@border/contract'
import {
  capitalised,
  centroid,
  counted,
  dayMonthYear,
  extentOf,
  isPlace,
  minutesText,
  weekdayOf,
} from '@border/core'
import { Link, useLocation, useParams } from 'react-router'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Answered } from '../frame/Answered.tsx'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { useSize } from '../frame/useSize.ts'
import { materialText, shortDayMonth, weekdayName } from '../frame/words.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { PlanDrawing } from '../plan/PlanDrawing.tsx'
import { grow, pointsOf } from '../plan/scale.ts'
import { useSeason } from './queries.ts'
import '../walk/sheet.css'
import { JobExtract } from './JobExtract.tsx'
import { materialsOf, placesText, workOf, type Sitting } from './dayWork.ts'
import { Recording } from './Recording.tsx'
import './season.css'
import { Watering } from './Watering.tsx'
import { useCalled } from '../frame/KindName.tsx'

/** A day's work on one sheet: cautions and what to take along first, then the jobs in order, with the plan. */
export function JobSheetScreen() {
  const { view } = useGardenContext()
  const { day = '' } = useParams()
  return (
    <Answered of={[useSeason(view.garden.id)]} title={`${weekdayName(weekdayOf(day))} ${dayMonthYear(day)}`}>
      {(season) => <JobSheet data={season} day={day} />}
    </Answered>
  )
}

function JobSheet({ data, day }: { data: SeasonView; day: string }) {
  const { view, isCrew } = useGardenContext()
  const { search } = useLocation()
  const places = view.features.filter(isPlace)
  const work = workOf(data.jobs, day, new Map(places.map((p, i) => [p.id, i])))
  const days = [
    ...new Set(data.jobs.flatMap((j) => (j.state === 'open' ? j.parts.map((p) => p.day) : []))),
  ].sort()
  const [before, after] = [days.findLast((d) => d < day), days.find((d) => d > day)]
  const people = data.workingDays.find((d) => d.day === day)?.people ?? []
  return (
    <>
      <ScreenHead
        title={
          <>
            {weekdayName(weekdayOf(day))} {dayMonthYear(day)}
          </>
        }
        lead={
          <>
            {counted(work.length, 'job')}, {minutesText(work.reduce((sum, s) => sum + s.minutes, 0))}.
          </>
        }
        isNotPrinted
      >
        {before && <Link to={{ pathname: `../season/day/${before}`, search }}>{shortDayMonth(before)}</Link>}
        {after && <Link to={{ pathname: `../season/day/${after}`, search }}>{shortDayMonth(after)}</Link>}
        <Link to={{ pathname: '../season', search }}>The season</Link>
        <Button look="primary" onClick={() => print()}>
          Print it
        </Button>
      </ScreenHead>
      <div className="screen-body sheet job-sheet" tabIndex={0} aria-label="The job sheet">
        {work.length === 0 ? (
          <p className="soft">Nothing is planned for this day.</p>
        ) : (
          <>
            <p className="sheet-title">
              <b>{view.garden.name}</b>, {weekdayName(weekdayOf(day))} {dayMonthYear(day)}.
              {people.length > 0 && ` At work: ${people.join(', ')}.`} Done by ____________
            </p>
            <div className="job-sheet-top">
              <First work={work} />
              <Where work={work} />
            </div>
            <Watering title="Water while there" by={day} />
            <ol className="job-sheet-jobs">
              {work.map((s, i) => {
                const first = work.findIndex((o) => o.job.tags.join() === s.job.tags.join())
                return (
                  <SheetJob
                    key={s.job.id}
                    sitting={s}
                    canRecord={isCrew}
                    shownAt={first < i ? first + 1 : undefined}
                  />
                )
              })}
            </ol>
          </>
        )}
      </div>
    </>
  )
}

/** What the day’s jobs caution of, and what they need. */
function First({ work }: { work: readonly Sitting[] }) {
  const cautions = [...new Set(work.flatMap((s) => s.job.cautions))]
  const take = [...materialsOf(work).map(materialText), ...new Set(work.flatMap((s) => s.job.tools))]
  return (
    <div>
      {cautions.length > 0 && (
        <section className="job-sheet-cautions">
          <h2>Before you start</h2>
          <ul className="plain-list">
            {cautions.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
          <small>Local codes, labels and licensed practice come before this sheet.</small>
        </section>
      )}
      <section>
        <h2>Take along</h2>
        <p>{capitalised(take.join(', '))}.</p>
      </section>
    </div>
  )
}

interface SheetJobProps {
  sitting: Sitting
  canRecord: boolean
  /** Its plants are shown at another job already. */
  shownAt: number | undefined
}

function SheetJob({ sitting: { job, minutes }, canRecord, shownAt }: SheetJobProps) {
  const called = useCalled()
  const nameOf = usePlaceName()
  return (
    <li>
      <h3>
        <span className="job-sheet-box" aria-hidden /> {called(job.title)}
      </h3>
      <p>
        {job.placeIds.length > 0 && `${placesText(job.placeIds, nameOf)}, `}
        {minutesText(minutes)}
        {minutes < job.minutes && ` of ${minutesText(job.minutes)}`}
        {job.tags.length > 0 && `; ${job.tags.length === 1 ? 'tag' : 'tags'} ${job.tags.join(', ')}`}
      </p>
      {job.unsure && <p className="unsure">{job.unsure}</p>}
      <ul className="plain-list">
        {job.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ul>
      {job.tags.length > 0 &&
        (shownAt ? <small>Where they stand: at job {shownAt}.</small> : <JobExtract tags={job.tags} />)}
      <p className="job-sheet-line">Minutes ______ Note ____________________________________</p>
      {canRecord && (
        <div className="no-print">
          <Recording job={job} label="Done" />
        </div>
      )}
    </li>
  )
}

/** The places of the day on the plan, numbered as the jobs are. */
function Where({ work }: { work: readonly Sitting[] }) {
  const { view, on } = useGardenContext()
  const [ref, { width }] = useSize()
  const ids = new Set(work.flatMap((s) => s.job.placeIds))
  const places = view.features.filter((f) => ids.has(f.id))
  const numbers = new Map<string, number[]>()
  work.forEach(({ job }, i) => {
    for (const id of job.placeIds) numbers.set(id, [...(numbers.get(id) ?? []), i + 1])
  })
  if (places.length === 0) return null
  return (
    <div ref={ref} className="job-sheet-plan">
      {width > 0 && (
        <PlanDrawing
          features={view.features}
          plantings={view.plantings}
          on={on}
          northDeg={view.garden.northDeg}
          width={width}
          height={230}
          extent={grow(extentOf(places.flatMap(pointsOf)), 2)}
          label="Where the day’s jobs are"
          overlay={(scale) =>
            places.map((f) => {
              const g = f.geometry
              const [x, y] = g.type === 'Point' ? g.coordinates : centroid(pointsOf(f))
              return (
                <g key={f.id} className="job-sheet-number">
                  <circle cx={scale.x(x!)} cy={scale.y(y!)} r={13} />
                  <text x={scale.x(x!)} y={scale.y(y!) + 4} textAnchor="middle">
                    {numbers.get(f.id)!.length > 2
                      ? `${numbers.get(f.id)![0]}…`
                      : numbers.get(f.id)!.join(' ')}
                  </text>
                </g>
              )
            })
          }
        />
      )}
    </div>
  )
}
