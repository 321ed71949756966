import type { Point } from '@border/core'
import type { PlanScale } from '../plan/scale.ts'

interface Props {
  corners: readonly Point[]
  closed: boolean
  scale: PlanScale
}

/** What is being drawn, over the plan: its corners, numbered. */
export function DraftShape({ corners, closed, scale }: Props) {
  const points = corners.map((c) => `${scale.x(c[0])},${scale.y(c[1])}`).join(' ')
  return (
    <g className="draft">
      {closed ? <polygon points={points} /> : <polyline points={points} fill="none" />}
      {corners.map((c, i) => (
        <g key={i}>
          <circle cx={scale.x(c[0])} cy={scale.y(c[1])} r={5} />
          <text x={scale.x(c[0]) + 8} y={scale.y(c[1]) - 6}>
            {i + 1}
          </text>
        </g>
      ))}
    </g>
  )
}
