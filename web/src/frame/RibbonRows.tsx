import type { GardenNow } from '@border/contract'
import { addDays, bloomsOn, dayOfYear, yearOf, type IsoDate } from '@border/core'
import { area, line } from 'd3-shape'
import type { GardenContext } from './gardenContext.ts'

/** Days that the ribbon is long. */
export const DAYS = 365
export const WEEK = 7
/** Of its ground line, pixels from its top. */
export const FOOT_Y = 88
const MONTHS = ['J', 'F', 'M', 'A', 'M', 'J', 'J', 'A', 'S', 'O', 'N', 'D']
/** Days of a twelfth of the year. */
const MONTH = 30.42

interface OnRibbon {
  /** Pixels of a day of the year. */
  x: (dayOfYear: number) => number
  year: number
}

interface RowsProps extends OnRibbon {
  context: GardenContext
  labels: boolean
  openWindows: GardenNow['openWindows']
  workingDays: readonly IsoDate[]
}

/** Frost risk, soil warmth, bloom by week, job windows and working days, each on its own line. */
export function RibbonRows({ context, x, year, labels, openWindows, workingDays }: RowsProps) {
  const { climate } = context.view
  return (
    <>
      <Months x={x} />
      {climate && <FrostAndWarmth climate={climate} x={x} />}
      <BloomWeeks context={context} x={x} year={year} />
      <OpenWindows openWindows={openWindows} x={x} year={year} />
      {workingDays
        .filter((day) => yearOf(day) === year)
        .map((day) => (
          <line
            key={day}
            x1={x(dayOfYear(day))}
            x2={x(dayOfYear(day))}
            y1={84}
            y2={FOOT_Y}
            stroke="var(--ink)"
            strokeWidth={1}
          />
        ))}
      <line x1={x(0)} x2={x(DAYS)} y1={FOOT_Y} y2={FOOT_Y} stroke="var(--rule-strong)" />
      {labels &&
        ROW_NAMES.map(([text, y, means]) => (
          <text key={text} x={x(0) - 8} y={y} textAnchor="end">
            <title>{means}</title>
            {text}
          </text>
        ))}
    </>
  )
}

/** Rows by what they are called, where they stand, and what they mean. */
const ROW_NAMES = [
  ['frost risk', 22, 'How likely a frost is on each day of a usual year here.'],
  ['soil warmth', 45, 'How warm the soil is 10 cm down in a usual year, from 0 °C up.'],
  ['in bloom', 67, 'What usually flowers in each week, in its own colours: a block for each few kinds.'],
  [
    'job windows',
    86,
    'Days on which open jobs can be done well: the darker, the more of them. Strokes are days of work.',
  ],
] as const

const Months = ({ x }: Pick<OnRibbon, 'x'>) =>
  MONTHS.map((m, i) => (
    <g key={i}>
      <line
        x1={x(i * MONTH)}
        x2={x(i * MONTH)}
        y1={8}
        y2={FOOT_Y + 4}
        stroke="var(--rule)"
        strokeWidth={0.8}
      />
      <text x={x(i * MONTH + 15)} y={101} textAnchor="middle">
        {m}
      </text>
    </g>
  ))

/** The chance of frost of every day, and how warm the soil is in a usual year. */
function FrostAndWarmth({
  climate,
  x,
}: { climate: NonNullable<GardenContext['view']['climate']> } & Pick<OnRibbon, 'x'>) {
  const frost = area<number>()
    .x((_, i) => x(i))
    .y0(24)
    .y1((risk) => 24 - risk * 16)
  const warmest = Math.max(20, ...climate.soilC)
  const warmth = line<number>()
    .x((_, i) => x(i))
    .y((c) => 52 - (Math.max(0, c) / warmest) * 20)
  return (
    <>
      <path d={frost(climate.frostRisk)!} fill="var(--frost)" />
      <path d={warmth(climate.soilC)!} fill="none" stroke="var(--warmth)" strokeWidth={1.5} />
    </>
  )
}

/** What is seen through one open window; the more are open, the less. */
const SEEN_THROUGH = 0.55

function OpenWindows({ openWindows, x, year }: Pick<RowsProps, 'openWindows' | 'x' | 'year'>) {
  const within = (day: IsoDate) => (yearOf(day) < year ? 0 : yearOf(day) > year ? DAYS : dayOfYear(day))
  return openWindows.map(([from, open], i) => {
    const to = openWindows[i + 1]?.[0]
    if (open === 0 || !to || yearOf(from) > year || yearOf(to) < year) return null
    return (
      <rect
        key={from}
        x={x(within(from))}
        width={Math.max(1, x(within(to)) - x(within(from)))}
        y={78}
        height={5}
        fill="var(--open)"
        fillOpacity={1 - SEEN_THROUGH ** open}
        shapeRendering="crispEdges"
      />
    )
  })
}

const MOST_BLOCKS = 5

/** Usual bloom of what stands in the garden, a block for each few taxa in flower that week. */
function BloomWeeks({ context, x, year }: { context: GardenContext } & OnRibbon) {
  const south = context.view.garden.latitude < 0
  const taxa = [...new Map(context.view.plantings.map((p) => [p.taxon.botanical, p.taxon])).values()].filter(
    (t) => t.flowerColour,
  )
  const weeks = Array.from({ length: 52 }, (_, w) => {
    const day = addDays(`${year}-01-04`, w * WEEK + (south ? 182 : 0))
    return taxa.filter((t) => bloomsOn(t, day.slice(5)))
  })
  const each = Math.max(1, Math.ceil(Math.max(...weeks.map((w) => w.length)) / MOST_BLOCKS))
  return weeks.flatMap((flowering, w) =>
    Array.from({ length: Math.ceil(flowering.length / each) }, (_, k) => (
      <rect
        key={`${w}-${k}`}
        x={x(w * WEEK) + 1}
        width={Math.max(1, x(WEEK) - x(0) - 2)}
        y={70 - k * 4.4}
        height={3.6}
        rx={0.8}
        fill={flowering[k * each]!.flowerColour!}
        stroke="var(--rule-strong)"
        strokeWidth={0.3}
      />
    )),
  )
}
