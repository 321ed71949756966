import {
  drawnOf,
  flattened,
  middleOfDrawn,
  pointOf,
  signedArea,
  type Drawn,
  type PlanFeature,
  type Point,
} from '@border/core'
import { metresText } from '../frame/words.ts'
import { potRadiusM } from '../plan/Ground.tsx'
import type { PlanScale } from '../plan/scale.ts'
import { allParts, drawnNow, inHand, isChanged, pointNow, type Draft } from './draft.ts'
import { sidesOf } from './outline.ts'

export type Held =
  { of: 'handle'; i: number } | { of: 'between'; i: number } | { of: 'whole' } | { of: 'turn' }

interface Props {
  draft: Draft
  scale: PlanScale
  /** The handle in hand, from 0. */
  held: number | undefined
  /** Begins to drag one of its handles, or it whole. */
  onGrab: (e: React.PointerEvent, what: Held) => void
  /** A handle was clicked. */
  onHandle: (i: number) => void
}

/** What is being drawn or changed, over the plan: its outline with lengths, and handles to take hold of. */
export function DraftShape({ draft, scale, held, onGrab, onHandle }: Props) {
  const part = inHand(draft)
  const drawn = drawnNow(draft)
  const point = pointNow(draft)
  return (
    <g className="draft">
      {part.was && isChanged(draft) && <Shape now={part.was} scale={scale} className="draft-was" />}
      {allParts(draft)
        .filter(({ now }) => now)
        .map(({ id, now }, i) => (
          <Shape key={id} now={now!} scale={scale} className={i === 0 ? 'draft-shape' : 'draft-other'} />
        ))}
      {drawn && drawn.handles.length > 0 && (
        <>
          <Lengths drawn={drawn} scale={scale} />
          <Handles {...{ drawn, scale, held, onGrab, onHandle }} />
        </>
      )}
      {point && <PointHandle at={point} scale={scale} onGrab={onGrab} />}
    </g>
  )
}

/** An outline with its corners numbered, to be looked at. */
export const OutlineShape = ({ drawn, scale }: { drawn: Drawn; scale: PlanScale }) => (
  <g className="draft">
    <path className="draft-shape" d={path(flattened(drawn), drawn.closed, scale)} />
    {drawn.handles.map((h, i) => (
      <g key={i} className="draft-handle" transform={`translate(${scale.x(h.x)},${scale.y(h.y)})`}>
        <circle r={4.5} />
        <text x={8} y={-6}>
          {i + 1}
        </text>
      </g>
    ))}
  </g>
)

const path = (points: readonly Point[], closed: boolean, scale: PlanScale) =>
  points.length === 0
    ? ''
    : `M${points.map(([x, y]) => `${scale.x(x).toFixed(1)},${scale.y(y).toFixed(1)}`).join('L')}${closed ? 'Z' : ''}`

function Shape({
  now,
  scale,
  className,
}: {
  now: Pick<PlanFeature, 'kind' | 'geometry' | 'properties'>
  scale: PlanScale
  className: string
}) {
  if (now.geometry.type === 'Point') {
    const [x, y] = now.geometry.coordinates
    if (Number.isNaN(x)) return null
    const crown = now.properties.crownRadiusM as number | undefined
    const r = crown ?? potRadiusM({ ...now, id: '', name: '', from: null, to: null })
    return <circle className={className} cx={scale.x(x)} cy={scale.y(y)} r={Math.max(4, r * scale.pxPerM)} />
  }
  const isBegun = now.geometry.type === 'LineString' || now.geometry.coordinates[0]!.length > 0
  const drawn = isBegun && drawnOf(now)
  if (!drawn) return null
  return (
    <path
      className={className}
      d={path(flattened(drawn), drawn.closed, scale)}
      fillOpacity={drawn.closed ? undefined : 0}
    />
  )
}

/** Sides shorter than this on the screen have no room for their length, pixels. */
const ROOM_PX = 44

/** How far beside the middle of a side its length stands, up and down and across, pixels. */
const BESIDE_PX = { x: 28, y: 15 }

