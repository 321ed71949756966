import type { JobView } from '@border/contract'
import { addDays, dayNumber, fromDayNumber, maxDay, minDay, type IsoDate } from '@border/core'
import { group } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { useSize } from '../frame/useSize.ts'
import { shortDayMonth } from '../frame/words.ts'
import { useCalled } from '../frame/KindName.tsx'

interface Props {
  /** All of them: days are full by what is not shown as well. */
  jobs: readonly JobView[]
  shows: (job: JobView) => boolean
  days: readonly { day: IsoDate; minutes: number }[]
  chosenId: string
  onChoose: (job: JobView) => void
}

/** High enough for the word of what a bar is. */
const LANE = 15
/** Of such a word, a letter's width; it stands in its bar, or is left out. */
const LETTER = 6.2
const GAP = 5
const TOP = 40
const LOAD = 16
const LABEL = 150
const LEAST_WIDTH = 560
const SHOWN_DAYS = 366

/** The year by place: each job's window and day, and above them how full the working days are. */
export function YearByPlace({ jobs, shows, days, chosenId, onChoose }: Props) {
  const { today } = useGardenContext()
  const nameOf = usePlaceName()
  const [ref, { width }] = useSize()
  const all = jobs.filter((j) => j.state === 'open' && j.window.earliest < addDays(today, SHOWN_DAYS))
  const open = all.filter(shows)
  const rows = lanes(open, (j) => (j.placeIds.length > 1 ? 'Pots together' : nameOf(j.placeId, 'Moves')))
  const from = addDays(today, -6)
  const last = maxDay(addDays(today, 40), ...open.map((j) => j.window.latest))
  const to = minDay(addDays(last, 3), addDays(today, SHOWN_DAYS + 10))
  const x = scaleLinear([dayNumber(from), dayNumber(to)], [LABEL + 8, width - 10]).clamp(true)
  const xOf = (day: IsoDate) => x(dayNumber(day))
  const height = TOP + rows.reduce((sum, r) => sum + r.lanes.length * LANE + GAP, 0)
  const used = minutesByDay(all)
  // On a phone the agenda below says the same in words.
  if (open.length === 0 || (width > 0 && width < LEAST_WIDTH)) return <div ref={ref} />
  const tops = rows.map((_, i) => rows.slice(0, i).reduce((sum, r) => sum + r.lanes.length * LANE + GAP, TOP))
  return (
    <div ref={ref} className="year-by-place">
      {width > 0 && (
        <svg width={width} height={height} role="group" aria-label="The year by place">
          {months(from, to).map((day) => (
            <g key={day}>
              <line x1={xOf(day)} x2={xOf(day)} y1={14} y2={height} stroke="var(--rule)" />
              <text x={xOf(day) + 3} y={11}>
                {shortDayMonth(day).replace(/^1 /, '')}
              </text>
            </g>
          ))}
          {days
            .filter((d) => d.day >= from && d.day <= to)
            .map((d) => (
              <DayLoad key={d.day} x={xOf(d.day)} share={Math.min(1, (used.get(d.day) ?? 0) / d.minutes)} />
            ))}
          {rows.map((row, i) => (
            <g key={row.place}>
              <line x1={0} x2={width} y1={tops[i]! - GAP / 2} y2={tops[i]! - GAP / 2} stroke="var(--rule)" />
              <text x={4} y={tops[i]! + 9}>
                {row.place.length > 22 ? `${row.place.slice(0, 21)}…` : row.place}
              </text>
              {row.lanes.map((lane, k) =>
                lane.map((j) => (
                  <JobBar
                    key={j.id}
                    job={j}
                    y={tops[i]! + k * LANE}
                    xOf={xOf}
                    isChosen={j.id === chosenId}
                    onChoose={onChoose}
                  />
                )),
              )}
            </g>
          ))}
          <line x1={xOf(today)} x2={xOf(today)} y1={14} y2={height} stroke="var(--act)" strokeWidth={1.5} />
        </svg>
      )}
      <small>
        <i className="year-swatch window" /> the whole window, <i className="year-swatch best" /> the best of
        it, <i className="year-swatch none" /> the best of it where the job has no day, ◇ the planned day.
        Above: how full each working day is.
      </small>
    </div>
  )
}

