import type { Point } from '@border/core'
import { useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import { PlanDrawing } from '../plan/PlanDrawing.tsx'
import { gardenExtent, type PlanScale } from '../plan/scale.ts'
import { usePlanCorners } from '../survey/planCorners.ts'
import { PictureLying, type Lying } from './PicturesUnder.tsx'
import { Stage, type Staged } from './Stage.tsx'
import './pictures.css'

/** A click so near to a corner on the plan is meant for it, pixels. */
const MEANT_PX = 12

interface Props {
  marks: readonly { name: string; at: Point | undefined }[]
  /** As it would lie; undefined while that is not told. */
  picture: Lying | undefined
  /** The plan was clicked, at a corner where one is near. */
  onAt: (at: Point) => void
}

/** The plan with the points that are marked in a picture, and the picture as it would lie. */
export function TieDrawing(props: Props) {
  const { view } = useGardenContext()
  const whole = useMemo(() => gardenExtent(view.features), [view.features])
  return (
    <Stage
      what="plan"
      whole={whole}
      className="over-picture"
      draw={(staged) => <Tied {...props} {...staged} />}
    />
  )
}

function Tied({ marks, picture, onAt, viewport, size }: Props & Staged) {
  const { view, on } = useGardenContext()
  const corners = usePlanCorners()
  const meant = (at: Point): Point => {
    const apart = (p: { x: number; y: number }) => Math.hypot(p.x - at[0], p.y - at[1])
    const near = corners.filter((c) => apart(c) * viewport.scale.pxPerM < MEANT_PX)
    const [best] = near.sort((a, b) => apart(a) - apart(b))
    return best ? [best.x, best.y] : [Math.round(at[0] * 100) / 100, Math.round(at[1] * 100) / 100]
  }
  const overlay = (scale: PlanScale) => (
    <g>
      {marks.map(
        ({ name, at }) =>
          at && (
            <g key={name} className="tie-mark" transform={`translate(${scale.x(at[0])},${scale.y(at[1])})`}>
              <path d="M-9,0H9M0,-9V9" />
              <circle r={5} />
              <text x={9} y={-8}>
                {name}
              </text>
            </g>
          ),
      )}
    </g>
  )
  return (
    <PlanDrawing
      features={view.features}
      plantings={[]}
      on={on}
      northDeg={view.garden.northDeg}
      width={size.width}
      height={size.height}
      extent={viewport.extent}
      content={viewport.content}
      label="The plan: click where the point lies"
      onPick={(picked) => picked.kind === 'spot' && onAt(meant([picked.x, picked.y]))}
      overlay={overlay}
      underlay={
        picture && ((scale) => <PictureLying gardenId={view.garden.id} picture={picture} scale={scale} />)
      }
    />
  )
}
