import type { FeatureView } from '@border/contract'
import { middleOf, placeOf, ringOf, type Extent, type Point, type Shadow } from '@border/core'
import { curveLinear, curveLinearClosed, line } from 'd3-shape'
import { memo } from 'react'
import type { PlanScale } from './scale.ts'

/** A picture over part of the plan: plan metres of its lower left and upper right corner. */
export interface FieldImage extends Extent {
  href: string
  bedIds: readonly string[]
}

export interface GroundProps {
  /** Pictures of light, each clipped to its beds, drawn under the plantings. */
  fields?: readonly FieldImage[] | undefined
  /** Colour of a pot's light by place id, drawn round the pot. */
  potColours?: ReadonlyMap<string, string> | undefined
  /** Shadows on the ground, over beds and paths. */
  shadows?: readonly Shadow[] | undefined
  selectedId?: string | undefined
  alive: readonly FeatureView[]
  scale: PlanScale
  /** Begins the names of what the fields are clipped to. */
  clip: string
}

/** Paths and water, beds with their light, the shadows on them, and pots. */
export const Ground = memo(function Ground({
  alive,
  scale,
  clip,
  selectedId,
  fields,
  shadows,
  potColours,
}: GroundProps) {
  const beds = alive.filter((f) => f.kind === 'bed')
  return (
    <>
      {alive
        .filter((f) => f.kind === 'path' || f.kind === 'water')
        .map((f) => (
          <path
            key={f.id}
            d={ringPath(f, scale)}
            className={`plan-${f.kind}`}
            strokeWidth={f.geometry.type === 'LineString' ? 6 : 1}
          />
        ))}
      {beds.map((f) => (
        <path key={f.id} d={ringPath(f, scale)} className="plan-bed" />
      ))}
      {fields?.map((field, i) => (
        <Field key={i} field={field} clip={`${clip}-${i}`} beds={beds} scale={scale} />
      ))}
      {beds.map((f) => (
        <path
          key={f.id}
          d={ringPath(f, scale)}
          className={`plan-bed-edge${selectedId === f.id ? ' selected' : ''}`}
        />
      ))}
      {shadows && <Shadows shadows={shadows} scale={scale} />}
      {alive
        .filter((f) => f.kind === 'container')
        .map((f) => (
          <Pot key={f.id} feature={f} scale={scale} light={potColours?.get(f.id)} />
        ))}
      {alive
        .filter((f) => f.kind === 'tap')
        .map((f) => (
          <Tap key={f.id} feature={f} scale={scale} />
        ))}
    </>
  )
})

/** A picture where it lies on the plan. */
export const FieldPicture = ({ field, scale }: { field: Omit<FieldImage, 'bedIds'>; scale: PlanScale }) => (
  <image
    href={field.href}
    x={scale.x(field.minX)}
    y={scale.y(field.maxY)}
    width={(field.maxX - field.minX) * scale.pxPerM}
    height={(field.maxY - field.minY) * scale.pxPerM}
    preserveAspectRatio="none"
  />
)

/** A picture of light, where its beds are. */
function Field({
  field,
  clip,
  beds,
  scale,
}: {
  field: FieldImage
  clip: string
  beds: readonly FeatureView[]
  scale: PlanScale
}) {
  return (
    <>
      <clipPath id={clip}>
        {beds
          .filter((f) => field.bedIds.includes(f.id))
          .map((f) => (
            <path key={f.id} d={ringPath(f, scale)} />
          ))}
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        <FieldPicture field={field} scale={scale} />
      </g>
    </>
  )
}

/** Every obstruction's shadow as one mass, so that its parts do not darken twice where they overlap. */
function Shadows({ shadows, scale }: { shadows: readonly Shadow[]; scale: PlanScale }) {
  const ring = line<Point>()
    .x((p) => scale.x(p[0]))
    .y((p) => scale.y(p[1]))
    .curve(curveLinearClosed)
  return (
    <g className="plan-shadows">
      {shadows.map((s) => (
        <g key={s.obstructionId} opacity={0.62 * (1 - s.transmission)}>
          {s.outlines.map((o, i) => (
            <path key={i} d={ring(o)!} />
          ))}
        </g>
      ))}
    </g>
  )
}

function Pot({
  feature,
  scale,
  light,
}: {
  feature: FeatureView
  scale: PlanScale
  light: string | undefined
}) {
  if (feature.geometry.type !== 'Point') return null
  const [x, y] = feature.geometry.coordinates
  const r = Math.max(3, potRadiusM(feature) * scale.pxPerM)
  return (
    <g>
      <title>{feature.name}</title>
      <circle
        cx={scale.x(x)}
        cy={scale.y(y)}
        r={r + 2.5}
        className="plan-pot-rim"
        style={light ? { fill: light } : undefined}
      />
      <circle cx={scale.x(x)} cy={scale.y(y)} r={r} className="plan-pot" />
    </g>
  )
}

/** A tap or a butt: a drop, whatever the scale. */
function Tap({ feature, scale }: { feature: FeatureView; scale: PlanScale }) {
  const [x, y] = middleOf(feature.geometry)
  return (
    <path
      d="M0 -7 C 3 -2.5 4.5 -0.5 4.5 2 A 4.5 4.5 0 0 1 -4.5 2 C -4.5 -0.5 -3 -2.5 0 -7 Z"
      transform={`translate(${scale.x(x)},${scale.y(y)})`}
      className="plan-tap"
    >
      <title>{feature.name}</title>
    </path>
  )
}

/** The outline of a part of the plan, or its line, in pixels. */
export function ringPath(f: FeatureView, scale: PlanScale): string {
  const g = f.geometry
  if (g.type === 'Point') return ''
  const points = g.type === 'LineString' ? g.coordinates.map((p): Point => [p[0], p[1]]) : ringOf(g)
  return line<Point>()
    .x((p) => scale.x(p[0]))
    .y((p) => scale.y(p[1]))
    .curve(g.type === 'LineString' ? curveLinear : curveLinearClosed)(points)!
}

/** Metres; 0 for what is no pot. */
export const potRadiusM = (f: FeatureView): number => {
  const place = placeOf(f)
  return place?.kind === 'container' ? place.radiusM : 0
}
