export * from './problems.ts'
export {
  castsShade,
  checkFeature,
  containerRadiusM,
  isPlace,
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
  readPlantings,
  readPoints,
  readWeather,
  type Located,
  type PlantingRow,
  type PlantingSource,
} from './tables.ts'
