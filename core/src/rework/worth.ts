import { daysBetween, type IsoDate } from '../dates/index.ts'
import type { Planting } from '../garden/index.ts'

/** What a planting is worth to keep until somebody says otherwise, and why that is more than usual. */
export interface Worth {
  /** 1 as usual. */
  worth: number
  reasons: readonly string[]
}

/** So many years of growth are not had again soon. A judgement. */
const LONG_YEARS = 4

/**
 * What a planting is worth by what it is for, by how rare it is in its garden and by the years that another would take to be as large:
 * once more than usual for each of them. What it means to somebody nobody else can tell.
 *
 * @param standing everything that stands in the garden
 */
export function usualWorth(planting: Planting, standing: readonly Planting[], on: IsoDate): Worth {
  const { role, taxon, id, livingCount, plantedOn } = planting
  const isOnly =
    livingCount === 1 && !standing.some((p) => p.id !== id && p.taxon.botanical === taxon.botanical)
  const grown = Math.min(taxon.yearsToSize, Math.floor(daysBetween(plantedOn, on) / DAYS_A_YEAR))
  const reasons = [
    ...(role ? [`a part here (${role})`] : []),
    ...(isOnly ? ['it is the only one of its kind here'] : []),
    ...(grown >= LONG_YEARS ? [`another would take ${grown} years to be as large`] : []),
  ]
  return { worth: 1 + reasons.length, reasons }
}
const DAYS_A_YEAR = 365.25
