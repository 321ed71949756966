import { group } from 'd3-array'
import type { Operation } from './rule.ts'

/** What a job takes is not known to the minute. */
const STEP_MINUTES = 5

/** Labour as it is planned: to five minutes, and never none. */
export const toFiveMinutes = (minutes: number): number =>
  Math.max(STEP_MINUTES, Math.round(minutes / STEP_MINUTES) * STEP_MINUTES)

/** A job as it was done: minutes by the table and really taken. */
export interface LabourRecord {
  operation: Operation
  tableMinutes: number
  minutes: number
}

/** The table counts as so many records. */
const TABLE_WEIGHT = 4

/**
 * How long work of each kind really takes here against the table: the mean of log ratios, shrunk towards the table by as much
 * as few records deserve.
 *
 * @returns a factor for the table's minutes, by operation; absent where nothing was measured
 */
export function measuredLabour(records: readonly LabourRecord[]): Partial<Record<Operation, number>> {
  const factors: Partial<Record<Operation, number>> = {}
  for (const [operation, own] of group(records, (r) => r.operation)) {
    const sum = own.reduce((total, r) => total + Math.log(r.minutes / r.tableMinutes), 0)
    factors[operation] = Math.exp(sum / (own.length + TABLE_WEIGHT))
  }
  return factors
}
