import type { SaidScheme } from '@border/contract'
import {
  overRound,
  plantsOf,
  plantsOfPlanting,
  type Arrangement,
  type BedGround,
  type Pocket,
  type StandingPlant,
} from '@border/core'
import { useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import type { KindOf } from './schemeDraft.ts'

/** A scheme as it lies in the ground. */
export interface Laid {
  ground: BedGround
  arranged: Arrangement
  pockets: readonly Pocket[]
  said: Pick<SaidScheme, 'between'>
  kindOf: KindOf
}

/** Bulbs of a pocket lie within a hand and a half of its middle, metres. */
const POCKET_RADIUS_M = 0.16

/** Every plant of a scheme where it stands: those that come in new, those that stay as old as they are. */
export function useStanding({ ground, arranged, pockets, said, kindOf }: Laid): StandingPlant[] {
  const { today } = useGardenContext()
  return useMemo(() => {
    const taxonOf = new Map(arranged.drifts.map((d) => [d.id, d.taxon]))
    const set = plantsOf(ground, arranged).map(({ driftId, x, y }, i): StandingPlant => ({
      id: `${driftId} ${i}`,
      groupId: driftId,
      taxon: taxonOf.get(driftId)!,
      x,
      y,
      ageYears: 0,
    }))
    const bulbs = pockets.flatMap((p, i) => {
      const taxon = kindOf.get(said.between.find((b) => b.id === p.driftId)?.botanical ?? '')
      if (!taxon) return []
      return overRound([p.x, p.y], POCKET_RADIUS_M, p.bulbs).map(([x, y], k): StandingPlant => ({
        id: `${p.driftId} ${i} ${k}`,
        groupId: p.driftId,
        taxon,
        x,
        y,
        ageYears: 0,
      }))
    })
    return [...set, ...bulbs, ...ground.stays.flatMap((p) => plantsOfPlanting(p, today))]
  }, [ground, arranged, pockets, said.between, kindOf, today])
}
