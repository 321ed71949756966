import type { Random } from '../random/index.ts'
import { scheduleCosts } from './problem.ts'
import type { Arc, Part, Prepared } from './prepare.ts'
import type { ScheduleState } from './state.ts'

const NEVER = 1e9

/** A part that found no room on a day where others of its group stand. */
interface Clash {
  part: number
  shift: number
}

/** A group is placed anew so often, each time with a day less for one of its parts. */
const MOST_CLASHES = 6

/** A garden's visit on a shift. */
export interface Visit {
  garden: number
  shift: number
}

/** Puts groups of parts on days. */
export interface Inserter {
  /** Puts the parts of a group, none of which is placed, on their cheapest days together: of each job all parts or none. */
  insert: (component: number) => void
  /** A visit that is closed for now, and one that costs nothing for now: what pulls work together and apart. */
  closed: Visit | undefined
  opened: Visit | undefined
  /** What a new visit counts for: less than it costs lets a group open one that others will come to. */
  visitCost: number
}

const isThe = (visit: Visit | undefined, garden: number, shift: number) =>
  visit !== undefined && visit.shift === shift && visit.garden === garden

/** Days tried at a time for a job that waits for several others, each with the best days of all the rest of its group. */
const MOST_TRIED = 6
const OUT = -1
const OPEN = -2
/** Apart from what it waits for, and on any day. */
const ANY = -3

/**
 * A group in which each part waits for at most one other is placed by dynamic programming over (part, day): the least cost of a
 * part on a day with all that follows it. Once the days of those that wait for several are fixed the rest of any group is of
 * that kind: these days are tried, and the group is placed by the best of them.
 *
 * The programme knows what else stands on a day, not what of the same group will: where two of a group have chosen a day that has no
 * room for both, one of them, as the dice fall, may not stand there, and the group is placed anew.
 *
 * @param skips a day is passed over where it answers true: makes a search less greedy
 */
