import {
  acrossAt,
  areaAcross,
  isRounded,
  mixLitresOf,
  reckonedAs,
  type Vessel,
  wallM2,
} from '../garden/index.ts'
import type { MixTraits } from './mix.ts'

/** What a container weighs, kilograms. */
export interface Weight {
  empty: number
  /** Dry mix and plants in it. */
  dry: number
  /** Watered through, its reservoir and saucer full. */
  wet: number
  /** Square metres that it stands on. */
  footprintM2: number
  /** Of the wet weight, on each square metre that it stands on. */
  wetPerM2: number
}

/** A plant in leaf weighs about so much for each cubic metre of its outline: a working figure. */
const LEAF_KG_PER_M3 = 3
/** Water that a saucer holds: a layer of so much. */
const SAUCER_M = 0.02

/** A plant as it bears on weight, wind and water: how large it is, and how many of it. */
export interface Grown {
  heightM: number
  spreadM: number
  count: number
}

const outlineM3 = ({ heightM, spreadM, count }: Grown): number =>
  (Math.PI / 6) * spreadM ** 2 * heightM * count

export function weightOf(v: Vessel, mix: MixTraits, plants: readonly Grown[]): Weight {
  const litres = mixLitresOf(v)
  const { side, floor } = wallM2(v)
  const empty = (side + floor) * v.wallM * reckonedAs(v.material).density
  const leaf = LEAF_KG_PER_M3 * plants.reduce((sum, p) => sum + outlineM3(p), 0)
  const dry = empty + litres * mix.kgPerLitre + leaf
  const footprintM2 = areaAcross(v, footOf(v))
  const saucer = v.saucer ? 1000 * SAUCER_M * footprintM2 : 0
  const wet = dry + litres * mix.water + v.reservoirL + saucer
  return { empty, dry, wet, footprintM2, wetPerM2: wet / footprintM2 }
}

/** A bowl stands on the middle half of its width. */
const BOWL_STANDS_ON = 0.5

/** Across what it stands on, outside, metres: along and across. */
export function footOf(v: Vessel): { lengthM: number; widthM: number } {
  const inside = isRounded(v)
    ? { lengthM: BOWL_STANDS_ON * v.lengthM, widthM: BOWL_STANDS_ON * v.widthM }
    : acrossAt(v, 0)
  return { lengthM: inside.lengthM + 2 * v.wallM, widthM: inside.widthM + 2 * v.wallM }
}

/** What one person lifts without harm when it can be held close: guidance on handling loads asks for care from 20 to 25 kilograms on. */
const LIFTED_BY_ONE_KG = 20
/** More people than this do not get hold of a pot. */
const MOST_LIFTERS = 4

/** How many people lift so much; undefined where it is for a sack truck, rollers or a hoist. */
export function liftedBy(kg: number): number | undefined {
  const people = Math.max(1, Math.ceil(kg / LIFTED_BY_ONE_KG - 1e-9))
  return people <= MOST_LIFTERS ? people : undefined
}
