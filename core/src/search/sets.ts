import { Milp, type MilpBasis, type MilpLimits, type MilpTerm, type SolveMilp } from './milp.ts'

/** Rows that are taken together, or not at all. */
export interface RowSet {
  rows: readonly number[]
  cost: number
}

/** The first rows are each taken once, the others once at most. */
export interface SetRows {
  once: number
  all: number
}

/** Dearer than anything: what a row that has to be taken costs where nothing takes it. */
const UNTAKEN = 1e6

/** Of three rows no more than one chosen set takes two or more. */
export type Triple = readonly [a: number, b: number, c: number]

/** What one more of each row would add to the cost, then of each triple: the duals of sets cut into parts. */
export interface Prices {
  duals: Float64Array
  triples: readonly Triple[]
}

/** Sets chosen at the least cost, by their turn. */
export interface Chosen {
  chosen: readonly number[]
  cost: number
  /** No choice of these sets costs less. */
  bound: number
}

const EVEN = 1e-6
const isEven = (value: number) => Math.abs(value - Math.round(value)) < EVEN

/** Sets cut into parts that take their rows at the least cost. */
export interface InParts {
  cost: number
  /** How much of each set is chosen, 0 to 1. */
  share: Float64Array
  /** Whether they take all rows that have to be taken, which no choice of these sets does otherwise. */
  isFeasible: boolean
  prices: Prices
  basis: MilpBasis | undefined
}

/**
 * What sets that take their rows cost at least, cut into parts.
 *
 * @param triples that are cut off
 * @param from the basis of the same rows with the first of these sets and of these triples
 * @param isBarred sets of which nothing is taken
 * @returns undefined where the solver finds nothing
 */
export function cutIntoParts(
  rows: SetRows,
  sets: readonly RowSet[],
  triples: readonly Triple[],
  solve: SolveMilp,
  limits: MilpLimits,
  from?: MilpBasis,
  isBarred: (turn: number) => boolean = () => false,
): InParts | undefined {
  const found = solve(programmeOf(rows, sets, triples, isBarred), limits, from)
  if (!found.ok) return undefined
  const { cost, values, duals, basis } = found
  return {
    cost,
    share: values.subarray(rows.once),
    isFeasible: values.subarray(0, rows.once).every((lacking) => lacking < EVEN),
    prices: { duals: duals!, triples: [...triples] },
    basis,
  }
}

/** What is lacking of the rows that have to be taken comes first, so that sets that come later change no number. */
function programmeOf(
  { once, all }: SetRows,
  sets: readonly RowSet[],
  triples: readonly Triple[],
  isBarred: (turn: number) => boolean,
): Milp {
  const milp = new Milp()
  const ofRow = Array.from({ length: all }, (_, r): number[] => (r < once ? [milp.amount(UNTAKEN)] : []))
  sets.forEach(({ rows, cost }, i) => {
    const v = milp.amount(cost, isBarred(i) ? 0 : Infinity)
    for (const r of rows) ofRow[r]!.push(v)
  })
  const terms = (of: readonly number[]) => of.map((v): MilpTerm => [v, 1])
  ofRow.forEach((of, r) => milp.row(terms(of), r < once ? 1 : -Infinity, 1))
  const taken = new Uint8Array(once + sets.length)
  for (const triple of triples) {
    const twice: number[] = []
    taken.fill(0)
    for (const r of triple) for (const v of ofRow[r]!) if (++taken[v]! === 2) twice.push(v)
    milp.row(terms(twice), -Infinity, 1)
  }
  return milp
}

/** A triple that makes sets dearer that take two or more of it, and by how much. */
interface DearTriple {
  triple: Triple
  adds: number
}

/** The triples that make sets dearer: a triple is never worth more than nothing. */
export const dearTriples = ({ duals, triples }: Prices): DearTriple[] =>
  triples
    .map((triple, i) => ({ triple, adds: -duals[duals.length - triples.length + i]! }))
    .filter(({ adds }) => adds > EVEN)

