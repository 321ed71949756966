import { scheduleJobs, seasonRounds, RESCHEDULE_ROUNDS, type ScheduleProblem } from '../src/schedule/index.ts'
import { prepare } from '../src/schedule/prepare.ts'
import { asSchedule } from '../src/schedule/schedule.ts'
import { simulatedSeason } from '../simulated/index.ts'
import { scheduleState } from '../src/schedule/state.ts'
import { provedOptimum } from './oracle.ts'
import { timed } from './timed.ts'

/** Figures of the season's plan: `npm run bench:schedule -w core`. */

const SEEDS = [1, 2, 3, 4, 5]
const year = (seed: number) => simulatedSeason({ seed, jobs: 300, gardens: 3, days: 365, from: '2026-01-01' })

const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length
const percent = (share: number) => `${(100 * share).toFixed(2)} %`

/** Jobs by the day their window closes, each part on the first day that has room: what people do by hand. */
function firstFit(problem: ScheduleProblem) {
  const prepared = prepare(problem)
  const state = scheduleState(prepared)
  const { parts, components, days } = prepared
  const due = (own: readonly number[]) => Math.min(...own.map((p) => parts[p]!.latest))
  for (const own of [...components].sort((a, b) => due(a) - due(b)))
    for (const p of own) {
      const part = parts[p]!
      const i = [...part.shifts].findIndex(
        (s) =>
          state.fits(p, s) &&
          part.before.every((a) => {
            const first = state.where[a.part]!
            return first >= 0 && days[s]! >= days[first]! + a.least && days[s]! <= days[first]! + a.most
          }),
      )
      if (i >= 0) state.put(p, part.shifts[i]!, part.costs[i]!)
    }
  return asSchedule(prepared, state.where)
}

process.stdout.write('300 jobs over a year in 3 gardens, one thread\n')
process.stdout.write('season   first-fit   plan   unplaced   seconds   ten times longer   plan above it\n')
const above: number[] = []
const seconds: number[] = []
for (const seed of SEEDS) {
  const problem = year(seed)
  const simple = firstFit(problem)
  const [plan, ms] = timed(() => scheduleJobs(problem))
  const long = scheduleJobs(problem, { seed: 1, iterations: 10 * seasonRounds(problem) })
  above.push(plan.cost.total / long.cost.total - 1)
  seconds.push(ms / 1000)
  process.stdout.write(
    `${seed}   ${simple.cost.total} (${simple.unplaced.length} left out)   ${plan.cost.total}   ${plan.unplaced.length}   ${(ms / 1000).toFixed(2)}   ${long.cost.total}   ${percent(above.at(-1)!)}\n`,
  )
}
process.stdout.write(
  `mean: ${mean(seconds).toFixed(2)} s, ${percent(mean(above))} above the ten times longer run\n\n`,
)

process.stdout.write('small seasons against the proved optimum (HiGHS, gap 0.05 %)\n')
const excess: number[] = []
for (let seed = 1; seed <= 12; seed++) {
  const problem = simulatedSeason({ seed, jobs: 20, gardens: 2, days: 60, from: '2026-03-01' })
  const { cost } = await provedOptimum(problem)
  const plan = scheduleJobs(problem)
  excess.push(plan.cost.total / cost - 1)
}
process.stdout.write(
  `12 seasons of 20 jobs: mean ${percent(mean(excess))} above, worst ${percent(Math.max(...excess))}\n\n`,
)

process.stdout.write('a day lost to rain\n')
for (const seed of SEEDS) {
  const problem = year(seed)
  const plan = scheduleJobs(problem)
  const kept = new Map(plan.placed.map((p) => [p.id, p.parts.map((x) => x.day)]))
  const lost = [...plan.load].sort((a, b) => b.used - a.used)[0]!.day
  const onIt = plan.placed.filter((p) => p.parts.some((x) => x.day === lost)).length
  const [again, ms] = timed(() =>
    scheduleJobs(
      {
        ...problem,
        shifts: problem.shifts.filter((s) => s.day !== lost),
        jobs: problem.jobs.map((j) => ({ ...j, keptOn: kept.get(j.id) })),
      },
      { seed: 1, iterations: RESCHEDULE_ROUNDS },
    ),
  )
  process.stdout.write(
    `${seed}   ${onIt} jobs stood on ${lost}; ${again.moved.length} moved, ${again.unplaced.length} left out, ${(ms / 1000).toFixed(2)} s\n`,
  )
}
