import type { IsoDate } from '../dates/index.ts'
import type { Scene } from '../light/index.ts'
import { eavesZones, underEavesOf, type EavesZone } from './eaves.ts'
import { rootsAt, rootZones, type RootZone } from './roots.ts'
import { wallLines, type WallLine } from './walls.ts'

/** What reaches into the ground of places or over it. */
export interface Surroundings {
  roots: readonly RootZone[]
  walls: readonly WallLine[]
  eaves: readonly EavesZone[]
}

/** What reaches into the ground of a plan or over it, as it stands on a day. */
export const surroundingsOn = (scene: Pick<Scene, 'obstructions'>, on: IsoDate): Surroundings => ({
  roots: rootZones(scene, on),
  walls: wallLines(scene, on),
  eaves: eavesZones(scene, on),
})

/** What keeps the ground at a point drier than the rest of its bed, by name: a tree's roots, a building's eaves. */
export const driedBy = (
  { roots, eaves }: Pick<Surroundings, 'roots' | 'eaves'>,
  x: number,
  y: number,
): { rootsOf: string | undefined; eavesOf: string | undefined } => ({
  rootsOf: rootsAt(roots, x, y),
  eavesOf: underEavesOf(eaves, x, y),
})
