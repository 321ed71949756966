import { useLayoutEffect, useRef, useState } from 'react'

export interface Size {
  width: number
  height: number
}

/** The size of an element as it is laid out, zero before it is known. */
export function useSize(): [React.RefObject<HTMLDivElement | null>, Size] {
  const ref = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState<Size>({ width: 0, height: 0 })
  useLayoutEffect(() => {
    const element = ref.current
    if (!element) return
    // Known before anything is painted: what is drawn to it is drawn once.
    const measured = (now: Size) =>
      setSize((before) => (before.width === now.width && before.height === now.height ? before : now))
    measured(innerSize(element))
    const watch = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect
      measured({ width: Math.round(width), height: Math.round(height) })
    })
    watch.observe(element)
    return () => watch.disconnect()
  }, [])
  return [ref, size]
}

function innerSize(element: Element): Size {
  const { paddingLeft, paddingRight, paddingTop, paddingBottom } = getComputedStyle(element)
  const px = (...sides: string[]) => sides.reduce((sum, side) => sum + (parseFloat(side) || 0), 0)
  return {
    width: Math.round(element.clientWidth - px(paddingLeft, paddingRight)),
    height: Math.round(element.clientHeight - px(paddingTop, paddingBottom)),
  }
}
