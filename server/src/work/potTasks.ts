import type { SpotsView } from '@border/contract'
import {
  bestPotSpots,
  lightMisses,
  openPoints,
  pottingOn,
  sunHours,
  type Feature,
  type IsoDate,
  type LinePot,
  type PottedWoody,
  type PottingOn,
  type Scene,
  type Taxon,
} from '@border/core'
import { solver } from './solver.ts'

// What containers ask of the compute threads beside being judged.

/** A container as spots are found for it. */
interface SpottedPot {
  id: string
  x: number
  y: number
  rimHeightM: number
  acrossM: number
  taxa: Taxon[]
}

export interface PotSpotsTask {
  scene: Scene
  features: Feature[]
  pot: SpottedPot
  others: SpottedPot[]
  on: IsoDate
}

/** A spot is better where its light misses less by so much: a quarter of an hour is nothing. */
const BETTER_H = 0.25

export function potSpots({ scene, features, pot, others, on }: PotSpotsTask): SpotsView {
  const planted = others.filter((o) => o.taxa.length > 0)
  // In one question: the days of the season are the same for all of them.
  const [hours, ...rest] = sunHours(
    scene,
    [
      { x: pot.x, y: pot.y, z: pot.rimHeightM },
      ...planted.flatMap((o) => [
        { x: pot.x, y: pot.y, z: o.rimHeightM },
        { x: o.x, y: o.y, z: o.rimHeightM },
      ]),
    ],
    { kind: 'season', on },
  )
  const here = { x: pot.x, y: pot.y, hours: hours!, missesH: lightMisses(pot.taxa, hours!.total) }
  const points = openPoints(
    features.filter((f) => !(f.kind === 'container' && f.id === pot.id)),
    pot.acrossM,
  )
  return {
    here,
    better: bestPotSpots(scene, points, pot, on).filter((s) => s.missesH < here.missesH - BETTER_H),
    forHere: planted
      .map((o, i) => ({
        id: o.id,
        missesH: lightMisses(o.taxa, rest[2 * i]!.total),
        missesNowH: lightMisses(o.taxa, rest[2 * i + 1]!.total),
      }))
      .sort((a, b) => a.missesH - b.missesH || b.missesNowH - a.missesNowH),
  }
}

export interface LineTask {
  plants: PottedWoody[]
  pots: LinePot[]
  seasons: number[]
  on: IsoDate
  south: boolean
  /** Plantings that would live in the ground, and have room there. */
  suitGround: string[]
}

export const line = async ({ suitGround, plants, pots, seasons, on, south }: LineTask): Promise<PottingOn> =>
  pottingOn(
    plants,
    pots,
    seasons,
    { on, south, suitsGround: (p) => suitGround.includes(p.id) },
    await solver(),
  )
