import { extentOf, type Adjusted } from '@border/core'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useSize } from '../frame/useSize.ts'
import { PlanDrawing } from '../plan/PlanDrawing.tsx'
import { gardenExtent, grow, type PlanScale } from '../plan/scale.ts'
import type { Tapes } from './tapes.ts'

/** Where a point lies 95 times in 100 is drawn so much larger: true to scale nobody would see it. */
const LARGER = 10
const HEIGHT_PX = 420

/** The points where the tapes put them, on the plan, each with its ellipse. */
export function TapesDrawing({ tapes, result }: { tapes: Tapes; result: Adjusted }) {
  const { view, on } = useGardenContext()
  const [ref, { width }] = useSize()
  const at = new Map([
    ...tapes.points.flatMap((p) =>
      p.x !== undefined && p.y !== undefined ? [[p.id, [p.x, p.y]] as const] : [],
    ),
    ...result.points.map((p) => [p.id, p.at] as const),
  ])
  const extent = at.size > 1 ? grow(extentOf(at.values()), 3) : gardenExtent(view.features)
  const overlay = (scale: PlanScale) => (
    <g className="tapes-overlay">
      {tapes.measured.map((m) => {
        if (m.kind !== 'distance') return null
        const [a, b] = [at.get(m.from), at.get(m.to)]
        if (!a || !b) return null
        return (
          <line
            key={m.id}
            className={result.blunder.includes(m.id) ? 'tape wrong' : 'tape'}
            x1={scale.x(a[0])}
            y1={scale.y(a[1])}
            x2={scale.x(b[0])}
            y2={scale.y(b[1])}
          />
        )
      })}
      {result.points.map((p) => (
        <ellipse
          key={p.id}
          className="tape-ellipse"
          rx={Math.max(3, p.ellipse.minorM * LARGER * scale.pxPerM)}
          ry={Math.max(3, p.ellipse.majorM * LARGER * scale.pxPerM)}
          transform={`translate(${scale.x(p.at[0])},${scale.y(p.at[1])}) rotate(${p.ellipse.headingDeg})`}
        />
      ))}
      {[...at].map(([id, p]) => (
        <g key={id} transform={`translate(${scale.x(p[0])},${scale.y(p[1])})`}>
          <circle r={3.5} />
          <text x={7} y={-6}>
            {id}
          </text>
        </g>
      ))}
    </g>
  )
  return (
    <figure className="tapes-figure" ref={ref}>
      {width > 0 && (
        <PlanDrawing
          features={view.features}
          plantings={[]}
          on={on}
          northDeg={view.garden.northDeg}
          width={width}
          height={HEIGHT_PX}
          extent={extent}
          label="The points as the tapes have them"
          overlay={overlay}
        />
      )}
      <figcaption>
        <small>Each ellipse, drawn ten times larger, holds its point 95 times in 100.</small>
      </figcaption>
    </figure>
  )
}
