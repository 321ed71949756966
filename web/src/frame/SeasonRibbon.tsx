import { addDays, dayMonthYear, dayOfYear, fromDayOfYear, yearOf, type IsoDate } from '@border/core'
import { scaleLinear } from 'd3-scale'
import { useCallback, useDeferredValue, useEffect, useLayoutEffect, useRef, useState } from 'react'
import { useAsOf } from './asOf.ts'
import { Button } from './Button.tsx'
import type { GardenContext } from './gardenContext.ts'
import { useGardenNow } from './queries.ts'
import { DAYS, FOOT_Y, RibbonRows, WEEK } from './RibbonRows.tsx'
import { shortDate } from './words.ts'
import { useSize } from './useSize.ts'

const HEIGHT = 104
const FLAG_WIDTH = 92
/** Days that a key moves the date by. */
const STEPS: Record<string, number> = {
  ArrowLeft: -1,
  ArrowRight: 1,
  PageUp: -28,
  PageDown: 28,
  ArrowDown: -WEEK,
  ArrowUp: WEEK,
}

/** The year by weeks, and the as-of date on it: drag along it, or step with the arrow keys, or with [ and ]. */
export function SeasonRibbon({ context }: { context: GardenContext }) {
  const { today } = context
  const { on: settled, setOn } = useAsOf(today)
  const [on, move, settle] = useMovingDate(settled, setOn)
  const step = (days: number) => move(addDays(on, days))
  const { data: now } = useGardenNow(context.view.garden.id, context.asOf)
  const [ref, { width }] = useSize()
  const svgRef = useRef<SVGSVGElement>(null)
  // The date stands at once; what the year is like comes when the screen is there.
  const hasRows = useDeferredValue(true, false)
  useStepKeys(step, () => move(today))
  const year = yearOf(on)
  const narrow = width < 760
  const left = narrow ? 12 : 196
  const right = Math.max(left + 100, width - 18)
  const x = scaleLinear([0, DAYS], [left, right])
  const xOf = (day: IsoDate) => x(Math.min(DAYS, dayOfYear(day)))
  const pick = (clientX: number) => {
    const box = svgRef.current!.getBoundingClientRect()
    const doy = Math.round(x.invert(clientX - box.left))
    move(fromDayOfYear(year, Math.min(DAYS, Math.max(1, doy))))
  }
  const onKeyDown = (e: React.KeyboardEvent) => {
    const days = STEPS[e.key]
    if (days === undefined) return
    e.preventDefault()
    step(days)
  }
  return (
    <footer className="frame-ribbon">
      <div className="ribbon" ref={ref}>
        {!narrow && <RibbonYear on={on} today={today} onMove={move} />}
        {width > 0 && (
          <svg
            ref={svgRef}
            height={HEIGHT}
            role="slider"
            tabIndex={0}
            aria-label="As-of date"
            aria-valuemin={1}
            aria-valuemax={DAYS}
            aria-valuenow={Math.min(DAYS, dayOfYear(on))}
            aria-valuetext={dayMonthYear(on)}
            onKeyDown={onKeyDown}
            onPointerDown={(e) => {
              e.currentTarget.setPointerCapture(e.pointerId)
              pick(e.clientX)
            }}
            onPointerMove={(e) => e.buttons === 1 && pick(e.clientX)}
            onPointerUp={settle}
          >
            {hasRows && (
              <RibbonRows
                context={context}
                x={x}
                year={year}
                labels={!narrow}
                openWindows={now?.openWindows ?? []}
                workingDays={(now?.workingDays ?? []).map((ahead) => addDays(today, ahead))}
              />
            )}
            {yearOf(today) === year && today !== on && (
              <line
                x1={xOf(today)}
                x2={xOf(today)}
                y1={6}
                y2={FOOT_Y}
                stroke="var(--ink)"
                strokeDasharray="2 3"
              />
            )}
            <Flag day={on} x={xOf(on)} from={left} to={right} />
          </svg>
        )}
      </div>
    </footer>
  )
}

/** The year shown, one further or back, and the way to today. */
function RibbonYear({ on, today, onMove }: { on: IsoDate; today: IsoDate; onMove: (day: IsoDate) => void }) {
  const year = yearOf(on)
  return (
    <>
      <div className="ribbon-year">
        <Button
          size="small"
          look="text"
          aria-label="A year earlier"
          onClick={() => onMove(inYear(on, year - 1))}
        >
          ‹
        </Button>
        <b>{year}</b>
        <Button
          size="small"
          look="text"
          aria-label="A year later"
          onClick={() => onMove(inYear(on, year + 1))}
        >
          ›
        </Button>
      </div>
      {on !== today && (
        <Button className="ribbon-today" size="small" onClick={() => onMove(today)}>
          Today
        </Button>
      )}
    </>
  )
}

/** The as-of date on its line, its words kept inside the ribbon. */
function Flag({ day, x, from, to }: { day: IsoDate; x: number; from: number; to: number }) {
  const middle = Math.min(to - FLAG_WIDTH / 2, Math.max(from + FLAG_WIDTH / 2, x))
  return (
    <>
      <line x1={x} x2={x} y1={4} y2={FOOT_Y + 2} stroke="var(--act)" strokeWidth={2.2} />
      <rect className="ribbon-flag" x={middle - FLAG_WIDTH / 2} y={1} width={FLAG_WIDTH} height={18} rx={2} />
      <text className="ribbon-flag-text" x={middle} y={14} textAnchor="middle">
        {shortDate(day)}
      </text>
    </>
  )
}

/** A pause this long, in milliseconds, means that the date is where it was wanted. */
const SETTLE_MS = 300

/**
 * The date while it is being dragged or stepped: it moves at once here, and the rest of the application follows when it
 * settles, so that a year dragged through does not ask the server for every day of it.
 */
function useMovingDate(
  settled: IsoDate,
  setOn: (day: IsoDate) => void,
): [on: IsoDate, move: (day: IsoDate) => void, settle: () => void] {
  const [moving, setMoving] = useState<{ day: IsoDate; isSent: boolean }>()
  const settle = useCallback(() => {
    if (!moving || moving.isSent) return
    setOn(moving.day)
    // It is shown until the address has followed: a step in between starts from it, not from where it was.
    setMoving(moving.day === settled ? undefined : { ...moving, isSent: true })
  }, [moving, setOn, settled])
  useEffect(() => {
    if (!moving || moving.isSent) return
    const timer = setTimeout(settle, SETTLE_MS)
    return () => clearTimeout(timer)
  }, [moving, settle])
  const [followed, setFollowed] = useState(settled)
  if (followed !== settled) {
    setFollowed(settled)
    if (moving?.isSent) setMoving(undefined)
  }
  const move = (day: IsoDate) => setMoving({ day, isSent: false })
  return [moving?.day ?? settled, move, settle]
}

function inYear(day: IsoDate, year: number): IsoDate {
  return day.slice(5) === '02-29' ? `${year}-02-28` : `${year}${day.slice(4)}`
}

function useStepKeys(step: (days: number) => void, goToday: () => void) {
  // Keys act from the moment that the ribbon is seen.
  useLayoutEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const at = e.target as HTMLElement
      if (
        e.ctrlKey ||
        e.metaKey ||
        e.altKey ||
        at.closest('input, textarea, select, [role="combobox"], [role="dialog"]')
      )
        return
      if (e.key === '[') step(-WEEK)
      if (e.key === ']') step(WEEK)
      if (e.key === 't') goToday()
    }
    addEventListener('keydown', onKey)
    return () => removeEventListener('keydown', onKey)
  }, [step, goToday])
}
