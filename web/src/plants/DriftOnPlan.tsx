import type { FeatureView } from '@border/contract'
import { areaM2, extentOf, type Point } from '@border/core'
import { Alert } from 'antd'
import { CornerInputs } from '../draw/CornerInputs.tsx'
import '../draw/draw.css'
import { DraftShape } from '../draw/DraftShape.tsx'
import { snapped } from '../draw/outline.ts'
import { PointInputs } from '../draw/PointInputs.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useSize } from '../frame/useSize.ts'
import { PlanDrawing } from '../plan/PlanDrawing.tsx'
import { grow, pointsOf, type PlanScale } from '../plan/scale.ts'
import { toCm, type Drift } from './useDrift.ts'

interface Props {
  drift: Drift
  bed: FeatureView
  /** A planting that is left out of the drawing: it is drawn anew. */
  without: string | undefined
}

/** Where in a bed a drift is: clicked on the plan, or typed. */
export function DriftOnPlan({ drift, bed, without }: Props) {
  const { isDrawn, corners, middle } = drift
  if (!middle) return null
  return (
    <>
      <BedDrawing
        bed={bed}
        without={without}
        label={isDrawn ? 'the corners of the drift' : 'where the drift goes'}
        onSpot={([x, y]) => {
          if (isDrawn) drift.setCorners([...corners, snapped([x, y])])
          else drift.setMiddle([toCm(x), toCm(y)])
        }}
        overlay={(scale) =>
          isDrawn ? (
            <DraftShape corners={corners} closed scale={scale} />
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

function Corners({ drift: { corners, setCorners, wrong } }: { drift: Drift }) {
  return (
    <>
      <CornerInputs shape="Polygon" least={3} corners={corners} onCorners={setCorners} />
      {corners.length > 0 && (
        <div className="row">
          <span>{corners.length > 2 && !wrong ? `${toCm(areaM2(corners))} m²` : ''}</span>
          <Button size="small" onClick={() => setCorners(corners.slice(0, -1))}>
            Take the last corner back
          </Button>
        </div>
      )}
      {wrong && corners.length > 2 && <Alert type="error" title={wrong} />}
    </>
  )
}

interface BedDrawingProps {
  bed: FeatureView
  without: string | undefined
  /** What a click is for. */
  label: string
  onSpot: (at: Point) => void
  overlay: (scale: PlanScale) => React.ReactNode
}

/** One bed of the plan, as wide as there is room, to be clicked. */
function BedDrawing({ bed, without, label, onSpot, overlay }: BedDrawingProps) {
  const { view, on } = useGardenContext()
  const [ref, { width }] = useSize()
  return (
    <div className="drawing" ref={ref}>
      {width > 0 && (
        <PlanDrawing
          features={view.features}
          plantings={view.plantings.filter((p) => p.id !== without)}
          on={on}
          northDeg={view.garden.northDeg}
          width={width}
          height={210}
          extent={grow(extentOf(pointsOf(bed)), 1)}
          label={`Plan of ${bed.name}; click ${label}`}
          onPick={(p) => p.kind === 'spot' && onSpot([p.x, p.y])}
          overlay={overlay}
        />
      )}
    </div>
  )
}