export function inserter(
  prepared: Prepared,
  state: ScheduleState,
  random: Random,
  skips: () => boolean,
): Inserter {
  const { parts, components, days } = prepared
  const joinsOf = components.map((own) => own.filter((p) => parts[p]!.before.length > 1))
  /** Where each part stands in its group. */
  const rank = new Int32Array(parts.length)
  for (const own of components) own.forEach((p, k) => (rank[p] = k))
  const siblings = parts.map((part) => prepared.partsOf.get(part.job.id)!)
  /** What a part costs on each of its shifts by itself, as things stand. */
  const alone = parts.map((p) => new Float64Array(p.shifts.length))
  /** Least cost by part and by index of its shifts, and of leaving out a part with all that waits for it. */
  const least = parts.map((p) => new Float64Array(p.shifts.length))
  const without = new Float64Array(parts.length)
  /** Days that fixed joins leave a part, and whether one waits for it, so that it cannot be left out. */
  const from = new Float64Array(parts.length).fill(-Infinity)
  const to = new Float64Array(parts.length).fill(Infinity)
  const isNeeded = new Uint8Array(parts.length)
  /** Of a part that waits for several: the index of its shift, OUT where it is left out, ANY while it is tried, OPEN before that. */
  const fixed = new Int32Array(parts.length).fill(OPEN)
  /** Where between the days that are tried the first of them lies: another each time. */
  let turn = 0
  const queue = new Int32Array(Math.max(1, ...parts.map((p) => p.shifts.length)))

  const self: Inserter = { insert, closed: undefined, opened: undefined, visitCost: scheduleCosts.visit }
  return self

  function insert(component: number): void {
    const own = components[component]!
    if (own.length === 1) {
      const p = own[0]!
      const i = cheapest(p, -Infinity, Infinity)
      if (i >= 0) state.put(p, parts[p]!.shifts[i]!, parts[p]!.costs[i]!)
      return
    }
    for (const p of own) {
      const part = parts[p]!
      for (let i = 0; i < part.shifts.length; i++) alone[p]![i] = ownCost(part, p, i)
    }
    const joins = joinsOf[component]!
    for (let tries = 0; ; tries++) {
      if (joins.length > 0) fixJoins(own, joins)
      else work(own)
      const clash = place(own, tries < MOST_CLASHES)
      if (!clash) break
      forbid(own, clash)
      own.forEach(state.take)
    }
    takeHalves(own)
  }

  function ownCost(part: Part, p: number, i: number): number {
    const shift = part.shifts[i]!
    const day = days[shift]!
    if (day < part.earliest || day > part.latest || !state.fits(p, shift) || skips()) return NEVER
    if (isThe(self.closed, part.garden, shift)) return NEVER
    const free = state.isVisited(part.garden, shift) || isThe(self.opened, part.garden, shift)
    return part.costs[i]! + (free ? 0 : self.visitCost)
  }

  /** Index of the cheapest shift of a part between two days; -1 where leaving it out is cheaper or none is free. */
  function cheapest(p: number, from: number, to: number): number {
    const part = parts[p]!
    let best = -1
    let bestCost = costOfLeaving(p, part.penalty)
    for (let i = firstFrom(part.shifts, from); i < part.shifts.length; i++) {
      if (days[part.shifts[i]!]! > to) break
      // It costs no less than by itself: most days need not be asked for room.
      if (part.costs[i]! >= bestCost) continue
      const cost = ownCost(part, p, i)
      if (cost < bestCost) {
        bestCost = cost
        best = i
      }
    }
    return best
  }

  /** A later part of a job whose first has a day is not left out, nor is what a fixed join waits for. */
  function costOfLeaving(p: number, cost: number): number {
    return parts[p]!.index > 0 || isNeeded[p] === 1 ? NEVER : cost
  }

  function isFixed(p: number): boolean {
    return fixed[p]! !== OPEN
  }

  /** The arcs that the dynamic programme goes along: those into a fixed join are kept by the days left to what it waits for. */
  function isFollowed(p: number, { part }: Arc): boolean {
    return !isFixed(part) && (parts[part]!.before.length <= 1 || parts[part]!.before[0]!.part === p)
  }

  /** Least costs of a group from its ends to its beginnings. */
  function work(own: readonly number[]): void {
    for (let k = own.length - 1; k >= 0; k--) workPart(own[k]!)
  }

  /** Least costs of a part, those of what follows it known. */
  function workPart(p: number): void {
    const part = parts[p]!
    let missing = part.penalty
    for (const arc of part.after)
      if (isFollowed(p, arc)) missing += isNeeded[arc.part] === 1 ? NEVER : without[arc.part]!
    without[p] = missing
    const costs = least[p]!
    costs.set(alone[p]!)
    if (fixed[p]! >= 0) for (let i = 0; i < costs.length; i++) if (i !== fixed[p]) costs[i] = NEVER
    if (fixed[p] === OUT) costs.fill(NEVER)
    for (const arc of part.after) if (isFollowed(p, arc)) addBestAfter(p, arc)
  }

  /** What the programme puts a part after; -1 of one with which it begins. */
  function parentOf(p: number): number {
    const { before } = parts[p]!
    return before.length === 0 || isFixed(p) ? -1 : before[0]!.part
  }

  /** Days for the jobs that wait for several others, one after another, each by what the whole group then costs. */
  function fixJoins(own: readonly number[], joins: readonly number[]): void {
    for (const j of joins) {
      fixed[j] = ANY
      limit(own, joins)
      work(own)
      fixed[j] = bestOf(j)
    }
    limit(own, joins)
    work(own)
  }

  /**
   * The day of a join with which its group costs least, or that it is left out. Its day changes what it waits for, and what that comes
   * after, up to where the programme begins; nothing else is worked out anew.
   */
  function bestOf(j: number): number {
    const { before, shifts } = parts[j]!
    const above: number[] = []
    const roots: number[] = []
    for (const { part } of before) {
      let p = part
      for (let up = parentOf(p); up >= 0; up = parentOf(p)) {
        p = up
        if (!above.includes(p)) above.push(p)
      }
      if (!roots.includes(p)) roots.push(p)
    }
    // What comes last in its group is worked out first.
    above.sort((a, b) => rank[b]! - rank[a]!)
    const leave = costOfLeaving(j, without[j]!)
    const was = before.map(({ part }) => [from[part]!, to[part]!, isNeeded[part]!] as const)
    let best = Infinity
    let chosen = OUT
    for (const i of [OUT, ...tried(j)]) {
      let cost = leave
      if (i !== OUT) {
        const day = days[shifts[i]!]!
        if (day >= from[j]! && day <= to[j]!) cost = Math.min(leave, least[j]![i]!)
        need(j, day)
      }
      above.forEach(workPart)
      for (const r of roots) cost += leastBetween(r, from[r]!, to[r]!).cost
      before.forEach(({ part }, k) => {
        from[part] = was[k]![0]
        to[part] = was[k]![1]
        isNeeded[part] = was[k]![2]
      })
      if (cost < best) {
        best = cost
        chosen = i
      }
    }
    return chosen
  }

  /** A join on a day leaves what it waits for fewer, and needs it. */
  function need(j: number, day: number): void {
    for (const { part, least: gap, most } of parts[j]!.before) {
      from[part] = Math.max(from[part]!, day - most)
      to[part] = Math.min(to[part]!, day - gap)
      isNeeded[part] = 1
    }
  }

  /** Days of a part worth trying: the cheapest by itself, and others in turn. */
  function tried(p: number): number[] {
    const costs = alone[p]!
    let cheapest = -1
    const free: number[] = []
    for (let i = 0; i < costs.length; i++) {
      if (costs[i]! >= NEVER) continue
      free.push(i)
      if (cheapest < 0 || costs[i]! < costs[cheapest]!) cheapest = i
    }
    if (free.length <= MOST_TRIED) return free
    const chosen = [cheapest]
    const step = free.length / (MOST_TRIED - 1)
    turn = (turn + 0.618) % 1
    for (let k = 0; k < MOST_TRIED - 1; k++) chosen.push(free[Math.floor((k + turn) * step)]!)
    return chosen
  }

  /** What fixed joins leave the parts that they wait for. */
  function limit(own: readonly number[], joins: readonly number[]): void {
    for (const p of own) {
      from[p] = -Infinity
      to[p] = Infinity
      isNeeded[p] = 0
    }
    for (const j of joins) {
      if (fixed[j]! >= 0) need(j, days[parts[j]!.shifts[fixed[j]!]!]!)
    }
  }

  /** One of those that met on a day that has no room for all of them may not stand there: the later, or one that was there. */
  function forbid(own: readonly number[], { shift, part }: Clash): void {
    const met = own.filter((p) => p === part || state.where[p] === shift)
    const gives = random() < 0.5 ? part : met[Math.floor(random() * met.length)]!
    alone[gives]![parts[gives]!.shifts.indexOf(shift)] = NEVER
  }

  /**
   * Puts the parts of a group on the days that were worked out.
   *
   * @param stopsAtClash where two of them have no room on the same day; else the later takes the next cheapest
   * @returns where that was
   */
  function place(own: readonly number[], stopsAtClash: boolean): Clash | undefined {
    let clash: Clash | undefined
    for (const p of own) {
      const part = parts[p]!
      let first = from[p]!
      let last = to[p]!
      let waits = false
      for (const { part: b, least: gap, most } of part.before) {
        const shift = state.where[b]!
        if (shift < 0) waits = true
        else {
          first = Math.max(first, days[shift]! + gap)
          last = Math.min(last, days[shift]! + most)
        }
      }
      if (waits) continue
      let { index } = leastBetween(p, first, last)
      // Two parts of one group may have chosen the last room of the same day.
      if (index >= 0 && !state.fits(p, part.shifts[index]!)) {
        if (stopsAtClash) {
          clash = { part: p, shift: part.shifts[index]! }
          break
        }
        index = cheapest(p, first, last)
      }
      if (index >= 0) state.put(p, part.shifts[index]!, part.costs[index]!)
    }
    for (const p of own) {
      from[p] = -Infinity
      to[p] = Infinity
      isNeeded[p] = 0
      fixed[p] = OPEN
    }
    return clash
  }

  /** Takes out again what has only some of its parts on days, and what waits for that. */
  function takeHalves(own: readonly number[]): void {
    const isPlaced = (p: number) => state.where[p]! >= 0
    for (let taken = true; taken;) {
      taken = false
      for (const p of own) {
        if (!isPlaced(p)) continue
        if (parts[p]!.before.every((a) => isPlaced(a.part)) && siblings[p]!.every(isPlaced)) continue
        state.take(p)
        taken = true
      }
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
    const missing = costOfLeaving(arc.part, without[arc.part]!)
    const first = from[arc.part]!
    const last = to[arc.part]!
    let head = 0
    let tail = 0
    let next = 0
    for (let i = 0; i < mine.length; i++) {
      const day = days[mine[i]!]!
      const until = Math.min(last, day + arc.most)
      for (; next < theirs.length && days[theirs[next]!]! <= until; next++) {
        while (tail > head && costs[queue[tail - 1]!]! >= costs[next]!) tail--
        queue[tail++] = next
      }
      const since = Math.max(first, day + arc.least)
      while (head < tail && days[theirs[queue[head]!]!]! < since) head++
      const best = head < tail ? costs[queue[head]!]! : missing
      own[i]! += Math.min(best, missing)
    }
  }

  /** The cheapest day of a part with what follows it; index -1 where leaving it out is no dearer. */
  function leastBetween(p: number, from: number, to: number): { cost: number; index: number } {
    const { shifts } = parts[p]!
    let cost = costOfLeaving(p, without[p]!)
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
}
