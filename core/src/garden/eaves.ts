import { isAlive, type IsoDate } from '../dates/index.ts'
import { distanceToBoundary, isInside, type Ring } from '../geometry/index.ts'
import type { Scene } from '../light/index.ts'

/** The footprint of a building whose eaves keep the rain off the ground beside it, plan metres. */
export interface EavesZone {
  name: string
  ring: Ring
  depthM: number
  /** Of the eaves above the ground. */
  heightM: number
}

/** The ground that eaves keep the rain from, as buildings stand on a day. */
export const eavesZones = ({ obstructions }: Pick<Scene, 'obstructions'>, on: IsoDate): EavesZone[] =>
  obstructions.flatMap((o) =>
    o.kind === 'building' && o.overhang && isAlive(o, on)
      ? [{ name: o.name, ring: o.ring, ...o.overhang }]
      : [],
  )

/** The eaves that a point lies under; undefined where the rain reaches it. */
export const eavesOver = (zones: readonly EavesZone[], x: number, y: number): EavesZone | undefined =>
  zones.find((z) => !isInside(z.ring, x, y) && distanceToBoundary(z.ring, x, y) <= z.depthM)

/** Under whose eaves a point lies; undefined where the rain reaches it. */
export const underEavesOf = (zones: readonly EavesZone[], x: number, y: number): string | undefined =>
  eavesOver(zones, x, y)?.name
