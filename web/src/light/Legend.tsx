import { changeColour, hoursColour, MOST_CHANGE, MOST_HOURS } from '../plan/colours.ts'

const STEP = 19

/** What the colours of the field mean, in hours and in the trade's words. */
export function Legend({ difference }: { difference: boolean }) {
  const values = difference
    ? Array.from({ length: 2 * MOST_CHANGE + 1 }, (_, i) => i - MOST_CHANGE)
    : Array.from({ length: MOST_HOURS + 1 }, (_, i) => i)
  const marks: [number, string][] = difference
    ? [
        [-MOST_CHANGE, `−${MOST_CHANGE}`],
        [-3, '−3'],
        [0, '0'],
        [3, '+3'],
        [MOST_CHANGE, `+${MOST_CHANGE}`],
      ]
    : [
        [0, '0'],
        [2, '2'],
        [4, '4'],
        [6, '6'],
        [9, '9'],
        [12, '12'],
      ]
  const words: [number, string][] = difference
    ? [
        [-MOST_CHANGE, 'less sun'],
        [MOST_CHANGE, 'more sun'],
      ]
    : [
        [0.4, 'shade'],
        [4, 'part'],
        [9, 'full sun'],
      ]
  const x = (v: number) => 14 + (v - values[0]!) * STEP
  const width = values.length * STEP + 22
  return (
    <svg
      className="light-legend"
      width={width}
      height={62}
      role="img"
      aria-label="Colour key: hours of direct sun a day"
    >
      <text x={8} y={14}>
        {difference ? 'change in hours of direct sun a day' : 'hours of direct sun on a clear day'}
      </text>
      {values.map((v) => (
        <rect
          key={v}
          x={x(v) - STEP / 2}
          y={20}
          width={STEP}
          height={10}
          fill={difference ? changeColour(v) : hoursColour(v)}
        />
      ))}
      {marks.map(([v, text]) => (
        <text key={text} x={x(v)} y={43} textAnchor="middle">
          {text}
        </text>
      ))}
      {words.map(([v, text], i) => (
        <text
          key={text}
          x={x(v)}
          y={57}
          textAnchor={i === 0 ? 'start' : difference ? 'end' : 'middle'}
          className="soft-text"
        >
          {text}
        </text>
      ))}
    </svg>
  )
}
