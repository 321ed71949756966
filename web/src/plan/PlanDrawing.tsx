import type { FeatureView, PlantingView } from '@border/contract'
import {
  asDisc,
  featuresOn,
  groundOf,
  middleOf,
  monthYear,
  nameFor,
  namesOf,
  type Extent,
  type Footprint,
  type IsoDate,
  type Names,
  type Naming,
  type Obstruction,
  type Point,
} from '@border/core'
import { memo, useId, useMemo } from 'react'
import { useNaming } from '../frame/gardenContext.ts'
import { Ground, potRadiusM, ringPath, type GroundProps } from './Ground.tsx'
import { Mass } from './habit.tsx'
import { placeLabels, type WantedLabel } from './labels.ts'
import { Obstructions } from './Obstructions.tsx'
import './plan.css'
import { ownUnits } from '../units/ownUnits.ts'
import { scaleBar, fitPlan, gardenExtent, pointsOf, type PlanScale } from './scale.ts'

export type Picked = { kind: 'planting' | 'feature'; id: string } | { kind: 'spot'; x: number; y: number }

export interface PlanDrawingProps extends Pick<GroundProps, 'fields' | 'potColours' | 'shadows'> {
  features: readonly FeatureView[]
  plantings: readonly PlantingView[]
  on: IsoDate
  northDeg: number
  width: number
  height: number
  /** Ground to show; the whole garden unless told otherwise. */
  extent?: Extent
  /** What casts shade, where it is tried other than it stands; null when it is tried away. */
  tried?: ReadonlyMap<string, Obstruction | null> | undefined
  /** Plantings drawn with a broken outline. */
  flagged?: ReadonlySet<string> | undefined
  selectedId?: string | undefined
  /** Only places are named: something else is being looked at. */
  isQuiet?: boolean
  label: string
  onPick?: ((picked: Picked) => void) | undefined
  onKeyDown?: (e: React.KeyboardEvent) => void
  /** The pointer's place on the plan and in pixels of the drawing; undefined when it leaves. */
  onPoint?: ((at: Pointed | undefined) => void) | undefined
  /** The selected obstruction is being dragged: metres since the last step. */
  onDrag?: ((id: string, stepM: Point) => void) | undefined
  /** Drawn on top, in pixels. */
  overlay?: (scale: PlanScale) => React.ReactNode
  /** Drawn on the bare ground, below everything. */
  underlay?: ((scale: PlanScale) => React.ReactNode) | undefined
  /** All but the scale bar and north: moved as a whole while the ground is dragged or pinched. */
  content?: React.Ref<SVGGElement> | undefined
}

export interface Pointed {
  at: Point
  px: Point
}

/**
 * The garden to scale: ground, places with their light, plantings, what casts shade, scale bar and north. Drawn anew only
 * when something given changes; while the light follows a drag, plantings and labels stay as they are.
 */
export const PlanDrawing = memo(function PlanDrawing(props: PlanDrawingProps) {
  const { features, plantings, on, width, height, selectedId, flagged, onPick, underlay, content, isQuiet } =
    props
  const clip = useId()
  const naming = useNaming()
  const alive = useMemo(() => featuresOn(features, on), [features, on])
  const scale = useMemo(
    () => fitPlan(props.extent ?? gardenExtent(features), width, height),
    [props.extent, features, width, height],
  )
  const labels = useMemo(
    () =>
      placeLabels(
        wantedLabels(features, isQuiet ? [] : plantings, on, scale, { selectedId, naming }),
        width,
        height - 40,
      ),
    [features, plantings, isQuiet, on, scale, selectedId, naming, width, height],
  )
  const pickFeature = useMemo(() => onPick && ((id: string) => onPick({ kind: 'feature', id })), [onPick])
  return (
    <svg
      className="plan"
      width={width}
      height={height}
      role={props.onKeyDown ? 'application' : 'img'}
      aria-label={props.label}
      tabIndex={props.onKeyDown ? 0 : undefined}
      onKeyDown={props.onKeyDown}
      onPointerMove={(e) => {
        const px = pixelsIn(e)
        props.onPoint?.({ at: scale.at(...px), px })
      }}
      onPointerLeave={() => props.onPoint?.(undefined)}
      onClick={(e) => {
        const [x, y] = scale.at(...pixelsIn(e))
        onPick?.({ kind: 'spot', x, y })
      }}
    >
      <Hatch id={`${clip}-hatch`} />
      <rect width={width} height={height} fill="var(--plan-ground)" />
      <g ref={content}>
        {underlay?.(scale)}
        <Ground
          alive={alive}
          scale={scale}
          clip={clip}
          selectedId={selectedId}
          fields={props.fields}
          shadows={props.shadows}
          potColours={props.potColours}
        />
        <Plantings
          features={features}
          plantings={plantings}
          scale={scale}
          flagged={flagged}
          selectedId={selectedId}
          onPick={onPick}
        />
        <Obstructions
          features={features}
          on={on}
          scale={scale}
          hatch={`url(#${clip}-hatch)`}
          selectedId={selectedId}
          tried={props.tried}
          onPick={pickFeature}
          onDrag={props.onDrag}
        />
        <Hazards alive={alive} scale={scale} />
        <g className="plan-labels">
          {labels.map((l) => (
            <text
              key={l.key}
              x={l.x}
              y={l.y}
              textAnchor="middle"
              className={`plan-label-${l.kind} names-${naming.split(' ')[0]}`}
            >
              {l.text}
            </text>
          ))}
        </g>
        {props.overlay?.(scale)}
      </g>
      <ScaleAndNorth scale={scale} width={width} height={height} northDeg={props.northDeg} />
    </svg>
  )
})

