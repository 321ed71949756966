import { dayNumber, type DayChoice, type IsoDate, type Window } from '@border/core'
import { max } from 'd3-array'
import { scaleLinear } from 'd3-scale'
import { useRef, useState } from 'react'
import { useSize } from '../frame/useSize.ts'
import { shortDate, shortDayMonth } from '../frame/words.ts'

interface Props {
  /** Working days inside the window, in order. */
  days: readonly DayChoice[]
  window: Window
  plannedOn: IsoDate | null
  label: string
  /** What is said of a day. */
  says: (day: DayChoice) => string
  onChoose: (day: IsoDate) => void
}

const HEIGHT = 74
const BASE = 52
const TALLEST = 38
const MARGIN = 9
/** Days that a key moves the mark by. */
const STEPS: Record<string, number> = {
  ArrowRight: 1,
  ArrowUp: 1,
  ArrowLeft: -1,
  ArrowDown: -1,
  PageUp: 7,
  PageDown: -7,
}

/**
 * The days a job could be on: how much counts against each, and which are barred. The mark is dragged to another day, or
 * moved with the arrow keys and set down with Enter; what the day would cost is told on the way.
 */
export function DayStrip({ days, window, plannedOn, label, says, onChoose }: Props) {
  const [ref, { width }] = useSize()
  const svg = useRef<SVGSVGElement>(null)
  const x = scaleLinear(
    [dayNumber(window.earliest), Math.max(dayNumber(window.earliest) + 1, dayNumber(window.latest))],
    [MARGIN, Math.max(2 * MARGIN, width - MARGIN)],
  )
  const xOf = (day: IsoDate) => x(dayNumber(day))
  const { held, here, index, hold, drop, leave, onKeyDown } = useHeld(days, plannedOn, onChoose)
  const holdNearest = (clientX: number) => {
    const px = clientX - svg.current!.getBoundingClientRect().left
    const away = (d: DayChoice) => Math.abs(xOf(d.day) - px)
    hold(
      days.reduce<DayChoice | undefined>((best, d) => (best && away(best) <= away(d) ? best : d), undefined),
    )
  }
  if (days.length === 0) return <p className="soft">Nobody works on any day of its window.</p>
  return (
    <div ref={ref} className="day-strip">
      {width > 0 && (
        <svg
          ref={svg}
          width={width}
          height={HEIGHT}
          role="slider"
          tabIndex={0}
          aria-label={label}
          aria-valuemin={0}
          aria-valuemax={days.length - 1}
          aria-valuenow={Math.max(0, index)}
          aria-valuetext={here ? `${shortDate(here.day)}: ${says(here)}` : 'no day yet'}
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId)
            holdNearest(e.clientX)
          }}
          onPointerMove={(e) => {
            if (e.buttons > 0 && held) holdNearest(e.clientX)
          }}
          onPointerUp={drop}
          onPointerCancel={leave}
          onBlur={leave}
          onKeyDown={onKeyDown}
        >
          <Days days={days} window={window} xOf={xOf} />
          {here && (
            <path
              d={`M${xOf(here.day)},${BASE - 5}l6,7.5l-6,7.5l-6,-7.5Z`}
              className={`day-strip-mark${held ? ' held' : ''}${here.isFree || here.day === plannedOn ? '' : ' barred'}`}
            />
          )}
          <text x={MARGIN - 6} y={HEIGHT - 2}>
            {shortDayMonth(window.earliest)}
          </text>
          <text x={width - MARGIN + 6} y={HEIGHT - 2} textAnchor="end">
            {shortDayMonth(window.latest)}
          </text>
        </svg>
      )}
      <p aria-live="polite" className={here && !here.isFree && held ? 'late' : ''}>
        {held && here ? <Held day={here} isWhereItWas={held === plannedOn} says={says(here)} /> : <HowTo />}
      </p>
    </div>
  )
}

/** The mark in hand: held over a day, set down on it, or left where it was; by the keys too. */
function useHeld(days: readonly DayChoice[], plannedOn: IsoDate | null, onChoose: (day: IsoDate) => void) {
  const [held, setHeld] = useState<IsoDate | null>(null)
  const index = days.findIndex((d) => d.day === (held ?? plannedOn))
  const here = days[index]
  const hold = (day: DayChoice | undefined) => setHeld(day?.day ?? null)
  const leave = () => setHeld(null)
  const step = (by: number) => hold(days[Math.max(0, Math.min(days.length - 1, index < 0 ? 0 : index + by))])
  const drop = () => {
    if (held && held !== plannedOn && here) onChoose(held)
    leave()
  }
  const onKeyDown = (e: React.KeyboardEvent) => {
    const move = STEPS[e.key]
    if (move) step(move)
    else if (e.key === 'Home') step(-days.length)
    else if (e.key === 'End') step(days.length)
    else if (e.key === 'Enter' || e.key === ' ') drop()
    else if (e.key === 'Escape') leave()
    else return
    e.preventDefault()
  }
  return { held, here, index, hold, drop, leave, onKeyDown }
}

/** The window with its best stretch, and of every day what counts against it, or that it is barred. */
function Days({ days, window, xOf }: Pick<Props, 'days' | 'window'> & { xOf: (day: IsoDate) => number }) {
  const most = Math.max(60, max(days, (d) => d.cost ?? 0) ?? 0)
  return (
    <>
      <rect
        x={xOf(window.earliest)}
        width={Math.max(3, xOf(window.latest) - xOf(window.earliest))}
        y={BASE}
        height={5}
        className="year-window"
      />
      <rect
        x={xOf(window.bestFrom)}
        width={Math.max(3, xOf(window.bestTo) - xOf(window.bestFrom))}
        y={BASE}
        height={5}
        className="year-best"
      />
      {days.map((d) =>
        d.isFree ? (
          <line
            key={d.day}
            x1={xOf(d.day)}
            x2={xOf(d.day)}
            y1={BASE - 2}
            y2={BASE - 4 - (TALLEST * d.cost!) / most}
            className="day-strip-free"
          />
        ) : (
          <path
            key={d.day}
            d={`M${xOf(d.day) - 2.5},${BASE - 9}l5,5m0,-5l-5,5`}
            className="day-strip-barred"
          />
        ),
      )}
    </>
  )
}

const Held = ({ day, isWhereItWas, says }: { day: DayChoice; isWhereItWas: boolean; says: string }) => (
  <>
    <b>{shortDate(day.day)}</b>: {says}
    {!isWhereItWas &&
      (day.isFree
        ? '. Let go, or press Enter, to pin it there.'
        : '. Pinned there all the same, other work has to make room for it.')}
  </>
)

const HowTo = () => (
  <small>
    Drag the mark, or use the arrow keys and Enter. Bars: what counts against a day. ×: as things stand it
    does not fit there.
  </small>
)
