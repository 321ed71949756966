export {
  ruinAndRecreate,
  type Annealing,
  type Progress,
  type Rebuilt,
  type SearchOptions,
} from './ruinAndRecreate.ts'
export { finished } from './finished.ts'
export {
  highsSolver,
  Milp,
  type MilpAnswer,
  type MilpBasis,
  type MilpLimits,
  type MilpTerm,
  type SolveMilp,
} from './milp.ts'
export {
  addedBy,
  cheapestSets,
  cutIntoParts,
  dearTriples,
  overtaken,
  overWorth,
  type Chosen,
  type InParts,
  type Prices,
  type RowSet,
  type SetRows,
  type Triple,
} from './sets.ts'
