import type { FeatureView } from '@border/contract'
import {
  monthYear,
  obstructionOf,
  seededRandom,
  standing,
  type IsoDate,
  type Obstruction,
  type Point,
  type Solid,
} from '@border/core'
import { curveCatmullRomClosed, curveLinear, curveLinearClosed, line } from 'd3-shape'
import { memo } from 'react'
import type { PlanScale } from './scale.ts'

interface Props {
  features: readonly FeatureView[]
  on: IsoDate
  scale: PlanScale
  /** Paint of buildings, `url(#…)`. */
  hatch: string
  selectedId?: string | undefined
  tried?: ReadonlyMap<string, Obstruction | null> | undefined
  onPick?: ((id: string) => void) | undefined
  onDrag?: ((id: string, stepM: Point) => void) | undefined
}

/** What casts shade, at its size on the day; what is gone by then dotted, with its dates. */
export const Obstructions = memo(function Obstructions(props: Props) {
  const { features, on, scale, hatch, selectedId, tried, onPick, onDrag } = props
  return features.map((f) => {
    const recorded = obstructionOf(f)
    if (!recorded) return null
    const o = tried?.has(f.id) ? tried.get(f.id) : recorded
    const solid = o ? standing(o, on) : undefined
    const gone = !solid && (o === null || (f.to !== null && f.to <= on))
    if (!solid && !gone) return null
    const draggable = onDrag !== undefined && selectedId === f.id
    return (
      <g
        key={f.id}
        className={`plan-obstruction${selectedId === f.id ? ' selected' : ''}`}
        onClick={(e) => {
          if (!onPick) return
          e.stopPropagation()
          onPick(f.id)
        }}
        style={
          onPick && { cursor: draggable ? 'move' : 'pointer', touchAction: draggable ? 'none' : undefined }
        }
        onPointerDown={draggable ? (e) => drag(e, scale, (by) => onDrag(f.id, by)) : undefined}
      >
        <title>
          {gone
            ? `${f.name}, ${f.to ? `gone since ${monthYear(f.to)}` : 'tried away'}`
            : `${f.name}, ${heightText(solid!)}`}
        </title>
        {solid ? (
          <Standing solid={solid} feature={f} scale={scale} hatch={hatch} />
        ) : (
          <Gone feature={f} scale={scale} />
        )}
      </g>
    )
  })
})

/** Follows the pointer until it is let go, telling each step in plan metres. */
function drag(e: React.PointerEvent<SVGGElement>, scale: PlanScale, told: (stepM: Point) => void) {
  const target = e.currentTarget
  let [lastX, lastY] = [e.clientX, e.clientY]
  target.setPointerCapture(e.pointerId)
  const move = (m: PointerEvent) => {
    told([(m.clientX - lastX) / scale.pxPerM, (lastY - m.clientY) / scale.pxPerM])
    lastX = m.clientX
    lastY = m.clientY
  }
  const end = () => {
    target.removeEventListener('pointermove', move)
    target.removeEventListener('pointerup', end)
    target.removeEventListener('pointercancel', end)
  }
  target.addEventListener('pointermove', move)
  target.addEventListener('pointerup', end)
  target.addEventListener('pointercancel', end)
}

const heightText = (solid: Solid) => `${solid.heightM.toFixed(1)} m high`

const path = (points: readonly Point[], scale: PlanScale, closed: boolean) =>
  line<Point>()
    .x((p) => scale.x(p[0]))
    .y((p) => scale.y(p[1]))
    .curve(closed ? curveLinearClosed : curveLinear)(points)!

