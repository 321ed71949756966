import type { Random } from '../random/index.ts'
import type { Inserter } from './insert.ts'
import type { Prepared } from './prepare.ts'
import type { ScheduleState } from './state.ts'

/** Most groups that are taken out at once. */
const MOST_RUINED = 12
/** Groups further apart than this in time are not near; more are taken in where many are to be taken out. */
const REACH_DAYS = 14
/** Shares of the kinds of ruin, each up to here: fitting in what is left out, closing a visit, opening one; else near ones. */
const FIT_IN = 0.1
const CLOSE_VISIT = 0.45
const OPEN_VISIT = 0.6
const OPEN_ELSEWHERE = 0.35

/** What of a plan is worth taking out together. */
export interface Ruins {
  /** Groups to take out next. May ask that a visit be closed or opened while they are put back. */
  choose: (random: Random) => number[]
  /** Notes the day that a group is about, as it stands now. */
  noteDay: (group: number) => void
}

/** Chooses what of a plan is taken out together, by day, visit and what is left out (Schrimpf et al. 2000). */
export function ruins(prepared: Prepared, state: ScheduleState, placing: Inserter): Ruins {
  const { parts, components, componentOf, days } = prepared
  const count = components.length
  const gardenOf = Int32Array.from(components, (own) => parts[own[0]!]!.garden)
  const scores = new Float64Array(count)
  const candidates: number[] = []
  /** The day a group is about: of its first placed part, else the middle of its best weeks. */
  const middleOf = components.map((own) => {
    const { shifts, costs } = parts[own[0]!]!
    let at = 0
    for (let i = 1; i < shifts.length; i++) if (costs[i]! < costs[at]!) at = i
    return shifts.length > 0 ? days[shifts[at]!]! : 0
  })
  const dayOf = Int32Array.from(middleOf)
  const noteDay = (c: number) => {
    const shift = state.where[components[c]![0]!]!
    dayOf[c] = shift >= 0 ? days[shift]! : middleOf[c]!
  }
  components.forEach((_, c) => noteDay(c))
  return { choose: chooseRuined, noteDay }

  /** Groups to take out: near one another in time and place, or on one visit, or in the way of one that has no day. */
  function chooseRuined(random: Random): number[] {
    const first = Math.floor(random() * count)
    const kind = random()
    if (kind < FIT_IN) {
      const left = components.findIndex((own, c) => c >= first && own.some((p) => state.where[p]! < 0))
      if (left >= 0) return [left, ...inTheWay(left, random)]
    }
    if (kind < CLOSE_VISIT) return closingVisit(first, random)
    const about = dayOf[first]!
    const garden = gardenOf[first]!
    if (kind < OPEN_VISIT) {
      const { shifts } = parts[components[first]![0]!]!
      if (shifts.length > 0) placing.opened = { garden, shift: shifts[Math.floor(random() * shifts.length)]! }
    }
    return near(first, about, garden, 1 + Math.floor(random() * Math.min(MOST_RUINED, count)), random)
  }

  /** A group and those nearest to a day, of its garden rather than of others. */
  function near(first: number, about: number, garden: number, size: number, random: Random): number[] {
    const reach = REACH_DAYS * (1 + size / MOST_RUINED)
    candidates.length = 0
    for (let c = 0; c < count; c++) {
      const apart = Math.abs(dayOf[c]! - about)
      if (apart > reach && c !== first) continue
      scores[c] = c === first ? -1 : apart + (gardenOf[c] === garden ? 0 : 4) + 6 * random()
      candidates.push(c)
    }
    return smallest(size)
  }

  /** The groups of least score, least first: one pass, kept in order. */
  function smallest(size: number): number[] {
    const chosen: number[] = []
    for (const c of candidates) {
      const score = scores[c]!
      if (chosen.length === size && score >= scores[chosen[size - 1]!]!) continue
      let at = chosen.length < size ? chosen.length : size - 1
      while (at > 0 && scores[chosen[at - 1]!]! > score) {
        chosen[at] = chosen[at - 1]!
        at--
      }
      chosen[at] = c
    }
    return chosen
  }

  /** Everything of one garden on the shift of a group, with some of what is near; mostly the visit is closed to them. */
  function closingVisit(c: number, random: Random): number[] {
    const placed = components[c]!.filter((p) => state.where[p]! >= 0)
    if (placed.length === 0) return [c]
    const shift = state.where[placed[Math.floor(random() * placed.length)]!]!
    const garden = gardenOf[c]!
    const chosen = new Set<number>([c])
    for (let q = 0; q < parts.length && chosen.size < MOST_RUINED; q++)
      if (state.where[q] === shift && parts[q]!.garden === garden) chosen.add(componentOf[q]!)
    if (random() < 0.75) placing.closed = { garden, shift }
    // A visit closed is often worth another one opened in its place.
    if (random() < OPEN_ELSEWHERE) {
      const { shifts } = parts[components[c]![0]!]!
      placing.opened = { garden, shift: shifts[Math.floor(random() * shifts.length)]! }
    }
    if (random() < 0.5)
      for (const other of near(c, days[shift]!, garden, Math.floor(random() * MOST_RUINED), random))
        chosen.add(other)
    return [...chosen]
  }

  /** What stands on a shift that a group without a day could be on. */
  function inTheWay(c: number, random: Random): number[] {
    const part = parts[components[c]!.find((p) => state.where[p]! < 0)!]!
    if (part.shifts.length === 0) return []
    const shift = part.shifts[Math.floor(random() * part.shifts.length)]!
    const chosen = new Set<number>()
    for (let q = 0; q < parts.length && chosen.size < MOST_RUINED; q++)
      if (state.where[q] === shift && componentOf[q] !== c) chosen.add(componentOf[q]!)
    return [...chosen]
  }
}