/** The lengths of the sides, each outside its own side: within, the handles are in the way. */
function Lengths({ drawn, scale }: { drawn: Drawn; scale: PlanScale }) {
  const { handles, closed } = drawn
  const outward = closed && signedArea(handles.map(pointOf)) > 0 ? 1 : -1
  return sidesOf(handles.map(pointOf), closed).map((side, i) => {
    if (side.lengthM * scale.pxPerM < ROOM_PX) return null
    const [a, b] = [handles[i]!, handles[(i + 1) % handles.length]!]
    const along = [(b.x - a.x) / side.lengthM, (b.y - a.y) / side.lengthM] as const
    return (
      <text
        key={i}
        className="draft-length"
        x={scale.x((a.x + b.x) / 2) + outward * along[1] * BESIDE_PX.x}
        y={scale.y((a.y + b.y) / 2) + outward * along[0] * BESIDE_PX.y + 4}
        textAnchor="middle"
      >
        {metresText(side.lengthM)}
      </text>
    )
  })
}

/** Handles nearer to another than this are not numbered: the numbers would lie on each other, pixels. */
const NUMBERED_PX = 22

function Handles({ drawn, scale, held, onGrab, onHandle }: Omit<Props, 'draft'> & { drawn: Drawn }) {
  const { handles, closed } = drawn
  const between = closed && handles.length > 2 ? handles : handles.slice(0, -1)
  const [mx, my] = middleOfDrawn(drawn)
  const isApart = (i: number) =>
    handles.every(
      (h, j) =>
        j === i ||
        held === i ||
        Math.hypot(h.x - handles[i]!.x, h.y - handles[i]!.y) * scale.pxPerM >= NUMBERED_PX,
    )
  const reach = Math.max(...handles.map((h) => scale.y(my) - scale.y(h.y)), 0)
  return (
    <>
      {handles.length > 1 && (
        <>
          <Grip x={scale.x(mx)} y={scale.y(my)} label="Move it" onGrab={(e) => onGrab(e, { of: 'whole' })}>
            <path d="M-5,0H5M0,-5V5" />
          </Grip>
          <Grip
            x={scale.x(mx)}
            y={scale.y(my) - reach - 34}
            label="Turn it"
            onGrab={(e) => onGrab(e, { of: 'turn' })}
          >
            <path d="M-4.5,2A5,5 0 1 1 4.5,2M4.5,2L6.5,-2M4.5,2L0.5,0.5" />
          </Grip>
        </>
      )}
      {between.map((a, i) => {
        const b = handles[(i + 1) % handles.length]!
        return (
          <g
            key={`b${i}`}
            className="draft-between"
            transform={`translate(${scale.x((a.x + b.x) / 2)},${scale.y((a.y + b.y) / 2)})`}
            onPointerDown={(e) => onGrab(e, { of: 'between', i })}
          >
            <title>Drag: another corner here</title>
            <circle r={13} className="draft-reach" />
            <path d="M-4,0H4M0,-4V4" />
          </g>
        )
      })}
      {handles.map((h, i) => (
        <g
          key={i}
          className={`draft-handle${held === i ? ' held' : ''}${h.curved ? ' curved' : ''}`}
          transform={`translate(${scale.x(h.x)},${scale.y(h.y)})`}
          onPointerDown={(e) => onGrab(e, { of: 'handle', i })}
          onClick={(e) => {
            e.stopPropagation()
            onHandle(i)
          }}
        >
          <circle r={16} className="draft-reach" />
          {h.curved ? <circle r={5.5} /> : <rect x={-5} y={-5} width={10} height={10} />}
          {isApart(i) && (
            <text x={9} y={-8}>
              {i + 1}
            </text>
          )}
        </g>
      ))}
    </>
  )
}

function Grip({
  x,
  y,
  label,
  onGrab,
  children,
}: {
  x: number
  y: number
  label: string
  onGrab: (e: React.PointerEvent) => void
  children: React.ReactNode
}) {
  return (
    <g className="draft-grip" transform={`translate(${x},${y})`} onPointerDown={onGrab}>
      <title>{label}</title>
      <circle r={17} className="draft-reach" />
      <circle r={11} />
      {children}
    </g>
  )
}

const PointHandle = ({ at, scale, onGrab }: { at: Point } & Pick<Props, 'scale' | 'onGrab'>) => (
  <Grip x={scale.x(at[0])} y={scale.y(at[1])} label="Move it" onGrab={(e) => onGrab(e, { of: 'whole' })}>
    <path d="M-5,0H5M0,-5V5" />
  </Grip>
)
