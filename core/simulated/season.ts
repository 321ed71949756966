import type { Operation, Skill } from '../src/care/index.ts'
import { addDays, weekdayOf, type IsoDate } from '../src/dates/index.ts'
import { seededRandom } from '../src/random/index.ts'
import type { WeatherNeed } from '../src/climate/index.ts'
import type { ScheduleJob, ScheduleProblem, Shift } from '../src/schedule/index.ts'

export interface SimulatedSeason {
  seed: number
  jobs: number
  gardens: number
  days: number
  from: IsoDate
}

const kinds: readonly [
  Operation,
  WeatherNeed,
  minutes: readonly [number, number],
  best: readonly [number, number],
][] = [
  ['divide', 'plant', [30, 120], [14, 42]],
  ['prune', 'cut', [15, 150], [14, 40]],
  ['cut back', 'cut', [20, 240], [14, 40]],
  ['deadhead', 'none', [10, 40], [3, 8]],
  ['weed', 'dig', [20, 120], [5, 12]],
  ['mulch', 'lay', [60, 400], [20, 40]],
  ['feed', 'spray', [10, 40], [10, 30]],
  ['swap', 'plant', [40, 180], [10, 25]],
  ['stake', 'none', [10, 60], [14, 30]],
  ['lift', 'dig', [20, 90], [5, 14]],
]
const peopleSkills: readonly (readonly Skill[])[] = [
  ['pruning', 'machine'],
  ['machine'],
  ['pruning', 'spraying'],
]

/**
 * A made-up season of work: jobs with windows over the year, one in six a chain of preparing, moving and looking after, a
 * working week of three people with unlike skills. Same request, same season.
 */
export function simulatedSeason({ seed, jobs, gardens, days, from }: SimulatedSeason): ScheduleProblem {
  const random = seededRandom(seed)
  const whole = (least: number, most: number) => least + Math.floor(random() * (most - least + 1))
  const made: ScheduleJob[] = []
  const gardenIds = Array.from({ length: gardens }, (_, i) => `g${i + 1}`)
  while (made.length < jobs) {
    const n = String(made.length).padStart(4, '0')
    const gardenId = gardenIds[whole(0, gardens - 1)]!
    const start = addDays(from, whole(0, days - 30))
    if (random() < 1 / 6 && made.length + 3 <= jobs) {
      const window = windowFrom(start, whole(5, 14), whole(14, 28), whole(5, 14))
      const base = { gardenId, window, minutes: whole(20, 90), skill: null }
      made.push(
        { ...base, id: `${n}a`, operation: 'prepare', weather: 'dig', after: [] },
        {
          ...base,
          id: `${n}b`,
          operation: 'move',
          weather: 'plant',
          after: [{ id: `${n}a`, leastDays: 0, mostDays: 14 }],
        },
        {
          ...base,
          id: `${n}c`,
          operation: 'aftercare',
          weather: 'none',
          minutes: 15,
          window: windowFrom(addDays(window.earliest, 5), 0, 60, 14),
          after: [{ id: `${n}b`, leastDays: 5, mostDays: 12 }],
        },
      )
      continue
    }
    const [operation, weather, minutes, best] = kinds[whole(0, kinds.length - 1)]!
    made.push({
      id: n,
      gardenId,
      operation,
      weather,
      window: windowFrom(start, whole(2, 14), whole(...best), whole(2, 14)),
      minutes: whole(...minutes),
      skill: operation === 'prune' ? 'pruning' : operation === 'feed' ? 'spraying' : null,
      after: [],
    })
  }
  const shifts: Shift[] = []
  for (let k = 0; k < days + 60; k++) {
    const day = addDays(from, k)
    const weekday = weekdayOf(day)
    if (weekday === 0 || weekday === 6 || (weekday % 2 === 1 && random() < 0.1)) continue
    const people = peopleSkills
      .map((skills, i) => ({ id: `p${i}`, minutes: 240, skills }))
      .filter((_, i) => (i + weekday) % 2 === 0)
    shifts.push({ id: day, day, people })
  }
  const risk: Record<IsoDate, number> = {}
  for (let k = 0; k < days + 60; k++) risk[addDays(from, k)] = Math.round(random() * random() * 100) / 100
  return {
    gardens: gardenIds.map((id, i) => ({ id, travelMinutes: 10 + 10 * i })),
    shifts,
    jobs: made,
    unsuitable: { dig: risk, plant: risk, cut: risk, spray: risk },
  }
}

function windowFrom(earliest: IsoDate, before: number, best: number, after: number): ScheduleJob['window'] {
  const bestFrom = addDays(earliest, before)
  const bestTo = addDays(bestFrom, best)
  return { earliest, bestFrom, bestTo, latest: addDays(bestTo, after) }
}
