import { addDays, changesOf, dayMonthYear, isoDate, standing, yearOf, type Obstruction } from '@border/core'
import { changeWords } from './changeWords.ts'

const WIDTH = 300
const HEIGHT = 74
const BASE = 52
const YEARS_BACK = 6
const YEARS_ON = 15

/** An obstruction's height year by year, with what happened to it; a click takes that day for the next entry. */
export function Life({
  obstruction,
  on,
  onDay,
}: {
  obstruction: Obstruction
  on: string
  onDay: (day: string) => void
}) {
  const changes = changesOf(obstruction)
  const first = Math.min(yearOf(on) - YEARS_BACK, ...changes.map((c) => yearOf(c.date)))
  const last = yearOf(on) + YEARS_ON
  const dates = Array.from({ length: (last - first) * 4 + 1 }, (_, i) =>
    isoDate(first + Math.floor(i / 4), 1 + (i % 4) * 3, 1),
  )
  const heights = dates.map((day) => standing(obstruction, day)?.heightM)
  const most = Math.max(1, ...heights.map((h) => h ?? 0))
  const startMs = Date.parse(`${first}-01-01`)
  const spanMs = Date.parse(`${last}-01-01`) - startMs
  const x = (day: string) => ((Date.parse(day) - startMs) / spanMs) * (WIDTH - 12) + 6
  const y = (h: number) => BASE - (h / most) * (BASE - 14)
  const line = dates
    .map((day, i) =>
      heights[i] === undefined ? undefined : `${x(day).toFixed(1)},${y(heights[i]).toFixed(1)}`,
    )
    .map((p, i, all) => (p === undefined ? '' : `${i > 0 && all[i - 1] !== undefined ? 'L' : 'M'}${p}`))
    .join('')
  return (
    <svg
      className="life"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      width="100%"
      role="img"
      aria-label={`Height of ${obstruction.name} from ${first} to ${last}, at most ${most.toFixed(1)} m`}
      onClick={(e) => {
        const box = e.currentTarget.getBoundingClientRect()
        const share = ((e.clientX - box.left) / box.width) * WIDTH - 6
        const days = Math.round(((share / (WIDTH - 12)) * spanMs) / 86_400_000)
        onDay(addDays(`${first}-01-01`, Math.max(0, days)))
      }}
    >
      <line x1={6} x2={WIDTH - 6} y1={BASE} y2={BASE} stroke="var(--rule-strong)" />
      <path d={line} fill="none" stroke="var(--plan-leaf-line)" strokeWidth={2} />
      <line x1={x(on)} x2={x(on)} y1={4} y2={BASE} stroke="var(--act)" strokeDasharray="2 2" />
      <text x={8} y={12}>
        {most.toFixed(1)} m
      </text>
      {changes.map((c, i) => (
        <g key={i} transform={`translate(${x(c.date)},${BASE})`}>
          <path d="M0,-5L5,3L-5,3Z" fill="var(--ink)" />
          <title>{`${changeWords[c.what]} ${dayMonthYear(c.date)}`}</title>
        </g>
      ))}
      {Array.from({ length: last - first + 1 }, (_, k) => first + k)
        .filter((year) => year % 5 === 0 && x(`${year}-01-01`) > 14)
        .map((year) => (
          <text key={year} x={x(`${year}-01-01`)} y={HEIGHT - 6} textAnchor="middle">
            {year}
          </text>
        ))}
    </svg>
  )
}
