import type { FeatureView } from '@border/contract'
import { areaM2, corner, extentOf, handlesOfStroke, type Point } from '@border/core'
import { Alert } from 'antd'
import { CornerInputs } from '../draw/CornerInputs.tsx'
import '../draw/draw.css'
import { OutlineShape } from '../draw/DraftShape.tsx'
import { PointInputs } from '../draw/PointInputs.tsx'
import { useStroke } from '../draw/useStroke.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useSize } from '../frame/useSize.ts'
import { PlanDrawing } from '../plan/PlanDrawing.tsx'
import { fitPlan, grow, pointsOf, type PlanScale } from '../plan/scale.ts'
import { outlineOf, toCm, type Drift } from './useDrift.ts'

interface Props {
  drift: Drift
  bed: FeatureView
  /** A planting that is left out of the drawing: it is drawn anew. */
  without: string | undefined
}

/** How far a drift may lie from what a finger drew, metres. */
const OFF_M = 0.05

/** Where in a bed a drift is: drawn with a finger, clicked corner by corner, or typed. */
export function DriftOnPlan({ drift, bed, without }: Props) {
  const { isDrawn, handles, middle } = drift
  if (!middle) return null
  return (
    <>
      <BedDrawing
        bed={bed}
        without={without}
        label={isDrawn ? 'the corners of the drift, or draw round it' : 'where the drift goes'}
        onSpot={([x, y]) => {
          const at: Point = [toCm(x), toCm(y)]
          if (isDrawn) drift.setHandles([...handles, corner(at)])
          else drift.setMiddle(at)
        }}
        onStroke={
          isDrawn
            ? (stroke) => {
                const drawn = handlesOfStroke(stroke, OFF_M)
                if (drawn.length > 0) drift.setHandles(drawn)
              }
            : undefined
        }
        overlay={(scale) =>
          isDrawn ? (
            <OutlineShape drawn={{ handles, closed: true }} scale={scale} />
          ) : (
            <circle className="plan-mark" cx={scale.x(middle[0])} cy={scale.y(middle[1])} r={9} />
          )
        }
      />
      {isDrawn ? (
        <Corners drift={drift} />
      ) : (
        <div className="row" style={{ marginBottom: 8 }}>
          <span>Middle of the drift:</span>
          <PointInputs at={middle} onAt={drift.setMiddle} />
        </div>
      )}
    </>
  )
}

/** Outlines with more corners than this are not typed corner by corner. */
const TYPED = 12

function Corners({ drift: { handles, setHandles, wrong } }: { drift: Drift }) {
  return (
    <>
      {handles.length <= TYPED && (
        <CornerInputs
          drawn={{ handles, closed: true }}
          least={3}
          held={undefined}
          onHold={() => undefined}
          onHandles={setHandles}
        />
      )}
      {handles.length > 0 && (
        <div className="row">
          <span>{handles.length > 2 && !wrong ? `${toCm(areaM2(outlineOf(handles)))} m²` : ''}</span>
          <Button size="small" onClick={() => setHandles(handles.slice(0, -1))}>
            Take the last corner back
          </Button>
          <Button size="small" onClick={() => setHandles([])}>
            Draw it anew
          </Button>
        </div>
      )}
      {wrong && handles.length > 2 && <Alert type="error" title={wrong} />}
    </>
  )
}

interface BedDrawingProps {
  bed: FeatureView
  without: string | undefined
  /** What a click is for. */
  label: string
  onSpot: (at: Point) => void
  /** What a finger drew; absent where it draws nothing. */
  onStroke: ((stroke: Point[]) => void) | undefined
  overlay: (scale: PlanScale) => React.ReactNode
}

const HEIGHT_PX = 230

/** One bed of the plan, as wide as there is room, to be clicked or drawn on. */
function BedDrawing({ bed, without, label, onSpot, onStroke, overlay }: BedDrawingProps) {
  const { view, on } = useGardenContext()
  const [ref, { width }] = useSize()
  const extent = grow(extentOf(pointsOf(bed)), 1)
  const stroke = useStroke(fitPlan(extent, Math.max(60, width), HEIGHT_PX), onStroke)
  return (
    <div className="drawing" ref={ref} {...stroke.hands}>
      {width > 0 && (
        <PlanDrawing
          features={view.features}
          plantings={view.plantings.filter((p) => p.id !== without)}
          on={on}
          northDeg={view.garden.northDeg}
          width={width}
          height={HEIGHT_PX}
          extent={extent}
          label={`Plan of ${bed.name}; click ${label}`}
          onPick={(p) => p.kind === 'spot' && onSpot([p.x, p.y])}
          overlay={(scale) => (
            <>
              {overlay(scale)}
              {stroke.points.length > 1 && (
                <polyline
                  className="draft-stroke"
                  points={stroke.points.map(([x, y]) => `${scale.x(x)},${scale.y(y)}`).join(' ')}
                />
              )}
            </>
          )}
        />
      )}
    </div>
  )
}
