import { expect, it } from 'vitest'
import { workingDays } from './index.ts'

it('working days follow the week and its exceptions', () => {
  const pattern = {
    minutesByWeekday: [0, 0, 300, 0, 300, 0, 0],
    exceptions: { '2026-09-17': 0, '2026-09-18': 120 },
  }
  // 14 September 2026 is a Monday.
  expect(workingDays(pattern, '2026-09-14', '2026-09-22')).toEqual([
    { day: '2026-09-15', minutes: 300 },
    { day: '2026-09-18', minutes: 120 },
    { day: '2026-09-22', minutes: 300 },
  ])
})
