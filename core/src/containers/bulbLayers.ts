import { mixSurfaceM2, type Vessel } from '../garden/index.ts'
import { addDays, daysBetween, seasonYearOf, type IsoDate } from '../dates/index.ts'
import { bulbSize, usualBloom, type Taxon, type Year } from '../plants/index.ts'
import { bulbSetting } from '../quantities/index.ts'

/** One layer of bulbs in a container. */
export interface BulbLayer {
  taxon: Taxon
  count: number
  /** From the surface of the mix to the bottom of the bulbs, metres. */
  depthM: number
  blooms: { from: IsoDate; to: IsoDate }
}

/** Layers that are planted above each other, and mix that is left below the lowest. */
const MOST_LAYERS = 3
const BELOW_M = 0.05
/** Between the bottom of a layer and the tops of the next below it: shoots find their way past. */
const APART_M = 0.02
/** Bulbs of a layer stand on so much of the surface. */
const COVERS = 0.7
/** Flowers of two layers begin at least so many days apart, so that one follows the other. */
const FOLLOWS_DAYS = 10

/**
 * Bulbs in layers for a container that is filled on a day: the deepest first, each of another time of flower, chosen so that something of them
 * flowers for as many weeks as may be. Found by trying every set of kinds that fit above each other.
 *
 * @param kinds of the library; those that are no bulbs, or of no known size, are passed over
 */
export function bulbLayers(
  kinds: readonly Taxon[],
  vessel: Vessel,
  on: IsoDate,
  year: Year,
  suits: (taxon: Taxon) => boolean = () => true,
): BulbLayer[] {
  const surface = mixSurfaceM2(vessel)
  const deepest = vessel.depthM - vessel.rimGapM - BELOW_M
  const season = seasonYearOf(addDays(on, 180), year.south)
  const found = kinds.flatMap((taxon) => {
    const size = bulbSize(taxon)
    const blooms = usualBloom(taxon, season, year)
    if (!size || size.isAtSurface || !blooms || daysBetween(on, blooms.from) > MOST_DAYS || blooms.from <= on)
      return []
    const { depthM, spacingM } = bulbSetting(size.heightM, size.widthM, 'pot')
    const count = Math.floor((COVERS * surface) / (0.866 * spacingM ** 2))
    return depthM <= deepest && count >= 3 && suits(taxon)
      ? [{ taxon, count, depthM, topM: depthM - size.heightM, blooms }]
      : []
  })
  const sorted = [...found].sort(
    (a, b) => b.depthM - a.depthM || (a.taxon.botanical < b.taxon.botanical ? -1 : 1),
  )
  let best: typeof found = []
  const weeks = (set: typeof found) =>
    set.reduce((sum, l) => sum + daysBetween(l.blooms.from, l.blooms.to), 0)
  const extend = (set: typeof found, from: number) => {
    if (weeks(set) > weeks(best)) best = set
    if (set.length === MOST_LAYERS) return
    for (let i = from; i < sorted.length; i++) {
      const next = sorted[i]!
      const above = set.at(-1)
      const fits = !above || above.topM - next.depthM >= APART_M
      const follows = set.every((l) => Math.abs(daysBetween(l.blooms.from, next.blooms.from)) >= FOLLOWS_DAYS)
      if (fits && follows) extend([...set, next], i + 1)
    }
  }
  extend([], 0)
  return best.map(({ taxon, count, depthM, blooms }) => ({ taxon, count, depthM, blooms }))
}

/** What flowers later than this after it was planted is of another year. */
const MOST_DAYS = 270
