import type { WalkPlace, WalkPlanting } from '@border/contract'

/** Where a person stands on a walk, and what is open there. */
export interface WalkState {
  /** The place walked; undefined until one was gone to, which is the first. */
  placeId: string | undefined
  /** The planting that keys act on; undefined for the first of the place. */
  plantingId: string | undefined
  /** The planting of which more than its rating is shown. */
  openId: string | undefined
  ended: boolean
  keepPosition: boolean
}

export type WalkAction =
  | { do: 'go'; placeId: string }
  | { do: 'stand at'; plantingId: string }
  /** Shows more of a planting, or no more; keys act on it either way. */
  | { do: 'open'; plantingId: string; opens: boolean }
  | { do: 'end' }
  | { do: 'walk on' }
  | { do: 'keep position'; keeps: boolean }

export const atTheGate: WalkState = {
  placeId: undefined,
  plantingId: undefined,
  openId: undefined,
  ended: false,
  keepPosition: false,
}

export function walkReducer(state: WalkState, action: WalkAction): WalkState {
  switch (action.do) {
    case 'go':
      return { ...state, placeId: action.placeId, plantingId: undefined, openId: undefined }
    case 'stand at':
      return { ...state, plantingId: action.plantingId }
    case 'open':
      return {
        ...state,
        plantingId: action.plantingId,
        openId: action.opens ? action.plantingId : undefined,
      }
    case 'end':
      return { ...state, ended: true }
    case 'walk on':
      return { ...state, ended: false }
    case 'keep position':
      return { ...state, keepPosition: action.keeps }
  }
}

/** Where that is among the places there are now: a place that is gone leaves one at the first. */
export interface Standing {
  place: WalkPlace
  planting: WalkPlanting | undefined
  before: WalkPlace | undefined
  next: WalkPlace | undefined
}

/** @param places in walking order, at least one */
export function standingAt(state: WalkState, places: readonly WalkPlace[]): Standing {
  const at = Math.max(
    0,
    places.findIndex((p) => p.id === state.placeId),
  )
  const place = places[at]!
  return {
    place,
    planting: place.plantings.find((p) => p.id === state.plantingId) ?? place.plantings[0],
    before: places[at - 1],
    next: places[at + 1],
  }
}
