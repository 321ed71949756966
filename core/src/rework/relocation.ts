import { sum } from 'd3-array'
import {
  addedBy,
  cheapestSets,
  cutIntoParts,
  dearTriples,
  overWorth,
  overtaken,
  type InParts,
  type Prices,
  type Triple,
  type RowSet,
  type SolveMilp,
} from '../search/index.ts'
import { LEAST_FIT } from '../verdict/index.ts'
import { packedIn } from './packing.ts'

/** What leaves its place and wants another. */
export interface Leaving {
  id: string
  /** Radius of the ground that it takes, metres. */
  radiusM: number
  /** What it is worth to keep: 1 as usual, more for what is rare or dear to somebody. */
  worth: number
  /** How it does where it stands, 0 to 1; null where it cannot stay. */
  fitHere: number | null
}

/** A round of ground that is free, or will be once what stands there has left. */
export interface OpenSpot {
  id: string
  radiusM: number
  /** The planting that must leave first. */
  vacatedBy?: string | undefined
}

/** Destinations are found for so many at once: of more the proof takes too long. */
export const MOST_LEAVING = 60

/** Where everything that leaves could go. */
export interface RelocationProblem {
  leaving: readonly Leaving[]
  spots: readonly OpenSpot[]
  /** How each would do in each spot, 0 to 1, by the order of both; what is below the least that is good enough is not offered. */
  fit: readonly (readonly number[])[]
  /** Destinations that somebody has decided, by planting. */
  decided?: Readonly<Record<string, Destination>> | undefined
}

/** Ways out beside a spot: it stays for now, waits on the bench, is given away, or goes for good. */
export const waysOut = ['stay', 'bench', 'give away', 'gone'] as const
export type WayOut = (typeof waysOut)[number]

/** Where a planting goes. */
export type Destination = { to: 'spot'; spotId: string } | { to: WayOut }

/**
 * What each destination costs, of 100 for the loss of a usual planting. Judgements: a spot costs what it lacks of a perfect fit and the
 * lifting; to stay what it lacks where it stands, and that the place is not as it was wished; the bench its watering and that it waits.
 */
export const relocationCosts = {
  lifting: 5,
  unfit: 60,
  staysUnwanted: 30,
  bench: 35,
  'give away': 55,
  gone: 100,
} as const

/** Where everything goes, and how good that is. */
export interface Relocation {
  destinations: readonly { plantingId: string; destination: Destination; cost: number }[]
  cost: number
  bound: number
  /** How far the cost may lie above the least there is, as a share of it. */
  gap: number
}

/** The least-cost destinations, or why there are none. */
export type RelocationAnswer = ({ ok: true } & Relocation) | { ok: false; why: 'infeasible' | 'limit' }

const isSame = (a: Destination, b: Destination): boolean =>
  a.to === b.to && (a.to !== 'spot' || b.to !== 'spot' || a.spotId === b.spotId)

/** What it costs that a planting goes somewhere; undefined where it cannot. */
function costOf(problem: RelocationProblem, p: number, destination: Destination): number | undefined {
  const { worth, radiusM, fitHere, id } = problem.leaving[p]!
  const decided = problem.decided?.[id]
  if (decided && !isSame(decided, destination)) return undefined
  const c = relocationCosts
  if (destination.to === 'stay')
    return fitHere === null ? undefined : worth * c.unfit * (1 - fitHere) + c.staysUnwanted
  if (destination.to !== 'spot') return worth * c[destination.to]
  const s = problem.spots.findIndex((spot) => spot.id === destination.spotId)
  const spot = problem.spots[s]
  if (!spot || radiusM > spot.radiusM + 1e-9 || !isVacated(problem, spot, id)) return undefined
  const fit = problem.fit[p]![s]!
  // What somebody decides against the advice is theirs to decide, as long as it has room.
  return fit < LEAST_FIT && !decided ? undefined : worth * c.unfit * (1 - fit) + c.lifting
}

/** Whether a spot may become free for somebody: nothing stands there, or what does may go. */
const isVacated = ({ leaving }: RelocationProblem, { vacatedBy }: OpenSpot, forId: string): boolean =>
  vacatedBy === undefined || (vacatedBy !== forId && leaving.some((l) => l.id === vacatedBy))

/** As precise as is worth while, and a count of branches after which what is found stands, with how far it may be out. */
const LIMITS = { gap: 0.001, nodes: 200 }
const NO_MORE = 1e-6

/** Plantings that stand in one spot together, or one that leaves by a way out. */
interface Column extends RowSet {
  /** By their turn. */
  leaving: readonly number[]
  /** The spot that they fill, by its turn. */
  spot: number | undefined
  way: WayOut | undefined
}

