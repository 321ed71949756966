import type { Point } from '@border/core'
import { InputNumber } from 'antd'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { PointInputs } from './PointInputs.tsx'
import { sidesOf, step, withSide, type Side } from './outline.ts'

interface Props {
  shape: 'Point' | 'LineString' | 'Polygon'
  /** So many corners it must have. */
  least: number
  /** Plan metres. */
  corners: readonly Point[]
  onCorners: (corners: readonly Point[]) => void
}

/** Corners typed: the first where it lies, each other by the side that leads to it, as it was measured. */
export function CornerInputs({ shape, least, corners, onCorners: set }: Props) {
  const closed = shape === 'Polygon'
  const sides = sidesOf(corners, closed)
  const [next, setNext] = useState({ lengthM: 3, bearingDeg: 90 })
  const [first] = corners
  const missing = least - corners.length
  return (
    <section className="draw-corners" aria-label="Outline">
      <h3>{shape === 'Point' ? 'Where' : 'Corners and measured sides'}</h3>
      <small>
        {missing > 0
          ? shape === 'Point'
            ? 'Click the plan, or type where it stands.'
            : `Click ${missing} more ${missing === 1 ? 'corner' : 'corners'} on the plan, or type them.`
          : 'Metres from the plan’s origin; bearings clockwise from up the plan.'}
      </small>
      <div className="row">
        <span className="draw-n">1</span>
        <PointInputs at={first} onAt={(to) => set(moved(corners, to))} />
      </div>
      {sides.map((side, i) => {
        const closing = closed && i === corners.length - 1
        return (
          <div className="row" key={i}>
            <span className="draw-n">{closing ? '→1' : i + 2}</span>
            <SideInputs
              of={`side ${i + 1}`}
              side={side}
              disabled={closing}
              onSide={(measured) => set(withSide(corners, i, measured))}
            />
            {!closing && (
              <Button
                size="small"
                look="text"
                aria-label={`Remove corner ${i + 2}`}
                onClick={() => set(corners.filter((_, k) => k !== i + 1))}
              >
                ✕
              </Button>
            )}
          </div>
        )
      })}
      {shape !== 'Point' && first && (
        <div className="row">
          <span className="draw-n">+</span>
          <SideInputs of="the next side" side={next} onSide={setNext} />
          <Button size="small" onClick={() => set([...corners, step(corners.at(-1)!, next)])}>
            Add side
          </Button>
        </div>
      )}
    </section>
  )
}

interface SideProps {
  /** Which one it is, for whoever hears it. */
  of: string
  side: Side
  disabled?: boolean
  onSide: (side: Side) => void
}

/** A side as it is measured: how long, and where it heads. */
function SideInputs({ of, side, disabled = false, onSide }: SideProps) {
  return (
    <>
      <InputNumber
        aria-label={`Length of ${of}`}
        value={round(side.lengthM)}
        min={0.05}
        step={0.1}
        suffix="m"
        disabled={disabled}
        onChange={(lengthM) => lengthM && onSide({ ...side, lengthM })}
      />
      <InputNumber
        aria-label={`Bearing of ${of}`}
        value={round(side.bearingDeg)}
        min={0}
        max={360}
        suffix="°"
        disabled={disabled}
        onChange={(bearingDeg) => bearingDeg !== null && onSide({ ...side, bearingDeg })}
      />
    </>
  )
}

const round = (v: number) => Math.round(v * 100) / 100

/** The whole outline with its first corner elsewhere. */
function moved(corners: readonly Point[], to: Point): Point[] {
  const [first] = corners
  if (!first) return [to]
  return corners.map((c): Point => [c[0] + to[0] - first[0], c[1] + to[1] - first[1]])
}
