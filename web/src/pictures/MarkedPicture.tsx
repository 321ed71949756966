import type { Extent, Point } from '@border/core'
import { useMemo } from 'react'
import { Button } from '../frame/Button.tsx'
import './pictures.css'
import { Stage, type Staged } from './Stage.tsx'

/** So many points of a picture are one unit of what is looked about on, in which a metre would be one. */
const PER_UNIT = 100

interface Props {
  address: string
  width: number
  height: number
  marks: readonly { name: string; px: Point }[]
  chosen: number | undefined
  onChoose: (i: number) => void
  onMove: (i: number, px: Point) => void
  /** A click beside the marks. */
  onPoint: (px: Point) => void
}

/** A picture to look about in, with points marked on it that can be moved, by mouse, touch and keys. */
export function MarkedPicture(props: Props) {
  const { width, height, onPoint } = props
  const whole = useMemo(
    (): Extent => ({ minX: 0, maxX: width / PER_UNIT, minY: -height / PER_UNIT, maxY: 0 }),
    [width, height],
  )
  return (
    <Stage
      what="picture"
      whole={whole}
      tools={({ viewport, size }) => (
        <Button
          size="small"
          onClick={() => onPoint(inPicture(props, viewport.scale.at(size.width / 2, size.height / 2)))}
        >
          Mark its middle
        </Button>
      )}
      draw={(staged) => <Marked {...props} {...staged} />}
    />
  )
}

function inPicture({ width, height }: Pick<Props, 'width' | 'height'>, [x, y]: Point): Point {
  const within = (v: number, most: number) => Math.round(Math.min(most, Math.max(0, v)) * 10) / 10
  return [within(x * PER_UNIT, width), within(-y * PER_UNIT, height)]
}

function Marked(props: Props & Staged) {
  const { address, width, height, marks, chosen, size } = props
  const { scale, content } = props.viewport
  const pointed = (e: React.MouseEvent, svg: Element): Point => {
    const box = svg.getBoundingClientRect()
    return inPicture(props, scale.at(e.clientX - box.left, e.clientY - box.top))
  }
  return (
    <svg
      width={size.width}
      height={size.height}
      role="group"
      aria-label="The picture: click to mark a point"
      onClick={(e) => props.onPoint(pointed(e, e.currentTarget))}
    >
      <g ref={content}>
        <image
          href={address}
          x={scale.x(0)}
          y={scale.y(0)}
          width={(width / PER_UNIT) * scale.pxPerM}
          height={(height / PER_UNIT) * scale.pxPerM}
          preserveAspectRatio="none"
        />
        {marks.map((m, i) => (
          <MarkHandle
            key={i}
            name={m.name}
            isChosen={i === chosen}
            x={scale.x(m.px[0] / PER_UNIT)}
            y={scale.y(-m.px[1] / PER_UNIT)}
            onChoose={() => props.onChoose(i)}
            onDrag={(e) => props.onMove(i, pointed(e, e.currentTarget.ownerSVGElement!))}
            onNudge={(dx, dy) => props.onMove(i, [m.px[0] + dx, m.px[1] + dy])}
          />
        ))}
      </g>
    </svg>
  )
}

interface HandleProps {
  name: string
  isChosen: boolean
  x: number
  y: number
  onChoose: () => void
  onDrag: (e: React.PointerEvent<SVGGElement>) => void
  onNudge: (dx: number, dy: number) => void
}

/** A step of the keys, points; with Shift ten. */
const arrows: Readonly<Record<string, Point>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** Cross hairs, so that what is meant stays seen. */
const MarkHandle = ({ name, isChosen, x, y, onChoose, onDrag, onNudge }: HandleProps) => (
  <g
    className={`tie-mark${isChosen ? ' chosen' : ''}`}
    transform={`translate(${x},${y})`}
    role="button"
    tabIndex={0}
    aria-pressed={isChosen}
    aria-label={`Mark ${name}`}
    onFocus={onChoose}
    onClick={(e) => {
      e.stopPropagation()
      onChoose()
    }}
    onPointerDown={(e) => {
      e.stopPropagation()
      e.currentTarget.setPointerCapture(e.pointerId)
      onChoose()
    }}
    onPointerMove={(e) => e.currentTarget.hasPointerCapture(e.pointerId) && onDrag(e)}
    onKeyDown={(e) => {
      const step = arrows[e.key]
      if (!step) return
      e.preventDefault()
      const by = e.shiftKey ? 10 : 1
      onNudge(step[0] * by, step[1] * by)
    }}
  >
    <circle r={16} className="mark-reach" />
    <path d="M-12,0H-3M3,0H12M0,-12V-3M0,3V12" />
    <circle r={7} />
    <text x={11} y={-9}>
      {name}
    </text>
  </g>
)
