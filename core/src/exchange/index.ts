export * from './problems.ts'
export { checkFeature, planMetres, readPlan, type GardenHead, type Plan } from './plan.ts'
export {
  readLightLog,
  readPlantings,
  readPoints,
  readReadings,
  readSoil,
  readWeather,
  type PlantingRow,
} from './tables.ts'
export { readAs } from './readAs.ts'
export { writeTable, type Located } from './table.ts'
export {
  readObservations,
  writeObservations,
  type ObservationLine,
  type ObservationRow,
} from './observations.ts'
export { readTaxa, writeTaxa } from './taxa.ts'
export { taxonSchema, taxonShape } from './taxonSchema.ts'
export { plantingCsv, shoppingCsv } from './schemeTables.ts'
export { containerAs, readContainers, writeContainers, type ContainerRow } from './containers.ts'
