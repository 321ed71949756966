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

const NONE: StandingPlant[] = []

/** The annuals that fill what is open so many years after it was planted; none while it is not looked at as it grows. @param plants of the scheme */
export function useFillers(
  { ground, arranged, said: { filler }, kindOf }: Laid,
  plants: readonly StandingPlant[],
  years: number | undefined,
): StandingPlant[] {
  return useMemo(
    () => (years === undefined ? NONE : fillersOfScheme({ ground, arranged, filler, kindOf }, plants, years)),
    [ground, arranged, filler, kindOf, plants, years],
  )
}

/** What stands in every other place of the garden. */
export function useBeyond(placeId: string): Beyond {
  const { view, today } = useGardenContext()
  return useMemo(
    () => beyondOf(view.features, view.plantings, placeId, today),
    [view.features, view.plantings, placeId, today],
  )
}
