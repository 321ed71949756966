export { actions, alwaysWeighed, isAlwaysWeighed, isLeftAlone, type Action } from './actions.ts'
export { remediesFor, type NoRemedy, type OfferedRemedy } from './offered.ts'
export { type Remedy } from './remedy.ts'
export {
  isColdOn,
  stageOn,
  type Elsewhere,
  type Likely,
  type Opening,
  type Situation,
  type Stage,
} from './situation.ts'
export { remedies } from './table/index.ts'
export { isRemedyWork, remedyJobs, type RemedyRequest } from './work.ts'
