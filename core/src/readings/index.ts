export {
  agrees,
  aimOf,
  brightnesses,
  DAPPLED_FROM,
  DAPPLED_TO,
  ERROR_RATE,
  LEAST_ELEVATION_DEG,
  readingFault,
  SHADE_TO,
  sharesPast,
  SUN_FROM,
  type Brightness,
  type Reading,
  type ReadingFault,
} from './reading.ts'
export { blockAsBuilding, type HiddenChange, type NewBlock } from './hypotheses.ts'
export { explainReadings, type Cause, type Explained, type Explanation } from './explain.ts'
export { dayWorthWaitingFor, tellingLooks, tellingOfDays, type Look, type TellingLook } from './telling.ts'
export {
  CLOCK_OUT_HOURS,
  clearSkyLux,
  clockOffsetHours,
  logReadings,
  type LightLog,
  type LogReadings,
  type LuxSample,
} from './logger.ts'
