import {
  appearanceOn,
  AS_PLANTED,
  autumnColour,
  driftOutlines,
  driftsM2,
  extentOf,
  groundOf,
  middleOfDrift,
  placeOutline,
  plantsOf,
  SEEN_OPEN,
  SEEN_TURNED,
  withMoved,
  type Arrangement,
  type BedGround,
  type Drift,
  type Planting,
  type Pocket,
  sizeAt,
  softPath,
  STONE_M,
  type StandingPlant,
  type Point,
  type Taxon,
} from '@border/core'
import { memo, useDeferredValue, useId, useMemo, useRef, useState } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useSize } from '../frame/useSize.ts'
import { useStroke } from '../draw/useStroke.ts'
import { Mass } from '../plan/habit.tsx'
import { placeLabels } from '../plan/labels.ts'
import { inPixels, ScaleAndNorth } from '../plan/PlanDrawing.tsx'
import { fitPlan, grow, type PlanScale } from '../plan/scale.ts'
import type { Moment } from './useMoment.tsx'
import '../draw/draw.css'
import '../plan/plan.css'
import './rework.css'

interface Props {
  ground: BedGround
  arranged: Arrangement
  pockets: readonly Pocket[]
  /** Stepping stones; absent where none are shown. */
  stones?: readonly Point[] | undefined
  /** Annuals that fill what is open at that moment. */
  fillers?: readonly StandingPlant[] | undefined
  /** Letters of the kinds, where a list beside the drawing tells them. */
  letters?: ReadonlyMap<string, string> | undefined
  /** When it is looked at; absent where it is drawn as it is planted. */
  moment?: Pick<Moment, 'on' | 'year' | 'years'> | undefined
  chosen: string | undefined
  onChoose: (driftId: string | undefined) => void
  /** A drift was moved to where its middle is to lie. */
  onMoved: ((arranged: Arrangement) => void) | undefined
  /** Something is drawn by hand; absent where hands choose and move. */
  onDrawn?: ((ring: Point[]) => void) | undefined
  /** What is under the pointer. */
  onPoint?: (at: Point | undefined) => void
  /** Keys that do something to the chosen drift. @returns whether it was done */
  onKey: (key: string, shift: boolean) => boolean
}

/** A bed to scale with its drifts: chosen, dragged, drawn. */
export function BedDrawing(props: Props) {
  const [ref, size] = useSize()
  return (
    <div className="bed-drawing" ref={ref}>
      {size.width > 0 && <Drawn {...props} width={size.width} height={size.height} />}
    </div>
  )
}

/** Room about a bed, metres. */
const ABOUT_M = 0.6

