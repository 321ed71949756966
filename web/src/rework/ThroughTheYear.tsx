import type { PlantingView, SaidScheme } from '@border/contract'
import {
  addDays,
  addedBloom,
  type AddedBloom,
  type Arrangement,
  type BedGround,
  counted,
  dayMonth,
  driftsM2,
  groundM2,
  interestOf,
  type InterestWeek,
  type KindOf,
  type KindOnGround,
  listed,
  monthName,
  type Planting,
  plantingM2,
  showsFlowers,
  type Spell,
  spells,
  usualYearAt,
  yearOf,
} from '@border/core'
import { cumsum, sum } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import { useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useSize } from '../frame/useSize.ts'
import { shortDayMonth } from '../frame/words.ts'
import { WeekSlider } from '../frame/WeekSlider.tsx'
import type { Moment } from './useMoment.tsx'
import './rework.css'

interface Props {
  ground: BedGround
  arranged: Arrangement
  said: SaidScheme
  kindOf: KindOf
  /** What stands in the place today. */
  here: readonly PlantingView[]
  moment: Moment
}

const onGround = (plantings: readonly Planting[]): KindOnGround[] =>
  plantings.map((p) => ({ taxon: p.taxon, areaM2: plantingM2(p) }))

/** A place through a usual year as it stands and as it would stand: flowers, leaves, green structure, seed heads, and the gaps. */
export function ThroughTheYear({ ground, arranged, said, kindOf, here, moment }: Props) {
  const { view, today } = useGardenContext()
  const { climate, garden } = view
  const calendarYear = yearOf(today)
  const { between } = said
  const { now, then, added } = useMemo(() => {
    const year = usualYearAt(climate, garden.latitude)
    const m2 = driftsM2(ground, arranged)
    const comes = [
      ...arranged.drifts.map((d, k) => ({
        taxon: d.taxon,
        areaM2: m2[k] || groundM2(d.count, d.taxon.spacingM),
      })),
      ...between.flatMap((b) => {
        const taxon = kindOf.get(b.botanical)
        return taxon ? [{ taxon, areaM2: groundM2(b.count, taxon.spacingM) }] : []
      }),
    ]
    const after = [...onGround(ground.stays), ...comes]
    return {
      now: interestOf(onGround(here), calendarYear, year),
      then: interestOf(after, calendarYear, year),
      added: addedBloom(
        after.map((a) => a.taxon),
        calendarYear,
        year,
      ),
    }
  }, [climate, garden.latitude, ground, arranged, between, kindOf, here, calendarYear])
  const full = Math.max(LEAST_FULL, ...[...now, ...then].map((w) => sum(w.flowers, (f) => f.share)))
  return (
    <div className="through-year">
      <div className="row">
        <WeekSlider {...moment} onWeek={(week) => moment.look({ week })} />
      </div>
      <Ribbon name="Now" weeks={now} full={full} week={moment.week} />
      <Ribbon name="With the scheme" weeks={then} full={full} week={moment.week} />
      <AddedWords added={added} weeks={then} />
    </div>
  )
}

const BANDS = [
  { key: 'coloured', label: 'leaf colour', fill: 'var(--warmth)' },
  { key: 'evergreen', label: 'evergreen', fill: 'var(--plan-leaf-line)' },
  { key: 'heads', label: 'seed heads', fill: 'var(--rule-strong)' },
] as const
const LEFT = 86
const FLOWERS = 84
const BAND = 13
const FOOT = 18
/** So much of the ground in flower, or what there is at the most, fills the height. */
const LEAST_FULL = 0.4
/** On less there is no room for the names of months. */
const NARROW = 520

/** One year as a ribbon: every week a stack of what flowers, in its colour and by its share of the ground; under it what else there is to see. */
function Ribbon({
  name,
  weeks,
  full,
  week,
}: {
  name: string
  weeks: readonly InterestWeek[]
  full: number
  /** In hand. */
  week: number
}) {
  const [box, { width }] = useSize()
  const x = scaleLinear([0, weeks.length], [LEFT, Math.max(LEFT + 200, width - 4)])
  const wide = x(1) - x(0)
  const gaps = spells(weeks, (w) => !showsFlowers(w))
  const height = FLOWERS + BANDS.length * BAND + FOOT
  return (
    <section aria-label={name}>
      <h3>{name}</h3>
      <p>{gapWords(gaps, weeks.length)}</p>
      <div ref={box}>
        <svg
          width="100%"
          height={height}
          role="img"
          aria-label={`${name}, week by week. ${gapWords(gaps, weeks.length)}`}
        >
          <text x={0} y={FLOWERS - 6} className="ribbon-label">
            flowers
          </text>
          {weeks.map((w, i) => (
            <Week key={w.from} week={w} x={x(i)} wide={wide} full={full} />
          ))}
          {BANDS.map(({ key, label, fill }, b) => {
            const y = FLOWERS + b * BAND
            return (
              <g key={key}>
                <text x={0} y={y + BAND - 3} className="ribbon-label">
                  {label}
                </text>
                {weeks.map((w, i) => (
                  <rect
                    key={w.from}
                    x={x(i)}
                    y={y + 2}
                    width={wide}
                    height={BAND - 4}
                    fill={fill}
                    opacity={w[key]}
                  >
                    <title>{`Week of ${dayMonth(w.from)}: ${label} on ${hundredths(w[key])} of the ground`}</title>
                  </rect>
                ))}
              </g>
            )
          })}
          <line
            x1={x(week + 0.5)}
            x2={x(week + 0.5)}
            y1={0}
            y2={height - FOOT}
            stroke="var(--act)"
            strokeWidth={1.5}
          />
          {months(weeks).map(({ at, label }) => (
            <text key={at} x={x(at)} y={height - 4} className="ribbon-label">
              {width < NARROW ? label.slice(0, 1) : label}
            </text>
          ))}
        </svg>
      </div>
    </section>
  )
}

