import type { IsoDate } from '../dates/index.ts'
import type { Point } from '../geometry/index.ts'
import type { Taxon, Year } from '../plants/index.ts'
import { onceFor } from '../once/index.ts'
import { sizeAt } from '../rework/growth.ts'
import { bodyOf, type Body } from './body.ts'
import { appearanceOn, type Appearance } from './appearance.ts'

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
}

const WINTERS = { north: ['12', '01', '02'], south: ['06', '07', '08'] }

/** Whether a day lies in the winter of a garden: the sky is grey, the grass dull. */
export const isWinterAt = (on: IsoDate, { south }: Pick<Year, 'south'>): boolean =>
  WINTERS[south ? 'south' : 'north'].includes(on.slice(5, 7))

/** A day on which what grows in a garden is in full growth: by it pictures are framed, so that they stay as large through the year. */
export const inFullGrowth = ({ south }: Pick<Year, 'south'>): IsoDate => (south ? '2027-01-20' : '2026-07-20')

/** Where somebody stands who looks at a bed. */
export interface Standpoint {
  /** The way from the bed to them, degrees clockwise from up the plan. */
  fromDeg: number
  /** From their eye to the front edge of the bed, metres over the ground. */
  awayM: number
  /** Of their eye above the ground, metres. */
  eyeM: number
}

/** Of a person who stands. */
export const EYE_M = 1.6
/** From the path, where nobody says from how far, metres. */
export const USUAL_AWAY_M = 4

/** A plant as it is seen: in metres of the plane that stands upright on the front edge of the bed. */
export interface SeenPlant {
  plant: StandingPlant
  look: Appearance
  body: Body
  /** Its foot: to the right of the middle, and above the front edge. */
  x: number
  y: number
  /** Of its own metre on that plane. */
  scale: number
  /** From the eye, metres. */
  depthM: number
}

/** A bed as it is seen: a central projection, its far plants first. */
export interface FrontView {
  plants: readonly SeenPlant[]
  /** The outline of the bed, on the plane of its front edge, and its ends there, metres from the middle. */
  ground: readonly Point[]
  leftM: number
  rightM: number
  /** How deep it lies behind its front edge. */
  deepM: number
  standpoint: Standpoint
}

/** Right and forward of somebody who looks at a bed, as unit vectors of the plan. */
function axes({ fromDeg }: Standpoint): { right: Point; forward: Point } {
  const a = (fromDeg * Math.PI) / 180
  const forward: Point = [-Math.sin(a), -Math.cos(a)]
  return { right: [forward[1], -forward[0]], forward }
}

const along = ([x, y]: Point, [ux, uy]: Point): number => x * ux + y * uy

/** Where a point of the ground is seen: on the plane of the front edge, with its own metre there, and how far from the eye. */
export type OnPlane = Pick<SeenPlant, 'x' | 'y' | 'scale' | 'depthM'>

/** Where points lie for somebody who looks at a bed: to the right of its middle, behind its front edge, and on the plane of that. */
export function asLookedAt(outline: readonly Point[], standpoint: Standpoint) {
  const { right, forward } = axes(standpoint)
  const rights = outline.map((p) => along(p, right))
  const depths = outline.map((p) => along(p, forward))
  const middle = (Math.min(...rights) + Math.max(...rights)) / 2
  const front = Math.min(...depths)
  const rightOf = (p: Point): number => along(p, right) - middle
  const behind = (p: Point): number => along(p, forward) - front
  return {
    rightOf,
    behind,
    /** What lies before the front edge is taken to lie on it. */
    onPlane: (p: Point): OnPlane => {
      const behindM = Math.max(0, behind(p))
      const scale = scaleAt(standpoint, behindM)
      const depthM = standpoint.awayM + behindM
      return { x: rightOf(p) * scale, y: groundRise(standpoint, behindM), scale, depthM }
    },
    wideM: Math.max(...rights) - Math.min(...rights),
    deepM: Math.max(...depths) - front,
  }
}

/** Of one metre, as it appears on the plane of the front edge, so far behind it. */
export const scaleAt = ({ awayM }: Standpoint, behindM: number): number => awayM / (awayM + behindM)

/** How far above the front edge the ground appears, so far behind it. */
export const groundRise = (standpoint: Standpoint, behindM: number): number =>
  standpoint.eyeM * (1 - scaleAt(standpoint, behindM))

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
): FrontView {
  const { onPlane, wideM, deepM } = asLookedAt(outline, standpoint)
  const lookOf = onceFor((taxon: Taxon) => appearanceOn(taxon, on, year))
  const seen = plants.flatMap((plant): SeenPlant[] => {
    const look = lookOf(plant.taxon)
    const body = bodyOf(plant.taxon, sizeAt(plant.taxon, plant.ageYears + years), look)
    if (!body) return []
    return [{ plant, look, body, ...onPlane([plant.x, plant.y]) }]
  })
  return {
    ground: outline.map((p): Point => {
      const { x, y } = onPlane(p)
      return [x, y]
    }),
    plants: seen.sort((a, b) => b.depthM - a.depthM || (a.plant.id < b.plant.id ? -1 : 1)),
    leftM: -wideM / 2,
    rightM: wideM / 2,
    deepM,
    standpoint,
  }
}