function Drawn(props: Props & { width: number; height: number }) {
  const { ground, arranged, chosen, onChoose, onDrawn, onPoint, onKey, width, height } = props
  const { view } = useGardenContext()
  const outline = useMemo(() => placeOutline(ground.of.place), [ground.of.place])
  const scale = useMemo(
    () => fitPlan(grow(extentOf(outline), ABOUT_M), width, height, 14),
    [outline, width, height],
  )
  const clip = useId()
  const drag = useDrag(props, scale)
  const shown = drag.shown ?? arranged
  const stroke = useStroke(scale, onDrawn)
  const at = (e: React.PointerEvent): Point => scale.at(...pixelsIn(e))
  return (
    <svg
      className={`plan bed-plan${onDrawn ? ' drawing' : ''}`}
      width={width}
      height={height}
      role="application"
      tabIndex={0}
      aria-label={`${ground.of.place.name} with its drifts. ${KEYS}`}
      onKeyDown={(e) => {
        if (!e.ctrlKey && !e.metaKey && onKey(e.key, e.shiftKey)) e.preventDefault()
      }}
      onPointerMove={(e) => onPoint?.(at(e))}
      onPointerLeave={() => onPoint?.(undefined)}
      onClick={() => onChoose(undefined)}
    >
      <rect width={width} height={height} fill="var(--plan-ground)" />
      <g {...stroke.hands}>
        <path className="bed-outline" d={polygon(outline, scale)} />
        <Stays stays={ground.stays} scale={scale} />
        <clipPath id={clip}>
          <path d={polygon(outline, scale)} />
        </clipPath>
        <g clipPath={`url(#${clip})`}>
          <Drifts
            isAsPlanted={!props.moment}
            {...{ ground, arranged: shown, scale, chosen, onChoose }}
            onGrab={onDrawn || !props.onMoved ? undefined : drag.grab}
          />
        </g>
        {!drag.shown && (
          <Plants
            {...{ ground, arranged, scale }}
            pockets={props.pockets}
            moment={props.moment}
            fillers={props.fillers}
          />
        )}
        {!drag.shown &&
          props.stones?.map(([x, y]) => (
            <ellipse
              key={`${x} ${y}`}
              className="bed-stone"
              cx={scale.x(x)}
              cy={scale.y(y)}
              rx={STONE_M * scale.pxPerM}
              ry={0.75 * STONE_M * scale.pxPerM}
            >
              <title>Stepping stone</title>
            </ellipse>
          ))}
        <Names {...{ ground, arranged: shown, scale, width, height }} letters={props.letters} />
        {stroke.points.length > 1 && (
          <polyline
            className="bed-hand"
            points={stroke.points.map(([x, y]) => `${scale.x(x)},${scale.y(y)}`).join(' ')}
          />
        )}
      </g>
      <Views viewedFrom={ground.viewedFrom} width={width} height={height} />
      <ScaleAndNorth scale={scale} width={width} height={height} northDeg={view.garden.northDeg} />
    </svg>
  )
}

const KEYS =
  'Full stop and comma take the next drift and the one before; arrow keys move the one in hand, plus and minus change how many, s splits it, Delete takes it out.'

const pixelsIn = (e: React.PointerEvent): Point => {
  const { left, top } = e.currentTarget.getBoundingClientRect()
  return [e.clientX - left, e.clientY - top]
}

const polygon = (ring: readonly Point[], scale: PlanScale): string =>
  `M${ring.map(([x, y]) => `${scale.x(x)},${scale.y(y)}`).join('L')}Z`

/** Nearer than this to where it was pressed, a hand means a click, pixels. */
const STILL_PX = 4

/** A drift dragged: shown where it would lie with all others making room, and kept when it is let go. */
function useDrag({ ground, arranged, onChoose, onMoved }: Props, scale: PlanScale) {
  const [shown, show] = useState<Arrangement>()
  const held = useRef<{ id: string; from: Point; middle: Point; moved: boolean }>(undefined)
  const frame = useRef(0)
  const grab = (id: string, middle: Point) => ({
    onPointerDown: (e: React.PointerEvent) => {
      if (e.button !== 0) return
      e.currentTarget.setPointerCapture(e.pointerId)
      held.current = { id, from: [e.clientX, e.clientY], middle, moved: false }
    },
    onPointerMove: (e: React.PointerEvent) => {
      const h = held.current
      if (!h || h.id !== id) return
      const [dx, dy] = [e.clientX - h.from[0], e.clientY - h.from[1]]
      if (!h.moved && Math.hypot(dx, dy) < STILL_PX) return
      h.moved = true
      const to: Point = [h.middle[0] + dx / scale.pxPerM, h.middle[1] - dy / scale.pxPerM]
      // Once for every picture that is shown, however often the hand is asked.
      cancelAnimationFrame(frame.current)
      frame.current = requestAnimationFrame(() => show(withMoved(ground, arranged, id, to)))
    },
    onPointerUp: (e: React.PointerEvent) => {
      const h = held.current
      held.current = undefined
      cancelAnimationFrame(frame.current)
      if (!h) return
      onChoose(id)
      if (!h.moved) return
      const [dx, dy] = [e.clientX - h.from[0], e.clientY - h.from[1]]
      show(undefined)
      onMoved?.(
        withMoved(ground, arranged, id, [h.middle[0] + dx / scale.pxPerM, h.middle[1] - dy / scale.pxPerM]),
      )
    },
    onPointerCancel: () => {
      held.current = undefined
      cancelAnimationFrame(frame.current)
      show(undefined)
    },
  })
  return { shown, grab }
}

