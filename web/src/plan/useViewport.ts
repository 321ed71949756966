import type { Extent, Point } from '@border/core'
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import type { Size } from '../frame/useSize.ts'
import { extentAbout, fitPlan, type PlanScale } from './scale.ts'

/** Least and most that a metre is drawn, pixels. */
const PX_PER_M = [0.2, 1500] as const
/** A pointer that moves less than this is meant as a click, pixels. */
const STILL_PX = 4
/** A wheel that rests so long has come to where it was meant, milliseconds. */
const RESTS_MS = 120
/** How much closer a step of the keys and buttons comes. */
export const ZOOM_STEP = 1.4

interface Looked {
  middle: Point
  pxPerM: number
}

/** What is looked at while hands move it: the drawing as it is, shifted and scaled. */
interface Shift {
  x: number
  y: number
  k: number
}
const NONE: Shift = { x: 0, y: 0, k: 1 }

export interface Viewport {
  extent: Extent
  scale: PlanScale
  /** The part of the drawing that is moved as a whole by hands. */
  content: React.RefObject<SVGGElement | null>
  zoom: (factor: number) => void
  pan: (byPx: Point) => void
  fit: () => void
  show: (extent: Extent) => void
  hands: Pick<
    React.DOMAttributes<HTMLElement>,
    'onPointerDown' | 'onPointerMove' | 'onPointerUp' | 'onPointerCancel' | 'onClickCapture'
  > & { ref: (element: HTMLElement | null) => void }
}

const clamp = (v: number) => Math.min(PX_PER_M[1], Math.max(PX_PER_M[0], v))

/** Ground as it is looked at whole. */
const fittedTo = (e: Extent, width: number, height: number): Looked => ({
  middle: [(e.minX + e.maxX) / 2, (e.minY + e.maxY) / 2],
  pxPerM: clamp(fitPlan(e, width, height).pxPerM),
})

/**
 * Looking about on a drawing: dragged, pinched, by the wheel, by keys. While hands move, the drawing is moved as it is; it is drawn
 * anew when they rest, so that a garden of hundreds of plantings keeps up with them.
 *
 * @param whole what is shown at first, and again on asking
 */
export function useViewport(whole: Extent, { width, height }: Size): Viewport {
  const [looked, setLooked] = useState<Looked>()
  const fitted = useMemo(() => fittedTo(whole, width, height), [whole, width, height])
  const { middle, pxPerM } = looked ?? fitted
  const extent = useMemo(() => extentAbout(middle, pxPerM, width, height), [middle, pxPerM, width, height])
  const scale = useMemo(() => fitPlan(extent, width, height), [extent, width, height])
  const content = useRef<SVGGElement>(null)
  const shift = useRef<Shift>(NONE)
  const resting = useRef<ReturnType<typeof setTimeout>>(undefined)

  const show = useCallback((next: Shift) => {
    shift.current = next
    if (!content.current) return
    // Painted once for as long as hands move it.
    content.current.style.willChange = 'transform'
    content.current.style.transform = `translate(${next.x}px, ${next.y}px) scale(${next.k})`
  }, [])
  // Drawn anew where hands have left it: there is nothing left to shift.
  useLayoutEffect(() => {
    shift.current = NONE
    content.current?.removeAttribute('style')
  }, [scale])
  const settle = useCallback(() => {
    const { x, y, k } = shift.current
    if (shift.current === NONE) return
    // The middle of the drawing, where it was before it was shifted.
    const at = scale.at((width / 2 - x) / k, (height / 2 - y) / k)
    setLooked({ middle: at, pxPerM: clamp(scale.pxPerM * k) })
  }, [scale, width, height])
  const zoomAbout = useCallback(
    (factor: number, [px, py]: Point) => {
      const { x, y, k } = shift.current
      const to = clamp(scale.pxPerM * k * factor) / scale.pxPerM
      const by = to / k
      show({ k: to, x: px - (px - x) * by, y: py - (py - y) * by })
    },
    [scale, show],
  )

  const hands = useHands({ shift, show, settle, zoomAbout })
  const wheel = useCallback(
    (e: WheelEvent) => {
      e.preventDefault()
      const box = (e.currentTarget as HTMLElement).getBoundingClientRect()
      const lines = e.deltaMode === 1 ? 20 : 1
      zoomAbout(Math.exp(-e.deltaY * lines * 0.0015), [e.clientX - box.left, e.clientY - box.top])
      clearTimeout(resting.current)
      resting.current = setTimeout(settle, RESTS_MS)
    },
    [zoomAbout, settle],
  )
  const [element, setElement] = useState<HTMLElement | null>(null)
  useEffect(() => {
    // React listens to wheels without the right to keep the page from scrolling.
    element?.addEventListener('wheel', wheel, { passive: false })
    return () => element?.removeEventListener('wheel', wheel)
  }, [element, wheel])

  return {
    extent,
    scale,
    content,
    zoom: (factor) => {
      setLooked({ middle, pxPerM: clamp(pxPerM * factor) })
    },
    pan: ([dx, dy]) => setLooked({ middle: [middle[0] + dx / pxPerM, middle[1] - dy / pxPerM], pxPerM }),
    fit: () => setLooked(undefined),
    show: (wanted) => setLooked(fittedTo(wanted, width, height)),
    hands: { ...hands, ref: setElement },
  }
}

interface Moving {
  shift: React.RefObject<Shift>
  show: (next: Shift) => void
  settle: () => void
  zoomAbout: (factor: number, at: Point) => void
}

/** One finger or the mouse drags the ground, two pinch it; what stays in place is a click. */
function useHands({ shift, show, settle, zoomAbout }: Moving) {
  const down = useRef(new Map<number, Point>())
  const dragged = useRef(false)
  const at = (e: React.PointerEvent): Point => {
    const box = e.currentTarget.getBoundingClientRect()
    return [e.clientX - box.left, e.clientY - box.top]
  }
  const others = (id: number) => [...down.current].filter(([other]) => other !== id).map(([, p]) => p)
  const up = (e: React.PointerEvent) => {
    if (!down.current.delete(e.pointerId) || down.current.size > 0) return
    if (dragged.current) settle()
  }
  return {
    onPointerDown: (e: React.PointerEvent) => {
      if (down.current.size === 0) dragged.current = false
      down.current.set(e.pointerId, at(e))
    },
    onPointerMove: (e: React.PointerEvent) => {
      const was = down.current.get(e.pointerId)
      if (!was) return
      const now = at(e)
      if (!dragged.current) {
        if (Math.hypot(now[0] - was[0], now[1] - was[1]) < STILL_PX) return
        dragged.current = true
        e.currentTarget.setPointerCapture(e.pointerId)
      }
      const [other] = others(e.pointerId)
      if (other) {
        const apart = (p: Point) => Math.max(1, Math.hypot(p[0] - other[0], p[1] - other[1]))
        zoomAbout(apart(now) / apart(was), other)
      } else {
        const { x, y, k } = shift.current
        show({ k, x: x + now[0] - was[0], y: y + now[1] - was[1] })
      }
      down.current.set(e.pointerId, now)
    },
    onPointerUp: up,
    onPointerCancel: up,
    onClickCapture: (e: React.MouseEvent) => {
      // The end of a drag is no click.
      if (!dragged.current) return
      dragged.current = false
      e.stopPropagation()
    },
  }
}
