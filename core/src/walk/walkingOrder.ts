import type { Point } from '../geometry/index.ts'
import { compareTags } from '../words/index.ts'

/**
 * An order to walk some places in with little ground covered twice: from the first, always on to the nearest left, then
 * crossings undone (2-opt) until none is left. Same places, same order.
 *
 * @returns ids, each once
 */
export function walkingOrder(places: readonly { id: string; at: Point }[]): string[] {
  if (places.length < 3) return places.map((p) => p.id)
  // Start at an edge of the garden: the place furthest west.
  const left = [...places].sort((a, b) => a.at[0] - b.at[0] || a.at[1] - b.at[1])
  const route = [left.shift()!]
  while (left.length > 0) {
    const here = route.at(-1)!.at
    let best = 0
    left.forEach((p, i) => {
      if (apart(here, p.at) < apart(here, left[best]!.at)) best = i
    })
    route.push(...left.splice(best, 1))
  }
  uncross(route)
  return route.map((p) => p.id)
}

const apart = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1])

function uncross(route: { at: Point }[]): void {
  for (let improved = true; improved;) {
    improved = false
    for (let i = 0; i < route.length - 2; i++)
      for (let j = i + 2; j < route.length; j++) {
        const [a, b, c, d] = [route[i]!.at, route[i + 1]!.at, route[j]!.at, route[j + 1]?.at]
        const now = apart(a, b) + (d ? apart(c, d) : 0)
        const then = apart(a, c) + (d ? apart(b, d) : 0)
        if (then >= now - 1e-9) continue
        route.splice(i + 1, j - i, ...route.slice(i + 1, j + 1).reverse())
        improved = true
      }
  }
}

/** Plantings of a place in the order one meets them walking along its longer side. */
export function alongPlace<P extends { x: number; y: number; tag: string }>(plantings: readonly P[]): P[] {
  const span = (of: (p: P) => number) =>
    plantings.length === 0 ? 0 : Math.max(...plantings.map(of)) - Math.min(...plantings.map(of))
  const eastWest = span((p) => p.x) >= span((p) => p.y)
  return [...plantings].sort((a, b) => (eastWest ? a.x - b.x : a.y - b.y) || compareTags(a.tag, b.tag))
}