/** Where everything goes, by the sets that were chosen. */
interface Sorted {
  columns: readonly Column[]
  cost: number
  bound: number
}

/**
 * Where everything that leaves goes, at the least cost in all: an assignment with room, told by all sets of plantings that stand in a
 * spot side by side. The sets worth having are found by their prices (column generation for generalized assignment; Savelsbergh 1997,
 * Operations Research 45, 831-841); what they come to in parts is raised by triples, which the prices of further sets
 * heed (branch, price and cut; Desaulniers, Desrosiers and Spoorendonk 2011, Networks 58, 301-310); then every set that could still be in
 * a better answer is taken in, and the whole is chosen. Ground that what leaves gives up counts as room once it has left.
 *
 * @returns not ok where what was decided contradicts itself
 */
export function relocate(problem: RelocationProblem, solve: SolveMilp): RelocationAnswer {
  const rows = { once: problem.leaving.length, all: problem.leaving.length + problem.spots.length }
  const rooms = problem.spots.map((_, s) => roomIn(problem, s))
  const columns = new Map(waysOutOf(problem).map((c) => [keyOf(c), c]))
  const add = (found: readonly Column[]) => {
    const before = columns.size
    for (const c of found) columns.set(keyOf(c), c)
    return columns.size > before
  }
  const triples: Triple[] = []
  /** Cut into parts, once no set is seen that would be worth having beside them; proved, where all were looked through. */
  const relax = (isProved: boolean, before?: InParts): InParts | undefined => {
    for (let parts = before; ;) {
      parts = cutIntoParts(rows, [...columns.values()], triples, solve, LIMITS, parts?.basis)
      if (!parts) return undefined
      const { prices } = parts
      const look = (tries?: number) =>
        add(rooms.flatMap((room) => room.worth(prices, -NO_MORE, BEST_SETS, tries)))
      if (!look(FIRST_TRIES) && !(isProved && look())) return parts
    }
  }
  let relaxed = relax(false)
  for (let round = 0; relaxed && round < MOST_ROUNDS; round++) {
    const more = overtaken([...columns.values()], relaxed.share)
    if (more.length === 0) break
    triples.push(...more)
    relaxed = relax(false, relaxed)
  }
  relaxed &&= relax(true, relaxed)
  if (!relaxed) return { ok: false, why: 'limit' }
  if (!relaxed.isFeasible) return { ok: false, why: 'infeasible' }
  const { cost: least, prices } = relaxed
  const outs = problem.leaving.flatMap((_, p) => {
    const ways = [...columns.values()].filter((c) => c.way !== undefined && c.leaving[0] === p)
    return ways.length === 0 ? [] : [ways.reduce((a, b) => (b.cost < a.cost ? b : a))]
  })
  let found: Sorted | undefined
  // Nothing dearer over its prices than what is still to be gained can be in a better answer: with all the rest of them it is the best.
  for (let reach = FIRST_REACH * least; ; reach = found ? found.cost - least + NO_MORE : least) {
    add(rooms.flatMap((room) => room.worth(prices, reach)))
    const all = [...columns.values()]
    const over = overWorth(all, prices)
    const within = all
      .map((column, i) => ({ column, over: over[i]! }))
      .filter((c) => c.over <= reach)
      .sort((x, y) => x.over - y.over)
    const cheapest = within.slice(0, MOST_COLUMNS).map((c) => c.column)
    const among = [...new Set([...cheapest, ...(found?.columns ?? []), ...outs])]
    const best = found && { cost: found.cost, chosen: found.columns.map((c) => among.indexOf(c)) }
    const next = cheapestSets(rows, among, solve, LIMITS, { best, triples })
    // Of the few nearest nothing whole may come at all: then of many more.
    if (!next && (found || reach >= least)) break
    if (!next) continue
    const omitted = within[MOST_COLUMNS]?.over ?? reach
    found = {
      columns: next.chosen.map((i) => among[i]!),
      cost: next.cost,
      bound: Math.min(next.cost, Math.max(least, Math.min(next.bound, least + omitted))),
    }
    if (found.bound >= found.cost * (1 - LIMITS.gap) || omitted < reach || found.cost - least <= reach) break
  }
  if (!found) return { ok: false, why: 'limit' }
  const { columns: chosen, cost, bound } = found
  return {
    ok: true,
    destinations: problem.leaving.map((l, p): Relocation['destinations'][number] => {
      const { spot, way } = chosen.find((c) => c.leaving.includes(p))!
      const destination: Destination =
        spot === undefined ? { to: way! } : { to: 'spot', spotId: problem.spots[spot]!.id }
      return { plantingId: l.id, destination, cost: costOf(problem, p, destination)! }
    }),
    cost,
    bound,
    gap: cost > 0 ? Math.max(0, 1 - bound / cost) : 0,
  }
}

