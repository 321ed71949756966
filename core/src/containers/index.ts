export { MOST_AWAY_DAYS, planAbsence, type AbsencePlan, type TendedPot } from './absence.ts'
export { fillEnds, fillSeasons, type FillEnd, type FillSeason } from './fill.ts'
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
export { heightInPot, sizeInPot, type InPot } from './inPot.ts'
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
  countIn,
  proposalPoints,
  proposeFills,
  rolesIn,
  type Proposal,
  type ProposalAsked,
} from './proposals.ts'
export { coldNights, fillAhead, type ColdNight, type FillAhead } from './swap.ts'
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
  type PotLight,
  type PotsAbout,
  type PotStanding,
} from './judge.ts'
