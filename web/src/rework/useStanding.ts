import type { SaidScheme } from '@border/contract'
import { plantsOfScheme, type LaidScheme, type StandingPlant } from '@border/core'
import { useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'

/** A scheme as it lies in the ground. */
export type Laid = Omit<LaidScheme, 'between'> & { said: Pick<SaidScheme, 'between'> }

/** Every plant of a scheme where it stands. */
export function useStanding({ ground, arranged, pockets, said, kindOf }: Laid): StandingPlant[] {
  const { today } = useGardenContext()
  return useMemo(
    () => plantsOfScheme({ ground, arranged, pockets, between: said.between, kindOf }, today),
    [ground, arranged, pockets, said.between, kindOf, today],
  )
}