/** How much dearer than its prices a set may be that is chosen from at first, as a share of the least there is. */
const FIRST_REACH = 0.006
/** Ways and sets that are chosen from at most, so that no garden takes minutes: what is left out bounds how good the answer is. */
const MOST_COLUMNS = 2200
/** How often triples are cut off before anything is chosen whole. */
const MOST_ROUNDS = 12
/** Sets of a spot that are taken in at once, and that are tried before all are. */
const BEST_SETS = 4
const FIRST_TRIES = 60

const keyOf = ({ leaving, spot, way }: Column): string => `${spot ?? way} ${leaving.join(' ')}`

const waysOutOf = (problem: RelocationProblem): Column[] =>
  problem.leaving.flatMap((_, p) =>
    waysOut.flatMap((way): Column[] => {
      const cost = costOf(problem, p, { to: way })
      return cost === undefined
        ? []
        : [{ leaving: [p], spot: undefined, way, cost, rows: rowsOut(problem, p, way) }]
    }),
  )

/** The rows that a planting takes by a way out: its own, and, where it stays, those of the ground that it does not give up. */
const rowsOut = ({ leaving, spots }: RelocationProblem, p: number, way: WayOut): number[] => [
  p,
  ...(way === 'stay'
    ? spots.flatMap((s, i) => (s.vacatedBy === leaving[p]!.id ? [leaving.length + i] : []))
    : []),
]

interface Room {
  /**
   * Sets that stand in a spot side by side and cost no more over their prices than so much, the cheapest first.
   *
   * @param many no more of them than this
   * @param tries sets that are tried at most: a first look has enough with few
   */
  worth: (prices: Prices, most: number, many?: number, tries?: number) => Column[]
}

/** The radius of two, three … seven alike rounds in one of radius 1: Graham 1968, Sets of points with given minimum separation. */
const alikeInOne = [1, 0.5, 0.46410162, 0.41421357, 0.3701925, 0.33333334, 0.33333334]

const turnsOf = (set: readonly Could[]): number[] => set.map((m) => m.p).sort((a, b) => a - b)

/** What could stand in a spot. */
function roomIn(problem: RelocationProblem, spot: number): Room {
  const { leaving, spots } = problem
  const { id, radiusM } = spots[spot]!
  const could = leaving.flatMap((l, p) => {
    const cost = costOf(problem, p, { to: 'spot', spotId: id })
    return cost === undefined ? [] : [{ p, cost, r: l.radiusM }]
  })
  const known = new Map<string, boolean>()
  /** Asked of thousands of sets: what is more ground than there is, or too wide side by side, needs no trying. */
  const stand = (set: readonly Could[]): boolean => {
    if (set.length === 1) return true
    let [ground, least, widest, next] = [0, Infinity, 0, 0]
    for (const { r } of set) {
      ground += r * r
      if (r < least) least = r
      if (r > widest) [widest, next] = [r, widest]
      else if (r > next) next = r
    }
    if (ground > radiusM ** 2 || least > (alikeInOne[set.length - 1] ?? 1) * radiusM) return false
    if (widest + next > radiusM + 1e-9) return false
    if (set.length === 2) return true
    const key = turnsOf(set).join(' ')
    const before = known.get(key)
    if (before !== undefined) return before
    const now = packedIn(radiusM, set.map((i) => i.r)) !== undefined // prettier-ignore
    known.set(key, now)
    return now
  }
  return {
    worth: (prices, most, many = Infinity, tries = Infinity) => {
      const { duals } = prices
      const row = leaving.length + spot
      const rowsHere = new Set([row, ...could.map((c) => c.p)])
      const dear = dearTriples(prices).filter(
        ({ triple }) => triple.filter((r) => rowsHere.has(r)).length > 1,
      )
      const addedTo = (set: readonly Could[]) =>
        dear.length === 0 ? 0 : addedBy(dear, [row, ...set.map((m) => m.p)])
      let tried = 0
      const priced = could
        .map((c) => ({ ...c, less: c.cost - duals[c.p]! }))
        .sort((a, b) => a.less / a.r ** 2 - b.less / b.r ** 2)
      /** The least over its price of each and those after it. */
      const leastFrom = new Float64Array(priced.length + 1).fill(Infinity)
      for (let i = priced.length - 1; i >= 0; i--) leastFrom[i] = Math.min(leastFrom[i + 1]!, priced[i]!.less)
      const found: (Column & { less: number })[] = []
      /** What a set may cost to be worth finding still. */
      let worthless = most
      const keep = (set: readonly Could[], less: number) => {
        const turns = turnsOf(set)
        found.push({
          leaving: turns,
          spot,
          way: undefined,
          cost: sum(set, (m) => m.cost),
          rows: [...turns, row],
          less,
        })
        if (found.length < many) return
        found.sort((a, b) => a.less - b.less).splice(many)
        worthless = Math.min(most, found.at(-1)!.less - NO_MORE)
      }
      const set: Could[] = []
      const fill = (from: number, less: number, added: number, left: number) => {
        for (let i = from; i < priced.length; i++) {
          // They come the most worth by their ground first: no set from here on is worth more than what would fill the rest of it. And what
          // triples add to a set they add to all that hold it.
          if (less + added + hoped(priced, leastFrom, i, left) > worthless) break
          const next = priced[i]!
          if (next.r ** 2 > left) continue
          if (tried++ >= tries) return
          set.push(next)
          const [now, more, rest] = [less + next.less, addedTo(set), left - next.r ** 2]
          const isWorth = now + more <= worthless
          const isHoped = now + more + hoped(priced, leastFrom, i + 1, rest) <= worthless
          if ((isWorth || isHoped) && stand(set)) {
            if (isWorth) keep(set, now + more)
            if (isHoped) fill(i + 1, now, more, rest)
          }
          set.pop()
        }
      }
      fill(0, -duals[row]!, 0, radiusM ** 2 + 1e-9)
      return found.sort((a, b) => a.less - b.less)
    },
  }
}

