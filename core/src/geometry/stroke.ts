import type { Handle } from './drawn.ts'
import { distanceToSegment, type Point } from './ring.ts'

/** The points of a line that tell its shape (Ramer 1972, Douglas and Peucker 1973), ends among them. @param offM how far the rest may lie from the line through them */
function telling(points: readonly Point[], offM: number): Point[] {
  if (points.length < 3) return [...points]
  const [a, b] = [points[0]!, points.at(-1)!]
  let [far, at] = [0, 0]
  for (let i = 1; i < points.length - 1; i++) {
    const off = distanceToSegment(...points[i]!, a, b)
    if (off > far) [far, at] = [off, i]
  }
  if (far <= offM) return [a, b]
  return [...telling(points.slice(0, at + 1), offM).slice(0, -1), ...telling(points.slice(at), offM)]
}

/**
 * An outline drawn with a finger, as handles that it bends through smoothly.
 *
 * @param stroke as the finger went, plan metres; where it ends is joined to where it began
 * @param offM how far the outline may lie from the stroke
 * @returns none where the stroke goes round nothing
 */
export function handlesOfStroke(stroke: readonly Point[], offM: number): Handle[] {
  const [first] = stroke
  if (!first || stroke.length < 4) return []
  // Cut where it is furthest from its start: of a ring there are no ends to begin with.
  const away = stroke.map(([x, y]) => Math.hypot(x - first[0], y - first[1]))
  const half = away.indexOf(Math.max(...away))
  const out = telling(stroke.slice(0, half + 1), offM)
  const back = telling([...stroke.slice(half), first], offM)
  const ring = [...out.slice(0, -1), ...back.slice(0, -1)]
  return ring.length < 3 ? [] : ring.map(([x, y]) => ({ x, y, curved: true }))
}
