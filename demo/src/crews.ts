import type { Skill } from '@border/core'
import { almshouseTerrace } from './gardens/almshouseTerrace.ts'
import { cliffLane } from './gardens/cliffLane.ts'
import { netmakersYard } from './gardens/netmakersYard.ts'
import type { SketchGarden } from './sketch.ts'

interface SketchCrew {
  name: string
  gardens: { sketch: SketchGarden; travelMinutes: number }[]
  people: { name: string; skills: Skill[]; minutesByWeekday: number[] }[]
  /** Without a name, the whole crew. */
  absences: { name?: string; from: string; to: string; reason: string }[]
}

/** Who works in the demo's gardens: two of them share their people. */
export const demoCrews: SketchCrew[] = [
  {
    name: 'Yard and lane',
    gardens: [
      { sketch: netmakersYard, travelMinutes: 10 },
      { sketch: cliffLane, travelMinutes: 25 },
    ],
    people: [
      { name: 'Marla Quill', skills: ['pruning', 'spraying'], minutesByWeekday: [0, 0, 240, 150, 240, 0, 0] },
      { name: 'Tobin Reeve', skills: ['pruning', 'machine'], minutesByWeekday: [0, 0, 180, 210, 180, 0, 0] },
    ],
    absences: [
      { from: '2026-10-19', to: '2026-10-23', reason: 'autumn break' },
      { from: '2026-12-24', to: '2027-01-01', reason: 'holidays' },
      { name: 'Tobin Reeve', from: '2027-03-08', to: '2027-03-19', reason: 'course' },
    ],
  },
  {
    name: 'Terrace volunteers',
    gardens: [{ sketch: almshouseTerrace, travelMinutes: 0 }],
    people: [{ name: 'Volunteers', skills: ['pruning'], minutesByWeekday: [0, 120, 0, 0, 0, 120, 0] }],
    absences: [{ from: '2026-10-23', to: '2026-10-23', reason: 'open day' }],
  },
]