const hundredths = (share: number): string => `${Math.round(100 * share)} %`

function Week({ week, x, wide, full }: { week: InterestWeek; x: number; wide: number; full: number }) {
  const says = week.flowers.map((f) => `${f.taxon.common} ${hundredths(f.share)}`)
  if (!showsFlowers(week))
    return (
      <rect x={x} y={4} width={wide - 0.5} height={FLOWERS - 4} fill="var(--danger-weak)">
        <title>{`Week of ${dayMonth(week.from)}: ${says.length > 0 ? `only ${says.join(', ')}` : 'nothing in flower'}`}</title>
      </rect>
    )
  return (
    <g>
      <title>{`Week of ${dayMonth(week.from)}: ${says.join(', ')}`}</title>
      <rect x={x} y={4} width={wide} height={FLOWERS - 4} fill="transparent" />
      {stacked(week, full).map(({ taxon, y, high }) => (
        <rect
          key={taxon.botanical}
          x={x}
          y={y}
          width={wide - 0.5}
          height={high}
          fill={taxon.flowerColour ?? 'var(--plan-leaf)'}
          stroke="var(--rule-strong)"
          strokeWidth={0.3}
        />
      ))}
    </g>
  )
}

/** What flowers in a week on top of each other, by its share of the ground. */
function stacked({ flowers }: InterestWeek, full: number) {
  const scale = scaleLinear([0, full], [FLOWERS, 6])
  const ends = cumsum(flowers, (f) => f.share)
  return flowers.map(({ taxon, share }, i) => {
    const y = scale(ends[i]!)
    return { taxon, y, high: scale(ends[i]! - share) - y }
  })
}

/** Weeks in which months begin. */
function months(weeks: readonly InterestWeek[]): { at: number; label: string }[] {
  return weeks.flatMap(({ from }, at) =>
    at === 0 || weeks[at - 1]!.from.slice(5, 7) !== from.slice(5, 7)
      ? [{ at, label: monthName(from).slice(0, 3) }]
      : [],
  )
}

/** Gaps that are told of one by one. */
const MOST_TOLD = 3

/** `Nothing flowers from 1 January to 11 February, 6 weeks.` */
function gapWords(gaps: readonly Spell[], all: number): string {
  const bare = gaps.reduce((n, g) => n + g.weeks, 0)
  if (bare === 0) return 'Something flowers in every week of the year.'
  if (bare === all) return 'Nothing flowers in any week of the year.'
  const longest = gaps.toSorted((a, b) => b.weeks - a.weeks).slice(0, MOST_TOLD)
  const told = longest
    .toSorted((a, b) => (a.from < b.from ? -1 : 1))
    .map((g) => `${shortDayMonth(g.from)} to ${shortDayMonth(g.to)}`)
  return `Without flowers worth the name for ${counted(bare, 'week')}: ${listed(told)}${gaps.length > MOST_TOLD ? ` and ${counted(gaps.length - MOST_TOLD, 'shorter gap')}` : ''}.`
}

const byWords: Record<AddedBloom['by'], (name: string, from: string, to: string) => string> = {
  'second flush': (name, from, to) =>
    `Cut back after its first flush, ${name} flowers again from ${from} to ${to}.`,
  deadheading: (name, from, to) => `Deadheaded, ${name} goes on from ${from} to ${to}.`,
  'stagger cut': (name, from, to) =>
    `Half of the ${name} cut by half in early summer flowers on from ${from} to ${to}.`,
}

/** What cutting adds, those first that would fill a gap. */
function AddedWords({ added, weeks }: { added: readonly AddedBloom[]; weeks: readonly InterestWeek[] }) {
  const fills = ({ from, to }: AddedBloom) =>
    weeks.filter((w) => !showsFlowers(w) && from <= addDays(w.from, 6) && w.from <= to).length
  const sorted = added.toSorted((a, b) => fills(b) - fills(a))
  if (sorted.length === 0) return null
  return (
    <section aria-label="What cutting adds">
      <h3>What cutting adds</h3>
      <ul className="plain-list">
        {sorted.map((a) => (
          <li key={`${a.taxon.botanical} ${a.by}`}>
            {byWords[a.by](a.taxon.common, shortDayMonth(a.from), shortDayMonth(a.to))}
            {fills(a) > 0 && ` That fills ${counted(fills(a), 'bare week')}.`}
          </li>
        ))}
      </ul>
    </section>
  )
}
