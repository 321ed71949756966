export {
  boxed,
  changesOf,
  standing,
  type ChangeKind,
  type CrownShape,
  type Growth,
  type Obstruction,
  type ObstructionEvent,
  type Shape,
  type Solid,
} from './obstruction.ts'
export { direction, transmittance, type Direction } from './trace.ts'
export {
  growingSeason,
  halfMonths,
  hoursAt,
  HOT_AFTERNOON_HOURS,
  isHotAfternoon,
  lightClass,
  lightDays,
  meanHours,
  skyViewFactor,
  sunHours,
  type LightClass,
  type LightDay,
  type LightPeriod,
  type LightPoint,
  type Scene,
  type Site,
  type SunHours,
} from './hours.ts'
export { cellCentre, CELL_M, gridOver, lightField, type Grid, type LightField } from './field.ts'
export { causeFinder, changedBetween, usualThen, type LightCause } from './change.ts'
