import type { Random } from '../random/index.ts'
import { seededRandom } from '../random/index.ts'
import { ruinAndRecreate, type Progress, type SearchOptions } from '../search/index.ts'
import { inserter } from './insert.ts'
import type { Prepared } from './prepare.ts'
import { scheduleCosts } from './problem.ts'
import { ruins } from './ruin.ts'
import { scheduleState } from './state.ts'

/** A search that always took the cheapest day would soon go round in circles. */
const DAYS_BETWEEN_SKIPS = 100
/** Temperatures of the annealing, in units of cost: less than a visit at first, less than a day outside the best at last. */
const HOT = 25
const COLD = 2
/** So few groups are soon gone through: the annealing is begun anew so often. */
export const FEW = 60
const REHEATS = 8

/**
 * The best plan that ruin and recreate finds from an empty one.
 *
 * @returns shift of each part; yields its progress every so many rounds
 */
export function* search(
  prepared: Prepared,
  { seed, iterations }: SearchOptions,
): Generator<Progress, { where: Int32Array; cost: number }> {
  const { parts, components } = prepared
  const random = seededRandom(seed)
  const state = scheduleState(prepared)
  // The next day to pass over is drawn ahead, so that most days cost no random number.
  let untilSkip = Infinity
  const placing = inserter(prepared, state, random, () => {
    if (--untilSkip > 0) return false
    untilSkip = Math.ceil(2 * random() * DAYS_BETWEEN_SKIPS)
    return true
  })
  const order = orders(prepared)
  for (const c of order.bySlack([...components.keys()])) placing.insert(c)
  const count = components.length
  if (count === 0) return { where: state.where, cost: state.cost }
  untilSkip = DAYS_BETWEEN_SKIPS

  const { choose, noteDay } = ruins(prepared, state, placing)
  const before = new Int32Array(parts.length)
  const beforeCost = new Int32Array(parts.length)
  const partsOf = (groups: readonly number[], each: (part: number) => void) =>
    groups.forEach((c) => components[c]!.forEach(each))
  const { kept, cost } = yield* ruinAndRecreate(
    {
      cost: () => state.cost,
      choose,
      ruin: (groups) =>
        partsOf(groups, (p) => {
          before[p] = state.where[p]!
          beforeCost[p] = state.ownCosts[p]!
          state.take(p)
        }),
      recreate: (groups, random) => {
        placing.visitCost = scheduleCosts.visit * random()
        for (const c of order.reordered(groups, random)) placing.insert(c)
        placing.closed = undefined
        placing.opened = undefined
      },
      undo: (groups) => {
        partsOf(groups, state.take)
        partsOf(groups, (p) => before[p]! >= 0 && state.put(p, before[p]!, beforeCost[p]!))
      },
      settled: (groups) => groups.forEach(noteDay),
      keep: () => state.where.slice(),
    },
    { hot: HOT, cold: COLD, cycles: count <= FEW ? REHEATS : 1 },
    iterations,
    random,
  )
  return { where: kept, cost }
}

/** In what order groups are put back. */
function orders({ parts, components }: Prepared) {
  const penaltyOf = components.map((own) => own.reduce((sum, p) => sum + parts[p]!.penalty, 0))
  const minutesOf = components.map((own) => own.reduce((sum, p) => sum + parts[p]!.minutes, 0))
  const choicesOf = components.map((own) => Math.min(...own.map((p) => parts[p]!.shifts.length)))
  const density = (c: number) => penaltyOf[c]! / minutesOf[c]! / Math.max(1, choicesOf[c]!)
  const bySlack = (groups: readonly number[]) => [...groups].sort((a, b) => density(b) - density(a) || a - b)
  const byLength = (groups: readonly number[]) =>
    [...groups].sort((a, b) => minutesOf[b]! - minutesOf[a]! || a - b)
  /** Mostly the dearest to leave out for their time first, or the longest, else as the dice fall. */
  function reordered(groups: readonly number[], random: Random): number[] {
    const kind = random()
    if (kind < 0.4) return bySlack(groups)
    if (kind < 0.6) return byLength(groups)
    const shuffled = [...groups]
    for (let i = shuffled.length - 1; i > 0; i--) {
      const j = Math.floor(random() * (i + 1))
      ;[shuffled[i], shuffled[j]] = [shuffled[j]!, shuffled[i]!]
    }
    return shuffled
  }
  return { bySlack, reordered }
}
