import type { JobRecord } from '@border/contract'
import { addDays, dayNumber, daysBetween, fromDayNumber, maxDay, minDay, type IsoDate } from '@border/core'
import { scaleLinear } from 'd3-scale'
import { useGardenContext } from '../frame/GardenFrame.tsx'
import { shortDayMonth } from '../frame/words.ts'
import { useSize } from '../frame/useSize.ts'

interface Props {
  jobs: readonly JobRecord[]
  days: readonly { day: IsoDate; minutes: number }[]
  chosenId: string
  onChoose: (job: JobRecord) => void
}

const ROW = 22
const TOP = 24
const LABEL = 250
const MOST_ROWS = 14
const LEAST_WIDTH = 560

/** Each job's window, its best weeks and its day, under the working days. */
export function WindowChart({ jobs, days, chosenId, onChoose }: Props) {
  const { today } = useGardenContext()
  const [ref, { width }] = useSize()
  const open = jobs.filter((j) => j.state === 'open').slice(0, MOST_ROWS)
  const hidden = jobs.filter((j) => j.state === 'open').length - open.length
  const from = addDays(minDay(today, ...open.map((j) => j.window.earliest)), -3)
  const to = addDays(maxDay(addDays(today, 30), ...open.map((j) => j.window.latest)), 3)
  const x = scaleLinear([dayNumber(from), dayNumber(to)], [LABEL + 8, width - 14])
  const xOf = (day: IsoDate) => x(dayNumber(day))
  const height = TOP + open.length * ROW + 8
  // On a phone the agenda below says the same in words.
  if (open.length === 0 || (width > 0 && width < LEAST_WIDTH)) return <div ref={ref} />
  return (
    <div ref={ref} className="window-chart">
      {width > 0 && (
        <svg width={width} height={height} role="group" aria-label="Job windows">
          {ticks(from, to).map((day) => (
            <g key={day}>
              <line x1={xOf(day)} x2={xOf(day)} y1={TOP - 6} y2={height} stroke="var(--rule)" />
              <text x={xOf(day) + 3} y={12}>
                {shortDayMonth(day)}
              </text>
            </g>
          ))}
          {days
            .filter((d) => d.day >= from && d.day <= to)
            .map((d) => (
              <line
                key={d.day}
                x1={xOf(d.day)}
                x2={xOf(d.day)}
                y1={TOP - 6}
                y2={TOP - 1}
                stroke="var(--ink)"
              />
            ))}
          <line
            x1={xOf(today)}
            x2={xOf(today)}
            y1={TOP - 8}
            y2={height}
            stroke="var(--act)"
            strokeWidth={1.5}
          />
          {open.map((j, i) => {
            const y = TOP + i * ROW
            const w = j.window
            return (
              <g
                key={j.id}
                className={`window-row${j.id === chosenId ? ' selected' : ''}`}
                onClick={() => onChoose(j)}
              >
                <title>{j.title}</title>
                <rect x={0} width={width} y={y} height={ROW} className="window-back" />
                <text x={8} y={y + 15}>
                  {clip(j.title, 42)}
                </text>
                <rect
                  x={xOf(w.earliest)}
                  width={Math.max(2, xOf(w.latest) - xOf(w.earliest))}
                  y={y + 8}
                  height={7}
                  rx={2}
                  fill="var(--open)"
                  fillOpacity={0.28}
                />
                <rect
                  x={xOf(w.bestFrom)}
                  width={Math.max(2, xOf(w.bestTo) - xOf(w.bestFrom))}
                  y={y + 8}
                  height={7}
                  rx={2}
                  fill="var(--open)"
                />
                {j.plannedOn && (
                  <path
                    d={`M${xOf(j.plannedOn)},${y + 4}l5,7.5l-5,7.5l-5,-7.5Z`}
                    fill="var(--sheet)"
                    stroke="var(--ink)"
                    strokeWidth={1.6}
                  />
                )}
              </g>
            )
          })}
        </svg>
      )}
      <small>
        Pale: the whole window. Dark: the best of it. ◇ the planned day. Ticks: working days.
        {hidden > 0 && ` ${hidden} later jobs are listed below.`}
      </small>
    </div>
  )
}

const clip = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text)

/** Firsts of months, or every other week where the chart is short. */
function ticks(from: IsoDate, to: IsoDate): IsoDate[] {
  const span = daysBetween(from, to)
  const all = Array.from({ length: span + 1 }, (_, i) => fromDayNumber(dayNumber(from) + i))
  const months = all.filter((d) => d.endsWith('-01'))
  return span > 75 ? months.filter((_, i) => span < 420 || i % 2 === 0) : all.filter((_, i) => i % 14 === 7)
}
