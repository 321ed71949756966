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
    const watch = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect
      setSize({ width: Math.round(width), height: Math.round(height) })
    })
    watch.observe(element)
    return () => watch.disconnect()
  }, [])
  return [ref, size]
}
