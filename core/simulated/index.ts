/** Gardens, seasons and loggers that do not exist, whose truth is known: for tests, for measuring, for the demo. */
export { hideChange, lookAt, type HiddenScene, type SimulatedChange } from './hiddenChange.ts'
export { simulateLog } from './log.ts'
export { sampleScene, type SampleScene } from './scene.ts'
export { smallGraph } from './smallGraph.ts'
export { simulatedSeason, type SimulatedSeason } from './season.ts'
export { troubledGarden, type Simulation, type TroubledGarden } from './troubledGarden.ts'
export { thinRecord, type ThinRecord } from './thinRecord.ts'
export { simulatedSurvey } from './survey.ts'
