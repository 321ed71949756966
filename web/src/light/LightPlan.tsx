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
import { hoursAtPoint, picturesOf, potColoursOf, type Measure, type Stretch } from './look.ts'
import { usePlaceAt } from './usePlaceAt.ts'
import type { LitScene } from './usePlanLight.ts'
import type { MomentState } from './useMoment.ts'

interface Props {
  scene: LitScene
  /** Shown as the difference to this. */
  less?: GardenField | undefined
  caption?: string
  extent: Extent
  stretch: Stretch
  measure: Measure
  /** Shadows at a moment instead of hours. */
  moment: MomentState | undefined
  tried?: ReadonlyMap<string, Obstruction | null> | undefined
  flagged: ReadonlySet<string>
  selectedId: string | undefined
  spot: Point | undefined
  onPick: (picked: Picked) => void
  onDrag?: (id: string, stepM: Point) => void
  onKeyDown: (e: React.KeyboardEvent) => void
}

/** One drawing of the garden with its light, and the value under the pointer. */
export function LightPlan(props: Props) {
  const { view, on } = useGardenContext()
  const { scene: lit, less, stretch, measure, moment, spot } = props
  const [ref, size] = useSize()
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
  const placeAt = usePlaceAt()
  const [pointed, setPointed] = useState<Pointed>()
  const value = pointed && !moment ? valueText(pointed.at, props, placeAt(pointed.at)?.id) : undefined
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
          extent={props.extent}
          fields={fields}
          potColours={pots}
          shadows={shadows}
          tried={props.tried}
          flagged={props.flagged}
          selectedId={props.selectedId}
          onPick={props.onPick}
          onPoint={setPointed}
          onDrag={props.onDrag}
          onKeyDown={props.onKeyDown}
          label={`Plan of ${view.garden.name} with ${moment ? 'shadows' : 'hours of sun'}${
            props.caption ? `, ${props.caption}` : ''
          }. Arrow keys move the marked spot.`}
          overlay={overlay}
        />
      )}
      {props.caption && <span className="light-caption">{props.caption}</span>}
      {value && pointed && (
        <output
          className="light-value"
          style={{
            left: Math.min(size.width - 150, pointed.px[0] + 12),
            top: Math.max(2, pointed.px[1] - 26),
          }}
        >
          {value}
        </output>
      )}
    </div>
  )
}

function valueText(
  at: Point,
  { scene, less, stretch }: Props,
  placeId: string | undefined,
): string | undefined {
  const hours = hoursAtPoint(scene.field, at, stretch, placeId)
  if (hours === undefined) return undefined
  if (!less) return stretch === 'total' ? `${quarterHours(hours)}, ${lightClass(hours)}` : quarterHours(hours)
  const before = hoursAtPoint(less, at, stretch, placeId)
  if (before === undefined) return undefined
  const change = hours - before
  return `${change > 0 ? '+' : ''}${quarterHours(change)}, to ${quarterHours(hours)}`
}
