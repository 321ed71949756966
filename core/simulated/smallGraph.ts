import { addDays, type IsoDate } from '../src/dates/index.ts'
import type { Operation, Skill } from '../src/care/index.ts'
import { seededRandom } from '../src/random/index.ts'
import type { ScheduleJob, ScheduleProblem } from '../src/schedule/index.ts'

const operations: readonly Operation[] = ['move', 'plant', 'prepare', 'mulch', 'divide', 'prune', 'lift']
const skillsAsked: readonly (Skill | null)[] = [null, null, null, 'pruning', 'machine']

/**
 * A few jobs that wait for one another in whatever way, over a few short days: a job may wait for several, be too long for a day
 * or ask for more hands than are there.
 *
 * @param seed same seed, same season
 */
export function smallGraph(seed: number, jobs = 6, days = 7): ScheduleProblem {
  const random = seededRandom(seed)
  const whole = (least: number, most: number) => least + Math.floor(random() * (most - least + 1))
  const from: IsoDate = '2026-03-02'
  const made: ScheduleJob[] = []
  for (let k = 0; k < jobs; k++) {
    const start = whole(0, 8)
    const best = whole(0, 4)
    const earliest = addDays(from, start)
    const bestFrom = addDays(earliest, best)
    const bestTo = addDays(bestFrom, whole(0, 6))
    const waitsFor = made.filter(() => random() < 0.45)
    made.push({
      id: `job ${k}`,
      gardenId: `g${whole(1, 2)}`,
      operation: operations[whole(0, operations.length - 1)]!,
      window: { earliest, bestFrom, bestTo, latest: addDays(bestTo, whole(2, 12)) },
      minutes: whole(0, 5) === 0 ? whole(181, 260) : whole(20, 130),
      weather: random() < 0.5 ? 'dig' : 'none',
      skill: skillsAsked[whole(0, skillsAsked.length - 1)]!,
      hands: random() < 0.2 ? 2 : 1,
      after: waitsFor.map((j) => ({
        id: j.id,
        leastDays: whole(0, 3),
        mostDays: random() < 0.5 ? whole(4, 14) : null,
      })),
    })
  }
  const shifts = Array.from({ length: days }, (_, k) => {
    const day = addDays(from, 3 * k + whole(0, 1))
    return {
      id: `shift ${k}`,
      day,
      people: [
        { id: 'a', minutes: whole(120, 240), skills: ['pruning' as const] },
        ...(random() < 0.6 ? [{ id: 'b', minutes: whole(0, 200), skills: ['machine' as const] }] : []),
      ],
    }
  })
  return {
    gardens: [
      { id: 'g1', travelMinutes: 10 },
      { id: 'g2', travelMinutes: 25 },
    ],
    shifts,
    jobs: made,
    unsuitable: { dig: Object.fromEntries(shifts.map((s) => [s.day, Math.round(100 * random()) / 100])) },
  }
}
