import {
  distanceToBoundary,
  driftRadiusM,
  extentOf,
  isInside,
  seededRandom,
  type Point,
  type Ring,
  type Taxon,
} from '@border/core'

/** A drift to be given ground in a bed; `at` when it has some already. */
export interface Drift {
  taxon: Taxon
  count: number
  at?: Point
}

const TRIES = 800
/** Drifts interlock at their edges by this share of the smaller radius. */
const INTERLOCK = 0.25
const BULB_FORMS: readonly Taxon['lifeForm'][] = ['bulb']

/**
 * Ground for each drift of a bed, as a planter lays out pots: the largest first, each where it has most room. Bulbs
 * go between and under the others.
 *
 * @returns one spot a drift, in order
 * @throws {Error} when a drift finds no room: the sketch asks too much of the bed
 */
export function layOut(ring: Ring, drifts: readonly Drift[], seed: number): Point[] {
  const random = seededRandom(seed)
  const extent = extentOf(ring)
  const radius = drifts.map((d) => driftRadiusM(d.count, d.taxon.spacingM))
  const isBulb = drifts.map((d) => BULB_FORMS.includes(d.taxon.lifeForm))
  const spots: (Point | undefined)[] = drifts.map((d) => d.at)
  const order = drifts.map((_, i) => i).filter((i) => !spots[i])
  order.sort((a, b) => radius[b]! - radius[a]!)
  for (const i of order) {
    let best: Point | undefined
    let bestRoom = -Infinity
    for (let t = 0; t < TRIES; t++) {
      const x = extent.minX + random() * (extent.maxX - extent.minX)
      const y = extent.minY + random() * (extent.maxY - extent.minY)
      if (!isInside(ring, x, y)) continue
      const toEdge = distanceToBoundary(ring, x, y) - radius[i]! * 0.85
      const others = spots.flatMap((s, j) =>
        s && isBulb[j] === isBulb[i]
          ? [
              Math.hypot(s[0] - x, s[1] - y) -
                radius[i]! -
                radius[j]! +
                2 * INTERLOCK * Math.min(radius[i]!, radius[j]!),
            ]
          : [],
      )
      const room = Math.min(toEdge, ...others)
      // Enough room is enough: drifts then stand beside each other and not as far apart as can be.
      const worth = Math.min(room, 0.1) + random() * 0.02
      if (worth > bestRoom) [best, bestRoom] = [[x, y], worth]
    }
    if (!best || bestRoom < 0) throw new Error(`No room for ${drifts[i]!.taxon.botanical}`)
    spots[i] = [Math.round(best[0] * 100) / 100, Math.round(best[1] * 100) / 100]
  }
  return spots as Point[]
}
