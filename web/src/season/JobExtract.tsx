import type { PlantingView } from '@border/contract'
import { asDisc, extentOf, groundOf, walkingOrder, type Extent, type Point } from '@border/core'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useSize } from '../frame/useSize.ts'
import { PlanDrawing } from '../plan/PlanDrawing.tsx'
import { grow } from '../plan/scale.ts'
import { KindName } from '../frame/KindName.tsx'

/** Ground shown about the plants of a job, and least of it, metres: enough to find them by what stands beside. */
const ABOUT_M = 1.2
const LEAST_M = 4
const HEIGHT_PX = 210

/** Plants of a job in the order one comes to them: never far from one to the next. */
export function inWalkingOrder<P extends { id: string; x: number; y: number }>(plantings: readonly P[]): P[] {
  const order = walkingOrder(plantings.map(({ id, x, y }) => ({ id, at: [x, y] as const })))
  return order.map((id) => plantings.find((p) => p.id === id)!)
}

/** Ground about some plants, no less than one needs to see where it lies. */
export function groundAbout(plantings: readonly PlantingView[]): Extent {
  const reach = plantings.flatMap((p): Point[] => {
    const { x, y, radiusM } = asDisc(groundOf(p))
    return [
      [x - radiusM, y - radiusM],
      [x + radiusM, y + radiusM],
    ]
  })
  const e = grow(extentOf(reach), ABOUT_M)
  const [w, h] = [LEAST_M - (e.maxX - e.minX), LEAST_M - (e.maxY - e.minY)].map((m) => Math.max(0, m) / 2)
  return { minX: e.minX - w!, maxX: e.maxX + w!, minY: e.minY - h!, maxY: e.maxY + h! }
}

/** Where the plants of a job stand: an extract of the bed, each numbered in walking order, and which is which. */
export function JobExtract({ tags }: { tags: readonly string[] }) {
  const { view, on } = useGardenContext()
  const [ref, { width }] = useSize()
  const plants = inWalkingOrder(view.plantings.filter((p) => tags.includes(p.tag)))
  if (plants.length === 0) return null
  return (
    <figure className="job-extract" ref={ref}>
      {width > 0 && (
        <PlanDrawing
          features={view.features}
          plantings={view.plantings}
          on={on}
          northDeg={view.garden.northDeg}
          width={width}
          height={HEIGHT_PX}
          extent={groundAbout(plants)}
          isQuiet
          flagged={new Set(plants.map((p) => p.id))}
          label={`Where ${plants.map((p) => p.tag).join(', ')} stand`}
          overlay={(scale) =>
            plants.map((p, i) => (
              <g key={p.id} className="job-sheet-number">
                <circle cx={scale.x(p.x)} cy={scale.y(p.y)} r={11} />
                <text x={scale.x(p.x)} y={scale.y(p.y) + 4} textAnchor="middle">
                  {i + 1}
                </text>
              </g>
            ))
          }
        />
      )}
      <figcaption>
        {plants.map((p, i) => (
          <span key={p.id}>
            <b>{i + 1}</b> {p.tag} <KindName of={p.taxon} isShort />
          </span>
        ))}
      </figcaption>
    </figure>
  )
}
