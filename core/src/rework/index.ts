export {
  nearestStation,
  sitedGarden,
  type GroundToSite,
  type SitedGarden,
  type Station,
  type StationedPlace,
} from './stations.ts'
export {
  suits,
  suitScore,
  whereItSuits,
  whyNotIn,
  type Bound,
  type SuitedPlace,
  type Suiting,
} from './suits.ts'
export { packedIn } from './packing.ts'
export {
  MOST_LEAVING,
  noRoomFor,
  priceOf,
  relocate,
  relocatedGreedily,
  relocationCosts,
  waysOut,
  type Destination,
  type Leaving,
  type OpenSpot,
  type Relocation,
  type RelocationAnswer,
  type RelocationProblem,
  type WayOut,
} from './relocation.ts'
export {
  bloomWeeks,
  comesUpBetween,
  isEvergreen,
  layerOf,
  layers,
  paletteCosts,
  paletteOf,
  type Candidate,
  type DriftCustom,
  type Layer,
  type Palette,
  type PaletteItem,
  type PaletteWishes,
  type WishName,
} from './palette.ts'
export { palettesFor, type PaletteAnswer } from './palettes.ts'
export { candidatesFor, GOOD_FIT } from './candidates.ts'
export { bedLayout } from './bedLayout.ts'
export {
  divisionOf,
  plantingDivided,
  sharedOut,
  type Clump,
  type Division,
  type DivisionAnswer,
  type PlantingDivided,
} from './division.ts'
export {
  grownTo,
  grownWords,
  milestones,
  GROWTH_YEARS,
  openGroundM2,
  sizeAt,
  type GrownTo,
  type Milestones,
  type Size,
} from './growth.ts'
export { openSpots, relocationOf, type GardenRelocation, type LaidSpot } from './openSpots.ts'
export {
  HEIGHT_SLACK_M,
  layoutScore,
  layoutWeights,
  withMatrixCounted,
  type Assignment,
  type LayoutCell,
  type LayoutDrift,
  type LayoutProblem,
  type LayoutScore,
} from './layout.ts'
export { laidGreedily, layOut, type Layout } from './laying.ts'
export { offsetsFrom, positionsOf, type Offset, type SetPlant } from './positions.ts'
export {
  arrange,
  arrangementScore,
  driftsM2,
  middleOfDrift,
  openM2,
  plantsOf,
  unarranged,
  withCount,
  withMatrix,
  withDrawn,
  withDrift,
  withMerged,
  withMirrored,
  withMoved,
  withoutDrift,
  withRepeated,
  withRestFilled,
  withSplit,
  withSwapped,
  type Arrangement,
  type BedGround,
  type Drift,
} from './arrangement.ts'
export { arrangementFrom, groundFrom, groundWritten, type GroundRuns, type KeptDrift } from './groundRuns.ts'
export { fillerKinds, fillingAfter, type FillerKind, type Filling } from './filling.ts'
export { checksOf, REACH_M, SEEN_AS_ONE, type CheckedBy, type CheckName, type LayoutCheck } from './checks.ts'
export {
  PER_POCKET,
  pocketsFor,
  pocketsOf,
  pocketsOfScheme,
  type BulbsBetween,
  type Pocket,
} from './pockets.ts'
export {
  fillerItem,
  materialNames,
  materialUnits,
  packsWords,
  totalsOf,
  wantedWords,
  type ComingIn,
  type GoingOut,
  type Reckoned,
  type SchemeTotals,
  type SpreadLayer,
  type WorkOf,
  type YearOfScheme,
} from './totals.ts'
export {
  flowersOf,
  LEAST_GROUND_M2,
  offeredFor,
  trayFor,
  wishesFor,
  type PlaceToPlant,
  type PlaceWishes,
  type TrayCandidate,
} from './placePalette.ts'
export { driftOutlines, driftStands, type DriftStand } from './driftOutlines.ts'
export { dosed, extrasOf, seasonOfFeeding, type SaidExtras, type SaidReaction } from './extras.ts'
export { plantingTurns, type Plantable, type PlantingTurn } from './plantingTurns.ts'
export { carryingOut, type CarryingOut, type TurnTold } from './carryingOut.ts'
export {
  stepStages,
  type Comes,
  type Goes,
  type Problem,
  type SchemeToCarryOut,
  type Step,
  type StepStage,
} from './step.ts'
export { opposite } from './opposite.ts'
export { stonesFor } from './stones.ts'
export { usualWorth, type Worth } from './worth.ts'
export {
  destinationOf,
  fillerOf,
  isLaidOut,
  kindsOf,
  leavingOf,
  letterOf,
  placeOutline,
  setWords,
  staysOf,
  viewsOf,
  type KindOf,
  type SaidForPaper,
  type SaidKind,
  type SaidLeaving,
  type Went,
  type WentTo,
} from './said.ts'
export {
  hadOf,
  plantingTable,
  pricedItems,
  reckonScheme,
  sidesOf,
  type BaseLine,
  type HadKind,
  type PlacedPlant,
  type ReckonedWith,
} from './reckoning.ts'
export { settingOut, type SettingOut } from './settingOut.ts'
