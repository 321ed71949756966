import type { IsoDate } from '../dates/index.ts'
import type { Feature } from '../garden/index.ts'
import type { Point } from '../geometry/index.ts'
import type { Taxon, Year } from '../plants/index.ts'
import { onceFor, onceForEach } from '../once/index.ts'
import { sizeAt } from '../rework/growth.ts'
import { bodyOf, type Body } from './body.ts'
import { appearanceOn, type Appearance } from './appearance.ts'
import { nearBehind, seenBehind, supportsOn, trainedTo, type Beyond, type StandingPot } from './around.ts'
import type { StandingPlant } from './standing.ts'
import { asLookedAt, type OnPlane, type Standpoint } from './standpoint.ts'

const WINTERS = { north: ['12', '01', '02'], south: ['06', '07', '08'] }

/** Whether a day lies in the winter of a garden: the sky is grey, the grass dull. */
export const isWinterAt = (on: IsoDate, { south }: Pick<Year, 'south'>): boolean =>
  WINTERS[south ? 'south' : 'north'].includes(on.slice(5, 7))

/** A day on which what grows in a garden is in full growth: by it pictures are framed, so that they stay as large through the year. */
export const inFullGrowth = ({ south }: Pick<Year, 'south'>): IsoDate => (south ? '2027-01-20' : '2026-07-20')

/** A plant as it is seen, by its foot. */
export interface SeenPlant extends OnPlane {
  plant: StandingPlant
  look: Appearance
  body: Body
}

/** A pot as it is seen, by the middle of its foot. */
export interface SeenPot extends OnPlane {
  pot: StandingPot
}

/** Something of another place that stands behind a bed. */
export type SeenBeyond = (SeenPlant | SeenPot) & {
  /** Below so much above the front edge, on its plane, something else hides it; −Infinity where nothing does. */
  hiddenBelow: number
}

/** The ground of a bed as it is seen, on the plane of its front edge. */
export interface SeenGround {
  outline: readonly Point[]
  /** Its ends there, metres from the middle. */
  leftM: number
  rightM: number
  /** How deep it lies behind its front edge. */
  deepM: number
  /** The ground of beds behind it. */
  bedsBeyond: readonly (readonly Point[])[]
  standpoint: Standpoint
}

/** A bed as it is seen: a central projection, its far plants first. */
export interface FrontView {
  ground: SeenGround
  plants: readonly SeenPlant[]
  /** What stands behind it, all of it farther than its plants. */
  beyond: readonly SeenBeyond[]
}

/** The ground of a bed, and of those behind it, as somebody sees it. @param outline and `beds`: on the plan */
export function seenGround(
  outline: readonly Point[],
  standpoint: Standpoint,
  beds: Beyond['beds'],
): SeenGround {
  const { onPlane, wideM, deepM } = asLookedAt(outline, standpoint)
  const seen = (ring: readonly Point[]) =>
    ring.map((p): Point => {
      const { x, y } = onPlane(p)
      return [x, y]
    })
  return {
    outline: seen(outline),
    leftM: -wideM / 2,
    rightM: wideM / 2,
    deepM,
    bedsBeyond: nearBehind(outline, [standpoint], { beds, pots: [], plants: [] }).beds.map(seen),
    standpoint,
  }
}

/** How kinds look on the days of a year: asked of every plant of every picture, and by several of the same day. */
const appearancesIn = onceFor((year: Year) =>
  onceForEach((taxon: Taxon, on: IsoDate) => appearanceOn(taxon, on, year)),
)

/** What stands about a bed. */
export interface About {
  /** What climbers go up, and what hides what stands behind it. */
  features: readonly Feature[]
  /** Absent where the bed alone is asked about: what stands beyond it hides nothing of it. */
  beyond?: Beyond | undefined
}
const NOTHING_BEYOND: Beyond = { beds: [], pots: [], plants: [] }

/**
 * A bed as somebody sees it on a day, so many years after it was planted.
 *
 * @param outline of the bed, on the plan
 */
export function frontView(
  outline: readonly Point[],
  plants: readonly StandingPlant[],
  standpoint: Standpoint,
  { on, year, years }: { on: IsoDate; year: Year; years: number },
  { features, beyond = NOTHING_BEYOND }: About,
): FrontView {
  const { onPlane } = asLookedAt(outline, standpoint)
  const lookOf = appearancesIn(year)
  const supportOf = supportsOn(features, on)
  const grown = <At extends OnPlane>(plant: StandingPlant, see: (p: Point) => At | undefined) => {
    const support = supportOf(plant)
    const at = see(support?.at ?? [plant.x, plant.y])
    if (!at) return undefined
    const look = lookOf(plant.taxon, on)
    const size = sizeAt(plant.taxon, plant.ageYears + years)
    const body = bodyOf(plant.taxon, support ? trainedTo(size, support) : size, look)
    return body && { plant, look, body, ...at }
  }
  const seen: SeenPlant[] = plants.flatMap((plant) => grown(plant, onPlane) ?? [])
  const behind = seenBehind(outline, standpoint, features, on)
  const pots = beyond.pots.flatMap((pot): SeenBeyond[] => {
    const at = behind([pot.x, pot.y])
    return at && at.hiddenBelow < at.y + at.scale * pot.rimHeightM ? [{ pot, ...at }] : []
  })
  const others = beyond.plants.flatMap((plant): SeenBeyond[] => {
    const stands = grown(plant, behind)
    if (!stands) return []
    const y = stands.y + stands.scale * (plant.surfaceM ?? 0)
    return stands.hiddenBelow < y + stands.scale * stands.body.heightM ? [{ ...stands, y }] : []
  })
  return {
    ground: seenGround(outline, standpoint, beyond.beds),
    plants: seen.sort((a, b) => b.depthM - a.depthM || (a.plant.id < b.plant.id ? -1 : 1)),
    // A pot is drawn before what grows in it.
    beyond: [...pots, ...others].sort(
      (a, b) => b.depthM - a.depthM || Number('plant' in a) - Number('plant' in b),
    ),
  }
}
