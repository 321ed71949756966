export {
  FIT_TOLERANCE_HOURS,
  fitOf,
  fitScore,
  isOutside,
  lightFit,
  moistureWord,
  type Fit,
  type LightFit,
  type Spot,
  type SuspectedMoisture,
} from './fit.ts'
export { openings, type Openings } from './openings.ts'
export {
  bestSpots,
  hasRoom,
  LEAST_FIT,
  spotField,
  type LitPoint,
  type SearchedPlace,
  type SpotField,
  type SpotOption,
} from './spots.ts'
export {
  type Condition,
  causeClause,
  causeSentence,
  lightRange,
  verdictFor,
  type RuledOut,
  type Term,
  type Verdict,
  type VerdictInput,
} from './verdict.ts'
export {
  assessGarden,
  freeSpots,
  type FreeSpots,
  gardenLight,
  placesLight,
  plantingsLight,
  type PlacesLight,
  hoursOf,
  judgeGarden,
  suspectedMoisture,
  type GardenLight,
  groundTaken,
  type Assessment,
  type JudgedGarden,
} from './assess.ts'
export {
  actionOn,
  decisionInForce,
  goesElsewhere,
  newSince,
  openVerdicts,
  wordOn,
  type Decided,
} from './decided.ts'
export { joinLight, lightParts } from './lightParts.ts'
export {
  comingChanges,
  effectsBetween,
  whatIfEffects,
  lightEffects,
  type ComingChange,
  type WhatIfEffect,
  type LightEffect,
} from './ahead.ts'
export { gapFillers, isSeasonal, whyNotThere, type FilledPlace, type Filler } from './fillers.ts'
export { crowdingOf, grownGround, weeksAlone, type Crowding } from './crowding.ts'
export {
  isOfConsequence,
  succession,
  successorJob,
  type Ailing,
  type KnownKinds,
  type Succession,
  type SuccessorChoice,
} from './succession.ts'
export { plantPrices, type PlantPrices } from './money.ts'
