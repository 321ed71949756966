import {
  directionAt,
  lightClass,
  quarterHours,
  shadowsAt,
  type Extent,
  type GardenField,
  type Obstruction,
  type Point,
} from '@border/core'
import { useCallback, useMemo, useState } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useSize } from '../frame/useSize.ts'
import { PlanDrawing, type Picked, type Pointed } from '../plan/PlanDrawing.tsx'
import type { PlanScale } from '../plan/scale.ts'
import { useLight } from './lightContext.ts'
import { idOf, spotOf } from './lightState.ts'
import { hoursAtPoint, picturesOf, potColoursOf, type Stretch } from './look.ts'
import { usePlaceAt } from './usePlaceAt.ts'
import type { LitScene } from './usePlanLight.ts'

interface Props {
  scene: LitScene
  /** Shown as the difference to this. */
  less?: GardenField | undefined
  caption?: string
  tried?: ReadonlyMap<string, Obstruction | null> | undefined
  /** Whether what casts shade may be tried elsewhere by dragging it. */
  canDrag?: boolean
}

/** One drawing of the garden with its light, and the value under the pointer. */
export function LightPlan({ scene: lit, less, caption, tried, canDrag = false }: Props) {
  const { view } = useGardenContext()
  const { state, moment, outside, extent } = useLight()
  const { selected } = state
  const spot = spotOf(selected)
  const [ref, size] = useSize()
  const { fields, pots, shadows } = usePictures(lit, less)
  const overlay = useCallback(
    (scale: PlanScale) =>
      spot && (
        <g transform={`translate(${scale.x(spot[0])},${scale.y(spot[1])})`}>
          <circle r={8} className="plan-mark" />
          <circle r={2.2} fill="var(--act)" />
        </g>
      ),
    [spot],
  )
  const [pointed, setPointed] = useState<Pointed>()
  const hands = useHands(extent)
  return (
    <div className="light-plan" ref={ref}>
      {size.width > 0 && (
        <PlanDrawing
          features={view.features}
          plantings={view.plantings}
          on={lit.on}
          northDeg={view.garden.northDeg}
          width={size.width}
          height={size.height}
          extent={extent}
          fields={fields}
          potColours={pots}
          shadows={shadows}
          tried={tried}
          flagged={outside}
          selectedId={idOf(selected)}
          onPick={hands.pick}
          onPoint={setPointed}
          onDrag={canDrag ? hands.drag : undefined}
          onKeyDown={hands.nudge}
          label={`Plan of ${view.garden.name} with ${moment ? 'shadows' : 'hours of sun'}${
            caption ? `, ${caption}` : ''
          }. Arrow keys move the marked spot.`}
          overlay={overlay}
        />
      )}
      {caption && <span className="light-caption">{caption}</span>}
      {pointed && <ValueAt pointed={pointed} field={lit.field} less={less} widthPx={size.width} />}
    </div>
  )
}

/** What light and shadow are drawn of a scene: hours over a time, or the shadows of a moment. */
function usePictures(lit: LitScene, less: GardenField | undefined) {
  const { on } = useGardenContext()
  const { state, moment } = useLight()
  const { stretch, measure } = state
  const fields = useMemo(
    () => (moment ? [] : picturesOf(lit.field, { stretch, measure, less })),
    [moment, lit.field, stretch, measure, less],
  )
  const pots = useMemo(
    () => (moment ? undefined : potColoursOf(lit.field, { stretch, measure, less })),
    [moment, lit.field, stretch, measure, less],
  )
  const instantMs = moment?.current?.instantMs
  const shadows = useMemo(() => {
    const d = instantMs === undefined ? undefined : directionAt(lit.scene, instantMs)
    // A scene of another day is fixed as it stood; its trees are in the leaf of the day the sun is of.
    return d && shadowsAt(lit.scene, on, d)
  }, [instantMs, lit.scene, on])
  return { fields, pots, shadows }
}

/** The hours under the pointer, beside it. */
function ValueAt({
  pointed: { at, px },
  field,
  less,
  widthPx,
}: {
  pointed: Pointed
  field: GardenField | undefined
  less: GardenField | undefined
  widthPx: number
}) {
  const { state, moment } = useLight()
  const placeAt = usePlaceAt()
  if (moment) return null
  const value = valueText(at, { field, less, stretch: state.stretch }, placeAt(at)?.id)
  return (
    value && (
      <output
        className="light-value"
        style={{ left: Math.min(widthPx - 150, px[0] + 12), top: Math.max(2, px[1] - 26) }}
      >
        {value}
      </output>
    )
  )
}

/** What is done on the drawing: chosen, dragged, and the marked spot moved by the arrow keys. */
function useHands({ minX, maxX, minY, maxY }: Extent) {
  const { dispatch } = useLight()
  const pick = useCallback(
    (picked: Picked) =>
      dispatch({
        do: 'select',
        selected:
          picked.kind === 'spot'
            ? { kind: 'spot', at: [picked.x, picked.y] }
            : { kind: picked.kind, id: picked.id },
      }),
    [dispatch],
  )
  const drag = useCallback(
    (id: string, [dx, dy]: Point) =>
      dispatch({
        do: 'suppose',
        id,
        change: (before) => {
          const [x, y] = before?.movedM ?? [0, 0]
          return { ...before, obstructionId: id, movedM: [x + dx, y + dy] }
        },
      }),
    [dispatch],
  )
  const nudge = useCallback(
    (e: React.KeyboardEvent) => {
      const steps = arrows[e.key]
      if (!steps) return
      e.preventDefault()
      dispatch({ do: 'nudge', steps, middle: [(minX + maxX) / 2, (minY + maxY) / 2] })
    },
    [dispatch, minX, maxX, minY, maxY],
  )
  return { pick, drag, nudge }
}

const arrows: Readonly<Record<string, Point>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

function valueText(
  at: Point,
  {
    field,
    less,
    stretch,
  }: { field: GardenField | undefined; less: GardenField | undefined; stretch: Stretch },
  placeId: string | undefined,
): string | undefined {
  const hours = hoursAtPoint(field, at, stretch, placeId)
  if (hours === undefined) return undefined
  if (!less) return stretch === 'total' ? `${quarterHours(hours)}, ${lightClass(hours)}` : quarterHours(hours)
  const before = hoursAtPoint(less, at, stretch, placeId)
  if (before === undefined) return undefined
  const change = hours - before
  return `${change > 0 ? '+' : ''}${quarterHours(change)}, to ${quarterHours(hours)}`
}
