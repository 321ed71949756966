import { onceFor } from '../once/index.ts'
import type { Climate } from './normals.ts'

/** How hot the afternoons of a place are: the same hours of sun scorch in one and please in another. */
export const summers = ['cool', 'warm', 'hot'] as const
export type Summer = (typeof summers)[number]

/** Usual highest temperature of a day in the hottest weeks, degrees Celsius: below the one it is cool, above the other hot. */
const COOL_BELOW_C = 21
const HOT_ABOVE_C = 29

/** The summers of a climate; where none is known, as the library's ranges mean them. */
export const summerOf = (climate: Pick<Climate, 'maxC'> | null | undefined): Summer =>
  climate ? told(climate) : 'warm'

/** Asked for with every planting, spot and kind. */
const told = onceFor((climate: Pick<Climate, 'maxC'>): Summer => {
  const hottestC = Math.max(...climate.maxC)
  if (hottestC < COOL_BELOW_C) return 'cool'
  return hottestC > HOT_ABOVE_C ? 'hot' : 'warm'
})
