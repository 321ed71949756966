export {
  askedJob,
  careJobs,
  isTended,
  materialsOf,
  placeSubject,
  plantingSubject,
  titleOf,
  type CareGarden,
  type MixNew,
  type CareJob,
  type CaredPlanting,
} from './careJobs.ts'
export { decidedJobs, type DecidedWork } from './decidedJobs.ts'
export { measuredLabour, toFiveMinutes, type LabourRecord } from './labour.ts'
export { NO_EDITS, rulesWith, type RuleAdjustment, type RuleEdits } from './adjust.ts'
export { isFollowed, isFor, isOneOf, winterHere, type Subject } from './applies.ts'
export {
  taxonCare,
  explained,
  yearsAbout,
  type CareContext,
  type RuleHere,
  type TaxonCare,
} from './taxonCare.ts'
export { isAtFrostsMercy, unsureWords } from './frost.ts'
export { dayAt, gardenYear, type GardenYear } from './gardenYear.ts'
export { moveWindows, type MoveWindows } from './moveWindows.ts'
export {
  aftercareDays,
  aftercareJobs,
  aftercareWindow,
  MOVED_WATER_EACH,
  diggingCautions,
  moveJobs,
  moveMinutes,
  plantCautions,
  rootBallM,
  stepsByRoot,
  tailDays,
  type JobDraft,
  type LookedAfter,
  type Material,
  type MoveJobs,
  type MoveRequest,
} from './moveJobs.ts'
export { plantingWindows, type PlantingWindows } from './plantingWindows.ts'
export { ruleWindows, type RuleWindow } from './ruleWindows.ts'
export { ownAnchors, ownRule, type OwnRule } from './ownRule.ts'
export * from './rule.ts'
export { careRules } from './rules/index.ts'
export { liquidFeed } from './rules/placeRules.ts'
export {
  followed,
  schoolIds,
  schoolNote,
  schoolOf,
  schools,
  type School,
  type SchoolId,
  type Schools,
} from './schools.ts'
export { anchorWords, appliesWords, forbiddenWords, ruleSentence } from './sentences.ts'
export {
  rootingDays,
  balanceInSeason,
  depletionShare,
  waterBalance,
  type RootingPlant,
  type WaterBalance,
} from './watering.ts'
export { colourOutlook, type ColourOutlook } from './flowerColour.ts'
export { monthDaysWords, nthOfMonth, weekdays, turnsOf } from './turns.ts'
export { openFrom, openWindows, windowAtOnce, windowOf, windowsOf, type Window } from './windows.ts'
