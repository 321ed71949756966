export { MOST_AWAY_DAYS, planAbsence, type AbsencePlan, type TendedPot } from './absence.ts'
export { fillEnds, fillSeasons, likesWords, type FillEnd, type FillSeason } from './fill.ts'
export {
  aged,
  bagsFor,
  componentNames,
  components,
  LEAST_AIR,
  leftOf,
  madeUp,
  needsLime,
  needsLimeFree,
  recipeFor,
  recipes,
  traitsOf,
  partsFrom,
  usualOfMixes,
  type Component,
  type ComponentName,
  type MixTaxon,
  type MixTraits,
  type PartBought,
  type Recipe,
  type RecipeName,
} from './mix.ts'
export { footOf, liftedBy, weightOf, type Grown, type Weight } from './weight.ts'
export {
  bearsOnStructure,
  faultsOf,
  tipsAt,
  USUAL_FLOOR_KG_PER_M2,
  USUAL_GUST_MS,
  type PotFault,
} from './stability.ts'
export {
  wateringByMonth,
  waterDays,
  waterThrough,
  type Drinking,
  type MonthOfWater,
  type WaterAccount,
  type WaterDay,
  type WateredPot,
} from './potWater.ts'
export { heightInPot, rootBoundAfter, rootsFillOn, sizeInPot, wantedDepthM, type InPot } from './inPot.ts'
export { mixState, type MixFilled, type MixState } from './mixState.ts'
export { feedingOf, spentOn, type PotFeeding } from './feedPot.ts'
export { drainTestFault, testedTraits, type DrainTest } from './drainTest.ts'
export {
  checkKinds,
  felts,
  potFactor,
  type CheckKind,
  type Felt,
  type PotCheck,
  type PotFactor,
} from './potFactor.ts'
export {
  leadingWoody,
  linePoints,
  linePots,
  lineSeasons,
  pottingOn,
  seasonCost,
  windowOfStep,
  type LinePot,
  type LineStep,
  type PottedWoody,
  type PottingOn,
} from './pottingOn.ts'
export { winteringOf, type Wintering } from './wintering.ts'
export { bulbLayers, type BulbLayer } from './bulbLayers.ts'
export { relayOf, savedTo, type RelayAsked, type RelayLeg, type SavedTo } from './relay.ts'
export { bestPotSpots, lightMisses, lightOff, openPoints, type PotSpot } from './potSpots.ts'
export {
  potVerdicts,
  potVerdictsOf,
  type PotEvidence,
  type PotVerdict,
  type PotVerdictName,
} from './potVerdict.ts'
export {
  fills,
  potRoleOf,
  potRoles,
  remarksOn,
  takesM2,
  type Potted,
  type PotRemark,
  type PotRole,
  type PotSite,
} from './fitting.ts'
export {
  costOf,
  countIn,
  fullnesses,
  isHarmless,
  proposalPoints,
  proposeFills,
  rolesIn,
  type Fullness,
  type Proposal,
  type ProposalAsked,
} from './proposals.ts'
export { coldNights, fillAhead, swapWindow, type ColdNight, type FillAhead } from './swap.ts'
export {
  absenceOf,
  DAYS_OF_WATER,
  judgePots,
  lightAtPots,
  MILD_C,
  potsStanding,
  seasonFrom,
  seasonOf,
  sunIn,
  type PotJudgement,
  type PotKnown,
  type PotLight,
  type PotsAbout,
  type PotStanding,
} from './judge.ts'
