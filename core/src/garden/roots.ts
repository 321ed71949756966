import { isAlive, type IsoDate } from '../dates/index.ts'
import type { Scene } from '../light/index.ts'

/** Ground that the roots of a tree take water from, plan metres. */
export interface RootZone {
  name: string
  x: number
  y: number
  reachM: number
}

/** Roots of a tree take water about this much further out than its crown reaches: a working figure. */
const ROOT_REACH = 1.5

/** The ground that the roots of the trees of a plan take water from, as they stand on a day. */
export const rootZones = ({ obstructions }: Pick<Scene, 'obstructions'>, on: IsoDate): RootZone[] =>
  obstructions.flatMap((o) =>
    o.kind === 'tree' && isAlive(o, on)
      ? [{ name: o.name, x: o.x, y: o.y, reachM: ROOT_REACH * o.crownRadiusM }]
      : [],
  )

/** Whose roots a point lies among; undefined where no tree reaches. */
export const rootsAt = (zones: readonly RootZone[], x: number, y: number): string | undefined =>
  zones.find((z) => Math.hypot(z.x - x, z.y - y) <= z.reachM)?.name
