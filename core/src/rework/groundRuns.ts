import type { Taxon } from '../plants/index.ts'
import type { Arrangement, BedGround, Drift } from './arrangement.ts'
import type { Assignment } from './layout.ts'
import type { StationedPlace } from './stations.ts'

/**
 * The ground of a drift as it is kept: rows of a grid on the plan with the cells that it has of each, from one to another. It is of the
 * plan and not of the bed, so that a bed drawn otherwise keeps what of its drifts still lies in it.
 */
export type GroundRuns = readonly (readonly [row: number, from: number, to: number])[]

/** Which cell of the grid a coordinate lies in. Stations lie as far apart as cells are wide, so that each has its own. */
const cellOf = (metres: number, cellM: number): number => Math.floor(metres / cellM + 1e-6)

/** The ground of every drift of an arrangement, by their turn. */
export function groundWritten(
  { stations }: Pick<StationedPlace, 'stations'>,
  cellM: number,
  has: Assignment,
  drifts: number,
): GroundRuns[] {
  const cells = stations
    .map(({ x, y }, c) => ({ row: cellOf(y, cellM), at: cellOf(x, cellM), k: has[c]! }))
    .sort((a, b) => a.row - b.row || a.at - b.at)
  return Array.from({ length: drifts }, (_, k) => {
    const runs: [number, number, number][] = []
    for (const { row, at } of cells.filter((c) => c.k === k)) {
      const last = runs.at(-1)
      if (last && last[0] === row && last[2] === at - 1) last[2] = at
      else runs.push([row, at, at])
    }
    return runs
  })
}

/** Who has which cell of a bed, from the ground of its drifts as it was kept; what no longer lies in the bed is left out. */
export function groundFrom(
  { stations }: Pick<StationedPlace, 'stations'>,
  cellM: number,
  grounds: readonly (GroundRuns | null)[],
): Assignment {
  const owner = new Map<string, number>()
  grounds.forEach((runs, k) => {
    for (const [row, from, to] of runs ?? []) for (let at = from; at <= to; at++) owner.set(`${row} ${at}`, k)
  })
  return Int16Array.from(stations, ({ x, y }) => owner.get(`${cellOf(y, cellM)} ${cellOf(x, cellM)}`) ?? -1)
}

/** A drift as it is kept: its kind by name, and its ground; null while it has none. */
export interface KeptDrift extends Omit<Drift, 'taxon'> {
  botanical: string
  ground: GroundRuns | null
}

/** Drifts as they lie in a bed, from how they were kept; those of kinds that nobody knows any more are left out. */
export function arrangementFrom(
  { of, cellM }: BedGround,
  drifts: readonly KeptDrift[],
  kindOf: ReadonlyMap<string, Taxon>,
): Arrangement {
  const known = drifts.filter((d) => kindOf.has(d.botanical))
  return {
    drifts: known.map((d) => ({
      id: d.id,
      taxon: kindOf.get(d.botanical)!,
      count: d.count,
      ...(d.isDrawn && { isDrawn: true }),
      ...(d.isMatrix && { isMatrix: true }),
    })),
    has: groundFrom(
      of,
      cellM,
      known.map((d) => d.ground),
    ),
  }
}