const Stays = memo(function Stays({ stays, scale }: { stays: readonly Planting[]; scale: PlanScale }) {
  return stays.map((p) => (
    <g key={p.id} className="bed-stays">
      <title>{`${p.taxon.common}, ${p.livingCount}: stays`}</title>
      <Mass id={p.id} taxon={p.taxon} ground={inPixels(groundOf(p), scale)} count={p.livingCount} />
    </g>
  ))
})

interface DriftsProps {
  ground: BedGround
  arranged: Arrangement
  scale: PlanScale
}

function Drifts({
  ground,
  arranged,
  scale,
  chosen,
  onChoose,
  onGrab,
  isAsPlanted,
}: DriftsProps & {
  isAsPlanted: boolean
  chosen: string | undefined
  onChoose: (id: string) => void
  onGrab: ((id: string, middle: Point) => object) | undefined
}) {
  const outlines = useMemo(() => driftOutlines(ground, arranged), [ground, arranged])
  return arranged.drifts.map((d, k) => {
    const middle = middleOfDrift(ground, arranged, d.id)
    if (!middle) return null
    return (
      <path
        key={d.id}
        className={`bed-drift${chosen === d.id ? ' chosen' : ''}${d.isDrawn ? ' drawn' : ''}`}
        d={softPath(outlines[k]!, scale)}
        fillRule="evenodd"
        // As it is at a moment it is told by its plants.
        style={{ fill: isAsPlanted ? d.taxon.foliageColour : 'transparent' }}
        onClick={(e) => {
          e.stopPropagation()
          if (!onGrab) onChoose(d.id)
        }}
        {...onGrab?.(d.id, middle)}
      >
        <title>{`${d.taxon.common}, ${d.count}`}</title>
      </path>
    )
  })
}

/** Every plant where it stands, in the colour that it flowers in; worked out when there is time for it. */
const Plants = memo(function Plants({
  ground,
  arranged,
  scale,
  pockets,
  moment,
  fillers = [],
}: DriftsProps & Pick<Props, 'pockets' | 'moment' | 'fillers'>) {
  const settled = useDeferredValue(arranged)
  const plants = useMemo(() => plantsOf(ground, settled), [ground, settled])
  const looks = new Map(settled.drifts.map((d) => [d.id, lookOf(d.taxon, moment)]))
  return (
    <g className="bed-plants">
      {plants.map((p, i) => {
        const { acrossM, fill } = looks.get(p.driftId)!
        return (
          <circle
            key={i}
            cx={scale.x(p.x)}
            cy={scale.y(p.y)}
            r={Math.max(1.5, (acrossM / 2) * scale.pxPerM)}
            style={{ fill }}
          />
        )
      })}
      {fillers.map((f) => {
        const { acrossM, fill } = lookOf(f.taxon, moment)
        return (
          acrossM > 0 && (
            <circle
              key={f.id}
              cx={scale.x(f.x)}
              cy={scale.y(f.y)}
              r={Math.max(1, (acrossM / 2) * scale.pxPerM)}
              style={{ fill }}
            />
          )
        )
      })}
      {pockets.map((p, i) => (
        <path key={`b${i}`} className="bed-pocket" d={drop(scale.x(p.x), scale.y(p.y))}>
          <title>{`${p.bulbs} bulbs`}</title>
        </path>
      ))}
    </g>
  )
})

const STRAW = '#b8a478'