/** What triples add to the cost of a set of rows: never less than to a part of it. */
export const addedBy = (dear: readonly DearTriple[], rows: readonly number[]): number =>
  dear.reduce((sum, { triple, adds }) => (takesTwo(rows, triple) ? sum + adds : sum), 0)

/** What each set costs over what its rows and triples are worth: the reduced costs. */
export function overWorth(sets: readonly RowSet[], prices: Prices): number[] {
  const dear = dearTriples(prices)
  return sets.map(({ rows, cost }) =>
    rows.reduce((over, r) => over - prices.duals[r]!, cost + addedBy(dear, rows)),
  )
}

const takesTwo = (rows: readonly number[], triple: Triple): boolean => {
  let taken = 0
  for (const r of triple) if (rows.includes(r) && ++taken === 2) return true
  return false
}

interface Pair {
  rows: readonly [a: number, b: number]
  /** How much of the sets takes both, 0 to 1. */
  share: number
}

/** The rows that are taken together, with how much of the sets takes them so. */
function pairsOf(sets: readonly RowSet[], share: Float64Array): Map<string, Pair> {
  const pairs = new Map<string, Pair>()
  sets.forEach(({ rows }, i) => {
    if (share[i]! < EVEN) return
    rows.forEach((a, k) =>
      rows.slice(k + 1).forEach((b) => {
        const pair = pairs.get(keyOf(a, b))
        if (pair) pair.share += share[i]!
        else pairs.set(keyOf(a, b), { rows: a < b ? [a, b] : [b, a], share: share[i]! })
      }),
    )
  })
  return pairs
}

const keyOf = (a: number, b: number) => (a < b ? `${a} ${b}` : `${b} ${a}`)

/** How far over one the sets of a triple must come to for it to be worth a row, and how many get one at once. */
const LEAST_OVER = 0.02
const TRIPLES_AT_ONCE = 40

/**
 * Some triples of rows of which sets, chosen in part, take two or more over once in all, the most over first: cut off by subset-row
 * inequalities (Jepsen, Petersen, Spoorendonk and Pisinger 2008, Operations Research 56, 497-511).
 *
 * @param share how much of each set is chosen, 0 to 1
 */
export function overtaken(sets: readonly RowSet[], share: Float64Array): Triple[] {
  const pairs = pairsOf(sets, share)
  const beside = new Map<number, number[]>()
  for (const { rows } of pairs.values())
    for (const [a, b] of [rows, rows.toReversed() as [number, number]])
      beside.set(a, [...(beside.get(a) ?? []), b])
  const used = sets.flatMap(({ rows }, i) => (share[i]! < EVEN ? [] : [{ rows, share: share[i]! }]))
  const of = (a: number, b: number) => pairs.get(keyOf(a, b))?.share ?? 0
  const found: { triple: Triple; over: number }[] = []
  for (const [b, next] of beside)
    for (const a of next)
      for (const c of next) {
        // Of a triple two pairs at least are taken; where all three are it is met from each of its rows, and kept from the middle one.
        if (a >= c || (pairs.has(keyOf(a, c)) && (b < a || b > c))) continue
        const pairwise = of(a, b) + of(b, c) + of(a, c)
        if (pairwise - 1 <= LEAST_OVER) continue
        const all = used
          .filter(({ rows }) => rows.includes(a) && rows.includes(b) && rows.includes(c))
          .reduce((sum, u) => sum + u.share, 0)
        const over = pairwise - 2 * all - 1
        if (over > LEAST_OVER) found.push({ triple: [a, b, c], over })
      }
  return found
    .sort((x, y) => y.over - x.over)
    .slice(0, TRIPLES_AT_ONCE)
    .map((f) => f.triple)
}

/** Whether a set is left where two rows are taken by one set, or by none both: Ryan and Foster 1981, in Computer Scheduling of Public Transport, 269-280. */
const isKept = ({ rows }: RowSet, [a, b]: Pair['rows'], isTied: boolean): boolean =>
  isTied ? rows.includes(a) === rows.includes(b) : !(rows.includes(a) && rows.includes(b))

