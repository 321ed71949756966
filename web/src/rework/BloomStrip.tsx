import { counted, dayMonth, type KindOf, type Taxon } from '@border/core'
import { scaleLinear } from 'd3-scale'
import './rework.css'

const WIDTH = 340
const HEIGHT = 46
const FOOT = 34
const BLOCK = 5.4
const MOST = 6

/** A place's bloom week by week: a block in its colour for each kind in flower; a week with none stands out. */
export function BloomStrip({
  weeks,
  flowering,
  kindOf,
}: {
  weeks: readonly string[]
  flowering: readonly (readonly string[])[]
  kindOf: KindOf
}) {
  const x = scaleLinear([0, weeks.length], [0, WIDTH])
  const wide = x(1) - x(0)
  const bare = flowering.filter((of) => of.length === 0).length
  return (
    <svg
      className="bloom-strip"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={
        bare === 0 ? 'Something flowers in every week.' : `${counted(bare, 'week')} without a flower.`
      }
    >
      {flowering.map((of, i) =>
        of.length === 0 ? (
          <rect key={i} x={x(i)} y={4} width={wide - 0.6} height={FOOT - 4} fill="var(--danger-weak)">
            <title>{`Week of ${dayMonth(weeks[i]!)}: nothing in flower`}</title>
          </rect>
        ) : (
          of.slice(0, MOST).map((name, k) => (
            <rect
              key={`${i} ${k}`}
              x={x(i)}
              y={FOOT - (k + 1) * BLOCK}
              width={wide - 0.6}
              height={BLOCK - 0.9}
              fill={colourOf(kindOf.get(name))}
              stroke="var(--rule-strong)"
              strokeWidth={0.3}
            >
              <title>{`Week of ${dayMonth(weeks[i]!)}: ${of.join(', ')}`}</title>
            </rect>
          ))
        ),
      )}
      <line x1={0} x2={WIDTH} y1={FOOT} y2={FOOT} stroke="var(--rule-strong)" />
      {monthMarks(weeks).map(({ at, name }) => (
        <text key={at} x={x(at)} y={HEIGHT - 2}>
          {name}
        </text>
      ))}
    </svg>
  )
}

const colourOf = (taxon: Taxon | undefined): string => taxon?.flowerColour ?? 'var(--plan-leaf)'

/** The first week of every month, with its letter. */
function monthMarks(weeks: readonly string[]): { at: number; name: string }[] {
  const marks = weeks.flatMap((day, at) => {
    const isFirst = at === 0 || weeks[at - 1]!.slice(5, 7) !== day.slice(5, 7)
    return isFirst ? [{ at, name: dayMonth(day).split(' ')[1]!.slice(0, 1) }] : []
  })
  // Of a month that is nearly over when the season begins there is no room for the letter.
  return marks.filter((m, i) => !marks[i + 1] || marks[i + 1]!.at - m.at > 1)
}
