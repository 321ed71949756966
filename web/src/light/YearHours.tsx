import { isoDate, monthName, monthOf, quarterHours, type PointSky } from '@border/core'

const WIDTH = 300
const HEIGHT = 96
const LEFT = 22
const BASE = 78
const months = 'JFMAMJJASOND'

/** Hours through the year by part of the day, under what open ground would get, and what takes the rest in one month. */
export function YearHours({
  sky,
  month,
  onMonth,
}: {
  sky: PointSky
  month: number
  onMonth: (month: number) => void
}) {
  const most = Math.max(4, ...sky.halfMonths.map((h) => h.openHours))
  const top = Math.ceil(most / 4) * 4
  const y = (hours: number) => BASE - (hours / top) * (BASE - 8)
  const step = (WIDTH - LEFT - 4) / 24
  const chosen = sky.halfMonths.filter((h) => monthOf(h.day) === month)
  const meanOf = (value: (h: (typeof chosen)[number]) => number) =>
    chosen.reduce((sum, h) => sum + value(h), 0) / Math.max(1, chosen.length)
  const takers = sky.obstructions
    .map((o, k) => ({ ...o, hours: meanOf((h) => h.takenHours[k]!) }))
    .filter((o) => o.hours >= 0.125)
    .sort((a, b) => b.hours - a.hours)
  return (
    <figure className="year-hours">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width="100%" role="group" aria-label="Hours of sun by month">
        {[0, top / 2, top].map((h) => (
          <g key={h}>
            <line x1={LEFT} x2={WIDTH - 2} y1={y(h)} y2={y(h)} className="year-line" />
            <text x={LEFT - 4} y={y(h) + 4} textAnchor="end">
              {h}
            </text>
          </g>
        ))}
        {sky.halfMonths.map((h, i) => (
          <HalfMonth key={h.day} of={h} x={LEFT + i * step} width={step - 0.8} y={y} />
        ))}
        {[...months].map((letter, m) => (
          <Month
            key={m}
            letter={letter}
            number={m + 1}
            x={LEFT + 2 * m * step}
            width={2 * step}
            isChosen={m + 1 === month}
            onChoose={() => onMonth(m + 1)}
          />
        ))}
      </svg>
      <div className="year-key">
        <i className="year-morning" /> to 10 <i className="year-midday" /> 10 to 14{' '}
        <i className="year-afternoon" /> from 14 <i className="year-open" /> taken
      </div>
      <p>
        {monthName(isoDate(2000, month, 1))}: {quarterHours(meanOf((h) => h.hours.total))} of{' '}
        {quarterHours(meanOf((h) => h.openHours))}.{' '}
        {takers.length === 0
          ? 'Nothing takes a quarter of an hour.'
          : `Taken by ${takers.map((t) => `${t.name} ${quarterHours(t.hours)}`).join(', ')}.`}
      </p>
    </figure>
  )
}

/** The hours of half a month by part of the day, one on the other, before what open ground would get. */
function HalfMonth({
  of: { openHours, hours },
  x,
  width,
  y,
}: {
  of: PointSky['halfMonths'][number]
  x: number
  width: number
  y: (hours: number) => number
}) {
  const bar = (className: string, from: number, to: number) => (
    <rect x={x} width={width} y={y(to)} height={y(from) - y(to)} className={className} />
  )
  const { morning, midday, afternoon } = hours
  return (
    <g>
      {bar('year-open', 0, openHours)}
      {bar('year-morning', 0, morning)}
      {bar('year-midday', morning, morning + midday)}
      {bar('year-afternoon', morning + midday, morning + midday + afternoon)}
    </g>
  )
}

/** A month’s letter and the ground over it, to be asked what takes its sun. */
function Month({
  letter,
  number,
  x,
  width,
  isChosen,
  onChoose,
}: {
  letter: string
  /** 1 to 12. */
  number: number
  x: number
  width: number
  isChosen: boolean
  onChoose: () => void
}) {
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`What takes the sun in month ${number}`}
      aria-pressed={isChosen}
      className={`year-month${isChosen ? ' chosen' : ''}`}
      onClick={onChoose}
      onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), onChoose())}
    >
      <rect x={x} y={0} width={width} height={HEIGHT} fill="transparent" />
      <text x={x + width / 2} y={HEIGHT - 4} textAnchor="middle">
        {letter}
      </text>
    </g>
  )
}
