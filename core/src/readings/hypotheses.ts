import type { IsoDate } from '../dates/index.ts'
import { standing, supposed, type Obstruction, type Scene, type Supposition } from '../light/index.ts'

/** A kind of change nobody has recorded. */
export type HiddenChange = 'gone' | 'lowered' | 'thinned' | 'limbed' | 'grown' | 'raised'

/** One thing other than drawn, at one size. */
export interface Variant {
  what: HiddenChange
  obstructionId: string
  supposition: Supposition
  changed: Obstruction | undefined
  /** Sizes that were free to choose. */
  parameters: number
}

const LOWERED_TO = [0.15, 0.25, 0.35, 0.45, 0.55, 0.7, 0.85]
const GROWN_TO = [1.15, 1.3, 1.5, 1.8, 2.2]
const THINNED_BY = [0.3, 0.5, 0.7]
const LIMBED_TO = [0.2, 0.3, 0.4, 0.55, 0.7]
/** A crown widens less than a tree grows taller. */
const CROWN_SHARE = 0.6

/**
 * Every change of one obstruction that is looked for, at a handful of sizes each: gone; lowered; a plant thinned or
 * grown; a tree limbed up; anything built raised.
 *
 * @param on the day it is taken as it stands
 * @returns empty when it does not stand that day
 */
export function variantsOf(o: Obstruction, on: IsoDate): Variant[] {
  const solid = standing(o, on)
  if (!solid) return []
  const variant = (what: HiddenChange, change: Omit<Supposition, 'obstructionId'>): Variant => {
    const supposition = { obstructionId: o.id, ...change }
    return {
      what,
      obstructionId: o.id,
      supposition,
      changed: supposed(o, supposition, on),
      parameters: what === 'gone' ? 1 : 2,
    }
  }
  const isPlant = o.kind === 'tree' || o.kind === 'hedge'
  const found = [
    variant('gone', { gone: true }),
    ...LOWERED_TO.map((f) => variant('lowered', { heightM: round(solid.heightM * f) })),
    ...GROWN_TO.map((f) =>
      variant(isPlant ? 'grown' : 'raised', {
        heightM: round(solid.heightM * f),
        ...(solid.shape === 'crown'
          ? { crownRadiusM: round(solid.radiusM * (1 + (f - 1) * CROWN_SHARE)) }
          : {}),
      }),
    ),
  ]
  if (isPlant && solid.shape !== 'prism' && solid.transmission > 0)
    found.push(...THINNED_BY.map((f) => variant('thinned', { thinnedBy: f })))
  if (solid.shape === 'crown')
    found.push(
      ...LIMBED_TO.map((f) => round(solid.heightM * f))
        .filter((clearStemM) => clearStemM > solid.clearStemM + 0.5)
        .map((clearStemM) => variant('limbed', { clearStemM })),
    )
  return found
}

const round = (m: number) => Math.round(m * 10) / 10

/** Something that is not on the plan, as a block standing square to where it is seen from. */
export interface NewBlock {
  bearingDeg: number
  distanceM: number
  widthM: number
  heightM: number
}

/** A block is told by the patch of sky it fills: bearing, width and height; how far off it stands hardly shows. */
export const NEW_PARAMETERS = 3
const DEPTH_M = 4
const BEARING_STEP_DEG = 15
const DISTANCES_M = [3, 5, 8, 12, 18, 27]
const WIDTHS_M = [3, 6, 12]
/** Height over distance: from a sixth of the way up the sky to nearly half. */
const STEEPNESSES = [0.3, 0.55, 0.9]
const HIGHEST_M = 25

/** Blocks all round and near and far that would stand well above the horizon. */
export function* newBlocks(): Generator<NewBlock> {
  for (let bearingDeg = 0; bearingDeg < 360; bearingDeg += BEARING_STEP_DEG)
    for (const distanceM of DISTANCES_M)
      for (const widthM of WIDTHS_M)
        for (const steepness of STEEPNESSES)
          yield { bearingDeg, distanceM, widthM, heightM: Math.min(HIGHEST_M, distanceM * steepness) }
}

/** Blocks a little other than a given one, for closing in on the best. */
export function blocksNear(b: NewBlock, step: number): NewBlock[] {
  return [
    { ...b, bearingDeg: b.bearingDeg + BEARING_STEP_DEG * step },
    { ...b, bearingDeg: b.bearingDeg - BEARING_STEP_DEG * step },
    { ...b, distanceM: b.distanceM * (1 + step / 2) },
    { ...b, distanceM: b.distanceM / (1 + step / 2) },
    { ...b, widthM: b.widthM * (1 + step) },
    { ...b, widthM: b.widthM / (1 + step) },
    { ...b, heightM: b.heightM * (1 + step) },
    { ...b, heightM: b.heightM / (1 + step) },
  ]
}

/** The block on the plan, as seen from a middle; bearings are from true north. */
export function blockAsBuilding(
  b: NewBlock,
  middle: readonly [number, number],
  northDeg: Scene['northDeg'],
): Extract<Obstruction, { kind: 'building' }> {
  const bearing = ((b.bearingDeg + northDeg) * Math.PI) / 180
  const [ux, uy] = [Math.sin(bearing), Math.cos(bearing)]
  const corner = (out: number, along: number) =>
    [middle[0] + ux * out + uy * along, middle[1] + uy * out - ux * along] as const
  const half = b.widthM / 2
  const far = b.distanceM + DEPTH_M
  return {
    id: 'something new',
    name: 'something new',
    kind: 'building',
    ring: [corner(b.distanceM, -half), corner(b.distanceM, half), corner(far, half), corner(far, -half)],
    heightM: b.heightM,
  }
}
