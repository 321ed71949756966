import type { AssessmentView } from '@border/contract'
import type { Extent } from '@border/core'
import { createContext, useContext } from 'react'
import type { LightAction, LightState } from './lightState.ts'
import type { ViewName } from './look.ts'
import type { MomentState } from './useMoment.ts'
import type { PlanLight } from './usePlanLight.ts'

/** What the parts of the Light screen share. */
export interface LightContext {
  state: LightState
  /** Which scenes are drawn. */
  shown: ViewName
  dispatch: (action: LightAction) => void
  /** The day that is compared with; undefined until the assessment has found one. */
  then: string | undefined
  /** The day, where somebody chose it. */
  askedThen: string | undefined
  chooseThen: (day: string | undefined) => void
  assessment: AssessmentView | undefined
  light: PlanLight
  /** The light a moment later, for lists: the plan follows the pointer. */
  lightForLists: PlanLight
  /** Shadows at a moment instead of hours. */
  moment: MomentState | undefined
  /** Plantings outside the light they like. */
  outside: ReadonlySet<string>
  extent: Extent
  /** What the two scenes are called. */
  names: { before: string; after: string }
}

const Context = createContext<LightContext | undefined>(undefined)
export const LightProvider = Context.Provider

export function useLight(): LightContext {
  const context = useContext(Context)
  if (!context) throw new Error('Only a part of the Light screen may ask for its light')
  return context
}
