import { addDays, type IsoDate } from '../../dates/index.ts'
import { seededRandom } from '../../random/index.ts'
import type { Schedule, ScheduleJob, ScheduleProblem } from '../index.ts'
import { simulatedSeason } from '../../../simulated/index.ts'

/** A season with all that a real one has: people's own days, work done, what needs four hands, days in one garden only. */
export function livelySeason(seed: number, jobs = 45): ScheduleProblem {
  const season = simulatedSeason({ seed, jobs, gardens: 3, days: 110, from: '2026-02-01' })
  const random = seededRandom(seed + 1)
  const awaited = new Set(season.jobs.flatMap((j) => j.after.map((a) => a.id)))
  return {
    ...season,
    jobs: season.jobs.map((j): ScheduleJob => {
      const dice = random()
      if (dice < 0.06 && j.after.length === 0 && !awaited.has(j.id)) {
        const days = season.shifts.filter((s) => s.day >= j.window.earliest && s.day <= j.window.latest)
        const day = days[Math.floor(random() * days.length)]?.day
        return day && j.minutes <= 120 && !j.skill ? { ...j, pinnedTo: day } : j
      }
      if (dice < 0.12 && !j.skill) return { ...j, hands: 2 }
      if (dice < 0.16 && j.after.length === 0) return { ...j, doneOn: addDays(season.shifts[0]!.day, -2) }
      return j
    }),
    shifts: season.shifts.map((s, i) => (i % 9 === 4 ? { ...s, gardenIds: ['g1', 'g2'] } : s)),
  }
}

export const daysOf = (plan: Schedule): Map<string, IsoDate[]> =>
  new Map(plan.placed.map((p) => [p.id, p.parts.map((x) => x.day)]))

/** The season as it is planned anew: each job remembers its days. */
export const remembering = (problem: ScheduleProblem, plan: Schedule): ScheduleProblem => {
  const at = daysOf(plan)
  return { ...problem, jobs: problem.jobs.map((j) => ({ ...j, keptOn: at.get(j.id) })) }
}
