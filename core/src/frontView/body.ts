import type { Taxon } from '../plants/index.ts'
import { flowerForm, plantForm, type PlantForm } from './form.ts'
import type { Appearance } from './appearance.ts'

/** A part of a plant as its outline from the side: between two shares of its height, so wide at each share of that part. */
export interface Band {
  from: number
  to: number
  /** Half of the width as a share of half the spread, from the foot of the part, 0, to its top, 1. */
  halfWidth: (t: number) => number
}

/** How a form is built. */
export interface Build {
  leaves: Band
  /** Where its flowers stand, and its heads after them. */
  flowers: Band
  /** Flowers lie on the leaves rather than above them. */
  isStrewn: boolean
}

const dome = (t: number): number => Math.sqrt(Math.max(0, 1 - t ** 2.2))
const egg = (t: number): number => 0.05 + 0.95 * Math.sin(Math.PI * Math.min(1, 0.07 + 0.93 * t) ** 0.72)
const vase = (t: number): number => 0.32 + 0.68 * Math.sin(Math.PI * Math.min(0.98, 0.2 + 0.62 * t))
const fan = (t: number): number => (0.25 + 0.75 * t) * Math.sqrt(Math.max(0, 1 - t ** 6))
const tuft = (t: number): number => (0.72 + 0.28 * Math.sin(2.6 * t)) * Math.sqrt(Math.max(0, 1 - t ** 8))
const round = (t: number): number => Math.sqrt(Math.max(0, 1 - (2 * t - 1) ** 2))
const all = (share: number) => (): number => share

const build = (leaves: Band, flowers: Band, isStrewn = false): Build => ({ leaves, flowers, isStrewn })
const band = (from: number, to: number, halfWidth: Band['halfWidth']): Band => ({ from, to, halfWidth })

/** How each form is built. Judgements, by the look of usual kinds. */
export const builds: Readonly<Record<PlantForm, Build>> = {
  mound: build(
    band(0, 0.92, dome),
    band(0.4, 1, (t) => 0.95 * dome(0.4 + 0.6 * t)),
    true,
  ),
  clump: build(band(0, 0.8, tuft), band(0.72, 1, all(0.85))),
  spires: build(
    band(0, 0.5, dome),
    band(0.45, 1, (t) => 0.85 - 0.3 * t),
  ),
  umbels: build(band(0, 0.62, dome), band(0.72, 1, all(0.92))),
  fountain: build(
    band(0, 0.72, fan),
    band(0.62, 1, (t) => 0.45 + 0.15 * t),
  ),
  strap: build(band(0, 0.6, fan), band(0.72, 1, all(0.7))),
  sword: build(band(0, 0.82, fan), band(0.78, 1, all(0.5))),
  broad: build(band(0, 0.72, dome), band(0.68, 1, all(0.45))),
  rosette: build(band(0, 0.5, dome), band(0.55, 1, all(0.4))),
  mat: build(
    band(0, 0.85, dome),
    band(0.4, 1, (t) => 0.95 * dome(0.5 * t)),
    true,
  ),
  fern: build(
    band(0, 1, (t) => (0.3 + 0.7 * t) * Math.sqrt(Math.max(0, 1 - t ** 5))),
    band(0.9, 1, all(0)),
  ),
  'round shrub': build(
    band(0.04, 1, egg),
    band(0.3, 1, (t) => 0.92 * egg(0.3 + 0.7 * t)),
    true,
  ),
  'vase shrub': build(
    band(0.08, 1, vase),
    band(0.35, 1, (t) => 0.9 * vase(0.35 + 0.65 * t)),
    true,
  ),
  arching: build(
    band(0.04, 1, (t) => (0.55 + 0.45 * t) * Math.sqrt(Math.max(0, 1 - t ** 5))),
    band(0.3, 1, (t) => 0.88 * Math.sqrt(Math.max(0, 1 - t ** 3))),
    true,
  ),
  weeping: build(
    band(0.1, 1, (t) => 0.95 * Math.sqrt(Math.max(0, 1 - t ** 4))),
    band(0.2, 1, (t) => 0.85 * Math.sqrt(Math.max(0, 1 - t ** 4))),
    true,
  ),
  column: build(
    band(0.02, 1, (t) => 0.9 * Math.sin(Math.PI * Math.min(0.99, 0.08 + 0.9 * t)) ** 0.5),
    band(0.2, 1, all(0.5)),
    true,
  ),
  cone: build(
    band(0.02, 1, (t) => 0.04 + 0.96 * (1 - t)),
    band(0.1, 0.9, (t) => 0.8 * (1 - t)),
    true,
  ),
  climber: build(
    band(0.02, 1, (t) => 0.9 * Math.sqrt(Math.max(0, 1 - t ** 10))),
    band(0.2, 1, all(0.8)),
    true,
  ),
  standard: build(
    band(0.55, 1, round),
    band(0.55, 1, (t) => 0.95 * round(t)),
    true,
  ),
  tree: build(
    band(0.38, 1, (t) => 0.98 * round(0.06 + 0.94 * t) ** 0.8),
    band(0.42, 1, (t) => 0.9 * round(0.1 + 0.9 * t)),
    true,
  ),
}

/** A plant as its outline from the side: parts in metres above its foot and to either side of it. */
export interface Body {
  heightM: number
  spreadM: number
  /** Absent where it has no leaves out. */
  leaves?: Band | undefined
  flowers?: Band | undefined
}

/** Of its spread what is there when it has hardly come up. */
const LEAST_SPREAD = 0.5
/** Fewer leaves than this hide nothing. */
const SCARCE = 0.15

/** The outline of a plant of a size as it looks on a day; undefined where there is nothing to see. */
export function bodyOf(
  taxon: Pick<Taxon, 'botanical' | 'habit' | 'lifeForm' | 'bloomFrom'>,
  { heightM, spreadM }: { heightM: number; spreadM: number },
  look: Appearance,
): Body | undefined {
  if (look.height === 0) return undefined
  const { leaves, flowers } = builds[plantForm(taxon)]
  const hasFlowers = flowerForm(taxon) !== undefined && (look.flower > 0 || look.heads > 0)
  return {
    heightM: heightM * look.height,
    spreadM: spreadM * (LEAST_SPREAD + (1 - LEAST_SPREAD) * look.height),
    leaves: look.leaf > SCARCE ? leaves : undefined,
    flowers: hasFlowers ? flowers : undefined,
  }
}
