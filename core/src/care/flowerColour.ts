import type { Place } from '../garden/index.ts'
import type { ColourWish } from '../plants/index.ts'

/** Soil reactions, as horticulture has them: at most for blue, at least for pink, and from where on free lime undoes sulphur. */
export const BLUE_AT_MOST_PH = 5.5
export const PINK_AT_LEAST_PH = 6.2
export const NO_BLUE_FROM_PH = 7.2

/** How a wish for a colour stands in a place. */
export interface ColourOutlook {
  stands: 'as wished' | 'can be had' | 'not here' | 'not tested'
  says: string
}

/** Whether the flowers that are wished for can be had where a plant stands, and how. */
export function colourOutlook(
  wish: ColourWish,
  { kind, ph, texture }: Pick<Place, 'kind' | 'ph' | 'texture'>,
): ColourOutlook {
  const inPot = kind === 'container'
  if (wish === 'blue' && !inPot && (texture === 'chalk' || (ph !== undefined && ph >= NO_BLUE_FROM_PH)))
    return {
      stands: 'not here',
      says: `Blue cannot be had here${ph === undefined ? '' : ` at pH ${ph}`}: limy ground undoes sulphur as fast as it works. In a pot of lime-free mix, watered with rain, it can.`,
    }
  if (ph === undefined)
    return {
      stands: 'not tested',
      says: inPot
        ? `Nobody has tested the mix. ${wish === 'blue' ? 'Lime-free mix and rain water are what blue wants.' : 'A mix with lime in it keeps it pink.'}`
        : 'The soil has not been tested: without a test no dose can be told.',
    }
  const isThere = wish === 'blue' ? ph <= BLUE_AT_MOST_PH : ph >= PINK_AT_LEAST_PH
  if (isThere)
    return {
      stands: 'as wished',
      says: `At pH ${ph} it flowers ${wish}${wish === 'blue' ? ', if the soil has aluminium enough' : ''}.`,
    }
  return {
    stands: 'can be had',
    says:
      wish === 'blue'
        ? `At pH ${ph} it flowers pink to mauve; blue wants ${BLUE_AT_MOST_PH} or less. Sulphur and aluminium get it there over a season or two: next year’s flowers show it.`
        : `At pH ${ph} it flowers blue to mauve; pink wants ${PINK_AT_LEAST_PH} or more. Lime gets it there over a season or two: next year’s flowers show it.`,
  }
}