function Standing({
  solid,
  feature,
  scale,
  hatch,
}: {
  solid: Solid
  feature: FeatureView
  scale: PlanScale
  hatch: string
}) {
  switch (solid.shape) {
    case 'prism':
      return (
        <>
          <path
            d={path(solid.ring, scale, true)}
            className="plan-shadow"
            transform={`translate(${shadow(solid.heightM, scale)},${shadow(solid.heightM, scale)})`}
          />
          <path d={path(solid.ring, scale, true)} className="plan-building" fill={hatch} />
        </>
      )
    case 'screen':
      if (feature.kind === 'hedge') return <Hedge solid={solid} scale={scale} id={feature.id} />
      return (
        <>
          <path
            d={path(solid.line, scale, false)}
            className={feature.kind === 'fence' ? 'plan-fence' : 'plan-wall'}
            strokeWidth={Math.max(feature.kind === 'fence' ? 2 : 3.5, solid.thicknessM * scale.pxPerM)}
          />
          <path d={path(solid.line, scale, false)} className="plan-reach" />
        </>
      )
    case 'crown': {
      const points = wavy(solid.x, solid.y, solid.radiusM, 22)
      const d = line<Point>()
        .x((p) => scale.x(p[0]))
        .y((p) => scale.y(p[1]))
        .curve(curveCatmullRomClosed.alpha(0.6))(points)!
      const by = shadow(solid.heightM, scale)
      return (
        <>
          <path d={d} className="plan-shadow" transform={`translate(${by},${by})`} />
          <path d={d} className="plan-crown" fillOpacity={0.12 + 0.4 * (1 - solid.transmission)} />
          <circle
            cx={scale.x(solid.x)}
            cy={scale.y(solid.y)}
            r={Math.max(2.5, solid.trunkRadiusM * scale.pxPerM)}
            fill="var(--plan-leaf-line)"
          />
        </>
      )
    }
  }
}

/** Drawn shadow that tells height apart: not the sun's, a tenth of the height to the lower right. */
const shadow = (heightM: number, scale: PlanScale) => Math.min(14, heightM * 0.1 * scale.pxPerM)

function Hedge({
  solid,
  scale,
  id,
}: {
  solid: Extract<Solid, { shape: 'screen' }>
  scale: PlanScale
  id: string
}) {
  const width = Math.max(0.5, solid.thicknessM)
  const random = seededRandom(id.length * 7919 + id.charCodeAt(0) * 131)
  const puffs: { x: number; y: number; r: number }[] = []
  for (let i = 0; i + 1 < solid.line.length; i++) {
    const [a, b] = [solid.line[i]!, solid.line[i + 1]!]
    const length = Math.hypot(b[0] - a[0], b[1] - a[1])
    const n = Math.max(1, Math.round(length / (width * 0.55)))
    for (let k = 0; k <= n; k++)
      puffs.push({
        x: a[0] + ((b[0] - a[0]) * k) / n,
        y: a[1] + ((b[1] - a[1]) * k) / n,
        r: (width / 2) * (0.85 + 0.3 * random()),
      })
  }
  return (
    <g>
      {puffs.map((p, i) => (
        <circle key={i} cx={scale.x(p.x)} cy={scale.y(p.y)} r={p.r * scale.pxPerM} className="plan-hedge" />
      ))}
    </g>
  )
}

function wavy(x: number, y: number, r: number, lobes: number): Point[] {
  return Array.from({ length: lobes * 2 }, (_, i): Point => {
    const a = (i / (lobes * 2)) * 2 * Math.PI
    const k = r * (i % 2 ? 0.94 : 1.03)
    return [x + Math.cos(a) * k, y + Math.sin(a) * k]
  })
}

function Gone({ feature, scale }: { feature: FeatureView; scale: PlanScale }) {
  const g = feature.geometry
  if (g.type === 'Point') {
    const r = (feature.properties.crownRadiusM as number | undefined) ?? 1
    return (
      <circle
        cx={scale.x(g.coordinates[0])}
        cy={scale.y(g.coordinates[1])}
        r={r * scale.pxPerM}
        className="plan-gone"
      />
    )
  }
  const points = (g.type === 'LineString' ? g.coordinates : g.coordinates[0]!).map((p): Point => [p[0], p[1]])
  return <path d={path(points, scale, g.type === 'Polygon')} className="plan-gone" />
}
