export {
  boxed,
  changedBetween,
  changesOf,
  frozen,
  isInLeaf,
  standing,
  type ChangeKind,
  type CrownShape,
  type Growth,
  type Obstruction,
  type ObstructionEvent,
  type Shape,
  type Solid,
  type TreeRecord,
} from './obstruction.ts'
export { direction, LEVEL, pastSolid, transmittance, type Direction, type Ground } from './trace.ts'
export {
  dappledShare,
  daysOf,
  growingSeason,
  halfMonths,
  hoursAt,
  hoursGainedBy,
  HOT_AFTERNOON_HOURS,
  isHotAfternoon,
  lightClass,
  lightWords,
  lightDays,
  meanHours,
  replacedHours,
  skyViewFactor,
  sunHours,
  type Alternatives,
  type Compared,
  type LightClass,
  type LightDay,
  type LightPeriod,
  type LightPoint,
  type Replaced,
  type Scene,
  type Site,
  type SunHours,
} from './hours.ts'
export { CELL_M, cellAt, rasterOver, type Raster } from './raster.ts'
export { lightField, lightFieldsOn, LightStage, replacedLight, type FieldHours } from './field.ts'
export {
  cellHours,
  gardenField,
  gardenFieldsOn,
  hoursWithin,
  plotsOf,
  potHours,
  type GardenField,
  type LitBed,
  type LitPlace,
  type LitPot,
  type Plot,
} from './garden.ts'
export { causesOf, fieldsBetween, usualThen, type FieldsBetween, type LightCause } from './change.ts'
export { supposed, withSuppositions, yearsLater, type Supposition } from './supposition.ts'
export { pointSky, type PointSky } from './sky.ts'
export { directionAt, momentsOf, shadowsAt, type Moment, type Shadow } from './moment.ts'
