import type { Random } from '../random/index.ts'
import { seededRandom } from '../random/index.ts'
import { inserter } from './insert.ts'
import type { Prepared } from './prepare.ts'
import { scheduleState } from './state.ts'

export interface SearchOptions {
  seed: number
  /** A fixed budget: never the clock, so that the same input gives the same plan. */
  iterations: number
}

export interface Progress {
  done: number
  of: number
  cost: number
}

/** A search that always took the cheapest day would soon go round in circles. */
const DAYS_BETWEEN_SKIPS = 100
const STEP = 500
/** Temperatures of the annealing, in units of cost: about a visit at first, less than a day outside the best at last. */
const HOT = 40
const COLD = 0.8
const MOST_RUINED = 12
/** So few groups are soon gone through: the annealing is begun anew so often. */
export const FEW = 60
const REHEATS = 8
/** Shares of the kinds of ruin, each up to here: fitting in what is left out, closing a visit, opening one; else near ones. */
const FIT_IN = 0.1
const CLOSE_VISIT = 0.45
const OPEN_VISIT = 0.6
const OPEN_ELSEWHERE = 0.35

/**
 * Ruin and recreate (Schrimpf, Schneider, Stamm-Wilbrandt and Dueck 2000, Journal of Computational Physics 159, 139-171)
 * under simulated annealing, seeded.
 *
 * @returns shift of each part; yields its progress every so many rounds
 */
export function* search(
  prepared: Prepared,
  { seed, iterations }: SearchOptions,
): Generator<Progress, { where: Int32Array; cost: number }> {
  const { parts, components, componentOf, days } = prepared
  const random = seededRandom(seed)
  const state = scheduleState(prepared)
  // The next day to pass over is drawn ahead, so that most days cost no random number.
  let untilSkip = Infinity
  const placing = inserter(prepared, state, () => {
    if (--untilSkip > 0) return false
    untilSkip = Math.ceil(2 * random() * DAYS_BETWEEN_SKIPS)
    return true
  })
  const count = components.length
  const penaltyOf = components.map((own) => own.reduce((sum, p) => sum + parts[p]!.penalty, 0))
  const minutesOf = components.map((own) => own.reduce((sum, p) => sum + parts[p]!.minutes, 0))
  const choicesOf = components.map((own) => Math.min(...own.map((p) => parts[p]!.shifts.length)))
  const gardenOf = Int32Array.from(components, (own) => parts[own[0]!]!.garden)
  const density = (c: number) => penaltyOf[c]! / minutesOf[c]! / Math.max(1, choicesOf[c]!)
  const bySlack = [...components.keys()].sort((a, b) => density(b) - density(a) || a - b)
  for (const c of bySlack) placing.insert(c)
  const best = { where: state.where.slice(), cost: state.cost }
  if (count === 0) return best
  untilSkip = DAYS_BETWEEN_SKIPS

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
  const before = new Int32Array(parts.length)
  const beforeCost = new Int32Array(parts.length)
  const scores = new Float64Array(count)
  const cycle = Math.ceil(iterations / (count <= FEW ? REHEATS : 1))
  const cooling = Math.pow(COLD / HOT, 1 / Math.max(1, cycle))
  let temperature = HOT
  for (let round = 0; round < iterations; round++) {
    if (round % STEP === 0) yield { done: round, of: iterations, cost: best.cost }
    if (round % cycle === 0) temperature = HOT
    temperature *= cooling
    const ruined = chooseRuined(random)
    const costBefore = state.cost
    for (const c of ruined)
      for (const p of components[c]!) {
        before[p] = state.where[p]!
        beforeCost[p] = state.ownCosts[p]!
        state.take(p)
      }
    for (const c of reordered(ruined, random)) placing.insert(c)
    placing.closed = undefined
    placing.opened = undefined
    const worse = state.cost - costBefore
    if (worse > 0 && random() >= Math.exp(-worse / temperature)) {
      for (const c of ruined) for (const p of components[c]!) state.take(p)
      for (const c of ruined)
        for (const p of components[c]!) if (before[p]! >= 0) state.put(p, before[p]!, beforeCost[p]!)
    } else if (state.cost < best.cost) {
      best.cost = state.cost
      best.where.set(state.where)
    }
    ruined.forEach(noteDay)
  }
  return best

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
    for (let c = 0; c < count; c++) {
      const elsewhere = gardenOf[c] === garden ? 0 : 4
      scores[c] = Math.abs(dayOf[c]! - about) + elsewhere + 6 * random()
    }
    scores[first] = -1
    return smallest(size)
  }

  /** The groups of least score, least first: one pass, kept in order. */
  function smallest(size: number): number[] {
    const chosen: number[] = []
    for (let c = 0; c < count; c++) {
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

  function reordered(ruined: readonly number[], random: Random): number[] {
    const kind = random()
    if (kind < 0.4) return [...ruined].sort((a, b) => density(b) - density(a) || a - b)
    if (kind < 0.6) return [...ruined].sort((a, b) => minutesOf[b]! - minutesOf[a]! || a - b)
    const shuffled = [...ruined]
    for (let i = shuffled.length - 1; i > 0; i--) {
      const j = Math.floor(random() * (i + 1))
      ;[shuffled[i], shuffled[j]] = [shuffled[j]!, shuffled[i]!]
    }
    return shuffled
  }
}
