import type { FeatureView } from '@border/contract'
import { extentOf, isPlace, M_PER_FOOT, type Extent, type Point, type Units } from '@border/core'

/** Plan metres to pixels, y up to y down, the same scale both ways. */
export interface PlanScale {
  x: (m: number) => number
  y: (m: number) => number
  /** Plan metres under a pixel. */
  at: (px: number, py: number) => Point
  pxPerM: number
}

/** Space left round what is fitted into a drawing, pixels. */
const MARGIN_PX = 24

/** The ground that fills a drawing of a size, about a middle. */
export function extentAbout([x, y]: Point, pxPerM: number, width: number, height: number): Extent {
  const [w, h] = [(width - 2 * MARGIN_PX) / pxPerM / 2, (height - 2 * MARGIN_PX) / pxPerM / 2]
  return { minX: x - w, minY: y - h, maxX: x + w, maxY: y + h }
}

/** Fits an extent into a drawing, centred. */
export function fitPlan(extent: Extent, width: number, height: number, marginPx = MARGIN_PX): PlanScale {
  const w = Math.max(0.1, extent.maxX - extent.minX)
  const h = Math.max(0.1, extent.maxY - extent.minY)
  const pxPerM = Math.min((width - 2 * marginPx) / w, (height - 2 * marginPx) / h)
  const left = (width - w * pxPerM) / 2
  const bottom = height - (height - h * pxPerM) / 2
  return {
    x: (m) => left + (m - extent.minX) * pxPerM,
    y: (m) => bottom - (m - extent.minY) * pxPerM,
    at: (px, py) => [extent.minX + (px - left) / pxPerM, extent.minY + (bottom - py) / pxPerM],
    pxPerM,
  }
}

/** All points of a feature, with a tree's crown and a pot's rim. */
export function pointsOf(f: FeatureView): Point[] {
  const g = f.geometry
  if (g.type === 'LineString') return g.coordinates.map((p): Point => [p[0], p[1]])
  if (g.type === 'Polygon') return g.coordinates[0]!.map((p): Point => [p[0], p[1]])
  const [x, y] = g.coordinates
  const r = ((f.properties.crownRadiusM as number | undefined) ?? 0.5) * 0.7
  return [
    [x! - r, y! - r],
    [x! + r, y! + r],
  ]
}

/** The ground worth showing: places with what stands about them, not the far ends of long walls and neighbours' roofs. */
export function gardenExtent(features: readonly FeatureView[]): Extent {
  const all = extentOf(features.flatMap(pointsOf))
  const places = features.filter(isPlace)
  if (places.length === 0)
    return features.length === 0 ? { minX: 0, minY: 0, maxX: 20, maxY: 14 } : grow(all, 1)
  const near = grow(extentOf(places.flatMap(pointsOf)), 7)
  return {
    minX: Math.max(all.minX - 1, near.minX),
    minY: Math.max(all.minY - 1, near.minY),
    maxX: Math.min(all.maxX + 1, near.maxX),
    maxY: Math.min(all.maxY + 1, near.maxY),
  }
}

export const grow = (e: Extent, m: number): Extent => ({
  minX: e.minX - m,
  minY: e.minY - m,
  maxX: e.maxX + m,
  maxY: e.maxY + m,
})

const ROUND = [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500]

/**
 * The scale bar: a length that is round where somebody measures, about a sixth of the drawing.
 *
 * @returns metres, and how it is written
 */
export function scaleBar(pxPerM: number, width: number, of: Units['length']): { m: number; text: string } {
  const [per, unit] = of === 'metres' ? [1, 'm'] : [M_PER_FOOT, 'ft']
  const wanted = width / 6 / pxPerM / per
  const length = ROUND.find((l) => l >= wanted * 0.7) ?? ROUND.at(-1)!
  return { m: length * per, text: `${length} ${unit}` }
}
