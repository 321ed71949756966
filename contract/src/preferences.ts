import { USUAL_NAMING, type Naming } from '@border/core'

/** How somebody wants things called and written. */
export interface Preferences {
  names: Naming
}

/** As it is where nobody has said. */
export const USUAL_PREFERENCES: Preferences = { names: USUAL_NAMING }
