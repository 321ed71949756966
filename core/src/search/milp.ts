import type { BasisStatus, Highs } from 'highs'

/** A variable with what it is multiplied by. */
export type MilpTerm = readonly [variable: number, by: number]

/** A mixed-integer linear programme, to be made as cheap as it can be. It is built from numbers, never from names. */
export class Milp {
  readonly costs: number[] = []
  readonly most: number[] = []
  readonly whole: boolean[] = []
  readonly low: number[] = []
  readonly high: number[] = []
  private readonly starts: number[] = [0]
  private readonly indices: number[] = []
  private readonly by: number[] = []

  /** Yes or no. @returns its number */
  binary(cost = 0): number {
    return this.add(cost, 1, true)
  }

  /** From 0 to the most. @returns its number */
  amount(cost = 0, most = Infinity): number {
    return this.add(cost, most, false)
  }

  /** What terms come to lies between two bounds; either may be infinite. */
  row(terms: readonly MilpTerm[], low: number, high: number): void {
    for (const [variable, by] of terms) {
      this.indices.push(variable)
      this.by.push(by)
    }
    this.starts.push(this.indices.length)
    this.low.push(low)
    this.high.push(high)
  }

  /** The rows by their starts, as solvers take them. */
  matrix(): {
    format: 'csr'
    numRows: number
    numCols: number
    starts: number[]
    indices: number[]
    values: number[]
  } {
    return {
      format: 'csr',
      numRows: this.low.length,
      numCols: this.costs.length,
      starts: this.starts,
      indices: this.indices,
      values: this.by,
    }
  }

  private add(cost: number, most: number, isWhole: boolean): number {
    this.most.push(most)
    this.whole.push(isWhole)
    return this.costs.push(cost) - 1
  }
}

/** How a solver held each variable and each row of amounts in its answer, as it codes that. */
export interface MilpBasis {
  variables: Int32Array
  rows: Int32Array
}

/** What a solver found. */
export type MilpAnswer =
  | {
      ok: true
      /** By the number of the variable; yes is 1 and no 0 exactly. */
      values: Float64Array
      cost: number
      /** Nothing costs less than this. */
      bound: number
      /** How far the cost may lie above the least, as a share of it. */
      gap: number
      /** Of amounts alone: what one more on the right of each row would add to the cost, by the order of the rows. */
      duals: Float64Array | undefined
      /** Of amounts alone: what a programme that is made from this one may be begun from. */
      basis: MilpBasis | undefined
    }
  | { ok: false; why: 'infeasible' | 'limit' }

/** How well it is to be solved: by shares and counts, never by the clock, so that the same programme has the same answer. */
export interface MilpLimits {
  /** It may stop when no more than this share is to be gained. */
  gap: number
  /** Or no more than so much of the cost. */
  gapCost?: number
  nodes: number
}

/**
 * Solves a programme in the thread that it is called in.
 *
 * @param from where to begin: the basis of a programme of amounts that had the first of these variables and of these rows
 */
export type SolveMilp = (milp: Milp, limits: MilpLimits, from?: MilpBasis) => MilpAnswer

/** HiGHS says so of a solution that keeps to every row. */
const FEASIBLE = 2

/** HiGHS (Huangfu and Hall 2018, Mathematical Programming Computation 10, 119-142) as it has been loaded. */
export const highsSolver =
  (highs: Highs): SolveMilp =>
  (milp, limits, from) =>
    highs.withModel((model): MilpAnswer => {
      model.options.set({
        output_flag: false,
        mip_rel_gap: limits.gap,
        mip_abs_gap: limits.gapCost ?? 1e-6,
        mip_max_nodes: limits.nodes,
        // Of amounts alone what makes hard ones easier takes longer than solving them.
        ...(!milp.whole.includes(true) && { presolve: 'off' }),
      })
      model.passModel({
        numCols: milp.costs.length,
        numRows: milp.low.length,
        colCost: milp.costs,
        colLower: milp.costs.map(() => 0),
        colUpper: milp.most,
        rowLower: milp.low,
        rowUpper: milp.high,
        matrix: milp.matrix(),
        integrality: milp.whole.map((isWhole) => (isWhole ? 1 : 0)),
      })
      const { lower, basic } = highs.constants.basisStatus
      if (from)
        model.setBasis({
          colStatus: milp.costs.map((_, i) => (from.variables[i] ?? lower) as BasisStatus),
          rowStatus: milp.low.map((_, i) => (from.rows[i] ?? basic) as BasisStatus),
        })
      model.run()
      const { optimal, infeasible } = highs.constants.modelStatus
      const status = model.getModelStatus()
      if (status === infeasible) return { ok: false, why: 'infeasible' }
      // At a limit nothing found looks like all zeros.
      if (status !== optimal && Number(model.info.get('primal_solution_status')) !== FEASIBLE)
        return { ok: false, why: 'limit' }
      const solution = model.getSolution()
      const values = Float64Array.from(solution.colValue, (v, i) =>
        milp.whole[i] ? Math.max(0, Math.round(v)) : v,
      )
      const isWhole = milp.whole.includes(true)
      const cost = model.getObjectiveValue()
      const basis = isWhole ? undefined : model.getBasis()
      return {
        ok: true,
        values,
        cost,
        bound: isWhole ? Number(model.info.get('mip_dual_bound')) : cost,
        gap: isWhole ? Math.max(0, Number(model.info.get('mip_gap'))) : 0,
        duals: isWhole ? undefined : Float64Array.from(solution.rowDual),
        basis: basis && {
          variables: basis.colStatus,
          rows: basis.rowStatus,
        },
      }
    })
