import { scheduleCosts } from './problem.ts'
import type { Arc, Part, Prepared } from './prepare.ts'
import type { ScheduleState } from './state.ts'

const NEVER = 1e9

/** A garden's visit on a shift. */
export interface Visit {
  garden: number
  shift: number
}

/** Puts groups of parts on days. */
export interface Inserter {
  /** Puts the parts of a group, none of which is placed, on their cheapest days together. */
  insert: (component: number) => void
  /** A visit that is closed for now, and one that costs nothing for now: what pulls work together and apart. */
  closed: Visit | undefined
  opened: Visit | undefined
}

const isThe = (visit: Visit | undefined, garden: number, shift: number) =>
  visit !== undefined && visit.shift === shift && visit.garden === garden

/**
 * Groups in which each part waits for at most one other are placed by dynamic programming over (part, day): the least cost
 * of a part on a day with all that follows it. Parts of other graphs take their cheapest day one after another.
 *
 * @param skips a day is passed over where it answers true: makes a search less greedy
 */
export function inserter(prepared: Prepared, state: ScheduleState, skips: () => boolean): Inserter {
  const { parts, components, days } = prepared
  const isForest = components.map((own) => own.every((p) => parts[p]!.before.length <= 1))
  /** Least cost by part and by index of its shifts, and of leaving out a part with all that waits for it. */
  const least = parts.map((p) => new Float64Array(p.shifts.length))
  const without = new Float64Array(parts.length)
  const queue = new Int32Array(Math.max(1, ...parts.map((p) => p.shifts.length)))

  const self: Inserter = { insert, closed: undefined, opened: undefined }
  return self

  function insert(component: number): void {
    const own = components[component]!
    if (own.length === 1) {
      const p = own[0]!
      const i = cheapest(p, -Infinity, Infinity)
      if (i >= 0) state.put(p, parts[p]!.shifts[i]!, parts[p]!.costs[i]!)
    } else if (isForest[component]) together(own)
    else oneByOne(own)
  }

  function ownCost(part: Part, p: number, i: number): number {
    const shift = part.shifts[i]!
    const day = days[shift]!
    if (day < part.earliest || day > part.latest || !state.fits(p, shift) || skips()) return NEVER
    if (isThe(self.closed, part.garden, shift)) return NEVER
    const free = state.isVisited(part.garden, shift) || isThe(self.opened, part.garden, shift)
    return part.costs[i]! + (free ? 0 : scheduleCosts.visit)
  }

  /** Index of the cheapest shift of a part between two days; -1 where leaving it out is cheaper or none is free. */
  function cheapest(p: number, from: number, to: number): number {
    const part = parts[p]!
    let best = -1
    let bestCost = part.penalty
    for (let i = 0; i < part.shifts.length; i++) {
      const day = days[part.shifts[i]!]!
      if (day < from || day > to) continue
      const cost = ownCost(part, p, i)
      if (cost < bestCost) {
        bestCost = cost
        best = i
      }
    }
    return best
  }

  function together(own: readonly number[]): void {
    for (let k = own.length - 1; k >= 0; k--) {
      const p = own[k]!
      const part = parts[p]!
      without[p] = part.penalty
      for (const { part: c } of part.after) without[p]! += without[c]!
      for (let i = 0; i < part.shifts.length; i++) {
        least[p]![i] = ownCost(part, p, i)
      }
      for (const arc of part.after) addBestAfter(p, arc)
    }
    for (const p of own) {
      const part = parts[p]!
      const before = part.before[0]
      let from = -Infinity
      let to = Infinity
      if (before) {
        const shift = state.where[before.part]!
        if (shift < 0) continue
        from = days[shift]! + before.least
        to = days[shift]! + before.most
      }
      let { index } = bestAfter(p, from, to)
      // Two parts of one group may have chosen the last room of the same day.
      if (index >= 0 && !state.fits(p, part.shifts[index]!)) index = cheapest(p, from, to)
      if (index >= 0) state.put(p, part.shifts[index]!, part.costs[index]!)
    }
  }

  /**
   * To every day of a part, the least cost of what follows it within the arc's days. Both lie in date order, so the least
   * of the moving window is kept in a queue that only ever falls.
   */
  function addBestAfter(p: number, arc: Arc): void {
    const mine = parts[p]!.shifts
    const theirs = parts[arc.part]!.shifts
    const own = least[p]!
    const costs = least[arc.part]!
    const missing = without[arc.part]!
    let head = 0
    let tail = 0
    let next = 0
    for (let i = 0; i < mine.length; i++) {
      const day = days[mine[i]!]!
      const to = day + arc.most
      for (; next < theirs.length && days[theirs[next]!]! <= to; next++) {
        while (tail > head && costs[queue[tail - 1]!]! >= costs[next]!) tail--
        queue[tail++] = next
      }
      const from = day + arc.least
      while (head < tail && days[theirs[queue[head]!]!]! < from) head++
      const best = head < tail ? costs[queue[head]!]! : missing
      own[i]! += best < missing ? best : missing
    }
  }

  function bestAfter(p: number, from: number, to: number): { cost: number; index: number } {
    const { shifts } = parts[p]!
    let cost = without[p]!
    let index = -1
    for (let i = firstFrom(shifts, from); i < shifts.length && days[shifts[i]!]! <= to; i++)
      if (least[p]![i]! < cost) {
        cost = least[p]![i]!
        index = i
      }
    return { cost, index }
  }

  function firstFrom(shifts: Int32Array, day: number): number {
    if (day === -Infinity) return 0
    let low = 0
    let high = shifts.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (days[shifts[middle]!]! < day) low = middle + 1
      else high = middle
    }
    return low
  }

  function oneByOne(own: readonly number[]): void {
    for (const p of own) {
      let from = -Infinity
      let to = Infinity
      let waits = false
      for (const { part, least: gap, most } of parts[p]!.before) {
        const shift = state.where[part]!
        if (shift < 0) waits = true
        else {
          from = Math.max(from, days[shift]! + gap)
          to = Math.min(to, days[shift]! + most)
        }
      }
      if (waits) continue
      // A day that leaves time for what follows, if there is one.
      const room = Math.min(to, ...parts[p]!.after.map((a) => parts[a.part]!.latest - a.least))
      const tight = cheapest(p, from, room)
      const index = tight >= 0 ? tight : cheapest(p, from, to)
      if (index >= 0) state.put(p, parts[p]!.shifts[index]!, parts[p]!.costs[index]!)
    }
  }
}
