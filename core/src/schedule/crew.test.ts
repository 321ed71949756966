import { expect, it } from 'vitest'
import { workingDays, type Crew } from './index.ts'

// 15 September 2026 is a Tuesday.
const crew: Crew = {
  people: [
    { id: 'a', name: 'One', skills: ['pruning'], minutesByWeekday: [0, 0, 300, 0, 300, 0, 0] },
    { id: 'b', name: 'Two', skills: [], minutesByWeekday: [0, 0, 240, 0, 0, 0, 0] },
  ],
  absences: [
    { personId: 'b', from: '2026-09-20', to: '2026-09-26' },
    { personId: null, from: '2026-09-28', to: '2026-09-30' },
  ],
  days: { '2026-09-17': 0, '2026-09-19': 120 },
}

it('lists who works when, without the days lost, the holidays and whoever is ill', () => {
  const days = workingDays(crew, '2026-09-14', '2026-10-02')
  expect(days.map((d) => [d.day, d.minutes, d.people.map((p) => p.id).join('')])).toEqual([
    ['2026-09-15', 540, 'ab'],
    // A Saturday on which both come for two hours.
    ['2026-09-19', 240, 'ab'],
    ['2026-09-22', 300, 'a'],
    ['2026-09-24', 300, 'a'],
    ['2026-10-01', 300, 'a'],
  ])
})
