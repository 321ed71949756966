import { mean } from 'd3-array'
import { outlineFault, areaM2, isInside, type Point, type Ring } from '../geometry/index.ts'
import type { Arrangement, BedGround } from './arrangement.ts'

/** Corners of cells, as whole numbers. */
type Corner = readonly [i: number, j: number]

/**
 * Outlines of the ground of every drift, plan metres: round each piece of it, and round each hole in it. Their points are the middles
 * of the cells' sides, so that a soft line through them goes neither beyond the ground by more than a corner nor jags.
 */
export function driftOutlines(
  { of: { stations }, cellM }: BedGround,
  { drifts, has }: Arrangement,
): Point[][][] {
  const [x0, y0] = [stations[0]?.x ?? 0, stations[0]?.y ?? 0]
  const cells = stations.map((s): Corner => [Math.round((s.x - x0) / cellM), Math.round((s.y - y0) / cellM)])
  const owner = new Map(cells.map(([i, j], c) => [`${i} ${j}`, has[c]!]))
  const sides = drifts.map(() => new Map<string, Corner[]>())
  cells.forEach(([i, j], c) => {
    const k = has[c]!
    if (k < 0) return
    // Round a cell against the clock; only sides with another beyond are kept.
    const round: readonly [di: number, dj: number, from: Corner, to: Corner][] = [
      [0, -1, [i, j], [i + 1, j]],
      [1, 0, [i + 1, j], [i + 1, j + 1]],
      [0, 1, [i + 1, j + 1], [i, j + 1]],
      [-1, 0, [i, j + 1], [i, j]],
    ]
    for (const [di, dj, from, to] of round)
      if (owner.get(`${i + di} ${j + dj}`) !== k) {
        const key = `${from[0]} ${from[1]}`
        const known = sides[k]!.get(key)
        if (known) known.push(to)
        else sides[k]!.set(key, [to])
      }
  })
  const at = ([i, j]: Corner): Point => [x0 + (i - 0.5) * cellM, y0 + (j - 0.5) * cellM]
  return sides.map((of) => {
    const rings: Point[][] = []
    for (const [start] of of) {
      while ((of.get(start)?.length ?? 0) > 0) {
        const ring: Point[] = []
        let from = start.split(' ').map(Number) as unknown as Corner
        for (;;) {
          const to = of.get(`${from[0]} ${from[1]}`)?.pop()
          if (!to) break
          const [a, b] = [at(from), at(to)]
          ring.push([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2])
          from = to
        }
        rings.push(ring)
      }
    }
    return rings
  })
}

/** No outline is kept with more corners. */
const MOST_CORNERS = 200

/** Where a drift stands once it is planted. */
export interface DriftStand {
  /** In its ground. */
  x: number
  y: number
  /** Round its largest piece; null where that is too small or too ragged to be drawn. */
  outline: Ring | null
}

/** Where each drift of an arrangement stands, by their turn; undefined of one that has no ground. */
export function driftStands(ground: BedGround, arranged: Arrangement): (DriftStand | undefined)[] {
  const { stations } = ground.of
  return driftOutlines(ground, arranged).map((rings, k) => {
    const cells = stations.filter((_, c) => arranged.has[c] === k)
    if (cells.length === 0) return undefined
    const [largest] = rings.toSorted((a, b) => areaM2(b) - areaM2(a))
    const ring = largest && withoutStraights(largest)
    const isDrawn = ring && ring.length >= 3 && ring.length <= MOST_CORNERS && !outlineFault(ring)
    const own = isDrawn ? cells.filter((c) => isInside(ring, c.x, c.y)) : cells
    const among = own.length > 0 ? own : cells
    const [mx, my] = [mean(among, (c) => c.x)!, mean(among, (c) => c.y)!]
    const away = (c: { x: number; y: number }) => Math.hypot(c.x - mx, c.y - my)
    const { x, y } = among.reduce((a, b) => (away(b) < away(a) ? b : a))
    return { x, y, outline: isDrawn && own.length > 0 ? ring : null }
  })
}

/** A ring without the corners that lie between two others on a line. */
const withoutStraights = (ring: readonly Point[]): Point[] =>
  ring.filter(([x, y], i) => {
    const [ax, ay] = ring.at(i - 1)!
    const [bx, by] = ring[(i + 1) % ring.length]!
    return Math.abs((x - ax) * (by - y) - (y - ay) * (bx - x)) > 1e-9
  })
