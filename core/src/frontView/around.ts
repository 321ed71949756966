import type { IsoDate } from '../dates/index.ts'
import {
  placesOn,
  surfaceHeightM,
  TRAINED_WITHIN_M,
  type Feature,
  type Planting,
  vesselOf,
} from '../garden/index.ts'
import { metresToCrossing, nearestOnSegment, type Point } from '../geometry/index.ts'
import type { Size } from '../rework/growth.ts'
import { placeOutline } from '../rework/said.ts'
import { sidesOf, sidesOfFeature, standingOn } from './backdrop.ts'
import { plantForm } from './form.ts'
import { potLook, type PotLook } from './portrait.ts'
import { plantsOfPlanting, type StandingPlant } from './standing.ts'
import { asLookedAt, BEHIND_M, groundRise, scaleAt, type OnPlane, type Standpoint } from './standpoint.ts'

/** A pot as it stands. */
export interface StandingPot {
  id: string
  x: number
  y: number
  rimHeightM: number
  look: PotLook
}

/** What is in the other places of a garden: the ground of beds, pots, and plants in both. */
export interface Beyond {
  /** Outlines. */
  beds: readonly (readonly Point[])[]
  pots: readonly StandingPot[]
  plants: readonly StandingPlant[]
}

/** What stands in every place of a garden but one, on a day. */
export function beyondOf(
  features: readonly Feature[],
  plantings: readonly Planting[],
  placeId: string,
  on: IsoDate,
): Beyond {
  const others = placesOn(features, on).filter((p) => p.id !== placeId)
  const placeOf = new Map(others.map((p) => [p.id, p]))
  const lookOf = new Map(
    features.flatMap((f) => (f.kind === 'container' ? [[f.id, potLook(vesselOf(f))]] : [])),
  )
  return {
    beds: others.flatMap((p) => (p.kind === 'bed' ? [placeOutline(p)] : [])),
    pots: others.flatMap((p) =>
      p.kind === 'container'
        ? [{ id: p.id, x: p.x, y: p.y, rimHeightM: p.rimHeightM, look: lookOf.get(p.id)! }]
        : [],
    ),
    plants: plantings.flatMap((planting) => {
      const place = planting.placeId === null ? undefined : placeOf.get(planting.placeId)
      if (!place) return []
      const surfaceM = surfaceHeightM(place)
      return plantsOfPlanting(planting, on).map((p) => (surfaceM > 0 ? { ...p, surfaceM } : p))
    }),
  }
}

/** What of it stands so near behind a bed that it may be drawn, from one standpoint or another. */
export function nearBehind(
  outline: readonly Point[],
  standpoints: readonly Standpoint[],
  { beds, pots, plants }: Beyond,
): Beyond {
  const from = standpoints.map((s) => asLookedAt(outline, s))
  const isNear = ({ x, y }: { x: number; y: number }) => from.some((f) => f.standsBehind([x, y], BEHIND_M))
  const isBedNear = (bed: readonly Point[]) =>
    sidesOf([...bed, bed[0]!]).some((side) => side.some(([x, y]) => isNear({ x, y })))
  return { beds: beds.filter(isBedNear), pots: pots.filter(isNear), plants: plants.filter(isNear) }
}

/** A side of what stands upright on a day. */
interface Side {
  from: Point
  to: Point
  heightM: number
}

/** Sides of what stands on a day, but for trees. */
const sidesOn = (features: readonly Feature[], on: IsoDate): Side[] =>
  standingOn(features, on).flatMap(({ f, now }) => {
    if (now.kind === 'tree') return []
    const corners = sidesOfFeature(f)
    return corners.slice(1).map((to, i) => ({ from: corners[i]!, to, heightM: now.heightM }))
  })

/** What a climber stands at: where it is on it, and how high that is. */
export interface Support {
  at: Point
  heightM: number
}

/** What climbers stand at on a day: walls, fences, hedges and houses near enough to be trained on. @returns undefined for what does not climb, or stands free */
export function supportsOn(
  features: readonly Feature[],
  on: IsoDate,
): (plant: StandingPlant) => Support | undefined {
  let sides: Side[] | undefined
  return ({ taxon, x, y }) => {
    if (plantForm(taxon) !== 'climber') return undefined
    sides ??= sidesOn(features, on)
    let found: Support | undefined
    let least = TRAINED_WITHIN_M
    for (const { from, to, heightM } of sides) {
      const at = nearestOnSegment([x, y], from, to)
      const m = Math.hypot(at[0] - x, at[1] - y)
      if (m <= least) {
        least = m
        found = { at: before(at, [x, y]), heightM }
      }
    }
    return found
  }
}

/** It stands so far before what it climbs, metres. */
const BEFORE_M = 0.05
function before(at: Point, root: Point): Point {
  const m = Math.hypot(root[0] - at[0], root[1] - at[1])
  if (m < BEFORE_M) return root
  const share = BEFORE_M / m
  return [at[0] + share * (root[0] - at[0]), at[1] + share * (root[1] - at[1])]
}

/** So much of it stands over what it climbs; and it is led no wider than so many times as it would grow. Working figures. */
const OVER_M = 0.15
const LED_WIDE = 2.5

/** A climber on its support: no higher than that lets it, and led along it as far as what it lacks in height would go. */
export function trainedTo({ heightM, spreadM }: Size, support: Support): Size {
  const high = Math.min(heightM, support.heightM + OVER_M)
  return { heightM: high, spreadM: spreadM * Math.min(LED_WIDE, heightM / high) }
}

/**
 * What is seen of what stands behind a bed: whether a point of the ground there is near enough to be drawn, and below which height
 * on the plane of the front edge a wall, fence, hedge or house before it hides what stands on it (−Infinity where nothing does).
 */
export function seenBehind(
  outline: readonly Point[],
  standpoint: Standpoint,
  features: readonly Feature[],
  on: IsoDate,
): (p: Point) => (OnPlane & { hiddenBelow: number }) | undefined {
  const { rightOf, behind, standsBehind, onPlane } = asLookedAt(outline, standpoint)
  const asSeen = (p: Point): Point => [rightOf(p), behind(p)]
  const eyeY = -standpoint.awayM
  const sides = sidesOn(features, on)
    .filter(({ from, to }) => standsBehind(from, REACHES_M) || standsBehind(to, REACHES_M))
    .map(({ from, to, heightM }) => ({ from: asSeen(from), to: asSeen(to), heightM }))
  return (p) => {
    if (!standsBehind(p, BEHIND_M)) return undefined
    const [x, y] = asSeen(p)
    const farM = Math.hypot(x, y - eyeY)
    const way = { ux: x / farM, uy: (y - eyeY) / farM }
    const tops = sides.map(({ from, to, heightM }) => {
      const m = metresToCrossing(0, eyeY, way, from, to)
      // What stands against it stands before it.
      if (m === undefined || m > farM * (1 - 1e-6)) return -Infinity
      const deep = eyeY + m * way.uy
      return deep < 0 ? -Infinity : groundRise(standpoint, deep) + heightM * scaleAt(standpoint, deep)
    })
    return { ...onPlane(p), hiddenBelow: Math.max(-Infinity, ...tops) }
  }
}
/** A wall that ends so far beside a bed or behind it may still hide something, metres. */
const REACHES_M = 40
