import type { SaidScheme } from '@border/contract'
import {
  beyondOf,
  fillersOfScheme,
  plantsOfScheme,
  type Beyond,
  type LaidScheme,
  type StandingPlant,
} from '@border/core'
import { useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'

/** A scheme as it lies in the ground. */
export type Laid = Omit<LaidScheme, 'between' | 'filler'> & { said: Pick<SaidScheme, 'between' | 'filler'> }

/** Every plant of a scheme where it stands. */
export function useStanding({ ground, arranged, pockets, said, kindOf }: Laid): StandingPlant[] {
  const { today } = useGardenContext()
  return useMemo(
    () => plantsOfScheme({ ground, arranged, pockets, between: said.between, kindOf }, today),
    [ground, arranged, pockets, said.between, kindOf, today],
  )
}

/** A scheme as it stands so many years after it was planted: its plants, and the annuals that fill what is open. */
export interface Grown {
  standing: readonly StandingPlant[]
  fillers: readonly StandingPlant[]
}

export function useGrown(laid: Laid, years: number): Grown {
  const standing = useStanding(laid)
  const {
    ground,
    arranged,
    said: { filler },
    kindOf,
  } = laid
  return useMemo(
    () => ({ standing, fillers: fillersOfScheme({ ground, arranged, filler, kindOf }, standing, years) }),
    [ground, arranged, filler, kindOf, standing, years],
  )
}

/** What sees a scheme as it stands so many years on: its picture and its plan, which is worked out once for both. */
export const AsGrown = ({
  laid,
  years,
  children,
}: {
  laid: Laid
  years: number
  children: (grown: Grown) => React.ReactNode
}) => children(useGrown(laid, years))

/** What stands in every other place of the garden. */
export function useBeyond(placeId: string): Beyond {
  const { view, today } = useGardenContext()
  return useMemo(
    () => beyondOf(view.features, view.plantings, placeId, today),
    [view.features, view.plantings, placeId, today],
  )
}