/** How a plant is drawn from above: as it is planted, in the colour that it flowers in; or as it is at a moment, as wide as it has grown. */
function lookOf(taxon: Taxon, moment: Props['moment']): { acrossM: number; fill: string } {
  if (!moment)
    return { acrossM: AS_PLANTED * taxon.spacingM, fill: taxon.flowerColour ?? taxon.foliageColour }
  const { spreadM } = sizeAt(taxon, moment.years)
  const is = appearanceOn(taxon, moment.on, moment.year)
  const acrossM = Math.min(spreadM, MOST_OVERLAP * taxon.spacingM)
  if (is.height === 0) return { acrossM: 0, fill: 'var(--plan-line)' }
  if (is.flower >= SEEN_OPEN && taxon.flowerColour) return { acrossM, fill: taxon.flowerColour }
  if (is.isStraw) return { acrossM, fill: STRAW }
  if (is.turned >= SEEN_TURNED) return { acrossM, fill: autumnColour(taxon) }
  return { acrossM: is.leaf > 0.2 ? acrossM : acrossM / 2, fill: taxon.foliageColour }
}
/** Wider than that they hide each other. */
const MOST_OVERLAP = 1.3

/** A bulb, five pixels high. */
const drop = (x: number, y: number): string => `M${x},${y - 5}q5,5 0,9q-5,-4 0,-9z`

const PX_PER_LETTER = 6.4
/** A name may reach so far beyond its drift, as a share of how wide that is. */
const BEYOND = 1.5

/** How a drift is named where it is so wide, pixels: how many of what, or how many and the letter of the kind alone. */
const nameOf = ({ count, taxon }: Drift, widePx: number, letter = ''): string =>
  `${count} ${taxon.common}`.length * PX_PER_LETTER <= BEYOND * widePx
    ? `${count} ${taxon.common}`
    : `${count} ${letter}`.trimEnd()

/** The name of every drift in its middle, as far as there is room. */
function Names({
  ground,
  arranged,
  scale,
  letters,
  width,
  height,
}: DriftsProps & Pick<Props, 'letters'> & { width: number; height: number }) {
  const labels = useMemo(() => {
    const m2 = driftsM2(ground, arranged)
    const wanted = arranged.drifts.flatMap((d, k) => {
      const middle = middleOfDrift(ground, arranged, d.id)
      if (!middle) return []
      return [
        {
          key: d.id,
          text: nameOf(d, 2 * Math.sqrt(m2[k]! / Math.PI) * scale.pxPerM, letters?.get(d.taxon.botanical)),
          x: scale.x(middle[0]),
          y: scale.y(middle[1]) + 4,
          kind: 'planting' as const,
          weight: m2[k]!,
        },
      ]
    })
    return placeLabels(wanted, width, height - 30)
  }, [ground, arranged, scale, letters, width, height])
  return (
    <g className="plan-labels">
      {labels.map((l) => (
        <text key={l.key} x={l.x} y={l.y} textAnchor="middle" className="plan-label-planting">
          {l.text}
        </text>
      ))}
    </g>
  )
}

/** Where the bed is seen from: an eye at each side that counts. */
function Views({
  viewedFrom,
  width,
  height,
}: {
  viewedFrom: readonly number[]
  width: number
  height: number
}) {
  return viewedFrom.map((deg) => {
    const a = (deg * Math.PI) / 180
    const [dx, dy] = [Math.sin(a), -Math.cos(a)]
    const reach = Math.min(
      (width / 2 - 16) / Math.max(1e-6, Math.abs(dx)),
      (height / 2 - 16) / Math.max(1e-6, Math.abs(dy)),
    )
    const [x, y] = [width / 2 + reach * dx, height / 2 + reach * dy]
    return (
      <g key={deg} className="bed-eye" transform={`translate(${x} ${y})`}>
        <title>Seen from here</title>
        <path d="M-8,0q8,-7 16,0q-8,7 -16,0z" />
        <circle r={2.4} />
      </g>
    )
  })
}
