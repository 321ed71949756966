import type { SoilTexture } from '../garden/index.ts'
import { bulbSize, type Taxon } from '../plants/index.ts'

/** Litres of a layer: compost, mulch, gravel. @param depthM as it lies when spread */
export const layerLitres = (areaM2: number, depthM: number): number => 1000 * areaM2 * depthM

/** What a gardener's barrow takes, level: 85 litres as they are usually made. */
export const BARROW_LITRES = 85
/** What one person wheels in one load over soft ground, kilograms: a working figure, and many should wheel less. */
const BARROW_KG = 100

/**
 * Barrow loads of something by volume, or by weight where that fills first.
 *
 * @param kgPerLitre as it is carried; 0 where its weight does not count
 */
export function barrowLoads(litres: number, kgPerLitre = 0): number {
  const each = kgPerLitre > 0 ? Math.min(BARROW_LITRES, BARROW_KG / kgPerLitre) : BARROW_LITRES
  return litres > 0 ? Math.ceil(litres / each - 1e-9) : 0
}

/** Parts of a mix, by volume. */
export interface MixPart {
  name: string
  parts: number
}

/** Fine parts slip between coarse ones: a mix is less than its parts by about so much. A working figure; straight stuff loses nothing. */
const MIXING_LOSS = 0.1

/**
 * Litres of each part for so much of a mix.
 *
 * @param litres of the mix as it is filled in
 * @returns in the order of the parts; empty where they come to nothing
 */
export function mixLitres(litres: number, parts: readonly MixPart[]): { name: string; litres: number }[] {
  const some = parts.filter((p) => p.parts > 0)
  const all = some.reduce((sum, p) => sum + p.parts, 0)
  const needed = some.length > 1 ? litres / (1 - MIXING_LOSS) : litres
  return some.map((p) => ({ name: p.name, litres: (needed * p.parts) / all }))
}

/** A planting hole is dug this many times the width of the root ball, at its depth: usual advice is two to three. */
export const HOLE_WIDTHS = 2.5

/**
 * Litres of ground that are dug out for so many plants: a cylinder as deep as the ball.
 *
 * @param ballM across the root ball
 * @param deepM how deep it is
 */
export const holeLitres = (count: number, ballM: number, deepM = ballM): number =>
  1000 * count * Math.PI * ((HOLE_WIDTHS * ballM) / 2) ** 2 * deepM

/** How deep bulbs are set, and how far apart. */
export interface BulbSetting {
  /** From the surface to the bottom of the bulb. */
  depthM: number
  spacingM: number
}

/**
 * Bulbs stand with two to three times their own height of soil above and beside them: the deeper in light soil; in pots closer.
 *
 * @param heightM of the bulb itself
 * @param widthM of the bulb itself
 */
export function bulbSetting(
  heightM: number,
  widthM: number,
  where: 'light soil' | 'heavy soil' | 'pot',
): BulbSetting {
  const heights = where === 'light soil' ? 3 : 2
  return { depthM: (heights + 1) * heightM, spacingM: (where === 'pot' ? 1.3 : 3) * widthM }
}

/** Covered by no more than this, metres: what is set at the surface. */
const HARDLY_COVERED_M = 0.02

/**
 * How bulbs of a kind are set in a soil: at the surface those that want it so; undefined of kinds whose bulbs nobody has said the size of.
 *
 * @param texture of the soil; undefined where nobody has said: it is not taken to be light
 */
export function bulbsSet(
  taxon: Pick<Taxon, 'botanical' | 'lifeForm'>,
  texture: SoilTexture | undefined,
): BulbSetting | undefined {
  const size = bulbSize(taxon)
  if (!size) return undefined
  const { heightM, widthM, isAtSurface } = size
  const set = bulbSetting(heightM, widthM, texture && isLight(texture) ? 'light soil' : 'heavy soil')
  return isAtSurface ? { ...set, depthM: heightM + HARDLY_COVERED_M } : set
}

const isLight = (texture: SoilTexture): boolean => texture === 'sand' || texture === 'sandy loam'

/**
 * Bulbs for ground between other plants, in clumps.
 *
 * @param perClump an odd number looks least counted
 * @param betweenM from the middle of one clump to the next
 */
export function bulbClumps(
  areaM2: number,
  perClump: number,
  betweenM: number,
): { clumps: number; bulbs: number } {
  // As plants of a drift: each clump in a triangular grid.
  const clumps = Math.max(areaM2 > 0 ? 1 : 0, Math.floor(areaM2 / (0.866 * betweenM ** 2)))
  return { clumps, bulbs: clumps * perClump }
}