/** Where on the drawing something points. */
function pixelsIn({ currentTarget, clientX, clientY }: React.MouseEvent): Point {
  const { left, top } = currentTarget.getBoundingClientRect()
  return [clientX - left, clientY - top]
}

const Hazards = ({ alive, scale }: { alive: readonly FeatureView[]; scale: PlanScale }) =>
  alive
    .filter((f) => f.kind === 'hazard')
    .map((f) => (
      <path key={f.id} d={ringPath(f, scale)} className="plan-hazard">
        <title>{f.name}</title>
      </path>
    ))

const Hatch = ({ id }: { id: string }) => (
  <defs>
    <pattern id={id} width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <rect width={6} height={6} fill="var(--plan-fill)" />
      <line y2={6} stroke="var(--plan-hatch)" strokeWidth={1.2} />
    </pattern>
  </defs>
)

interface PlantingsProps extends Pick<
  PlanDrawingProps,
  'features' | 'plantings' | 'flagged' | 'selectedId' | 'onPick'
> {
  scale: PlanScale
}

const Plantings = memo(function Plantings(props: PlantingsProps) {
  const { features, plantings, scale, flagged, selectedId, onPick } = props
  const naming = useNaming()
  return plantings.map((p) => {
    const ground = inPixels(groundDrawn(p, features), scale)
    return (
      <g
        key={p.id}
        className={`plan-planting${flagged?.has(p.id) ? ' flagged' : ''}${selectedId === p.id ? ' selected' : ''}`}
        onClick={(e) => {
          if (!onPick) return
          e.stopPropagation()
          onPick({ kind: 'planting', id: p.id })
        }}
      >
        <title>{`${nameFor(p.taxon, naming)}, ${p.livingCount} living, tag ${p.tag}`}</title>
        <Mass id={p.id} taxon={p.taxon} ground={ground} count={p.livingCount} />
        {'ring' in ground ? (
          <polygon points={ground.ring.map((c) => c.join()).join(' ')} className="plan-ring" />
        ) : (
          <circle cx={ground.x} cy={ground.y} r={ground.radiusM + 1.5} className="plan-ring" />
        )}
      </g>
    )
  })
})

/** Ground of a planting as it is drawn; in a pot never wider than the pot. */
function groundDrawn(p: PlantingView, features: readonly FeatureView[]): Footprint {
  const ground = groundOf(p)
  const place = features.find((f) => f.id === p.placeId)
  if (place?.kind !== 'container') return ground
  return { x: p.x, y: p.y, radiusM: Math.min(asDisc(ground).radiusM, potRadiusM(place) * 0.9) }
}

export const inPixels = (ground: Footprint, scale: PlanScale): Footprint =>
  'ring' in ground
    ? { ring: ground.ring.map(([x, y]): Point => [scale.x(x), scale.y(y)]) }
    : { x: scale.x(ground.x), y: scale.y(ground.y), radiusM: ground.radiusM * scale.pxPerM }

/** A kind by its genus, or by its common name, whichever somebody says first. */
const shortName = (names: Names, naming: Naming): string => {
  const [{ text, isBotanical }] = namesOf(names, naming)
  return isBotanical ? text.split(' ')[0]! : text
}

function wantedLabels(
  features: readonly FeatureView[],
  plantings: readonly PlantingView[],
  on: IsoDate,
  scale: PlanScale,
  { selectedId, naming }: { selectedId: string | undefined; naming: Naming },
): WantedLabel[] {
  const labels: WantedLabel[] = []
  for (const f of features) {
    const gone = f.to !== null && f.to <= on
    if ((f.from && f.from > on) || f.kind === 'container' || f.kind === 'path' || f.kind === 'viewpoint')
      continue
    const at = middleOf(f.geometry)
    const isPlace = f.kind === 'bed'
    const selected = f.id === selectedId ? 1000 : 0
    if (gone && isPlace) continue
    const ys = pointsOf(f).map((p) => scale.y(p[1]))
    const top = isPlace
      ? Math.min(...ys) - 5
      : gone
        ? Math.max(...ys) - 6
        : scale.y(at[1]) + (f.kind === 'tap' ? 20 : 4)
    labels.push({
      key: f.id,
      text: gone ? `${f.name}, to ${monthYear(f.to!)}` : f.name,
      x: scale.x(at[0]),
      y: top,
      kind: isPlace ? 'place' : 'obstruction',
      weight: selected + (isPlace ? 500 : f.kind === 'building' ? 300 : 20),
    })
  }
  for (const p of plantings) {
    const r = asDisc(groundDrawn(p, features)).radiusM * scale.pxPerM
    if (r < 7 && p.id !== selectedId) continue
    labels.push({
      key: p.id,
      text: shortName(p.taxon, naming),
      x: scale.x(p.x),
      y: scale.y(p.y) + 4,
      kind: 'planting',
      weight: (p.id === selectedId ? 1000 : 0) + r,
    })
  }
  return labels
}

export function ScaleAndNorth({
  scale,
  width,
  height,
  northDeg,
}: {
  scale: PlanScale
  width: number
  height: number
  northDeg: number
}) {
  const bar = scaleBar(scale.pxPerM, width, ownUnits().length)
  const px = bar.m * scale.pxPerM
  return (
    <g className="plan-furniture">
      <g transform={`translate(${width - px - 18},${height - 14})`}>
        <path d={`M0,-5v5h${px}v-5M${px / 2},-3v3`} fill="none" stroke="var(--ink)" />
        <text x={px / 2} y={-8} textAnchor="middle">
          {bar.text}
        </text>
      </g>
      <g transform={`translate(${width - 26},34)`}>
        <path d="M0,-20L6,11L0,6L-6,11Z" fill="var(--ink)" transform={`rotate(${northDeg})`} />
        <text y={26} textAnchor="middle">
          N
        </text>
      </g>
    </g>
  )
}
