import type { Random } from '../random/index.ts'

/** How a search goes: from which seed, over how many rounds. */
export interface SearchOptions {
  seed: number
  /** A fixed budget: never the clock, so that the same input gives the same result. */
  iterations: number
}

/** How far a search has come. */
export interface Progress {
  done: number
  of: number
  /** The least found so far. */
  cost: number
}

/** A solution that can be taken apart and put together again, in place. Its pieces are numbered. */
export interface Rebuilt<Kept> {
  /** What it costs as it stands. */
  cost: () => number
  /** The pieces to take out next: near one another in whatever sense makes it worth building them anew together. */
  choose: (random: Random) => readonly number[]
  /** Takes the pieces out, and remembers where they were. */
  ruin: (pieces: readonly number[]) => void
  /** Puts them back as well as it can; some may stay out. */
  recreate: (pieces: readonly number[], random: Random) => void
  /** Puts them where they were before they were taken out. */
  undo: (pieces: readonly number[]) => void
  /** After a round, whichever way it went. */
  settled?: (pieces: readonly number[]) => void
  /** A copy of it as it stands. */
  keep: () => Kept
}

/** Temperatures of the annealing, in units of cost, and how often it is begun anew. */
export interface Annealing {
  hot: number
  cold: number
  cycles: number
}

/** Rounds between two words on how far it has come. */
const STEP = 500

/**
 * Ruin and recreate (Schrimpf, Schneider, Stamm-Wilbrandt and Dueck 2000, Journal of Computational Physics 159, 139-171)
 * under simulated annealing with geometric cooling, seeded.
 *
 * @param random drawn from in a fixed order: the same solution, options and stream give the same result
 * @returns the best solution met and its cost; yields its progress every 500 rounds
 */
export function* ruinAndRecreate<Kept>(
  solution: Rebuilt<Kept>,
  { hot, cold, cycles }: Annealing,
  iterations: number,
  random: Random,
): Generator<Progress, { kept: Kept; cost: number }> {
  let best = { kept: solution.keep(), cost: solution.cost() }
  const cycle = Math.ceil(iterations / cycles)
  const cooling = Math.pow(cold / hot, 1 / Math.max(1, cycle))
  let temperature = hot
  for (let round = 0; round < iterations; round++) {
    if (round % STEP === 0) yield { done: round, of: iterations, cost: best.cost }
    if (round % cycle === 0) temperature = hot
    temperature *= cooling
    const pieces = solution.choose(random)
    const before = solution.cost()
    solution.ruin(pieces)
    solution.recreate(pieces, random)
    const worse = solution.cost() - before
    if (worse > 0 && random() >= Math.exp(-worse / temperature)) solution.undo(pieces)
    else if (solution.cost() < best.cost) best = { kept: solution.keep(), cost: solution.cost() }
    solution.settled?.(pieces)
  }
  return best
}
