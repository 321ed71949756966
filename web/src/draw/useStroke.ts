import type { Point } from '@border/core'
import { useRef, useState } from 'react'
import type { PlanScale } from '../plan/scale.ts'

/** A finger that moves less than this is meant as a click, pixels. */
const STILL_PX = 8
/** Points of a stroke nearer to each other than this tell nothing, pixels. */
const APART_PX = 3

/**
 * Drawing with a finger or the mouse: down, round, and up again.
 *
 * @param onStroke as it went, plan metres; absent where nothing is drawn
 */
export function useStroke(scale: PlanScale, onStroke: ((stroke: Point[]) => void) | undefined) {
  const [points, setPoints] = useState<readonly Point[]>([])
  const px = useRef<Point[]>([])
  const drawn = useRef(false)
  const at = (e: React.PointerEvent): Point => {
    const box = e.currentTarget.getBoundingClientRect()
    return [e.clientX - box.left, e.clientY - box.top]
  }
  const end = () => {
    if (drawn.current) onStroke?.(px.current.map(([x, y]) => scale.at(x, y)))
    px.current = []
    setPoints([])
  }
  const hands = onStroke && {
    onPointerDown: (e: React.PointerEvent) => {
      drawn.current = false
      px.current = [at(e)]
    },
    onPointerMove: (e: React.PointerEvent) => {
      const last = px.current.at(-1)
      if (!last) return
      const now = at(e)
      const apart = Math.hypot(now[0] - last[0], now[1] - last[1])
      if (!drawn.current && apart < STILL_PX) return
      if (!drawn.current) e.currentTarget.setPointerCapture(e.pointerId)
      drawn.current = true
      if (apart < APART_PX) return
      px.current.push(now)
      setPoints(px.current.map(([x, y]) => scale.at(x, y)))
    },
    onPointerUp: end,
    onPointerCancel: end,
    onClickCapture: (e: React.MouseEvent) => {
      // The end of a stroke is no click.
      if (drawn.current) e.stopPropagation()
      drawn.current = false
    },
  }
  return { points, hands }
}
