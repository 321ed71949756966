import { provedOptimum } from '../bench/oracle.ts'
import { leastCost } from '../reference/exhaustivePlanner.ts'
import { simulatedSeason, smallGraph } from '../simulated/index.ts'
import { scheduleCosts, scheduleJobs, seasonRounds } from '../src/schedule/index.ts'
import type { SearchOptions } from '../src/search/index.ts'

/** By how much a plan is dearer than the least cost there is, of that cost. */
export interface PlanExcess {
  cost: number
  least: number
  excess: number
}

const excessOf = (cost: number, least: number): PlanExcess => ({
  cost,
  least,
  excess: least === 0 ? cost : cost / least - 1,
})

/** Six jobs that wait for one another in whatever way, against every way of giving them days. */
export function graphExcess(seed: number, options?: SearchOptions): PlanExcess {
  const problem = smallGraph(seed)
  return excessOf(scheduleJobs(problem, options).cost.total, leastCost(problem, scheduleCosts))
}

/** Twenty jobs over two months, against the optimum that a mixed-integer programme proves, to half a thousandth. */
export async function seasonExcess(seed: number): Promise<PlanExcess> {
  const problem = simulatedSeason({ seed, jobs: 20, gardens: 2, days: 60, from: '2026-03-01' })
  return excessOf(scheduleJobs(problem).cost.total, (await provedOptimum(problem)).cost)
}

/** Three hundred jobs over a year in three gardens, against the same search for ten times as long. */
export function yearExcess(seed: number): PlanExcess {
  const problem = simulatedSeason({ seed, jobs: 300, gardens: 3, days: 365, from: '2026-01-01' })
  const long = scheduleJobs(problem, { seed: seed + 1, iterations: 10 * seasonRounds(problem) })
  return excessOf(scheduleJobs(problem).cost.total, long.cost.total)
}