/**
 * The least that one planting more, or several, could still cost, were they cut to fit (the linear bound of a knapsack; Dantzig 1957).
 *
 * @param left squares of radii for which there is ground
 */
function hoped(
  priced: readonly (Could & { less: number })[],
  leastFrom: Float64Array,
  from: number,
  left: number,
): number {
  let cost = 0
  for (let i = from; i < priced.length && left > 0; i++) {
    const { r, less } = priced[i]!
    // Nothing dear is needed beside what is worth having; of what is all dear one is.
    if (less >= 0) return i === from ? leastFrom[from]! : cost
    cost += less * Math.min(1, left / (r * r))
    left -= r * r
  }
  return cost
}

interface Could {
  p: number
  cost: number
  r: number
}

/**
 * What it would cost in all that one planting goes elsewhere, everything else going where that is best then.
 *
 * @returns points over the cost of the answer, none of them less than nothing; undefined where it cannot
 */
export function priceOf(
  problem: RelocationProblem,
  answer: Relocation,
  plantingId: string,
  destination: Destination,
  solve: SolveMilp,
): number | undefined {
  const now = answer.destinations.find((d) => d.plantingId === plantingId)
  if (now && isSame(now.destination, destination)) return 0
  const other = relocate({ ...problem, decided: { ...problem.decided, [plantingId]: destination } }, solve)
  return other.ok ? Math.max(0, other.cost - answer.cost) : undefined
}

/**
 * Of what was decided the moves that cannot be together, none of which may be left out for that (an irreducible infeasible subset by
 * deletion). @returns plantings; empty where all of it can be
 */
export function noRoomFor(problem: RelocationProblem, solve: SolveMilp): string[] {
  const can = (decided: RelocationProblem['decided']) => relocate({ ...problem, decided }, solve).ok
  let left = { ...problem.decided }
  if (can(left)) return []
  for (const id of Object.keys(left)) {
    const { [id]: _, ...without } = left
    if (!can(without)) left = without
  }
  return Object.keys(left)
}

/** By the cheapest choice first, whatever it takes from the rest: what a quick hand would do, to hold the optimum against. */
export function relocatedGreedily(problem: RelocationProblem): Relocation['destinations'] {
  const { leaving, spots } = problem
  const radiiIn = new Map(spots.map((s) => [s.id, [] as number[]]))
  const open: Destination[] = [
    ...spots.filter((s) => !s.vacatedBy).map((s): Destination => ({ to: 'spot', spotId: s.id })),
    ...waysOut.map((to): Destination => ({ to })),
  ]
  const all = leaving
    .flatMap(({ id, radiusM, worth }, p) =>
      open.flatMap((destination) => {
        const cost = costOf(problem, p, destination)
        return cost === undefined
          ? []
          : [{ plantingId: id, radiusM, destination, cost, saved: worth * relocationCosts.gone - cost }]
      }),
    )
    .sort((a, b) => b.saved - a.saved)
  const gone = new Map<string, Relocation['destinations'][number]>()
  for (const { plantingId, radiusM, destination, cost } of all) {
    if (gone.has(plantingId)) continue
    if (destination.to === 'spot') {
      const radii = [...radiiIn.get(destination.spotId)!, radiusM]
      if (!packedIn(spots.find((s) => s.id === destination.spotId)!.radiusM, radii)) continue
      radiiIn.set(destination.spotId, radii)
    }
    gone.set(plantingId, { plantingId, destination, cost })
  }
  return leaving.map((l) => gone.get(l.id)!)
}
