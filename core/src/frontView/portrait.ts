import { potRoleOf, sizeInPot, type PotRole } from '../containers/index.ts'
import type { IsoDate } from '../dates/index.ts'
import { hasCorners, type PotShape, type Vessel } from '../garden/index.ts'
import { GOLDEN_ANGLE } from '../geometry/index.ts'
import type { Taxon, Year } from '../plants/index.ts'
import { appearanceOn } from './appearance.ts'
import { bodyOf, type Body } from './body.ts'
import type { SeenPlant } from './scene.ts'
import type { StandingPlant } from './standing.ts'

/** What a container looks like: outside, metres. */
export interface PotLook {
  shape: PotShape
  /** Across its rim, at its longest. */
  acrossM: number
  /** Across its foot. */
  footM: number
  /** From what it stands on to its rim. */
  highM: number
  /** By the name of a material that is known; undefined where nobody has said. */
  material?: string | undefined
}

export const potLook = (v: Vessel): PotLook => ({
  shape: v.shape,
  acrossM: v.lengthM + 2 * v.wallM,
  footM: v.footLengthM + 2 * v.wallM,
  highM: v.depthM + v.wallM,
  material: v.material?.name,
})

/** A planting of a pot, as it is drawn. */
export interface PottedPlant {
  id: string
  taxon: Taxon
  count: number
  /** `focal`, `filler` or `trailer`; anything else stands as a filler. */
  role: string | null
  plantedOn: IsoDate
}

/** A plant as it is seen in a pot: its foot, right of the middle of the pot and above what that stands on. */
export interface PortraitPlant extends SeenPlant {
  /** It hangs over the rim rather than standing up. */
  trails: boolean
}

/** A container and what grows in it, as it is seen from before it. */
export interface Portrait {
  pot: PotLook
  /** From the back to the front; what trails comes last. */
  plants: readonly PortraitPlant[]
  /** Of the whole: its top, and as far as it reaches down below what it stands on where it hangs. */
  topM: number
  wideM: number
}

/** Seen from a little above, a round rim is so deep for what it is wide. */
export const RIM_DEPTH = 0.13
/** Plants stand within so much of the rim. */
const WITHIN = 0.74
/** Each in its pot has room for no more than so many drawings of one kind. */
const MOST_DRAWN = 12
/** Trailers hang no further than so much of the pot. */
const HANGS = 0.85
/** A wide pot in front view is planted in so many rows. */
const IN_ROW = 0.8

/** Where the plants of a pot stand over its mix: from −1 to 1 along it, and from the back (−1) to the front (1). */
function spotsIn(isLong: boolean, roles: readonly PotRole[]): [u: number, v: number][] {
  const numbers = { focal: 0, filler: 0, trailer: 0 }
  const many = (role: PotRole) => roles.filter((r) => r === role).length
  // What stands alone stands in the middle.
  if (roles.length === 1 && roles[0] !== 'trailer') return [[0, 0]]
  return roles.map((role) => {
    const [i, of] = [numbers[role]++, many(role)]
    const along = of === 1 ? 0 : (2 * i) / (of - 1) - 1
    if (role === 'trailer') return [of === 1 ? (many('filler') % 2 === 0 ? -0.45 : 0.45) : 0.85 * along, 1]
    if (role === 'focal') return isLong ? [0.55 * along, -0.4] : [0.3 * along, -0.5]
    if (isLong) return [IN_ROW * along, i % 2 === 0 ? 0.35 : -0.15]
    // About the middle, the evenest of spirals; where something stands there, in a ring about it.
    const out = many('focal') > 0 ? 0.5 + 0.35 * Math.sqrt((i + 0.5) / of) : 0.85 * Math.sqrt((i + 0.5) / of)
    const turn = i * GOLDEN_ANGLE + 0.6
    return [out * Math.cos(turn), 0.7 * out * Math.sin(turn)]
  })
}

/** A container as it is seen on a day. */
export function portraitOf(
  vessel: Vessel,
  planted: readonly PottedPlant[],
  { on, year }: { on: IsoDate; year: Year },
): Portrait {
  const pot = potLook(vessel)
  const isLong = hasCorners(vessel)
  const drawn = planted.flatMap((p) =>
    Array.from({ length: Math.min(MOST_DRAWN, p.count) }, (_, i) => ({ p, i })),
  )
  const spots = spotsIn(
    isLong,
    drawn.map(({ p }) => potRoleOf(p.role)),
  )
  const half = (WITHIN * pot.acrossM) / 2
  const trailers = drawn.filter(({ p }) => potRoleOf(p.role) === 'trailer').length
  const seen = new Map(
    planted
      .filter((p) => p.plantedOn <= on)
      .map((p) => {
        const look = appearanceOn(p.taxon, on, year)
        return [p, { look, body: bodyOf(p.taxon, sizeInPot(p.taxon, vessel, p.plantedOn, on), look) }]
      }),
  )
  const plants = drawn.flatMap(({ p, i }, k): PortraitPlant[] => {
    const { look, body } = seen.get(p) ?? {}
    if (!look || !body) return []
    const trails = potRoleOf(p.role) === 'trailer'
    const [u, v] = spots[k]!
    const plant: StandingPlant = {
      id: `${p.id} ${i}`,
      groupId: p.id,
      taxon: p.taxon,
      x: u * half,
      y: -v,
      ageYears: 0,
    }
    const rim = isLong ? 0 : (RIM_DEPTH * pot.acrossM) / 2
    const y = trails ? pot.highM - 0.6 * rim : pot.highM - vessel.rimGapM - v * WITHIN * rim
    return [
      {
        plant,
        look,
        body: trails ? hanging(body, pot, trailers) : body,
        x: u * half,
        y,
        scale: 1,
        depthM: -v,
        trails,
      },
    ]
  })
  plants.sort((a, b) => Number(a.trails) - Number(b.trails) || b.depthM - a.depthM)
  const tops = plants.map((p) => (p.trails ? p.y : p.y + p.body.heightM))
  const sides = plants.map((p) => 2 * (Math.abs(p.x) + p.body.spreadM / 2))
  return { pot, plants, topM: Math.max(pot.highM, ...tops), wideM: Math.max(pot.acrossM, ...sides) }
}

/** Trailers lie over each other along the rim so many times. */
const OVERLAP = 1.6

/** What trails, as it hangs: down the pot, and no wider than its share of the rim. */
function hanging(body: Body, pot: PotLook, trailers: number): Body {
  const most = pot.shape === 'hanging' ? 2 * pot.highM : HANGS * pot.highM
  return {
    ...body,
    heightM: Math.min(most, Math.max(body.heightM, 0.9 * body.spreadM)),
    spreadM: Math.min(body.spreadM, pot.acrossM, (OVERLAP * pot.acrossM) / trailers),
  }
}