/** How full a working day is, above the year. */
const DayLoad = ({ x, share }: { x: number; share: number }) => (
  <g>
    <rect x={x - 1} width={2} y={TOP - 6 - LOAD} height={LOAD} fill="var(--rule)" />
    <rect x={x - 1} width={2} y={TOP - 6 - share * LOAD} height={share * LOAD} fill="var(--open)" />
  </g>
)

/** A job’s window, the best of it, and its days. */
function JobBar({
  job,
  y,
  xOf,
  isChosen,
  onChoose,
}: {
  job: JobView
  y: number
  xOf: (day: IsoDate) => number
  isChosen: boolean
  onChoose: (job: JobView) => void
}) {
  const called = useCalled()
  const { earliest, latest, bestFrom, bestTo } = job.window
  const word = wordIn(
    [earliest, bestFrom, bestTo, latest].map(xOf) as [number, number, number, number],
    job.parts.map((p) => xOf(p.day)),
    LETTER * job.kind.length,
  )
  const bar = (className: string, from: IsoDate, to: IsoDate) => (
    <rect
      x={xOf(from)}
      width={Math.max(3, xOf(to) - xOf(from))}
      y={y}
      height={LANE - 2}
      className={className}
    />
  )
  return (
    <g className={`year-job${isChosen ? ' selected' : ''}`} onClick={() => onChoose(job)}>
      <title>{`${called(job.title)}${job.plannedOn ? `, ${shortDayMonth(job.plannedOn)}` : ', no day'}`}</title>
      {bar('year-window', earliest, latest)}
      {bar(job.plannedOn ? 'year-best' : 'year-best none', bestFrom, bestTo)}
      {word && (
        <text x={word.x} y={y + LANE - 5} className={word.isOnBest ? 'year-kind on-best' : 'year-kind'}>
          {job.kind}
        </text>
      )}
      {job.parts.map((p, n) => (
        <path
          key={n}
          d={`M${xOf(p.day)},${y + 2}l3.6,4.5l-3.6,4.5l-3.6,-4.5Z`}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth={1.3}
        />
      ))}
    </g>
  )
}

/** Half a mark of a day, with room beside it, pixels. */
const MARK = 6

/**
 * Where a word fits in a bar: on one tone of it, and on no mark of a day.
 *
 * @param edges of the window and of the best of it, from left to right, pixels
 * @returns the first such place from the left; undefined where there is none
 */
export function wordIn(
  [from, bestFrom, bestTo, to]: readonly [number, number, number, number],
  marks: readonly number[],
  wide: number,
): { x: number; isOnBest: boolean } | undefined {
  const tones = [
    { from, to: bestFrom, isOnBest: false },
    { from: bestFrom, to: bestTo, isOnBest: true },
    { from: bestTo, to, isOnBest: false },
  ]
  for (const { isOnBest, ...tone } of tones) {
    const within = marks.filter((m) => m > tone.from - MARK && m < tone.to + MARK).sort((a, b) => a - b)
    const starts = [tone.from, ...within.map((m) => m + MARK)]
    const ends = [...within.map((m) => m - MARK), tone.to]
    const k = starts.findIndex((start, i) => ends[i]! - start >= wide + 2 * ROOM)
    if (k >= 0) return { x: starts[k]! + ROOM, isOnBest }
  }
  return undefined
}
const ROOM = 3

/** Jobs of each place, those that overlap in lanes below one another. */
function lanes(jobs: readonly JobView[], placeOf: (j: JobView) => string) {
  return [...group(jobs, placeOf)]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([place, own]) => {
      const made: JobView[][] = []
      for (const job of [...own].sort((a, b) => (a.window.earliest < b.window.earliest ? -1 : 1))) {
        const free = made.find((lane) => lane.at(-1)!.window.latest < job.window.earliest)
        if (free) free.push(job)
        else made.push([job])
      }
      return { place, lanes: made }
    })
}

function minutesByDay(jobs: readonly JobView[]): Map<IsoDate, number> {
  const used = new Map<IsoDate, number>()
  for (const j of jobs) for (const p of j.parts) used.set(p.day, (used.get(p.day) ?? 0) + p.minutes)
  return used
}

const months = (from: IsoDate, to: IsoDate): IsoDate[] =>
  Array.from({ length: dayNumber(to) - dayNumber(from) + 1 }, (_, i) =>
    fromDayNumber(dayNumber(from) + i),
  ).filter((d) => d.endsWith('-01'))
