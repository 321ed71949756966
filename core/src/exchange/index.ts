export * from './problems.ts'
export {
  castsShade,
  checkFeature,
  containerRadiusM,
  groundOfPlace,
  isPlace,
  litPlaceOf,
  middleOf,
  placeAreaM2,
  placeMoisture,
  placeTexture,
  isTimeZone,
  neededGeometry,
  obstructionOf,
  planMetres,
  readPlan,
  ringOf,
  sceneOf,
  surfaceHeightM,
  type FeatureKind,
  type GardenHead,
  type Geometry,
  type Plan,
  type PlanFeature,
} from './plan.ts'
export {
  plantingSources,
  readLightLog,
  readPlantings,
  readPoints,
  readReadings,
  readSoil,
  readWeather,
  type PlantingRow,
  type PlantingSource,
} from './tables.ts'
export { type Located } from './table.ts'
export {
  readObservations,
  writeObservations,
  type ObservationLine,
  type ObservationRow,
} from './observations.ts'
export { readTaxa, taxonSchema, writeTaxa } from './taxa.ts'
