import { daysBetween, type IsoDate } from '../dates/index.ts'
import { groundOf, type Planting } from '../garden/index.ts'
import { asDisc, GOLDEN_ANGLE, type Point } from '../geometry/index.ts'
import type { Taxon } from '../plants/index.ts'
import { plantsOf, type Arrangement, type BedGround } from '../rework/arrangement.ts'
import type { Pocket } from '../rework/pockets.ts'

/** A plant where it stands. */
export interface StandingPlant {
  id: string
  /** The drift or planting that it is one of. */
  groupId: string
  taxon: Taxon
  x: number
  y: number
  /** Years since it was set as a nursery plant, when the scheme is planted. */
  ageYears: number
  /** Of a pot: the height of what it stands in, metres. */
  surfaceM?: number | undefined
}

const DAYS_A_YEAR = 365.25
/** Plants of a round stand within so much of it: their leaves reach to its edge. */
const WITHIN = 0.78

/** So many places over a round, evenly. */
export const overRound = ([x, y]: Point, radiusM: number, many: number): Point[] =>
  Array.from({ length: many }, (_, i): Point => {
    const out = many === 1 ? 0 : WITHIN * radiusM * Math.sqrt((i + 0.5) / many)
    return [x + out * Math.cos(i * GOLDEN_ANGLE), y + out * Math.sin(i * GOLDEN_ANGLE)]
  })

/** The plants of a planting that stands, as old as they are: where each stands in its ground nobody has said, they are spread over it. */
export function plantsOfPlanting(planting: Planting, on: IsoDate): StandingPlant[] {
  const { x, y, radiusM } = asDisc(groundOf(planting))
  const ageYears = Math.max(0, daysBetween(planting.plantedOn, on) / DAYS_A_YEAR)
  return overRound([x, y], radiusM, planting.livingCount).map(([px, py], i): StandingPlant => ({
    id: `${planting.id} ${i}`,
    groupId: planting.id,
    taxon: planting.taxon,
    x: px,
    y: py,
    ageYears,
  }))
}

/** A scheme as it lies in the ground. */
export interface LaidScheme {
  ground: BedGround
  arranged: Arrangement
  pockets: readonly Pocket[]
  /** The bulbs of the pockets. */
  between: readonly { id: string; botanical: string }[]
  /** What fills the ground that is open, by its botanical name. */
  filler?: string | undefined
  kindOf: ReadonlyMap<string, Taxon>
}

/** Bulbs of a pocket lie within a hand and a half of its middle, metres. */
const POCKET_RADIUS_M = 0.16

/** Every plant of a scheme where it stands: those that come in new, those that stay as old as they are. */
export function plantsOfScheme(
  { ground, arranged, pockets, between, kindOf }: Omit<LaidScheme, 'filler'>,
  on: IsoDate,
): StandingPlant[] {
  const taxonOf = new Map(arranged.drifts.map((d) => [d.id, d.taxon]))
  const set = plantsOf(ground, arranged).map(({ driftId, x, y }, i): StandingPlant => ({
    id: `${driftId} ${i}`,
    groupId: driftId,
    taxon: taxonOf.get(driftId)!,
    x,
    y,
    ageYears: 0,
  }))
  const bulbs = pockets.flatMap((p, i) => {
    const taxon = kindOf.get(between.find((b) => b.id === p.driftId)?.botanical ?? '')
    if (!taxon) return []
    return overRound([p.x, p.y], POCKET_RADIUS_M, p.bulbs).map(([x, y], k): StandingPlant => ({
      id: `${p.driftId} ${i} ${k}`,
      groupId: p.driftId,
      taxon,
      x,
      y,
      ageYears: 0,
    }))
  })
  return [...set, ...bulbs, ...ground.stays.flatMap((p) => plantsOfPlanting(p, on))]
}
