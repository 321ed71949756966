import { scheduleCosts } from './problem.ts'
import { SKILL_SETS, type Prepared } from './prepare.ts'

/** A plan being worked on: where every part is, and what that takes of every shift. */
export interface ScheduleState {
  /** Shift of each part; -1 for none. */
  where: Int32Array
  cost: number
  /** What each placed part costs by itself on its shift. */
  ownCosts: Int32Array
  /** Whether a shift has room for a part as things stand. */
  fits: (part: number, shift: number) => boolean
  /** Minutes by which a shift is too short for a part; 0 or less when it fits by time. */
  shortBy: (part: number, shift: number) => number
  isVisited: (garden: number, shift: number) => boolean
  put: (part: number, shift: number, ownCost: number) => void
  take: (part: number) => void
}

/** A plan under way, with the room that is left on every shift. */
export function scheduleState(prepared: Prepared): ScheduleState {
  const { parts, capacity, skilled, skilledPeople, people, travel, gardens } = prepared
  const shifts = capacity.length
  const where = new Int32Array(parts.length).fill(-1)
  const ownCosts = new Int32Array(parts.length)
  // The search asks these millions of times: flat arrays, not objects.
  const minutesOf = Int32Array.from(parts, (p) => p.minutes)
  const gardenOf = Int32Array.from(parts, (p) => p.garden)
  const skillOf = Int32Array.from(parts, (p) => p.skill)
  const used = new Int32Array(shifts)
  const usedBySkills = new Int32Array(shifts * SKILL_SETS)
  const visits = new Int32Array(shifts * gardens)
  // Minutes of work that asks for a skill.
  const skilledWork = new Int32Array(shifts)
  // Minutes of each person on the way.
  const away = new Int32Array(shifts)
  const state: ScheduleState = {
    where,
    ownCosts,
    cost: parts.reduce((sum, p) => sum + p.penalty, 0),
    isVisited: (garden, shift) => visits[shift * gardens + garden]! > 0,
    shortBy(part, shift) {
      const garden = gardenOf[part]!
      const going = visits[shift * gardens + garden] === 0 ? travel[garden]! * people[shift]! : 0
      return used[shift]! + minutesOf[part]! + going - capacity[shift]!
    },
    fits(part, shift) {
      if (state.shortBy(part, shift) > 0) return false
      const skill = skillOf[part]!
      const garden = gardenOf[part]!
      const isNew = visits[shift * gardens + garden] === 0 && travel[garden]! > 0
      if (skill < 0 && (!isNew || skilledWork[shift] === 0)) return true
      const minutes = minutesOf[part]!
      const going = away[shift]! + (isNew ? travel[garden]! : 0)
      // Work of a set of skills fits when those who have any of them have the time (Hall 1935).
      const at = shift * SKILL_SETS
      for (let set = 1; set < SKILL_SETS; set++) {
        const asked = usedBySkills[at + set]! + (skill >= 0 && set & (1 << skill) ? minutes : 0)
        if (asked > 0 && asked > skilled[at + set]! - going * skilledPeople[at + set]!) return false
      }
      return true
    },
    put(part, shift, ownCost) {
      const { minutes, garden, skill, penalty } = parts[part]!
      const visit = shift * gardens + garden
      if (visits[visit] === 0) {
        used[shift]! += travel[garden]! * people[shift]!
        away[shift]! += travel[garden]!
        state.cost += scheduleCosts.visit
      }
      visits[visit]!++
      used[shift]! += minutes
      addSkill(shift, skill, minutes)
      where[part] = shift
      ownCosts[part] = ownCost
      state.cost += ownCost - penalty
    },
    take(part) {
      const shift = where[part]!
      if (shift < 0) return
      const { minutes, garden, skill, penalty } = parts[part]!
      const visit = shift * gardens + garden
      visits[visit]!--
      if (visits[visit] === 0) {
        used[shift]! -= travel[garden]! * people[shift]!
        away[shift]! -= travel[garden]!
        state.cost -= scheduleCosts.visit
      }
      used[shift]! -= minutes
      addSkill(shift, skill, -minutes)
      where[part] = -1
      state.cost += penalty - ownCosts[part]!
    },
  }
  return state

  function addSkill(shift: number, skill: number, minutes: number): void {
    if (skill < 0) return
    skilledWork[shift]! += minutes
    for (let set = 1; set < SKILL_SETS; set++)
      if (set & (1 << skill)) usedBySkills[shift * SKILL_SETS + set]! += minutes
  }
}
