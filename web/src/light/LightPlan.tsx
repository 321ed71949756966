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
import { useMemo } from 'react'
import { useGardenContext } from '../frame/GardenFrame.tsx'
import { useSize } from '../frame/useSize.ts'
import { PlanDrawing, type Picked } from '../plan/PlanDrawing.tsx'
import { hoursAtPoint, picturesOf, potColoursOf, type Measure, type Stretch } from './look.ts'
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
  pointed: Point | undefined
  onPick: (picked: Picked) => void
  onPoint: (at: Point | undefined) => void
  onDrag?: (id: string, byM: Point) => void
  onKeyDown: (e: React.KeyboardEvent) => void
}

/** One drawing of the garden with its light, and the value under the pointer. */
export function LightPlan(props: Props) {
  const { view } = useGardenContext()
  const { scene: lit, less, stretch, measure, moment, pointed, spot } = props
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
    return d && shadowsAt(lit.scene, lit.on, d)
  }, [instantMs, lit.scene, lit.on])
  const value = pointed && !moment ? valueText(pointed, props) : undefined
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
          {...(pots ? { potColours: pots } : {})}
          shadows={shadows}
          tried={props.tried}
          flagged={props.flagged}
          selectedId={props.selectedId}
          onPick={props.onPick}
          onPoint={props.onPoint}
          onDrag={props.onDrag}
          onKeyDown={props.onKeyDown}
          label={`Plan of ${view.garden.name} with ${moment ? 'shadows' : 'hours of sun'}${
            props.caption ? `, ${props.caption}` : ''
          }. Arrow keys move the marked spot.`}
          overlay={(scale) => (
            <>
              {spot && (
                <g transform={`translate(${scale.x(spot[0])},${scale.y(spot[1])})`}>
                  <circle r={8} className="plan-mark" />
                  <circle r={2.2} fill="var(--act)" />
                </g>
              )}
              {value && pointed && (
                <g
                  className="light-value"
                  transform={`translate(${Math.min(size.width - 130, scale.x(pointed[0]) + 12)},${Math.max(
                    18,
                    scale.y(pointed[1]) - 10,
                  )})`}
                >
                  <rect x={-5} y={-14} width={value.length * 6.6 + 10} height={20} rx={2} />
                  <text>{value}</text>
                </g>
              )}
            </>
          )}
        />
      )}
      {props.caption && <span className="light-caption">{props.caption}</span>}
    </div>
  )
}

function valueText(at: Point, { scene, less, stretch }: Props): string | undefined {
  const hours = hoursAtPoint(scene.field, at, stretch)
  if (hours === undefined) return undefined
  if (!less) return stretch === 'total' ? `${quarterHours(hours)}, ${lightClass(hours)}` : quarterHours(hours)
  const before = hoursAtPoint(less, at, stretch)
  if (before === undefined) return undefined
  const change = hours - before
  return `${change > 0 ? '+' : ''}${quarterHours(change)}, to ${quarterHours(hours)}`
}