/** Of rows that are taken together in part those to branch on; undefined where sets are chosen whole. */
function halfTied(sets: readonly RowSet[], share: Float64Array): Pair['rows'] | undefined {
  const parts = [...pairsOf(sets, share).values()].filter((p) => !isEven(p.share))
  return parts.sort((x, y) => Math.abs(x.share - 0.5) - Math.abs(y.share - 0.5))[0]?.rows
}

/** What is chosen from, once it has been decided of some rows whether they are taken together. */
interface Open {
  sets: readonly number[]
  bound: number
  depth: number
  basis: MilpBasis | undefined
}

/** How often triples are cut off: of all sets, and of what is chosen from further down. */
const ROUNDS = 25
const DEEPER_ROUNDS = 2

/**
 * The sets that take their rows at the least cost, by branch and cut: what sets cost cut into parts is raised by triples, then two rows
 * are taken together or apart. Down to a whole choice at first; from then on what could cost least first. What costs more over what its
 * rows are worth than is still to be gained is chosen from no more.
 *
 * @param known a choice that is known already, by turns, and triples that have helped
 * @param limits by how much more it may cost than the least there is, as a share, and how many times it is branched
 * @returns undefined where nothing is found within the limits
 */
export function cheapestSets(
  rows: SetRows,
  sets: readonly RowSet[],
  solve: SolveMilp,
  limits: MilpLimits,
  known: { best?: Omit<Chosen, 'bound'> | undefined; triples?: readonly Triple[] } = {},
): Chosen | undefined {
  const triples = [...(known.triples ?? [])]
  let best: Omit<Chosen, 'bound'> | undefined = known.best
  let open: Open[] = [{ sets: sets.map((_, i) => i), bound: -Infinity, depth: 0, basis: undefined }]
  /** The least that could still be in what is looked into no more. */
  let closed = Infinity
  const isWorth = (bound: number) => {
    if (best === undefined || bound < best.cost * (1 - limits.gap)) return true
    closed = Math.min(closed, bound)
    return false
  }
  const look = ({ sets: turns, bound, depth, basis: before }: Open): Open[] => {
    const left = new Set(turns)
    const isBarred = (i: number) => !left.has(i)
    let basis = before
    for (let round = 0; ; round++) {
      const parts = cutIntoParts(rows, sets, triples, solve, limits, basis, isBarred)
      // What the solver could not tell may still cost what is known of it so far.
      if (!parts) closed = Math.min(closed, bound)
      if (!parts?.isFeasible || !isWorth(parts.cost)) return []
      basis = parts.basis
      const pair = halfTied(sets, parts.share)
      if (!pair) {
        best = { chosen: turns.filter((i) => parts.share[i]! > 0.5), cost: parts.cost }
        return []
      }
      const more = round < (depth === 0 ? ROUNDS : DEEPER_ROUNDS) ? overtaken(sets, parts.share) : []
      triples.push(...more)
      if (more.length > 0) continue
      const gain = best === undefined ? Infinity : best.cost - parts.cost
      const over = overWorth(sets, parts.prices)
      return [true, false].map((isTied) => ({
        sets: turns.filter((i) => over[i]! < gain && isKept(sets[i]!, pair, isTied)),
        bound: parts.cost,
        depth: depth + (isTied ? 1 : 0.5),
        basis,
      }))
    }
  }
  for (let looked = 0; open.length > 0 && looked < limits.nodes; looked++) {
    const isSooner = (x: Open, y: Open) =>
      best || x.depth === y.depth ? x.bound < y.bound : x.depth > y.depth
    const next = open.reduce((x, y) => (isSooner(y, x) ? y : x))
    open = [...open.filter((n) => n !== next), ...look(next)].filter((n) => isWorth(n.bound))
  }
  return best && { ...best, bound: Math.min(best.cost, closed, ...open.map((n) => n.bound)) }
}
