export { isSign, signParts, signs, signWords, type SignId, type SignPart } from './signs.ts'
export {
  causeWords,
  checks,
  editedLikelihoods,
  isSiteCause,
  likelihoods,
  ownCauses,
  signCauses,
  siteCauses,
  type Likelihood,
  type LikelihoodEdit,
  type OwnCause,
  type SignCause,
  type SiteCause,
} from './likelihoods.ts'
export {
  diagnose,
  isExplained,
  suspectedChanges,
  susceptibility,
  type Diagnosis,
  type RankedCause,
  type SignedPlanting,
  type SuspectedChange,
} from './diagnose.ts'
