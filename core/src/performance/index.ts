export { theilSen, median } from './theilSen.ts'
export {
  countHistory,
  followedPlants,
  survivalOf,
  survivingAt,
  type CountHistory,
  type Followed,
  type SurvivalStep,
} from './survival.ts'
export { mixedModel, type Effect, type Factor as ModelFactor, type MixedModel } from './mixedModel.ts'
export {
  bloomStages,
  ratingWords,
  stageOfPhase,
  type BloomStage,
  type RecordedPlanting,
  type Seen,
} from './seen.ts'
export {
  isSettling,
  seasonScores,
  settlingAllowance,
  type SeasonScore,
  type YearOfSeason,
} from './seasons.ts'
export { declineOf, type Decline } from './decline.ts'
export { gardenRecord, type GardenRecord } from './record.ts'
export {
  ratingPrior,
  recordModel,
  recordSources,
  type Expected,
  type KeyedEffect,
  type RecordModel,
  type RecordSource,
  type SourceOrChance,
  type SourceShare,
  type Untold,
} from './recordModel.ts'
export { cannotTell, sharesSaid, type CannotTell, type RecordNames } from './recordWords.ts'
export {
  unseenOf,
  bestOfPlace,
  likelyRange,
  Z90,
  taxonRecords,
  trialProposal,
  type Unseen,
  type SpotRecord,
  type Rank,
  type TaxonRecord,
  type TrialProposal,
} from './judge.ts'
export {
  bloomGaps,
  bloomOfPlace,
  bloomsSeen,
  LEAST_COVER,
  showiness,
  looksOfShow,
  weeksOfShow,
  weekStarts,
  type BloomGap,
  type BloomingPlanting,
  type BloomSeen,
  type BloomWeek,
} from './bloom.ts'
export {
  treatmentEffects,
  treatments,
  type Treatment,
  type TreatmentEffect,
  type TreatmentKind,
} from './treatments.ts'
