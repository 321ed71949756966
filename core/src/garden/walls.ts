import { isAlive, type IsoDate } from '../dates/index.ts'
import { distanceToSegment, type Point } from '../geometry/index.ts'
import type { Scene } from '../light/index.ts'
import { isWoody } from '../plants/index.ts'
import type { Place } from './place.ts'
import type { Planting } from './planting.ts'

/** Sides of what stands upright and does not give way: plan metres. */
export type WallLine = readonly Point[]

/** The sides of the buildings, walls, fences and hedges of a plan as they stand on a day. */
export const wallLines = ({ obstructions }: Pick<Scene, 'obstructions'>, on: IsoDate): WallLine[] =>
  obstructions.flatMap((o) => {
    if (o.kind === 'tree' || !isAlive(o, on)) return []
    return [o.kind === 'building' ? [...o.ring, o.ring[0]!] : o.line]
  })

/** What is woody and stands this near a wall or fence is trained on it, metres: a judgement. */
export const TRAINED_WITHIN_M = 0.6

/** Whether a planting stands so near a wall or fence that it is trained on it; what stands in a pot is not. */
export const isOnWall = (
  { taxon, x, y }: Pick<Planting, 'taxon' | 'x' | 'y'>,
  place: Place['kind'] | undefined,
  lines: readonly WallLine[],
): boolean =>
  place !== 'container' && isWoody(taxon) && (metresToWall(lines, x, y) ?? Infinity) <= TRAINED_WITHIN_M

/** Metres from a point to the nearest of them, to the centimetre; undefined where there is none. */
export function metresToWall(lines: readonly WallLine[], x: number, y: number): number | undefined {
  let nearest = Infinity
  for (const line of lines)
    for (let i = 1; i < line.length; i++)
      nearest = Math.min(nearest, distanceToSegment(x, y, line[i - 1]!, line[i]!))
  return Number.isFinite(nearest) ? Math.round(100 * nearest) / 100 : undefined
}
