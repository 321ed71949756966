import { distanceToBoundary, extentOf, isInside, type Point } from '../geometry/index.ts'
import type { Taxon } from '../plants/index.ts'
import { fillingAfter, roomForFillerM } from '../rework/filling.ts'
import { sizeAt } from '../rework/growth.ts'
import { fillerOf, placeOutline } from '../rework/said.ts'
import type { LaidScheme, StandingPlant } from './standing.ts'

/** Under this name fillers stand among the drifts of a scheme. */
export const FILLERS = 'fillers'

/** Places for them are looked for so far apart, metres, or farther in a bed with room for more than so many. */
const STEP_M = 0.1
const MOST_LOOKED_AT = 4000
/** They stand so near each other, as a share of their spacing, and so far from the edge of the bed. */
const CLOSEST = 0.85
const FROM_EDGE = 0.35

/**
 * Annuals that fill what is open between plants, so many years after those were planted: where there is most room, each in its own.
 *
 * @param outline of the bed
 * @param most of them, as they were reckoned; no more are set than there is room for
 */
function fillersAmong(
  outline: readonly Point[],
  plants: readonly StandingPlant[],
  filler: Taxon,
  most: number,
  years: number,
): StandingPlant[] {
  if (most === 0) return []
  const ring = outline.map(([x, y]): Point => [x, y])
  const { minX, minY, maxX, maxY } = extentOf(ring)
  const step = Math.max(STEP_M, Math.sqrt(((maxX - minX) * (maxY - minY)) / MOST_LOOKED_AT))
  const leastM = roomForFillerM(filler)
  const grown = plants
    // Bulbs come up between others, and are gone when annuals are set.
    .filter((p) => p.taxon.lifeForm !== 'bulb')
    .map((p) => ({ x: p.x, y: p.y, radiusM: sizeAt(p.taxon, p.ageYears + years).spreadM / 2 }))
  const open: { x: number; y: number; roomM: number }[] = []
  for (let x = minX + step / 2; x < maxX; x += step)
    for (let y = minY + step / 2; y < maxY; y += step) {
      if (!isInside(ring, x, y) || distanceToBoundary(ring, x, y) < FROM_EDGE * filler.spacingM) continue
      const roomM = grown.reduce(
        (least, g) => Math.min(least, Math.hypot(g.x - x, g.y - y) - g.radiusM),
        Infinity,
      )
      if (roomM >= leastM) open.push({ x, y, roomM })
    }
  open.sort((a, b) => b.roomM - a.roomM)
  const set: Point[] = []
  for (const { x, y } of open) {
    if (set.length === most) break
    if (set.every(([sx, sy]) => Math.hypot(sx - x, sy - y) >= CLOSEST * filler.spacingM)) set.push([x, y])
  }
  return set.map(([x, y], i): StandingPlant => ({
    id: `${FILLERS} ${i}`,
    groupId: FILLERS,
    taxon: filler,
    x,
    y,
    ageYears: 0,
  }))
}

/** The annuals of a scheme in a year after it was planted, where it has room for them: none where nobody has said which. @param plants of the scheme */
export function fillersOfScheme(
  { ground, arranged, filler, kindOf }: Pick<LaidScheme, 'ground' | 'arranged' | 'filler' | 'kindOf'>,
  plants: readonly StandingPlant[],
  years: number,
): StandingPlant[] {
  const taxon = fillerOf({ filler }, kindOf)
  if (!taxon || !arranged.has.some((k) => k >= 0)) return []
  const { fillers } = fillingAfter(years, arranged.drifts, taxon)
  return fillersAmong(placeOutline(ground.of.place), plants, taxon, fillers, years)
}
