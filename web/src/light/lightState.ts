import type { Point, Supposition } from '@border/core'
import type { Measure, PeriodName, Stretch, ViewName } from './look.ts'

export type Selected = { kind: 'planting' | 'feature'; id: string } | { kind: 'spot'; at: Point }
export type Tab = 'now' | 'ahead' | 'what if' | 'readings'

/** What of the plan is chosen, where it is something of the plan. */
export const idOf = (selected: Selected | undefined): string | undefined =>
  selected && 'id' in selected ? selected.id : undefined

/** The spot that is marked, where one is. */
export const spotOf = (selected: Selected | undefined): Point | undefined =>
  selected?.kind === 'spot' ? selected.at : undefined

/** How the light is looked at, what is chosen on the plan, and what is tried other than it stands. */
export interface LightState {
  period: PeriodName
  viewName: ViewName
  stretch: Stretch
  measure: Measure
  /** The place that fills the drawing; undefined for the whole garden. */
  look: string | undefined
  tab: Tab
  selected: Selected | undefined
  /** By obstruction, the latest last. */
  suppositions: ReadonlyMap<string, Supposition>
}

export type LightAction =
  | {
      do: 'show'
      what: Partial<Pick<LightState, 'period' | 'viewName' | 'stretch' | 'measure' | 'look' | 'tab'>>
    }
  | { do: 'select'; selected: Selected | undefined }
  /** Moves the marked spot by so many steps; where none is marked, from the middle. */
  | { do: 'nudge'; steps: Point; middle: Point }
  | { do: 'suppose'; id: string; change: (before: Supposition | undefined) => Supposition | undefined }
  /** These and no others. */
  | { do: 'suppose only'; suppositions: readonly Supposition[] }

export const STEP_M = 0.5

export const firstLook: LightState = {
  period: 'season',
  viewName: 'after',
  stretch: 'total',
  measure: 'hours',
  look: undefined,
  tab: 'now',
  selected: undefined,
  suppositions: new Map(),
}

/** Which scenes are drawn: at a moment there is no difference of hours to draw, and both are. */
export const scenesShown = ({ period, viewName }: Pick<LightState, 'period' | 'viewName'>): ViewName =>
  period === 'moment' && viewName === 'difference' ? 'side by side' : viewName

export function lightReducer(state: LightState, action: LightAction): LightState {
  switch (action.do) {
    case 'show':
      return { ...state, ...action.what }
    case 'select':
      return { ...state, selected: action.selected }
    case 'nudge': {
      const { steps, middle } = action
      const [x, y] = spotOf(state.selected) ?? middle
      return { ...state, selected: { kind: 'spot', at: [x + steps[0] * STEP_M, y + steps[1] * STEP_M] } }
    }
    case 'suppose': {
      const suppositions = new Map(state.suppositions)
      const supposition = action.change(state.suppositions.get(action.id))
      // Put back in, the latest is last.
      suppositions.delete(action.id)
      if (supposition) suppositions.set(action.id, supposition)
      return {
        ...state,
        suppositions,
        // What is tried is seen in hours, and as tried.
        period: state.period === 'moment' ? 'season' : state.period,
        viewName: state.viewName === 'before' ? 'after' : state.viewName,
      }
    }
    case 'suppose only':
      return { ...state, suppositions: new Map(action.suppositions.map((s) => [s.obstructionId, s])) }
  }
}
