import { scheduleCosts } from './problem.ts'
import type { Prepared } from './prepare.ts'
import { minutesBeyond, SKILL_SETS, type Left } from './room.ts'

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
  /** Minutes of work and of the way on a shift. */
  used: (shift: number) => number
}

const ROUNDING = 1e-6

/** A plan under way, with the room that is left on every shift. */
export function scheduleState(prepared: Prepared): ScheduleState {
  const { parts, rooms, mostHands, travel, gardens } = prepared
  const shifts = rooms.length
  const where = new Int32Array(parts.length).fill(-1)
  const ownCosts = new Int32Array(parts.length)
  // The search asks these millions of times: flat arrays, not objects.
  const minutesOf = Int32Array.from(parts, (p) => p.minutes)
  const gardenOf = Int32Array.from(parts, (p) => p.garden)
  const skillOf = Int32Array.from(parts, (p) => p.skill)
  const handsOf = Int32Array.from(parts, (p) => p.hands)
  const work = new Int32Array(shifts)
  /** Minutes of each person on the way, and what is left of them. */
  const away = new Int32Array(shifts)
  const left = rooms.map((r) => r.left(0))
  /** The same with the way to one garden more, by shift and garden. */
  const leftFurther = rooms.flatMap((r) => Array.from(travel, (minutes) => r.left(minutes)))
  const visits = new Int32Array(shifts * gardens)
  /** Minutes of work that asks for any of a set of skills, and of work that asks for any at all. */
  const workOfSkills = new Int32Array(shifts * SKILL_SETS)
  const skilledWork = new Int32Array(shifts)
  /** Minutes that others than so many people must work; for one person and more. */
  const workBeyond = new Float64Array(shifts * mostHands)
  const state: ScheduleState = {
    where,
    ownCosts,
    cost: parts.reduce((sum, p) => sum + p.penalty, 0),
    isVisited: (garden, shift) => visits[shift * gardens + garden]! > 0,
    used: (shift) => work[shift]! + rooms[shift]!.whole - left[shift]!.all,
    shortBy(part, shift) {
      return work[shift]! + minutesOf[part]! - leftWith(part, shift).all
    },
    fits(part, shift) {
      const there = leftWith(part, shift)
      if (work[shift]! + minutesOf[part]! > there.all) return false
      const isFurther = there !== left[shift]
      const skill = skillOf[part]!
      if (skill >= 0 || (isFurther && skilledWork[shift]! > 0))
        if (!hasSkills(part, shift, there)) return false
      return mostHands === 1 || hasHands(part, shift, there, isFurther)
    },
    put(part, shift, ownCost) {
      const { garden, penalty } = parts[part]!
      const visit = shift * gardens + garden
      if (visits[visit] === 0) {
        go(shift, travel[garden]!)
        state.cost += scheduleCosts.visit
      }
      visits[visit]!++
      addWork(part, shift, 1)
      where[part] = shift
      ownCosts[part] = ownCost
      state.cost += ownCost - penalty
    },
    take(part) {
      const shift = where[part]!
      if (shift < 0) return
      const { garden, penalty } = parts[part]!
      const visit = shift * gardens + garden
      visits[visit]!--
      if (visits[visit] === 0) {
        go(shift, -travel[garden]!)
        state.cost -= scheduleCosts.visit
      }
      addWork(part, shift, -1)
      where[part] = -1
      state.cost += penalty - ownCosts[part]!
    },
  }
  return state

  /** What people have left, were the part there. */
  function leftWith(part: number, shift: number): Left {
    const visit = shift * gardens + gardenOf[part]!
    return visits[visit]! > 0 ? left[shift]! : leftFurther[visit]!
  }

  function go(shift: number, minutes: number): void {
    if (minutes === 0) return
    away[shift]! += minutes
    left[shift] = rooms[shift]!.left(away[shift]!)
    for (let g = 0; g < gardens; g++)
      leftFurther[shift * gardens + g] = rooms[shift]!.left(away[shift]! + travel[g]!)
  }

  /** Work of a set of skills fits when those who have any of them have the time (Hall 1935). */
  function hasSkills(part: number, shift: number, { ofSkills }: Left): boolean {
    const skill = skillOf[part]!
    const at = shift * SKILL_SETS
    for (let set = 1; set < SKILL_SETS; set++) {
      const asked = workOfSkills[at + set]! + (skill >= 0 && set & (1 << skill) ? minutesOf[part]! : 0)
      if (asked > 0 && asked > ofSkills[set]!) return false
    }
    return true
  }

  function hasHands(part: number, shift: number, { beyond }: Left, isFurther: boolean): boolean {
    const hands = handsOf[part]!
    for (let some = 1; some < mostHands; some++) {
      const already = workBeyond[shift * mostHands + some]!
      const asked = already + minutesBeyond(minutesOf[part]!, hands, some)
      if (asked === already && !(isFurther && already > 0)) continue
      if (asked > (beyond[some] ?? 0) + ROUNDING) return false
    }
    return true
  }

  function addWork(part: number, shift: number, sign: 1 | -1): void {
    const minutes = sign * minutesOf[part]!
    const skill = skillOf[part]!
    work[shift]! += minutes
    if (skill >= 0) {
      skilledWork[shift]! += minutes
      for (let set = 1; set < SKILL_SETS; set++)
        if (set & (1 << skill)) workOfSkills[shift * SKILL_SETS + set]! += minutes
    }
    for (let people = 1; people < handsOf[part]!; people++)
      workBeyond[shift * mostHands + people]! += minutesBeyond(minutes, handsOf[part]!, people)
  }
}
