import { fromDayOfYear } from '../dates/index.ts'
import type { Climate } from './normals.ts'

/** Deciduous trees of temperate gardens are in leaf while the usual day is this warm: a working figure. */
const LEAF_C = 10
/** A cold spell shorter than this is no winter to drop leaves for. */
const LEAST_REST_DAYS = 30

/**
 * When deciduous trees are usually in leaf at a place: the longest stretch of the usual year with days warm enough.
 *
 * @returns `MM-DD`, leaf from and to, which may wrap over New Year; undefined where it is warm, or cold, all year
 */
export function leafDates({
  minC,
  maxC,
}: Pick<Climate, 'minC' | 'maxC'>): { leafFrom: string; leafTo: string } | undefined {
  const warm = minC.map((min, i) => (min + maxC[i]!) / 2 >= LEAF_C)
  const n = warm.length
  let best = { from: 0, days: 0 }
  for (let from = 0; from < n; from++) {
    if (!warm[from] || warm[(from + n - 1) % n]) continue
    let days = 0
    while (days < n && warm[(from + days) % n]) days++
    if (days > best.days) best = { from, days }
  }
  if (best.days === 0 || n - best.days < LEAST_REST_DAYS) return undefined
  const monthDay = (slot: number) => fromDayOfYear(LEAP_YEAR, (slot % n) + 1).slice(5)
  return { leafFrom: monthDay(best.from), leafTo: monthDay(best.from + best.days) }
}

/** Any leap year: the usual year has 366 days. */
const LEAP_YEAR = 2024
