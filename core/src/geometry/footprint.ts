import {
  areaM2,
  centroid,
  distanceToBoundary,
  extentOf,
  isInside,
  type Extent,
  type Point,
  type Ring,
} from './ring.ts'

/** Ground that is covered: a round, or an outline where somebody drew one. Metres. */
export type Footprint = Disc | Outline
/** A round of ground: middle in plan metres, radius in metres. */
export interface Disc {
  x: number
  y: number
  radiusM: number
}
/** Ground inside a ring. */
export interface Outline {
  ring: Ring
}

const isDisc = (f: Footprint): f is Disc => 'radiusM' in f

/** Square metres of ground. */
export const footprintAreaM2 = (f: Footprint): number =>
  isDisc(f) ? Math.PI * f.radiusM ** 2 : areaM2(f.ring)

/** Its middle: of a round its centre, of a ring its centroid, which may lie outside. */
export const footprintMiddle = (f: Footprint): Point => (isDisc(f) ? [f.x, f.y] : centroid(f.ring))

/** Whether a point of the plan lies on it; the edge of a round does. */
export const covers = (f: Footprint, x: number, y: number): boolean =>
  isDisc(f) ? (f.x - x) ** 2 + (f.y - y) ** 2 <= f.radiusM ** 2 : isInside(f.ring, x, y)

/** The least upright box around it. */
export const footprintExtent = (f: Footprint): Extent =>
  isDisc(f)
    ? { minX: f.x - f.radiusM, minY: f.y - f.radiusM, maxX: f.x + f.radiusM, maxY: f.y + f.radiusM }
    : extentOf(f.ring)

/** The round of the same area about the same middle: what is asked for where only a size counts. */
export function asDisc(f: Footprint): Disc {
  if (isDisc(f)) return f
  const [x, y] = centroid(f.ring)
  return { x, y, radiusM: Math.sqrt(areaM2(f.ring) / Math.PI) }
}

/** Metres from a point to the edge of a footprint: negative inside it. */
export function metresOutside(f: Footprint, x: number, y: number): number {
  if (isDisc(f)) return Math.hypot(f.x - x, f.y - y) - f.radiusM
  const away = distanceToBoundary(f.ring, x, y)
  return isInside(f.ring, x, y) ? -away : away
}

/** A footprint grown outwards: exact for a round; an outline's corners move away from its middle by so much. */
export function grown<F extends Footprint>(f: F, byM: number): F {
  if (isDisc(f)) return { ...f, radiusM: f.radiusM + byM }
  const [cx, cy] = centroid(f.ring)
  return {
    ...f,
    ring: f.ring.map(([x, y]): Point => {
      const away = Math.hypot(x - cx, y - cy)
      const by = away === 0 ? 1 : (away + byM) / away
      return [cx + (x - cx) * by, cy + (y - cy) * by]
    }),
  }
}

/** Rows and columns that an overlap with an outline is counted on. */
const COUNTED = 40

/**
 * Area that two footprints share, square metres. Of two rounds it is exact, two circular segments (plane geometry); with an
 * outline it is counted on points of the smaller one, to a few hundredths of its area.
 */
export function sharedAreaM2(a: Footprint, b: Footprint): number {
  if (isDisc(a) && isDisc(b)) return lens(a.radiusM, b.radiusM, Math.hypot(a.x - b.x, a.y - b.y))
  const [small, large] = footprintAreaM2(a) <= footprintAreaM2(b) ? [a, b] : [b, a]
  const { minX, minY, maxX, maxY } = footprintExtent(small)
  const around = footprintExtent(large)
  if (minX > around.maxX || maxX < around.minX || minY > around.maxY || maxY < around.minY) return 0
  const [dx, dy] = [(maxX - minX) / COUNTED, (maxY - minY) / COUNTED]
  let hits = 0
  for (let i = 0; i < COUNTED; i++)
    for (let j = 0; j < COUNTED; j++) {
      const [x, y] = [minX + (i + 0.5) * dx, minY + (j + 0.5) * dy]
      if (covers(small, x, y) && covers(large, x, y)) hits++
    }
  return hits * dx * dy
}

function lens(a: number, b: number, apart: number): number {
  if (apart >= a + b) return 0
  if (apart <= Math.abs(a - b)) return Math.PI * Math.min(a, b) ** 2
  const angle = (near: number, far: number) =>
    Math.acos((apart ** 2 + near ** 2 - far ** 2) / (2 * apart * near))
  const [alpha, beta] = [angle(a, b), angle(b, a)]
  const kite = 0.5 * Math.sqrt((a + b - apart) * (apart + a - b) * (apart - a + b) * (apart + a + b))
  return a ** 2 * alpha + b ** 2 * beta - kite
}
