import { CANONICAL_UNITS, USUAL_NAMING, type Naming, type Units } from '@border/core'

/** How somebody wants things called, measured and written. */
export interface Preferences extends Units {
  names: Naming
  weekStart: 'Monday' | 'Sunday'
}

/** As it is where nobody has said. */
export const USUAL_PREFERENCES: Preferences = {
  names: USUAL_NAMING,
  ...CANONICAL_UNITS,
  weekStart: 'Monday',
}
