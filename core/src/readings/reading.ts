import { utcDate, type IsoDate } from '../dates/index.ts'
import type { Point } from '../geometry/index.ts'
import {
  direction,
  LEVEL,
  standing,
  transmittance,
  type Direction,
  type Ground,
  type Obstruction,
  type Scene,
  type Solid,
} from '../light/index.ts'
import { solarPosition } from '../sun/index.ts'

/** What a person standing at a point says of the light there. */
export const brightnesses = ['sun', 'dappled', 'shade'] as const
export type Brightness = (typeof brightnesses)[number]

/** Light looked at, or measured, at a point and an instant. */
export interface Reading {
  id: string
  /** UTC, milliseconds since 1970. */
  instantMs: number
  /** Plan metres; z above the ground. */
  x: number
  y: number
  z: number
  ground?: Ground | null
  /** What was said, or the share of clear direct sun a logger measured, 0 to 1. */
  seen: Brightness | number
}

/** Why a reading cannot be used; the words for it belong to the screen. */
export type ReadingFault = 'in the future' | 'sun down' | 'sun too low'

/** Below this the sun's light is thin and everything far off counts: readings then tell little. */
export const LEAST_ELEVATION_DEG = 4

/** @returns undefined when the reading can be used */
export function readingFault(scene: Scene, instantMs: number, nowMs: number): ReadingFault | undefined {
  // Clocks of devices differ by a little.
  if (instantMs > nowMs + 5 * 60_000) return 'in the future'
  const { elevationDeg } = solarPosition(instantMs, scene.latitudeDeg, scene.longitudeDeg)
  if (elevationDeg <= 0) return 'sun down'
  return elevationDeg < LEAST_ELEVATION_DEG ? 'sun too low' : undefined
}

/** How often a person or a logger is simply wrong. */
export const ERROR_RATE = 0.1
/** Standard deviation of a logger's share where it is not. */
const LOGGER_SD = 0.12

/** Share of the clear sun up to which everybody who is not wrong says shade; from there on some say dappled. */
export const SHADE_TO = 0.04
/** Share from which nobody does. */
export const DAPPLED_FROM = 0.14
/** Share up to which nobody says sun; from there on some do. */
export const DAPPLED_TO = 0.7
/** Share from which everybody does. */
export const SUN_FROM = 0.86

/** Chance that light of a share is called each word by someone who is not wrong: shade, dappled, sun. */
function chanceOf(seen: Brightness, share: number): number {
  const notShade = between(share, SHADE_TO, DAPPLED_FROM)
  const sun = between(share, DAPPLED_TO, SUN_FROM)
  if (seen === 'shade') return 1 - notShade
  return seen === 'sun' ? sun : notShade - sun
}

/** 0 up to `from`, 1 from `to` on, straight between. */
const between = (share: number, from: number, to: number) =>
  share <= from ? 0 : share >= to ? 1 : (share - from) / (to - from)

/** Chance, or density for a logger, of a reading where the scene passes a share of the sun. */
export function likelihood(seen: Reading['seen'], share: number): number {
  if (typeof seen === 'number') {
    const z = (seen - share) / LOGGER_SD
    return ERROR_RATE + ((1 - ERROR_RATE) * Math.exp((-z * z) / 2)) / (LOGGER_SD * Math.sqrt(2 * Math.PI))
  }
  const right = chanceOf(seen, share)
  // A wrong word is one of the other two.
  return (1 - ERROR_RATE) * right + (ERROR_RATE / 2) * (1 - right)
}

/** Whether a share is what the reading says, taken at its word. */
export const agrees = (seen: Reading['seen'], share: number): boolean =>
  typeof seen === 'number' ? Math.abs(seen - share) <= 2 * LOGGER_SD : chanceOf(seen, share) >= 0.5

/** Nobody stands exactly where they say: the point and four about it, metres. */
const AROUND: readonly Point[] = [
  [0, 0],
  [0.3, 0],
  [-0.3, 0],
  [0, 0.3],
  [0, -0.3],
]

/** A reading's rays: where from, which way, and what stands on that day. */
export interface Aim {
  day: IsoDate
  rays: { x: number; y: number; z: number; d: Direction }[]
}

/**
 * @param exactly the point alone, not those about it
 * @returns undefined when the sun is not above the ground
 */
export function aimOf(
  scene: Scene,
  r: Pick<Reading, 'instantMs' | 'x' | 'y' | 'z' | 'ground'>,
  exactly = false,
): Aim | undefined {
  const sun = solarPosition(r.instantMs, scene.latitudeDeg, scene.longitudeDeg)
  const d = direction(sun.azimuthDeg, sun.elevationDeg, scene.northDeg, 12, r.ground ?? LEVEL)
  if (sun.elevationDeg <= 0 || d.rise <= 0) return undefined
  return {
    day: utcDate(r.instantMs),
    rays: (exactly ? AROUND.slice(0, 1) : AROUND).map(([dx, dy]) => ({
      x: r.x + dx,
      y: r.y + dy,
      z: r.z,
      d,
    })),
  }
}

/** What an obstruction lets through along each ray of each aim; ones where it does not stand. */
export function sharesPast(aims: readonly Aim[], o: Obstruction): Float64Array {
  const shares = new Float64Array(raysOf(aims)).fill(1)
  const onDay = new Map<IsoDate, Solid[]>()
  let at = 0
  for (const aim of aims) {
    let solids = onDay.get(aim.day)
    if (!solids) {
      const solid = standing(o, aim.day)
      solids = solid ? [solid] : []
      onDay.set(aim.day, solids)
    }
    for (const { x, y, z, d } of aim.rays) {
      shares[at++] = transmittance(solids, x, y, z, d)
    }
  }
  return shares
}

/** Rays of all aims together; each aim has as many as the first. */
export const raysOf = (aims: readonly Aim[]): number => aims.length * (aims[0]?.rays.length ?? 0)
/** Rays of one reading. */
export const RAYS = AROUND.length
