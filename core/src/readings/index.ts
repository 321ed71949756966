export {
  agrees,
  aimOf,
  brightnesses,
  ERROR_RATE,
  LEAST_ELEVATION_DEG,
  readingFault,
  type Brightness,
  type Reading,
  type ReadingFault,
} from './reading.ts'
export { blockAsBuilding, type HiddenChange, type NewBlock } from './hypotheses.ts'
export { explainReadings, type Cause, type Explained, type Explanation } from './explain.ts'
export { tellingLooks, type Look, type TellingLook } from './telling.ts'
export { hideChange, lookAt, type HiddenScene, type SimulatedChange } from './simulate.ts'
export {
  CLOCK_OUT_HOURS,
  clearSkyLux,
  clockOffsetHours,
  logReadings,
  simulateLog,
  type LightLog,
  type LogReadings,
  type LuxSample,
} from './logger.ts'
